"""What a pump delivers at a gauge pressure, and where it delivers nothing (dead-head).

Whatever is known of the pump becomes one falling table of gauge pressure against flow, evenly spaced in flow, so that
dead-head, flow and fill times are all read from the same line.
"""

from bisect import bisect_left
from dataclasses import dataclass

from ..atmosphere import GRAVITY, WATER_DENSITY, head_pa
from ..system import ConstantFlow, HeadCurve, Pump, RatedPoint
from .curve import head_m, slopes
from .friction import friction_head_m

__all__ = ["Delivery", "delivery", "flow_m3_s", "gauge_pa"]

STEPS = 36
SHUT_OFF_RATIO = 4 / 3


@dataclass(frozen=True)
class Delivery:
    """Gauge pressures (Pa, rising) and the flows at them (m³/s, falling to 0 at dead-head). A constant flow has one entry.
    `dead_head_gauge_pa` is None where it is not known; `assumed` tells that the shape is a rule of thumb."""

    gauges_pa: tuple[float, ...]
    flows_m3_s: tuple[float, ...]
    dead_head_gauge_pa: float | None
    assumed: bool = False


def delivery(pump: Pump) -> Delivery:
    """The pump's line. A constant flow holds at any pressure. One rated point gives a parabola from dead-head through it:
    the measured dead-head, or else 4/3 of the rated total head (the single-point curve of EPANET 2 Users Manual,
    EPA/600/R-00/057, from memory), which is then marked as assumed and not reported as a dead-head. A curve gives
    p = ρg (H(Q) − lift − friction(Q)) + inlet. Source: Bernoulli; Hazen–Williams."""
    if isinstance(pump, ConstantFlow):
        return Delivery((0.0,), (pump.flow_m3_s,), pump.dead_head_gauge_pa)
    if isinstance(pump, RatedPoint):
        return _rated(pump)
    return _curved(pump)


def _rated(pump: RatedPoint) -> Delivery:
    lift_pa, rated = head_pa(pump.lift_m), pump.gauge_pa + pump.inlet_gauge_pa
    top = pump.dead_head_gauge_pa or (pump.gauge_pa + lift_pa) * SHUT_OFF_RATIO - lift_pa + pump.inlet_gauge_pa
    top = max(top, rated + 0.02 * pump.gauge_pa)
    most = pump.flow_m3_s * min(max(max(top, 0.0) / (top - rated), 0.04) ** 0.5, 2.0)
    flows = [most * (1 - k / STEPS) for k in range(STEPS + 1)]
    gauges = [top - (top - rated) * (flow / pump.flow_m3_s) ** 2 for flow in flows]
    return Delivery(tuple(gauges), tuple(flows), pump.dead_head_gauge_pa, pump.dead_head_gauge_pa is None)


def gauge_pa(pump: HeadCurve, flow: float) -> float:
    """Gauge pressure (Pa) of a pump with a curve at `flow` (m³/s, 0 to the curve's last point); may be negative,
    which means that it cannot lift that flow to the gauge. Source: p = ρg (H(Q) − lift − friction(Q)) + inlet."""
    return _gauges(pump, [flow])[0]


def _gauges(pump: HeadCurve, at: list[float]) -> list[float]:
    flows, heads = [p.flow_m3_s for p in pump.points], [p.head_m for p in pump.points]
    at_points, pipe, weight = slopes(flows, heads), pump.drop_pipe, WATER_DENSITY * GRAVITY
    total = [head_m(flow, flows, heads, at_points) - pump.lift_m for flow in at]
    if pipe:
        lost = [friction_head_m(flow, pipe.length_m, pipe.diameter_m, pipe.c_factor) for flow in at]
        total = [head - loss for head, loss in zip(total, lost, strict=True)]
    return [weight * head + pump.inlet_gauge_pa for head in total]


def _curved(pump: HeadCurve) -> Delivery:
    most = pump.points[-1].flow_m3_s
    flows = [most * (1 - k / STEPS) for k in range(STEPS + 1)]
    gauges = _gauges(pump, flows)
    return Delivery(tuple(gauges), tuple(flows), gauges[-1])


def flow_m3_s(line: Delivery, gauge: float) -> float:
    """Flow (m³/s) at the gauge pressure `gauge` (Pa): 0 at and above dead-head, the table's end below its lowest
    pressure, a straight line between entries (within 0.1 % of the exact curve)."""
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
    """The gauge pressure (Pa, not below 0) at which the pump delivers just `flow`: what an open tap holds it at."""
    if len(line.gauges_pa) == 1 or flow >= line.flows_m3_s[0]:
        return 0.0
    at = bisect_left([-f for f in line.flows_m3_s], -flow)
    high, low = line.flows_m3_s[at - 1], line.flows_m3_s[at]
    share = (high - flow) / (high - low)
    return max(line.gauges_pa[at - 1] * (1 - share) + line.gauges_pa[at] * share, 0.0)
