"""What the turns of a nut have shown so far, and how far the points may yet go because of them.

A nut may have dead travel (burrs, a lock, a spring that is not seated), it may be turned the wrong
way, and a gauge may stick: what a turn did not do yet may still come. Common practice, no source.
"""

import math
from collections.abc import Sequence
from dataclasses import replace

from zerodip.switch.belief import Belief, Part, Travel, Watch
from zerodip.switch.classes import CUT_IN, CUT_OUT, Nut

__all__ = ["highest_yet_pa", "is_silent", "moved_pa", "travelled", "unlinked"]

_SHOWN, _AGAINST, _EXPECTED = 2.0, 2.5, 4.0  # standard deviations
_SURE = 3.0
_STIFF = 1.5  # times a usual slope: what a nut that showed nothing yet may have


def moved_pa(before: Watch, after: Watch, nuts: Sequence[Nut]) -> tuple[float, ...]:
    """How far each nut's own point moved from one look to the next, without what the other nut took
    it along.

    Args:
        before: A look.
        after: The next one, with the turns between them.
        nuts: The switch's nuts.

    Returns:
        Pressures, Pa.
    """
    step = after.cut_in_pa - before.cut_in_pa, after.cut_out_pa - before.cut_out_pa
    moved = []
    for nut in nuts:
        along = nut.sets == CUT_OUT and any(
            other is not nut and other.moves[CUT_OUT] and other.sets == CUT_IN and turn
            for other, turn in zip(nuts, after.turns, strict=False)
        )
        moved.append(step[nut.sets] - (step[CUT_IN] if along else 0.0))
    return tuple(moved)


def _off_pa(noise_pa: float) -> float:
    """Standard deviation of a step between two readings, Pa."""
    return math.sqrt(2) * noise_pa


def is_silent(turns: float, nut: Nut, noise_pa: float) -> bool:
    """Whether all but the softest such nuts would surely have shown such turns.

    Args:
        turns: Turns that moved nothing yet.
        nut: The nut.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        Whether it would.
    """
    return abs(turns) * nut.soft_pa > _EXPECTED * _off_pa(noise_pa)


def travelled(travel: Travel, turn: float, moved: float, noise_pa: float) -> Travel:
    """What a nut has shown after one more turn and look.

    Args:
        travel: What it had shown.
        turn: The turn, clockwise positive; 0 for a look alone.
        moved: How far its point moved, Pa.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        The same after it.
    """
    goes_on = travel.unshown and turn * travel.unshown >= 0
    whole = turn + (travel.unshown if goes_on else 0.0)
    if not whole:
        return travel
    moved += travel.moved_pa if goes_on else 0.0
    off, forward = _off_pa(noise_pa), moved * math.copysign(1.0, whole)
    if forward <= _SHOWN * off:
        against = forward < -_AGAINST * off
        return replace(travel, stretch=whole, moved_pa=moved, shown=False, against=against)
    steepest = max((abs(moved) + _SHOWN * off) / abs(whole), travel.steepest_pa or 0.0)
    return Travel(whole, moved, True, False, travel.engaged + 1, steepest)


def highest_yet_pa(belief: Belief, turns: Sequence[float]) -> float:
    """The highest that cut-out may come to after these turns: at the largest slope of each nut that
    was seen or is believed, with all travel that has not shown yet.

    Args:
        belief: What is believed of the switch.
        turns: Turns of each nut, clockwise positive.

    Returns:
        Pressure, Pa gauge.
    """
    highest = belief.mean[CUT_OUT] + _SURE * belief.sd(CUT_OUT)
    for at, (nut, travel) in enumerate(zip(belief.of.nuts, belief.travels, strict=False)):
        if nut.moves[CUT_OUT] and travel.stretch and turns[at] >= 0:
            highest += _most_moved_pa(belief, at, travel, turns[at])
    return highest


def _most_moved_pa(belief: Belief, at: int, travel: Travel, turn: float) -> float:
    """The furthest that a turn of a nut may move cut-out, with what has not shown yet."""
    nut = belief.of.nuts[at]
    mean, sd = belief.slope(at, nut.sets)
    seen = _STIFF * nut.usual_pa if travel.steepest_pa is None else travel.steepest_pa
    slope = min(max(mean + _SURE * sd, seen), nut.most_pa)
    return slope * (turn + travel.to_come(slope))


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
