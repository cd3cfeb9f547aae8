"""Tankless demand pumps: the window in which cut-out must lie, against voltage.

A diaphragm pump on a permanent-magnet motor is limited by torque: its flow at no pressure and its
dead-head both go with the voltage, less a few tenths to two volts that only turn it over. A
centrifugal pump follows the affinity laws: flow with U, pressure with U². An outlet passes K·√p.
"""

import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["DemandCurve", "intercept_v", "outlet_k", "running_gauge_pa"]


@dataclass(frozen=True)
class DemandCurve:
    """Flows (m³/s, rising from 0) and gauge pressures (Pa, falling from dead-head) at the nominal
    voltage (V). `intercept_v` is the voltage below which the motor does not turn (V, below the
    nominal); `centrifugal` tells which law it follows."""

    flows_m3_s: tuple[float, ...]
    gauges_pa: tuple[float, ...]
    nominal_v: float
    intercept_v: float = 0.0
    centrifugal: bool = False

    def _ratios(self, volts: float) -> tuple[float, float]:
        """Flow and pressure at `volts` as shares of those at the nominal voltage."""
        share = (volts - self.intercept_v) / (self.nominal_v - self.intercept_v)
        share = max(share, 1e-6)
        return share, share**2 if self.centrifugal else share

    def dead_head_gauge_pa(self, volts: float) -> float:
        """Dead-head at `volts`, Pa: p0·(U − Ui)/(U0 − Ui), squared for a centrifugal pump. Source:
        torque balance of a permanent-magnet motor; affinity laws."""
        return self.gauges_pa[0] * self._ratios(volts)[1]

    def flow_m3_s(self, gauge_pa: float, volts: float) -> float:
        """Flow (m³/s) at a gauge pressure (Pa) and voltage: the nominal curve, flows and pressures
        each stretched; 0 at and above dead-head, straight between points, level beyond the last.
        Source: torque balance of a permanent-magnet motor; affinity laws."""
        flow, pressure = self._ratios(volts)
        return self._nominal_flow(gauge_pa / pressure) * flow

    def _nominal_flow(self, gauge_pa: float) -> float:
        if gauge_pa >= self.gauges_pa[0]:
            return 0.0
        if gauge_pa <= self.gauges_pa[-1]:
            return self.flows_m3_s[-1]
        at = bisect_right([-g for g in self.gauges_pa], -gauge_pa)
        high, low = self.gauges_pa[at - 1], self.gauges_pa[at]
        share = (high - gauge_pa) / (high - low)
        return self.flows_m3_s[at - 1] * (1 - share) + self.flows_m3_s[at] * share


def intercept_v(nominal_v: float, dead_head_pa: float, other_v: float, other_pa: float) -> float:
    """The voltage below which a motor does not turn, from the dead-head at two voltages: where the
    straight line through both meets nothing.

    Args:
        nominal_v: First voltage, V.
        dead_head_pa: Dead-head at it, Pa gauge.
        other_v: Second voltage, V, other than the first.
        other_pa: Dead-head at it, Pa gauge, other than the first.

    Returns:
        Voltage, V.

    Source: Torque balance of a permanent-magnet motor: a straight line.
    """
    return (other_v * dead_head_pa - nominal_v * other_pa) / (dead_head_pa - other_pa)


def outlet_k(flow_m3_s: float, gauge_pa: float) -> float:
    """K of an outlet (m³/s per √Pa) from one flow (m³/s) at one gauge pressure (Pa, above 0): Q =
    K·√p.

    Args:
        flow_m3_s: Flow, m³/s, 0 or more.
        gauge_pa: Gauge pressure at that flow, Pa, above 0.

    Returns:
        K, m³/s per √Pa.

    Source: Orifice flow (Bernoulli).
    """
    return flow_m3_s / math.sqrt(gauge_pa)


def running_gauge_pa(curve: DemandCurve, k: float, volts: float) -> float:
    """The gauge pressure (Pa) at which the pump just feeds an open outlet of `k`: K·√p = Q(p, U),
    by bisection to 1e-10 of dead-head. Valid for k > 0.

    Args:
        curve: The pump's curve.
        k: K of the outlet, m³/s per √Pa, above 0.
        volts: Voltage at the pump, V, above 0.

    Returns:
        Gauge pressure, Pa.

    Source: Affinity laws and orifice flow.
    """
    low, high = 0.0, curve.dead_head_gauge_pa(volts)
    for _ in range(34):
        middle = (low + high) / 2
        if curve.flow_m3_s(middle, volts) > k * middle**0.5:
            low = middle
        else:
            high = middle
    return (low + high) / 2


def pulse_seconds(
    store: Sequence[tuple[float, float]], fills: Sequence[float], drains: Sequence[float]
) -> tuple[float, float]:
    """Seconds on and off of one pulse with an accumulator: the `store` is (gauge Pa, water m³) from
    cut-in to cut-out, `fills` and `drains` are the net flow in and the flow out (m³/s) at each of
    them, straight between them; infinity where a net flow is not above 0. Source: mass balance
    dW/dt."""
    return _seconds(store, fills), _seconds(store, drains)


def _seconds(store: Sequence[tuple[float, float]], flows: Sequence[float]) -> float:
    if min(flows) <= 0:
        return float("inf")
    steps = zip(store, store[1:], flows, flows[1:], strict=False)
    return math.fsum((b[1] - a[1]) / _mean_flow(f, g) for a, b, f, g in steps)


def _mean_flow(first: float, last: float) -> float:
    """The logarithmic mean: what a flow that changes evenly with the water held amounts to. Where
    it falls to next to nothing, as beside the running pressure, no other mean will do."""
    if abs(first - last) <= 1e-6 * first:
        return first
    return (first - last) / math.log(first / last)
