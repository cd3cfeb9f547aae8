"""The pre-charge of a visit: from what was found to what is to be left, as this gauge shows it
today."""

from typing import Literal

from zerodip.kinds.steps import GAUGE_AT_ZERO
from zerodip.kinds.visit_parts import AirView, air_now, air_reads_as_gauge, bladder_burst
from zerodip.kinds.water.figures import WaterFigures
from zerodip.physics.bladder_tank import air_to_add_m3
from zerodip.rules.engine import exceeds
from zerodip.units import PSI, number, text
from zerodip.visit.log import Log
from zerodip.visit.slots import (
    AIR_LEFT,
    FOUND_PRE_CHARGE,
    INFLATOR,
    NEW_AIR,
)

__all__ = ["air_view"]


def air_view(figures: WaterFigures, log: Log, units: str) -> AirView:
    """The pre-charge step. The gauge's own error and today's temperature are taken into the target.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The step.

    Source: The gas law; what a low find means: common practice, no source.
    """
    target = figures.set_now_pa
    shown = target - log.low_by(AIR_LEFT)
    slot = air_now(log)
    found, left, flow = log.value(slot), log.value(AIR_LEFT), log.value(INFLATOR)
    new = slot is NEW_AIR
    step = None if found is None else shown - float(found)
    air = (
        None
        if step is None
        else air_to_add_m3(figures.nominal_m3, 0.0, step, figures.atmosphere_pa)
    )
    minutes = air / float(flow) / 60 if air is not None and flow and air > 0 else None
    near, shut = figures.way_tolerance_pa, _shut(log)
    target_says = _target(figures, shown, log.low_by(AIR_LEFT), units)
    does = _NEW if new and step is None else _step(step, air, minutes, near, units)
    return AirView(
        found_gauge_pa=found,
        target_gauge_pa=shown,
        air_m3=air,
        minutes=minutes,
        left_gauge_pa=left,
        near_pa=near,
        right=not bladder_burst(log) and left is not None and abs(float(left) - shown) <= near,
        says=_SHUT_SAYS.get(shut, "").format(read=_read(log, units)) or f"{target_says} {does}",
        means="" if new else _means(figures, log, units),
        shut=shut,
        new=new,
    )


_NEW = "New tank: read its air before water goes in. Tanks come with about 38 psi."
_SHUT_SAYS = {
    "burst": "Set no air: the bladder is burst, and the tank is finished.",
    "undrained": (
        "The air valve showed {read}, as the gauge did: the tank was not drained. Drain it until"
        " the gauge stands at zero, then read the air again."
    ),
}


def _shut(log: Log) -> Literal["", "burst", "undrained"]:
    """Why no air is to be set: a burst bladder, or a reading that is the system's pressure."""
    if bladder_burst(log):
        return "burst"
    if air_reads_as_gauge(log) and not log.confirmed(GAUGE_AT_ZERO.id):
        return "undrained"
    return ""


def _read(log: Log, units: str) -> str:
    found = log.value(FOUND_PRE_CHARGE)
    return "" if found is None else text(float(found), "pressure", units)


def _target(figures: WaterFigures, shown: float, low: float, units: str) -> str:
    why = []
    if abs(low) >= 1:
        why.append(
            f"it shows {text(abs(low), 'pressure', units)} too {'little' if low > 0 else 'much'}"
        )
    site = figures.system.site
    if figures.today_pa is not None and abs(figures.today_pa - figures.pre_charge_pa) > 0.05 * PSI:
        mean = text(figures.pre_charge_pa, "pressure", units)
        now, then = (text(each, "temperature", units) for each in (site.now_k, site.mean_k))
        why.append(f"today at {now}; {mean} at the season's mean, {then}")
    reasons = f" ({'; '.join(why)})" if why else ""
    return f"Set {text(shown, 'pressure', units)} on this gauge, tank drained, power off{reasons}."


def _step(
    step: float | None, air: float | None, minutes: float | None, near: float, units: str
) -> str:
    if step is None or air is None:
        return "Read the drained pre-charge first."
    if abs(step) <= near:
        return "It is as it should be."
    way = "Add" if step > 0 else "Let out"
    time = f", about {minutes:.1f} min with this inflator" if minutes is not None else ""
    much = (
        f"{text(abs(step), 'pressure', units)}: {text(abs(air), 'air_volume', units)} of free air"
    )
    return f"{way} {much}{time}. Then read again."


def _means(figures: WaterFigures, log: Log, units: str) -> str:
    """What a low find means: 1–2 psi a year is usual, 10 psi is a leak, water at the valve a
    burst."""
    if bladder_burst(log):
        return "Adding air does not help; replace the tank."
    found = log.true(FOUND_PRE_CHARGE)
    if found is None or figures.last_pa is None:
        return ""
    warm = figures.charge_at_pa(figures.site.mean_k, figures.site.now_k, found)
    lost = figures.last_pa - (found if warm is None else warm)
    if not exceeds(found, figures.leak_found_pa):
        return "So low a find is a leak: soap the valve and the seams before adding air."
    if figures.last_years_ago and lost / figures.last_years_ago > figures.usual_loss_pa_per_year:
        much = f"{text(lost, 'pressure', units)} lost in {_years(figures.last_years_ago)}"
        return f"{much} is more than usual; check again in half the time."
    return f"{usual_loss(units)} lost in a year is usual." if lost > 0 else ""


def usual_loss(units: str) -> str:
    """1 to 2 psi, in the units asked for. Source: common practice, no source."""
    return f"{number(PSI, 'pressure', units)} to {text(2 * PSI, 'pressure', units)}"


def _years(count: float) -> str:
    return "a year" if abs(count - 1) < 0.05 else f"{count:.2g} years"
