"""Sizing the tanks of a water system."""

from dataclasses import replace
from typing import Literal

from zerodip.kinds.nominal_sizes import ACCEPTANCE_SHARE
from zerodip.kinds.protocol import Demand, hourly_starts
from zerodip.kinds.settings import Settings
from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.kinds.water.model import MOST_TANKS, Tank, WaterSystem
from zerodip.rules.sources import BOOSTER_FORM
from zerodip.units import text

__all__ = [
    "aired_says",
    "booster_form_m3",
    "charged",
    "demands",
    "resized",
    "second_opinion",
    "target",
]

_FITS_AT = 0.757  # of cut-in, both absolute: the pre-charge that the booster form has in it


def resized(system: WaterSystem, volume_m3: float, beside: bool) -> WaterSystem | None:
    """The system with one tank of that volume in place of its own, or one more; None where no more
    can be entered. The lowest plate known holds for it too; its bladder accepts what those sold
    do. All tanks are to be charged alike.

    Args:
        system: Everything read off the system.
        volume_m3: Volume, m³, above 0.
        beside: Beside what is there, rather than in its place.

    Returns:
        The system with it; None where no more can be entered.
    """
    plate = min((tank.max_gauge_pa for tank in system.tanks if tank.max_gauge_pa), default=None)
    takes = None if system.plain else ACCEPTANCE_SHARE * volume_m3
    tank = Tank(volume_m3=volume_m3, max_gauge_pa=plate, acceptance_m3=takes)
    if not beside:
        return replace(system, tanks=(tank,))
    own = tuple(replace(each, pre_charge_gauge_pa=None) for each in system.tanks)
    return replace(system, tanks=(*own, tank)) if len(own) < MOST_TANKS else None


def charged(figures: W, system: WaterSystem) -> Settings:
    """The settings with the air that would be set on such tanks: the one pre-charge that is to be
    set, or a plain tank drained and filled with air.

    Args:
        figures: The system's figures as it is.
        system: The same system, or with other tanks.

    Returns:
        The settings to judge it at.
    """
    settings = figures.settings
    if system.plain:
        return replace(settings, air_renewed=True, pre_charge_gauge_pa=0.0)
    target = W(system, settings, figures.practice).target_pa
    return settings if target is None else replace(settings, pre_charge_gauge_pa=target)


def aired_says(figures: W) -> str:
    """Said of what is there, where its air is not as it is judged, as a template.

    Args:
        figures: The system's figures as it is.

    Returns:
        The text, a template; empty where the air is right.
    """
    if figures.system.plain:
        return "" if figures.settings.air_renewed else ", once it has its air again,"
    off = figures.off_target_pa
    right = off is None or off <= figures.way_tolerance_pa
    return "" if right else f", once its pre-charge is {W.target_pa},"


def target(figures: W) -> tuple[Literal["run", "starts"], float]:
    """The run that the practice wants, s.

    Args:
        figures: The system's figures under its settings.

    Returns:
        What is wanted (run or starts) and its value (s or 1/s).
    """
    return "run", figures.wanted_run_s


def demands(figures: W) -> tuple[Demand, ...]:
    """The run that the practice wants, and the starts in an hour and in a day that the motor bears.

    Args:
        figures: The system's figures under its settings.

    Returns:
        What a size has to meet.
    """
    power, daily = W.power_w.reading, W.daily_m3.reading
    return (
        *_held_in_a_start(figures),
        Demand(
            id="run",
            title="run",
            says="a run of {}",
            dimension="duration",
            measure=figures.run_s,
            limit=figures.wanted_run_s,
            at_least=True,
        ),
        hourly_starts(figures.worst_starts_per_s, figures.hourly_limit_per_s, power),
        Demand(
            id="day",
            title="starts in a day",
            says="at most {}",
            dimension="daily",
            measure=figures.starts_per_day_per_s,
            limit=figures.starts_limit_per_s,
            unread=tuple(
                reading
                for reading, value in ((power, figures.power_w), (daily, figures.daily_m3))
                if reading and value is None
            ),
        ),
    )


def _held_in_a_start(figures: W) -> tuple[Demand, ...]:
    """Water for a start without a dip, where the peak draw is known."""
    if figures.dip_need_m3 is None:
        return ()
    return (
        Demand(
            id="start",
            title="water held for a start",
            says="{} held for a start",
            dimension="volume",
            measure=figures.reserve_m3,
            limit=figures.dip_need_m3,
            at_least=True,
        ),
    )


def booster_form_m3(
    flow_m3_s: float, in_gauge_pa: float, out_gauge_pa: float, starts_per_s: float
) -> float:
    """The European form for boosters, V = 0.33·Q·(p_out + 1)/((p_out − p_in)·s), Q in m³/h,
    pressures in bar gauge, s per hour; here in SI. It has no pre-charge: it is the exact law for a
    constant flow at an absolute pre-charge of about 0.76 of the absolute cut-in.

    Args:
        flow_m3_s: The pump's flow, m³/s, above 0.
        in_gauge_pa: Cut-in, Pa gauge.
        out_gauge_pa: Cut-out, Pa gauge, above cut-in.
        starts_per_s: Starts borne, 1/s, above 0.

    Returns:
        Volume, m³.

    Source: DIN 1988, from memory.
    """
    low, high = in_gauge_pa / 1e5, out_gauge_pa / 1e5
    return 0.33 * (flow_m3_s * 3600) * (high + 1) / ((high - low) * starts_per_s * 3600)


def second_opinion(
    figures: W, wanted: str, value: float, units: str
) -> tuple[float, str, str] | None:
    """The booster form's volume (m³), with the difference explained (a template), and its source.
    `wanted` is "run" (s) or "starts" (1/s).

    Args:
        figures: The system's figures under its settings.
        wanted: "run" or "starts".
        value: s of run, or starts per second, above 0.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Volume (m³), text and source; None for another kind of supply.
    """
    if figures.cut_in_flow_m3_s <= 0:
        return None
    starts = value if wanted == "starts" else 1 / (4 * value)
    volume = booster_form_m3(
        figures.cut_in_flow_m3_s, figures.cut_in_pa, figures.cut_out_pa, starts
    )
    share = figures.pre_charge_abs_pa / figures.cut_in_abs_pa
    leaning = "generous" if share > _FITS_AT else "too small"
    says = (
        f"0.33·Q·(out + 1)/((out − in)·s) with the flow at cut-in, {W.cut_in_flow_m3_s}, and"
        f" {text(starts, 'rate', units)}. It has no pre-charge in it: it fits one at 0.76 of"
        f" cut-in, both absolute. Here it is {share:.2f} of it, so the form is {leaning}."
    )
    return volume, says, BOOSTER_FORM.line
