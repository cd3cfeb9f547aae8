"""The knee of a drain: while a tank is drained with the pump off the gauge falls slowly, then
collapses. The pressure at the knee is the pre-charge, seen without a tyre gauge."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["Knee", "knee"]

_LEAST, _FEWEST = 3, 6  # readings before the knee, and in all
_BENT = 8  # so many readings tell that the fall bends
_STEEPER = 2.5  # times that the fall must be steeper below the knee
_CLEAR = 0.3  # share of the steepest fall that is part of the collapse
_FLAT = 0.1  # share of the whole fall within which the gauge has lain down


@dataclass(frozen=True)
class Knee:
    """Where the fall breaks: time (s), gauge pressure (Pa), and how many times faster it falls
    after it."""

    at_s: float
    gauge_pa: float
    steeper: float


def knee(times_s: Sequence[float], gauges_pa: Sequence[float]) -> Knee | None:
    """The knee of a falling series (s rising; Pa gauge, as many), or None where nothing breaks: the
    curves fitted to both sides of each possible break, the best pair taken, and their crossing
    given, since the lowest sample by itself is biased. The left side is a parabola (a tank's fall
    bends), or a line where there are few readings; the right a line through the collapse. What
    comes after the collapse, however long, is left out. Needs three readings before the knee and
    one after it, six in all.

    Args:
        times_s: Times, s, rising, six or more.
        gauges_pa: Gauge pressures, Pa, as many as times.

    Returns:
        The knee; None where nothing breaks.

    Source: Least squares; the knee is common practice.
    """
    if len(times_s) < _FEWEST:
        return None
    end = _lain_down(gauges_pa)
    times, gauges = times_s[:end], gauges_pa[:end]
    breaks = range(_LEAST, end) if end >= _BENT else _steepest(times, gauges)
    found = [each for at in breaks if (each := _split(times, gauges, at))]
    best = min(found, key=lambda each: each[0], default=None)
    return best[1] if best and best[1].steeper >= _STEEPER else None


def _lain_down(gauges: Sequence[float]) -> int:
    """How many readings there are until the gauge has lain down: from its lowest on, nothing is
    told any more."""
    lowest, highest = min(gauges), max(gauges)
    floor = lowest + _FLAT * (highest - lowest)
    return next(at + 1 for at, gauge in enumerate(gauges) if gauge <= floor)


def _steepest(times: Sequence[float], gauges: Sequence[float]) -> list[int]:
    """Where few readings break: at the steepest fall, if three come before it."""
    falls = [
        (gauges[at - 1] - gauges[at]) / (times[at] - times[at - 1]) for at in range(1, len(times))
    ]
    if max(falls, default=0.0) <= 0:
        return []
    at = next(k for k, fall in enumerate(falls, 1) if fall >= _CLEAR * max(falls))
    return [at] if at >= _LEAST else []


def _split(
    times: Sequence[float], gauges: Sequence[float], split: int
) -> tuple[float, Knee] | None:
    # Few readings of a fall that bends: the last ones tell where it is heading.
    first = 0 if split >= _BENT else split - _LEAST
    left_t, left_p = times[first:split], gauges[first:split]
    # One reading after the break makes a line with the last before it.
    after = split if len(times) - split > 1 else split - 1
    right_t, right_p = times[after:], gauges[after:]
    curve = _fit(left_t, left_p, 2 if split >= _BENT else 1)
    line = _fit(right_t, right_p, 1)
    at = _crossing(curve, line, times[split - 1], times[split])
    slow, fast = _slope(curve, at), line[1]
    if fast >= 0:
        return None
    steeper = fast / min(slow, fast / 100)
    error = _error(curve, times[:split], gauges[:split]) + _error(line, right_t, right_p)
    return error, Knee(at, _value(curve, at), steeper)


def _fit(
    times: Sequence[float], values: Sequence[float], degree: int
) -> tuple[float, float, float, float]:
    """Least squares around the middle of the times: (a, b, c, middle) of a + b·x + c·x²."""
    middle = math.fsum(times) / len(times)
    xs = [t - middle for t in times]
    powers = [math.fsum(x**k for x in xs) for k in range(5)]
    right = [math.fsum(v * x**k for x, v in zip(xs, values, strict=True)) for k in range(3)]
    if degree == 1 or len(times) < 3:
        return right[0] / powers[0], right[1] / powers[2] if powers[2] else 0.0, 0.0, middle
    n, s2, s3, s4 = powers[0], powers[2], powers[3], powers[4]
    whole = n * (s2 * s4 - s3 * s3) - s2 * s2 * s2
    if abs(whole) < 1e-12 * max(n * s2 * s4, 1e-30):
        return right[0] / n, right[1] / s2, 0.0, middle
    a = (right[0] * (s2 * s4 - s3 * s3) + right[1] * s2 * s3 - right[2] * s2 * s2) / whole
    c = (n * (s2 * right[2] - s3 * right[1]) - s2 * s2 * right[0]) / whole
    return a, (right[1] - c * s3) / s2, c, middle


def _value(curve: tuple[float, float, float, float], t: float) -> float:
    x = t - curve[3]
    return curve[0] + curve[1] * x + curve[2] * x * x


def _slope(curve: tuple[float, float, float, float], t: float) -> float:
    return curve[1] + 2 * curve[2] * (t - curve[3])


def _crossing(
    curve: tuple[float, float, float, float],
    line: tuple[float, float, float, float],
    low: float,
    high: float,
) -> float:
    """Where both meet, kept between the samples on both sides of the break (with a little room)."""
    room = 0.5 * (high - low)
    low, high = low - room, high + room
    ahead = _value(curve, low) - _value(line, low)
    for _ in range(40):
        middle = (low + high) / 2
        gap = _value(curve, middle) - _value(line, middle)
        low, high = (middle, high) if gap * ahead > 0 else (low, middle)
    return (low + high) / 2


def _error(
    curve: tuple[float, float, float, float], times: Sequence[float], values: Sequence[float]
) -> float:
    return math.fsum((_value(curve, t) - v) ** 2 for t, v in zip(times, values, strict=True))
