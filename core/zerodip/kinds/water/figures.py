"""Figures of water systems against their limits, and what each way would set."""

import math
from functools import cached_property

from zerodip.kinds.figures import less_gauge_error, lowest_known
from zerodip.kinds.water.plate_figures import PlateFigures
from zerodip.physics.atmosphere import head_pa
from zerodip.physics.bladder_tank import air_to_add_m3
from zerodip.physics.friction import friction_head_m
from zerodip.physics.motors import starts_per_day_limit, starts_per_hour_limit
from zerodip.practice.ways import (
    CHECK_WAYS,
    PRE_CHARGE_WAYS,
    RUN_TIME_WAYS,
    Budget,
    CheckWay,
    PreChargeWay,
    budget,
    way_of,
)
from zerodip.text.figure import Reading, constant, figure
from zerodip.units import PSI

__all__ = ["WaterFigures"]

_CUT_OFF_TRADE = {
    "fit": (
        "Fit a switch with a low-pressure cut-off: after a broken pipe or in a low well the pump"
        " cannot run dry. The price: a big draw or a slow start may trip it, and somebody must hold"
        " the lever in by hand; set the wider pre-charge."
    ),
    "avoid": (
        "Take a switch without one: nuisance trips leave the house dry until somebody holds the"
        " lever in by hand. The price: nothing stops the pump after a broken pipe or in a low well."
    ),
}


class WaterFigures(PlateFigures):
    """Everything the rules of water systems look at."""

    psi_2, psi_3 = constant(2 * PSI, "pressure"), constant(3 * PSI, "pressure")
    psi_5 = constant(5 * PSI, "pressure")
    dead_head_margin_pa = constant(5 * PSI, "pressure")
    fixture_limit_pa = constant(80 * PSI, "pressure")
    relief_clearance_pa = constant(1 * PSI, "pressure")
    inlet_limit_pa = constant(10 * PSI, "pressure")
    leak_found_pa = constant(10 * PSI, "pressure")
    usual_loss_pa_per_year = constant(2 * PSI, "pressure")
    short_run_s = constant(30.0, "duration")
    alarm_run_s = constant(600.0, "duration")
    least_air_left = constant(0.75, "share")
    uneven_limit_pa = constant(2 * PSI, "pressure")

    @figure("duration")
    def wanted_run_s(self) -> float:
        return way_of(RUN_TIME_WAYS, self.practice.run_time_school).wanted_s(self.power_w)

    @figure("daily")
    def starts_per_day_per_s(self) -> float | None:
        """Starts in a day at most: the day's water over the drawdown (taps also run while the pump
        runs). 1/s."""
        if self.daily_m3 is None or self.drawdown_m3 <= 0:
            return None
        return self.daily_m3 / self.drawdown_m3 / 86400

    @figure("daily")
    def starts_limit_per_s(self) -> float | None:
        """Starts in a day that the motor bears, by power. 1/s."""
        return None if self.power_w is None else starts_per_day_limit(self.power_w)

    @figure("rate")
    def hourly_limit_per_s(self) -> float | None:
        """Starts in an hour that the motor bears, by power and kind. 1/s."""
        return (
            None
            if self.power_w is None
            else starts_per_hour_limit(self.power_w, self.system.pump.motor)
        )

    @figure("")
    def cut_off_as_practised(self) -> bool | None:
        """Whether a low-pressure cut-off is there, or not, as practice wants it."""
        wanted = self.practice.cut_off_school == "fit"
        return None if self.low_pressure_cut_off is None else self.low_pressure_cut_off == wanted

    @figure("")
    def cut_off_trade(self) -> str:
        """What to do about it, and what it costs."""
        return _CUT_OFF_TRADE.get(self.practice.cut_off_school, "")

    @figure("")
    def cut_off_wish(self) -> str:
        return {"fit": "fit it", "avoid": "avoid it"}.get(self.practice.cut_off_school, "either")

    @property
    def stands_pa(self) -> float:
        """Where cut-out was found, else as set, Pa gauge."""
        found = self.system.found.cut_out_gauge_pa
        return self.cut_out_pa if found is None else found

    @figure("pressure")
    def trip_pa(self) -> float:
        return self.cut_in_pa - self.trip_below_pa

    @figure("volume")
    def slow_need_m3(self) -> float | None:
        """The reserve that a start twice as slow would need."""
        return None if self.dip_need_m3 is None else 2 * self.dip_need_m3

    @figure("pressure")
    def trip_margin_pa(self) -> float | None:
        """How far a start stays above the low-pressure cut-off."""
        return None if self.lowest_pa is None else self.lowest_pa - self.trip_pa

    @figure(
        "pressure", Reading("system.pump.dead_head_gauge_pa", "the pump's dead-head, all taps shut")
    )
    def dead_head_pa(self) -> float | None:
        return self.line.dead_head_gauge_pa

    @figure(
        "pressure", Reading("system.pump.dead_head_gauge_pa", "the pump's dead-head, all taps shut")
    )
    def lowest_dead_head_pa(self) -> float | None:
        """Dead-head with the inlet at its lowest: what cut-out must stay under to be reached."""
        if self.dead_head_pa is None or self.lowest_inlet_pa is None:
            return self.dead_head_pa
        fallen = max(self.system.pump.usual_inlet_gauge_pa - self.lowest_inlet_pa, 0.0)
        return self.dead_head_pa - fallen

    @figure("pressure")
    def dead_head_limit_pa(self) -> float | None:
        lowest = self.lowest_dead_head_pa
        return None if lowest is None else lowest - self.dead_head_margin_pa

    @figure(
        "duration", Reading("system.pump.dead_head_gauge_pa", "the pump's dead-head, all taps shut")
    )
    def certain_run_s(self) -> float | None:
        """The run; None where it would be an alarm on a curve that is only assumed."""
        return None if self.line.assumed and self.run_s > self.alarm_run_s else self.run_s

    @figure("pressure", Reading("system.tanks.0.max_gauge_pa", "the tank plate's maximum pressure"))
    def lowest_rating_pa(self) -> float | None:
        """The lowest of the ratings that are known, less the gauge's error."""
        allowed = (self.relief_allowed_pa, self.tank_allowed_pa, self.pipe_allowed_pa)
        return min((each for each in allowed if each is not None), default=None)

    @figure("pressure")
    def highest_dead_head_pa(self) -> float | None:
        """Dead-head with the inlet at its highest: what a stuck switch can bring."""
        if self.dead_head_pa is None or self.highest_inlet_pa is None:
            return None
        return self.dead_head_pa + max(
            self.highest_inlet_pa - self.system.pump.usual_inlet_gauge_pa, 0.0
        )

    @figure("pressure", Reading("system.tanks.0.max_gauge_pa", "the tank plate's maximum pressure"))
    def tank_max_pa(self) -> float | None:
        """The lowest maximum among the tanks' plates; None while any is missing."""
        return lowest_known([tank.max_gauge_pa for tank in self.system.tanks])

    @figure("pressure")
    def relief_allowed_pa(self) -> float | None:
        """As near as cut-out may come to the relief valve: by the gauge's error, and always a
        little below."""
        if self.relief_pa is None:
            return None
        return self.relief_pa - max(self.gauge_error_pa, self.relief_clearance_pa)

    @figure("pressure", Reading("system.tanks.0.max_gauge_pa", "the tank plate's maximum pressure"))
    def tank_max_here_pa(self) -> float | None:
        """The same as the gauge shows it, which may stand higher or lower than the tanks."""
        return None if self.tank_max_pa is None else self.tank_max_pa + self.tank_head_pa

    tank_allowed_pa = less_gauge_error(tank_max_here_pa)

    @figure("pressure")
    def fixture_cut_out_pa(self) -> float | None:
        """The cut-out that brings the lowest tap to its limit; None behind a pressure-reducing
        valve."""
        demand = self.system.demand
        return (
            None
            if demand.pressure_reducer
            else self.fixture_limit_pa + head_pa(demand.lowest_tap_m)
        )

    @figure(
        "volume",
        Reading("system.tanks.0.acceptance_m3", "the bladder's acceptance, on the tank plate"),
    )
    def acceptance_m3(self) -> float | None:
        """What all bladders accept; None while any is missing."""
        known = [tank.acceptance_m3 for tank in self.system.tanks]
        return None if None in known else math.fsum(a for a in known if a is not None)

    @figure("pressure")
    def tap_static_pa(self) -> float:
        """Static pressure at the lowest tap, at cut-out."""
        return self.cut_out_pa - head_pa(self.system.demand.lowest_tap_m)

    @figure("flow", Reading("system.demand.peak_draw_m3_s", "the peak draw of the house"))
    def peak_draw_for_pipe_m3_s(self) -> float | None:
        """The peak draw where the highest tap's pipe needs it; any number where there is no pipe to
        count."""
        return self.peak_draw_m3_s if self.system.demand.highest_tap_pipe else 0.0

    @figure("pressure")
    def tap_friction_pa(self) -> float | None:
        """Lost in the pipe to the highest tap at the peak draw."""
        pipe, draw = self.system.demand.highest_tap_pipe, self.peak_draw_for_pipe_m3_s
        if draw is None:
            return None
        return (
            head_pa(friction_head_m(draw, pipe.length_m, pipe.diameter_m, pipe.c_factor))
            if pipe
            else 0.0
        )

    @figure("pressure")
    def tap_loss_pa(self) -> float | None:
        """What height and friction take from the gauge on the way to the highest tap."""
        if self.highest_tap_m is None or self.tap_friction_pa is None:
            return None
        return head_pa(self.highest_tap_m) + self.tap_friction_pa

    @figure("pressure")
    def tap_pa(self) -> float | None:
        """Pressure at the highest tap just before the pump starts."""
        return None if self.tap_loss_pa is None else max(self.cut_in_pa - self.tap_loss_pa, 0.0)

    @figure("pressure")
    def least_cut_in_pa(self) -> float | None:
        """The cut-in that the highest tap asks for."""
        return None if self.tap_loss_pa is None else self.wanted_tap_pa + self.tap_loss_pa

    @figure("pressure")
    def lost_pa_per_year(self) -> float | None:
        if self.last_pa is None or self.found_pa is None or self.last_years_ago is None:
            return None
        return (self.last_pa - self.found_pa) / self.last_years_ago

    @figure("pressure")
    def lost_pa(self) -> float | None:
        return (
            None if self.last_pa is None or self.found_pa is None else self.last_pa - self.found_pa
        )

    @cached_property
    def check_way(self) -> CheckWay:
        return way_of(CHECK_WAYS, self.practice.check_school)

    @cached_property
    def check_years(self) -> float:
        """Years to the next check, by practice; from the measured loss where practice asks for it
        and it is known."""
        return self.check_way.years(self.lost_pa_per_year)

    @figure("pressure")
    def air_step_pa(self) -> float | None:
        """How far the pre-charge is moved from what was found, either way."""
        return None if self.found_pa is None else abs(self.pre_charge_pa - self.found_pa)

    @figure("volume")
    def air_to_add_m3(self) -> float | None:
        """Free air to add to the drained tanks, from what was found to what is set; negative: to
        let out."""
        if self.found_pa is None:
            return None
        return air_to_add_m3(self.nominal_m3, self.found_pa, self.pre_charge_pa, self.atmosphere_pa)

    def charge_at_pa(
        self, then_k: float | None, now_k: float | None, gauge_pa: float
    ) -> float | None:
        """The drained tank's pre-charge at `then_k` that reads `gauge_pa` at `now_k`: p ∝ T,
        absolute."""
        if then_k is None or now_k is None:
            return None
        return (gauge_pa + self.atmosphere_pa) * then_k / now_k - self.atmosphere_pa

    @figure("pressure")
    def today_pa(self) -> float | None:
        """What to set today so that the pre-charge is right at the season's mean."""
        return self.charge_at_pa(
            self.system.site.now_k, self.system.site.mean_k, self.pre_charge_pa
        )

    @figure("pressure")
    def coldest_pa(self) -> float | None:
        return self.charge_at_pa(
            self.system.site.coldest_k, self.system.site.mean_k, self.pre_charge_pa
        )

    @figure("pressure")
    def warmest_pa(self) -> float | None:
        return self.charge_at_pa(
            self.system.site.warmest_k, self.system.site.mean_k, self.pre_charge_pa
        )

    @figure("pressure")
    def summer_pa(self) -> float | None:
        """The pre-charge at the season's mean that at the warmest stands as far below cut-in as is
        usual."""
        mean, warmest = self.system.site.mean_k, self.system.site.warmest_k
        return self.charge_at_pa(mean, warmest, self.cut_in_there_pa - self.psi_2)

    @figure("pressure")
    def summer_today_pa(self) -> float | None:
        """The same, as it reads today."""
        now, warmest = self.system.site.now_k, self.system.site.warmest_k
        return self.charge_at_pa(now, warmest, self.cut_in_there_pa - self.psi_2)

    @cached_property
    def pre_charge_way(self) -> PreChargeWay:
        """The practice's way; a switch with a low-pressure cut-off asks for the wider one by
        itself, where the practice goes by a rule of thumb. Source: common practice, no source."""
        school = self.practice.pre_charge_school
        thumb = school in ("two_below", "two_to_three_below")
        wide = self.low_pressure_cut_off and thumb and not self.system.plain
        return way_of(PRE_CHARGE_WAYS, "five_below" if wide else school)

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

    def way_target_pa(self, way: PreChargeWay) -> float | None:
        """The pre-charge (Pa gauge) that a way of setting it asks for; None while it cannot
        tell."""
        offset = way.offset_pa(self.budget)
        return None if offset is None else max(self.cut_in_there_pa - offset, 0.0)

    @figure("pressure")
    def target_pa(self) -> float | None:
        return self.way_target_pa(self.pre_charge_way)

    @figure("pressure")
    def wider_pa(self) -> float:
        """The pre-charge for switches with a low-pressure cut-off."""
        return max(self.cut_in_there_pa - self.psi_5, 0.0)

    @figure("pressure")
    def way_tolerance_pa(self) -> float:
        return self.pre_charge_way.tolerance_pa

    @figure("pressure")
    def off_target_pa(self) -> float | None:
        return None if self.target_pa is None else abs(self.pre_charge_pa - self.target_pa)

    @figure("flow", Reading("system.demand.peak_draw_m3_s", "the peak draw of the house"))
    def peak_draw_for_target_m3_s(self) -> float | None:
        """The peak draw where practice needs it; any number where it does not."""
        return self.peak_draw_m3_s if self.pre_charge_way.id == "computed" else 0.0
