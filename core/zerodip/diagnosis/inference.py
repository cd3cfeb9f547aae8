"""How likely each cause is after what was observed: single faults of every size, plausible pairs,
nothing wrong, and something that is not listed; the gauge's own offset is summed over.

Source: Bayes' rule on a finite set.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from zerodip.diagnosis.hypotheses import (
    CALLED,
    ROUTINE,
    Broken,
    Hypothesis,
    pairs,
    singles,
)
from zerodip.diagnosis.likelihood import (
    TOLD,
    Looks,
    chance_of_yes,
    likelihood_of,
    log_likelihood,
)
from zerodip.diagnosis.parts import Cause, Item, Observation, Troubles

__all__ = ["Belief", "believe"]

_USUAL = 0.1  # what is seen as often as that is no sign of trouble


@dataclass(frozen=True)
class Belief:
    """Every hypothesis with its probability; they add up to 1."""

    troubles: Troubles[Any]
    weighed: tuple[tuple[Hypothesis, float], ...]
    observations: tuple[Observation, ...]
    offset_sd: float

    def probability(self, cause: str) -> float:
        """How likely a cause is at work, alone or with another."""
        return math.fsum(p for hypothesis, p in self.weighed if hypothesis.has(cause))

    @cached_property
    def likelihoods(self) -> dict[str, tuple[float, ...]]:
        """How likely each observation is under every hypothesis, by item, in their order."""
        return {
            item.id: tuple(
                likelihood_of(hypothesis, item, seen, self.offset_sd)
                for hypothesis, _ in self.weighed
            )
            for item, seen in self.looks
        }

    @cached_property
    def looks(self) -> tuple[Looks, ...]:
        """What was observed, by item."""
        return _looks_of(self.troubles, self.observations)

    @cached_property
    def first(self) -> dict[str, Observation]:
        """What was observed of each item the first time."""
        return {each.item: each for each in self.observations if not each.again}

    @cached_property
    def by_cause(self) -> dict[str, float]:
        """The probability of every cause, the likeliest first."""
        made = dict.fromkeys(self.troubles.every, 0.0)
        for hypothesis, p in self.weighed:
            for cause, _ in hypothesis.parts:
                made[cause.id] += p
        return dict(sorted(made.items(), key=lambda pair: -pair[1]))

    @cached_property
    def works(self) -> tuple[tuple[Cause[Any], ...], ...]:
        """The causes, those with one remedy together, the likeliest first."""
        every, groups = self.troubles.every, dict[str, list[Cause[Any]]]()
        for id in self.by_cause:
            groups.setdefault(every[id].remedy.id, []).append(every[id])
        return tuple(map(tuple, groups.values()))


def believe(
    troubles: Troubles[Any],
    figures: Any,
    observations: Sequence[Observation],
    offset_sd: float,
    broken: Broken = (),
) -> Belief:
    """Weighs every cause by what was observed.

    Args:
        troubles: What may be wrong with this kind of system.
        figures: The system's figures under its settings.
        observations: What was observed; of each item the last one counts, and the last one that
            was looked at once more.
        offset_sd: How far the gauge may be off, one standard deviation, Pa.
        broken: The rules of Decide that the system breaks as it stands on file, the worst first.

    Returns:
        The belief. The order of the observations does not matter.

    Source: Bayes' rule.
    """
    last = {(each.item, each.again): each for each in observations if troubles.item(each.item)}
    seen = tuple(each for _, each in sorted(last.items()))
    plant = troubles.plant(figures, seen)
    weigh = _weigher(troubles, seen, offset_sd)
    shares = CALLED if _is_call(troubles, seen) else ROUTINE
    alone = [(each, weigh(each)) for each in singles(troubles, plant, shares, broken)]
    both = [(each, weigh(each)) for each in pairs(troubles, plant, alone, shares)] if seen else []
    return Belief(troubles, _normalised([*alone, *both]), seen, offset_sd)


def _normalised(
    weighed: Sequence[tuple[Hypothesis, float]],
) -> tuple[tuple[Hypothesis, float], ...]:
    most = max(log for _, log in weighed)
    raw = [(each, math.exp(log - most)) for each, log in weighed]
    total = math.fsum(p for _, p in raw)
    return tuple((each, p / total) for each, p in raw)


def _weigher(
    troubles: Troubles[Any], seen: Sequence[Observation], offset_sd: float
) -> Callable[[Hypothesis], float]:
    """The logarithm of prior times likelihood."""
    looks = _looks_of(troubles, seen)
    unsaid = _unsaid(troubles, seen)
    return lambda hypothesis: (
        math.log(hypothesis.prior)
        + log_likelihood(hypothesis, looks, offset_sd)
        + math.fsum(math.log(1 - TOLD * chance_of_yes(hypothesis, item)) for item in unsaid)
    )


def _looks_of(troubles: Troubles[Any], seen: Sequence[Observation]) -> tuple[Looks, ...]:
    """Observations by item, the first look before the second."""
    by: dict[str, list[Observation]] = {}
    for each in seen:
        by.setdefault(each.item, []).append(each)
    items = ((troubles.item(id), tuple(rows)) for id, rows in by.items())
    return tuple((item, rows) for item, rows in items if item is not None)


def _is_call(troubles: Troubles[Any], seen: Sequence[Observation]) -> bool:
    """Whether something is complained of, or a sign was seen that a sound plant does not show."""
    signs = {each.id for each in troubles.items if not each.is_figure and each.base < _USUAL}
    return any(each.value is True and each.item in signs for each in seen)


def _unsaid(troubles: Troubles[Any], seen: Sequence[Observation]) -> list[Item]:
    """What was not complained of although something was told: half as good as a no."""
    if not _is_call(troubles, seen):
        return []
    said = {each.item for each in seen}
    yes = {each.item for each in seen if each.value is True}
    unsaid = (each for each in troubles.items if each.symptom and each.id not in said)
    return [each for each in unsaid if not yes.intersection(each.unless)]
