"""Causes as they are shown: with what speaks for and against each, how large it would be, and what
puts it right."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from operator import mul
from typing import Any

from zerodip.diagnosis.inference import Belief
from zerodip.diagnosis.parts import Cause, Item, Observation
from zerodip.text.within import within
from zerodip.units import text
from zerodip.visit.put_right import PutRight

__all__ = [
    "SameWork",
    "Suspect",
    "item_of",
    "likely_works",
    "said",
    "share_of",
    "suspects",
]

_SHOWN, _LEAST = 4, 0.03
_SPEAKS = 1.6  # times as likely under this cause as under the others
_WORDS = ((0.9, "almost sure"), (0.6, "likely"), (0.3, "may well be"), (0.1, "possible"))


@dataclass(frozen=True, kw_only=True)
class SameWork:
    """Another cause that the same remedy puts right, with its probability."""

    id: str
    title: str
    probability: float


@dataclass(frozen=True, kw_only=True)
class Suspect:
    """A cause with its probability, in a figure and a word, how large it would be, what speaks for
    and against it, what puts it right (a job by its id, air, a setting, a fix, a person, nothing)
    in about so many minutes, what comes of it if it is left, and less likely causes that are
    `same_work`."""

    id: str
    title: str
    probability: float
    word: str
    size: str
    speaks_for: tuple[str, ...]
    against: tuple[str, ...]
    remedy: str
    remedy_kind: str
    remedy_says: str
    minutes: int
    if_left: str
    same_work: tuple[SameWork, ...]


def item_of(belief: Belief, seen: Observation) -> Item:
    """The item of an observation.

    Args:
        belief: What is believed, with the observation in it.
        seen: The observation.

    Returns:
        The item.
    """
    return next(each for each in belief.troubles.items if each.id == seen.item)


def said(item: Item, seen: Observation, units: str) -> str:
    """An observation in words.

    Args:
        item: The item.
        seen: What was observed of it.
        units: Unit system of the text: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    once_more = ", once more" if seen.again else ""
    if item.is_figure and seen.value is True:
        return f"{item.title}: {item.never.lower()}{once_more}"
    if item.is_figure:
        return f"{item.title} {text(float(seen.value), item.dimension, units)}{once_more}"
    if item.yes != "Yes":
        return f"{item.title}: {(item.yes if seen.value else item.no).lower()}{once_more}"
    title = item.title if seen.value else f"Not: {within(item.title)}"
    return f"{title}{once_more}"


def share_of(suspect: Suspect) -> float:
    """The probability of a suspect and of all that is the same work.

    Args:
        suspect: The suspect.

    Returns:
        The sum.
    """
    return suspect.probability + math.fsum(each.probability for each in suspect.same_work)


def suspects(belief: Belief, tried: PutRight) -> tuple[Suspect, ...]:
    """The likeliest causes, those with one remedy together: they need not be told apart.

    Args:
        belief: What is believed.
        tried: What puts causes right on the system.

    Returns:
        At most four, the likeliest first.
    """
    return tuple(_suspect(belief, group, tried) for group in likely_works(belief))


def likely_works(belief: Belief) -> list[list[Cause[Any]]]:
    """The likeliest causes without their words, those with one remedy together.

    Args:
        belief: What is believed.

    Returns:
        At most four works, the likeliest first, each with its causes.
    """
    likely = [
        group
        for work in belief.works
        if (group := [each for each in work if belief.by_cause[each.id] >= _LEAST])
    ]
    return likely[:_SHOWN]


def _suspect(belief: Belief, group: Sequence[Cause[Any]], tried: PutRight) -> Suspect:
    units = tried.trials.units
    cause, p = group[0], belief.by_cause[group[0].id]
    says, minutes = tried.of(cause)
    ratios = _ratios(belief, cause.id)
    told = {each.item: said(item_of(belief, each), each, units) for each in belief.observations}
    return Suspect(
        id=cause.id,
        title=cause.title,
        probability=p,
        word=next((word for least, word in _WORDS if p >= least), "hardly"),
        size=_size(belief, cause, units),
        speaks_for=tuple(told[item] for item, ratio in ratios if ratio >= _SPEAKS),
        against=tuple(told[item] for item, ratio in reversed(ratios) if ratio <= 1 / _SPEAKS),
        remedy=cause.remedy.id,
        remedy_kind=cause.remedy.kind,
        remedy_says=says,
        minutes=minutes,
        if_left=cause.if_left,
        same_work=tuple(
            SameWork(id=each.id, title=each.title, probability=belief.by_cause[each.id])
            for each in group[1:]
        ),
    )


def _ratios(belief: Belief, cause: str) -> list[tuple[str, float]]:
    """How much likelier each observation is under this cause than was to be expected before
    anything was known, the greatest first."""
    mine = [p if h.has(cause) else 0.0 for h, p in belief.weighed]
    others = [h.prior if len(h.parts) == 1 and not h.has(cause) else 0.0 for h, _ in belief.weighed]
    made = [
        (item, _mean(mine, chances) / max(_mean(others, chances), 1e-12))
        for item, chances in belief.likelihoods.items()
    ]
    return sorted(made, key=lambda pair: -pair[1])


def _mean(weights: Sequence[float], chances: Sequence[float]) -> float:
    total = math.fsum(weights)
    return math.fsum(map(mul, weights, chances)) / total if total > 0 else 0.0


def _size(belief: Belief, cause: Cause[Any], units: str) -> str:
    """How large it would be, with the range of nine in ten."""
    if cause.size is None:
        return ""
    by: dict[float, float] = {}
    for hypothesis, p in belief.weighed:
        for each, size in hypothesis.parts:
            if each.id == cause.id and each.size:  # not as it stands on file
                by[size] = by.get(size, 0.0) + p
    rows, total = sorted(by.items()), math.fsum(by.values())
    if total <= 0:
        return ""
    best = max(rows, key=lambda row: row[1])[0]
    low, high = _quantile(rows, 0.05 * total), _quantile(rows, 0.95 * total)
    dimension = cause.size.dimension
    says = cause.size.says_below if best < 0 else cause.size.says
    told = says.format(text(abs(best), dimension, units))
    if (low, high) == (cause.size.values[0], cause.size.values[-1]) and len(rows) > 1:
        return ""  # nothing is known of it yet
    if low == high or low * high < 0:
        return told
    ends = sorted((abs(low), abs(high)))
    return f"{told} ({text(ends[0], dimension, units)} to {text(ends[1], dimension, units)})"


def _quantile(rows: Sequence[tuple[float, float]], share: float) -> float:
    run = 0.0
    for value, p in rows:
        run += p
        if run >= share:
            return value
    return rows[-1][0]
