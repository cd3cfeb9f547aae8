"""The looks at a switch, one by one, as what they say of its points and of its nuts."""

from collections.abc import Sequence
from dataclasses import replace

from zerodip.switch.belief import Belief, Part, Slopes, Travel, Watch, predict, prior, update
from zerodip.switch.classes import CUT_IN, CUT_OUT, SwitchClass
from zerodip.switch.travel import is_silent, moved_pa, travelled, unlinked

__all__ = ["believed", "taken"]

_SURE, _STILL = 3.0, 0.4  # standard deviations of a reading
_LEAST = 0.1  # of the least slope that such nuts have: no nut moves its point the other way


def believed(
    of: SwitchClass,
    watches: Sequence[Watch],
    noise_pa: float,
    learned: Slopes | None = None,
) -> Belief:
    """The belief after looks: the prior at the first, moved and sharpened by each later one. A look
    against the direction of the turn teaches nothing of the nut; one at a gauge that stuck counts
    for nothing once a later look shows what the turn did.

    Args:
        of: The class of switch.
        watches: The looks, oldest first, one at least; turns before the first do not count.
        noise_pa: Standard deviation of a reading, Pa, above 0.
        learned: Slopes by nut and point, Pa a turn: mean and spread; the class's own if None.

    Returns:
        The belief.
    """
    first, *later = taken(watches, of, noise_pa)
    belief = prior(of, first.cut_in_pa, first.cut_out_pa, noise_pa, learned)
    belief = replace(belief, travels=(Travel(),) * len(of.nuts))
    for before, watch in zip((first, *later), later, strict=False):
        belief = _watched(belief, before, watch, noise_pa)
    last = (first, *later)[-1]
    return replace(belief, at_most_pa=last.cut_out_pa + _SURE * noise_pa)


def taken(watches: Sequence[Watch], of: SwitchClass, noise_pa: float) -> list[Watch]:
    """The looks that count: one that showed nothing of a turn, where the next look without a turn
    shows it, is left out, and the turn goes with that look.

    Args:
        watches: The looks, oldest first.
        of: The class of switch.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        The looks, oldest first.
    """
    kept: list[Watch] = []
    for watch in watches:
        if len(kept) > 1 and not any(watch.turns):
            before, last = kept[-2:]
            if _stuck(before, last, of, noise_pa) and _moves(last, watch, _SURE * noise_pa):
                kept[-1] = replace(watch, turns=last.turns)
                continue
        kept.append(watch)
    return kept


def _stuck(before: Watch, after: Watch, of: SwitchClass, noise_pa: float) -> bool:
    """Whether a gauge showed nothing of turns that would surely have shown."""
    silent = any(
        is_silent(turn, nut, noise_pa) for turn, nut in zip(after.turns, of.nuts, strict=False)
    )
    return silent and not _moves(before, after, _SURE * noise_pa)


def _moves(before: Watch, after: Watch, far_pa: float) -> bool:
    return any(
        abs(step) > far_pa
        for step in (after.cut_in_pa - before.cut_in_pa, after.cut_out_pa - before.cut_out_pa)
    )


def _watched(belief: Belief, before: Watch, watch: Watch, noise_pa: float) -> Belief:
    nuts = belief.of.nuts
    moved = moved_pa(before, watch, nuts, noise_pa)
    turns = watch.turns or (0.0,) * len(nuts)
    still = not _moves(before, watch, _STILL * noise_pa)
    travels = tuple(
        travelled(travel, turn, by, still)
        for travel, turn, by in zip(belief.travels, turns, moved, strict=False)
    )
    if any(each.against for each in travels):
        return replace(unlinked(belief, watch, noise_pa), travels=travels)
    if any(turns):
        belief = predict(belief, turns)
    belief = update(belief, CUT_IN, watch.cut_in_pa, noise_pa)
    belief = update(belief, CUT_OUT, watch.cut_out_pa, noise_pa)
    parts = tuple(_signed(part, belief.of) for part in belief.parts)
    return replace(belief, parts=parts, travels=travels)


def _signed(part: Part, of: SwitchClass) -> Part:
    """The part with slopes of the sign that springs have."""
    mean = list(part.mean)
    for at, nut in enumerate(of.nuts):
        for point in (CUT_IN, CUT_OUT):
            if nut.moves[point]:
                k = 2 + 2 * at + point
                mean[k] = max(mean[k], _LEAST * nut.least_pa)
    return replace(part, mean=tuple(mean))
