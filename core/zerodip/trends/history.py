"""The use case of the system sheet: what the visits so far say of pre-charge, run time and set
points, and when to come again."""

from collections.abc import Sequence
from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.rules.engine import exceeds
from zerodip.switch.learned import Learned
from zerodip.switch.words import learned_says
from zerodip.trends.line import Crossing, Line, falls_to, fit, losses
from zerodip.units import PSI, number, text
from zerodip.visit.summary import Summary

__all__ = [
    "YEAR_S",
    "Leaves",
    "Past",
    "Series",
    "TrendPoint",
    "Trends",
    "drifting",
    "due_state",
    "may_be_out",
    "trends",
]

YEAR_S = 365.2425 * 86400
_READING_SD_PA = 0.7 * PSI  # of a gauge read to the next psi: common practice, no source
_RUN_SD_S = 2.0
_SOON_S = 30 * 86400
_DRIFTING = 0.1  # of a run time a year: beyond this it is worth a look


@dataclass(frozen=True, kw_only=True)
class Past:
    """A visit of the past: its id, when (s since 1970), its figures."""

    visit: str
    at_s: float
    summary: Summary


@dataclass(frozen=True, kw_only=True)
class TrendPoint:
    """One reading in a series, as found or as left, and the visit that made it."""

    visit: str
    at_s: float
    value: float
    left: bool


@dataclass(frozen=True, kw_only=True)
class Series:
    """One figure over time (SI), its change per year with the standard deviation where known, and
    what it means."""

    id: str
    title: str
    dimension: str
    points: tuple[TrendPoint, ...]
    per_year: tuple[float, float] | None
    says: str


@dataclass(frozen=True, kw_only=True)
class Leaves:
    """When a value leaves its band, s since 1970; None: never, or not to be told. All three the day
    of the last reading where it stood outside already."""

    likely_s: float | None
    earliest_s: float | None
    latest_s: float | None


@dataclass(frozen=True, kw_only=True)
class Trends:
    """The series; when the pre-charge leaves its band and the band's end (Pa gauge); when the next
    check is due, by which way; what is drifting, and what a turn of each nut does, in words; and
    whether the pre-charge may be out of its band today."""

    series: tuple[Series, ...]
    band_gauge_pa: float | None
    leaves: Leaves | None
    due_s: float | None
    due_by: str
    drifting: tuple[str, ...]
    learned: str
    may_be_out: bool


def trends(
    figures: Figures,
    past: Sequence[Past],
    units: str = "us",
    learned: Learned = (),
    now_s: float | None = None,
) -> Trends:
    """What `past` (oldest first) says of the system as it stands; `learned` is what the last turns
    of its nuts taught.

    Args:
        figures: The system's figures under its settings.
        past: The closed visits, oldest first.
        units: Unit system of the texts: "us", "metric" or "kpa".
        learned: What earlier visits learned of the nuts.
        now_s: Now, s since 1970; None where nothing is asked about today.

    Returns:
        What they say.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    history, band = kind_of(figures).history, kind_of(figures).history.band_pa(figures)
    charge = None if band is None else _charges(past, units)
    run = _line(
        "run", "Pump run", "duration", [(p, p.summary.run_s, False) for p in past], _RUN_SD_S, units
    )
    low = [(p, p.summary.left.cut_in_gauge_pa, True) for p in past]
    high = [(p, p.summary.left.cut_out_gauge_pa, True) for p in past]
    points = [
        _line("cut_in", "Cut-in", "pressure", low, _READING_SD_PA, units),
        _line("cut_out", "Cut-out", "pressure", high, _READING_SD_PA, units),
    ]
    series = tuple(each for each in (charge, run, *points) if each is not None)
    ours = tuple(slope for slope in learned if slope.switch == figures.switch.nuts)
    leaves = _leaves(charge, band)
    ends_s = leaves.likely_s if leaves else None
    due_s, due_by = _due(figures, past, charge), history.by(figures)
    if due_s is not None and ends_s is not None and ends_s < due_s:
        due_s, due_by = ends_s, "Before its air leaves the band"
        if past[-1].at_s >= ends_s:
            due_by = "Its air was left outside its band"
    return Trends(
        series=series,
        band_gauge_pa=band,
        leaves=leaves,
        due_s=due_s,
        due_by=due_by,
        drifting=drifting(figures, series, units),
        learned=learned_says(ours, units),
        may_be_out=now_s is not None and may_be_out(ends_s, now_s),
    )


def may_be_out(leaves_s: float | None, now_s: float) -> bool:
    """Whether the day is past on which the pre-charge was expected to leave its band.

    Args:
        leaves_s: That day, s since 1970; None if there is none.
        now_s: Now, s since 1970.

    Returns:
        True where it may be out of its band now.
    """
    return leaves_s is not None and leaves_s < now_s


def due_state(due_s: float | None, now_s: float) -> str:
    """Whether a check (s since 1970) is "overdue", due "soon" (within thirty days), "later", or
    "none" is known.

    Args:
        due_s: When the check is due, s since 1970; None if that is not known.
        now_s: Now, s since 1970.

    Returns:
        "overdue", "soon", "later" or "none".
    """
    if due_s is None:
        return "none"
    return "overdue" if due_s < now_s else "soon" if due_s < now_s + _SOON_S else "later"


def _charges(past: Sequence[Past], units: str) -> Series | None:
    points = []
    for each in past:
        found, left = each.summary.found.pre_charge_gauge_pa, each.summary.left.pre_charge_gauge_pa
        for value, is_left in ((found, False), (left, True)):
            if value is not None and not (is_left and left == found):
                points.append(
                    TrendPoint(visit=each.visit, at_s=each.at_s, value=value, left=is_left)
                )
    if not points:
        return None
    rate = _loss(past)
    mean, spread = ("", "") if rate is None else (text(value, "pressure", units) for value in rate)
    return Series(
        id="pre_charge",
        title="Pre-charge",
        dimension="pressure",
        points=tuple(points),
        per_year=None if rate is None else (-rate[0], rate[1]),
        says=f"{mean} lost a year, give or take {spread}." if rate else "",
    )


def _loss(past: Sequence[Past]) -> tuple[float, float] | None:
    """Loss of pre-charge per year from what each visit left to what the next one found."""
    spans, lost = [], []
    left: tuple[float, float] | None = None
    for each in past:
        found = each.summary.found.pre_charge_gauge_pa
        if left is not None and found is not None:
            spans.append((each.at_s - left[0]) / YEAR_S)
            lost.append(left[1] - found)
        now = each.summary.left.pre_charge_gauge_pa
        left = left if now is None else (each.at_s, now)
    return losses(spans, lost, _READING_SD_PA)


def _line(
    id: str,
    title: str,
    dimension: str,
    values: Sequence[tuple[Past, float | None, bool]],
    sd: float,
    units: str,
) -> Series | None:
    points = tuple(
        TrendPoint(visit=past.visit, at_s=past.at_s, value=value, left=left)
        for past, value, left in values
        if value is not None
    )
    if not points:
        return None
    line = fit([point.at_s / YEAR_S for point in points], [point.value for point in points], sd)
    return Series(
        id=id,
        title=title,
        dimension=dimension,
        points=points,
        per_year=None if line is None else (line.slope, line.slope_sd),
        says=_line_says(line, dimension, units),
    )


def _line_says(line: Line | None, dimension: str, units: str) -> str:
    if line is None:
        return ""
    if not line.sure:
        return "Steady, as far as can be told."
    return f"{text(abs(line.slope), dimension, units)} {'up' if line.slope > 0 else 'down'} a year."


def _leaves(charge: Series | None, band: float | None) -> Leaves | None:
    if charge is None or band is None:
        return None
    last = charge.points[-1]
    if exceeds(band, last.value):
        return Leaves(likely_s=last.at_s, earliest_s=last.at_s, latest_s=last.at_s)
    if charge.per_year is None:
        return None
    rate = -charge.per_year[0], charge.per_year[1]
    met: Crossing = falls_to(last.value, band, _READING_SD_PA, rate)
    likely, earliest, latest = (
        None if years is None else last.at_s + years * YEAR_S
        for years in (met.likely, met.earliest, met.latest)
    )
    # Left at the very end of its band: no day can be told.
    at_the_end = likely is not None and likely <= last.at_s
    return Leaves(likely_s=None if at_the_end else likely, earliest_s=earliest, latest_s=latest)


def _due(figures: Figures, past: Sequence[Past], charge: Series | None) -> float | None:
    """The next check as practised, from the last visit on; by the measured loss where the practice
    asks for it."""
    if not past:
        return None
    loss = None if charge is None or charge.per_year is None else -charge.per_year[0]
    return past[-1].at_s + kind_of(figures).history.years(figures, loss) * YEAR_S


def _usual(most_pa: float, units: str) -> str:
    """Half of the most to the most a year (common practice, no source), in the units asked for."""
    return f"{number(most_pa / 2, 'pressure', units)} to {text(most_pa, 'pressure', units)}"


def drifting(figures: Figures, series: Sequence[Series], units: str) -> tuple[str, ...]:
    """What moves faster than is usual, in words.

    Args:
        figures: The system's figures under its settings.
        series: The series of the closed visits.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What drifts, in words.
    """
    by = {each.id: each.per_year for each in series}
    found = []
    charge, run = by.get("pre_charge"), by.get("run")
    usual = kind_of(figures).history.usual_loss_pa
    if charge is not None and usual is not None and -charge[0] - charge[1] > usual:
        loses = text(-charge[0], "pressure", units)
        found.append(f"Loses {loses} of air a year; {_usual(usual, units)} is usual.")
    if run is not None:
        (slope, sd), last = run, next(each for each in series if each.id == "run").points[-1].value
        if abs(slope) > 2 * sd and abs(slope) > _DRIFTING * last:
            found.append(
                f"Pump run {text(abs(slope), 'duration', units)}"
                f" {'longer' if slope > 0 else 'shorter'} a year."
            )
    return tuple(found)
