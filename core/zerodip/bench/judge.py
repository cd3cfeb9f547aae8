"""Points held against their tolerances, with a guard band.

The rule: pass where the error and its expanded uncertainty stay within the tolerance, fail where
they stay without; between, conditional, on the side where the error itself lies. An error at a
limit is within. Source: ILAC-G8:09/2019, 4.2.3 (non-binary statement, guard band equal to the
expanded uncertainty) and JCGM 106:2012, 7 and 8 (probability of conformity); from memory.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from zerodip.bench.budget import Budget, budget_of, deadband_error, repeatability
from zerodip.bench.device import APART, BenchDevice, SetPoint
from zerodip.bench.file import BenchRun, Calibration, deadband_of

__all__ = [
    "RULE",
    "WORST_FIRST",
    "DeadbandFigures",
    "PointFigures",
    "Separation",
    "judged_points",
    "overall",
    "separation",
    "verdict_on",
]

Verdict = Literal["pass", "conditional_pass", "conditional_fail", "fail", "open"]
WORST_FIRST: tuple[Verdict, ...] = ("fail", "conditional_fail", "open", "conditional_pass", "pass")
RULE = (
    "Pass: the error and its uncertainty stay within the tolerance. Conditional pass: the error "
    "does, not with its uncertainty. Conditional fail: it does not, but may by its uncertainty. "
    "Fail: it does not at all. The guard band is the expanded uncertainty (95 %)."
)
RUNS = 3  # of each point, at least: common practice
_SAME = 1e-6  # share of a separation, as pressures are converted and typed
_EQUAL = 1e-9  # share of a limit within which a figure stands at it


@dataclass(frozen=True, kw_only=True)
class DeadbandFigures:
    """A point's deadband: the mean, what it may be off by (Pa), and how it stands (None where
    nothing is asked of it)."""

    mean_pa: float
    expanded_pa: float
    verdict: Verdict | None


@dataclass(frozen=True, kw_only=True)
class PointFigures:
    """A point as found or as left: its runs, where it acted in the mean (Pa gauge), by how much
    that is off, the widest that runs lay apart and how that stands against the tolerance, which it
    may be at most (common practice, no source), the tolerance and the guard band, the budget, the
    tolerance over the uncertainty, the probability that it is within, and the verdict."""

    at: int
    runs: int
    set_gauge_pa: float
    error_pa: float
    apart_pa: float
    tolerance_pa: float
    accepted_pa: float
    budget: Budget
    ratio: float
    inside: float
    verdict: Verdict
    repeats: Verdict
    deadband: DeadbandFigures | None


@dataclass(frozen=True, kw_only=True)
class Separation:
    """How far the upper point acted above the lower, what that has to be at least (Pa), and how it
    stands."""

    apart_pa: float
    least_pa: float
    verdict: Verdict


def separation(of: Calibration, points: Sequence[PointFigures]) -> Separation | None:
    """How far both points of a dual switch truly lie apart, as measured.

    Args:
        of: The calibration.
        points: Its points, the lower first.

    Returns:
        The separation; None for a single point.

    Source: At least 3 % of the range: common practice, no source.
    """
    if len(points) < 2:
        return None
    apart, least = points[1].set_gauge_pa - points[0].set_gauge_pa, APART * of.device.span_pa
    # Points set as near as they may be act a little nearer by what their tolerances allow.
    allowed = math.fsum(point.tolerance_pa for point in points)
    if apart >= least * (1 - _SAME):
        return Separation(apart_pa=apart, least_pa=least, verdict="pass")
    near = apart >= (least - allowed) * (1 - _SAME)
    return Separation(
        apart_pa=apart, least_pa=least, verdict="conditional_pass" if near else "fail"
    )


def overall(point: PointFigures, runs: int = 0) -> Verdict:
    """How a point stands in all: by its error, its deadband and how well it repeats.

    Args:
        point: The point.
        runs: How many runs are wanted of it at least.

    Returns:
        The worst verdict.
    """
    verdicts = [point.verdict, point.repeats]
    if point.deadband and point.deadband.verdict:
        verdicts.append(point.deadband.verdict)
    if point.runs < runs:
        verdicts.append("open")
    return min(verdicts, key=WORST_FIRST.index)


def judged_points(of: Calibration, runs: Sequence[BenchRun]) -> tuple[PointFigures, ...]:
    """Each point by its runs.

    Args:
        of: The calibration.
        runs: Its runs as found, or as left.

    Returns:
        The points' figures, the lower first.
    """
    return tuple(
        _point(of, at, [run for run in runs if run.at == at], _spread(of, runs, at))
        for at in range(len(of.device.points))
    )


def verdict_on(error_pa: float, tolerance_pa: float, expanded_pa: float) -> Verdict:
    """How an error stands against a tolerance.

    Args:
        error_pa: The error, Pa.
        tolerance_pa: The tolerance either way, Pa, 0 or more.
        expanded_pa: The expanded uncertainty of the error, Pa, 0 or more.

    Returns:
        The verdict.
    """
    off, equal = abs(error_pa), _EQUAL * (tolerance_pa + expanded_pa)
    if off <= tolerance_pa - expanded_pa + equal:
        return "pass"
    if off <= tolerance_pa + equal:
        return "conditional_pass"
    return "conditional_fail" if off <= tolerance_pa + expanded_pa + equal else "fail"


def _spread(of: Calibration, runs: Sequence[BenchRun], at: int) -> tuple[float, float]:
    """What repeats, by these runs; by all where these are single ones. A point that wanders more
    than both together is told by its own runs: the other must not hide it."""
    both, own = repeatability(runs), repeatability([run for run in runs if run.at == at])
    if not math.isfinite(both[1]):
        return repeatability(of.left)
    return own if math.isfinite(own[1]) and own[0] > both[0] else both


def _point(
    of: Calibration, at: int, runs: Sequence[BenchRun], spread: tuple[float, float]
) -> PointFigures:
    device, point = of.device, of.device.points[at]
    budget, error = budget_of(device, of.reference, runs, spread)
    sets = [run.set_gauge_pa for run in runs]
    mean, tolerance = math.fsum(sets) / len(sets), device.tolerance_pa(at)
    off = mean - point.gauge_pa
    told = math.isfinite(spread[1])
    return PointFigures(
        at=at,
        runs=len(runs),
        set_gauge_pa=mean,
        error_pa=off,
        apart_pa=max(sets) - min(sets),
        tolerance_pa=tolerance,
        accepted_pa=max(tolerance - budget.expanded_pa, 0.0),
        budget=budget,
        ratio=tolerance / budget.expanded_pa,
        inside=error.within(-tolerance - off, tolerance - off),
        verdict=verdict_on(off, tolerance, budget.expanded_pa) if told else "open",
        repeats=verdict_on(max(sets) - min(sets), tolerance, 0.0),
        deadband=_deadband(device, point, tolerance, runs, told, of, spread),
    )


def _deadband(
    device: BenchDevice,
    point: SetPoint,
    tolerance: float,
    runs: Sequence[BenchRun],
    told: bool,
    of: Calibration,
    spread: tuple[float, float],
) -> DeadbandFigures | None:
    seen = [run for run in runs if run.reset_gauge_pa is not None]
    if not seen:
        return None
    mean = deadband_of(device, seen) or 0.0
    expanded = deadband_error(device, of.reference, seen, spread).half_width()
    return DeadbandFigures(
        mean_pa=mean,
        expanded_pa=expanded,
        verdict=_of_deadband(point, mean, tolerance, expanded) if told else "open",
    )


def _of_deadband(point: SetPoint, mean: float, tolerance: float, expanded: float) -> Verdict | None:
    """An adjustable one is held to its point's tolerance; of a fixed one the most is asked; one the
    wrong way round is none."""
    if mean <= 0:
        return "fail"
    if point.deadband_pa is None:
        return None
    if point.deadband == "adjustable":
        return verdict_on(mean - point.deadband_pa, tolerance, expanded)
    half = point.deadband_pa / 2  # between nothing and the most
    return verdict_on(max(mean - half, 0.0), half, expanded)
