"""The pump's runs on a line, to the nearest samples: by its current where that is recorded, by
pressure alone else."""

import numpy as np
from numpy.typing import NDArray

from zerodip.recording.arrays import Floats, Places
from zerodip.recording.bends import anchors
from zerodip.recording.samples import Samples
from zerodip.recording.swings import mode, pruned, turns_at

__all__ = ["runs_of"]

_LEAST_PA = 4e3  # swings under this are no cycles: common practice, no source
_NOISES, _SHARE = 12.0, 0.1  # a swing is wider than noise times this, and this share of all
_OF_USUAL = 0.4  # and this share of the usual swing
_AROUND = 200  # turns that tell a set point together, where it drifts
_SHARP, _SHARP_ALONE = 3.5, 7.0  # standard errors by which a break bends; and one without its other
_RISE_WITHIN = 200  # samples in which a pump that is not seen to stop raises the line
_AT_COLLAPSE = np.arange(-4, 5)
_BESIDE = np.arange(-2, 3)
_ON_SHARE = 0.3  # of the way from no current to the running one
_NEAR = 0.2  # share of the differential within which a turn belongs to a set point


def runs_of(samples: Samples, raw: Floats, noise: float) -> tuple[Places, bool]:
    """The runs of a stretch without a gap.

    Args:
        samples: Its samples, without what stands out briefly.
        raw: Their pressures with it, Pa gauge.
        noise: Standard deviation of one sample, Pa.

    Returns:
        Places near the start and the stop of each run, two columns, −1 where it was not seen; and
        whether the pump's current told them.
    """
    told = None if samples.current_a is None else _by_current(samples.current_a)
    if told is not None:
        return told, True
    runs = _by_pressure(samples.gauge_pa, raw, noise)
    if not len(runs):
        return runs, False
    bent, sharp = anchors(samples.gauge_pa, runs, noise)
    sharp[:, 0] = np.maximum(sharp[:, 0], _by_collapse(samples.gauge_pa, raw, bent[:, 0], noise))
    ends = np.where(sharp >= _SHARP, bent, -1)
    alone = (ends.min(axis=1) < 0) & (sharp.max(axis=1) < _SHARP_ALONE)
    made = _with_breaks(ends[~alone], runs[~alone])
    gauge = samples.gauge_pa
    kept = [stop >= 0 or start < 0 or _rises_from(gauge, start, noise) for start, stop in made]
    return made[np.array(kept, dtype=np.bool_)], False


def _by_collapse(gauge: Floats, raw: Floats, starts: Places, noise: float) -> Floats:
    """How sharp a start is where the gauge collapses beside it: as sharp as can be; 0 elsewhere."""
    near = np.clip(starts[:, None] + _AT_COLLAPSE, 0, len(raw) - 1)
    deep = gauge[near[:, len(_AT_COLLAPSE) // 2]] - np.sort(raw[near], axis=1)[:, 1]
    collapsed = (starts >= 0) & (deep > max(_NOISES * noise, _LEAST_PA))
    return np.where(collapsed, _SHARP_ALONE, 0.0)


def _rises_from(gauge: Floats, start: int, noise: float) -> bool:
    """Whether the line rises by itself from a place on: where a tap is shut it bends as sharply,
    and what warms slowly then brings it up again."""
    part = gauge[start:][:_RISE_WITHIN]
    steps = np.arange(len(part)) - (len(part) - 1) / 2
    spread = float(steps @ steps) or np.inf
    return bool(float(steps @ part) / spread > _SHARP * noise / np.sqrt(spread))


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


def _by_pressure(gauge: Floats, raw: Floats, noise: float) -> Places:
    none = np.zeros((0, 2), dtype=np.intp)
    if len(gauge) < 8:
        return none
    step = max(len(gauge) // 100_000, 1)
    low, high = np.percentile(gauge[::step], [0.5, 99.5])
    least = max(_LEAST_PA, _NOISES * noise, _SHARE * (high - low))
    places = turns_at(gauge, least)
    if len(places) < 2:
        return none
    usual = float(np.median(np.abs(np.diff(gauge[places]))))
    places = places[pruned(gauge[places], max(least, _OF_USUAL * usual))]
    first_high = bool(len(places) > 1 and gauge[places[0]] > gauge[places[1]])
    is_high = (np.arange(len(places)) % 2 == 0) == first_high
    return _paired(gauge, raw, places, is_high, noise)


def _paired(
    gauge: Floats, raw: Floats, places: Places, is_high: NDArray[np.bool_], noise: float
) -> Places:
    """Turns to runs: those near the set points alone, a start the first low, a stop the last
    high."""
    levels = gauge[places]
    ends = (places == 0) | (places == len(gauge) - 1)
    # A line may begin and end anywhere, drained for example: those turns tell no set point.
    inner = np.zeros(len(places), dtype=np.bool_)
    inner[1:-1] = True
    cut_in, cut_out = (
        _local(levels, which & inner if (which & inner).any() else which)
        for which in (~is_high, is_high)
    )
    near = np.maximum(4 * noise, _NEAR * (cut_out - cut_in))
    # A sharp turn at cut-in may be taken for a collapse and filled: as it was sampled it is there.
    lowest = raw[np.clip(places[:, None] + _BESIDE, 0, len(raw) - 1)].min(axis=1)
    told = np.where(is_high, levels >= cut_out - near, lowest <= cut_in + near) & ~ends
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
