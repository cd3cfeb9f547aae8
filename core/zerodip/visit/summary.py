"""What a visit found and left, freed of what its gauges are known to show too little by."""

import statistics
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, fields
from typing import Any

from zerodip.kinds.visit_parts import air_now
from zerodip.units import text
from zerodip.visit.log import Log, Record, log_of
from zerodip.visit.slots import (
    AIR_LEFT,
    DIP_SEEN,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_PRE_CHARGE,
    FOUND_RUN,
    LAP,
    TRY,
)

__all__ = ["Points", "Summary", "points_says", "summarize_log", "summarize_visit", "summary_says"]


@dataclass(frozen=True, kw_only=True)
class Points:
    """Cut-in, cut-out and pre-charge, Pa gauge; None where not read."""

    cut_in_gauge_pa: float | None
    cut_out_gauge_pa: float | None
    pre_charge_gauge_pa: float | None


@dataclass(frozen=True, kw_only=True)
class Summary:
    """As found, as left, the pump run as found and the median of those timed at the end (s), tries
    made, and whether a dip was seen."""

    found: Points
    left: Points
    found_run_s: float | None
    run_s: float | None
    tries: int
    dip: bool | None


def summarize_visit(records: Iterable[Record]) -> Summary:
    """A visit's figures from its records, oldest first.

    Args:
        records: The visit's records, oldest first.

    Returns:
        The visit's figures.
    """
    return summarize_log(log_of(records))


def summarize_log(log: Log) -> Summary:
    """A visit's figures from its log.

    Args:
        log: The visit's log.

    Returns:
        The visit's figures.
    """
    found = Points(
        cut_in_gauge_pa=log.true(FOUND_CUT_IN),
        cut_out_gauge_pa=log.true(FOUND_CUT_OUT),
        pre_charge_gauge_pa=log.true(FOUND_PRE_CHARGE),
    )
    laps = log.all(LAP)
    return Summary(
        found=found,
        left=_left(log, found),
        found_run_s=log.value(FOUND_RUN),
        run_s=statistics.median(lap.run_s for lap in laps) if laps else None,
        tries=sum(each.turned for each in log.all(TRY)),
        dip=log.value(DIP_SEEN),
    )


def _left(log: Log, found: Points) -> Points:
    """The last look at the switch, and the pre-charge read again; as found where nothing was
    done."""
    looks, low, charge = log.all(TRY), log.low_by(TRY), log.true(AIR_LEFT)
    stands = log.true(air_now(log))
    return Points(
        cut_in_gauge_pa=looks[-1].cut_in_gauge_pa + low if looks else found.cut_in_gauge_pa,
        cut_out_gauge_pa=looks[-1].cut_out_gauge_pa + low if looks else found.cut_out_gauge_pa,
        pre_charge_gauge_pa=stands if charge is None else charge,
    )


def summary_says(done: Summary, units: str) -> str:
    """A visit in one line: found, left where that differs, tries, run and dip; "" where nothing was
    read.

    Args:
        done: The visit's figures.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words; empty where nothing was read.
    """
    found, left = points_says(done.found, units), points_says(done.left, units)
    said = [f"found {found}"] if found else []
    said += [f"left {left}"] if left and left != found else []
    said += [f"{done.tries} tr{'y' if done.tries == 1 else 'ies'}"] if done.tries else []
    said += [f"run {text(done.run_s, 'duration', units)}"] if done.run_s is not None else []
    said += ["a dip seen"] if done.dip else []
    line = ", ".join(said)
    return line[:1].upper() + line[1:]


def settings_say(settings: Mapping[str, Any], units: str) -> str:
    """Settings decided on, as `points_says` tells points.

    Args:
        settings: Settings as a file holds them, Pa gauge.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    points = Points(**{each.name: settings.get(each.name) for each in fields(Points)})
    return points_says(points, units)


def points_says(points: Points, units: str) -> str:
    """The points that were read, as "40 psi / 60 psi, air 38 psi".

    Args:
        points: Cut-in, cut-out and pre-charge as read.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    read = [p for p in (points.cut_in_gauge_pa, points.cut_out_gauge_pa) if p is not None]
    said = [" / ".join(text(point, "pressure", units) for point in read)] if read else []
    air = points.pre_charge_gauge_pa
    return ", ".join([*said, *([f"air {text(air, 'pressure', units)}"] if air is not None else [])])
