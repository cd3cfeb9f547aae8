"""The use case of the system sheet: what the visits so far say of pre-charge, run time and set points, and when to come again."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..facts import Facts, WaterFacts
from ..system import BLADDER_KINDS
from ..units import PSI, text
from ..visit.setting import learned_says
from ..visit.summary import Summary
from .line import Crossing, Line, falls_to, fit, losses

__all__ = ["YEAR_S", "Past", "Series", "TrendPoint", "Trends", "drifting", "due_state", "trends"]

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
    figures: Summary


@dataclass(frozen=True, kw_only=True)
class TrendPoint:
    """One reading in a series, as found or as left, and the visit that made it."""

    visit: str
    at_s: float
    value: float
    left: bool


@dataclass(frozen=True, kw_only=True)
class Series:
    """One figure over time (SI), its change per year with the standard deviation where known, and what it means."""

    id: str
    title: str
    dimension: str
    points: tuple[TrendPoint, ...]
    per_year: tuple[float, float] | None
    says: str


@dataclass(frozen=True, kw_only=True)
class Trends:
    """The series; when the pre-charge leaves its band (s since 1970: likely, earliest, latest) and the band's end (Pa gauge); when
    the next check is due, by which school; what is drifting, and what a turn of each nut does, in words."""

    series: tuple[Series, ...]
    band_gauge_pa: float | None
    leaves_s: tuple[float | None, float | None, float | None] | None
    due_s: float | None
    due_by: str
    drifting: tuple[str, ...]
    learned: str


def trends(facts: Facts, past: Sequence[Past], units: str = "us", slopes: Sequence[float] = ()) -> Trends:
    """What `past` (oldest first) says of the system as it stands; `slopes` is what the last turns of its nuts taught."""
    charge = _charges(past, units) if _has_bladder(facts) else None
    run = _line("run", "Pump run", "duration", [(p, p.figures.run_s, False) for p in past], _RUN_SD_S, units)
    low = [(p, p.figures.left.cut_in_gauge_pa, True) for p in past]
    high = [(p, p.figures.left.cut_out_gauge_pa, True) for p in past]
    points = [
        _line("cut_in", "Cut-in", "pressure", low, _READING_SD_PA, units),
        _line("cut_out", "Cut-out", "pressure", high, _READING_SD_PA, units),
    ]
    series = tuple(each for each in (charge, run, *points) if each is not None)
    band = _band(facts)
    leaves = _leaves(charge, band)
    return Trends(
        series=series,
        band_gauge_pa=band,
        leaves_s=leaves,
        due_s=_due(facts, past, charge),
        due_by=facts.check_school.title if isinstance(facts, WaterFacts) else "Every year",
        drifting=drifting(facts, series, units),
        learned=learned_says(facts, slopes, units),
    )


def due_state(due_s: float | None, now_s: float) -> str:
    """Whether a check (s since 1970) is "overdue", due "soon" (within thirty days), "later", or "none" is known."""
    if due_s is None:
        return "none"
    return "overdue" if due_s < now_s else "soon" if due_s < now_s + _SOON_S else "later"


def _has_bladder(facts: Facts) -> bool:
    return isinstance(facts, WaterFacts) and facts.kind in BLADDER_KINDS


def _charges(past: Sequence[Past], units: str) -> Series | None:
    points = []
    for each in past:
        found, left = each.figures.found.pre_charge_gauge_pa, each.figures.left.pre_charge_gauge_pa
        for value, is_left in ((found, False), (left, True)):
            if value is not None and not (is_left and left == found):
                points.append(TrendPoint(visit=each.visit, at_s=each.at_s, value=value, left=is_left))
    if not points:
        return None
    rate = _loss(past)
    mean, spread = ("", "") if rate is None else (text(value, "pressure", units) for value in rate)
    return Series(
        id="pre_charge", title="Pre-charge", dimension="pressure", points=tuple(points),
        per_year=None if rate is None else (-rate[0], rate[1]),
        says=f"{mean} lost a year, give or take {spread}." if rate else "",
    )  # fmt: skip


def _loss(past: Sequence[Past]) -> tuple[float, float] | None:
    """Loss of pre-charge per year from what each visit left to what the next one found."""
    spans, lost = [], []
    left: tuple[float, float] | None = None
    for each in past:
        found = each.figures.found.pre_charge_gauge_pa
        if left is not None and found is not None:
            spans.append((each.at_s - left[0]) / YEAR_S)
            lost.append(left[1] - found)
        now = each.figures.left.pre_charge_gauge_pa
        left = left if now is None else (each.at_s, now)
    return losses(spans, lost, _READING_SD_PA)


def _line(
    id: str, title: str, dimension: str, values: Sequence[tuple[Past, float | None, bool]], sd: float, units: str
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
        id=id, title=title, dimension=dimension, points=points,
        per_year=None if line is None else (line.slope, line.slope_sd), says=_line_says(line, dimension, units),
    )  # fmt: skip


def _line_says(line: Line | None, dimension: str, units: str) -> str:
    if line is None:
        return ""
    if not line.sure:
        return "Steady, as far as can be told."
    return f"{text(abs(line.slope), dimension, units)} {'up' if line.slope > 0 else 'down'} a year."


def _band(facts: Facts) -> float | None:
    """The lowest pre-charge that is still as the school has it, Pa gauge; below what is set where the school cannot tell."""
    if not isinstance(facts, WaterFacts) or facts.kind not in BLADDER_KINDS:
        return None
    return (facts.pre_charge_pa if facts.target_pa is None else facts.target_pa) - facts.school_tolerance_pa


def _leaves(charge: Series | None, band: float | None) -> tuple[float | None, float | None, float | None] | None:
    if charge is None or band is None or charge.per_year is None:
        return None
    last = charge.points[-1]
    met: Crossing = falls_to(last.value, band, _READING_SD_PA, (-charge.per_year[0], charge.per_year[1]))
    ends = (None if year is None else last.at_s + year * YEAR_S for year in (met.likely, met.earliest, met.latest))
    return tuple(ends)  # type: ignore[return-value]


def _due(facts: Facts, past: Sequence[Past], charge: Series | None) -> float | None:
    """The next check by the system's school, from the last visit on; by the measured loss where the school asks for it."""
    if not past:
        return None
    years = 1.0
    if isinstance(facts, WaterFacts):
        loss = None if charge is None or charge.per_year is None else -charge.per_year[0]
        years = facts.check_school.years(loss)
    return past[-1].at_s + years * YEAR_S


def _usual(units: str) -> str:
    """1 to 2 psi a year (common practice, no source), in the units asked for."""
    least, most = (text(count * PSI, "pressure", units) for count in (1, 2))
    return f"{least.split(' ')[0]} to {most}"


def drifting(facts: Facts, series: Sequence[Series], units: str) -> tuple[str, ...]:
    """What moves faster than is usual, in words."""
    by = {each.id: each.per_year for each in series}
    found = []
    charge, run = by.get("pre_charge"), by.get("run")
    if charge is not None and isinstance(facts, WaterFacts) and -charge[0] - charge[1] > facts.usual_loss_pa_per_year:
        found.append(f"Loses {text(-charge[0], 'pressure', units)} of air a year; {_usual(units)} is usual.")
    if run is not None:
        (slope, sd), last = run, next(each for each in series if each.id == "run").points[-1].value
        if abs(slope) > 2 * sd and abs(slope) > _DRIFTING * last:
            found.append(
                f"Pump run {text(abs(slope), 'duration', units)} {'longer' if slope > 0 else 'shorter'} a year."
            )
    return tuple(found)
