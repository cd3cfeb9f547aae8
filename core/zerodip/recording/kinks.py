"""The moment and the level at which a line breaks, by straight lines fitted to both sides.

The lowest sample of a noisy line is biased, and on a flat one it lies anywhere; where the two
fitted sides cross is neither. Each side is taken as far from the break as it stays straight: the
stretch grows twofold as long as it says the same as before. Worked in the reciprocal of absolute
pressure, in which a steady flow is a straight line by the gas law. Sources: Hudson 1966 (the
crossing is the likeliest break of two joined lines); Lepski 1991 (growing while it agrees), both
from memory."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zerodip.recording.arrays import Floats, Places, joined

__all__ = ["Kinks", "Sides", "kinks_at", "slackened"]

_SIZES = (3, 5, 8, 12, 18, 27, 40, 60, 90, 135, 200)  # samples on one side
_GUARD = 0.75  # samples next to the break that may belong to either side
_AGREES = 3.5  # standard deviations within which a longer stretch says the same
_REACH = (40, 40, 200)  # samples that a side may take, round by round: the place first, then all
_STRAIGHT = 1e-9  # Pa/s: no bend at all
_AT_ONCE = 1024  # kinks fitted together, so that memory stays small

Measure = Callable[[Floats], Floats]


@dataclass(frozen=True)
class Sides:
    """Lines fitted on one side, at the break: value, slope (per second), their standard errors,
    and how many samples were taken."""

    value: Floats
    slope: Floats
    value_error: Floats
    slope_error: Floats
    samples: Places


@dataclass(frozen=True)
class Kinks:
    """Breaks: times (s) with their standard errors, levels, and the lines on both sides."""

    time_s: Floats
    error_s: Floats
    level: Floats
    before: Sides
    after: Sides


def kinks_at(
    time_s: Floats,
    values: Floats,
    measure: Measure,
    noise: float,
    at: Places,
    first: Places,
    last: Places,
    slack_before: float,
    slack_after: float,
) -> Kinks:
    """The breaks near some places of a line.

    Args:
        time_s: Times, s, rising.
        values: The line, as long.
        measure: What makes a straight line of a steady flow.
        noise: Standard deviation of one sample, above 0, as measured.
        at: Places near the breaks.
        first: For each, the first place that may be taken on its left.
        last: For each, the last place that may be taken on its right.
        slack_before: By how much a running pump's delivery falls off in a second before the break,
            of itself, as its pressure rises; 0 where it rests.
        slack_after: The same after the break.

    Returns:
        The breaks, as many as places.
    """
    parts = [
        _kinks(
            time_s,
            values,
            measure,
            noise,
            at[k : k + _AT_ONCE],
            first[k : k + _AT_ONCE],
            last[k : k + _AT_ONCE],
            slack_before,
            slack_after,
        )
        for k in range(0, max(len(at), 1), _AT_ONCE)
    ]
    return _joined(parts)


def _kinks(
    time_s: Floats,
    values: Floats,
    measure: Measure,
    noise: float,
    at: Places,
    first: Places,
    last: Places,
    slack_before: float,
    slack_after: float,
) -> Kinks:
    moment = time_s[at]
    for reach in _REACH:
        step = _step(time_s, moment)
        left = np.searchsorted(time_s, moment - _GUARD * step, "right") - 1
        right = np.searchsorted(time_s, moment + _GUARD * step, "left")
        before = _side(
            time_s,
            values,
            measure,
            noise,
            moment,
            np.clip(left, first, last),
            first,
            -1,
            slack_before,
            reach,
        )
        after = _side(
            time_s,
            values,
            measure,
            noise,
            moment,
            np.clip(right, first, last),
            last,
            1,
            slack_after,
            reach,
        )
        bend = after.slope - before.slope
        ahead = (before.value - after.value) / np.where(np.abs(bend) < _STRAIGHT, np.inf, bend)
        furthest = np.minimum(8 * step, 0.5 * (time_s[last] - time_s[first]))
        ahead = np.clip(ahead, -furthest, furthest)
        level = before.value + before.slope * ahead
        moment = np.clip(moment + ahead, time_s[first], time_s[last])
    error = np.hypot(before.value_error, after.value_error) / np.maximum(np.abs(bend), _STRAIGHT)
    return Kinks(moment, error, level, before, after)


def slackened(time_s: Floats, slack: float) -> Floats:
    """Times in which the water of a slackening pump rises straight.

    Args:
        time_s: Times from a break, s.
        slack: By how much delivery falls off in a second; 0 for not at all.

    Returns:
        As many times, s.
    """
    return -np.expm1(-slack * time_s) / slack if slack else time_s


def _step(time_s: Floats, moment: Floats) -> Floats:
    """How far apart the samples are around some moments."""
    place = np.clip(np.searchsorted(time_s, moment), 2, len(time_s) - 2)
    return np.maximum((time_s[place + 1] - time_s[place - 2]) / 3, 1e-9)


def _side(
    time_s: Floats,
    values: Floats,
    measure: Measure,
    noise: float,
    moment: Floats,
    start: Places,
    end: Places,
    way: int,
    slack: float,
    reach: int,
) -> Sides:
    """The longest straight stretch from `start` on, going `way`, to `end` at most: straight in
    time, or in the time of a slackening pump where it runs."""
    room = np.abs(end - start) + 1
    width = min(int(room.max()), reach)
    places = start[:, None] + way * np.minimum(np.arange(width), room[:, None] - 1)
    x = time_s[places] - moment[:, None]
    x = slackened(x, slack)
    y = measure(values[places])
    sums = [np.cumsum(each, axis=1) for each in (x, y, x * x, x * y)]
    best = _line(sums, np.minimum(_SIZES[0], room), noise)
    growing = np.ones(len(moment), dtype=bool)
    for size in _SIZES[1:]:
        taken = np.minimum(min(size, reach), room)
        made = _line(sums, taken, noise)
        growing &= (taken > best.samples) & _agrees(made, best)
        if not growing.any():
            break
        best = _chosen(growing, made, best)
    return best


def _line(sums: list[Floats], taken: Places, noise: float) -> Sides:
    """Least squares of a line to the first samples of each row, by their running sums."""
    rows = np.arange(len(taken))
    sx, sy, sxx, sxy = (each[rows, taken - 1] for each in sums)
    n = taken.astype(np.float64)
    spread = n * sxx - sx * sx
    alone = spread <= 1e-12 * n * sxx  # one sample tells no slope
    spread = np.where(alone, 1e-200, spread)
    slope = np.where(alone, 0.0, (n * sxy - sx * sy) / spread)
    value_error = noise * np.sqrt(np.where(alone, 1 / n, sxx / spread))
    return Sides((sy - slope * sx) / n, slope, value_error, noise * np.sqrt(n / spread), taken)


def _agrees(made: Sides, before: Sides) -> NDArray[np.bool_]:
    """Whether the longer stretch lies where the shorter one did; what both share cancels, so that
    the difference of their variances is that of the difference."""
    value = np.sqrt(np.abs(before.value_error**2 - made.value_error**2))
    slope = np.sqrt(np.abs(np.minimum(before.slope_error, 1e100) ** 2 - made.slope_error**2))
    near = np.abs(made.value - before.value) <= _AGREES * value + 1e-300
    return near & (np.abs(made.slope - before.slope) <= _AGREES * slope + 1e-300)


def _chosen(which: NDArray[np.bool_], made: Sides, before: Sides) -> Sides:
    return Sides(*(np.where(which, getattr(made, name), getattr(before, name)) for name in _NAMES))


_NAMES = tuple(Sides.__dataclass_fields__)


def _joined(parts: list[Kinks]) -> Kinks:
    def line(name: str) -> Floats:
        return np.concatenate([getattr(p, name) for p in parts])

    return Kinks(
        line("time_s"),
        line("error_s"),
        line("level"),
        joined([p.before for p in parts]),
        joined([p.after for p in parts]),
    )
