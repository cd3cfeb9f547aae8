"""What a water system says beside its verdicts: why a wider pre-charge, why the lever tripped, what
a check of the air costs."""

from zerodip.kinds.visit_parts import AirCheck, air_now, bladder_burst
from zerodip.kinds.water.figures import WaterFigures
from zerodip.practice.agreement import agrees
from zerodip.text.writer import Writer
from zerodip.units import PSI, text
from zerodip.visit.log import Log
from zerodip.visit.slots import (
    COMPLAINT,
    DIP_SEEN,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_RUN,
    KNEE,
    LEAKS_SEEN,
    NEW_AIR,
    WATER_AT_VALVE,
)

__all__ = ["air_check", "charge_why", "trip_says"]

_LET_OUT_M3 = 0.5e-3  # free air that escapes while a gauge is put on the valve and taken off
_AS_SET_PA = 2 * PSI
W = WaterFigures


def charge_why(figures: WaterFigures) -> str:
    """Why the pre-charge lies further below cut-in than usual, as a template.

    Args:
        figures: The system's figures under its settings.

    Returns:
        The text, a template; empty where it does not.
    """
    if not figures.low_pressure_cut_off or figures.pre_charge_way.id != "five_below":
        return ""
    return (
        f"Pre-charge {W.psi_5} below cut-in, not the usual {W.psi_2}: the low-pressure cut-off"
        f" trips at {W.trip_pa}, and no start may bring the gauge down to it."
    )


def trip_says(figures: WaterFigures, units: str) -> str:
    """Why a low-pressure cut-off trips here, by reserve, lag and draw.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words; what is not known is said.

    Source: The gas law; common practice, no source.
    """
    write = Writer(figures, units)
    says = (
        f"The lever trips at {W.trip_pa}. At cut-in {W.reserve_m3} are left in the tank, and the"
        f" pump needs {W.start_lag_s} to deliver."
    )
    if figures.peak_draw_m3_s is None or figures.start_lowest_pa is None:
        return write.fill(f"{says} Which draw trips it cannot be told: the peak draw is missing.")
    if figures.start_lowest_pa <= figures.trip_pa:
        end = (
            f" A draw of {W.peak_draw_m3_s} brings the gauge down to {W.start_lowest_pa}: it trips."
        )
    else:
        end = (
            f" A draw of {W.peak_draw_m3_s} takes the gauge to {W.start_lowest_pa}: that alone does"
            " not trip it. Look for a broken pipe, a low well, lost air."
        )
    return write.fill(says + end)


def air_check(figures: WaterFigures, log: Log, units: str) -> AirCheck | None:
    """What a reading at the air valve costs, and whether anything speaks for one.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The advice; None for a plain tank, a burst bladder, and a new tank, whose air is asked for.

    Source: The gas law; the air let out is common practice, no source.
    """
    if figures.system.plain or bladder_burst(log) or air_now(log) is NEW_AIR:
        return None
    tanks = len(figures.system.tanks)
    cost = figures.atmosphere_pa * _LET_OUT_M3 / (figures.nominal_m3 / tanks)
    costs = f"A check lets out about {text(cost, 'pressure', units)} of this tank’s air."
    if not _all_as_expected(figures, log):
        return AirCheck(says=costs, unneeded=False)
    return AirCheck(
        says=f"{costs} Nothing speaks for one: points and run are as expected, and it is not due.",
        unneeded=True,
    )


def _all_as_expected(figures: WaterFigures, log: Log) -> bool:
    """No complaint, nothing seen, both points as set, the run as worked out, the knee where the
    pre-charge is, and the last reading not yet old."""
    run, years = log.value(FOUND_RUN), figures.last_years_ago
    seen = ((FOUND_CUT_IN, figures.cut_in_pa), (FOUND_CUT_OUT, figures.cut_out_pa))
    points = [(log.true(slot), at) for slot, at in seen]
    knee = log.true(KNEE)
    return (
        log.value(COMPLAINT) in (None, "none")
        and not any(log.value(slot) for slot in (WATER_AT_VALVE, LEAKS_SEEN, DIP_SEEN))
        and (knee is None or abs(knee - figures.pre_charge_pa) <= _AS_SET_PA)
        and run is not None
        and not figures.system.assumed
        and agrees(run, figures.run_s)
        and all(pa is not None and abs(pa - at) <= _AS_SET_PA for pa, at in points)
        and years is not None
        and years < 0.75 * figures.check_years
    )
