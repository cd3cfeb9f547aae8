"""Clock changes undone: a recorder on local time goes on through them, and only its clock jumps."""

import numpy as np

from zerodip.recording.arrays import Floats
from zerodip.recording.stretches import step_of

__all__ = ["OneClock"]

_HOUR_S, _DAY_S = 3600.0, 86400.0
_SUNDAY = 3  # days from a Thursday, 1 January 1970
_UNTIL_S = 4 * _HOUR_S  # clocks are changed in the small hours of a Sunday: common practice


class OneClock:
    """Follows times block by block and takes off what the clock jumped by. A clock put back an hour
    is told by the order of the rows; one put forward only where the next row comes an hour and its
    usual step later, in the small hours of a Sunday by a recorder's own clock (`local`)."""

    def __init__(self, local: bool) -> None:
        self._local, self._off, self._step = local, 0.0, 0.0
        self._last = np.nan

    def undone(self, times: Floats) -> tuple[Floats, int, int]:
        """The times by the clock that the recording began with, and how often the clock was put
        back and forward."""
        self._step = self._step or step_of(times[np.isfinite(times)])
        known = np.flatnonzero(np.isfinite(times))
        if not len(known) or not self._step:
            return times + self._off, 0, 0
        told = times[known]
        steps = np.diff(np.concatenate([[self._last], told]))
        near = max(1.5 * self._step, 1.0)
        back = np.abs(steps - self._step + _HOUR_S) <= near
        forward = np.abs(steps - self._step - _HOUR_S) <= 0.5 * self._step + 0.5
        forward &= self._local & _small_hours(told)
        shift = self._off + _HOUR_S * np.cumsum(back.astype(int) - forward.astype(int))
        self._last, self._off = float(told[-1]), float(shift[-1])
        made = times.copy()
        made[known] = told + shift
        return made, int(back.sum()), int(forward.sum())


def _small_hours(times: Floats) -> "np.ndarray[tuple[int], np.dtype[np.bool_]]":
    sunday = np.floor(times / _DAY_S) % 7 == _SUNDAY
    early: np.ndarray[tuple[int], np.dtype[np.bool_]] = sunday & (times % _DAY_S < _UNTIL_S)
    return early
