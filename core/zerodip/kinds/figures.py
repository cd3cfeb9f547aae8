"""The figures that every kind of system has."""

from collections.abc import Mapping
from functools import cached_property
from typing import Any, Self

from zerodip.kinds.parts import System
from zerodip.kinds.settings import Practice, Settings
from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.text.figure import Figure, Reading, constant, figure
from zerodip.units import PSI

__all__ = ["Figures", "less_gauge_error", "lowest_known"]

_LOWEST_IN = Reading(
    "system.switch.least_cut_in_gauge_pa", "the switch's lowest cut-in, under its cover"
)
_HIGHEST_OUT = Reading(
    "system.switch.most_cut_out_gauge_pa", "the switch's highest cut-out, under its cover"
)


def lowest_known(values: list[float | None]) -> float | None:
    """The lowest of the values; None while any is missing.

    Args:
        values: The values, Pa gauge; None for one that is missing.

    Returns:
        Pressure, Pa gauge; None where one is missing.
    """
    known = [value for value in values if value is not None]
    return min(known) if known and len(known) == len(values) else None


def less_gauge_error(limit: Figure[float | None]) -> Figure[float | None]:
    """A limit as the gauge may show it at most (Pa gauge): less what the gauge may be off by.

    Args:
        limit: The limit's figure, Pa gauge.

    Returns:
        The figure, Pa gauge.
    """

    def allowed(of: "Figures") -> float | None:
        """The limit, less the gauge's error."""
        value: float | None = getattr(of, limit.name)
        return None if value is None else value - of.gauge_error_pa

    return Figure(allowed, "pressure", limit.reading)


class Figures:
    """Figures of `system` under `settings`, with `practice`'s assumptions. Pure: nothing here
    changes once computed. A figure is None where a reading that it needs is missing. Names end in
    their unit; `_pa` is gauge unless `abs` says otherwise."""

    system: System

    def __init__(self, system: System, settings: Settings, practice: Practice) -> None:
        self.system = system
        self.settings, self.practice, self.kind = settings, practice, system.kind
        self.switch, self.site, self.is_assumed = system.switch, system.site, system.is_assumed
        self._elsewhere: dict[str, Any] = {}

    def varied(self, elsewhere: Mapping[Figure[Any], Any], system: System | None = None) -> Self:
        """The same figures with some put elsewhere, or of another system, and all that follow
        worked out anew."""
        other = type(self)(system or self.system, self.settings, self.practice)
        named = {figure.name: value for figure, value in elsewhere.items()}
        other._elsewhere = {**self._elsewhere, **named}
        other.__dict__.update(other._elsewhere)
        return other

    differential_tolerance_pa = constant(3 * PSI, "pressure")
    usual_differential_pa = constant(20 * PSI, "pressure")

    @property
    def dips(self) -> bool:
        """Whether the store runs empty before the switch acts; only what has a pre-charge can."""
        return False

    @property
    def stands_pa(self) -> float:
        """Where cut-out stands, Pa gauge: as set, unless it was found elsewhere."""
        return self.cut_out_pa

    @cached_property
    def one_screw(self) -> bool:
        """Whether one screw moves both points."""
        return self.switch.nuts == "one"

    @figure("pressure")
    def cut_in_pa(self) -> float:
        """Cut-in as set."""
        return self.settings.cut_in_gauge_pa

    @figure("pressure")
    def cut_out_pa(self) -> float:
        """Cut-out as set."""
        return self.settings.cut_out_gauge_pa

    @figure("pressure")
    def differential_pa(self) -> float:
        """From cut-in to cut-out."""
        return self.cut_out_pa - self.cut_in_pa

    @figure("pressure")
    def gauge_error_pa(self) -> float:
        """What the gauge may be off by."""
        return self.practice.gauge_error_pa

    @figure("pressure")
    def atmosphere_pa(self) -> float:
        """The atmosphere at the site, absolute."""
        return pressure_abs_pa(self.site.altitude_m)

    @figure("pressure")
    def cut_in_abs_pa(self) -> float:
        """Cut-in, absolute."""
        return self.cut_in_pa + self.atmosphere_pa

    @figure("pressure")
    def cut_out_abs_pa(self) -> float:
        """Cut-out, absolute."""
        return self.cut_out_pa + self.atmosphere_pa

    @figure("", Reading("system.switch.earth_present", "whether an earth wire is at the switch"))
    def earth_present(self) -> bool | None:
        """Whether the switch is earthed."""
        return self.switch.earth_present

    @figure("pressure", _LOWEST_IN)
    def switch_least_in_pa(self) -> float | None:
        """The lowest cut-in of the switch's range."""
        return self.switch.least_cut_in_gauge_pa

    @figure("pressure", _HIGHEST_OUT)
    def switch_most_out_pa(self) -> float | None:
        """The highest cut-out of the switch's range."""
        return self.switch.most_cut_out_gauge_pa

    @figure(
        "pressure",
        Reading("system.switch.least_differential_pa", "the switch's least differential"),
    )
    def least_differential_pa(self) -> float | None:
        """The least differential that the switch can be set to."""
        return self.switch.least_differential_pa

    @figure(
        "pressure",
        Reading("system.switch.most_differential_pa", "the switch's greatest differential"),
    )
    def most_differential_pa(self) -> float | None:
        """The greatest differential that the switch can be set to."""
        return self.switch.most_differential_pa

    @figure("pressure")
    def off_differential_pa(self) -> float:
        """How far the differential lies outside what the practice offers."""
        most = self.usual_differential_pa * (
            1.5 if self.practice.differential_school == "widen" else 1.0
        )
        return max(
            self.usual_differential_pa - self.differential_pa, self.differential_pa - most, 0.0
        )
