"""What is read off the plates of a water system, its supply and its house, where it was read."""

from zerodip.kinds.figures import less_gauge_error
from zerodip.kinds.water.start_figures import StartFigures
from zerodip.text.figure import Reading, figure

__all__ = ["PlateFigures"]


class PlateFigures(StartFigures):
    """The readings of a water system; None where one was not taken."""

    @figure("power", Reading("system.pump.power_w", "the motor's power"))
    def power_w(self) -> float | None:
        """The motor's power."""
        return self.system.pump.power_w

    @figure("", Reading("system.relief.present", "whether a relief valve is there"))
    def relief_present(self) -> bool | None:
        """Whether a relief valve was seen."""
        return self.system.relief.present

    @figure(
        "pressure",
        Reading("system.relief.setting_gauge_pa", "the relief valve's setting, on its tag"),
    )
    def relief_pa(self) -> float | None:
        """What the relief valve is set to."""
        return self.system.relief.setting_gauge_pa

    @figure(
        "",
        Reading(
            "system.switch.low_pressure_cut_off", "whether the switch has a low-pressure cut-off"
        ),
    )
    def low_pressure_cut_off(self) -> bool | None:
        """Whether the switch trips for good at low pressure."""
        return self.switch.low_pressure_cut_off

    @figure("pressure")
    def trip_below_pa(self) -> float:
        """How far below cut-in it trips."""
        return self.switch.trip_below_cut_in_pa

    @figure(
        "pressure",
        Reading("system.found.pre_charge_gauge_pa", "the pre-charge found, tank drained"),
    )
    def found_pa(self) -> float | None:
        """The pre-charge found, tank drained."""
        return self.system.found.pre_charge_gauge_pa

    @figure(
        "pressure",
        Reading("system.found.last_pre_charge_gauge_pa", "the pre-charge left at the last visit"),
    )
    def last_pa(self) -> float | None:
        """The pre-charge left at the last visit."""
        return self.system.found.last_pre_charge_gauge_pa

    @figure("years", Reading("system.found.last_years_ago", "the years since the last visit"))
    def last_years_ago(self) -> float | None:
        """Years since then."""
        return self.system.found.last_years_ago

    @figure("flow", Reading("system.supply.yield_m3_s", "the well's yield"))
    def yield_m3_s(self) -> float | None:
        """The well's yield."""
        return self.system.supply.yield_m3_s

    @figure("", Reading("system.supply.treated", "whether the water is treated for drinking"))
    def treated(self) -> bool | None:
        """Whether the water is treated for drinking."""
        return self.system.supply.treated

    @figure(
        "", Reading("system.supply.labelled", "whether tank and lines are labelled non-potable")
    )
    def labelled(self) -> bool | None:
        """Whether tank and lines are labelled non-potable."""
        return self.system.supply.labelled

    @figure(
        "pressure", Reading("system.supply.highest_inlet_gauge_pa", "the highest inlet pressure")
    )
    def highest_inlet_pa(self) -> float | None:
        """The highest inlet pressure."""
        return self.system.supply.highest_inlet_gauge_pa

    @figure("pressure", Reading("system.demand.pipe_max_gauge_pa", "the pipe's rating"))
    def pipe_max_pa(self) -> float | None:
        """The pipe's rating."""
        return self.system.demand.pipe_max_gauge_pa

    @figure("pressure", Reading("system.pump.max_gauge_pa", "the pump's maximum pressure"))
    def pump_max_pa(self) -> float | None:
        """The pump's own maximum."""
        return self.system.pump.max_gauge_pa

    pipe_allowed_pa = less_gauge_error(pipe_max_pa)
    pump_allowed_pa = less_gauge_error(pump_max_pa)
