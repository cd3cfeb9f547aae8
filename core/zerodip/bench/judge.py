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
from zerodip.bench.device import BenchDevice, SetPoint
from zerodip.bench.file import BenchRun, Calibration, deadband_of

__all__ = [
    "RULE",
    "WORST_FIRST",
    "DeadbandFigures",
    "PointFigures",
    "judged_points",
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
    that is off, the widest that runs lay apart, the tolerance and the guard band, the budget, the
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
    deadband: DeadbandFigures | None


def judged_points(of: Calibration, runs: Sequence[BenchRun]) -> tuple[PointFigures, ...]:
    """Each point by its runs.

    Args:
        of: The calibration.
        runs: Its runs as found, or as left.

    Returns:
        The points' figures, the lower first.
    """
    spread = _spread(of, runs)
    return tuple(
        _point(of, at, [run for run in runs if run.at == at], spread)
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


def _spread(of: Calibration, runs: Sequence[BenchRun]) -> tuple[float, float]:
    """What repeats, by these runs; by all where these are single ones."""
    own = repeatability(runs)
    return own if math.isfinite(own[1]) else repeatability(of.left)


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
