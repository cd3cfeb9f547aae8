"""Figures of the pre-charge: the one to set, at which temperature, and what it loses over the
years."""

from functools import cached_property

from zerodip.kinds.water.plate_figures import PlateFigures
from zerodip.physics.bladder_tank import air_to_add_m3
from zerodip.practice.ways import (
    CHECK_WAYS,
    PRE_CHARGE_WAYS,
    Budget,
    CheckWay,
    PreChargeWay,
    budget,
    way_of,
)
from zerodip.text.figure import Reading, constant, figure
from zerodip.units import PSI

__all__ = ["ChargeFigures"]


class ChargeFigures(PlateFigures):
    """What the tanks are to be charged to. Pressures are at the season's mean temperature unless a
    name says otherwise."""

    psi_2, psi_3 = constant(2 * PSI, "pressure"), constant(3 * PSI, "pressure")
    psi_5 = constant(5 * PSI, "pressure")

    @figure("pressure")
    def lost_pa_per_year(self) -> float | None:
        if self.lost_pa is None or self.last_years_ago is None:
            return None
        return self.lost_pa / self.last_years_ago

    @figure("pressure")
    def lost_pa(self) -> float | None:
        """Lost since the last visit, both at the season's mean."""
        if self.last_pa is None or self.found_mean_pa is None:
            return None
        return self.last_pa - self.found_mean_pa

    @figure("pressure")
    def found_mean_pa(self) -> float | None:
        """What was found today, as it would read at the season's mean; as found where a temperature
        is not known."""
        if self.found_pa is None:
            return None
        alike = self.charge_at_pa(self.system.site.mean_k, self.system.site.now_k, self.found_pa)
        return self.found_pa if alike is None else alike

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
        return None if self.found_pa is None else abs(self.set_now_pa - self.found_pa)

    @figure("volume")
    def air_to_add_m3(self) -> float | None:
        """Free air to add to the drained tanks, from what was found to what is set; negative: to
        let out."""
        if self.found_pa is None:
            return None
        return air_to_add_m3(self.nominal_m3, self.found_pa, self.set_now_pa, self.atmosphere_pa)

    def charge_at_pa(
        self, then_k: float | None, now_k: float | None, gauge_pa: float
    ) -> float | None:
        """The drained tank's pre-charge at `then_k` that reads `gauge_pa` at `now_k`: p ∝ T,
        absolute, and not below what any drained tank holds."""
        if then_k is None or now_k is None:
            return None
        return max((gauge_pa + self.atmosphere_pa) * then_k / now_k - self.atmosphere_pa, 0.0)

    @figure("pressure")
    def today_pa(self) -> float | None:
        """What to set today so that the pre-charge is right at the season's mean."""
        return self.charge_at_pa(
            self.system.site.now_k, self.system.site.mean_k, self.pre_charge_pa
        )

    @figure("pressure")
    def set_now_pa(self) -> float:
        """What the gauge is to show when the pre-charge is set today."""
        return self.pre_charge_pa if self.today_pa is None else self.today_pa

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
        """The pre-charge at the season's mean that at the warmest is just what no start dips with,
        or lies below cut-in by the gauge's error where the draw is not known."""
        mean, warmest = self.system.site.mean_k, self.system.site.warmest_k
        most = self.no_dip_charge_pa(self.careful_need_m3)
        below = self.cut_in_there_pa - self.gauge_error_pa if most is None else most
        return self.charge_at_pa(mean, warmest, below)

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
    def practice_charge_pa(self) -> float | None:
        """What the practice's way asks for."""
        return self.way_target_pa(self.pre_charge_way)

    @figure("pressure")
    def dip_charge_pa(self) -> float | None:
        """The most with which no start dips, less the gauge's error; None where that is not known,
        or no pre-charge avoids it."""
        return self._held_back_pa(self.careful_need_m3)

    @figure("pressure")
    def trip_charge_pa(self) -> float | None:
        """The most with which a start twice as slow stays clear of the low-pressure cut-off, less
        the gauge's error; None without such a cut-off, or where no pre-charge does."""
        return self._held_back_pa(self.careful_slow_need_m3) if self.low_pressure_cut_off else None

    def _held_back_pa(self, need_m3: float | None) -> float | None:
        most = self.no_dip_charge_pa(need_m3)
        least = None if most is None else most - self.gauge_error_pa
        return None if least is None or least < 0 else least

    @figure("pressure")
    def target_pa(self) -> float | None:
        """The one pre-charge to set: the least of what practice asks for, of what no start dips or
        trips with, and of what the warmest day allows. None while practice cannot tell."""
        practice = self.practice_charge_pa
        if practice is None:
            return None
        others = (self.dip_charge_pa, self.trip_charge_pa, self.summer_pa)
        return max(min([practice, *(each for each in others if each is not None)]), 0.0)

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
