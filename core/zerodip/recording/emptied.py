"""Starts before which the tank ran empty: the gauge collapses from where the water ended, and comes
back there as fast, because only the pipes are to be filled again. Cut-in is not seen on such a
line: the switch clicked somewhere on the way down, or above it."""

from dataclasses import dataclass

import numpy as np

from zerodip.recording.arrays import Floats, Places, middles
from zerodip.recording.samples import Samples
from zerodip.recording.stretches import step_of

__all__ = ["Emptied", "emptied_at"]

_BESIDE_S = 3.0  # on either side of the lowest, in which a collapse lies
_LINE = 10  # samples that tell the slow line on a side
_COARSEST_S = 1.2  # between samples, beyond which a collapse falls between them
_NOISES, _LEAST_PA = 6.0, 10e3  # that it is deep at least: common practice, no source
_ALIKE = 0.5  # share of its depth by which the lines of both sides may lie apart
_AT_ONCE = 1024  # starts looked at together, so that memory stays small


@dataclass(frozen=True)
class Emptied:
    """By start, NaN where the tank was not empty: from where the gauge collapsed and how deep
    (Pa gauge), and for how long it lay below (s)."""

    from_pa: Floats
    lowest_pa: Floats
    below_s: Floats


def emptied_at(
    samples: Samples, start_s: Floats, before_s: Floats, run_s: Floats, noise: float
) -> Emptied:
    """The starts of a stretch before which the tank ran empty.

    Args:
        samples: Its samples as they came, without a gap.
        start_s: Starts, s; NaN where not seen.
        before_s: The rest before each, s; NaN where not known.
        run_s: The run after each, s; NaN where not known.
        noise: Standard deviation of one sample, Pa.

    Returns:
        What was seen of each start.
    """
    made = Emptied(*(np.full(len(start_s), np.nan) for _ in range(3)))
    step = step_of(samples.time_s)
    if not 0 < step <= _COARSEST_S:
        return made
    beside = max(int(np.ceil(_BESIDE_S / step)), 3)
    room = (beside + _LINE) * step
    enough = np.isfinite(start_s) & ~(before_s < room) & ~(run_s < room)
    at = np.searchsorted(samples.time_s, start_s)
    enough &= (at > 2 * beside + _LINE) & (at < len(samples) - 2 * beside - _LINE)
    which = np.flatnonzero(enough)
    for k in range(0, len(which), _AT_ONCE):
        _look(samples, which[k : k + _AT_ONCE], at[which[k : k + _AT_ONCE]], beside, noise, made)
    return made


def _look(
    samples: Samples, which: Places, at: Places, beside: int, noise: float, made: Emptied
) -> None:
    gauge, step = samples.gauge_pa, step_of(samples.time_s)
    near = at[:, None] + np.arange(-beside, beside + 1)
    low = near[np.arange(len(at)), middles(_edged(gauge[near])).argmin(axis=1)]
    line = np.arange(_LINE)
    before = _ahead(gauge[low[:, None] - beside - line], beside)
    after = _ahead(gauge[low[:, None] + beside + line], beside)
    around = gauge[low[:, None] + np.arange(-beside, beside + 1)]
    lowest = middles(_edged(around)).min(axis=1)
    level = np.minimum(before, after)
    depth = level - lowest
    empty = (depth > max(_NOISES * noise, _LEAST_PA)) & (np.abs(before - after) < _ALIKE * depth)
    here = which[empty]
    made.from_pa[here] = ((before + after) / 2)[empty]
    made.lowest_pa[here] = lowest[empty]
    below = (around < (level - _NOISES / 2 * noise)[:, None]).sum(axis=1) * step
    made.below_s[here] = below[empty]


def _edged(rows: Floats) -> Floats:
    """Rows with their ends once more."""
    return np.pad(rows, ((0, 0), (1, 1)), mode="edge")


def _ahead(rows: Floats, beside: int) -> Floats:
    """What a straight line through each row comes to `beside` samples before its first."""
    x = np.arange(rows.shape[1]) - (rows.shape[1] - 1) / 2
    mean = rows.mean(axis=1)
    slope = ((rows - mean[:, None]) * x).sum(axis=1) / (x @ x)
    ahead: Floats = mean - slope * (beside + (rows.shape[1] - 1) / 2)
    return ahead
