"""A leak: the fall that is there in every quiet time."""

from dataclasses import dataclass

import numpy as np

from zerodip.recording.rests import Falls
from zerodip.recording.swings import mode

__all__ = ["Leak", "leak_of"]

_FEWEST = 3  # windows that agree
_AGREE = 3.0  # standard errors


@dataclass(frozen=True)
class Leak:
    """The steady fall of 1/p, 1/(Pa·s), with its standard error: the leak divided by the air's V·c;
    where it lay (Pa gauge), and over how many ten minutes that agree. `is_there` tells it from
    none; the error then says what would have been seen."""

    rate: float
    error: float
    gauge_pa: float
    windows: int

    @property
    def is_there(self) -> bool:
        """Whether something runs away."""
        return self.windows >= _FEWEST and self.rate > _AGREE * self.error


def leak_of(falls: Falls) -> Leak | None:
    """The leak: the slowest fall on which the quiet times agree. Draws fall faster, and
    differently.

    Args:
        falls: Falls of the resting line.

    Returns:
        The leak, also where it is none; None where nothing is long enough to tell.
    """
    if len(falls.rate) < _FEWEST:
        return None
    order = falls.rate.argsort()
    slow = order[: max(len(order) // 2, _FEWEST)]
    middle = mode(falls.rate[slow])
    near = np.abs(falls.rate - middle) <= _AGREE * falls.error
    if near.sum() < _FEWEST:
        return None
    weights = falls.error[near] ** -2.0
    rate = float(np.average(falls.rate[near], weights=weights))
    spread = float(weights @ (falls.rate[near] - rate) ** 2) / max(int(near.sum()) - 1, 1)
    error = float(np.sqrt(max(spread, 1.0) / weights.sum()))
    return Leak(rate, error, float(np.median(falls.gauge_pa[near])), int(near.sum()))
