"""Systems that keep water under pressure in tanks: wells, cisterns, boosted supplies."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, flag, part, parts, quantity, variants
from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.kinds.parts import Pipe, Relief, System
from zerodip.kinds.water.pumps import PUMPS, Pump
from zerodip.units import PSI

__all__ = ["Demand", "Found", "Supply", "Tank", "WaterSystem"]

WELL, PLAIN_WELL, CISTERN, BOOSTED = "well_bladder", "well_air", "cistern", "boosted"
MOST_TANKS = 12


@dataclass(frozen=True, kw_only=True)
class Tank(Checked):
    """One tank, off its plate. `acceptance_m3` is the most water its bladder may take.
    `pre_charge_gauge_pa` is given only where this tank's pre-charge differs from the setting (lost
    air, say)."""

    volume_m3: float = quantity("Tank volume", "volume", 0.0005, 20.0)
    max_gauge_pa: float | None = quantity(
        "Tank maximum pressure", "pressure", 30e3, 4e6, default=None
    )
    acceptance_m3: float | None = quantity(
        "Bladder acceptance", "volume", 0.0001, 20.0, default=None
    )
    pre_charge_gauge_pa: float | None = quantity(
        "This tank's own pre-charge", "pressure", 0, MOST_GAUGE_PA, default=None
    )

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        volume, acceptance = values.get("volume_m3"), values.get("acceptance_m3")
        if volume and acceptance and acceptance > volume:
            yield Fault(
                path="acceptance_m3",
                code="order",
                title="Bladder acceptance",
                says="is more than the tank.",
            )


@dataclass(frozen=True, kw_only=True)
class Demand(Checked):
    """What the house asks for. Heights are against the gauge, below it negative; the highest tap
    may have a long pipe."""

    peak_draw_m3_s: float | None = quantity("Peak draw", "flow", 1e-6, 0.1, default=None)
    daily_m3: float | None = quantity("Water used in a day", "volume", 0.001, 2000, default=None)
    lowest_tap_m: float = quantity("Lowest tap above the gauge", "length", -100, 100, default=0.0)
    highest_tap_m: float | None = quantity(
        "Highest tap above the gauge", "length", -100, 150, default=None
    )
    wanted_tap_gauge_pa: float = quantity(
        "Pressure wanted there", "pressure", 0, 600e3, default=20 * PSI
    )
    highest_tap_pipe: Pipe | None = part("Pipe to the highest tap", Pipe, default=None)
    pressure_reducer: bool | None = flag("Pressure-reducing valve after the tank")
    pipe_max_gauge_pa: float | None = quantity("Pipe rating", "pressure", 30e3, 4e6, default=None)


@dataclass(frozen=True, kw_only=True)
class Supply(Checked):
    """Where the water comes from: a well's yield; the supply's own pressure; whether it is fit to
    drink."""

    yield_m3_s: float | None = quantity("Well yield", "flow", 1e-7, 0.1, default=None)
    lowest_inlet_gauge_pa: float | None = quantity(
        "Lowest inlet pressure, pump on", "pressure", -90e3, 2e6, default=None
    )
    highest_inlet_gauge_pa: float | None = quantity(
        "Highest inlet pressure", "pressure", -90e3, 2e6, default=None
    )
    treated: bool | None = flag("Water treated for drinking")
    labelled: bool | None = flag("Tank and lines labelled non-potable")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        least, most = values.get("lowest_inlet_gauge_pa"), values.get("highest_inlet_gauge_pa")
        if least is not None and most is not None and most < least:
            yield Fault(
                path="highest_inlet_gauge_pa",
                code="order",
                title="Highest inlet pressure",
                says="must not lie below the lowest.",
            )


@dataclass(frozen=True, kw_only=True)
class Found(Checked):
    """What was found before anything was changed, and the pre-charge left at the last visit.
    `caught_m3` is what came out, power off, while the gauge fell from the cut-out found to the
    cut-in found."""

    pre_charge_gauge_pa: float | None = quantity(
        "Pre-charge found, drained", "pressure", 0, MOST_GAUGE_PA, default=None
    )
    last_pre_charge_gauge_pa: float | None = quantity(
        "Pre-charge left last time", "pressure", 0, MOST_GAUGE_PA, default=None
    )
    last_years_ago: float | None = quantity("Years since then", "years", 0.02, 60, default=None)
    cut_in_gauge_pa: float | None = quantity(
        "Cut-in found", "pressure", 1 * PSI, MOST_GAUGE_PA, default=None
    )
    cut_out_gauge_pa: float | None = quantity(
        "Cut-out found", "pressure", 1 * PSI, MOST_GAUGE_PA, default=None
    )
    caught_m3: float | None = quantity(
        "Water caught between them, power off", "volume", 1e-5, 20, default=None
    )

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        cut_in, cut_out = values.get("cut_in_gauge_pa"), values.get("cut_out_gauge_pa")
        if cut_in is not None and cut_out is not None and cut_out <= cut_in:
            yield Fault(
                path="cut_out_gauge_pa",
                code="order",
                title="Cut-out found",
                says="must lie above cut-in found.",
            )
        if values.get("caught_m3") is not None and (cut_in is None or cut_out is None):
            yield Fault(
                path="caught_m3",
                code="incomplete",
                title="Water caught",
                says="needs the cut-in and cut-out found between which it was caught.",
            )


@dataclass(frozen=True, kw_only=True)
class WaterSystem(System):
    """Everything read off one water system. `kind` is what the rules go by: a well with bladder
    tanks, one with plain air-over-water tanks, a cistern (rainwater too), or a supply whose
    pressure is boosted. `tanks_above_m` is how much higher the tanks stand than switch and gauge,
    below them negative: there the pressure is less by that."""

    kind: str = choice("Kind of system", (WELL, PLAIN_WELL, CISTERN, BOOSTED))
    tanks: tuple[Tank, ...] = parts("Tanks", Tank, 1, MOST_TANKS)
    tanks_above_m: float = quantity("Tanks above the gauge", "length", -100, 100, default=0.0)
    pump: Pump = part("Pump", variants("model", lambda: PUMPS))
    relief: Relief = part("Relief valve", Relief, default=Relief())
    supply: Supply = part("Supply", Supply, default=Supply())
    demand: Demand = part("Demand", Demand, default=Demand())
    found: Found = part("As found", Found, default=Found())

    @property
    def plain(self) -> bool:
        """Whether its tanks are plain ones, without a bladder."""
        return self.kind == PLAIN_WELL
