"""Which check tells most of the remedy for each minute, and whether any is still worth its while.
A check is one place: all that can be looked at there.

Source: expected information (Shannon); minutes are common practice, no source.
"""

import math
from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import reduce
from itertools import pairwise
from typing import Any

from zerodip.diagnosis.hypotheses import OTHER, Hypothesis
from zerodip.diagnosis.inference import Belief
from zerodip.diagnosis.likelihood import (
    NORMAL,
    WRONG,
    forecast,
    heard_yes,
    never_ends,
    once_more,
    place_of,
)
from zerodip.diagnosis.parts import Cause, Forecast, Item, Needs, Observation

__all__ = [
    "ADVISED",
    "SURE",
    "Choice",
    "minutes_from",
    "next_check",
    "remedies",
    "together",
    "unlooked",
]

_OPEN = 0.3  # of a second remedy: it is looked into as well
SURE = 0.90  # of a remedy: no further check is worth its minutes
ADVISED = 0.8  # of a remedy: less is said to be likely, and not told to be done
_LEAST_GAIN, _LEAST_GAIN_MIN = 0.0005, 0.0003  # of being right: for a check, for each minute
_LEAST_BITS, _LEAST_BITS_MIN = 0.04, 0.004
_EACH_MIN = 3.0  # counted for every check when they are compared: a few that tell much, not many
_BINS, _BINS_TOGETHER = 8, 4
_BESIDE = 0.25  # of what the best at a place tells: less is not asked beside it
_RULED_OUT = 1e-3
_FURTHER_MIN = 0.5  # for each further thing that is looked at in the same place
_HARDER: tuple[Needs, ...] = ("any", "powered", "off", "drained")
# Minutes to get from one condition to another, and to put things back.
_TO: dict[tuple[str, str], float] = {
    ("powered", "off"): 5,
    ("powered", "drained"): 20,
    ("off", "drained"): 15,
    ("off", "powered"): 3,
    ("drained", "powered"): 8,
    ("drained", "off"): 0,
}


@dataclass(frozen=True, kw_only=True)
class Choice:
    """The check to make next: what is looked at, for the first time or `again`, in which condition,
    what it is expected to tell (bits of the remedy), how much oftener the remedy would then be
    right, and the minutes with the way to the condition that it needs."""

    items: tuple[Item, ...]
    again: bool
    needs: Needs
    bits: float
    gain: float
    minutes: float


def remedies(belief: Belief) -> dict[str, float]:
    """How likely each remedy is called for, the likeliest first; "other" for what is not listed.

    Args:
        belief: What is believed.

    Returns:
        Probabilities by the remedy's id; two causes may call for two.
    """
    made: dict[str, float] = {}
    for hypothesis, p in belief.weighed:
        for remedy in hypothesis.remedies:
            made[remedy] = made.get(remedy, 0.0) + p
    return dict(sorted(made.items(), key=lambda pair: (-pair[1], pair[0])))


def next_check(
    belief: Belief, condition: Needs, impossible: Collection[str] = (), stopped: bool = False
) -> Choice | None:
    """The check with the most expected information a minute among those that can be made now, or
    after making it safer: power off, or drained. Power comes on again only where nothing else would
    tell.

    Args:
        belief: What is believed.
        condition: How the system stands: powered, off, or off and drained.
        impossible: Ids of items that cannot be looked at here.
        stopped: Whether it must not run again before it is mended.

    Returns:
        The check; None where the remedy is clear, or nothing that is left would change it. What
        settles a cause is looked at before its remedy is clear, however likely it is.
    """
    look = _look_first(belief, condition, impossible, stopped)
    if _is_settled(belief):
        return look
    choices = [
        choice
        for again in (False, True)
        for items in together(_asked(belief, condition, impossible, stopped, again))
        if _worth(choice := _choice(belief, items, condition, again))
    ]
    safe = [each for each in choices if not _powers_up(condition, each.needs)]
    return max(safe or choices, key=_bits_a_minute, default=look)


def _is_settled(belief: Belief) -> bool:
    """Whether a remedy is sure and no other is likely beside it, or that is sure as well."""
    known = [p for remedy, p in remedies(belief).items() if remedy != OTHER]
    return max(known) >= SURE and not any(_OPEN <= p < SURE for p in known)


def unlooked(belief: Belief) -> tuple[Cause[Any], ...]:
    """The causes whose remedies are likely enough to be told, of which nothing was looked at that
    settles them.

    Args:
        belief: What is believed.

    Returns:
        The causes, the likeliest remedy first.
    """
    seen = {each.item for each in belief.observations}
    first = {work[0].remedy.id: work[0] for work in belief.works}
    told = (first[id] for id, p in remedies(belief).items() if id != OTHER and p >= ADVISED)
    return tuple(each for each in told if each.look and not seen.intersection(each.look))


def _look_first(
    belief: Belief, condition: Needs, impossible: Collection[str], stopped: bool
) -> Choice | None:
    """What settles the likeliest cause."""
    left = {each.id: each for each in _left(belief, condition, impossible, stopped, again=False)}
    items = (left[id] for cause in unlooked(belief) for id in cause.look if id in left)
    return next((_choice(belief, (item,), condition, again=False) for item in items), None)


def _bits_a_minute(choice: Choice) -> float:
    return choice.bits / (choice.minutes + _EACH_MIN)


def _worth(choice: Choice) -> bool:
    """A check that would change the remedy often enough; or one that tells much of it, for a
    single answer seldom turns what several do."""
    changes = choice.gain >= _LEAST_GAIN + _LEAST_GAIN_MIN * choice.minutes
    return changes or choice.bits >= _LEAST_BITS + _LEAST_BITS_MIN * choice.minutes


def _left(
    belief: Belief, condition: Needs, impossible: Collection[str], stopped: bool, again: bool
) -> list[Item]:
    """The items that can still be looked at: for the first time, or once more."""
    seen = {each.item for each in belief.observations if not each.again}
    twice = {each.item for each in belief.observations if each.again}
    yes = {each.item for each in belief.observations if each.value is True}
    told = {item.id for item in belief.troubles.items if item.symptom}
    measured = any(each.item not in told for each in belief.observations)
    return [
        item
        for item in belief.troubles.items
        if item.id not in twice | set(impossible)
        and (item.id in seen) == again
        and not (item.symptom and (again or (yes & told and not item.stop)))
        and not (item.symptom and measured and item.needs == "any")  # known by whoever measured
        and not yes.intersection(item.unless)
        and not (stopped and item.needs == "powered")
        and item.is_there(condition)
    ]


def _asked(
    belief: Belief, condition: Needs, impossible: Collection[str], stopped: bool, again: bool
) -> list[Item]:
    """Those that are asked as a check of their own."""
    left = _left(belief, condition, impossible, stopped, again)
    return [item for item in left if not item.told]


def together(items: Iterable[Item]) -> list[tuple[Item, ...]]:
    """The items by the place at which they are looked at, in their order.

    Args:
        items: What may be looked at.

    Returns:
        One group for each place; whatever has no place of its own stands alone.
    """
    groups: dict[str, list[Item]] = {}
    for item in items:
        groups.setdefault(item.together or item.id, []).append(item)
    return [tuple(group) for group in groups.values()]


def _powers_up(condition: Needs, needs: Needs) -> bool:
    return needs == "powered" and condition in ("off", "drained")


def _telling(belief: Belief, items: tuple[Item, ...]) -> tuple[Item, ...]:
    """Those of one place that tell something beside the best of them; figures of one cycle are
    seen at once anyway."""
    if len(items) == 1 or all(each.is_figure for each in items):
        return items
    bits = [_bits(_rows(belief, [item])) for item in items]
    return tuple(
        item for item, told in zip(items, bits, strict=True) if told >= _BESIDE * max(bits)
    )


def _choice(belief: Belief, place: tuple[Item, ...], condition: Needs, again: bool) -> Choice:
    items = _telling(belief, place)
    rows = _rows(belief, items)
    needs, minutes = minutes_from(condition, items)
    return Choice(
        items=items,
        again=again,
        needs=needs,
        bits=_bits(rows),
        gain=_gain(rows),
        minutes=minutes,
    )


def minutes_from(condition: Needs, items: Sequence[Item]) -> tuple[Needs, float]:
    """The condition that a check needs, and its minutes with the way there.

    Args:
        condition: How the system stands: powered, off, or off and drained.
        items: What is looked at.

    Returns:
        The condition and the minutes.
    """
    needs = max((each.needs for each in items), key=_HARDER.index)
    way = _TO.get((condition, needs), 0.0)
    longest = max(each.minutes for each in items)
    return needs, longest + _FURTHER_MIN * (len(items) - 1) + way


Row = tuple[float, list[float]]


def _bits(rows: dict[str, Row]) -> float:
    """Mutual information of the remedy and the answer, bits."""
    return max(_entropy(_mix(rows.values())) - _within(rows), 0.0)


def _gain(rows: dict[str, Row]) -> float:
    """How much oftener the likeliest remedy would be right with the answer than without."""
    answers = zip(*(shares for _, shares in rows.values()), strict=True)
    best = max(weight for weight, _ in rows.values())
    return float(math.fsum(max(each) for each in answers) - best)


def _believed(belief: Belief) -> Iterator[tuple[Hypothesis, float]]:
    """What is not as good as ruled out."""
    return ((hypothesis, p) for hypothesis, p in belief.weighed if p > _RULED_OUT)


def _rows(belief: Belief, items: Sequence[Item]) -> dict[str, Row]:
    """How likely each remedy goes with each answer, of several items with all their answers at
    once."""
    believed = list(_believed(belief))
    bins = _BINS if len(items) == 1 else _BINS_TOGETHER
    before = belief.first
    answers = (_answers(believed, item, bins, before.get(item.id)) for item in items)
    told = zip(*answers, strict=True)
    rows: dict[str, Row] = {}
    for (hypothesis, p), shares in zip(believed, told, strict=True):
        _share_out(rows, hypothesis, p, reduce(_outer, shares))
    return rows


def _outer(a: list[float], b: list[float]) -> list[float]:
    return [x * y for x in a for y in b]


def _answers(
    believed: Sequence[tuple[Hypothesis, float]],
    item: Item,
    bins: int,
    before: Observation | None,
) -> list[list[float]]:
    """How likely each answer is under each hypothesis, after what was answered before."""
    if not item.is_figure:
        said = [] if before is None else [bool(before.value)]
        yes = [heard_yes(hypothesis, item, said) for hypothesis, _ in believed]
        return [[each, 1 - each] for each in yes]
    told = [forecast(hypothesis, item, ()) for hypothesis, _ in believed]
    weighed = [
        (of, p)
        for of, (_, p) in zip(told, believed, strict=True)
        if of is not None and of.is_figure
    ]
    edges = _edges(item, weighed, bins)
    if before is None or before.value is True:
        return [_shares(item, of, edges) for of in told]
    return [_shares_again(item, of, edges, float(before.value)) for of in told]


def _shares_again(
    item: Item, of: Forecast | None, edges: Sequence[float], value: float
) -> list[float]:
    """The chance of each bin where it was measured already: the same again unless that was a
    blunder."""
    fresh = _shares(item, of, edges)
    if of is None or not of.is_figure:
        return fresh
    good, same = once_more(item, of, value)
    alike = _shares(item, same, edges)
    return [good * a + (1 - good) * b for a, b in zip(alike, fresh, strict=True)]


def _edges(item: Item, told: Sequence[tuple[Forecast, float]], bins: int) -> list[float]:
    """Bounds between answers, spread over what may be measured."""
    ordered = sorted((place_of(item, f.mean), p) for f, p in told)
    total, run = math.fsum(p for _, p in ordered), 0.0
    edges: list[float] = []
    for place, p in ordered:
        run += p
        if run >= (len(edges) + 1) * total / bins and (not edges or place > edges[-1]):
            edges.append(place)
    return edges


def _shares(item: Item, of: Forecast | None, edges: Sequence[float]) -> list[float]:
    """The chance of each bin; the last ones are that it does not come to an end, or start."""
    bins = len(edges) + 1
    over = never_ends(item, of) if item.never else 0.0
    if of is None or not of.is_figure:
        still = 1 - WRONG - over if of is not None and of.absent else 0.0
        return [*((1 - over - still) / bins for _ in range(bins)), over, still]
    mean, last = place_of(item, of.mean), place_of(item, item.watch_s) if item.never else math.inf
    below = [0.0, *(NORMAL.cdf((min(edge, last) - mean) / of.sd) for edge in edges)]
    below.append(NORMAL.cdf((last - mean) / of.sd) if item.never else 1.0)
    kept = [b - a for a, b in pairwise(below)]
    rest = 1 - over - (1 - 2 * WRONG) * below[-1]
    return [*(rest / bins + (1 - 2 * WRONG) * each for each in kept), over, 0.0]


def _share_out(rows: dict[str, Row], hypothesis: Hypothesis, p: float, shares: list[float]) -> None:
    called_for = hypothesis.remedies
    for remedy in called_for:
        _add(rows, remedy, p / len(called_for), shares)


def _add(rows: dict[str, Row], key: str, p: float, shares: list[float]) -> None:
    weight, old = rows.get(key, (0.0, [0.0] * len(shares)))
    rows[key] = weight + p, [a + p * b for a, b in zip(old, shares, strict=False)]


def _mix(rows: Iterable[Row]) -> list[float]:
    return [math.fsum(column) for column in zip(*(shares for _, shares in rows), strict=True)]


def _within(rows: dict[str, Row]) -> float:
    return math.fsum(
        weight * _entropy([each / weight for each in shares])
        for weight, shares in rows.values()
        if weight > 1e-12
    )


def _entropy(shares: Sequence[float]) -> float:
    return -math.fsum(p * math.log2(p) for p in shares if p > 0)
