"""Figures of a tankless demand pump: the window of cut-out against voltage, and what an accumulator
does."""

import math
from functools import cached_property

from zerodip.kinds.figures import Figures, less_gauge_error
from zerodip.kinds.tankless.model import Outlet, TanklessSystem
from zerodip.physics.bladder_tank import Bank, Vessel, water_m3
from zerodip.physics.demand_pump import (
    DemandCurve,
    intercept_v,
    outlet_k,
    pulse_seconds,
    running_gauge_pa,
)
from zerodip.text.figure import Reading, constant, figure
from zerodip.units import PSI

__all__ = ["TanklessFigures"]

STEPS = 24


class TanklessFigures(Figures):
    """Everything the rules of tankless pumps look at."""

    tolerable_pulses_per_s = constant(6 / 60, "per_minute")
    small_differential_pa = constant(5 * PSI, "pressure")

    system: TanklessSystem

    @figure("voltage")
    def least_v(self) -> float:
        """The lowest voltage."""
        return self.system.battery.least_v

    @figure("voltage")
    def most_v(self) -> float:
        """The highest voltage."""
        return self.system.battery.most_v

    @figure("voltage")
    def nominal_v(self) -> float:
        """The pump's nominal voltage."""
        return self.system.pump.nominal_v

    @figure("pressure")
    def pre_charge_pa(self) -> float | None:
        """The accumulator's pre-charge; None where there is none."""
        return self.settings.pre_charge_gauge_pa if self.system.accumulator else None

    @figure("volume")
    def accumulator_m3(self) -> float | None:
        """The accumulator's volume."""
        return self.system.accumulator.volume_m3 if self.system.accumulator else None

    @figure(
        "pressure",
        Reading("system.accumulator.max_gauge_pa", "the accumulator plate's maximum pressure"),
    )
    def accumulator_max_pa(self) -> float | None:
        """The accumulator's maximum pressure, off its plate."""
        return self.system.accumulator.max_gauge_pa if self.system.accumulator else None

    accumulator_allowed_pa = less_gauge_error(accumulator_max_pa)

    @figure("")
    def curve(self) -> DemandCurve:
        """The pump's curve."""
        pump = self.system.pump
        centrifugal = pump.works == "centrifugal"
        return DemandCurve(
            tuple(point.flow_m3_s for point in pump.points),
            tuple(point.gauge_pa for point in pump.points),
            self.nominal_v,
            0.0 if centrifugal else self.intercept_v,
            centrifugal,
        )

    @figure("voltage")
    def intercept_v(self) -> float:
        """The voltage that only turns the motor over: by the second measured dead-head, as entered,
        or none."""
        pump = self.system.pump
        if pump.second_v is None or pump.second_dead_head_gauge_pa is None:
            return pump.intercept_v or 0.0
        first = pump.points[0].gauge_pa
        return intercept_v(self.nominal_v, first, pump.second_v, pump.second_dead_head_gauge_pa)

    @cached_property
    def smallest(self) -> Outlet:
        """The outlet that passes least."""
        return min(
            self.system.outlets, key=lambda outlet: outlet_k(outlet.flow_m3_s, outlet.gauge_pa)
        )

    @cached_property
    def smallest_k(self) -> float:
        """K of that outlet, m³/s per √Pa."""
        return outlet_k(self.smallest.flow_m3_s, self.smallest.gauge_pa)

    @figure("pressure")
    def running_pa(self) -> float:
        """Running pressure at the smallest outlet, highest voltage: cut-out below it chatters."""
        return running_gauge_pa(self.curve, self.smallest_k, self.most_v)

    @figure("flow")
    def running_flow_m3_s(self) -> float:
        """What the smallest outlet passes then."""
        return self.smallest_k * math.sqrt(self.running_pa)

    @figure(
        "pressure",
        Reading("system.pump.points.0.gauge_pa", "the pump's dead-head, all taps shut"),
    )
    def dead_head_pa(self) -> float:
        """Dead-head at the lowest voltage: cut-out above it never stops."""
        return self.curve.dead_head_gauge_pa(self.least_v)

    @figure("pressure")
    def highest_dead_head_pa(self) -> float:
        """Dead-head at the highest voltage: what a stuck switch can bring."""
        return self.curve.dead_head_gauge_pa(self.most_v)

    @figure("pressure")
    def window_low_pa(self) -> float:
        """The least cut-out that does not chatter, gauge error included."""
        return self.running_pa + self.gauge_error_pa

    @figure("pressure")
    def window_high_pa(self) -> float:
        """The most cut-out that still stops, gauge error included."""
        return self.dead_head_pa - self.gauge_error_pa

    @cached_property
    def window_mid_pa(self) -> float:
        """The middle of the window."""
        return (self.window_low_pa + self.window_high_pa) / 2

    @cached_property
    def has_window(self) -> bool:
        """Whether any cut-out works at both voltages."""
        return self.window_low_pa <= self.window_high_pa

    @figure("flow")
    def least_outlet_m3_s(self) -> float:
        """The flow that an outlet must pass, at the low-battery dead-head, for a window to exist:
        what the pump gives there at the highest voltage."""
        return self.curve.flow_m3_s(self.dead_head_pa, self.most_v)

    @figure("flow")
    def outlet_there_m3_s(self) -> float:
        """What the smallest outlet passes at the low-battery dead-head."""
        return self.smallest_k * math.sqrt(self.dead_head_pa)

    @cached_property
    def pulses_at_all(self) -> bool:
        """Whether the pump outruns the smallest outlet at this cut-out, highest voltage."""
        return self.running_pa > self.cut_out_pa

    @cached_property
    def bank(self) -> Bank | None:
        """The accumulator with its pre-charge."""
        if self.accumulator_m3 is None or self.pre_charge_pa is None:
            return None
        vessel = Vessel(self.accumulator_m3, self.pre_charge_pa + self.atmosphere_pa)
        return Bank((vessel,), self.practice.gas_exponent)

    @figure("volume")
    def drawdown_m3(self) -> float | None:
        """Water that the accumulator gives from cut-out to cut-in."""
        if self.bank is None:
            return None
        return water_m3(self.bank, self.cut_out_abs_pa) - water_m3(self.bank, self.cut_in_abs_pa)

    @cached_property
    def pulse_s(self) -> tuple[float, float] | None:
        """Seconds on and off of one pulse at the smallest outlet, highest voltage; None when it
        does not pulse."""
        if not self.pulses_at_all:
            return None
        if self.bank is None or not self.drawdown_m3:
            return (0.0, 0.0)
        width = (self.cut_out_pa - self.cut_in_pa) / STEPS
        gauges = [self.cut_in_pa + width * k for k in range(STEPS + 1)]
        store = [(g, water_m3(self.bank, g + self.atmosphere_pa)) for g in gauges]
        drains = [self.smallest_k * g**0.5 for g in gauges]
        fills = [
            self.curve.flow_m3_s(g, self.most_v) - out
            for g, out in zip(gauges, drains, strict=True)
        ]
        return pulse_seconds(store, fills, drains)

    @figure("per_minute")
    def pulses_per_s(self) -> float:
        """Pulses at the smallest outlet, highest voltage: 0 when it does not pulse, without end
        when nothing is stored."""
        if self.pulse_s is None:
            return 0.0
        whole = math.fsum(self.pulse_s)
        return 1 / whole if whole > 0 else float("inf")

    @figure("pressure")
    def running_on_battery_pa(self) -> float:
        """Running pressure at the smallest outlet, lowest voltage."""
        return running_gauge_pa(self.curve, self.smallest_k, self.least_v)
