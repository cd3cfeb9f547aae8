"""What every kind of system has: the conditions of its site, its switch, its relief, its pipes."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, flag, marks, part, quantity, words
from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.units import PSI

__all__ = ["PLACES", "Pipe", "Relief", "SiteConditions", "Switch", "System"]


PLACES = ("unsaid", "indoors", "cellar", "pit", "outdoors")


def _temperature(title: str) -> Any:
    return quantity(title, "temperature", 230, 330, default=None)


@dataclass(frozen=True, kw_only=True)
class SiteConditions(Checked):
    """Where the switch and the gauge stand. Altitude range is that of the troposphere formula
    (`zerodip.atmosphere`). Temperatures are of the tank's air: today, and over the year."""

    place: str = choice("The switch stands", PLACES, default="unsaid")
    altitude_m: float = quantity("Altitude", "length", -500, 9000, default=0.0)
    now_k: float | None = _temperature("Temperature at the tank today")
    mean_k: float | None = _temperature("The season's mean there")
    coldest_k: float | None = _temperature("Coldest there")
    warmest_k: float | None = _temperature("Warmest there")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        known = [
            (n, values[n])
            for n in ("coldest_k", "mean_k", "warmest_k")
            if values.get(n) is not None
        ]
        for (_, lower), (name, upper) in pairwise(known):
            if upper < lower:
                title = {"mean_k": "The season's mean there", "warmest_k": "Warmest there"}[name]
                yield Fault(
                    path=name, code="order", title=title, says="must not lie below the colder one."
                )


@dataclass(frozen=True, kw_only=True)
class Pipe(Checked):
    """A pipe, for its friction. `c_factor` is Hazen–Williams' (plastic about 150, old steel
    100)."""

    length_m: float = quantity("Pipe length", "length", 0, 1000)
    diameter_m: float = quantity("Pipe inside diameter", "diameter", 0.004, 0.3)
    c_factor: float = quantity("Hazen–Williams C", "number", 60, 160, default=140.0)


@dataclass(frozen=True, kw_only=True)
class Switch(Checked):
    """The pressure switch: how it is adjusted, its own range off its plate, and whether it trips
    for good at low pressure."""

    nuts: str = choice("Adjusting nuts", ("two", "one", "points"), default="two")
    low_pressure_cut_off: bool | None = flag("Low-pressure cut-off")
    trip_below_cut_in_pa: float = quantity(
        "Trip below cut-in", "pressure", 10e3, 300e3, default=10 * PSI
    )
    least_cut_in_gauge_pa: float | None = quantity(
        "Switch range: lowest cut-in", "pressure", 0, MOST_GAUGE_PA, default=None
    )
    most_cut_out_gauge_pa: float | None = quantity(
        "Switch range: highest cut-out", "pressure", 0, 4e6, default=None
    )
    least_differential_pa: float | None = quantity(
        "Least differential", "pressure", 0, 1e6, default=None
    )
    most_differential_pa: float | None = quantity(
        "Greatest differential", "pressure", 0, 2e6, default=None
    )
    earth_present: bool | None = flag("Earth wire at the switch")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        yield from _ordered(
            values,
            "least_cut_in_gauge_pa",
            "most_cut_out_gauge_pa",
            "Switch range: highest cut-out",
        )
        yield from _ordered(
            values, "least_differential_pa", "most_differential_pa", "Greatest differential"
        )


def _ordered(values: Mapping[str, Any], low: str, high: str, title: str) -> Iterable[Fault]:
    least, most = values.get(low), values.get(high)
    if least is not None and most is not None and most <= least:
        yield Fault(path=high, code="order", title=title, says="must lie above the least.")


@dataclass(frozen=True, kw_only=True)
class Relief(Checked):
    """The relief valve (on air, the safety valve): seen or not, and what it is set to."""

    present: bool | None = flag("Relief valve seen")
    setting_gauge_pa: float | None = quantity("Relief setting", "pressure", 30e3, 4e6, default=None)


@dataclass(frozen=True, kw_only=True)
class System(Checked):
    """Everything read off one system. Each kind adds its own parts (`zerodip.kinds`); these, all of
    them have. `assumed` are the paths of the file at which a usual value stands that nobody has
    read or set."""

    kind: str = words("Kind of system", 40)
    name: str = words("Name", 80)
    assumed: tuple[str, ...] = marks("Usual values, not read", 60)
    site: SiteConditions = part("Site", SiteConditions, default=SiteConditions())
    switch: Switch = part("Switch", Switch, default=Switch())

    def is_assumed(self, path: str) -> bool:
        """Whether a usual value stands at a path of the file, above or below it."""
        return any(
            path == at or path.startswith(f"{at}.") or at.startswith(f"{path}.")
            for at in self.assumed
        )
