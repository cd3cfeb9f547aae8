"""The next turns, what to expect of them, and whether the switch is set: judged by the belief,
never by one reading."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from zerodip.switch.belief import CUT_IN, CUT_OUT, Belief, predict
from zerodip.units import PSI

__all__ = ["DONE_AT", "Goal", "Step", "bound_pa", "next_step", "within"]

DONE_AT = 0.90
_BOUND = 4.0
_NEAR, _FAR, _SHARP = (
    0.65,
    4.0,
    0.33,
)  # of the tolerance: near enough to watch; too far to; as sharp as a turn asks for
_EIGHTH = 0.125
_SLACK_PA = 0.5 * PSI  # the coarsest that an eighth of a turn can be aimed
MOST_TURNS = 6.0  # in one power-off: whoever is further off, or on a slack nut, looks in between


@dataclass(frozen=True, kw_only=True)
class Goal:
    """Where the points must come to (Pa gauge) and how near; `highest_pa` is what cut-out may never
    pass, `most_pa` what it is not set above. `order` is both nuts in one power-off, or one nut at a
    time: "first" sets the first point before the second. `eager` turns again without watching more
    first, where the points are not near yet: fewer cycles to watch, more power-offs."""

    cut_in_pa: float
    cut_out_pa: float
    tolerance_pa: float = 1.0 * PSI
    highest_pa: float = float("inf")
    most_pa: float = float("inf")
    order: str = "together"
    eager: bool = False


@dataclass(frozen=True, kw_only=True)
class Step:
    """What to do next: "turn" the nuts by `turns`, "watch" the gauge once more, or it is "done".
    `cut_in_pa` and `cut_out_pa` are (mean, spread) expected after it; `sure` is the probability
    that both points lie within the tolerance now; "see" (turns made are to be watched) and "stop"
    are for whoever plans with it. `held` tells that a limit kept the step shorter than the target
    asks."""

    do: Literal["turn", "see", "watch", "stop", "done"]
    turns: tuple[float, ...]
    cut_in_pa: tuple[float, float]
    cut_out_pa: tuple[float, float]
    sure: float
    held: bool = False


def within(belief: Belief, goal: Goal) -> float:
    """The probability that the points lie within the goal's tolerance: their product, taken as
    independent (cut-out alone where cut-in cannot be set by itself).

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to, and how near.

    Returns:
        Probability, 0 to 1.
    """
    points = (CUT_OUT,) if belief.of.follows else (CUT_IN, CUT_OUT)
    return math.prod(_inside(belief, goal, point) for point in points)


def _inside(belief: Belief, goal: Goal, point: int) -> float:
    target = goal.cut_in_pa if point == CUT_IN else goal.cut_out_pa
    mean, sd = belief.mean[point], max(belief.sd(point), 1e-6)
    return _below((target + goal.tolerance_pa - mean) / sd) - _below(
        (target - goal.tolerance_pa - mean) / sd
    )


def _below(z: float) -> float:
    return 0.5 * (1 + math.erf(z / math.sqrt(2)))


def next_step(belief: Belief, goal: Goal) -> Step:
    """The next step. Turns are in eighths (in quarters beyond a turn), at most six, those that
    bring the expected square of what is left to its least; none is proposed whose upper bound (4
    standard deviations) passes the goal's highest, or that is expected to end above its most.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to, and how near.

    Returns:
        What to do next.

    Source: Least expected square under the belief (decision theory).
    """
    sure = within(belief, goal)
    here = Step(
        do="done",
        turns=(),
        cut_in_pa=_told(belief, CUT_IN),
        cut_out_pa=_told(belief, CUT_OUT),
        sure=sure,
    )
    if sure >= DONE_AT:
        return here
    turns, held = _best(belief, goal)
    if not any(turns) or _sharpening(belief, goal):
        return Step(
            do="watch",
            turns=(),
            cut_in_pa=here.cut_in_pa,
            cut_out_pa=here.cut_out_pa,
            sure=sure,
            held=held,
        )
    after = predict(belief, turns)
    return Step(
        do="turn",
        turns=turns,
        cut_in_pa=_told(after, CUT_IN),
        cut_out_pa=_told(after, CUT_OUT),
        sure=sure,
        held=held,
    )


def _told(belief: Belief, point: int) -> tuple[float, float]:
    return belief.mean[point], belief.sd(point)


def _sharpening(belief: Belief, goal: Goal) -> bool:
    """Whether another look tells more than another turn: the points are believed near enough, only
    not surely; or they are not far, and not yet known well enough to be worth a turn. Its measures
    were found on the fleet of `bench/turns`."""
    points = (CUT_OUT,) if belief.of.follows else (CUT_IN, CUT_OUT)
    targets = (goal.cut_in_pa, goal.cut_out_pa)
    off = max(abs(belief.mean[p] - targets[p]) for p in points) / goal.tolerance_pa
    blur = max(belief.sd(p) for p in points) / goal.tolerance_pa
    return off <= _NEAR or (not goal.eager and blur > _SHARP and off <= _FAR)


def _best(belief: Belief, goal: Goal) -> tuple[tuple[float, ...], bool]:
    free = _free(belief, goal)
    wanted = _wanted(belief, goal, free)
    held = False
    for _ in range(40):
        turns = _rounded(belief, goal, wanted, free)
        if _allowed(predict(belief, turns), goal) or not any(turns):
            return turns, held
        held, wanted = True, [0.8 * turn if abs(turn) > _EIGHTH else 0.0 for turn in wanted]
    return tuple(0.0 for _ in belief.of.nuts), True


def _allowed(after: Belief, goal: Goal) -> bool:
    """Whether cut-out surely stays below what it may never pass, and is not expected above what it
    is not set above (where the target itself is not either)."""
    most = max(goal.most_pa, goal.cut_out_pa)
    return bound_pa(after) <= goal.highest_pa and after.mean[CUT_OUT] <= most + _SLACK_PA


def _free(belief: Belief, goal: Goal) -> list[int]:
    """The nuts that may be turned now: all, or one by one the second only once the first point is
    right."""
    nuts = list(range(len(belief.of.nuts)))
    if goal.order == "together" or len(nuts) < 2:
        return nuts
    first = CUT_IN if belief.of.id == "two" else CUT_OUT
    target = goal.cut_in_pa if first == CUT_IN else goal.cut_out_pa
    return [1] if abs(belief.mean[first] - target) <= _NEAR * goal.tolerance_pa else [0]


def _wanted(belief: Belief, goal: Goal, free: list[int]) -> list[float]:
    """Turns at which the expected square of what is left is least: the zero of its gradient, which
    is linear in the turns."""
    size = len(free)
    matrix, right = [[0.0] * size for _ in range(size)], [0.0] * size
    points = (CUT_OUT,) if belief.of.follows else (CUT_IN, CUT_OUT)
    for point in _aimed(belief, goal, points):
        target = goal.cut_in_pa if point == CUT_IN else goal.cut_out_pa
        at = [2 + 2 * nut + point for nut in free]
        for i, row in enumerate(at):
            right[i] += belief.mean[row] * (target - belief.mean[point]) - belief.spread[point][row]
            for j, column in enumerate(at):
                matrix[i][j] += belief.mean[row] * belief.mean[column] + belief.spread[row][column]
    solved = _solve(matrix, right)
    turns = [0.0] * len(belief.of.nuts)
    for nut, turn in zip(free, solved, strict=True):
        turns[nut] = min(max(turn, -MOST_TURNS), MOST_TURNS)
    return turns


def _aimed(belief: Belief, goal: Goal, points: tuple[int, ...]) -> tuple[int, ...]:
    """One nut at a time aims at one point only."""
    if goal.order == "together" or len(belief.of.nuts) < 2:
        return points
    first = (CUT_IN, CUT_OUT) if belief.of.id == "two" else (CUT_OUT, CUT_IN)
    return (first[0],) if _free(belief, goal) == [0] else (first[1],)


def _solve(matrix: list[list[float]], right: list[float]) -> list[float]:
    if len(right) == 1:
        return [right[0] / matrix[0][0]]
    (a, b), (c, d) = matrix
    whole = a * d - b * c
    return [(right[0] * d - b * right[1]) / whole, (a * right[1] - right[0] * c) / whole]


def _rounded(
    belief: Belief, goal: Goal, wanted: Sequence[float], free: list[int]
) -> tuple[float, ...]:
    """To eighths, or quarters beyond a turn; of the neighbours, those with the least expected
    square left."""
    choices = [_neighbours(turn) if nut in free else (0.0,) for nut, turn in enumerate(wanted)]
    return min(itertools.product(*choices), key=lambda turns: _left(predict(belief, turns), goal))


def _neighbours(turn: float) -> tuple[float, ...]:
    step = _EIGHTH if abs(turn) <= 1 else 2 * _EIGHTH
    low = math.floor(turn / step) * step
    return low, low + step


def _left(belief: Belief, goal: Goal) -> float:
    points = (CUT_OUT,) if belief.of.follows else (CUT_IN, CUT_OUT)
    targets = (goal.cut_in_pa, goal.cut_out_pa)
    return sum(
        (belief.mean[p] - targets[p]) ** 2 + belief.spread[p][p]
        for p in _aimed(belief, goal, points)
    )


def bound_pa(belief: Belief) -> float:
    """The upper bound (4 standard deviations) of where cut-out may stand, Pa gauge.

    Args:
        belief: What is believed of the switch.

    Returns:
        Gauge pressure, Pa.
    """
    return belief.mean[CUT_OUT] + _BOUND * belief.sd(CUT_OUT)
