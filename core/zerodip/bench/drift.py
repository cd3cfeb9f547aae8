"""How far points drift between calibrations, and when they leave their tolerance: when the next one
is due."""

from calendar import monthrange
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import pairwise

from zerodip.bench.file import Calibration, PastRow
from zerodip.trends.line import Crossing, falls_to, losses

__all__ = ["Drift", "NextDue", "drift_of", "next_due"]

_YEAR_DAYS = 365.2425
_SOONEST_DAYS = 1


@dataclass(frozen=True, kw_only=True)
class Drift:
    """A point's drift: by how much a year (Pa, with its standard deviation), over how many spans it
    was seen, and on which days it leaves its tolerance, likeliest and at the earliest (None: not to
    be told, or beyond a hundred years)."""

    at: int
    per_year_pa: float
    per_year_sd_pa: float
    spans: int
    likely: str | None
    earliest: str | None


@dataclass(frozen=True, kw_only=True)
class NextDue:
    """When the next calibration is due (a day), and by what: "interval", "drift", or "failed" where
    a point was left out of its tolerance: at once."""

    on: str
    by: str


@dataclass(frozen=True)
class _Row:
    on: date
    found: float | None
    left: float | None


def drift_of(
    of: Calibration, at: int, found_pa: float, left_pa: float, sd_pa: float
) -> Drift | None:
    """A point's drift from each calibration's as left to the next one's as found.

    Args:
        of: The calibration, with those of the past.
        at: Which point.
        found_pa: By how much it is off as found today, Pa.
        left_pa: By how much it is off as left today, Pa.
        sd_pa: Standard uncertainty of each, Pa, above 0.

    Returns:
        The drift; None where no span was seen.
    """
    rows = [*_rows(of.past, at), _Row(of.day, found_pa, left_pa)]
    spans, moved = [], []
    for before, after in pairwise(rows):
        years = (after.on - before.on).days / _YEAR_DAYS
        if before.left is not None and after.found is not None and years > 0:
            spans.append(years)
            moved.append(after.found - before.left)
    rate = losses(spans, moved, sd_pa)
    if rate is None:
        return None
    crossing = _leaves(left_pa, of.device.tolerance_pa(at), sd_pa, rate)
    return Drift(
        at=at,
        per_year_pa=rate[0],
        per_year_sd_pa=rate[1],
        spans=len(spans),
        likely=_day(of.day, crossing.likely),
        earliest=_day(of.day, crossing.earliest),
    )


def next_due(of: Calibration, drifts: Sequence[Drift], failed: bool) -> NextDue:
    """When the next calibration is due: at once where it failed; else after the interval, or before
    drift may bring a point out of its tolerance, where that is sooner and was seen over two spans
    or more.

    Args:
        of: The calibration.
        drifts: The drifts of its points.
        failed: Whether it was left out of tolerance, as far as can be told.

    Returns:
        The day and what told it.
    """
    if failed:
        return NextDue(on=of.on, by="failed")
    regular = _months_after(of.day, of.device.interval_months)
    told = [
        date.fromisoformat(each.earliest) for each in drifts if each.earliest and each.spans > 1
    ]
    soonest = of.day + timedelta(days=_SOONEST_DAYS)
    if told and min(told) < regular:
        return NextDue(on=max(min(told), soonest).isoformat(), by="drift")
    return NextDue(on=regular.isoformat(), by="interval")


def _months_after(day: date, months: float) -> date:
    """The same day of a later month, or its last; parts of a month as parts of a mean one."""
    year, month = divmod(day.year * 12 + day.month - 1 + int(months), 12)
    last = monthrange(year, month + 1)[1]
    whole = date(year, month + 1, min(day.day, last))
    return whole + timedelta(days=round(months % 1 * _YEAR_DAYS / 12))


def _rows(past: Sequence[PastRow], at: int) -> list[_Row]:
    name = ("lower", "upper")[at]
    rows = [
        _Row(
            date.fromisoformat(each.on),
            getattr(each, f"found_{name}_pa"),
            getattr(each, f"left_{name}_pa"),
        )
        for each in past
    ]
    return sorted(rows, key=lambda row: row.on)


def _leaves(left: float, tolerance: float, sd: float, rate: tuple[float, float]) -> Crossing:
    """When it leaves on the side that it drifts to; on both where that is not sure, the sooner."""
    up = falls_to(tolerance - left, 0.0, sd, rate)
    down = falls_to(tolerance + left, 0.0, sd, (-rate[0], rate[1]))
    earliest = [each.earliest for each in (up, down) if each.earliest is not None]
    likely = up.likely if rate[0] > 0 else down.likely
    return Crossing(likely, min(earliest, default=None), None)


def _day(today: date, years: float | None) -> str | None:
    if years is None or years > 100:
        return None
    return (today + timedelta(days=int(years * _YEAR_DAYS))).isoformat()
