"""What a recording says, as a technician would read it off the line: fed a block at a time, told at
the end."""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from datetime import datetime
from zoneinfo import ZoneInfo

import numpy as np

from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.physics.drain_knee import Knee
from zerodip.recording.arrays import Floats, joined
from zerodip.recording.cycles import Cycles, cycles_of
from zerodip.recording.draws import LONG_REST_S, Drawn, draws_of
from zerodip.recording.figures import (
    Empties,
    Figure,
    Trend,
    cut_in_of,
    empties_of,
    figure_of,
    trend_of,
)
from zerodip.recording.flows import Flows, flows_of
from zerodip.recording.leak import Leak, leak_of
from zerodip.recording.pump import Pump, pump_of
from zerodip.recording.quality import Quality, in_order
from zerodip.recording.rests import (
    Falls,
    falls_of,
    knee_in,
    minutes_of,
    rests_of,
    trips_of,
    zero_at_end,
)
from zerodip.recording.samples import Samples
from zerodip.recording.swings import noise_of

__all__ = ["Day", "Endless", "Reading", "read_recording"]

_BLOCK = 2_000_000  # samples read together
_ENDLESS_S = 600.0  # a run without end: common practice, no source
_CHATTER_S = 10.0  # from start to start, under which a switch chatters
_DIP_PA = 7e3  # under cut-in, from which the lowest counts as a dip: about 1 psi
_DAY_S, _HOUR_S = 86400.0, 3600.0
_MOST_DRAWS = 500
_FALLEN = 0.6  # of where a line stood that has no cycle, from which on it counts as fallen
_AT_CUT_IN = 0.25  # of the band, within which a line lies at cut-in
# Two fifths of the band from one sample to the next, in one of a hundred: recorded too slowly.
_LEAP, _COARSE = 0.4, 0.01


@dataclass(frozen=True)
class Day:
    """A day, from midnight by the clock (s, as that clock counts): starts in each hour, and how
    long the pump ran (s)."""

    from_s: float
    starts: tuple[int, ...]
    run_s: float


@dataclass(frozen=True)
class Endless:
    """A run of ten minutes and more: from when (s), for how long at least (s), where the line stood
    at its end (Pa gauge), and whether it ended."""

    at_s: float
    seconds: float
    gauge_pa: float
    ended: bool


@dataclass(frozen=True)
class Reading:
    """What a recording says."""

    quality: Quality
    cycles: Cycles
    cut_in: Figure | None
    cut_out: Figure | None
    run: Figure | None
    rest: Figure | None
    days: tuple[Day, ...]
    busiest: tuple[float, int] | None
    dips: int
    deepest_pa: float
    longest_dip_s: float
    chatter: int
    endless: tuple[Endless, ...]
    trips_s: tuple[float, ...]
    leak: Leak | None
    knee: Knee | None
    pump: Pump | None
    draws: tuple[Drawn, ...]
    flows: Flows
    coarse: bool
    empties: Empties | None = None
    zero_pa: float | None = None
    trend: Trend | None = None


@dataclass
class _Told:
    """What earlier stretches gave."""

    cycles: list[Cycles] = field(default_factory=list)
    falls: list[Falls] = field(default_factory=list)
    minutes: list[Falls] = field(default_factory=list)
    flows: Flows = field(default_factory=Flows)
    endless: list[Endless] = field(default_factory=list)
    trips: list[float] = field(default_factory=list)
    knee: Knee | None = None
    zero: float | None = None
    leaps: int = 0
    pumps: list[Pump] = field(default_factory=list)


def read_recording(blocks: Iterable[Samples], altitude_m: float = 0.0, zone: str = "") -> Reading:
    """Reads a recording.

    Args:
        blocks: Its samples as they stand, a block at a time.
        altitude_m: Altitude of the site, m.
        zone: The zone by whose clock days and hours are told; the recording's own if empty.

    Returns:
        What it says.
    """
    air, quality, told = pressure_abs_pa(altitude_m), Quality(), _Told()
    waiting: list[Samples] = []
    for block in blocks:
        quality.feed(block)
        waiting.append(in_order(block))
        if sum(map(len, waiting)) >= _BLOCK:
            waiting = [_read(_together(waiting), air, told, last=False)]
    if waiting:
        _read(_together(waiting), air, told, last=True)
    return _reading(quality, told, zone, air)


def _together(parts: list[Samples]) -> Samples:
    if len(parts) == 1:
        return parts[0]

    def whole(name: str) -> Floats | None:
        held = [each for part in parts if (each := getattr(part, name)) is not None]
        return np.concatenate(held) if len(held) == len(parts) else None

    time_s = np.concatenate([part.time_s for part in parts])
    gauge_pa = np.concatenate([part.gauge_pa for part in parts])
    return in_order(Samples(time_s, gauge_pa, whole("current_a"), whole("flow_m3_s")))


def _read(samples: Samples, air: float, told: _Told, last: bool) -> Samples:
    """Reads a stretch; what comes after its last stop is given back, to be read with the next."""
    if len(samples) < 3:
        return samples
    cycles = cycles_of(samples, air)
    if last:
        _tell(samples, cycles, air, told)
        return samples.taken(slice(0, 0))
    stops = cycles.stop_s[np.isfinite(cycles.stop_s)]
    until = float(stops[-1]) if len(stops) else float(samples.time_s[len(samples) // 2])
    at = int(np.searchsorted(samples.time_s, until))
    _tell(samples.taken(slice(0, at + 1)), cycles.until(until), air, told)
    return samples.taken(slice(max(at - 1, 0), None))


def _tell(samples: Samples, cycles: Cycles, air: float, told: _Told) -> None:
    noise = max(noise_of(samples.gauge_pa) if len(samples) > 3 else 0.0, 1.0)
    rests = rests_of(samples, cycles)
    told.cycles.append(cycles)
    told.falls.append(falls_of(samples, rests, air, noise))
    long = [rest for rest in rests if rest.end_s - rest.start_s > LONG_REST_S]
    told.minutes.append(minutes_of(samples, long, air, noise))
    if samples.flow_m3_s is not None:
        told.flows += flows_of(samples, minutes_of(samples, rests, air, noise), cycles)
    told.endless += _endless(samples, cycles)
    pump = pump_of(samples, cycles, air, noise) if len(cycles) > 1 else None
    told.pumps += [pump] if pump else []
    starts = np.fmax(cycles.cut_in_pa, cycles.emptied_pa)
    starts = starts[np.isfinite(starts)]
    if len(starts):
        cut_in = float(np.median(starts))
        tops = cycles.cut_out_pa[np.isfinite(cycles.cut_out_pa)]
        band = float(np.median(tops)) - cut_in if len(tops) else 0.0
        steps = np.abs(np.diff(samples.gauge_pa))
        told.leaps += int((steps > _LEAP * band).sum()) if band > 0 else 0
        told.trips += trips_of(samples, rests, cut_in)
        told.knee = told.knee or knee_in(samples, rests, cut_in)
    elif not len(cycles) and (top := float(np.percentile(samples.gauge_pa, 95))) > 0:
        # Nothing tells cut-in: a line that falls to nothing does so from where it stood.
        told.trips += trips_of(samples, rests, _FALLEN * top)
        told.knee = told.knee or knee_in(samples, rests, top)
    told.zero = zero_at_end(samples) if told.knee or told.trips else None


def _endless(samples: Samples, cycles: Cycles) -> list[Endless]:
    times = samples.time_s
    # What was not seen of a run is its beginning before the line, or its end after it; within, a
    # gap hides it, and nothing is said.
    starts, stops = cycles.start_s.copy(), cycles.stop_s.copy()
    if len(starts):
        starts[0] = starts[0] if np.isfinite(starts[0]) else times[0]
        stops[-1] = stops[-1] if np.isfinite(stops[-1]) else times[-1]
    made = []
    for at in np.flatnonzero(stops - starts >= _ENDLESS_S).tolist():
        if np.isfinite(cycles.stop_s[at]) and _rested(samples, cycles, at):
            continue
        place = int(np.clip(np.searchsorted(times, stops[at]) - 2, 0, len(times) - 1))
        made.append(
            Endless(
                float(starts[at]),
                float(stops[at] - starts[at]),
                float(np.median(samples.gauge_pa[max(place - 5, 0) : place + 1])),
                bool(np.isfinite(cycles.stop_s[at])),
            )
        )
    return made


def _rested(samples: Samples, cycles: Cycles, at: int) -> bool:
    """Whether a run that ended lay at cut-in for most of its time: the pump may as well have
    rested, and the line does not tell."""
    low, high = cycles.cut_in_pa[at], cycles.cut_out_pa[at]
    first, last = np.searchsorted(samples.time_s, [cycles.start_s[at], cycles.stop_s[at]])
    usual = float(np.median(samples.gauge_pa[first:last])) if last > first else np.nan
    return bool(usual < low + _AT_CUT_IN * (high - low))


def _reading(quality: Quality, told: _Told, zone: str, air: float) -> Reading:
    cycles = joined([Cycles.none(), *told.cycles])
    leak = leak_of(joined(told.falls)) if told.falls else None
    pump = max(told.pumps, key=lambda each: each.runs, default=None)
    # Under its own start and under the usual one: one level read too high makes no dip.
    usual = np.nanmedian(cycles.cut_in_pa) if np.isfinite(cycles.cut_in_pa).any() else np.nan
    empty = np.isfinite(cycles.emptied_pa)
    over = np.where(empty, cycles.emptied_pa, np.fmin(cycles.cut_in_pa, usual))
    depth = over - cycles.lowest_pa
    spread = np.nanpercentile(cycles.cut_in_pa, [5, 95]) if np.isfinite(usual) else np.zeros(2)
    dips = depth > max(_DIP_PA, float(spread[1] - spread[0]))
    coarse = told.leaps > _COARSE * max(quality.samples, 1)
    dips &= not coarse
    periods = np.diff(cycles.start_s)
    return Reading(
        quality=quality,
        cycles=cycles,
        cut_in=cut_in_of(cycles, quality.step_s),
        cut_out=figure_of(cycles.cut_out_pa, cycles.stop_s, cycles.rise_before, quality.step_s),
        run=figure_of(cycles.run_s),
        rest=figure_of(cycles.rest_s),
        days=_days(cycles, zone),
        busiest=_busiest(cycles.start_s[np.isfinite(cycles.start_s)]),
        dips=int(dips.sum()),
        deepest_pa=float(np.nanmax(depth, initial=0.0)),
        longest_dip_s=float(cycles.below_s[dips].max(initial=0.0)),
        chatter=int((periods < _CHATTER_S).sum()),
        endless=tuple(told.endless),
        trips_s=tuple(told.trips),
        leak=leak,
        knee=_above(told.knee, told.zero),
        pump=pump,
        draws=_draws(told, cycles, leak, pump, air),
        flows=told.flows,
        coarse=bool(coarse),
        empties=empties_of(cycles),
        zero_pa=told.zero,
        trend=trend_of(cycles),
    )


def _above(knee: Knee | None, zero: float | None) -> Knee | None:
    """A knee over what the sensor reads of nothing."""
    return knee and replace(knee, gauge_pa=knee.gauge_pa - (zero or 0.0))


def _draws(
    told: _Told, cycles: Cycles, leak: Leak | None, pump: Pump | None, air: float
) -> tuple[Drawn, ...]:
    """Draws, the largest; none where no run tells the pump's delivery to measure them by."""
    if pump is None:
        return ()
    steady = leak.rate if leak and leak.is_there else 0.0
    found = draws_of(joined(told.minutes), cycles, steady, pump.value, air)
    largest = sorted(found, key=lambda each: -each.by_air)[:_MOST_DRAWS]
    return tuple(sorted(largest, key=lambda each: each.start_s))


def _by_clock(times: Floats, zone: str) -> Floats:
    """Times by the clock of a zone, s."""
    if not zone or not len(times):
        return times
    hours, back = np.unique(np.floor(times / _HOUR_S), return_inverse=True)
    at = ZoneInfo(zone)
    offsets = [datetime.fromtimestamp(h * _HOUR_S, at).utcoffset() for h in hours]
    seconds = np.array([each.total_seconds() if each else 0.0 for each in offsets])
    shifted: Floats = times + seconds[back]
    return shifted


def _days(cycles: Cycles, zone: str) -> tuple[Day, ...]:
    starts = _by_clock(cycles.start_s[np.isfinite(cycles.start_s)], zone)
    if not len(starts):
        return ()
    whole = np.isfinite(cycles.run_s)
    day_of_run = np.floor(_by_clock(cycles.start_s[whole], zone) / _DAY_S)
    first, last = int(starts[0] // _DAY_S), int(starts[-1] // _DAY_S)
    made = []
    for day in range(first, last + 1):
        inside = starts[(starts >= day * _DAY_S) & (starts < (day + 1) * _DAY_S)]
        hours = np.bincount(((inside % _DAY_S) // _HOUR_S).astype(int), minlength=24)
        ran = float(cycles.run_s[whole][day_of_run == day].sum())
        made.append(Day(day * _DAY_S, tuple(int(each) for each in hours), ran))
    return tuple(made)


def _busiest(starts: Floats) -> tuple[float, int] | None:
    """The hour with the most starts: from when (s), and how many."""
    if not len(starts):
        return None
    until = np.searchsorted(starts, starts + _HOUR_S)
    counts = until - np.arange(len(starts))
    at = int(counts.argmax())
    return float(starts[at]), int(counts[at])
