"""What a pump delivers at a gauge pressure, and where it delivers nothing (dead-head).

Whatever is known of the pump becomes one falling table of gauge pressure against flow, evenly
spaced in flow, so that dead-head, flow and fill times are all read from the same line.
"""

from bisect import bisect_left
from dataclasses import dataclass

from zerodip.physics.atmosphere import GRAVITY, WATER_DENSITY, head_pa
from zerodip.physics.friction import friction_head_m
from zerodip.physics.pump_curve import head_m, slopes

__all__ = [
    "Delivery",
    "PumpCurve",
    "balance_gauge_pa",
    "constant_delivery",
    "curve_delivery",
    "curve_gauge_pa",
    "flow_m3_s",
    "rated_delivery",
    "tapped_gauge_pa",
]

STEPS = 36
HALVES = (1 / 2, 1 / 4, 1 / 8, 1 / 16, 1 / 32, 1 / 64)
SHUT_OFF_RATIO = 4 / 3


@dataclass(frozen=True)
class Delivery:
    """Gauge pressures (Pa, rising) and the flows at them (m³/s, falling to 0 at dead-head). A
    constant flow has one entry. `dead_head_gauge_pa` is None where it is not known; `assumed` tells
    that the shape is a rule of thumb."""

    gauges_pa: tuple[float, ...]
    flows_m3_s: tuple[float, ...]
    dead_head_gauge_pa: float | None
    assumed: bool = False


def constant_delivery(flow: float, dead_head_gauge_pa: float | None) -> Delivery:
    """A pump known by one flow only (m³/s), which then holds at any pressure; its dead-head (Pa
    gauge) where it was measured.

    Args:
        flow: Flow, m³/s, 0 or more.
        dead_head_gauge_pa: Dead-head as measured, Pa gauge; None if it was not.

    Returns:
        What the pump delivers.

    Source: Common practice, no source.
    """
    return Delivery((0.0,), (flow,), dead_head_gauge_pa)


def rated_delivery(
    flow: float,
    gauge_pa: float,
    lift_m: float,
    inlet_gauge_pa: float,
    dead_head_gauge_pa: float | None,
) -> Delivery:
    """A parabola from dead-head (Pa gauge) through one rated point (m³/s, Pa gauge without the
    inlet's): the dead-head as measured, or else 4/3 of the rated total head (the single-point curve
    of EPANET 2 Users Manual, EPA/600/R-00/057, from memory), which is then marked as assumed and
    not reported as a dead-head. `lift_m` is from water level up to the gauge.

    Args:
        flow: Flow, m³/s, 0 or more.
        gauge_pa: Gauge pressure of the rated point, Pa, without the inlet's.
        lift_m: From the water level up to the gauge, m.
        inlet_gauge_pa: What the inlet brings along, Pa gauge.
        dead_head_gauge_pa: Dead-head as measured, Pa gauge; None if it was not.

    Returns:
        What the pump delivers.

    Source: Bernoulli.
    """
    lift_pa, rated = head_pa(lift_m), gauge_pa + inlet_gauge_pa
    top = dead_head_gauge_pa or (gauge_pa + lift_pa) * SHUT_OFF_RATIO - lift_pa + inlet_gauge_pa
    top = max(top, rated + 0.02 * gauge_pa)
    most = flow * min(max(max(top, 0.0) / (top - rated), 0.04) ** 0.5, 2.0)
    flows = _evenly(most)
    gauges = [top - (top - rated) * (each / flow) ** 2 for each in flows]
    return Delivery(tuple(gauges), tuple(flows), dead_head_gauge_pa, dead_head_gauge_pa is None)


@dataclass(frozen=True)
class PumpCurve:
    """A pump's published points from zero flow on (m³/s, m), the lift (m) up to the gauge, the
    inlet's pressure (Pa gauge), and the drop pipe as (length m, inside diameter m, Hazen–Williams
    C) where there is one."""

    flows_m3_s: tuple[float, ...]
    heads_m: tuple[float, ...]
    lift_m: float
    inlet_gauge_pa: float
    drop_pipe: tuple[float, float, float] | None = None


def curve_delivery(curve: PumpCurve) -> Delivery:
    """The line of a pump known by its curve.

    Args:
        curve: The pump's curve.

    Returns:
        What the pump delivers.

    Source: Bernoulli; Hazen–Williams.
    """
    flows = _evenly(curve.flows_m3_s[-1])
    gauges = _gauges(curve, flows)
    return Delivery(tuple(gauges), tuple(flows), gauges[-1])


def curve_gauge_pa(curve: PumpCurve, flow: float) -> float:
    """Gauge pressure (Pa) of a pump with a curve at `flow` (m³/s, 0 to the curve's last point); may
    be negative, which means that it cannot lift that flow to the gauge.

    Args:
        curve: The pump's curve.
        flow: Flow, m³/s, 0 or more.

    Returns:
        Gauge pressure, Pa; may be negative.

    Source: P = ρg (H(Q) − lift − friction(Q)) + inlet.
    """
    return _gauges(curve, [flow])[0]


def _evenly(most: float) -> list[float]:
    """Flows from `most` down to none, closer together at the last, where pressure hardly changes
    with flow."""
    evenly = [most * (1 - k / STEPS) for k in range(STEPS)]
    return [*evenly, *(evenly[-1] * share for share in HALVES), 0.0]


def _gauges(curve: PumpCurve, at: list[float]) -> list[float]:
    at_points, weight = slopes(curve.flows_m3_s, curve.heads_m), WATER_DENSITY * GRAVITY
    total = [head_m(flow, curve.flows_m3_s, curve.heads_m, at_points) - curve.lift_m for flow in at]
    if curve.drop_pipe:
        lost = [friction_head_m(flow, *curve.drop_pipe) for flow in at]
        total = [head - loss for head, loss in zip(total, lost, strict=True)]
    return [weight * head + curve.inlet_gauge_pa for head in total]


def flow_m3_s(line: Delivery, gauge: float) -> float:
    """Flow (m³/s) at the gauge pressure `gauge` (Pa): 0 at and above dead-head, the table's end
    below its lowest pressure, a straight line between entries (within 0.1 % of the exact curve).

    Args:
        line: What the pump delivers.
        gauge: Gauge pressure, Pa.

    Returns:
        Flow, m³/s, 0 or more.

    Source: Straight line between entries (numerical).
    """
    if line.dead_head_gauge_pa is not None and gauge >= line.dead_head_gauge_pa:
        return 0.0
    at = bisect_left(line.gauges_pa, gauge)
    if at == 0 or len(line.gauges_pa) == 1:
        return line.flows_m3_s[0]
    if at == len(line.gauges_pa):
        return 0.0
    low, high = line.gauges_pa[at - 1], line.gauges_pa[at]
    share = (gauge - low) / (high - low)
    return line.flows_m3_s[at - 1] * (1 - share) + line.flows_m3_s[at] * share


def balance_gauge_pa(line: Delivery, flow: float) -> float:
    """The gauge pressure (Pa, not below 0) at which the pump delivers just `flow`: what an open tap
    holds it at.

    Args:
        line: What the pump delivers.
        flow: Flow, m³/s, 0 or more.

    Returns:
        Gauge pressure, Pa, 0 or more.

    Source: The same line, read the other way.
    """
    if len(line.gauges_pa) == 1 or flow >= line.flows_m3_s[0]:
        return 0.0
    at = bisect_left([-f for f in line.flows_m3_s], -flow)
    high, low = line.flows_m3_s[at - 1], line.flows_m3_s[at]
    share = (high - flow) / (high - low)
    return max(line.gauges_pa[at - 1] * (1 - share) + line.gauges_pa[at] * share, 0.0)


def tapped_gauge_pa(
    line: Delivery, draw_m3_s: float, at_gauge_pa: float, outlet_pa: float = 0.0
) -> float:
    """The gauge pressure (Pa) at which pump and open taps balance, the taps being orifices that
    pass `draw_m3_s` at `at_gauge_pa`.

    Args:
        line: What the pump delivers.
        draw_m3_s: What the taps pass at that pressure, m³/s, above 0.
        at_gauge_pa: Gauge pressure, Pa, above 0.
        outlet_pa: What the height of the taps takes from the gauge, Pa, below that pressure.

    Returns:
        Gauge pressure, Pa, 0 or more.

    Source: Q_pump(p) = Q·√(p/p₀) (orifice equation), p at the taps; halving (numerical), within
    1 Pa.
    """
    at = max(at_gauge_pa - outlet_pa, 1.0)
    low, high = outlet_pa, outlet_pa + at * max(line.flows_m3_s[0] / draw_m3_s, 1e-3) ** 2
    while high - low > 1.0:
        middle = (low + high) / 2
        if flow_m3_s(line, middle) >= draw_m3_s * ((middle - outlet_pa) / at) ** 0.5:
            low = middle
        else:
            high = middle
    return max((low + high) / 2, 0.0)
