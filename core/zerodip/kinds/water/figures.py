"""Figures of water systems against their limits, and what each way would set."""

import math

from zerodip.kinds.figures import less_gauge_error, lowest_known
from zerodip.kinds.water.charge_figures import ChargeFigures
from zerodip.physics.atmosphere import head_pa
from zerodip.physics.motors import starts_per_day_limit, starts_per_hour_limit
from zerodip.practice.ways import (
    RUN_TIME_WAYS,
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


class WaterFigures(ChargeFigures):
    """Everything the rules of water systems look at."""

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

    @figure("pressure")
    def trip_margin_pa(self) -> float | None:
        """How far a start stays above the low-pressure cut-off."""
        return None if self.start_lowest_pa is None else self.start_lowest_pa - self.trip_pa

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
        return None if self.dead_head_pa is None else self.dead_head_pa - max(self.inlet_fall_pa, 0)

    @figure("")
    def stall_says(self) -> str:
        """What comes of a cut-out so near dead-head, or above it."""
        lowest = self.lowest_dead_head_pa
        if lowest is None or self.cut_out_pa >= lowest:
            return " and would run on without reaching the switch."
        return (
            ". A little wear, or a gauge a little out, and it runs on without reaching the switch."
        )

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

    @property
    def stalls(self) -> bool:
        """Whether the pump delivers next to nothing at cut-out."""
        return self.cut_out_flow_m3_s <= 0.25 * self.cut_in_flow_m3_s

    @figure("duration")
    def longest_run_s(self) -> float:
        """The run that is an alarm where the pump comes near its dead-head; without end where a run
        is long only because the tank is large for its pump."""
        return self.alarm_run_s if self.stalls else float("inf")

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

    @figure("")
    def relief_does(self) -> str:
        """What a relief valve too near the points does."""
        if self.relief_pa is not None and self.relief_pa <= self.cut_in_pa:
            return "It opens below cut-in: water runs to waste, and the pump never stops."
        return "It opens or weeps at each stop."

    @figure("")
    def plate_against(self) -> str:
        """How a tank's plate stands against the points."""
        if self.tank_allowed_pa is not None and self.tank_allowed_pa <= self.cut_in_pa:
            return "The plate lies below cut-in: this tank is not made for such a switch."
        return "A switch that sticks a little takes it over its plate."

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
