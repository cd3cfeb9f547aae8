"""What a line does while the pump rests: leaks, draws, the knee of a drain, a trip."""

from dataclasses import dataclass

import numpy as np

from zerodip.physics.drain_knee import Knee, knee
from zerodip.recording.arrays import Floats, Places
from zerodip.recording.cycles import Cycles
from zerodip.recording.samples import Samples
from zerodip.units import PSI

__all__ = [
    "WINDOW_S",
    "Falls",
    "Rest",
    "falls_of",
    "knee_in",
    "minutes_of",
    "rests_of",
    "trips_of",
    "zero_at_end",
]

WINDOW_S = 600.0  # over which a leak is told
MINUTE_S = 60.0  # over which a draw is
_EDGE = 5  # samples that tell the pressure at a minute's end
_FEWEST = 8  # samples in a window
_BESIDE_S = 15.0  # after a stop and before a start, left out: the gauge settles
_FALL_SAMPLES, _COLLAPSE_SAMPLES = 120, 60  # that tell a knee
_NEAR = 1.4  # times the knee, from which the fall before it is fitted
_DEEP = 0.6  # of cut-in, down to which a rest falls that empties the tank
_TRIP_PA, _TRIP_S = 8 * PSI, 120.0
_ZERO_S, _ZERO_FEWEST = 60.0, 20  # at the end of a line, over which a drained gauge lies still
_OFF_PA, _MOST_OFF_PA = 0.7 * PSI, 5 * PSI  # by which a zero is off: what is less nobody mends
_LIES = 0.1  # of what the line was, under which it has fallen to nothing


@dataclass(frozen=True)
class Rest:
    """A stretch with the pump off: first and last sample (places), and from when to when (s)."""

    first: int
    last: int
    start_s: float
    end_s: float


@dataclass(frozen=True)
class Falls:
    """How a resting line falls, window by window: when each begins and how long it lasts (s), the
    pressure there (Pa gauge), and the fall of the reciprocal of absolute pressure with its standard
    error (1/Pa a second; by the gas law the draw divided by the air's V·c, whatever the
    pressure)."""

    time_s: Floats
    seconds: Floats
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


def falls_of(
    samples: Samples, rests: list[Rest], air: float, noise: float, window_s: float = WINDOW_S
) -> Falls:
    """The falls of all rests, window by window.

    Args:
        samples: Samples in order of time.
        rests: Their rests.
        air: The air's pressure at the site, Pa.
        noise: Standard deviation of one sample, Pa.
        window_s: How long a window is, s.

    Returns:
        The falls of windows with samples enough.
    """
    times = samples.time_s
    bounds = _windows(times, rests, window_s)
    if not len(bounds):
        return Falls(*(np.zeros(0) for _ in range(5)))
    first, last = bounds.T
    places = _ranges(first, last)
    x = times[places] - np.repeat(times[first], last - first)
    pressure = samples.gauge_pa[places] + air
    count = last - first
    at = np.concatenate([[0], np.cumsum(count)[:-1]])
    mean_x, mean_p, mean_y = (np.add.reduceat(v, at) / count for v in (x, pressure, 1 / pressure))
    centred = x - np.repeat(mean_x, count)
    spread = np.add.reduceat(centred**2, at)
    rate = np.add.reduceat(centred * (1 / pressure - np.repeat(mean_y, count)), at) / spread
    error = noise / mean_p**2 / np.sqrt(spread)
    return Falls(times[first], times[last - 1] - times[first], mean_p - air, rate, error)


def _windows(times: Floats, rests: list[Rest], window_s: float) -> Places:
    """First and last place (not taken) of each window that holds samples all along."""
    starts = []
    for rest in rests:
        start, end = rest.start_s + _BESIDE_S, rest.end_s - _BESIDE_S
        count = int((end - start) // window_s)
        if count > 0:
            starts.append(start + window_s * np.arange(count))
    if not starts:
        return np.zeros((0, 2), dtype=np.intp)
    begins = np.concatenate(starts)
    bounds = np.column_stack(
        [np.searchsorted(times, begins), np.searchsorted(times, begins + window_s)]
    )
    enough = bounds[:, 1] - bounds[:, 0] >= _FEWEST
    bounds = bounds[enough]
    lasts = times[bounds[:, 1] - 1] - times[bounds[:, 0]]
    return bounds[lasts >= 0.8 * window_s]


def _ranges(first: Places, last: Places) -> Places:
    """All places from each first up to its last, one range after the other."""
    count = last - first
    shift = first - np.concatenate([[0], np.cumsum(count)[:-1]])
    places: Places = np.arange(int(count.sum())) + np.repeat(shift, count)
    return places


def minutes_of(samples: Samples, rests: list[Rest], air: float, noise: float) -> Falls:
    """What falls from minute to minute, each from where the one before ended, so that they add up
    to the whole of a rest.

    Args:
        samples: Samples in order of time.
        rests: Their rests.
        air: The air's pressure at the site, Pa.
        noise: Standard deviation of one sample, Pa.

    Returns:
        The falls.
    """
    edges = [_edges(samples.time_s, rest) for rest in rests]
    edges = [each for each in edges if len(each) > 1]
    if not edges:
        return Falls(*(np.zeros(0) for _ in range(5)))
    begins = np.concatenate([each[:-1] for each in edges])
    ends = np.concatenate([each[1:] for each in edges])
    around = np.arange(-(_EDGE // 2), _EDGE // 2 + 1)
    pressure = samples.gauge_pa + air
    last = len(pressure) - 1
    start, stop = (
        (1 / pressure[np.clip(at[:, None] + around, 0, last)]).mean(axis=1) for at in (begins, ends)
    )
    seconds = samples.time_s[ends] - samples.time_s[begins]
    middle = 2 / (start + stop)
    error = noise / middle**2 * np.sqrt(2 / _EDGE) / seconds
    return Falls(samples.time_s[begins], seconds, middle - air, (stop - start) / seconds, error)


def _edges(times: Floats, rest: Rest) -> Places:
    """Places about a minute apart, from a rest's first to its last sample."""
    count = max(int((rest.end_s - rest.start_s) // MINUTE_S), 1)
    at = np.linspace(rest.start_s, rest.end_s, count + 1)
    inside = _EDGE // 2 + 1  # what tells an end must not reach into a run
    first, last = rest.first + inside, rest.last - inside
    return np.unique(np.clip(np.searchsorted(times, at), first, max(last, first)))


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
        times = samples.time_s[rest.first : rest.last + 1]
        high = float(np.median(gauge[: max(low // 8, 6)]))
        found = _knee_below(times, gauge, low, high - 2 * PSI)
        # A long fall bends more than a parabola does: once more, near the knee alone.
        near = found and _knee_below(times, gauge, low, _NEAR * found.gauge_pa)
        if found:
            return near or found
    return None


def _knee_below(times: Floats, gauge: Floats, low: int, from_pa: float) -> Knee | None:
    """The knee of a fall to its lowest place, from the last sample over a pressure on."""
    over = np.flatnonzero(gauge[:low] >= from_pa)
    falls = int(over[-1]) if len(over) else 0
    # All of the collapse, which may be short, and some of the fall before it.
    fast = max(low - _COLLAPSE_SAMPLES, falls)
    slow = np.linspace(falls, fast, _FALL_SAMPLES, endpoint=False)
    places = np.unique(np.append(slow.astype(int), np.arange(fast, low + 1)))
    return knee((times[places] - times[falls]).tolist(), gauge[places].tolist())


def trips_of(samples: Samples, rests: list[Rest], cut_in_pa: float) -> list[float]:
    """When the line fell far below cut-in, for three samples at least, and the pump did not start
    for two minutes (s): a low-pressure cut-off that tripped, a breaker, or a drain on purpose. What
    stands out for a sample or two is none.

    Args:
        samples: Samples in order of time.
        rests: Their rests.
        cut_in_pa: The usual cut-in, Pa gauge.

    Returns:
        Times, s.
    """
    found = []
    for rest in rests:
        under = samples.gauge_pa[rest.first : rest.last + 1] < cut_in_pa - _TRIP_PA
        low = np.flatnonzero(under[:-2] & under[1:-1] & under[2:])
        if len(low) and rest.end_s - samples.time_s[rest.first + low[0]] > _TRIP_S:
            found.append(float(samples.time_s[rest.first + low[0]]))
    return found


def zero_at_end(samples: Samples) -> float | None:
    """What the sensor reads of nothing (Pa gauge): where the line ends drained it lies still near
    zero, far below all it was.

    Args:
        samples: Samples in order of time.

    Returns:
        The reading; None where the line does not end drained, or its zero is right.
    """
    last = samples.gauge_pa[samples.time_s >= samples.time_s[-1] - _ZERO_S]
    if len(last) < _ZERO_FEWEST:
        return None
    half = len(last) // 2
    first, second = (float(np.median(each)) for each in (last[:half], last[half:]))
    zero, stood = float(np.median(last)), float(np.percentile(samples.gauge_pa, 90))
    lies = abs(first - second) < 0.1 * PSI and zero < _LIES * stood
    return zero if lies and _OFF_PA < abs(zero) < _MOST_OFF_PA else None
