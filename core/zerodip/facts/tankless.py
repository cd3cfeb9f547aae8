"""Figures of a tankless demand pump: the window of cut-out against voltage, and what an accumulator does."""

import math
from functools import cached_property

from ..pumps.demand import DemandCurve, outlet_k, pulse_seconds, running_gauge_pa
from ..system import Outlet, Practice, Settings, TanklessSystem
from ..tanks.bladder import Bank, Vessel, water_m3
from ..units import PSI
from .base import Facts

__all__ = ["TanklessFacts"]

STEPS = 24


class TanklessFacts(Facts):
    """Everything the rules of tankless pumps look at."""

    tolerable_pulses_per_s = 6 / 60
    small_differential_pa = 5 * PSI

    def __init__(self, system: TanklessSystem, settings: Settings, practice: Practice) -> None:
        super().__init__(system, settings, practice)
        self.system = system
        self.least_v, self.most_v, self.nominal_v = system.battery.least_v, system.battery.most_v, system.pump.nominal_v
        self.pre_charge_pa = settings.pre_charge_gauge_pa
        self.accumulator_m3 = system.accumulator.volume_m3 if system.accumulator else None

    @cached_property
    def curve(self) -> DemandCurve:
        points = self.system.pump.points
        return DemandCurve(
            tuple(point.flow_m3_s for point in points), tuple(point.gauge_pa for point in points), self.nominal_v
        )

    @cached_property
    def smallest(self) -> Outlet:
        """The outlet that passes least."""
        return min(self.system.outlets, key=lambda outlet: outlet_k(outlet.flow_m3_s, outlet.gauge_pa))

    @cached_property
    def smallest_k(self) -> float:
        return outlet_k(self.smallest.flow_m3_s, self.smallest.gauge_pa)

    @cached_property
    def running_pa(self) -> float:
        """Running pressure at the smallest outlet, highest voltage: cut-out below it chatters."""
        return running_gauge_pa(self.curve, self.smallest_k, self.most_v)

    @cached_property
    def running_flow_m3_s(self) -> float:
        """What the smallest outlet passes then."""
        return self.smallest_k * math.sqrt(self.running_pa)

    @cached_property
    def dead_head_pa(self) -> float:
        """Dead-head at the lowest voltage: cut-out above it never stops."""
        return self.curve.dead_head_gauge_pa(self.least_v)

    @cached_property
    def highest_dead_head_pa(self) -> float:
        """Dead-head at the highest voltage: what a stuck switch can bring."""
        return self.curve.dead_head_gauge_pa(self.most_v)

    @cached_property
    def window_low_pa(self) -> float:
        """The least cut-out that does not chatter, gauge error included."""
        return self.running_pa + self.gauge_error_pa

    @cached_property
    def window_high_pa(self) -> float:
        """The most cut-out that still stops, gauge error included."""
        return self.dead_head_pa - self.gauge_error_pa

    @cached_property
    def window_mid_pa(self) -> float:
        return (self.window_low_pa + self.window_high_pa) / 2

    @cached_property
    def has_window(self) -> bool:
        return self.window_low_pa <= self.window_high_pa

    @cached_property
    def least_outlet_m3_s(self) -> float:
        """The flow that an outlet must pass, at the low-battery dead-head, for a window to exist: what the pump gives
        there at the highest voltage."""
        return self.curve.flow_m3_s(self.dead_head_pa, self.most_v)

    @cached_property
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

    @cached_property
    def drawdown_m3(self) -> float | None:
        """Water that the accumulator gives from cut-out to cut-in."""
        if self.bank is None:
            return None
        return water_m3(self.bank, self.cut_out_abs_pa) - water_m3(self.bank, self.cut_in_abs_pa)

    @cached_property
    def pulse_s(self) -> tuple[float, float] | None:
        """Seconds on and off of one pulse at the smallest outlet, highest voltage; None when it does not pulse."""
        if not self.pulses_at_all:
            return None
        if self.bank is None or not self.drawdown_m3:
            return (0.0, 0.0)
        width = (self.cut_out_pa - self.cut_in_pa) / STEPS
        gauges = [self.cut_in_pa + width * k for k in range(STEPS + 1)]
        store = [(g, water_m3(self.bank, g + self.atmosphere_pa)) for g in gauges]
        drains = [self.smallest_k * g**0.5 for g in gauges]
        fills = [self.curve.flow_m3_s(g, self.most_v) - out for g, out in zip(gauges, drains, strict=True)]
        return pulse_seconds(store, fills, drains)

    @cached_property
    def pulses_per_s(self) -> float:
        """Pulses at the smallest outlet, highest voltage: 0 when it does not pulse, without end when nothing is stored."""
        if self.pulse_s is None:
            return 0.0
        whole = sum(self.pulse_s)
        return 1 / whole if whole > 0 else float("inf")

    @cached_property
    def accumulator_limit_pa(self) -> float | None:
        """The pre-charge must lie below cut-out, or the accumulator does nothing."""
        return self.cut_out_pa

    @cached_property
    def running_on_battery_pa(self) -> float:
        """Running pressure at the smallest outlet, lowest voltage."""
        return running_gauge_pa(self.curve, self.smallest_k, self.least_v)
