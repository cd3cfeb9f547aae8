"""The looks at a switch, one by one, as what they say of its points and of its nuts."""

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from itertools import pairwise

from zerodip.switch.belief import Belief, Part, Slopes, Travel, Watch, predict, prior, update
from zerodip.switch.classes import CUT_IN, CUT_OUT, SwitchClass
from zerodip.switch.travel import moved_pa, travelled, unlinked
from zerodip.units import PSI

__all__ = ["believed", "taken"]

Looks = tuple[Watch, ...]

_SURE, _LATE, _STILL = 3.0, 2.5, 0.4  # standard deviations of a reading
_LAGS = (0.2, 0.4)  # what part of a move a gauge that lags does not show at once
_LAGGING = 0.25  # weighed as one gauge in four (common practice, no source)
_FAINT = 1e-6
_UNFORETOLD = 1 + 2 * math.log(10 * PSI)  # two readings that nothing foretold, as if 10 psi wide
_LEAST = 0.1  # of the least slope that such nuts have: no nut moves its point the other way


def believed(
    of: SwitchClass,
    watches: Sequence[Watch],
    noise_pa: float,
    learned: Slopes | None = None,
) -> Belief:
    """The belief after looks: the prior at the first, moved and sharpened by each later one. A look
    against the direction of the turn teaches nothing of the nut; one at a gauge that stuck counts
    for nothing once a later look shows what the turn did. From the second turn on, that the gauge
    shows a part of each move too late is weighed by how much better it foretells what was read.

    Args:
        of: The class of switch.
        watches: The looks, oldest first, one at least; turns before the first do not count.
        noise_pa: Standard deviation of a reading, Pa, above 0.
        learned: Slopes by nut and point, Pa a turn: mean and spread; the class's own if None.

    Returns:
        The belief.
    """
    counted = taken(watches, noise_pa)
    belief = _followed(of, counted, noise_pa, learned)
    if sum(any(watch.turns) for watch in counted[1:]) > 1:
        slow = [_lagging(share, of, counted, noise_pa, learned) for share in _LAGS]
        belief = _mixed(belief, slow)
    return replace(belief, at_most_pa=counted[-1].cut_out_pa + _SURE * noise_pa)


def _lagging(
    share: float, of: SwitchClass, watches: Looks, noise_pa: float, learned: Slopes | None
) -> Belief:
    """The belief if the gauge shows of every move a share too little at the first look."""
    noise = noise_pa * math.hypot(1.0, share) / (1 - share)
    return _followed(of, _caught_up(watches, share), noise, learned)


def _caught_up(watches: Looks, share: float) -> Looks:
    """The looks as a gauge would have shown them that does not stay behind by a share of its move
    (first order damping; the shares are common practice, no source)."""
    made = [watches[0]]
    for before, watch in pairwise(watches):
        late = share if any(watch.turns) else share * share
        more = late / (1 - late)
        made.append(
            Watch(
                watch.cut_in_pa + more * (watch.cut_in_pa - before.cut_in_pa),
                watch.cut_out_pa + more * (watch.cut_out_pa - before.cut_out_pa),
                watch.turns,
            )
        )
    return tuple(made)


def _mixed(plain: Belief, others: Sequence[Belief]) -> Belief:
    """The belief with others in it, as far as they foretold the readings better."""
    weighed = [(part.weight, part) for part in plain.parts]
    for other in others:
        by = min(other.evidence - plain.evidence, 50.0)
        chance = _LAGGING / len(others) * math.exp(by)
        weighed += [(part.weight * chance, part) for part in other.parts]
    faint = _FAINT * math.fsum(weight for weight, _ in weighed)
    kept = [(weight, part) for weight, part in weighed if weight > faint]
    whole = math.fsum(weight for weight, _ in kept)
    return replace(plain, parts=tuple(replace(p, weight=w / whole) for w, p in kept))


def _followed(of: SwitchClass, watches: Looks, noise_pa: float, learned: Slopes | None) -> Belief:
    """The belief after looks that all count."""
    first = watches[0]
    belief = prior(of, first.cut_in_pa, first.cut_out_pa, noise_pa, learned)
    belief = replace(belief, travels=(Travel(),) * len(of.nuts))
    for before, watch in pairwise(watches):
        belief = _watched(belief, before, watch, noise_pa)
    return belief


def taken(watches: Sequence[Watch], noise_pa: float) -> Looks:
    """The looks that count: after a turn the last of those that differ, since a gauge may stick or
    answer slowly; the turn goes with that look.

    Args:
        watches: The looks, oldest first.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        The looks, oldest first.
    """
    kept: list[Watch] = []
    for watch in watches:
        if len(kept) > 1 and not any(watch.turns):
            last = kept[-1]
            if any(last.turns) and _moves(last, watch, _LATE * noise_pa):
                kept[-1] = replace(watch, turns=last.turns)
                continue
        kept.append(watch)
    return tuple(kept)


def _moves(before: Watch, after: Watch, far_pa: float) -> bool:
    return any(
        abs(step) > far_pa
        for step in (after.cut_in_pa - before.cut_in_pa, after.cut_out_pa - before.cut_out_pa)
    )


@lru_cache(maxsize=256)  # the next look of a visit goes on from the last
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
        evidence = belief.evidence - _UNFORETOLD
        return replace(unlinked(belief, watch, noise_pa), travels=travels, evidence=evidence)
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
