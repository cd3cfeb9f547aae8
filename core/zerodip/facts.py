"""Everything that can be worked out of one system under one set of settings, each figure computed once, when asked for.

A figure is None where a reading that it needs is missing. Names end in their unit; `_pa` is gauge unless `abs` says otherwise.
"""

from functools import cached_property

from .atmosphere import head_pa, pressure_abs_pa
from .cycles.fill import fill_seconds
from .cycles.rate import WorstDraw, worst_draw
from .cycles.start import largest_pre_charge_abs_pa, lowest_abs_pa
from .plant.events import Plant
from .pumps.delivery import Delivery, delivery, flow_m3_s
from .switches.schools import ONE_HP_W, PRE_CHARGE_SCHOOLS, RUN_TIME_SCHOOLS, Budget, PreChargeSchool, budget
from .system import Practice, Settings, System
from .tanks.bladder import Bank, Vessel, air_to_add_m3, water_m3
from .units import PSI

__all__ = ["READINGS", "Facts"]

# figure: (where the reading that it needs is entered, what it is called)
READINGS = {
    "peak_draw_m3_s": ("system.demand.peak_draw_m3_s", "the peak draw of the house"),
    "peak_draw_for_target_m3_s": ("system.demand.peak_draw_m3_s", "the peak draw of the house"),
    "daily_m3": ("system.demand.daily_m3", "the water used in a day"),
    "dead_head_pa": ("system.pump.dead_head_gauge_pa", "the pump's dead-head, all taps shut"),
    "tank_max_pa": ("system.tanks.0.max_gauge_pa", "the tank plate's maximum pressure"),
    "acceptance_m3": ("system.tanks.0.acceptance_m3", "the bladder's acceptance, on the tank plate"),
    "relief_present": ("system.relief.present", "whether a relief valve is there"),
    "relief_pa": ("system.relief.setting_gauge_pa", "the relief valve's setting, on its tag"),
    "earth_present": ("system.switch.earth_present", "whether an earth wire is at the switch"),
    "low_pressure_cut_off": ("system.switch.low_pressure_cut_off", "whether the switch has a low-pressure cut-off"),
    "found_pa": ("system.found.pre_charge_gauge_pa", "the pre-charge found, tank drained"),
    "last_pa": ("system.found.last_pre_charge_gauge_pa", "the pre-charge left at the last visit"),
    "last_years_ago": ("system.found.last_years_ago", "the years since the last visit"),
    "power_w": ("system.pump.power_w", "the motor's power"),
}


def _lowest(values: list[float | None]) -> float | None:
    known = [value for value in values if value is not None]
    return min(known) if known and len(known) == len(values) else None


class Facts:
    """Figures of `system` under `settings`, with `practice`'s assumptions. Pure: nothing here changes once computed."""

    psi_2, psi_3, psi_5 = 2 * PSI, 3 * PSI, 5 * PSI
    dead_head_margin_pa = 5 * PSI
    fixture_limit_pa = 80 * PSI
    leak_found_pa = 10 * PSI
    usual_loss_pa_per_year = 2 * PSI
    usual_differential_pa = 20 * PSI
    differential_tolerance_pa = 3 * PSI
    short_run_s = 30.0
    alarm_run_s = 600.0

    def __init__(self, system: System, settings: Settings, practice: Practice) -> None:
        self.system, self.settings, self.practice = system, settings, practice
        self.cut_in_pa, self.cut_out_pa = settings.cut_in_gauge_pa, settings.cut_out_gauge_pa
        self.pre_charge_pa = settings.pre_charge_gauge_pa
        self.peak_draw_m3_s, self.daily_m3 = system.demand.peak_draw_m3_s, system.demand.daily_m3
        self.start_lag_s, self.power_w = system.pump.start_lag_s, system.pump.power_w
        self.relief_present, self.relief_pa = system.relief.present, system.relief.setting_gauge_pa
        self.earth_present = system.switch.earth_present
        self.low_pressure_cut_off = system.switch.low_pressure_cut_off
        self.found_pa, self.last_pa = system.found.pre_charge_gauge_pa, system.found.last_pre_charge_gauge_pa
        self.last_years_ago = system.found.last_years_ago

    @cached_property
    def atmosphere_pa(self) -> float:
        """Atmosphere at the site, Pa abs."""
        return pressure_abs_pa(self.system.site.altitude_m)

    @cached_property
    def cut_in_abs_pa(self) -> float:
        return self.cut_in_pa + self.atmosphere_pa

    @cached_property
    def cut_out_abs_pa(self) -> float:
        return self.cut_out_pa + self.atmosphere_pa

    @cached_property
    def pre_charge_abs_pa(self) -> float:
        return self.pre_charge_pa + self.atmosphere_pa

    @cached_property
    def highest_pre_charge_pa(self) -> float:
        """The highest pre-charge among the tanks, Pa gauge."""
        return max(self._pre_charge_of(tank) for tank in self.system.tanks)

    def _pre_charge_of(self, tank: object) -> float:
        own: float | None = getattr(tank, "pre_charge_gauge_pa", None)
        return self.pre_charge_pa if own is None else own

    @cached_property
    def bank(self) -> Bank:
        """The tanks with their pre-charges, for the gas law."""
        vessels = [
            Vessel(tank.volume_m3, self._pre_charge_of(tank) + self.atmosphere_pa, tank.acceptance_m3 or float("inf"))
            for tank in self.system.tanks
        ]
        return Bank(tuple(vessels), self.practice.gas_exponent)

    @cached_property
    def volume_m3(self) -> float:
        return self.bank.volume_m3

    @cached_property
    def line(self) -> Delivery:
        """The pump's line of flow against gauge pressure."""
        return delivery(self.system.pump)

    @cached_property
    def plant(self) -> Plant:
        """Tank, pump and switch together, for filling and for the simulation."""
        return Plant(self.bank, self.line, self.atmosphere_pa, self.cut_in_pa, self.cut_out_pa, self.start_lag_s)

    @cached_property
    def reserve_m3(self) -> float:
        """Water held back at cut-in."""
        return self.plant.on_m3

    @cached_property
    def full_m3(self) -> float:
        """Water held at cut-out."""
        return self.plant.off_m3

    @cached_property
    def unbounded_full_m3(self) -> float:
        """Water the air would let in at cut-out, were there no bladder limit."""
        return sum(
            water_m3(Bank((Vessel(v.volume_m3, v.pre_charge_abs_pa),), self.bank.exponent), self.cut_out_abs_pa)
            for v in self.bank.vessels
        )

    @cached_property
    def drawdown_m3(self) -> float:
        return self.full_m3 - self.reserve_m3

    @cached_property
    def run_s(self) -> float:
        """Fill time with nothing drawn, by integration; infinity when the pump never reaches cut-out."""
        if self.plant.fill.flows_m3_s[-1] <= 0:
            return float("inf")
        return fill_seconds(self.plant.fill, self.reserve_m3, self.full_m3)

    @cached_property
    def mid_flow_m3_s(self) -> float:
        """The pump's flow half-way between the set points."""
        return flow_m3_s(self.line, (self.cut_in_pa + self.cut_out_pa) / 2)

    @cached_property
    def simple_run_s(self) -> float:
        """Drawdown over the mid-band flow: the rule of thumb."""
        return self.drawdown_m3 / self.mid_flow_m3_s if self.mid_flow_m3_s > 0 else float("inf")

    @cached_property
    def wanted_run_s(self) -> float:
        school = next(s for s in RUN_TIME_SCHOOLS if s.id == self.practice.run_time_school)
        return school.wanted_s(self.power_w)

    @cached_property
    def worst(self) -> WorstDraw | None:
        return worst_draw(self.plant.fill, self.reserve_m3, self.full_m3)

    @cached_property
    def worst_draw_m3_s(self) -> float | None:
        return None if self.worst is None else self.worst.draw_m3_s

    @cached_property
    def worst_starts_per_s(self) -> float | None:
        return None if self.worst is None else self.worst.starts_per_s

    @cached_property
    def starts_per_day_per_s(self) -> float | None:
        """Starts in a day at most: the day's water over the drawdown (taps also run while the pump runs). 1/s."""
        if self.daily_m3 is None or self.drawdown_m3 <= 0:
            return None
        return self.daily_m3 / self.drawdown_m3 / 86400

    @cached_property
    def starts_limit_per_s(self) -> float | None:
        """Starts in a day that the motor bears, by power. 1/s."""
        if self.power_w is None:
            return None
        return (300 if self.power_w <= 0.755 * ONE_HP_W else 100) / 86400

    @cached_property
    def dip_need_m3(self) -> float | None:
        """Water that must be held back: peak draw over the start lag."""
        return None if self.peak_draw_m3_s is None else self.peak_draw_m3_s * self.start_lag_s

    @cached_property
    def lowest_pa(self) -> float | None:
        """The lowest gauge pressure while the pump starts; 0 when the tank runs empty."""
        if self.dip_need_m3 is None:
            return None
        return lowest_abs_pa(self.bank, self.cut_in_abs_pa, self.dip_need_m3, self.atmosphere_pa) - self.atmosphere_pa

    @cached_property
    def largest_pre_charge_abs_pa(self) -> float | None:
        """The largest pre-charge, of the tanks that are set, with which nothing dips."""
        if self.dip_need_m3 is None:
            return None
        apart = [t for t in self.system.tanks if t.pre_charge_gauge_pa is not None]
        own = Bank(tuple(Vessel(t.volume_m3, self._pre_charge_of(t) + self.atmosphere_pa) for t in apart))
        need = max(self.dip_need_m3 - (water_m3(own, self.cut_in_abs_pa) if apart else 0.0), 0.0)
        volume = self.volume_m3 - sum(t.volume_m3 for t in apart)
        return largest_pre_charge_abs_pa(volume, self.cut_in_abs_pa, need, self.practice.gas_exponent)

    @cached_property
    def largest_pre_charge_pa(self) -> float | None:
        largest = self.largest_pre_charge_abs_pa
        return None if largest is None else max(largest - self.atmosphere_pa, 0.0)

    @cached_property
    def trip_pa(self) -> float:
        return self.cut_in_pa - self.system.switch.trip_below_cut_in_pa

    @cached_property
    def trip_below_pa(self) -> float:
        return self.system.switch.trip_below_cut_in_pa

    @cached_property
    def cut_out_flow_m3_s(self) -> float:
        """What the pump still delivers at cut-out."""
        return self.plant.fill.flows_m3_s[-1]

    @cached_property
    def dead_head_pa(self) -> float | None:
        return self.line.dead_head_gauge_pa

    @cached_property
    def dead_head_limit_pa(self) -> float | None:
        return None if self.dead_head_pa is None else self.dead_head_pa - self.dead_head_margin_pa

    @cached_property
    def tank_max_pa(self) -> float | None:
        """The lowest maximum among the tanks' plates; None while any is missing."""
        return _lowest([tank.max_gauge_pa for tank in self.system.tanks])

    @cached_property
    def acceptance_m3(self) -> float | None:
        """What all bladders accept; None while any is missing."""
        known = [tank.acceptance_m3 for tank in self.system.tanks]
        return None if None in known else sum(a for a in known if a is not None)

    @cached_property
    def differential_pa(self) -> float:
        return self.cut_out_pa - self.cut_in_pa

    @cached_property
    def off_usual_differential_pa(self) -> float:
        return abs(self.differential_pa - self.usual_differential_pa)

    @cached_property
    def tap_static_pa(self) -> float:
        """Static pressure at the lowest tap, at cut-out."""
        return self.cut_out_pa - head_pa(self.system.demand.lowest_tap_m)

    @cached_property
    def lost_pa_per_year(self) -> float | None:
        if self.last_pa is None or self.found_pa is None or self.last_years_ago is None:
            return None
        return (self.last_pa - self.found_pa) / self.last_years_ago

    @cached_property
    def lost_pa(self) -> float | None:
        return None if self.last_pa is None or self.found_pa is None else self.last_pa - self.found_pa

    @cached_property
    def air_step_pa(self) -> float | None:
        """How far the pre-charge is moved from what was found, either way."""
        return None if self.found_pa is None else abs(self.pre_charge_pa - self.found_pa)

    @cached_property
    def air_to_add_m3(self) -> float | None:
        """Free air to add to the drained tanks, from what was found to what is set; negative: to let out."""
        if self.found_pa is None:
            return None
        return air_to_add_m3(self.volume_m3, self.found_pa, self.pre_charge_pa, self.atmosphere_pa)

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
            years=self.practice.check_interval_years,
        )

    def school_target_pa(self, school: PreChargeSchool) -> float | None:
        """The pre-charge (Pa gauge) that a school asks for; None while it cannot tell."""
        offset = school.offset_pa(self.budget)
        return None if offset is None else max(self.cut_in_pa - offset, 0.0)

    @cached_property
    def target_pa(self) -> float | None:
        return self.school_target_pa(self.school)

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
