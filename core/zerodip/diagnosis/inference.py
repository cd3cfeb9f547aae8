"""How likely each cause is after what was observed: single faults of every size, plausible pairs,
nothing wrong, and something that is not listed; the gauge's own offset is summed over.

Source: Bayes' rule on a finite set; errors of people are a fixed share (judgement, no source).
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import combinations
from typing import Any

from zerodip.diagnosis.parts import Cause, Forecast, Item, Observation, Plant, Troubles

__all__ = [
    "OTHER",
    "Belief",
    "Hypothesis",
    "believe",
    "chance_of_yes",
    "forecast",
    "heard_yes",
    "likelihood_of",
    "place_of",
]

HEALTHY, SINGLE, PAIR, UNKNOWN = 0.15, 0.73, 0.10, 0.02
WRONG = 0.05  # of what people see, hear, read or note is wrong
OTHER = "other"
_IN_PAIRS, _SIZES_IN_PAIRS = 8, 2
_ALIKE = 20.0  # sizes further apart are different faults
_OFFSETS = tuple(zip((-2.0, -1.0, 0.0, 1.0, 2.0), (0.054, 0.244, 0.404, 0.244, 0.054), strict=True))


@dataclass(frozen=True)
class Hypothesis:
    """Causes with their sizes, how likely before anything was observed, and the plant as it would
    be; no plant stands for whatever is not listed. `near` are the plants of the sizes beside its
    own, for which it stands half of the way."""

    parts: tuple[tuple[Cause[Any], float], ...]
    prior: float
    plant: Plant | None
    near: tuple[Plant, ...] = ()

    @cached_property
    def remedies(self) -> frozenset[str]:
        """Ids of the remedies that it calls for; "other" where it has no cause."""
        return frozenset(cause.remedy.id for cause, _ in self.parts) or frozenset({OTHER})

    def has(self, cause: str) -> bool:
        """Whether a cause is among its own; "other" where it has none."""
        return any(each.id == cause for each, _ in self.parts) or (
            cause == OTHER and not self.parts
        )


@dataclass(frozen=True)
class Belief:
    """Every hypothesis with its probability; they add up to 1. `surprise` is how much worse the
    best of them explains what was observed than it explains what it would expect (nats)."""

    troubles: Troubles[Any]
    weighed: tuple[tuple[Hypothesis, float], ...]
    observations: tuple[Observation, ...]
    offset_sd: float

    def probability(self, cause: str) -> float:
        """How likely a cause is at work, alone or with another."""
        return sum(p for hypothesis, p in self.weighed if hypothesis.has(cause))

    @cached_property
    def likelihoods(self) -> dict[str, tuple[float, ...]]:
        """How likely each observation is under every hypothesis, by item, in their order."""
        return {
            seen.item: tuple(
                likelihood_of(hypothesis, item, seen, self.offset_sd)
                for hypothesis, _ in self.weighed
            )
            for seen in self.observations
            if (item := self.troubles.item(seen.item)) is not None
        }

    @cached_property
    def by_cause(self) -> dict[str, float]:
        """The probability of every cause, the likeliest first."""
        causes = [self.troubles.healthy, *self.troubles.causes]
        made = {each.id: self.probability(each.id) for each in causes}
        return dict(sorted(made.items(), key=lambda pair: -pair[1]))


def believe(
    troubles: Troubles[Any],
    figures: Any,
    observations: Sequence[Observation],
    offset_sd: float,
) -> Belief:
    """Weighs every cause by what was observed.

    Args:
        troubles: What may be wrong with this kind of system.
        figures: The system's figures under its settings.
        observations: What was observed; of each item the last one counts.
        offset_sd: How far the gauge may be off, one standard deviation, Pa.

    Returns:
        The belief. The order of the observations does not matter.

    Source: Bayes' rule.
    """
    last = {each.item: each for each in observations if troubles.item(each.item)}
    seen = tuple(sorted(last.values(), key=lambda each: each.item))
    plant = troubles.plant(figures, seen)
    weigh = _weigher(troubles, seen, offset_sd)
    singles = [(each, weigh(each)) for each in _singles(troubles, plant)]
    pairs = [(each, weigh(each)) for each in _pairs(troubles, plant, singles)] if seen else []
    return Belief(troubles, _normalised([*singles, *pairs]), seen, offset_sd)


def _normalised(
    weighed: Sequence[tuple[Hypothesis, float]],
) -> tuple[tuple[Hypothesis, float], ...]:
    most = max(log for _, log in weighed)
    raw = [(each, math.exp(log - most)) for each, log in weighed]
    total = sum(p for _, p in raw)
    return tuple((each, p / total) for each, p in raw)


def _weigher(
    troubles: Troubles[Any], seen: Sequence[Observation], offset_sd: float
) -> Callable[[Hypothesis], float]:
    """The logarithm of prior times likelihood."""
    items = [(item, each) for each in seen if (item := troubles.item(each.item)) is not None]
    return lambda hypothesis: (
        math.log(hypothesis.prior) + log_likelihood(hypothesis, items, offset_sd)
    )


def log_likelihood(
    hypothesis: Hypothesis, items: Sequence[tuple[Item, Observation]], offset_sd: float
) -> float:
    """How well a hypothesis explains observations, whatever the gauge is off by."""
    free = [row for row in items if not row[0].gauge]
    read = [row for row in items if row[0].gauge]
    plain = sum(math.log(_chance(hypothesis, *row, 0.0)) for row in free)
    if not read:
        return plain
    # What a forecast says does not go with the offset: asked for once.
    told = [(item, forecast(hypothesis, item, seen.context), seen) for item, seen in read]
    return plain + math.log(
        sum(
            weight
            * math.prod(
                _density(item, of, float(seen.value) - step * offset_sd) for item, of, seen in told
            )
            for step, weight in _OFFSETS
        )
    )


def likelihood_of(hypothesis: Hypothesis, item: Item, seen: Observation, offset_sd: float) -> float:
    """How likely one observation is under a hypothesis.

    Args:
        hypothesis: The hypothesis.
        item: The item observed.
        seen: What was observed.
        offset_sd: How far the gauge may be off, one standard deviation, Pa.

    Returns:
        A probability, or a density on the item's scale.

    Source: Judgement and the plant's own model.
    """
    if not item.gauge:
        return _chance(hypothesis, item, seen, 0.0)
    return sum(w * _chance(hypothesis, item, seen, step * offset_sd) for step, w in _OFFSETS)


def _chance(hypothesis: Hypothesis, item: Item, seen: Observation, offset: float) -> float:
    if item.is_figure:
        told = forecast(hypothesis, item, seen.context)
        return _density(item, told, float(seen.value) - offset)
    yes = heard_yes(hypothesis, item)
    return yes if seen.value else 1 - yes


def chance_of_yes(hypothesis: Hypothesis, item: Item) -> float:
    """How likely an item would be seen: by any of the causes, by the plant, or for no reason."""
    if hypothesis.plant is None:
        return 0.5
    quiet = (1 - item.base) * (1 - (hypothesis.plant.seen(item.id) or 0.0))
    for cause, _ in hypothesis.parts:
        quiet *= 1 - cause.seen.get(item.id, 0.0)
    return 1 - quiet


def heard_yes(hypothesis: Hypothesis, item: Item) -> float:
    """How likely an item would be answered yes, by people who err."""
    return WRONG + (1 - 2 * WRONG) * chance_of_yes(hypothesis, item)


def forecast(hypothesis: Hypothesis, item: Item, context: tuple[float, ...]) -> Forecast | None:
    """The figure that would be measured; None where anything may be. Its deviation covers the sizes
    between its own and those beside it."""
    if hypothesis.plant is None:
        return None
    told = hypothesis.plant.shows(item.id, context)
    if told is None or told.never:
        return told
    beside = [each.shows(item.id, context) for each in hypothesis.near]
    steps = [
        abs(place_of(item, each.mean) - place_of(item, told.mean)) / 2
        for each in beside
        if each is not None and not each.never
    ]
    wide = sum(steps) / len(steps) if steps else 0.0
    return replace(told, sd=math.hypot(told.sd, wide / 3**0.5)) if wide else told


def place_of(item: Item, value: float) -> float:
    """Where a figure stands on the item's scale."""
    kept = min(max(value, item.least), item.most)
    return math.log(kept) if item.log else kept


def _density(item: Item, told: Forecast | None, value: float) -> float:
    """The density of a measured value, on a logarithmic scale where the item is `log`; anything in
    its range where nothing can be told, and by mistake."""
    flat = 1 / item.span
    if told is None:
        return flat
    if told.never:
        return WRONG * flat
    z = (place_of(item, value) - place_of(item, told.mean)) / told.sd
    return WRONG * flat + (1 - WRONG) * math.exp(-0.5 * z * z) / (told.sd * 2.5066282746)


def _singles(troubles: Troubles[Any], plant: Any) -> Iterator[Hypothesis]:
    yield Hypothesis((), UNKNOWN, None)
    causes = [each for each in troubles.causes if each.applies(plant)]
    sound = next((each for each in causes if each.as_sized), troubles.healthy)
    yield Hypothesis(((sound, 1.0),), HEALTHY, plant)
    whole = sum(each.weight for each in causes)
    for cause in causes:
        share = SINGLE * cause.weight / whole / len(cause.sizes)
        for size in cause.sizes:
            near = tuple(cause.on(plant, each) for each in _beside(cause, size))
            yield Hypothesis(((cause, size),), share, cause.on(plant, size), near)


def _beside(cause: Cause[Any], size: float) -> list[float]:
    """The sizes beside one, of the same kind: not a stuck one beside a slow one."""
    at = cause.sizes.index(size)
    sides = [cause.sizes[k] for k in (at - 1, at + 1) if 0 <= k < len(cause.sizes)]
    return [
        each for each in sides if each * size > 0 and max(each, size) <= _ALIKE * min(each, size)
    ]


def _pairs(
    troubles: Troubles[Any], plant: Any, singles: Sequence[tuple[Hypothesis, float]]
) -> Iterator[Hypothesis]:
    """Two causes at once: of those that explain most by themselves or explain what the best leaves
    open, each in its best sizes."""
    whole = sum(each.weight for each in troubles.causes if each.applies(plant))
    chosen = _best(singles)
    for (a, sizes_a), (b, sizes_b) in combinations(chosen, 2):
        prior = PAIR * 2 * a.weight * b.weight / whole**2 / (len(sizes_a) * len(sizes_b))
        for x in sizes_a:
            for y in sizes_b:
                first = a.on(plant, x)
                near = (
                    *(b.on(a.on(plant, each), y) for each in _beside(a, x)),
                    *(b.on(first, each) for each in _beside(b, y)),
                )
                yield Hypothesis(((a, x), (b, y)), prior, b.on(first, y), near)


def _best(singles: Sequence[tuple[Hypothesis, float]]) -> list[tuple[Cause[Any], list[float]]]:
    by: dict[str, list[tuple[float, float, Cause[Any]]]] = {}
    for hypothesis, log in singles:
        for cause, size in hypothesis.parts:
            by.setdefault(cause.id, []).append((log, size, cause))
    by.pop("healthy", None)
    ranked = sorted(by.values(), key=lambda rows: (-max(row[0] for row in rows), rows[0][2].id))
    return [
        (
            rows[0][2],
            [size for _, size, _ in sorted(rows, key=lambda row: -row[0])[:_SIZES_IN_PAIRS]],
        )
        for rows in ranked[:_IN_PAIRS]
    ]
