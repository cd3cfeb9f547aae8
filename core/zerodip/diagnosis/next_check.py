"""Which check tells most of the remedy for each minute, and whether any is still worth its while.

Source: expected information (Shannon); minutes are common practice, no source.
"""

import math
from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import NormalDist

from zerodip.diagnosis.inference import (
    WRONG,
    Belief,
    Hypothesis,
    forecast,
    heard_yes,
    place_of,
)
from zerodip.diagnosis.parts import Forecast, Item, Needs

__all__ = ["SURE", "Choice", "minutes_from", "next_check", "remedies"]

SURE = 0.9  # of a remedy: no further check is worth its minutes
_LEAST_GAIN = 0.008  # of being right: less is not worth a check
_BINS = 8
_RULED_OUT = 2e-4
_NORMAL = NormalDist()
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
    """The check to make next, what it is expected to tell (bits of the remedy), how
    much oftener the remedy would then be right, and the minutes with the way to the condition that
    it needs."""

    item: Item
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
        The check; None where the remedy is clear, or nothing that is left would change it.
    """
    if next(iter(remedies(belief).values())) >= SURE:
        return None
    asked = {each.item for each in belief.observations} | set(impossible)
    yes = {each.item for each in belief.observations if each.value is True}
    choices = [
        choice
        for item in belief.troubles.items
        if item.id not in asked
        and not (yes and item.symptom and not item.stop)
        and not yes.intersection(item.unless)
        and not (stopped and item.needs == "powered")
        if (choice := _choice(belief, item, condition)).gain >= _LEAST_GAIN
    ]
    safe = [each for each in choices if not _powers_up(condition, each.item)]
    return max(safe or choices, key=lambda each: each.bits / each.minutes, default=None)


def _powers_up(condition: Needs, item: Item) -> bool:
    return item.needs == "powered" and condition in ("off", "drained")


def _choice(belief: Belief, item: Item, condition: Needs) -> Choice:
    rows = _figure_rows(belief, item) if item.is_figure else _yes_rows(belief, item)
    minutes = minutes_from(condition, item)
    return Choice(item=item, bits=_bits(rows), gain=_gain(rows), minutes=minutes)


def minutes_from(condition: Needs, item: Item) -> float:
    """Minutes of a check, with the way from a condition to the one that it needs."""
    return item.minutes + _TO.get((condition, item.needs), 0.0)


Row = tuple[float, list[float]]


def _bits(rows: dict[str, Row]) -> float:
    """Mutual information of the remedy and the answer, bits."""
    return max(_entropy(_mix(rows.values())) - _within(rows), 0.0)


def _gain(rows: dict[str, Row]) -> float:
    """How much oftener the likeliest remedy would be right with the answer than without."""
    answers = zip(*(shares for _, shares in rows.values()), strict=True)
    best = max(weight for weight, _ in rows.values())
    return float(sum(max(each) for each in answers) - best)


def _believed(belief: Belief) -> Iterator[tuple[Hypothesis, float]]:
    """What is not as good as ruled out."""
    return ((hypothesis, p) for hypothesis, p in belief.weighed if p > _RULED_OUT)


def _yes_rows(belief: Belief, item: Item) -> dict[str, Row]:
    rows: dict[str, Row] = {}
    for hypothesis, p in _believed(belief):
        yes = heard_yes(hypothesis, item)
        _share_out(rows, hypothesis, p, [yes, 1 - yes])
    return rows


def _figure_rows(belief: Belief, item: Item) -> dict[str, Row]:
    told = [(h, p, forecast(h, item, ())) for h, p in _believed(belief)]
    edges = _edges(item, [(f, p) for _, p, f in told if f is not None and not f.never])
    rows: dict[str, Row] = {}
    for hypothesis, p, of in told:
        _share_out(rows, hypothesis, p, _shares(item, of, edges))
    return rows


def _edges(item: Item, told: Sequence[tuple[Forecast, float]]) -> list[float]:
    """Bounds between answers, spread over what may be measured."""
    ordered = sorted((place_of(item, f.mean), p) for f, p in told)
    total, run = sum(p for _, p in ordered), 0.0
    edges: list[float] = []
    for place, p in ordered:
        run += p
        if run >= (len(edges) + 1) * total / _BINS and (not edges or place > edges[-1]):
            edges.append(place)
    return edges


def _shares(item: Item, of: Forecast | None, edges: Sequence[float]) -> list[float]:
    """The chance of each bin; the last one is that it never comes to an end."""
    bins = len(edges) + 1
    flat = [1 / bins] * bins
    if of is None:
        return [*flat, 0.0]
    if of.never:
        return [*(WRONG / bins for _ in flat), 1 - WRONG]
    mean = place_of(item, of.mean)
    below = [0.0, *(_NORMAL.cdf((edge - mean) / of.sd) for edge in edges), 1.0]
    kept = [b - a for a, b in pairwise(below)]
    return [*(WRONG / bins + (1 - WRONG) * each for each in kept), 0.0]


def _share_out(rows: dict[str, Row], hypothesis: Hypothesis, p: float, shares: list[float]) -> None:
    called_for = hypothesis.remedies
    for remedy in called_for:
        _add(rows, remedy, p / len(called_for), shares)


def _add(rows: dict[str, Row], key: str, p: float, shares: list[float]) -> None:
    weight, old = rows.get(key, (0.0, [0.0] * len(shares)))
    rows[key] = weight + p, [a + p * b for a, b in zip(old, shares, strict=True)]


def _mix(rows: Iterable[Row]) -> list[float]:
    return [sum(column) for column in zip(*(shares for _, shares in rows), strict=True)]


def _within(rows: dict[str, Row]) -> float:
    return sum(
        weight * _entropy([each / weight for each in shares])
        for weight, shares in rows.values()
        if weight > 1e-12
    )


def _entropy(shares: Sequence[float]) -> float:
    return -sum(p * math.log2(p) for p in shares if p > 0)
