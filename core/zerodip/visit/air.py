"""The pre-charge step: from what was found to what is to be left, as this gauge shows it today."""

from dataclasses import dataclass

from ..facts import Facts, WaterFacts
from ..system import BLADDER_KINDS
from ..tanks.bladder import air_to_add_m3
from ..units import PSI, text
from .records import AIR_GAUGE, Log

__all__ = ["AirView", "air_view"]


@dataclass(frozen=True, kw_only=True)
class AirView:
    """The pre-charge: from what was found to what is to be left (Pa gauge, as this gauge shows it), free air (m³; negative: to
    let out), minutes with this inflator, what a low find means, whether it is right."""

    found_gauge_pa: float | None
    target_gauge_pa: float
    air_m3: float | None
    minutes: float | None
    left_gauge_pa: float | None
    right: bool
    says: str
    means: str


def air_view(facts: Facts, log: Log, units: str) -> AirView | None:
    """The pre-charge step, on systems that have one. The gauge's own error and today's temperature are taken into the target."""
    target = _charge_target(facts)
    if target is None or not isinstance(facts, WaterFacts):
        return None
    low = log.low_by(AIR_GAUGE)
    found, left, flow = log.value("found.pre_charge"), log.value("air.left"), log.value("air.inflator")
    shown = target - low
    step = None if found is None else shown - float(found)
    air = None if step is None else air_to_add_m3(facts.nominal_m3, 0.0, step, facts.atmosphere_pa)
    minutes = air / float(flow) / 60 if air is not None and flow and air > 0 else None
    means = _air_means(facts, log.true("found.pre_charge"), log, units)
    right = left is not None and abs(float(left) - shown) <= max(0.5 * PSI, 0.25 * facts.gauge_error_pa)
    return AirView(
        found_gauge_pa=found, target_gauge_pa=shown, air_m3=air, minutes=minutes, left_gauge_pa=left, right=right,
        says=_air_says(step, air, minutes, shown, low, facts, units), means=means,
    )  # fmt: skip


def _charge_target(facts: Facts) -> float | None:
    if not isinstance(facts, WaterFacts) or facts.kind not in BLADDER_KINDS:
        return None
    return facts.pre_charge_pa if facts.today_pa is None else facts.today_pa


def _air_says(
    step: float | None,
    air: float | None,
    minutes: float | None,
    shown: float,
    low: float,
    facts: WaterFacts,
    units: str,
) -> str:
    target = f"Set {text(shown, 'pressure', units)} on this gauge, tank drained, power off"
    why = [] if abs(low) < 1 else [f"it reads {text(abs(low), 'pressure', units)} {'low' if low > 0 else 'high'}"]
    if facts.today_pa is not None and abs(facts.today_pa - facts.pre_charge_pa) > 0.05 * PSI:
        why.append(
            f"today's temperature asks for that, to be {text(facts.pre_charge_pa, 'pressure', units)} at the season's mean"
        )
    target += f" ({'; '.join(why)})." if why else "."
    if step is None or air is None:
        return f"{target} Read the drained pre-charge first."
    if abs(step) < 0.5 * PSI:
        return f"{target} It is as it should be."
    way = "Add" if step > 0 else "Let out"
    time = f", about {minutes:.1f} min with this inflator" if minutes is not None else ""
    much = f"{way} {text(abs(step), 'pressure', units)}: {text(abs(air), 'air_volume', units)} of free air{time}"
    return f"{target} {much}. Then read again."


def _air_means(facts: WaterFacts, found: float | None, log: Log, units: str) -> str:
    """What a low find means. Source: common practice, no source (1–2 psi a year; 10 psi is a leak; water at the
    valve is a burst)."""
    if log.value("found.water_at_valve"):
        return "Water at the valve: the bladder is burst. Adding air does not help; replace the tank."
    if found is None or facts.last_pa is None:
        return ""
    lost = facts.last_pa - found
    if found <= facts.leak_found_pa:
        return "So low a find is a leak: soap the valve and the seams before adding air."
    if facts.last_years_ago and lost / facts.last_years_ago > facts.usual_loss_pa_per_year:
        much = f"{text(lost, 'pressure', units)} lost in {_years(facts.last_years_ago)}"
        return f"{much} is more than usual; check again in half the time."
    return "1 to 2 psi (0.07 to 0.14 bar) lost in a year is usual." if lost > 0 else ""


def _years(count: float) -> str:
    return "a year" if abs(count - 1) < 0.05 else f"{count:.2g} years"
