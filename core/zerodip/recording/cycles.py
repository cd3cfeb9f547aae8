"""The pump's starts and stops on a line, with the pressures they came at.

From pressure alone: with the pump off the line only falls, so where it turns upwards near its lows
the pump started, and near its highs it stopped; what turns between, with taps open, is neither.
With the pump's current recorded, that tells. A start is where the line turns, the moment the pump
delivers; how much earlier the switch clicked, the line does not tell."""

from dataclasses import dataclass, fields, replace

import numpy as np
from numpy.typing import NDArray

from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.recording.arrays import Floats, Places, joined, middles, taken
from zerodip.recording.brief import without_brief
from zerodip.recording.emptied import emptied_at
from zerodip.recording.kinks import Kinks, kinks_at
from zerodip.recording.runs import runs_of
from zerodip.recording.samples import Samples
from zerodip.recording.stalled import stalled_at
from zerodip.recording.stretches import step_of, stretches
from zerodip.recording.swings import noise_of
from zerodip.recording.taps import with_taps

__all__ = ["Cycles", "cycles_of", "draws_beside"]

_AROUND_START = 8  # samples on either side in which the lowest is looked for
_NEAR = 0.2  # share of the differential within which a break lies from the extreme beside it
_RUNS, _LEAST_RUN = 400, 5  # runs that tell how delivery falls off, each so many samples at least
_LONGEST = 2.0  # usual lengths
_NEARER = 0.62  # of a run, what is next to the break counts most
_MOVED = 0.25  # share of a run by which a break may lie from where the line bends most
_SHORT, _SHARE_SHORT = 4, 6  # samples, and one in so many, left out before the next break
_SLOW = 10  # samples of the fall before a start, by which a collapse is told
_BEFORE_DIP = np.arange(-_SLOW - 4, 6)
_LAG_S = 10.0  # between the click and the pump's delivery, at most


@dataclass(frozen=True)
class Cycles:
    """Runs of the pump, one after the other, as arrays of one length: starts and stops (s, NaN
    where the line begins or breaks off within the run) with their standard errors, the pressures
    there (Pa gauge), the lowest around the start (Pa gauge) and how long it lay
    under cut-in there (s), the slopes just before and
    after start and stop (Pa/s at that pressure), with the standard errors of the falls, and from
    where the gauge collapsed where the tank was empty before a start (Pa gauge, NaN where it was
    not): cut-in is not seen there."""

    start_s: Floats
    start_error_s: Floats
    stop_s: Floats
    stop_error_s: Floats
    cut_in_pa: Floats
    cut_out_pa: Floats
    lowest_pa: Floats
    below_s: Floats
    fall_before: Floats
    rise_after: Floats
    rise_before: Floats
    fall_after: Floats
    fall_before_error: Floats
    fall_after_error: Floats
    emptied_pa: Floats

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
        return taken(self, self.stop_s <= time_s)


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
    return joined([Cycles.none(), *parts])


def draws_beside(cycles: Cycles, air_pa: float) -> tuple[Floats, Floats, Floats, Floats]:
    """What is drawn before the start and after the stop of each run, divided by the air's V·c, by
    the falls there.

    Args:
        cycles: The cycles.
        air_pa: The air's pressure at the site, Pa.

    Returns:
        Before and after, 1/(Pa·s), and the standard errors of both.
    """
    low, high = (cycles.cut_in_pa + air_pa) ** 2, (cycles.cut_out_pa + air_pa) ** 2
    return (
        -cycles.fall_before / low,
        -cycles.fall_after / high,
        cycles.fall_before_error / low,
        cycles.fall_after_error / high,
    )


def _within(samples: Samples, air: float) -> Cycles:
    """The cycles of a stretch without a gap."""
    gauge = samples.gauge_pa
    noise = max(noise_of(gauge) if len(gauge) > 3 else 0.0, 1.0)
    smooth, runs, clicked = _runs(samples, noise)
    if not len(runs):
        return Cycles.none()
    start, stop = _ends(smooth, runs, noise, air, clicked)
    if not clicked:
        following = np.append(start.time_s[1:], samples.time_s[-1])
        stop = _without(stop, stalled_at(smooth, start.time_s, stop.time_s, following, noise))
    lowest, below = _lowest(gauge, runs[:, 0], start.level_pa, noise)
    rests = np.concatenate([[np.nan], start.time_s[1:] - stop.time_s[:-1]])
    empty = emptied_at(samples, start.time_s, rests, stop.time_s - start.time_s, noise)
    was = np.isfinite(empty.from_pa)
    return Cycles(
        start_s=start.time_s,
        start_error_s=start.error_s,
        stop_s=stop.time_s,
        stop_error_s=stop.error_s,
        cut_in_pa=np.where(was, np.nan, start.level_pa),
        cut_out_pa=stop.level_pa,
        lowest_pa=np.where(was, empty.lowest_pa, lowest),
        below_s=np.where(was, empty.below_s, below * step_of(samples.time_s)),
        fall_before=np.where(was, np.nan, start.slope_before),
        rise_after=np.where(was, np.nan, start.slope_after),
        rise_before=stop.slope_before,
        fall_after=stop.slope_after,
        fall_before_error=start.error_before,
        fall_after_error=stop.error_after,
        emptied_pa=empty.from_pa,
    )


def _runs(samples: Samples, noise: float) -> tuple[Samples, Places, bool]:
    """The line without what stands out briefly, its runs, and whether the current told them. From
    where the line usually rises is known only with its runs: then what goes no deeper stays in."""
    gauge = samples.gauge_pa
    smooth = replace(samples, gauge_pa=without_brief(gauge, noise))
    runs, clicked = runs_of(smooth, gauge, noise)
    starts = runs[runs[:, 0] >= 0, 0]
    if smooth.gauge_pa is gauge or not len(starts):
        return smooth, runs, clicked
    known = without_brief(gauge, noise, float(np.median(smooth.gauge_pa[starts])))
    if np.array_equal(known, smooth.gauge_pa):
        return smooth, runs, clicked
    smooth = replace(samples, gauge_pa=known)
    return smooth, *runs_of(smooth, gauge, noise)


def _ends(
    samples: Samples, bent: Places, noise: float, air: float, clicked: bool
) -> "tuple[_Side, _Side]":
    """Times, levels and slopes at the starts and at the stops of runs, near whose ends the line
    bends; the moments as they stand where the pump's current told them."""
    gauge, time_s = samples.gauge_pa, samples.time_s
    end = len(gauge) - 1
    starts, stops = bent[:, 0], bent[:, 1]
    before = np.concatenate([[0], np.maximum(stops[:-1], 0)])
    after = np.concatenate([np.where(starts[1:] < 0, end, starts[1:]), [end]])
    slack = _slack(time_s, gauge + air, bent)
    until, since = _short_of(starts, np.where(stops < 0, end, stops)), _short_of(stops, starts)
    start = _kinks(
        time_s, gauge, noise, air, starts, _short_of(starts, before), until, slack, False
    )
    start = _before_collapse(gauge, starts, start, noise)
    stop = _kinks(time_s, gauge, noise, air, stops, since, _short_of(stops, after), slack, True)
    if clicked:
        start, stop = _clicked(start, time_s, starts), _clicked(stop, time_s, stops)
    return start, stop


def _short_of(at: Places, other: Places) -> Places:
    """The place up to which a side of a break is straight: a little short of the next break, whose
    own place is not known to the sample; what lies beyond it would make every slope too gentle."""
    there = np.maximum(other, 0)
    margin = np.minimum(np.abs(there - at) // _SHARE_SHORT, _SHORT)
    short: Places = there + np.sign(at - there) * margin
    return short


def _before_collapse(gauge: Floats, at: Places, start: "_Side", noise: float) -> "_Side":
    """Starts at which the gauge collapses: what the slow fall came to by then is the level, not the
    bottom of the dip. Where the air is over cut-in that is the last that a line shows of it."""
    near = gauge[np.clip(at[:, None] + _BEFORE_DIP, 0, len(gauge) - 1)]
    slow, rest = near[:, :_SLOW], near[:, _SLOW:]
    half = _SLOW // 2
    fall = (slow[:, :half].mean(axis=1) - slow[:, half:].mean(axis=1)) / half
    expected = np.median(slow, axis=1) - np.maximum(fall, 0.0) * _SLOW
    depth = expected - rest.min(axis=1)
    wide = np.nanmedian(gauge[np.maximum(at, 0)]) if len(at) else 0.0
    band = float(np.percentile(gauge[:: max(len(gauge) // 10_000, 1)], 90)) - float(wide)
    # So sharp is no draw: hardly a sample lies between the slow fall and the bottom.
    between = (
        (rest < (expected - 0.25 * depth)[:, None]) & (rest > (expected - 0.75 * depth)[:, None])
    ).sum(axis=1)
    dips = (at >= _SLOW) & (depth > max(10 * noise, 0.25 * band)) & (between <= 2)
    # What goes no deeper than the line usually turns at is the turn itself.
    known = start.level_pa[np.isfinite(start.level_pa)]
    usual = float(np.median(known)) if len(known) else np.inf
    dips &= rest.min(axis=1) < usual - 6 * noise
    unknown = np.where(dips, np.nan, 1.0)
    return replace(
        start,
        level_pa=np.where(dips, expected, start.level_pa),
        slope_before=start.slope_before * unknown,
        slope_after=start.slope_after * unknown,
    )


def _without(side: "_Side", which: NDArray[np.bool_]) -> "_Side":
    """The breaks but for some, which are not seen then."""
    parts = (getattr(side, each.name) for each in fields(side))
    return _Side(*(np.where(which, np.nan, part) for part in parts))


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
    # What a parabola tells of a bend grows so, and more; far longer ones had a tap shut in them.
    lengths = np.minimum(lengths, _LONGEST * np.median(lengths))
    weights = np.cumsum((lengths**3)[order])
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
        def measure(pressure: Floats) -> Floats:
            return reference - reference**2 / (pressure + air)

        grown = noise * max(reference / level, 1.0) ** 2
        kinks: Kinks = kinks_at(
            time_s, gauge, measure, grown, at[known], first[known], last[known], *falls
        )
        limits = (first[known], last[known])
        kinks = with_taps(time_s, gauge, measure, grown, kinks, limits, falls)
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


def _lowest(gauge: Floats, starts: Places, level: Floats, noise: float) -> tuple[Floats, Floats]:
    """The lowest around each start, of the middle of three samples, the level itself where what
    lies under it is noise; and how many samples lie under it."""
    around = np.arange(-_AROUND_START, _AROUND_START)
    middle = middles(gauge[np.clip(starts[:, None] + around, 0, len(gauge) - 1)])
    under = middle < (level - 4 * noise)[:, None]
    dips = (starts >= 0) & under.any(axis=1)
    return np.where(dips, middle.min(axis=1), level), np.where(dips, under.sum(axis=1), 0.0)
