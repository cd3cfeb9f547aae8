"""What may be wrong, with how likely each is before anything was observed: single faults of every
size, plausible pairs, nothing wrong, and something that is not listed.

Source: shares are judgement, no source.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import combinations
from typing import Any

from zerodip.diagnosis.parts import Cause, Forecast, Plant, Troubles

__all__ = [
    "CALLED",
    "OTHER",
    "ROUTINE",
    "Broken",
    "Hypothesis",
    "Shares",
    "is_sound",
    "pairs",
    "singles",
]

Broken = tuple[frozenset[str], ...]
OTHER = "other"
_PUT_RIGHT_SINCE = 0.15  # of what stands wrong on file: judgement, no source
_IN_PAIRS, _SIZES_IN_PAIRS = 8, 2
_ALIKE = 20.0  # sizes further apart are different faults


@dataclass(frozen=True)
class Shares:
    """How often nothing is wrong, one thing, two, and something that is not listed."""

    healthy: float
    single: float
    pair: float
    unknown: float


# Judgement, no source: where something is complained of, and where nothing is.
CALLED = Shares(0.15, 0.73, 0.10, 0.02)
ROUTINE = Shares(0.35, 0.55, 0.08, 0.02)


@dataclass(frozen=True)
class Hypothesis:
    """Causes with their sizes, how likely before anything was observed, and the plant as it would
    be, made from the `sound` one; no plant stands for whatever is not listed."""

    parts: tuple[tuple[Cause[Any], float], ...]
    prior: float
    plant: Plant | None
    sound: Plant | None = None

    @cached_property
    def near(self) -> tuple[Plant, ...]:
        """The plants of the sizes beside its own, for which it stands half of the way."""
        return tuple(
            _with((*self.parts[:at], (cause, beside), *self.parts[at + 1 :]), self.sound)
            for at, (cause, size) in enumerate(self.parts)
            for beside in _beside(cause, size)
        )

    @cached_property
    def told(self) -> dict[tuple[str, tuple[float, ...]], Forecast | None]:
        """What was forecast already, by item and context."""
        return {}

    @cached_property
    def signs(self) -> dict[str, float]:
        """How likely each sign is there, as far as it was asked for."""
        return {}

    @cached_property
    def remedies(self) -> frozenset[str]:
        """Ids of the remedies that it calls for; "other" where it has no cause."""
        return frozenset(cause.remedy.id for cause, _ in self.parts) or frozenset({OTHER})

    def has(self, cause: str) -> bool:
        """Whether a cause is among its own; "other" where it has none."""
        return any(each.id == cause for each, _ in self.parts) or (
            cause == OTHER and not self.parts
        )


@lru_cache(maxsize=4)  # answers follow on each other; what was forecast is kept with them
def singles(
    troubles: Troubles[Any], plant: Any, shares: Shares, broken: Broken = ()
) -> tuple[Hypothesis, ...]:
    """Nothing that is listed, nothing wrong, and every cause in each of its sizes.

    Args:
        troubles: What may be wrong with this kind of system.
        plant: The system without a fault.
        shares: How often each number of causes is met.
        broken: The rules of Decide that the system breaks as it stands on file, the worst first.

    Returns:
        The hypotheses; their shares and that of the pairs add up to 1.
    """
    causes = [each for each in troubles.causes if each.applies(plant)]
    single = shares.single / math.fsum(each.weight for each in causes)
    return (
        Hypothesis((), shares.unknown, None),
        *_sound(troubles.healthy, _filed(causes, plant, broken), plant, shares.healthy),
        *(
            _hypothesis(((cause, size),), single * cause.weight / len(cause.sizes), plant)
            for cause in causes
            for size in cause.sizes
        ),
    )


def _filed(causes: Sequence[Cause[Any]], plant: Any, broken: Broken) -> Cause[Any] | None:
    """The cause that holds as the system stands on file: of the worst rules that are broken."""
    for rules in broken:
        for each in causes:
            if each.filed and rules.intersection(each.breaks) and each.filed(plant):
                return each
    return None


def _sound(
    healthy: Cause[Any], filed: Cause[Any] | None, plant: Any, share: float
) -> Iterator[Hypothesis]:
    """Nothing wrong beyond what stands on file; that may have been put right since."""
    if filed is None:
        yield Hypothesis(((healthy, 1.0),), share, plant, plant)
        return
    as_it_is = replace(filed, size=None, change=None)
    since = _PUT_RIGHT_SINCE if filed.put_right else 0.0
    yield Hypothesis(((as_it_is, 1.0),), share * (1 - since), plant, plant)
    if filed.put_right:
        right = filed.put_right(plant)
        yield Hypothesis(((healthy, 1.0),), share * since, right, right)


@lru_cache(maxsize=512)
def _hypothesis(
    parts: tuple[tuple[Cause[Any], float], ...], prior: float, sound: Plant
) -> Hypothesis:
    return Hypothesis(parts, prior, _with(parts, sound), sound)


def _with(parts: Sequence[tuple[Cause[Any], float]], sound: Plant | None) -> Plant:
    """The plant with all of these faults in it."""
    plant: Any = sound
    for cause, size in parts:
        plant = cause.on(plant, size)
    return plant  # type: ignore[no-any-return]


def _beside(cause: Cause[Any], size: float) -> list[float]:
    """The sizes beside one, of the same kind: not a stuck one beside a slow one."""
    at = cause.sizes.index(size)
    sides = [cause.sizes[k] for k in (at - 1, at + 1) if 0 <= k < len(cause.sizes)]
    return [each for each in sides if each * size > 0 and 1 / _ALIKE <= each / size <= _ALIKE]


def pairs(
    troubles: Troubles[Any],
    plant: Any,
    weighed: Sequence[tuple[Hypothesis, float]],
    shares: Shares,
) -> Iterator[Hypothesis]:
    """Two causes at once: of those that explain most by themselves, each in its best sizes.

    Args:
        troubles: What may be wrong with this kind of system.
        plant: The system without a fault.
        weighed: The single causes, each with the logarithm of how well it explains what was
            observed.
        shares: How often each number of causes is met.

    Yields:
        The hypotheses.
    """
    whole = math.fsum(each.weight for each in troubles.causes if each.applies(plant))
    chosen = _best([row for row in weighed if not is_sound(row[0], troubles)])
    for (a, sizes_a), (b, sizes_b) in combinations(chosen, 2):
        prior = shares.pair * 2 * a.weight * b.weight / whole**2 / (len(sizes_a) * len(sizes_b))
        yield from (_hypothesis(((a, x), (b, y)), prior, plant) for x in sizes_a for y in sizes_b)


def is_sound(hypothesis: Hypothesis, troubles: Troubles[Any]) -> bool:
    """Whether it is the plant as it stands, with nothing changed: it goes with every other.

    Args:
        hypothesis: The hypothesis.
        troubles: What may be wrong with this kind of system.

    Returns:
        True for nothing wrong, and for what stands wrong on file.
    """
    return any(cause not in troubles.causes for cause, _ in hypothesis.parts)


def _best(weighed: Sequence[tuple[Hypothesis, float]]) -> list[tuple[Cause[Any], list[float]]]:
    by: dict[str, list[tuple[float, float, Cause[Any]]]] = {}
    for hypothesis, log in weighed:
        for cause, size in hypothesis.parts:
            by.setdefault(cause.id, []).append((log, size, cause))
    ranked = sorted(by.values(), key=lambda rows: (-max(row[0] for row in rows), rows[0][2].id))
    return [
        (
            rows[0][2],
            [size for _, size, _ in sorted(rows, key=lambda row: -row[0])[:_SIZES_IN_PAIRS]],
        )
        for rows in ranked[:_IN_PAIRS]
    ]
