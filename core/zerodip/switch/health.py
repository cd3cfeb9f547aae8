"""A switch or a gauge that does not answer: told from the same readings that the setting uses."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise, takewhile

from zerodip.switch.belief import Belief, Watch
from zerodip.switch.goal import Goal
from zerodip.switch.travel import is_silent
from zerodip.switch.watching import taken
from zerodip.units import PSI

__all__ = ["STOPPING", "Complaint", "complaints", "gauge_resolves"]

STOPPING = ("other-way", "no-answer")  # nothing is turned before these are seen to

_SURE = 3.0
_FEW = 0.7  # of the least slope that such nuts have: less than this is no answer


@dataclass(frozen=True, kw_only=True)
class Complaint:
    """Something is wrong beside the setting: what is seen, and what to look at, most likely
    first."""

    id: str
    says: str
    look: tuple[str, ...]


_TEXTS = {
    "no-answer": (
        "Turns have had almost no effect. What they did not do yet may still come.",
        (
            "the gauge sticks: tap it, compare it at a drain, watch again",
            "the nut has dead travel, slips on its spring or sits at its stop",
            "the sensing nipple is clogged",
            "contacts are welded",
        ),
    ),
    "other-way": (
        "A point moved against the turn. Did the nut turn the other way?",
        (
            "correct the turns if it did",
            "the wrong nut was turned",
            "the gauge sticks: tap it, and watch again",
        ),
    ),
    "differential-drifts": (
        "The gap between the points moves although its nut was not turned.",
        ("dirt under the diaphragm", "a worn snap mechanism", "a loose nipple"),
    ),
    "wanders": (
        "The points read differently each time although nothing was turned.",
        ("dirt under the diaphragm", "a sticking gauge", "a loose nipple"),
    ),
}


def complaints(
    belief: Belief, watches: Sequence[Watch], noise_pa: float, hides: bool = False
) -> tuple[Complaint, ...]:
    """What the looks so far point to, judged at 3 standard deviations of the reading noise (Pa).

    Args:
        belief: What is believed of the switch.
        watches: What was predicted and seen at each look.
        noise_pa: Standard deviation of a reading, Pa, above 0.
        hides: Whether a limit may be passed by what turns may have done unseen.

    Returns:
        What is wrong, worst first; none where nothing is.
    """
    counted = taken(watches, noise_pa)
    pairs = list(pairwise(counted))
    found = []
    if any(travel.against for travel in belief.travels):
        found.append("other-way")
    awaits = bool(pairs) and any(pairs[-1][1].turns)  # nobody tapped the gauge and looked again
    silent = awaits and (hides or _silent(belief, noise_pa) or _stuck(belief, pairs, noise_pa))
    if _no_answer(belief, counted) or silent:
        found.append("no-answer")
    if any(_still(b) and _apart(a, b, noise_pa) for a, b in pairs):
        found.append("wanders")
    elif any(_range_only(b) and _gap_moved(a, b, noise_pa) for a, b in pairs):
        found.append("differential-drifts")
    return tuple(Complaint(id=id, says=_TEXTS[id][0], look=_TEXTS[id][1]) for id in found)


def _no_answer(belief: Belief, watches: Sequence[Watch]) -> bool:
    """A nut turned by more than a turn in all whose slope is surely less than any such nut's."""
    for nut, kind in enumerate(belief.of.nuts):
        moved = math.fsum(abs(w.turns[nut]) for w in watches if len(w.turns) > nut)
        mean, sd = belief.slope(nut, kind.sets)
        if moved > 1.0 and mean + sd < _FEW * kind.least_pa:
            return True
    return False


def _silent(belief: Belief, noise_pa: float) -> bool:
    """A nut turned so far without a sign that a usual one would surely have shown it."""
    return any(
        travel.engaged == 0 and is_silent(travel.unshown, nut, noise_pa)
        for nut, travel in zip(belief.of.nuts, belief.travels, strict=False)
    )


def _stuck(belief: Belief, pairs: Sequence[tuple[Watch, Watch]], noise_pa: float) -> bool:
    """Both points read to the digit as before all turns since, that should have moved one."""
    last = pairs[-1][1]
    since = [after for _, after in takewhile(lambda p: _alike(p[0], last), reversed(pairs))]
    return any(
        is_silent(2 * math.fsum(w.turns[at] for w in since if len(w.turns) > at), nut, noise_pa)
        for at, nut in enumerate(belief.of.nuts)
    )


def _alike(a: Watch, b: Watch) -> bool:
    return (a.cut_in_pa, a.cut_out_pa) == (b.cut_in_pa, b.cut_out_pa)


def _still(watch: Watch) -> bool:
    return not any(watch.turns)


def _range_only(watch: Watch) -> bool:
    return len(watch.turns) == 2 and watch.turns[0] != 0 and watch.turns[1] == 0


def _apart(a: Watch, b: Watch, noise: float) -> bool:
    limit = _SURE * noise * math.sqrt(2)
    return abs(b.cut_in_pa - a.cut_in_pa) > limit or abs(b.cut_out_pa - a.cut_out_pa) > limit


def _gap_moved(a: Watch, b: Watch, noise: float) -> bool:
    """Beyond noise and beyond what a little unequal slopes explain (a fifth of the move)."""
    moved = abs(b.cut_in_pa - a.cut_in_pa)
    gap = abs((b.cut_out_pa - b.cut_in_pa) - (a.cut_out_pa - a.cut_in_pa))
    return gap > _SURE * 2 * noise + 0.2 * moved


def gauge_resolves(noise_pa: float, goal: Goal) -> bool:
    """Whether four looks with this gauge can tell the tolerance asked for: noise/2 against it, at
    nine in ten for both points.

    Args:
        noise_pa: Standard deviation of a reading, Pa, above 0.
        goal: Where the points must come to, and how near.

    Returns:
        Whether they can.
    """
    return noise_pa / 2 <= 0.52 * goal.tolerance_pa or noise_pa <= 0.25 * PSI
