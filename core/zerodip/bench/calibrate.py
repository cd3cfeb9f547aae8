"""The use case of the bench: a calibration judged, with all that its certificate says."""

from collections.abc import Sequence
from dataclasses import dataclass

from zerodip.bench.drift import Drift, NextDue, drift_of, next_due
from zerodip.bench.file import BenchTurn, Calibration, acted_at
from zerodip.bench.judge import (
    RULE,
    RUNS,
    WORST_FIRST,
    PointFigures,
    Separation,
    Verdict,
    judged_points,
    overall,
    separation,
)
from zerodip.bench.reference import reference_faults
from zerodip.bench.words import VERDICTS, said
from zerodip.errors import InvalidInput
from zerodip.text.said import Said
from zerodip.units import unit_for

__all__ = ["Influence", "Judgement", "calibrate"]


@dataclass(frozen=True, kw_only=True)
class Influence:
    """By how much one point moved (Pa) while only the other's screw was turned, at the most."""

    at: int
    moved_pa: float


@dataclass(frozen=True, kw_only=True)
class Judgement:
    """A calibration: its points as found and as left, how far two points lie apart as left, the
    verdict on both (the worst of all that is judged) with its words, the rule that decided, whether
    it was adjusted, what points did to each other, drifts, when the next is due, and what is said
    of it all."""

    found: tuple[PointFigures, ...]
    left: tuple[PointFigures, ...]
    apart: Separation | None
    found_verdict: Verdict
    left_verdict: Verdict
    found_says: str
    left_says: str
    rule: str
    adjusted: bool
    influences: tuple[Influence, ...]
    drifts: tuple[Drift, ...]
    next_due: NextDue
    says: tuple[Said, ...]


def calibrate(of: Calibration, units: str = "us") -> Judgement:
    """Judges a calibration.

    Args:
        of: The calibration.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The judgement.

    Raises:
        InvalidInput: For a reference that may not be used.
        UnknownUnit: For a unit system that is not known.
    """
    unit_for("pressure", units)
    faults = reference_faults(of.device, of.reference, of.day)
    if faults:
        raise InvalidInput(faults)
    found, left = judged_points(of, of.found), judged_points(of, of.as_left)
    drifts = tuple(_drifts(of, found, left))
    apart = separation(of, left)
    worst_found = _worst([overall(point) for point in found])
    rows = [overall(point, RUNS) for point in left]
    worst_left = _worst([*rows, apart.verdict] if apart else rows)
    return Judgement(
        found=found,
        left=left,
        apart=apart,
        found_verdict=worst_found,
        left_verdict=worst_left,
        found_says=VERDICTS[worst_found],
        left_says=VERDICTS[worst_left],
        rule=RULE,
        adjusted=bool(of.left),
        influences=tuple(_influences(of)),
        drifts=drifts,
        next_due=next_due(of, drifts, worst_left in ("fail", "conditional_fail")),
        says=tuple(said(of, found, left, apart, drifts, units)),
    )


def _worst(verdicts: Sequence[Verdict]) -> Verdict:
    return min(verdicts, key=WORST_FIRST.index)


def _drifts(
    of: Calibration, found: Sequence[PointFigures], left: Sequence[PointFigures]
) -> list[Drift]:
    made = [
        drift_of(of, now.at, now.error_pa, after.error_pa, after.budget.standard_pa)
        for now, after in zip(found, left, strict=True)
    ]
    return [each for each in made if each is not None]


def _influences(of: Calibration) -> list[Influence]:
    """Where only one screw was turned, how far the other point went with it."""
    if len(of.device.points) < 2:
        return []
    most = {0: 0.0, 1: 0.0}
    before = [acted_at(of.found, at) or 0.0 for at in range(2)]
    for turn in of.turns:
        for at, (own, other) in enumerate(((turn.lower, turn.upper), (turn.upper, turn.lower))):
            moved = _points(turn)[at] - before[at]
            if own == 0 and other != 0 and abs(moved) > abs(most[at]):
                most[at] = moved
        before = _points(turn)
    return [Influence(at=at, moved_pa=moved) for at, moved in most.items() if moved]


def _points(turn: BenchTurn) -> list[float]:
    lower = turn.lower_gauge_pa
    return [lower, lower if turn.upper_gauge_pa is None else turn.upper_gauge_pa]
