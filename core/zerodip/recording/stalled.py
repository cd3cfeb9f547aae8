"""Stops that are none: where a pump stalls below cut-out the line bends gently into a plateau, and
goes on rising a little or lies flat. A switch cuts a rise off; a plateau is come to."""

import numpy as np
from numpy.typing import NDArray

from zerodip.recording.arrays import Floats, Places
from zerodip.recording.samples import Samples
from zerodip.recording.stretches import step_of

__all__ = ["stalled_at"]

_WINDOW_S, _FEWEST, _MOST = 20.0, 8, 60  # on either side of a stop; samples
_FLATTENED = 0.25  # of a run's mean rise, under which it had flattened before it ended
_SHARP, _RISES = 3.0, 4.0  # standard errors by which a stop bends, and a plateau rises on
_FELL = 0.12  # of the rise, by which a line falls that tells whether the pump still runs
_LEAST_PA = 700.0  # a tenth of a psi


def stalled_at(
    samples: Samples, start_s: Floats, stop_s: Floats, next_s: Floats, noise: float
) -> NDArray[np.bool_]:
    """Which stops of a stretch are the beginning of a plateau.

    Args:
        samples: Its samples, without a gap.
        start_s: Starts of the runs, s; NaN where not seen.
        stop_s: Their stops, s; NaN where not seen.
        next_s: What comes next after each, s: the next start, or the end.
        noise: Standard deviation of one sample, Pa.

    Returns:
        True where the pump did not stop.
    """
    made = np.zeros(len(stop_s), dtype=np.bool_)
    times, gauge, step = samples.time_s, samples.gauge_pa, step_of(samples.time_s)
    if step <= 0:
        return made
    count = int(np.clip(_WINDOW_S / step, _FEWEST, _MOST))
    first, room = np.where(np.isfinite(start_s), start_s, times[0]), 3 * count * step
    known = np.flatnonzero((stop_s - first > room) & (next_s - stop_s > room))
    at = np.searchsorted(times, stop_s[known])
    inside = (at > count + 1) & (at + count + 1 < len(samples))
    known, at = known[inside], at[inside]
    rise = gauge[at] - gauge[np.searchsorted(times, first[known])]
    mean = rise / np.maximum(stop_s[known] - first[known], step)
    until = np.searchsorted(times, next_s[known])
    for k in np.flatnonzero(_gentle(gauge, at, mean, count, step, noise)):
        made[known[k]] = _comes_back(gauge[at[k] : until[k]], float(rise[k]))
    return made


def _gentle(
    gauge: Floats, at: Places, mean: Floats, count: int, step: float, noise: float
) -> NDArray[np.bool_]:
    """Where the line bends gently at some places, by `count` samples on either side; `mean` is how
    fast the runs before them rose, Pa/s."""
    line, x = np.arange(count), (np.arange(count) - (count - 1) / 2) * step
    error = noise / float(np.sqrt(x @ x))
    before = gauge[at[:, None] - 1 - line[::-1]] @ x / (x @ x)
    after = gauge[at[:, None] + 1 + line] @ x / (x @ x)
    # A plateau is still to be come to: later on the line stands higher.
    later = np.clip(at[:, None] + 2 * count + line, 0, len(gauge) - 1)
    higher = gauge[later].mean(axis=1) - gauge[at[:, None] + 1 + line[: count // 3]].mean(axis=1)
    least = max(_RISES * noise * float(np.sqrt(4 / count)), _LEAST_PA)
    flat = (before < _FLATTENED * mean) & (before - after < _SHARP * np.sqrt(2) * error)
    gentle: NDArray[np.bool_] = (after > -2 * error) & (
        (flat & (higher > -least)) | (higher > least)
    )
    return gentle


def _comes_back(after: Floats, rise: float) -> bool:
    """Whether a line that fell after a plateau came back to it: a pump that rests does not."""
    floor = float(after[: max(len(after) // 50, 1)].mean()) - _FELL * rise
    low = int(after.argmin())
    return bool(after[low] > floor or np.median(after[low:]) > floor)
