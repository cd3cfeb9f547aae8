"""What a visit found and left, freed of what its gauges are known to read low by."""

import statistics
from collections.abc import Iterable
from dataclasses import dataclass

from ..units import text
from .records import SYSTEM_GAUGE, Entry, Log, log_of

__all__ = ["Points", "Summary", "band", "figures", "summary", "told"]


@dataclass(frozen=True, kw_only=True)
class Points:
    """Cut-in, cut-out and pre-charge, Pa gauge; None where not read."""

    cut_in_gauge_pa: float | None
    cut_out_gauge_pa: float | None
    pre_charge_gauge_pa: float | None


@dataclass(frozen=True, kw_only=True)
class Summary:
    """As found, as left, the median pump run (s), tries made, and whether a dip was seen."""

    found: Points
    left: Points
    run_s: float | None
    tries: int
    dip: bool | None


def summary(entries: Iterable[Entry]) -> Summary:
    """A visit's figures from its entries, oldest first."""
    return figures(log_of(entries))


def figures(log: Log) -> Summary:
    """A visit's figures from its log."""
    found = Points(
        cut_in_gauge_pa=log.true("found.cut_in"),
        cut_out_gauge_pa=log.true("found.cut_out"),
        pre_charge_gauge_pa=log.true("found.pre_charge"),
    )
    laps = log.records("lap")
    return Summary(
        found=found,
        left=_left(log, found),
        run_s=statistics.median(lap.run_s for lap in laps) if laps else None,
        tries=sum(1 for each in log.records("try") if each.first or each.second),
        dip=log.value("prove.dip"),
    )


def _left(log: Log, found: Points) -> Points:
    """The last look at the switch, and the pre-charge read again; as found where nothing was done."""
    looks, low = log.records("try"), log.low_by(SYSTEM_GAUGE)
    charge = log.true("air.left")
    return Points(
        cut_in_gauge_pa=looks[-1].cut_in_gauge_pa + low if looks else found.cut_in_gauge_pa,
        cut_out_gauge_pa=looks[-1].cut_out_gauge_pa + low if looks else found.cut_out_gauge_pa,
        pre_charge_gauge_pa=found.pre_charge_gauge_pa if charge is None else charge,
    )


def told(done: Summary, units: str) -> str:
    """A visit in one line: found, left where that differs, tries, run and dip; "" where nothing was read."""
    found, left = band(done.found, units), band(done.left, units)
    said = [f"found {found}"] if found else []
    said += [f"left {left}"] if left and left != found else []
    said += [f"{done.tries} tr{'y' if done.tries == 1 else 'ies'}"] if done.tries else []
    said += [f"run {text(done.run_s, 'duration', units)}"] if done.run_s is not None else []
    said += ["a dip seen"] if done.dip else []
    line = ", ".join(said)
    return line[:1].upper() + line[1:]


def band(points: Points, units: str) -> str:
    """The points that were read, as "40 psi / 60 psi, air 38 psi"."""
    pair = [text(p, "pressure", units) for p in (points.cut_in_gauge_pa, points.cut_out_gauge_pa) if p is not None]
    air = points.pre_charge_gauge_pa
    return ", ".join(
        [*([" / ".join(pair)] if pair else []), *([f"air {text(air, 'pressure', units)}"] if air is not None else [])]
    )
