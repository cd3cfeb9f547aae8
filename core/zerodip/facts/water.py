"""Figures of water systems against their limits, and what each school would set."""

from functools import cached_property

from ..atmosphere import head_pa
from ..motors import starts_per_day_limit, starts_per_hour_limit
from ..pumps.friction import friction_head_m
from ..switches.schools import (
    CHECK_SCHOOLS,
    PRE_CHARGE_SCHOOLS,
    RUN_TIME_SCHOOLS,
    Budget,
    CheckSchool,
    PreChargeSchool,
    budget,
)
from ..system import Practice, Settings, WaterSystem
from ..tanks.bladder import air_to_add_m3
from ..units import PSI
from .base import lowest_known
from .tank import TankFacts

__all__ = ["WaterFacts"]

_CUT_OFF_TRADE = {
    "fit": "Fit a switch with a low-pressure cut-off: after a broken pipe or in a low well the pump cannot run dry. The price: a "
    "big draw or a slow start may trip it, and somebody must hold the lever in by hand; set the wider pre-charge.",
    "avoid": "Take a switch without one: nuisance trips leave the house dry until somebody holds the lever in by hand. The price: "
    "nothing stops the pump after a broken pipe or in a low well.",
}


class WaterFacts(TankFacts):
    """Everything the rules of water systems look at."""

    psi_2, psi_3, psi_5 = 2 * PSI, 3 * PSI, 5 * PSI
    dead_head_margin_pa = 5 * PSI
    fixture_limit_pa = 80 * PSI
    inlet_limit_pa = 10 * PSI
    leak_found_pa = 10 * PSI
    usual_loss_pa_per_year = 2 * PSI
    short_run_s = 30.0
    alarm_run_s = 600.0
    least_air_left = 0.75
    uneven_limit_pa = 2 * PSI

    def __init__(self, system: WaterSystem, settings: Settings, practice: Practice) -> None:
        super().__init__(system, settings, practice)
        demand, found, supply = system.demand, system.found, system.supply
        self.relief_present, self.relief_pa = system.relief.present, system.relief.setting_gauge_pa
        self.low_pressure_cut_off = system.switch.low_pressure_cut_off
        self.trip_below_pa = system.switch.trip_below_cut_in_pa
        self.found_pa, self.last_pa = found.pre_charge_gauge_pa, found.last_pre_charge_gauge_pa
        self.last_years_ago = found.last_years_ago
        self.yield_m3_s, self.treated, self.labelled = supply.yield_m3_s, supply.treated, supply.labelled
        self.lowest_inlet_pa, self.highest_inlet_pa = supply.lowest_inlet_gauge_pa, supply.highest_inlet_gauge_pa
        self.highest_tap_m, self.wanted_tap_pa = demand.highest_tap_m, demand.wanted_tap_gauge_pa
        self.pipe_max_pa, self.pump_max_pa = demand.pipe_max_gauge_pa, system.pump.max_gauge_pa

    @cached_property
    def wanted_run_s(self) -> float:
        school = next(s for s in RUN_TIME_SCHOOLS if s.id == self.practice.run_time_school)
        return school.wanted_s(self.power_w)

    @cached_property
    def starts_per_day_per_s(self) -> float | None:
        """Starts in a day at most: the day's water over the drawdown (taps also run while the pump runs). 1/s."""
        if self.daily_m3 is None or self.drawdown_m3 <= 0:
            return None
        return self.daily_m3 / self.drawdown_m3 / 86400

    @cached_property
    def starts_limit_per_s(self) -> float | None:
        """Starts in a day that the motor bears, by power. 1/s."""
        return None if self.power_w is None else starts_per_day_limit(self.power_w)

    @cached_property
    def hourly_limit_per_s(self) -> float | None:
        """Starts in an hour that the motor bears, by power and kind. 1/s."""
        return None if self.power_w is None else starts_per_hour_limit(self.power_w, self.system.pump.motor)

    @cached_property
    def cut_off_as_school(self) -> bool | None:
        """Whether a low-pressure cut-off is there, or not, as the school wants it."""
        wanted = self.practice.cut_off_school == "fit"
        return None if self.low_pressure_cut_off is None else self.low_pressure_cut_off == wanted

    @cached_property
    def cut_off_trade(self) -> str:
        """What to do about it, and what it costs."""
        return _CUT_OFF_TRADE.get(self.practice.cut_off_school, "")

    @cached_property
    def cut_off_wish(self) -> str:
        return {"fit": "fit it", "avoid": "avoid it"}.get(self.practice.cut_off_school, "either")

    @cached_property
    def trip_pa(self) -> float:
        return self.cut_in_pa - self.trip_below_pa

    @cached_property
    def slow_need_m3(self) -> float | None:
        """What a start twice as slow would need held back."""
        return None if self.dip_need_m3 is None else 2 * self.dip_need_m3

    @cached_property
    def trip_margin_pa(self) -> float | None:
        """How far a start stays above the low-pressure cut-off."""
        return None if self.lowest_pa is None else self.lowest_pa - self.trip_pa

    @cached_property
    def dead_head_pa(self) -> float | None:
        return self.line.dead_head_gauge_pa

    @cached_property
    def dead_head_limit_pa(self) -> float | None:
        return None if self.dead_head_pa is None else self.dead_head_pa - self.dead_head_margin_pa

    @cached_property
    def highest_dead_head_pa(self) -> float | None:
        """Dead-head with the inlet at its highest: what a stuck switch can bring."""
        if self.dead_head_pa is None or self.highest_inlet_pa is None:
            return None
        usual: float = getattr(self.system.pump, "inlet_gauge_pa", 0.0)
        return self.dead_head_pa + max(self.highest_inlet_pa - usual, 0.0)

    @cached_property
    def tank_max_pa(self) -> float | None:
        """The lowest maximum among the tanks' plates; None while any is missing."""
        return lowest_known([tank.max_gauge_pa for tank in self.system.tanks])

    @cached_property
    def acceptance_m3(self) -> float | None:
        """What all bladders accept; None while any is missing."""
        known = [tank.acceptance_m3 for tank in self.system.tanks]
        return None if None in known else sum(a for a in known if a is not None)

    @cached_property
    def tap_static_pa(self) -> float:
        """Static pressure at the lowest tap, at cut-out."""
        return self.cut_out_pa - head_pa(self.system.demand.lowest_tap_m)

    @cached_property
    def peak_draw_for_pipe_m3_s(self) -> float | None:
        """The peak draw where the highest tap's pipe needs it; any number where there is no pipe to count."""
        return self.peak_draw_m3_s if self.system.demand.highest_tap_pipe else 0.0

    @cached_property
    def tap_friction_pa(self) -> float | None:
        """Lost in the pipe to the highest tap at the peak draw."""
        pipe, draw = self.system.demand.highest_tap_pipe, self.peak_draw_for_pipe_m3_s
        if draw is None:
            return None
        return head_pa(friction_head_m(draw, pipe.length_m, pipe.diameter_m, pipe.c_factor)) if pipe else 0.0

    @cached_property
    def tap_loss_pa(self) -> float | None:
        """What height and friction take from the gauge on the way to the highest tap."""
        if self.highest_tap_m is None or self.tap_friction_pa is None:
            return None
        return head_pa(self.highest_tap_m) + self.tap_friction_pa

    @cached_property
    def tap_pa(self) -> float | None:
        """Pressure at the highest tap just before the pump starts."""
        return None if self.tap_loss_pa is None else max(self.cut_in_pa - self.tap_loss_pa, 0.0)

    @cached_property
    def least_cut_in_pa(self) -> float | None:
        """The cut-in that the highest tap asks for."""
        return None if self.tap_loss_pa is None else self.wanted_tap_pa + self.tap_loss_pa

    @cached_property
    def lost_pa_per_year(self) -> float | None:
        if self.last_pa is None or self.found_pa is None or self.last_years_ago is None:
            return None
        return (self.last_pa - self.found_pa) / self.last_years_ago

    @cached_property
    def lost_pa(self) -> float | None:
        return None if self.last_pa is None or self.found_pa is None else self.last_pa - self.found_pa

    @cached_property
    def check_school(self) -> CheckSchool:
        return next(s for s in CHECK_SCHOOLS if s.id == self.practice.check_school)

    @cached_property
    def check_years(self) -> float:
        """Years to the next check, by the school; from the measured loss where the school asks for it and it is known."""
        return self.check_school.years(self.lost_pa_per_year)

    @cached_property
    def air_step_pa(self) -> float | None:
        """How far the pre-charge is moved from what was found, either way."""
        return None if self.found_pa is None else abs(self.pre_charge_pa - self.found_pa)

    @cached_property
    def air_to_add_m3(self) -> float | None:
        """Free air to add to the drained tanks, from what was found to what is set; negative: to let out."""
        if self.found_pa is None:
            return None
        return air_to_add_m3(self.nominal_m3, self.found_pa, self.pre_charge_pa, self.atmosphere_pa)

    def charge_at_pa(self, then_k: float | None, now_k: float | None, gauge_pa: float) -> float | None:
        """The drained tank's pre-charge at `then_k` that reads `gauge_pa` at `now_k`: p ∝ T, absolute."""
        if then_k is None or now_k is None:
            return None
        return (gauge_pa + self.atmosphere_pa) * then_k / now_k - self.atmosphere_pa

    @cached_property
    def today_pa(self) -> float | None:
        """What to set today so that the pre-charge is right at the season's mean."""
        return self.charge_at_pa(self.system.site.now_k, self.system.site.mean_k, self.pre_charge_pa)

    @cached_property
    def coldest_pa(self) -> float | None:
        return self.charge_at_pa(self.system.site.coldest_k, self.system.site.mean_k, self.pre_charge_pa)

    @cached_property
    def warmest_pa(self) -> float | None:
        return self.charge_at_pa(self.system.site.warmest_k, self.system.site.mean_k, self.pre_charge_pa)

    @cached_property
    def school(self) -> PreChargeSchool:
        return next(s for s in PRE_CHARGE_SCHOOLS if s.id == self.practice.pre_charge_school)

    @cached_property
    def budget(self) -> Budget:
        return budget(
            cut_in_abs_pa=self.cut_in_abs_pa,
            largest_abs_pa=self.largest_pre_charge_abs_pa,
            gauge_error_pa=self.practice.gauge_error_pa,
            warming_k=self.practice.warming_k,
            loss_per_year_pa=self.practice.loss_per_year_pa,
            years=self.check_years,
        )

    def school_target_pa(self, school: PreChargeSchool) -> float | None:
        """The pre-charge (Pa gauge) that a school asks for; None while it cannot tell."""
        offset = school.offset_pa(self.budget)
        return None if offset is None else max(self.cut_in_pa - offset, 0.0)

    @cached_property
    def target_pa(self) -> float | None:
        return self.school_target_pa(self.school)

    @cached_property
    def wider_pa(self) -> float:
        """The pre-charge of the school for switches with a low-pressure cut-off."""
        return max(self.cut_in_pa - self.psi_5, 0.0)

    @cached_property
    def school_tolerance_pa(self) -> float:
        return self.school.tolerance_pa

    @cached_property
    def off_target_pa(self) -> float | None:
        return None if self.target_pa is None else abs(self.pre_charge_pa - self.target_pa)

    @cached_property
    def peak_draw_for_target_m3_s(self) -> float | None:
        """The peak draw where the school needs it; any number where it does not."""
        return self.peak_draw_m3_s if self.school.id == "computed" else 0.0
