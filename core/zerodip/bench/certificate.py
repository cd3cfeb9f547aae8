"""What the certificate of a calibration says, row by row, in the words and units of its reader."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from zerodip.bench.calibrate import Judgement
from zerodip.bench.device import BenchDevice, Reference
from zerodip.bench.file import Calibration
from zerodip.bench.judge import RUNS, PointFigures, overall
from zerodip.bench.words import VERDICTS, pace, shown, titles, usual_pace
from zerodip.units import text as figure

__all__ = ["Certificate", "Dot", "Row", "certificate_of"]

Row = tuple[str, ...]
_SEEN_BY = {"lamp": "lamp", "meter": "meter", "gauge": "the reference, on the wire"}
_DUE_BY = {
    "interval": "by interval",
    "drift": "before drift may bring it out",
    "failed": "at once: it was left out of tolerance",
}
PROCEDURE = (
    "Isolated and vented, trip bypassed by permission; leak test; exercised three times over the "
    "range; each point approached slowly from its own side; at least three runs up and down as "
    "left; restored, bypass out, sealed and tagged."
)


@dataclass(frozen=True, kw_only=True)
class Dot:
    """A run in the plot: which point, as left or as found, and its error as a share of the
    tolerance."""

    at: int
    left: bool
    share: float


@dataclass(frozen=True, kw_only=True)
class Certificate:
    """Everything on the page. `points` are rows of: point, asked, as found, as left, uncertainty,
    deadband, verdict; `runs` of: phase, point, acted at, error, reset at; `budget` of: what,
    spread, and the standard uncertainty of each point."""

    switch: tuple[Row, ...]
    reference: tuple[Row, ...]
    points: tuple[Row, ...]
    runs: tuple[Row, ...]
    budget: tuple[Row, ...]
    dots: tuple[Dot, ...]
    titles: tuple[str, ...]
    found_says: str
    left_says: str
    says: tuple[str, ...]
    influence: tuple[str, ...]
    rule: str
    procedure: str
    next_due: str
    due_by: str


def certificate_of(of: Calibration, judged: Judgement, units: str) -> Certificate:
    """The certificate of a calibration.

    Args:
        of: The calibration.
        judged: How it was judged.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Its rows.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    fine = of.reference.resolution_pa
    names = titles(of.device)
    return Certificate(
        switch=tuple(_switch(of, units)),
        reference=tuple(_reference(of, units)),
        points=tuple(_points(of, judged, units)),
        runs=tuple(_runs(of, units)),
        budget=_budget(judged.left, units),
        dots=tuple(_dots(of)),
        titles=names,
        found_says=judged.found_says,
        left_says=judged.left_says,
        says=tuple(f"{each.title}. {each.text}".strip() for each in judged.says),
        influence=tuple(
            f"{names[each.at]}: {shown(each.moved_pa, units, fine, signed=True)}"
            for each in judged.influences
        ),
        rule=judged.rule,
        procedure=PROCEDURE,
        next_due=judged.next_due.on,
        due_by=_DUE_BY[judged.next_due.by],
    )


def _switch(of: Calibration, units: str) -> Iterator[Row]:
    device = of.device
    rows = (
        ("Tag", device.tag_number),
        ("Plate", device.plate),
        ("Location", device.location),
        ("Guards", device.guards),
        ("Medium", device.medium),
        ("Range", _ends(device, units)),
    )
    yield from (row for row in rows if row[1])


def _reference(of: Calibration, units: str) -> Iterator[Row]:
    gauge = of.reference
    yield ("Reference", f"{gauge.name} {gauge.serial}".strip())
    yield ("Scale", _ends(gauge, units))
    if gauge.expanded_pa is not None:
        yield ("Uncertainty", f"± {shown(gauge.expanded_pa, units, gauge.expanded_pa)} (k = 2)")
    else:
        yield ("Grade", str(gauge.grade))
    yield ("Certificate until", gauge.due or "–")
    if gauge.overruled:
        yield ("Used all the same", gauge.overruled)
    seen = {run.seen_by: None for run in (*of.found, *of.left)}
    yield ("Changes seen by", ", ".join(_SEEN_BY[each] for each in seen))
    yield ("Approach", _approach(of, units))


def _ends(of: BenchDevice | Reference, units: str) -> str:
    """A range or a scale as it is marked."""
    ends = (of.low_gauge_pa, of.high_gauge_pa)
    return " to ".join(figure(each, "pressure", units) for each in ends)


def _approach(of: Calibration, units: str) -> str:
    """How fast the points were approached as left, where that was timed."""
    rates = [run.rate_pa_s for run in of.as_left]
    timed = [rate for rate in rates if rate is not None]
    told = f"up to {pace(max(timed), units)}" if timed else ""
    if len(timed) == len(rates):
        return told
    reckoned = f"not timed: {usual_pace(of.device, units)} reckoned with"
    return f"{told}; else {reckoned}" if told else reckoned


def _points(of: Calibration, judged: Judgement, units: str) -> Iterator[Row]:
    names = titles(of.device)
    for found, left in zip(judged.found, judged.left, strict=True):
        point, grain = of.device.points[left.at], left.budget.expanded_pa
        band = left.deadband
        yield (
            f"{names[left.at]}, {point.acts}",
            f"{shown(point.gauge_pa, units, grain)} ± {shown(left.tolerance_pa, units, grain)}",
            f"{shown(found.error_pa, units, grain, signed=True)} ({VERDICTS[found.verdict]})",
            shown(left.error_pa, units, grain, signed=True),
            f"± {shown(grain, units, grain)}",
            shown(band.mean_pa, units, band.expanded_pa) if band else "–",
            VERDICTS[overall(left, RUNS)],
        )
    yield from _apart(judged, units)


def _apart(judged: Judgement, units: str) -> Iterator[Row]:
    """How far both points lie apart, in the columns of the points."""
    if judged.apart is None:
        return
    grain = judged.apart.least_pa / 10
    found = judged.found[1].set_gauge_pa - judged.found[0].set_gauge_pa
    yield (
        "Upper above lower",
        f"at least {shown(judged.apart.least_pa, units, grain)}",
        shown(found, units, grain),
        shown(judged.apart.apart_pa, units, grain),
        "–",
        "–",
        VERDICTS[judged.apart.verdict],
    )


def _runs(of: Calibration, units: str) -> Iterator[Row]:
    fine, names = 10 * of.reference.resolution_pa, titles(of.device)  # as it can be read
    for phase, runs in (("found", of.found), ("left", of.left)):
        for run in sorted(runs, key=lambda each: each.at):
            off = run.set_gauge_pa - of.device.points[run.at].gauge_pa
            reset = run.reset_gauge_pa
            yield (
                f"as {phase}" if of.left else "found, left",
                names[run.at],
                shown(run.set_gauge_pa, units, fine),
                shown(off, units, fine, signed=True),
                "–" if reset is None else shown(reset, units, fine),
            )


def _dots(of: Calibration) -> Iterator[Dot]:
    for left, runs in ((False, of.found), (True, of.left)):
        for run in runs:
            off = run.set_gauge_pa - of.device.points[run.at].gauge_pa
            yield Dot(
                at=run.at, left=left or not of.left, share=off / of.device.tolerance_pa(run.at)
            )


def _budget(points: Sequence[PointFigures], units: str) -> tuple[Row, ...]:
    grain = min(point.budget.expanded_pa for point in points) / 3
    parts = zip(*(point.budget.components for point in points), strict=True)
    rows: list[Row] = [
        (part[0].title, part[0].spread, *(shown(each.standard_pa, units, grain) for each in part))
        for part in parts
    ]
    budgets = [point.budget for point in points]
    expanded = f"Expanded, {budgets[0].coverage:.0%}"
    rows += [
        ("Together", "", *(shown(each.standard_pa, units, grain) for each in budgets)),
        ("Factor", "", *(f"{each.factor:.2f}" for each in budgets)),
        (expanded, "", *(shown(each.expanded_pa, units, grain) for each in budgets)),
    ]
    rows.append(("Tolerance over it", "", *(f"{point.ratio:.1f}" for point in points)))
    return tuple(rows)
