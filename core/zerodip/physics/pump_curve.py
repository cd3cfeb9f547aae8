"""A smooth falling curve through a pump's published points."""

import itertools
from bisect import bisect_right
from collections.abc import Sequence

__all__ = ["head_m", "slopes"]


def slopes(flows: Sequence[float], heads: Sequence[float]) -> list[float]:
    """Slopes (m per m³/s) at each point such that the cubic between points never turns upward.
    Needs two or more points with rising flows.

    Args:
        flows: Flows of the points, m³/s, rising, two or more.
        heads: Heads of the points, m, as many as flows.

    Returns:
        Slopes, m per m³/s, never above 0 where heads fall.

    Source: Fritsch and Butland, SIAM J. Sci. Stat. Comput. 5 (1984), the same scheme as scipy's
        PchipInterpolator.
    """
    widths = [b - a for a, b in itertools.pairwise(flows)]
    rises = [(b - a) / h for a, b, h in zip(heads, heads[1:], widths, strict=False)]
    if len(rises) == 1:
        return [rises[0], rises[0]]
    inner = [_mean(widths[k - 1], widths[k], rises[k - 1], rises[k]) for k in range(1, len(rises))]
    first = _end(widths[0], widths[1], rises[0], rises[1])
    return [first, *inner, _end(widths[-1], widths[-2], rises[-1], rises[-2])]


def _mean(before: float, after: float, rise_before: float, rise_after: float) -> float:
    if rise_before * rise_after <= 0:
        return 0.0
    a, b = 2 * after + before, after + 2 * before
    return (a + b) / (a / rise_before + b / rise_after)


def _end(near: float, far: float, rise: float, next_rise: float) -> float:
    slope = ((2 * near + far) * rise - near * next_rise) / (near + far)
    if slope * rise <= 0:
        return 0.0
    return 3 * rise if rise * next_rise < 0 and abs(slope) > 3 * abs(rise) else slope


def head_m(
    flow: float, flows: Sequence[float], heads: Sequence[float], at_points: Sequence[float]
) -> float:
    """Head (m) at `flow` (m³/s) on the cubic through the points, with their `slopes`. Outside them
    the ends hold.

    Args:
        flow: Flow, m³/s.
        flows: Flows of the points, m³/s, rising, two or more.
        heads: Heads of the points, m, as many as flows.
        at_points: Slopes at the points, m per m³/s, as many as there are points.

    Returns:
        Head, m.

    Source: Cubic Hermite interpolation.
    """
    if flow >= flows[-1]:
        return heads[-1]
    k = max(bisect_right(flows, flow) - 1, 0)
    width = flows[k + 1] - flows[k]
    t = (flow - flows[k]) / width
    rest = (heads[k + 1] - heads[k]) / width
    a, b = at_points[k] - rest, at_points[k + 1] - rest
    return heads[k] * (1 - t) + heads[k + 1] * t + width * t * (1 - t) * (a * (1 - t) - b * t)
