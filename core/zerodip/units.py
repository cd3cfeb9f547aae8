"""The only conversions: dimensions, unit systems and how finely each unit is shown.

A value inside the program is SI. `to_si` and `from_si` cross the boundary; `text` writes a value
for a person. Factors are exact by definition: 1 psi = 6894.757293168 Pa, 1 US gal = 3.785411784 L,
1 ft = 0.3048 m, 1 ft³ = 28.316846592 L, 1 in = 25.4 mm, 1 hp = 745.69987158227 W (NIST SP 811,
appendix B). Columns of mercury and of water are the conventional ones of the same table, to its
seven figures: 1 inHg = 3386.389 Pa, 1 mmHg = 133.3224 Pa, 1 inH₂O = 249.0889 Pa.

A *scale* is what an instrument is marked in: it stands where a unit system stands, for its
pressures; all else is told in the system it goes with.
"""

from dataclasses import dataclass
from functools import cache
from types import MappingProxyType
from typing import Any

__all__ = [
    "DIMENSIONS",
    "PSI",
    "SCALES",
    "SYSTEMS",
    "TOLD",
    "Unit",
    "UnknownUnit",
    "as_written",
    "band",
    "factors",
    "from_si",
    "measures",
    "number",
    "table",
    "text",
    "to_si",
    "unit_for",
]


PSI = 6894.757293168  # Pa
_NO_END = float("inf")
_PLACES = ("%.0f", "%.1f", "%.2f", "%.3f")


class UnknownUnit(KeyError):
    """A unit, dimension or unit system that is not in the table; carries the name asked for."""

    code = "unknown_unit"

    def __init__(self, kind: str, name: str) -> None:
        super().__init__(f"unknown {kind}: {name}")
        self.kind, self.name = kind, name


@dataclass(frozen=True)
class Unit:
    """value_si = value · factor + offset. `decimals` is how finely it is read off an instrument;
    `step` is one key press."""

    id: str
    symbol: str
    factor: float
    offset: float = 0.0
    decimals: int = 1
    step: float = 1.0


_UNITS = (
    Unit("psi", "psi", PSI, decimals=1, step=1),
    Unit("bar", "bar", 1e5, decimals=2, step=0.05),
    Unit("kPa", "kPa", 1e3, decimals=0, step=5),
    Unit("MPa", "MPa", 1e6, decimals=3, step=0.005),
    Unit("mbar", "mbar", 1e2, decimals=0, step=10),
    Unit("kgf/cm2", "kgf/cm²", 98066.5, decimals=2, step=0.05),
    Unit("inHg", "inHg", 3386.389, decimals=1, step=0.5),
    Unit("mmHg", "mmHg", 133.3224, decimals=0, step=5),
    Unit("inH2O", "inH₂O", 249.0889, decimals=1, step=1),
    Unit("gal", "gal", 3.785411784e-3, decimals=1, step=1),
    Unit("L", "L", 1e-3, decimals=0, step=1),
    Unit("gpm", "gpm", 3.785411784e-3 / 60, decimals=1, step=0.5),
    Unit("L/min", "L/min", 1e-3 / 60, decimals=0, step=1),
    Unit("ft", "ft", 0.3048, decimals=0, step=1),
    Unit("m", "m", 1.0, decimals=1, step=1),
    Unit("in", "in", 0.0254, decimals=2, step=0.25),
    Unit("mm", "mm", 1e-3, decimals=0, step=1),
    Unit("degF", "°F", 5 / 9, offset=273.15 - 32 * 5 / 9, decimals=0, step=1),
    Unit("degC", "°C", 1.0, offset=273.15, decimals=0, step=1),
    Unit("F", "°F", 5 / 9, decimals=0, step=1),
    Unit("K", "K", 1.0, decimals=0, step=1),
    Unit("hp", "hp", 745.69987158227, decimals=2, step=0.25),
    Unit("kW", "kW", 1e3, decimals=2, step=0.1),
    Unit("s", "s", 1.0, decimals=0, step=1),
    Unit("per_hour", "/h", 1 / 3600, decimals=0, step=1),
    Unit("per_minute", "/min", 1 / 60, decimals=1, step=1),
    Unit("per_day", "/day", 1 / 86400, decimals=0, step=1),
    Unit("ft3", "ft³", 0.028316846592, decimals=2, step=0.5),
    Unit("cfm", "cfm", 0.028316846592 / 60, decimals=1, step=0.5),
    Unit("V", "V", 1.0, decimals=1, step=0.1),
    Unit("percent", "%", 0.01, decimals=0, step=5),
    Unit("years", "y", 1.0, decimals=1, step=1),
    Unit("one", "", 1.0, decimals=2, step=1),
)
UNITS = MappingProxyType({unit.id: unit for unit in _UNITS})

# dimension: (us, metric, kpa)
_CHOICES = {
    "pressure": ("psi", "bar", "kPa"),
    "volume": ("gal", "L", "L"),
    "flow": ("gpm", "L/min", "L/min"),
    "air_volume": ("ft3", "L", "L"),
    "air_flow": ("cfm", "L/min", "L/min"),
    "voltage": ("V", "V", "V"),
    "share": ("percent", "percent", "percent"),
    "length": ("ft", "m", "m"),
    "diameter": ("in", "mm", "mm"),
    "temperature": ("degF", "degC", "degC"),
    "temperature_step": ("F", "K", "K"),
    "power": ("hp", "kW", "kW"),
    "duration": ("s", "s", "s"),
    "rate": ("per_hour", "per_hour", "per_hour"),
    "per_minute": ("per_minute", "per_minute", "per_minute"),
    "daily": ("per_day", "per_day", "per_day"),
    "years": ("years", "years", "years"),
    "number": ("one", "one", "one"),
}
DIMENSIONS = tuple(_CHOICES)
SYSTEMS = ("us", "metric", "kpa")
SYSTEM_TITLES = MappingProxyType({"us": "psi · gal", "metric": "bar · L", "kpa": "kPa · L"})
# A scale has the id of its unit.
SCALES = MappingProxyType(
    {"psi": "us", "inHg": "us", "inH2O": "us", "bar": "metric", "mbar": "metric"}
    | {"kPa": "kpa", "MPa": "kpa", "mmHg": "metric", "kgf/cm2": "metric"}
)
_BY_SYSTEM = {
    system: {dimension: UNITS[ids[at]] for dimension, ids in _CHOICES.items()}
    for at, system in enumerate(SYSTEMS)
}
_BY_SYSTEM |= {
    scale: {**_BY_SYSTEM[system], "pressure": UNITS[scale]} for scale, system in SCALES.items()
}
TOLD = tuple(_BY_SYSTEM)  # in what texts may be told: unit systems and scales


def unit_for(dimension: str, system: str) -> Unit:
    """The unit that `system` ("us", "metric", "kpa", or a scale) uses for `dimension`. Raises
    UnknownUnit."""
    if system not in _BY_SYSTEM:
        raise UnknownUnit("unit system", system)
    if dimension not in _BY_SYSTEM[system]:
        raise UnknownUnit("dimension", dimension)
    return _BY_SYSTEM[system][dimension]


def to_si(value: float, unit: str) -> float:
    """`value` in the unit with id `unit`, in SI. Raises UnknownUnit."""
    if unit not in UNITS:
        raise UnknownUnit("unit", unit)
    return value * UNITS[unit].factor + UNITS[unit].offset


def from_si(value: float, unit: str) -> float:
    """`value` in SI, in the unit with id `unit`; the inverse of `to_si`. Raises UnknownUnit."""
    if unit not in UNITS:
        raise UnknownUnit("unit", unit)
    return (value - UNITS[unit].offset) / UNITS[unit].factor


def factors(*units: str) -> dict[str, float]:
    """What one of each unit is in SI, for units that begin at nothing. Raises UnknownUnit."""
    return {unit: to_si(1.0, unit) for unit in units}


def measures(unit: str, dimension: str) -> bool:
    """Whether the unit with id `unit` is one in which `dimension` may be written."""
    if dimension == "pressure" and unit in SCALES:
        return True
    return dimension in _CHOICES and unit in _CHOICES[dimension]


@cache
def _writing(dimension: str, system: str) -> tuple[float, float, int, str]:
    unit = unit_for(dimension, system)
    gap = "" if unit.symbol.startswith("/") else " "
    return unit.factor, unit.offset, unit.decimals, f"{gap}{unit.symbol}".rstrip()


def text(value: float | None, dimension: str, system: str) -> str:
    """`value` (SI) with its unit, as a person writes it: "11.5 gal". The unit's fineness, at least
    one decimal below ten and two below one, no idle zeros, thousands apart. None is "not known".
    Raises UnknownUnit."""
    if value is None:
        return "not known"
    if value == _NO_END:
        return "without pause" if dimension in ("rate", "per_minute") else "no end"
    factor, offset, decimals, unit = _writing(dimension, system)
    shown = (value - offset) / factor
    size = -shown if shown < 0 else shown
    if size >= 1000:
        return f"{shown:,.0f}{unit}"
    least = 2 if size < 1 else 1 if size < 10 else 0
    places = decimals if decimals > least else least
    if not places:
        return f"{shown:.0f}{unit}"
    bare = (_PLACES[places] % shown).rstrip("0").rstrip(".")
    return f"0{unit}" if bare == "-0" else bare + unit


def number(value: float, dimension: str, system: str) -> str:
    """`value` (SI) as `text` writes it, without its unit. Raises UnknownUnit."""
    return text(value, dimension, system).removesuffix(_writing(dimension, system)[3])


def as_written(value: float, dimension: str, system: str) -> float:
    """`value` (SI) as exactly as `text` writes it: what somebody sets who reads it. Raises
    UnknownUnit."""
    factor, offset, _, _ = _writing(dimension, system)
    return float(number(value, dimension, system).replace(",", "")) * factor + offset


def band(low_pa: float, high_pa: float, system: str) -> str:
    """Two gauge pressures (Pa) as a person says a switch setting: "40/60 psi". Raises
    UnknownUnit."""
    return f"{number(low_pa, 'pressure', system)}/{text(high_pa, 'pressure', system)}"


def table() -> dict[str, Any]:
    """Dimensions, systems and units as plain JSON values, for an interface to convert display and
    input by."""
    return {
        "systems": [{"id": system, "title": SYSTEM_TITLES[system]} for system in SYSTEMS],
        "scales": dict(SCALES),
        "dimensions": {
            dimension: dict(zip(SYSTEMS, ids, strict=True)) for dimension, ids in _CHOICES.items()
        },
        "units": {unit.id: {k: v for k, v in vars(unit).items() if k != "id"} for unit in _UNITS},
    }
