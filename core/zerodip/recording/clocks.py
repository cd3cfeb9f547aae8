"""Clock changes undone: a recorder on local time goes on through them, and only its clock jumps."""

import numpy as np
from numpy.typing import NDArray

from zerodip.recording.arrays import Floats
from zerodip.recording.stretches import step_of

__all__ = ["OneClock"]

_HOUR_S, _DAY_S = 3600.0, 86400.0
_SUNDAY = 3  # days from a Thursday, 1 January 1970
_UNTIL_S = 4 * _HOUR_S  # clocks are changed in the small hours of a Sunday: common practice
_COARSEST_S = 900.0  # between samples, beyond which an hour is no sign of a clock


class OneClock:
    """Follows times block by block and takes off what the clock jumped by. A clock put back an hour
    is told by the order of the rows. One put forward, by a recorder's own clock (`local`): where
    the next row comes an hour and its usual step later in the small hours of a Sunday; in a zone
    that is known: where the hour that comes twice, read as the first each time, ends."""

    def __init__(self, local: bool) -> None:
        self._local, self._off, self._step = local, 0.0, 0.0
        self._last = np.nan

    def undone(self, times: Floats) -> tuple[Floats, int, int]:
        """The times by the clock that the recording began with, and how often a recorder's own
        clock was put back and forward."""
        known = np.flatnonzero(np.isfinite(times))
        self._step = self._step or step_of(times[known])
        if not len(known) or not 0 < self._step <= _COARSEST_S:
            return times + self._off, 0, 0
        told = times[known]
        steps = np.diff(np.concatenate([[self._last], told]))
        back = (steps < 0) & _hour_off(steps + _HOUR_S, self._step, 1.5)
        ahead = _hour_off(steps - _HOUR_S, self._step, 0.5)
        early, shift, counts = _small_hours(told), np.full(len(told), self._off), [0, 0]
        for at in np.flatnonzero(back | ahead):
            if ahead[at] and not (early[at] if self._local else self._off > 0):
                continue
            self._off += _HOUR_S if back[at] else -_HOUR_S
            counts[int(ahead[at])] += int(self._local)
            shift[at:] = self._off
        self._last = float(told[-1])
        made = times.copy()
        made[known] = told + shift
        return made, counts[0], counts[1]


def _hour_off(steps: Floats, usual: float, within: float) -> NDArray[np.bool_]:
    """Which steps, an hour taken off, are the usual one, within so many of it and a second."""
    made: NDArray[np.bool_] = np.abs(steps - usual) <= max(within * usual, 1.0)
    return made


def _small_hours(times: Floats) -> NDArray[np.bool_]:
    sunday = np.floor(times / _DAY_S) % 7 == _SUNDAY
    early: NDArray[np.bool_] = sunday & (times % _DAY_S < _UNTIL_S)
    return early
