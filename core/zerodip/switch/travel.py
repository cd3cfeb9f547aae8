"""What the turns of a nut have shown so far, and how far the points may yet go because of them.

A nut may have dead travel (burrs, a lock, a spring that is not seated), it may be turned the wrong
way, and a gauge may stick: what a turn did not do yet may still come. Common practice, no source.
"""

import math
from collections.abc import Sequence
from dataclasses import replace

from zerodip.switch.belief import Belief, Part, Travel, Watch
from zerodip.switch.classes import CUT_IN, CUT_OUT, Nut

__all__ = ["highest_yet_pa", "is_silent", "moved_pa", "steepest_pa", "travelled", "unlinked"]

_SHOWN, _AGAINST, _EXPECTED = 2.0, 2.5, 4.0  # standard deviations
_SURE = 3.0
_BENDS = 1.15  # springs are a little steeper elsewhere
_DEAD = 0.5  # turns: the furthest that a nut is idle at first
_SLACK = 0.06  # turns: the furthest that it is idle where it turns back


def moved_pa(
    before: Watch, after: Watch, nuts: Sequence[Nut], noise_pa: float
) -> tuple[tuple[float, float], ...]:
    """How far each nut's own point moved from one look to the next, without what the other nut took
    it along.

    Args:
        before: A look.
        after: The next one, with the turns between them.
        nuts: The switch's nuts.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        Moves and their standard deviations, Pa.
    """
    step = after.cut_in_pa - before.cut_in_pa, after.cut_out_pa - before.cut_out_pa
    moved = []
    for nut in nuts:
        along = nut.sets == CUT_OUT and any(
            other is not nut and other.moves[CUT_OUT] and other.sets == CUT_IN and turn
            for other, turn in zip(nuts, after.turns, strict=False)
        )
        by = step[nut.sets] - (step[CUT_IN] if along else 0.0)
        moved.append((by, (2 if along else math.sqrt(2)) * noise_pa))
    return tuple(moved)


def is_silent(turns: float, nut: Nut, noise_pa: float) -> bool:
    """Whether all but the softest such nuts would surely have shown such turns.

    Args:
        turns: Turns that moved nothing yet.
        nut: The nut.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        Whether it would.
    """
    return abs(turns) * nut.soft_pa > _EXPECTED * math.sqrt(2) * noise_pa


def travelled(travel: Travel, turn: float, moved: tuple[float, float], still: bool) -> Travel:
    """What a nut has shown after one more turn and look.

    Args:
        travel: What it had shown.
        turn: The turn, clockwise positive; 0 for a look alone.
        moved: How far its point moved, and the standard deviation of that, Pa.
        still: Whether the gauge stood as at the look before.

    Returns:
        The same after it.
    """
    goes_on = travel.unshown and turn * travel.unshown >= 0
    if not turn and not goes_on:
        return replace(travel, hidden=False)
    stretch = turn + (travel.unshown if goes_on else 0.0)
    idle = travel.idle if goes_on else _idle(travel, turn)
    by = moved[0] + (travel.moved_pa if goes_on else 0.0)
    off = max(moved[1], travel.off_pa if goes_on else 0.0)
    hidden = bool(turn) and still
    return _judged(
        replace(travel, stretch=stretch, idle=idle, moved_pa=by, off_pa=off, hidden=hidden)
    )


def _idle(travel: Travel, turn: float) -> float:
    """The furthest that a stretch that begins now may go before the nut moves its point."""
    if not travel.engaged:
        return _DEAD
    return 0.0 if turn * travel.stretch >= 0 else _SLACK


def _judged(travel: Travel) -> Travel:
    """Whether a stretch shows; how steep the nut may be by what it moved beyond idle travel."""
    off, steepest = travel.off_pa, travel.steepest_pa
    forward = travel.moved_pa * math.copysign(1.0, travel.stretch)
    bites = abs(travel.stretch) - travel.idle
    if bites > 0 and not travel.hidden:
        seen = _BENDS * (abs(forward) + _SURE * off) / bites
        steepest = seen if steepest is None else min(seen, steepest)
    if forward <= _SHOWN * off:
        against = forward < -_AGAINST * off
        return replace(travel, shown=False, against=against, steepest_pa=steepest)
    engaged = travel.engaged + 1
    return replace(travel, shown=True, against=False, engaged=engaged, steepest_pa=steepest)


def highest_yet_pa(belief: Belief, turns: Sequence[float], hidden: bool = True) -> float:
    """The highest that cut-out may come to after these turns. A nut may be as steep as any, as long
    as what it showed may be the end of idle travel; one that has not shown may go the other way.

    Args:
        belief: What is believed of the switch.
        turns: Turns of each nut, clockwise positive.
        hidden: Whether to count what earlier turns may have done that the gauge did not show.

    Returns:
        Pressure, Pa gauge.
    """
    highest = belief.mean[CUT_OUT] + _SURE * belief.sd(CUT_OUT)
    if any(travel.unshown and not travel.engaged for travel in belief.travels):
        highest = max(highest, belief.at_most_pa)  # the belief takes the turns to have worked
    for at, (nut, travel) in enumerate(zip(belief.of.nuts, belief.travels, strict=False)):
        if nut.moves[CUT_OUT]:
            slope = steepest_pa(belief, at)
            highest += slope * _upward(turns[at], travel)
            highest += _hidden_pa(travel, slope) if hidden else 0.0
    return highest


def steepest_pa(belief: Belief, at: int) -> float:
    """The furthest that a turn of a nut may move its point by what was seen and is believed.

    Args:
        belief: What is believed of the switch.
        at: Which nut.

    Returns:
        Pa a turn.
    """
    nut, travel = belief.of.nuts[at], belief.travels[at]
    if travel.steepest_pa is None:
        return nut.most_pa
    mean, sd = belief.slope(at, nut.sets)
    return min(max(mean + _SURE * sd, travel.steepest_pa), nut.most_pa)


def _upward(turn: float, travel: Travel) -> float:
    """Turns that may raise: the other way as well, before a nut has shown which way it goes."""
    return abs(turn) if travel.engaged == 0 else max(turn, 0.0)


def _hidden_pa(travel: Travel, slope_pa: float) -> float:
    """What turns may have done while the gauge stood still and nobody looked again."""
    return slope_pa * _upward(travel.stretch, travel) if travel.hidden else 0.0


def unlinked(belief: Belief, watch: Watch, noise_pa: float) -> Belief:
    """The belief with both points as just read, and nothing learned of the nuts from it.

    Args:
        belief: What is believed of the switch.
        watch: The look.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        The belief.
    """
    seen = watch.cut_in_pa, watch.cut_out_pa

    def cell(i: int, j: int, value: float) -> float:
        if i < 2 or j < 2:
            return noise_pa**2 if i == j else 0.0
        return value

    parts = tuple(
        Part(
            part.weight,
            (*seen, *part.mean[2:]),
            tuple(
                tuple(cell(i, j, value) for j, value in enumerate(row))
                for i, row in enumerate(part.spread)
            ),
        )
        for part in belief.parts
    )
    return replace(belief, parts=parts)
