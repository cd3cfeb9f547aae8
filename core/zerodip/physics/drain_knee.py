"""The knee of a drain: while a tank is drained with the pump off the gauge falls slowly, then
collapses. The pressure at the knee is the pre-charge, seen without a tyre gauge."""

from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["Knee", "knee"]

_LEAST = 4


@dataclass(frozen=True)
class Knee:
    """Where the fall breaks: time (s), gauge pressure (Pa), and how many times faster it falls
    after it."""

    at_s: float
    gauge_pa: float
    steeper: float


def knee(times_s: Sequence[float], gauges_pa: Sequence[float]) -> Knee | None:
    """The knee of a falling series (s rising; Pa gauge, as many), or None where nothing breaks: the
    lines fitted to both sides of each possible break, the best pair taken, and their crossing
    given, since the lowest sample by itself is biased. The left side is a parabola (a tank's fall
    bends), the right a line through the collapse. Needs eight samples or more, four at least on the
    slow side; two do on the steep one.

    Args:
        times_s: Times, s, rising, eight or more.
        gauges_pa: Gauge pressures, Pa, as many as times.

    Returns:
        The knee; None where nothing breaks.

    Source: Least squares; the knee is common practice.
    """
    count = len(times_s)
    if count < 2 * _LEAST:
        return None
    best: tuple[float, Knee] | None = None
    for split in range(_LEAST, count - 1):
        found = _split(times_s, gauges_pa, split)
        if found and (best is None or found[0] < best[0]):
            best = found
    return best[1] if best and best[1].steeper >= 2.5 else None


def _split(
    times: Sequence[float], gauges: Sequence[float], split: int
) -> tuple[float, Knee] | None:
    bottom = _bottom(gauges, split)
    left_t, left_p = times[:split], gauges[:split]
    right_t, right_p = times[split:bottom], gauges[split:bottom]
    if len(right_t) < 2 or right_t[-1] <= right_t[0]:
        return None
    curve = _fit(left_t, left_p, 2 if split >= 2 * _LEAST else 1)
    line = _fit(right_t, right_p, 1)
    at = _crossing(curve, line, times[split - 1], times[split])
    slow, fast = _slope(curve, at), line[1]
    if fast >= 0:
        return None
    steeper = fast / min(slow, fast / 100)
    error = _error(curve, left_t, left_p) + _error(line, right_t, right_p)
    rest = gauges[bottom:]
    error += sum((p - gauges[bottom - 1]) ** 2 for p in rest)
    return error, Knee(at, _value(curve, at), steeper)


def _bottom(gauges: Sequence[float], split: int) -> int:
    """The end of the steep part: where the gauge has lain down at its lowest."""
    lowest = min(gauges[split:])
    floor = lowest + 0.12 * max(gauges[split - 1] - lowest, 1.0)
    return next((at + 1 for at in range(split, len(gauges)) if gauges[at] <= floor), len(gauges))


def _fit(
    times: Sequence[float], values: Sequence[float], degree: int
) -> tuple[float, float, float, float]:
    """Least squares around the middle of the times: (a, b, c, middle) of a + b·x + c·x²."""
    middle = sum(times) / len(times)
    xs = [t - middle for t in times]
    powers = [sum(x**k for x in xs) for k in range(5)]
    right = [sum(v * x**k for x, v in zip(xs, values, strict=True)) for k in range(3)]
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
    return sum((_value(curve, t) - v) ** 2 for t, v in zip(times, values, strict=True))
