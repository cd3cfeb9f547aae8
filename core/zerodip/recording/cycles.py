"""The pump's starts and stops on a line, with the pressures they came at.

From pressure alone: with the pump off the line only falls, so where it turns upwards near its lows
the pump started, and near its highs it stopped; what turns between, with taps open, is neither.
With the pump's current recorded, that tells. A start is where the line turns, the moment the pump
delivers; how much earlier the switch clicked, the line does not tell."""

from dataclasses import dataclass, fields, replace

import numpy as np
from numpy.typing import NDArray

from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.recording.bends import anchors
from zerodip.recording.kinks import Kinks, kinks_at
from zerodip.recording.samples import Floats, Samples
from zerodip.recording.stretches import step_of, stretches
from zerodip.recording.swings import mode, noise_of, swings

__all__ = ["Cycles", "cycles_of", "joined"]

Places = NDArray[np.intp]
_LEAST_PA = 4e3  # swings under this are no cycles: common practice, no source
_NOISES, _SHARE = 12.0, 0.1  # a swing is wider than noise times this, and this share of all
_OF_USUAL = 0.4  # and this share of the usual swing
_AROUND_START = 8  # samples on either side in which the lowest is looked for
_NEAR = 0.2  # share of the differential within which a turn belongs to a set point
_AROUND = 200  # turns that tell a set point together, where it drifts
_RUNS, _LEAST_RUN = 400, 12  # runs that tell how delivery falls off, each so many samples at least
_NEARER = 0.62  # of a run, what is next to the break counts most
_MOVED = 0.25  # share of a run by which a break may lie from where the line bends most
_SHARP, _SHARP_ALONE = 3.5, 7.0  # standard errors by which a break bends; and one without its other
_SPIKE = 6.0  # noise times which a sample stands out of both beside it
_LAG_S = 10.0  # between the click and the pump's delivery, at most
_ON_SHARE = 0.3  # of the way from no current to the running one


@dataclass(frozen=True)
class Cycles:
    """Runs of the pump, one after the other, as arrays of one length: starts and stops (s, NaN
    where the line begins or breaks off within the run) with their standard errors, the pressures
    there (Pa gauge), the lowest around the start (Pa gauge), and the slopes just before and
    after start and stop (Pa/s at that pressure), with the standard errors of the falls."""

    start_s: Floats
    start_error_s: Floats
    stop_s: Floats
    stop_error_s: Floats
    cut_in_pa: Floats
    cut_out_pa: Floats
    lowest_pa: Floats
    fall_before: Floats
    rise_after: Floats
    rise_before: Floats
    fall_after: Floats
    fall_before_error: Floats
    fall_after_error: Floats

    def __len__(self) -> int:
        return len(self.start_s)

    @property
    def run_s(self) -> Floats:
        """How long the pump ran, s; NaN where not seen whole."""
        return self.stop_s - self.start_s

    @property
    def rest_s(self) -> Floats:
        """From a stop to the next start, s; NaN after the last, and where either is not sure."""
        rest = np.append(self.start_s[1:] - self.stop_s[:-1], np.nan)[: len(self)]
        return np.where(rest >= 0, rest, np.nan)

    @classmethod
    def none(cls) -> "Cycles":
        """No cycle."""
        return cls(*(np.zeros(0) for _ in fields(cls)))

    def until(self, time_s: float) -> "Cycles":
        """Those that ended by a time (s)."""
        kept = self.stop_s <= time_s
        return Cycles(*(getattr(self, each.name)[kept] for each in fields(self)))


_NAMES = tuple(each.name for each in fields(Cycles))


def cycles_of(samples: Samples, atmosphere_pa: float | None = None) -> Cycles:
    """The cycles of a line.

    Args:
        samples: Samples in order of time, without missing pressures.
        atmosphere_pa: The air's pressure at the site, Pa; sea level if None.

    Returns:
        The cycles.
    """
    air = pressure_abs_pa(0.0) if atmosphere_pa is None else atmosphere_pa
    parts = [_within(samples.taken(each), air) for each in stretches(samples.time_s)]
    return joined(parts)


def joined(parts: list[Cycles]) -> Cycles:
    """Cycles one after the other.

    Args:
        parts: Cycles of stretches that follow each other.

    Returns:
        All of them.
    """
    if not parts:
        return Cycles.none()
    return Cycles(*(np.concatenate([getattr(part, name) for part in parts]) for name in _NAMES))


def _within(samples: Samples, air: float) -> Cycles:
    """The cycles of a stretch without a gap."""
    gauge = samples.gauge_pa
    noise = max(noise_of(gauge) if len(gauge) > 3 else 0.0, 1.0)
    runs = None if samples.current_a is None else _by_current(samples.current_a)
    if runs is not None:
        return _told(samples, runs, noise, air, clicked=True) if len(runs) else Cycles.none()
    runs = _by_pressure(gauge, noise)
    if not len(runs):
        return Cycles.none()
    bent, sharp = anchors(gauge, runs, noise)
    ends = np.where(sharp >= _SHARP, bent, -1)
    alone = (ends.min(axis=1) < 0) & (sharp.max(axis=1) < _SHARP_ALONE)
    kept = _with_breaks(ends[~alone], runs[~alone])
    return _told(samples, kept, noise, air) if len(kept) else Cycles.none()


def _with_breaks(ends: Places, runs: Places) -> Places:
    """Runs whose ends are breaks: one that does not stop with a break goes on, into the next; one
    that does not start with one began at an unknown time."""
    made: list[tuple[int, int]] = []
    open_start = -1
    for (start, stop), (_, seen) in zip(ends, runs, strict=True):
        start = open_start if open_start >= 0 else int(start)
        open_start = -1
        if stop >= 0:
            made.append((start, int(stop)))
        elif start >= 0 and seen >= 0:
            open_start = start
        elif start >= 0:
            made.append((start, -1))
    if open_start >= 0:
        made.append((open_start, -1))
    return np.array(made, dtype=np.intp).reshape(-1, 2)


def _by_current(current: Floats) -> Places | None:
    """Runs by the pump's current; None where it tells no two states."""
    off, on = np.nanpercentile(current, [2, 98])
    if not on > max(3 * off, 0.2):
        off, on = float(np.nanmin(current)), float(np.nanmax(current))
        if not on > max(3 * off, 0.2):
            return None
    running = np.nan_to_num(current) > off + _ON_SHARE * (on - off)
    ends = np.diff(np.concatenate([[0], running.astype(np.int8), [0]]))
    starts, stops = np.flatnonzero(ends == 1), np.flatnonzero(ends == -1)
    starts = np.where(starts == 0, -1, starts)
    stops = np.where(stops == len(current), -1, stops)
    return np.column_stack([starts, stops])


def _by_pressure(gauge: Floats, noise: float) -> Places:
    none = np.zeros((0, 2), dtype=np.intp)
    if len(gauge) < 8:
        return none
    gauge = _without_spikes(gauge, noise)
    step = max(len(gauge) // 100_000, 1)
    low, high = np.percentile(gauge[::step], [0.5, 99.5])
    least = max(_LEAST_PA, _NOISES * noise, _SHARE * (high - low))
    places, first_high = swings(gauge, least)
    if len(places) < 2:
        return none
    usual = float(np.median(np.abs(np.diff(gauge[places]))))
    if _OF_USUAL * usual > least:
        places, first_high = swings(gauge, _OF_USUAL * usual)
    is_high = (np.arange(len(places)) % 2 == 0) == first_high
    return _paired(gauge, places, is_high, noise)


def _without_spikes(gauge: Floats, noise: float) -> Floats:
    """The line with what stands out for one or two samples replaced by the middle of five; the line
    itself where nothing does."""
    jumps = np.flatnonzero(np.abs(gauge[1:] - gauge[:-1]) > _SPIKE * noise)
    if not len(jumps):
        return gauge
    out = np.unique(np.clip(jumps[:, None] + np.arange(0, 3), 2, len(gauge) - 3))
    made = gauge.copy()
    made[out] = np.median(gauge[out[:, None] + np.arange(-2, 3)], axis=1)
    return made


def _paired(gauge: Floats, places: Places, is_high: NDArray[np.bool_], noise: float) -> Places:
    """Turns to runs: those near the set points alone, a start the first low, a stop the last
    high."""
    levels = gauge[places]
    cut_in, cut_out = _local(levels, ~is_high), _local(levels, is_high)
    near = np.maximum(4 * noise, _NEAR * (cut_out - cut_in))
    ends = (places == 0) | (places == len(gauge) - 1)
    told = np.where(is_high, levels >= cut_out - near, levels <= cut_in + near) & ~ends
    runs: list[tuple[int, int]] = []
    start: int | None = (
        -1 if told.any() and is_high[told][0] and _rises(places, is_high, told) else None
    )
    for place, high in zip(places[told], is_high[told], strict=True):
        if high and start is not None:
            runs.append((start, place))
            start = None
        elif high and runs:
            runs[-1] = (runs[-1][0], place)
        elif not high and start is None:
            start = place
    rose = start is not None and start >= 0 and gauge[start:].max() > gauge[start] + _rise(near)
    if start is not None and rose:
        runs.append((start, -1))
    return np.array(runs, dtype=np.intp).reshape(-1, 2)


def _rise(near: Floats) -> float:
    """What a line rises by at least after a start: the last of a drain is none."""
    return 1.5 * float(near[-1])


def _rises(places: Places, is_high: NDArray[np.bool_], told: NDArray[np.bool_]) -> bool:
    """Whether the line begins within a run: a turn, or its beginning, lies below the first stop."""
    first = int(np.flatnonzero(told)[0])
    return first > 0 and not is_high[first - 1]


def _local(levels: Floats, which: NDArray[np.bool_]) -> Floats:
    """The usual level of the turns of one kind around each turn."""
    known = np.flatnonzero(which)
    made = np.empty(len(levels))
    for first in range(0, len(levels), _AROUND):
        near = known[(known >= first - _AROUND // 2) & (known < first + 3 * _AROUND // 2)]
        made[first : first + _AROUND] = mode(levels[near if len(near) else known])
    return made


def _told(
    samples: Samples, bent: Places, noise: float, air: float, clicked: bool = False
) -> Cycles:
    """Times, levels and slopes of runs, near whose ends the line bends; the moments as they stand
    where the pump's current told them."""
    gauge, time_s = samples.gauge_pa, samples.time_s
    end = len(gauge) - 1
    starts, stops = bent[:, 0], bent[:, 1]
    before = np.concatenate([[0], np.maximum(stops[:-1], 0)])
    after = np.concatenate([np.where(starts[1:] < 0, end, starts[1:]), [end]])
    slack = _slack(time_s, gauge + air, bent)
    start = _kinks(
        time_s, gauge, noise, air, starts, before, np.where(stops < 0, end, stops), slack, False
    )
    stop = _kinks(time_s, gauge, noise, air, stops, np.maximum(starts, 0), after, slack, True)
    if clicked:
        start, stop = _clicked(start, time_s, starts), _clicked(stop, time_s, stops)
    return _cycles(samples, bent, start, stop, noise)


def _clicked(side: "_Side", time_s: Floats, at: Places) -> "_Side":
    """Breaks at the moments the current tells, with what the line before them came to by then."""
    here = np.clip(at, 1, len(time_s) - 1)
    step = time_s[here] - time_s[here - 1]
    moment = np.where(at >= 0, time_s[here] - step / 2, np.nan)
    lag = moment - side.time_s
    level = side.level_pa + np.where(np.abs(lag) < _LAG_S, side.slope_before * lag, 0.0)
    return replace(side, time_s=moment, error_s=step / np.sqrt(12.0), level_pa=level)


def _slack(time_s: Floats, pressure_abs: Floats, runs: Places) -> float:
    """How fast the pump's delivery falls off while it fills, as a share in a second: the same in
    every run whatever taps are open, as delivery falls with pressure and pressure comes with water;
    a share in a second for each Pa² of absolute pressure, since that comes the faster the less air
    is left. By parabolas through the runs; the usual one, since taps that change bend a run either
    way."""
    found = []
    for start, stop in runs[np.linspace(0, len(runs) - 1, min(len(runs), _RUNS), dtype=int)]:
        first, last = start + 2, stop - 1
        if start < 0 or stop < 0 or last - first < _LEAST_RUN:
            continue
        middle = (time_s[first] + time_s[last - 1]) / 2
        x = time_s[first:last] - middle
        c2, c1, _ = np.polyfit(x, -1 / pressure_abs[first:last], 2)
        if c1 > 0:
            level = float(pressure_abs[(first + last) // 2])
            found.append((-2 * c2 / c1 / level**2, float(last - first)))
    if not found:
        return 0.0
    rates, lengths = (np.array(each) for each in zip(*found, strict=True))
    order = rates.argsort()
    weights = np.cumsum((lengths**3)[order])  # what a parabola tells of a bend grows so, and more
    return max(float(rates[order][np.searchsorted(weights, weights[-1] / 2)]), 0.0)


@dataclass(frozen=True)
class _Side:
    """Breaks of one kind, with NaN where there is none; slopes in Pa/s at the break's level."""

    time_s: Floats
    error_s: Floats
    level_pa: Floats
    slope_before: Floats
    slope_after: Floats
    error_before: Floats
    error_after: Floats


def _as_sampled(time_s: Floats, gauge: Floats, at: Places, stops: bool) -> list[Floats]:
    """Breaks as the samples have them: the extreme beside each place, no slopes; NaN where there is
    none."""
    made = [np.full(len(at), np.nan) for _ in range(7)]
    seen = np.flatnonzero(at >= 0)
    near = gauge[np.clip(at[seen, None] + np.arange(-2, 3), 0, len(gauge) - 1)]
    made[0][seen] = time_s[at[seen]]
    made[1][seen] = step_of(time_s)
    made[2][seen] = near.max(axis=1) if stops else near.min(axis=1)
    return made


def _kinks(
    time_s: Floats,
    gauge: Floats,
    noise: float,
    air: float,
    at: Places,
    first: Places,
    last: Places,
    slack: float,
    stops: bool,
) -> _Side:
    made = _as_sampled(time_s, gauge, at, stops)
    known = (at >= 0) & (last - first >= 4)
    if known.any():
        reference = float(np.median(gauge[at[known]])) + air
        inside = float(np.median(gauge[(first if stops else last)[known]])) + air
        level = _NEARER * reference + (1 - _NEARER) * inside
        slackens = slack * level**2
        falls = (slackens, 0.0) if stops else (0.0, slackens)
        # In this measure a steady flow is straight, and near the break it is the pressure itself.
        line = reference - reference**2 / (gauge + air)
        grown = noise * max(reference / level, 1.0) ** 2
        kinks: Kinks = kinks_at(time_s, line, grown, at[known], first[known], last[known], *falls)
        found = reference**2 / (reference - kinks.level)
        scale = (found / reference) ** 2
        rows = (
            kinks.time_s,
            kinks.error_s,
            found - air,
            kinks.before.slope * scale,
            kinks.after.slope * scale,
            kinks.before.slope_error * scale,
            kinks.after.slope_error * scale,
        )
        # What does not lie near the extreme beside it is no level: too few samples for two lines.
        room = max(_NEAR * abs(reference - inside), 6 * noise)
        run_s = np.abs(time_s[(first if stops else last)[known]] - time_s[at[known]])
        moved = np.abs(kinks.time_s - time_s[at[known]])
        near = moved <= np.maximum(_MOVED * run_s, 2 * step_of(time_s))
        good = np.flatnonzero(known)[near & (np.abs(found - air - made[2][known]) <= room)]
        which = np.isin(np.flatnonzero(known), good)
        for column, row in zip(made, rows, strict=True):
            column[good] = row[which]
    return _Side(*made)


def _cycles(samples: Samples, bent: Places, start: _Side, stop: _Side, noise: float) -> Cycles:
    return Cycles(
        start_s=start.time_s,
        start_error_s=start.error_s,
        stop_s=stop.time_s,
        stop_error_s=stop.error_s,
        cut_in_pa=start.level_pa,
        cut_out_pa=stop.level_pa,
        lowest_pa=_lowest(samples.gauge_pa, bent[:, 0], start.level_pa, noise),
        fall_before=start.slope_before,
        rise_after=start.slope_after,
        rise_before=stop.slope_before,
        fall_after=stop.slope_after,
        fall_before_error=start.error_before,
        fall_after_error=stop.error_after,
    )


def _lowest(gauge: Floats, starts: Places, level: Floats, noise: float) -> Floats:
    """The lowest around each start, of the middle of three samples; the level itself where what
    lies under it is noise."""
    around = np.arange(-_AROUND_START, _AROUND_START)
    near = gauge[np.clip(starts[:, None] + around, 0, len(gauge) - 1)]
    before, here, after = near[:, :-2], near[:, 1:-1], near[:, 2:]
    least, most = np.minimum(before, here), np.maximum(before, here)
    low = np.maximum(least, np.minimum(most, after)).min(axis=1)
    return np.where((starts >= 0) & (low < level - 4 * noise), low, level)
