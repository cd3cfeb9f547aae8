"""What a gauge on the wire shows while one watches: the last minutes of its line, read as a
technician reads a gauge. Only what is sure is told; what else could look like it is said."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np

from zerodip.physics.drain_knee import Knee
from zerodip.recording.arrays import Floats, taken
from zerodip.recording.cycles import Cycles, cycles_of
from zerodip.recording.quality import in_order
from zerodip.recording.rests import Rest, knee_in
from zerodip.recording.samples import Samples
from zerodip.recording.swings import noise_of
from zerodip.units import PSI

__all__ = ["Fall", "Seen", "Start", "Stop", "seen_of", "seen_restored"]

_NOW_S = 0.5  # over which the figure now is taken
_STILL_S, _STILL_PA = 3.0, 0.4 * PSI  # in which it moves no further where it stands still
_SETTLES_S = 2.0  # after a break, before it is told
_EDGE_S = 5.0  # that tell the pressure at an end of a quiet time
_QUIET_AFTER_S = 20.0  # after a stop: the gauge settles, the air cools
_LEAST_QUIET_S = 60.0
_FLAT = 0.04  # of the rise before it, that a line falls by after a stop at most, all taps shut
_EMPTY = 0.35  # of where it began, down to which a drain falls
_TWICE = 2.0  # standard errors that are told as "give or take"
_EVEN = 0.25  # share of a fall by which its middle may lie off
_COLLAPSE_S = 6.0  # before a start, in which the gauge may have collapsed
_COLLAPSE, _LEAST_COLLAPSE_PA = 5.0, 1.5 * PSI  # so much faster than it fell besides, in a second
_DIP = 0.06  # of cut-in, by which the lowest lies under it where it dips


@dataclass(frozen=True)
class Start:
    """The pump began to deliver: when (s), cut-in and how far it may be off (Pa), the lowest
    (Pa gauge), and for how long it lay under cut-in (s). `falls` is how fast the gauge fell then
    (Pa/s): the switch clicked a little earlier and that much higher for each second of lag."""

    at_s: float
    gauge_pa: float
    error_pa: float
    lowest_pa: float
    below_s: float
    falls: float

    @property
    def dips(self) -> bool:
        """Whether the gauge collapsed under cut-in."""
        return self.gauge_pa - self.lowest_pa > max(_DIP * self.gauge_pa, 3 * self.error_pa)


@dataclass(frozen=True)
class Stop:
    """The pump stopped: when (s), cut-out and how far it may be off (Pa). Told only where the gauge
    lies still afterwards: where it falls, a tap may have been opened instead."""

    at_s: float
    gauge_pa: float
    error_pa: float


@dataclass(frozen=True)
class Fall:
    """A quiet time, the pump at rest: pressures at its ends (Pa gauge), seconds between, and by how
    much the difference may be off (Pa)."""

    first_pa: float
    later_pa: float
    seconds: float
    error_pa: float


@dataclass(frozen=True)
class Seen:
    """What a line shows: when its last sample came (s), the pressure now (Pa gauge), whether it
    stands still; whether the pump runs, since when (s); the last start and stop, what it ran and
    rested from click to click with how far that may be off (s), the knee of a drain, a quiet
    time."""

    at_s: float
    gauge_pa: float
    still: bool = False
    pump: Literal["runs", "rests", "unknown"] = "unknown"
    since_s: float | None = None
    start: Start | None = None
    stop: Stop | None = None
    run_s: float | None = None
    rest_s: float | None = None
    time_error_s: float = 0.0
    knee: Knee | None = None
    quiet: Fall | None = None


_PARTS = {"start": Start, "stop": Stop, "knee": Knee, "quiet": Fall}


def seen_restored(raw: Mapping[str, Any]) -> Seen:
    """What was seen, out of plain values as `dataclasses.asdict` makes them.

    Args:
        raw: The values.

    Returns:
        What was seen.
    """
    made = {
        name: _PARTS[name](**value) if name in _PARTS and value else value
        for name, value in raw.items()
    }
    return Seen(**made)


def seen_of(samples: Samples, atmosphere_pa: float, lag_s: float = 1.0) -> Seen | None:
    """What the last minutes show.

    Args:
        samples: The line as it came, gaps and all.
        atmosphere_pa: The air's pressure at the site, Pa.
        lag_s: From the switch's click to the pump's delivery, s; the usual second where it is not
            known.

    Returns:
        What is sure by now; None where there is no sample to read.
    """
    samples = in_order(samples)
    if not len(samples):
        return None
    times, gauge = samples.time_s, samples.gauge_pa
    now = float(gauge[times >= times[-1] - _NOW_S].mean())
    seen = Seen(float(times[-1]), now, _stands_still(samples, now))
    samples = _unbroken(samples)
    if len(samples) < 10:
        return seen
    noise = noise_of(samples.gauge_pa)
    top = float(np.percentile(samples.gauge_pa, 95))
    found = cycles_of(samples, atmosphere_pa)
    empty = np.isfinite(found.emptied_pa)
    # Of a tank that ran empty what it fell from is told in place of cut-in.
    found = replace(found, cut_in_pa=np.where(empty, found.emptied_pa, found.cut_in_pa))
    cycles = _settled(found, float(times[-1]), _EMPTY * top)
    seen = _with_cycles(seen, cycles, samples, noise, lag_s)
    return _with_rest(seen, samples, cycles, noise)


def _stands_still(samples: Samples, now: float) -> bool:
    """Whether the gauge shows what it showed some seconds ago: a moving one is not read."""
    ago = samples.time_s[-1] - samples.time_s
    earlier = samples.gauge_pa[(ago > _STILL_S - _NOW_S) & (ago <= _STILL_S)]
    return bool(len(earlier) and abs(float(earlier.mean()) - now) <= _STILL_PA)


def _unbroken(samples: Samples) -> Samples:
    """What came since the last gap of more than two seconds: across a gap nothing is told."""
    gaps = np.flatnonzero(np.diff(samples.time_s) > _SETTLES_S)
    return samples.taken(slice(int(gaps[-1]) + 1, None)) if len(gaps) else samples


def _settled(cycles: Cycles, now_s: float, empty_pa: float) -> Cycles:
    """Without what came in the last two seconds, which is not told yet, and without starts before
    which the gauge did not fall: there a tap was shut while the pump ran. On an empty tank it lies
    at the bottom before a start."""
    until = now_s - _SETTLES_S
    cycles = taken(cycles, ~(cycles.start_s > until))
    late = (cycles.stop_s > until) | ~_stopped(cycles)
    fell = cycles.fall_before < -_TWICE * np.nan_to_num(cycles.fall_before_error)
    fell |= (cycles.cut_in_pa < empty_pa) | np.isfinite(cycles.emptied_pa)
    return replace(
        cycles,
        start_s=np.where(fell, cycles.start_s, np.nan),
        cut_in_pa=np.where(fell, cycles.cut_in_pa, np.nan),
        stop_s=np.where(late, np.nan, cycles.stop_s),
        cut_out_pa=np.where(late, np.nan, cycles.cut_out_pa),
    )


def _stopped(cycles: Cycles) -> "np.ndarray[tuple[int], np.dtype[np.bool_]]":
    """Stops after which the gauge lies still."""
    flat = np.abs(cycles.fall_after) <= np.maximum(
        _FLAT * np.abs(cycles.rise_before), _TWICE * np.nan_to_num(cycles.fall_after_error)
    )
    sure: np.ndarray[tuple[int], np.dtype[np.bool_]] = flat & np.isfinite(cycles.stop_s)
    return sure


def _with_cycles(seen: Seen, cycles: Cycles, samples: Samples, noise: float, lag_s: float) -> Seen:
    if not len(cycles):
        return seen
    started, stopped = _last(cycles.start_s), _last(cycles.stop_s)
    start = None if started is None else _start(cycles, started, noise, lag_s)
    if start and started is not None and not np.isfinite(cycles.emptied_pa[started]):
        start = _fallen(start, samples, noise)
    stop = None if stopped is None else _stop(cycles, stopped, noise)
    seen = replace(seen, start=start, stop=stop)
    if start and (stop is None or stop.at_s < start.at_s):
        return replace(seen, pump="runs", since_s=start.at_s, rest_s=_rest(cycles, started))
    if stop is None or stopped is None:
        return seen
    seen = replace(seen, pump="rests", since_s=stop.at_s, rest_s=_rest(cycles, stopped))
    if np.isfinite(cycles.run_s[stopped]):
        # The click came before delivery, by the usual lag: all of it may be wrong.
        errors = cycles.start_error_s[stopped], cycles.stop_error_s[stopped]
        error_s = float(np.hypot(_TWICE * float(np.hypot(*errors)), lag_s))
        run_s = float(cycles.run_s[stopped]) + lag_s
        seen = replace(seen, run_s=run_s, time_error_s=error_s)
    return seen


def _last(times: Floats) -> int | None:
    known = np.flatnonzero(np.isfinite(times))
    return int(known[-1]) if len(known) else None


def _rest(cycles: Cycles, at: int | None) -> float | None:
    """The rest before a run, where both its ends were seen."""
    rest = float(cycles.rest_s[at - 1]) if at else np.nan
    return rest if np.isfinite(rest) else None


def _start(cycles: Cycles, at: int, noise: float, lag_s: float) -> Start:
    """The switch clicked before the pump delivered: so much higher as the gauge fell meanwhile. The
    usual lag is taken off; all of it may be wrong."""
    falls = float(abs(np.nan_to_num(cycles.fall_before[at])))
    low, lag_pa = float(cycles.cut_in_pa[at]), falls * lag_s
    line = falls * float(np.nan_to_num(cycles.start_error_s[at])) + noise / 2
    return Start(
        float(cycles.start_s[at]),
        low + lag_pa,
        float(np.hypot(_TWICE * line, lag_pa)),
        float(cycles.lowest_pa[at]),
        float(np.nan_to_num(cycles.below_s[at])),
        falls,
    )


def _fallen(start: Start, samples: Samples, noise: float) -> Start:
    """A start whose gauge collapsed before it: the tank was empty, and the switch clicked somewhere
    on the way down. What it fell from is told in place of cut-in, and how long it lay below."""
    times, gauge = samples.time_s, samples.gauge_pa
    before = np.searchsorted(times, [start.at_s - _COLLAPSE_S, start.at_s + 0.5])
    places = np.arange(*before)
    if len(places) < 5:
        return start
    earlier = np.clip(np.searchsorted(times, times[places] - 1.0), 0, places)
    falls = gauge[earlier] - gauge[places]
    at = int(falls.argmax())
    if falls[at] <= max(_COLLAPSE * float(np.median(falls)), _LEAST_COLLAPSE_PA + 6 * noise):
        return start
    fell_from = float(np.median(gauge[max(int(earlier[at]) - 3, 0) : int(earlier[at]) + 1]))
    after = gauge[int(earlier[at]) :] < fell_from - max(3 * noise, _DIP * fell_from)
    spans = np.diff(times[int(earlier[at]) :])[after[:-1]]
    lowest = float(gauge[int(earlier[at]) : int(places[-1]) + 1].min())
    return replace(
        start, gauge_pa=fell_from, lowest_pa=lowest, below_s=float(spans[spans < 1.0].sum())
    )


def _stop(cycles: Cycles, at: int, noise: float) -> Stop:
    rise = float(abs(np.nan_to_num(cycles.rise_before[at])))
    line = rise * float(np.nan_to_num(cycles.stop_error_s[at])) + noise / 2
    return Stop(float(cycles.stop_s[at]), float(cycles.cut_out_pa[at]), _TWICE * line)


def _with_rest(seen: Seen, samples: Samples, cycles: Cycles, noise: float) -> Seen:
    """A drain's knee and a quiet time: after the last stop, or where no cycle was seen at all."""
    if seen.pump == "runs":
        return seen
    since = seen.since_s if seen.since_s is not None else float(samples.time_s[0])
    samples = samples.taken(samples.time_s >= since)
    if len(samples) < 10:
        return seen
    return replace(seen, knee=_knee(samples), quiet=_quiet(seen, samples, noise))


def _knee(samples: Samples) -> Knee | None:
    """Told once the tank is empty."""
    gauge = samples.gauge_pa
    top = float(np.percentile(gauge[: max(len(gauge) // 8, 6)], 90))
    if top <= 0 or float(gauge[-1]) > _EMPTY * top:
        return None
    whole = Rest(0, len(samples) - 1, float(samples.time_s[0]), float(samples.time_s[-1]))
    return knee_in(samples, [whole], top)


def _quiet(seen: Seen, samples: Samples, noise: float) -> Fall | None:
    """The fall since the gauge settled after a stop; a line in which a tap was opened is none."""
    if seen.pump != "rests":
        return None
    samples = samples.taken(samples.time_s >= samples.time_s[0] + _QUIET_AFTER_S)
    if len(samples) < 10:
        return None
    times, gauge = samples.time_s, samples.gauge_pa
    first, last = times <= times[0] + _EDGE_S, times >= times[-1] - _EDGE_S
    seconds = float(times[last].mean() - times[first].mean())
    if seconds < _LEAST_QUIET_S:
        return None
    early, late = float(gauge[first].mean()), float(gauge[last].mean())
    error = _TWICE * noise * float(np.sqrt(1 / first.sum() + 1 / last.sum()))
    middle = np.abs(times - (times[0] + times[-1]) / 2) <= _EDGE_S / 2
    halfway = float(gauge[middle].mean()) if middle.any() else np.nan
    # A leak falls all along; half of the time with most of the fall is a tap, or warm air cooling.
    if not abs(halfway - (early + late) / 2) <= _EVEN * abs(early - late) + 2 * error:
        return None
    return Fall(early, min(late, early), seconds, error)
