"""How long the pump takes to fill the tank, by the closed form between the points of one table.

Between two entries the flow is taken as straight in the water held, q = q₀ + b·w, so that time is
an exact logarithm: no small time steps anywhere. The same table serves fill times, the rate of
starts and the event simulation.
"""

import itertools
import math
from bisect import bisect_right
from dataclasses import dataclass
from functools import cached_property

from zerodip.physics.bladder_tank import Bank, water_m3
from zerodip.physics.pump_delivery import HALVES, Delivery, flow_m3_s

__all__ = [
    "FillLine",
    "fill_line",
    "fill_seconds",
    "fill_time_derivatives",
    "flow_at",
    "log_mean",
    "piece_of",
    "pieces",
    "pieces_seconds",
    "water_after",
]

STALLED = float("inf")
PIECES = 20
Piece = tuple[float, float, float]


@dataclass(frozen=True)
class FillLine:
    """Rising gauge pressures (Pa), the water held at them (m³, rising) and what the pump delivers
    there (m³/s)."""

    gauges_pa: tuple[float, ...]
    waters_m3: tuple[float, ...]
    flows_m3_s: tuple[float, ...]

    @cached_property
    def wholes(self) -> list[Piece]:
        """Every piece whole: width (m³), flow at its start and at its end (m³/s)."""
        stops = list(zip(self.waters_m3, self.flows_m3_s, strict=True))
        return [(b[0] - a[0], a[1], b[1]) for a, b in itertools.pairwise(stops)]


def fill_line(
    bank: Bank, line: Delivery, atmosphere_pa: float, cut_in: float, cut_out: float
) -> FillLine:
    """The table from an empty tank, through `cut_in`, to `cut_out` (gauge Pa). Entries lie at every
    pressure where a tank begins or ends to take water, and close enough between them that times are
    right within 0.05 %.

    Args:
        bank: The tanks, in absolute pressures.
        line: What the pump delivers.
        atmosphere_pa: Atmospheric pressure at the site, Pa abs, above 0.
        cut_in: Cut-in, Pa gauge.
        cut_out: Cut-out, Pa gauge, above cut-in.

    Returns:
        The fill table.

    Source: The gas law.
    """
    bottom = min(bank.breakpoints_abs_pa[0] - atmosphere_pa, cut_in)
    breakpoints = {p - atmosphere_pa for p in bank.breakpoints_abs_pa}
    stand = {line.dead_head_gauge_pa} if line.dead_head_gauge_pa is not None else set()
    ends = sorted(
        {bottom, cut_in, cut_out, *(p for p in breakpoints | stand if bottom < p < cut_out)}
    )
    gauges = [
        g for low, high in itertools.pairwise(ends) for g in _spread(low, high, cut_out - bottom)
    ]
    # Closer together towards cut-out: near the top of a curve the flow falls ever faster.
    nearer = [cut_out - (cut_out - gauges[-1]) * share for share in HALVES]
    gauges = _thinned([*gauges, *nearer, cut_out], bank, atmosphere_pa)
    waters = [water_m3(bank, g + atmosphere_pa) for g in gauges]
    return FillLine(tuple(gauges), tuple(waters), tuple(flow_m3_s(line, g) for g in gauges))


def _spread(low: float, high: float, whole: float) -> list[float]:
    count = max(2, math.ceil(PIECES * (high - low) / whole))
    return [low + (high - low) * k / count for k in range(count)]


def _thinned(gauges: list[float], bank: Bank, atmosphere_pa: float) -> list[float]:
    """Without the stretch below every pre-charge, where the tank holds nothing."""
    empty = bank.breakpoints_abs_pa[0] - atmosphere_pa
    held = [g for g in gauges if g >= empty]
    return held if len(held) > 1 else [gauges[-1], gauges[-1]]


def flow_at(line: FillLine, at: int, water: float) -> float:
    """What the pump delivers (m³/s) with `water` m³ held, inside piece `at`; in a piece without
    width, at its upper end.

    Args:
        line: The fill table.
        at: Index of the piece, from 0.
        water: Water held, m³, 0 or more.

    Returns:
        Flow, m³/s.

    Source: Straight line between entries (numerical).
    """
    w0, w1 = line.waters_m3[at], line.waters_m3[at + 1]
    q0, q1 = line.flows_m3_s[at], line.flows_m3_s[at + 1]
    return q1 if w1 <= w0 else q0 + (q1 - q0) * (water - w0) / (w1 - w0)


def log_mean(a: float, b: float) -> float:
    """The logarithmic mean of two flows above 0: the steady flow that takes as long.

    Args:
        a: First flow, m³/s, above 0.
        b: Second flow, m³/s, above 0.

    Returns:
        The mean flow, m³/s.

    Source: Integral of a flow that changes evenly.
    """
    if abs(a - b) <= 1e-6 * max(a, b):
        return (a + b) / 2
    return (a - b) / math.log(a / b)


def piece_of(line: FillLine, water: float) -> int:
    """The index of the piece that holds `water` (m³), the upper one at a joint.

    Args:
        line: The fill table.
        water: Water held, m³, 0 or more.

    Returns:
        The index, from 0.

    Source: Bisection.
    """
    return min(max(bisect_right(line.waters_m3, water) - 1, 0), len(line.waters_m3) - 2)


def pieces(line: FillLine, low: float, high: float) -> list[Piece]:
    """The way from `low` to `high` m³ of water held, as (width m³, pump flow at its start, at its
    end, m³/s).

    Args:
        line: The fill table.
        low: Water held at the start, m³.
        high: Water held at the end, m³, not below `low`.

    Returns:
        The pieces, in order.

    Source: Straight lines between entries (numerical).
    """
    if high <= low:
        return []
    first, last = piece_of(line, low), piece_of(line, high)
    waters = line.waters_m3
    if first == last:
        return [(high - low, flow_at(line, first, low), flow_at(line, first, high))]
    way = [(waters[first + 1] - low, flow_at(line, first, low), line.flows_m3_s[first + 1])]
    way += line.wholes[first + 1 : last]
    way.append((high - waters[last], line.flows_m3_s[last], flow_at(line, last, high)))
    return [piece for piece in way if piece[0] > 0]


def fill_seconds(line: FillLine, low: float, high: float, draw: float = 0.0) -> float:
    """Time (s) for the water held to rise from `low` to `high` (m³) while `draw` (m³/s) is taken
    out; infinity when the pump cannot bring it there.

    Args:
        line: The fill table.
        low: Water held at the start, m³.
        high: Water held at the end, m³, not below `low`.
        draw: Steady draw, m³/s, 0 or more.

    Returns:
        Time, s; infinity where it never gets there.

    Source: T = ∫ dW / (Q_pump − Q_draw).
    """
    return pieces_seconds(pieces(line, low, high), draw)


def pieces_seconds(way: list[Piece], draw: float) -> float:
    """`fill_seconds` on a way already cut into pieces: width / logarithmic mean of the net flow,
    written out for speed.

    Args:
        way: The way in pieces: width (m³), flow at its start and end (m³/s).
        draw: Steady draw, m³/s, 0 or more.

    Returns:
        Time, s; infinity where it never gets there.

    Source: T = ∫ dW / (Q_pump − Q_draw).
    """
    total = 0.0
    for width, q0, q1 in way:
        a, b = q0 - draw, q1 - draw
        if a <= 0 or b <= 0:
            return STALLED
        total += width * (2 / (a + b) if abs(a - b) <= 1e-6 * a else math.log(a / b) / (a - b))
    return total


def fill_time_derivatives(way: list[Piece], draw: float) -> tuple[float, float]:
    """How the fill time grows with the draw: its first and second derivative, ∫ dW / q² and 2 ∫ dW
    / q³ with q = Q_pump − Q_draw > 0 throughout (the caller sees to it), by their closed forms per
    piece.

    Args:
        way: The way in pieces: width (m³), flow at its start and end (m³/s).
        draw: Steady draw, m³/s, 0 or more.

    Returns:
        First and second derivative, s per m³/s and per its square.

    Source: T = ∫ dW / (Q_pump − Q_draw), differentiated.
    """
    first = second = 0.0
    for width, q0, q1 in way:
        a, b = q0 - draw, q1 - draw
        first += width / (a * b)
        second += width * (a + b) / (a * b) ** 2
    return first, second


def water_after(line: FillLine, at: int, water: float, seconds: float, draw: float) -> float:
    """Water held (m³) after `seconds` with the pump running, starting from `water` and staying
    inside piece `at`.

    Args:
        line: The fill table.
        at: Index of the piece, from 0.
        water: Water held, m³, 0 or more.
        seconds: Time, s, above 0.
        draw: Steady draw, m³/s, 0 or more.

    Returns:
        Water held, m³.

    Source: Dw/dt = q₀ + b·w, whose solution is an exponential.
    """
    width = line.waters_m3[at + 1] - line.waters_m3[at]
    slope = (line.flows_m3_s[at + 1] - line.flows_m3_s[at]) / width if width > 0 else 0.0
    net = flow_at(line, at, water) - draw
    if abs(slope * seconds) < 1e-9:
        return water + net * seconds
    return water + net * _expm1(slope * seconds) / slope


def _expm1(x: float) -> float:
    """E to the power x, less 1, by exp and log alone, in which math libraries agree to the last
    digit; in expm1 they do not. Source: Kahan's formula, in Higham, Accuracy and Stability of
    Numerical Algorithms, 2nd edition, 1.14.1 (from memory)."""
    power = math.exp(x)
    if power in (0.0, 1.0):
        return x if power else -1.0
    return (power - 1) * x / math.log(power)
