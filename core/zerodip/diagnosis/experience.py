"""What a workspace has met shifts how often each cause is expected: a Dirichlet prior with the
usual weights as its mean, worth so many outcomes, and the confirmed outcomes as counts.

Source: the posterior mean of a Dirichlet–multinomial; its strength is judgement, no source.
"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from zerodip.diagnosis.parts import Troubles

__all__ = ["STRENGTH", "CauseMet", "causes_met", "with_experience"]

STRENGTH = 40.0  # outcomes that the usual weights are worth


@dataclass(frozen=True, kw_only=True)
class CauseMet:
    """How many times a cause was confirmed, and its share of all faults: as usual, and now."""

    id: str
    title: str
    times: int
    usual: float
    now: float


def with_experience(troubles: Troubles[Any], met: Mapping[str, int]) -> Troubles[Any]:
    """The same causes, expected as often as this workspace meets them.

    Args:
        troubles: What may be wrong with this kind of system.
        met: Confirmed outcomes by the cause's id; those that are no cause of this kind, and
            "healthy", shift nothing.

    Returns:
        The causes with shifted weights; the sum of the weights stays.
    """
    known = {each.id for each in troubles.causes}
    counted = tuple(sorted((id, n) for id, n in met.items() if id in known and n > 0))
    return _shifted(troubles, counted) if counted else troubles


@lru_cache(maxsize=64)
def _shifted(troubles: Troubles[Any], counted: tuple[tuple[str, int], ...]) -> Troubles[Any]:
    met, whole = dict(counted), math.fsum(each.weight for each in troubles.causes)
    count = sum(met.values())
    return replace(
        troubles,
        causes=tuple(
            replace(
                each,
                weight=whole
                * (STRENGTH * each.weight / whole + met.get(each.id, 0))
                / (STRENGTH + count),
            )
            for each in troubles.causes
        ),
    )


def causes_met(troubles: Troubles[Any], met: Mapping[str, int]) -> tuple[CauseMet, ...]:
    """The causes that were confirmed, with their shares as usual and as they are now.

    Args:
        troubles: What may be wrong with this kind of system.
        met: Confirmed outcomes by the cause's id.

    Returns:
        The causes met, the most frequent first; nothing wrong is among them, without a shift.
    """
    return tuple(sorted(_met(troubles, met), key=lambda each: (-each.times, each.title)))


def _met(troubles: Troubles[Any], met: Mapping[str, int]) -> Iterator[CauseMet]:
    usual, now = _shares(troubles), _shares(with_experience(troubles, met))
    for id, cause in troubles.every.items():
        if met.get(id):
            yield CauseMet(
                id=id,
                title=cause.title,
                times=met[id],
                usual=usual.get(id, 0.0),
                now=now.get(id, 0.0),
            )


def _shares(troubles: Troubles[Any]) -> dict[str, float]:
    """The share of each cause of all faults."""
    whole = math.fsum(each.weight for each in troubles.causes) or 1.0
    return {each.id: each.weight / whole for each in troubles.causes}
