"""Stretches of a recording without a gap."""

from itertools import pairwise

import numpy as np

from zerodip.recording.arrays import Floats, blocks

__all__ = ["gap_s", "step_of", "stretches"]

_STEPS, _LEAST_S = 10.0, 5.0


def step_of(time_s: Floats) -> float:
    """The usual time between two samples.

    Args:
        time_s: Times, s.

    Returns:
        Seconds; 0 with fewer than two samples.
    """
    if len(time_s) < 2:
        return 0.0
    steps = np.diff(time_s[: 1 << 20])
    steps = steps[steps > 0]
    return float(np.median(steps)) if len(steps) else 0.0


def gap_s(step_s: float) -> float:
    """From how long on no sample is a gap.

    Args:
        step_s: The usual time between two samples, s.

    Returns:
        Seconds.
    """
    return max(_STEPS * step_s, _LEAST_S)


def stretches(time_s: Floats) -> list[slice]:
    """The stretches between gaps, of three samples or more.

    Args:
        time_s: Times, s, rising.

    Returns:
        Slices, in order.
    """
    if len(time_s) < 3:
        return []
    gap = gap_s(step_of(time_s))
    breaks = [np.flatnonzero(np.diff(part) > gap) + at + 1 for at, part in blocks(time_s)]
    bounds = [0, *np.concatenate(breaks).tolist(), len(time_s)]
    return [slice(a, b) for a, b in pairwise(bounds) if b - a >= 3]
