"""What a line does while the pump rests: leaks, draws, the knee of a drain, a trip."""

from dataclasses import dataclass

import numpy as np

from zerodip.physics.drain_knee import Knee, knee
from zerodip.recording.cycles import Cycles
from zerodip.recording.samples import Floats, Samples
from zerodip.units import PSI

__all__ = ["Falls", "Rest", "falls_of", "knee_in", "rests_of", "trips_of"]

_WINDOW_S = 600.0  # over which a fall is told
_FEWEST = 8  # samples in a window
_BESIDE_S = 15.0  # after a stop and before a start, left out: the gauge settles
_FALL_SAMPLES, _COLLAPSE_SAMPLES = 120, 60  # that tell a knee
_DEEP = 0.6  # of cut-in, down to which a rest falls that empties the tank
_TRIP_PA, _TRIP_S = 8 * PSI, 120.0


@dataclass(frozen=True)
class Rest:
    """A stretch with the pump off: first and last sample (places), and from when to when (s)."""

    first: int
    last: int
    start_s: float
    end_s: float


@dataclass(frozen=True)
class Falls:
    """How a resting line falls, in windows of ten minutes: when each begins (s), the pressure there
    (Pa gauge), and the fall of the reciprocal of absolute pressure with its standard error (1/Pa a
    second; by the gas law the draw divided by the air's V·c, whatever the pressure)."""

    time_s: Floats
    gauge_pa: Floats
    rate: Floats
    error: Floats


def rests_of(samples: Samples, cycles: Cycles) -> list[Rest]:
    """The stretches between a stop and the next start; before the first start and after the last
    stop as well.

    Args:
        samples: Samples in order of time.
        cycles: Their cycles.

    Returns:
        Rests, in order.
    """
    times = samples.time_s
    if not len(times):
        return []
    stops = np.concatenate([[times[0]], cycles.stop_s])
    starts = np.concatenate([cycles.start_s, [times[-1]]])
    made = []
    for stop, start in zip(stops, starts, strict=True):
        if not (np.isfinite(stop) and np.isfinite(start)) or start - stop < 2:
            continue
        first, last = np.searchsorted(times, [stop, start])
        made.append(Rest(int(first), int(min(last, len(times) - 1)), float(stop), float(start)))
    return made


def falls_of(samples: Samples, rests: list[Rest], air: float, noise: float) -> Falls:
    """The falls of all rests, window by window.

    Args:
        samples: Samples in order of time.
        rests: Their rests.
        air: The air's pressure at the site, Pa.
        noise: Standard deviation of one sample, Pa.

    Returns:
        The falls.
    """
    rows: list[tuple[float, float, float, float]] = []
    for rest in rests:
        for first, last in _windows(samples.time_s, rest):
            x = samples.time_s[first:last] - samples.time_s[first]
            pressure = samples.gauge_pa[first:last] + air
            if len(x) < _FEWEST or x[-1] < 0.8 * _WINDOW_S:
                continue
            middle = float(pressure.mean())
            centred = x - x.mean()
            spread = float(centred @ centred)
            rate = float(centred @ (1 / pressure)) / spread
            error = noise / middle**2 / np.sqrt(spread)
            rows.append((float(samples.time_s[first]), middle - air, rate, float(error)))
    columns = np.array(rows).reshape(-1, 4).T
    return Falls(*columns)


def _windows(times: Floats, rest: Rest) -> list[tuple[int, int]]:
    start, end = rest.start_s + _BESIDE_S, rest.end_s - _BESIDE_S
    count = int((end - start) // _WINDOW_S)
    if count < 1:
        return []
    bounds = np.searchsorted(times, start + _WINDOW_S * np.arange(count + 1))
    return list(zip(bounds[:-1].tolist(), bounds[1:].tolist(), strict=True))


def knee_in(samples: Samples, rests: list[Rest], cut_in_pa: float) -> Knee | None:
    """The knee of the first rest that falls far below cut-in: a drain.

    Args:
        samples: Samples in order of time.
        rests: Their rests.
        cut_in_pa: The usual cut-in, Pa gauge.

    Returns:
        The knee; None where no rest empties the tank, or nothing breaks.
    """
    for rest in rests:
        gauge = samples.gauge_pa[rest.first : rest.last + 1]
        low = int(gauge.argmin()) if len(gauge) else 0
        if low < 6 or gauge[low] > _DEEP * cut_in_pa:
            continue
        high = np.median(gauge[: max(low // 8, 6)])
        falls = int(np.flatnonzero(gauge[:low] >= high - 2 * PSI)[-1])
        # All of the collapse, which may be short, and some of the fall before it.
        fast = max(low - _COLLAPSE_SAMPLES, falls)
        slow = np.linspace(falls, fast, _FALL_SAMPLES, endpoint=False)
        places = np.unique(np.append(slow.astype(int), np.arange(fast, low + 1)))
        times = samples.time_s[rest.first + places]
        found = knee((times - times[0]).tolist(), gauge[places].tolist())
        if found:
            return found
    return None


def trips_of(samples: Samples, rests: list[Rest], cut_in_pa: float) -> list[float]:
    """When the line fell far below cut-in and the pump did not start for two minutes (s): a
    low-pressure cut-off that tripped, a breaker, or a drain on purpose.

    Args:
        samples: Samples in order of time.
        rests: Their rests.
        cut_in_pa: The usual cut-in, Pa gauge.

    Returns:
        Times, s.
    """
    found = []
    for rest in rests:
        low = np.flatnonzero(samples.gauge_pa[rest.first : rest.last + 1] < cut_in_pa - _TRIP_PA)
        if len(low) and rest.end_s - samples.time_s[rest.first + low[0]] > _TRIP_S:
            found.append(float(samples.time_s[rest.first + low[0]]))
    return found
