"""The figures that every kind of system has."""

from functools import cached_property

from ..atmosphere import pressure_abs_pa
from ..system import Practice, Settings, System
from ..units import PSI

__all__ = ["Facts", "lowest_known"]


def lowest_known(values: list[float | None]) -> float | None:
    """The lowest of the values; None while any is missing."""
    known = [value for value in values if value is not None]
    return min(known) if known and len(known) == len(values) else None


class Facts:
    """Figures of `system` under `settings`, with `practice`'s assumptions. Pure: nothing here changes once computed.
    A figure is None where a reading that it needs is missing. Names end in their unit; `_pa` is gauge unless `abs` says
    otherwise."""

    usual_differential_pa = 20 * PSI
    differential_tolerance_pa = 3 * PSI

    def __init__(self, system: System, settings: Settings, practice: Practice) -> None:
        self.settings, self.practice, self.kind = settings, practice, system.kind
        self.cut_in_pa, self.cut_out_pa = settings.cut_in_gauge_pa, settings.cut_out_gauge_pa
        self.power_w = system.pump.power_w
        self.gauge_error_pa = practice.gauge_error_pa
        self.nuts = system.switch.nuts
        self.one_screw = self.nuts == "one"
        self.earth_present = system.switch.earth_present
        self.switch_least_in_pa = system.switch.least_cut_in_gauge_pa
        self.switch_most_out_pa = system.switch.most_cut_out_gauge_pa
        self.least_differential_pa = system.switch.least_differential_pa
        self.most_differential_pa = system.switch.most_differential_pa
        self.differential_pa = self.cut_out_pa - self.cut_in_pa
        self.atmosphere_pa = pressure_abs_pa(system.site.altitude_m)

    @cached_property
    def cut_in_abs_pa(self) -> float:
        return self.cut_in_pa + self.atmosphere_pa

    @cached_property
    def cut_out_abs_pa(self) -> float:
        return self.cut_out_pa + self.atmosphere_pa

    @cached_property
    def off_differential_pa(self) -> float:
        """How far the differential lies outside what the school offers."""
        most = self.usual_differential_pa * (1.5 if self.practice.differential_school == "widen" else 1.0)
        return max(self.usual_differential_pa - self.differential_pa, self.differential_pa - most, 0.0)
