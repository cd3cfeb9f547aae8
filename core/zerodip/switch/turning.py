"""The turns that bring the points nearest, within what must never be passed."""

import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from zerodip.switch.belief import Belief, chance_above
from zerodip.switch.classes import CUT_OUT
from zerodip.switch.goal import Goal, aimed_points
from zerodip.switch.travel import highest_yet_pa, steepest_pa
from zerodip.units import PSI

__all__ = ["MOST_TURNS", "PASSING", "Turning", "best_turns", "lesson"]

PASSING = 1e-7  # the chance of passing a limit that one turn may have
MOST_TURNS = 6.0  # in one power-off: whoever is further off, or on a slack nut, looks in between
_EIGHTH = 0.125
_UNLIKELY, _FAR_PA = 0.02, 7.0 * PSI  # the stiffest that a nut may yet be, and how far it may go
_CARE = (
    0.3  # how much of the uncertainty counts against going all the way: a longer turn teaches more
)
_UNKNOWN = 0.3  # share of a slope that may be unknown near a limit
_LESSON_PA = 3.0 * PSI  # what a turn moves that is made to learn
_ENOUGH = 0.5  # of the tolerance: one nut alone is enough where it is expected to miss by no more
_SLACK_PA = 0.5 * PSI  # the coarsest that an eighth of a turn can be aimed


@dataclass(frozen=True, kw_only=True)
class Turning:
    """Turns of each nut; `held` that a limit keeps them shorter than the target asks, `unread` that
    they would raise cut-out and no limit is known."""

    turns: tuple[float, ...]
    held: bool = False
    unread: bool = False


def best_turns(belief: Belief, goal: Goal) -> Turning:
    """The turns, in eighths (in quarters beyond a turn, in sixteenths of a stiff screw up to a
    quarter), at most six, that bring the expected square of what is left to its least with the
    fewest nuts: another nut only where the points cannot come within the tolerance without it. A
    turn's chance to pass the goal's highest is below `PASSING`; while that is not known, nothing is
    raised above where it was found.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to, and how near.

    Returns:
        The turns; none where no turn brings them nearer.

    Source: Least expected square under the belief (decision theory).
    """
    none = (0.0,) * len(belief.of.nuts)
    nuts = _fewest(belief, goal)
    if not nuts:
        return Turning(turns=none)
    wanted = _wanted(belief, goal, nuts, {})
    best = _rounded(belief, goal, wanted, nuts)
    if goal.highest_pa is None and _raises(belief, best):
        return _no_higher(belief, goal)
    if not any(best) and _unsure_way(belief, goal, nuts):
        return Turning(turns=none, held=True)
    return (
        Turning(turns=best) if _allowed(belief, goal, best) else _held(belief, goal, wanted, nuts)
    )


def _no_higher(belief: Belief, goal: Goal) -> Turning:
    """No limit is known: the points are brought nearer only as far as cut-out surely stays below
    where it was found."""
    if goal.stood_pa is not None:
        below = best_turns(belief, replace(goal, highest_pa=goal.stood_pa))
        if any(below.turns):
            return below
    return Turning(turns=(0.0,) * len(belief.of.nuts), unread=True)


def lesson(belief: Belief, goal: Goal) -> tuple[float, ...]:
    """A small turn down of a nut that raises cut-out and of which too little is known to come near
    a limit with it: it teaches how far the nut moves, and hurts nothing.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to, and which nuts are left alone.

    Returns:
        The turns; none where every such nut is known well.

    Source: Common practice, no source.
    """
    turns = [0.0] * len(belief.of.nuts)
    for nut in _free(belief, goal):
        each, (mean, sd) = belief.of.nuts[nut], belief.slope(nut, CUT_OUT)
        if each.moves[CUT_OUT] and each.id not in goal.leave and sd > _UNKNOWN * abs(mean):
            size = min(_LESSON_PA / abs(mean), 1.0, _most(belief, nut))
            size = max(math.floor(size / _EIGHTH) * _EIGHTH, belief.of.finest)
            if size <= _most_down(belief, goal, nut):
                turns[nut] = -size
                break
    return tuple(turns)


def _fewest(belief: Belief, goal: Goal) -> list[int]:
    """The nuts to turn: the best alone where it can bring the points near enough; else all that are
    free and not to be left alone."""
    free = [nut for nut in _free(belief, goal) if belief.of.nuts[nut].id not in goal.leave]
    missed = {nut: _missed(belief, goal, nut) for nut in free}
    enough = [nut for nut in free if missed[nut] <= _ENOUGH * goal.tolerance_pa]
    return [min(enough, key=missed.__getitem__)] if enough else free


def _free(belief: Belief, goal: Goal) -> list[int]:
    """The nuts that may be turned now: all, or one by one the second only once the first point is
    right."""
    nuts = list(range(len(belief.of.nuts)))
    if goal.order == "together" or len(nuts) < 2:
        return nuts
    first = belief.of.nuts[0].sets
    near = abs(belief.mean[first] - goal.target_pa(first)) <= 0.65 * goal.tolerance_pa
    return [1] if near else [0]


def _points(belief: Belief, goal: Goal) -> tuple[int, ...]:
    """The points that are aimed at now: one nut at a time aims at one point only."""
    free = _free(belief, goal)
    points = aimed_points(belief, goal)
    if len(free) == len(belief.of.nuts):
        return points
    return (belief.of.nuts[free[0]].sets,)


def _missed(belief: Belief, goal: Goal, nut: int) -> float:
    """How far the worse point is expected to be off at the best turn of one nut alone, Pa."""
    points = _points(belief, goal)
    off = [goal.target_pa(point) - belief.mean[point] for point in points]
    slopes = [belief.mean[2 + 2 * nut + point] for point in points]
    square = math.fsum(slope * slope for slope in slopes)
    turn = math.fsum(s * o for s, o in zip(slopes, off, strict=True)) / square if square else 0.0
    return max(abs(o - s * turn) for s, o in zip(slopes, off, strict=True))


def _wanted(
    belief: Belief, goal: Goal, nuts: Sequence[int], fixed: Mapping[int, float]
) -> list[float]:
    """Turns at which the expected square of what is left is least, some nuts being `fixed`: the
    zero of its gradient, which is linear in the turns."""
    free, size = [nut for nut in nuts if nut not in fixed], len(belief.of.nuts)
    turns = [fixed.get(nut, 0.0) for nut in range(size)]
    if not free:
        return turns
    matrix, right = [[0.0] * len(free) for _ in free], [0.0] * len(free)
    for point in _points(belief, goal):
        at = [2 + 2 * nut + point for nut in free]
        there = [(turn, 2 + 2 * nut + point) for nut, turn in fixed.items()]
        short = goal.target_pa(point) - belief.mean[point]
        short -= math.fsum(turn * belief.mean[k] for turn, k in there)
        for i, row in enumerate(at):
            right[i] += belief.mean[row] * short - _CARE * belief.spread[point][row]
            right[i] -= _CARE * math.fsum(turn * belief.spread[k][row] for turn, k in there)
            for j, column in enumerate(at):
                matrix[i][j] += belief.mean[row] * belief.mean[column]
                matrix[i][j] += _CARE * belief.spread[row][column]
    for nut, turn in zip(free, _solved(matrix, right), strict=True):
        most = _most(belief, nut)
        turns[nut] = min(max(turn, -min(most, _most_down(belief, goal, nut))), most)
    return turns


def _most(belief: Belief, nut: int) -> float:
    """The furthest that a nut is turned in one power-off: little while it may still be a stiff one,
    so that no turn moves a point further than is easily turned back."""
    at, unlikely = 2 + 2 * nut + belief.of.nuts[nut].sets, 0.0
    for part in sorted(belief.parts, key=lambda part: -part.mean[at]):
        unlikely += part.weight
        if unlikely >= _UNLIKELY:
            return min(max(_FAR_PA / max(part.mean[at], 1e-9), belief.of.begin), MOST_TURNS)
    return belief.of.begin


def _unsure_way(belief: Belief, goal: Goal, nuts: Sequence[int]) -> bool:
    """Whether a nut is not turned because it might go the other way, past a limit."""
    return any(_most_down(belief, goal, nut) < belief.of.finest for nut in nuts)


def _most_down(belief: Belief, goal: Goal, nut: int) -> float:
    """The furthest that a nut is turned down before any turn of it has shown which way it goes: the
    other way it must not pass a limit either; at least what teaches."""
    if goal.highest_pa is None or not belief.travels:
        return MOST_TURNS
    unknown = {
        at: steepest_pa(belief, at)
        for at, travel in enumerate(belief.travels)
        if belief.of.nuts[at].moves[CUT_OUT] and not travel.engaged
    }
    if nut not in unknown:
        return MOST_TURNS
    room = goal.highest_pa - highest_yet_pa(belief, (0.0,) * len(belief.travels), hidden=False)
    fresh = not any(belief.travels[at].stretch for at in unknown)
    least = belief.of.finest if fresh and nut == min(unknown) else 0.0  # one must show the way
    return max(room / math.fsum(unknown.values()), least)


def _solved(matrix: list[list[float]], right: list[float]) -> list[float]:
    if len(right) == 1:
        return [right[0] / matrix[0][0]]
    (a, b), (c, d) = matrix
    whole = a * d - b * c
    return [(right[0] * d - b * right[1]) / whole, (a * right[1] - right[0] * c) / whole]


def _rounded(
    belief: Belief,
    goal: Goal,
    wanted: Sequence[float],
    nuts: Sequence[int],
    capped: Sequence[int] = (),
) -> tuple[float, ...]:
    """To eighths, or quarters beyond a turn; of the neighbours (the lower one where a nut is
    `capped`), those with the least expected square left."""
    choices = [
        _choices(belief, goal, nut, turn, nut in capped) if nut in nuts else [0.0]
        for nut, turn in enumerate(wanted)
    ]
    return min(itertools.product(*choices), key=lambda turns: _left(belief, goal, turns))


def _choices(belief: Belief, goal: Goal, nut: int, turn: float, capped: bool) -> list[float]:
    """The neighbours of a turn that are not too far; none of both where both are."""
    low, most = -_most_down(belief, goal, nut), _most(belief, nut)
    near = _neighbours(turn, belief.of.finest)[: 1 if capped else 2]
    return [each for each in near if low <= each and abs(each) <= most] or [0.0]


def _neighbours(turn: float, finest: float) -> tuple[float, ...]:
    size = abs(turn)
    step = 2 * _EIGHTH if size > 1 else _EIGHTH if size > 2 * _EIGHTH else finest
    low = math.floor(turn / step) * step
    return low, low + step


def _left(belief: Belief, goal: Goal, turns: Sequence[float]) -> float:
    """The expected square of what is left after these turns, Pa²."""
    total = 0.0
    for point in _points(belief, goal):
        at = [2 + 2 * nut + point for nut in range(len(turns))]
        off = belief.mean[point] - goal.target_pa(point)
        off += math.fsum(turn * belief.mean[i] for i, turn in zip(at, turns, strict=True))
        total += off * off
        for i, turn in zip(at, turns, strict=True):
            row = belief.spread[i]
            unsure = turn * (
                2 * row[point] + math.fsum(t * row[j] for j, t in zip(at, turns, strict=True))
            )
            total += _CARE * unsure
    return total


def _raises(belief: Belief, turns: Sequence[float]) -> bool:
    """Whether a nut that is there to move cut-out is turned up."""
    return any(
        turn > 0 and nut.moves[CUT_OUT] for nut, turn in zip(belief.of.nuts, turns, strict=True)
    )


def _allowed(belief: Belief, goal: Goal, turns: tuple[float, ...]) -> bool:
    """Whether cut-out surely stays below what it may never pass (or is only lowered), and is not
    expected above what it is not set above (where the target itself is not either)."""
    highest = float("inf") if goal.highest_pa is None else goal.highest_pa
    if not _raises(belief, turns):
        return True
    if chance_above(belief, turns, CUT_OUT, highest) > PASSING:
        return False
    if highest_yet_pa(belief, turns, hidden=False) > highest:
        return False
    most = max(goal.most_pa, goal.cut_out_pa)
    moved = math.fsum(t * belief.mean[2 + 2 * nut + CUT_OUT] for nut, t in enumerate(turns))
    return belief.mean[CUT_OUT] + moved <= most + _SLACK_PA


def _held(belief: Belief, goal: Goal, wanted: list[float], nuts: Sequence[int]) -> Turning:
    """The same way, but what raises cut-out only as far as a limit lets it; the other nuts make the
    best of that, and raise nothing in its place."""
    raising = [nut for nut in nuts if wanted[nut] > 0 and belief.of.nuts[nut].moves[CUT_OUT]]
    for _ in range(40):
        wanted = [0.8 * turn if abs(turn) > belief.of.finest else 0.0 for turn in wanted]
        fixed = {nut: wanted[nut] for nut in raising}
        best = _wanted(belief, goal, nuts, fixed)
        upward = [nut for nut in nuts if belief.of.nuts[nut].moves[CUT_OUT]]
        for nut in set(upward) - set(raising):
            best[nut] = min(best[nut], 0.0)
        capped = [nut for nut in upward if best[nut] >= 0]
        turns = _rounded(belief, goal, best, nuts, capped)
        if _allowed(belief, goal, turns):
            return Turning(turns=turns, held=True)
        if not any(fixed.values()):
            break
    return Turning(turns=(0.0,) * len(belief.of.nuts), held=True)
