"""How a recorder's file is written: said once by a guess, corrected by a person, kept for that
recorder."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any
from zoneinfo import available_timezones

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, flag, parts, quantity, words
from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.units import factors

__all__ = ["FACTORS", "HELD", "SIGNALS", "TIME_STYLES", "Column", "Heading", "Layout"]

# What a unit is in SI, by what the column holds. Exact by definition (NIST SP 811, appendix B); a
# metre of water at 4 °C is conventional.
FACTORS: Mapping[str, Mapping[str, float]] = {
    "gauge": {
        **factors("psi", "bar", "mbar", "kPa", "MPa"),
        "Pa": 1.0,
        **factors("kgf/cm2"),
        "mH2O": 9806.65,
        "ftH2O": 2989.06692,
        "mA": 1e-3,
        "V": 1.0,
        "mV": 1e-3,
    },
    "current": {"A": 1.0, "mA": 1e-3},
    "flow": {
        **factors("gpm", "L/min"),
        "L/s": 1e-3,
        "L/h": 1e-3 / 3600,
        "m3/h": 1 / 3600,
        "m3/s": 1.0,
    },
}
HELD = tuple(FACTORS)
SIGNALS = ("mA", "V", "mV")  # of an instrument: what they stand for is told by its scale
_UNITS = tuple(dict.fromkeys(unit for units in FACTORS.values() for unit in units))
# Numbers that stand for times, in seconds each; Excel's days begin on 30 December 1899.
TIME_STYLES: Mapping[str, float] = {
    "epoch_s": 1.0,
    "epoch_ms": 1e-3,
    "epoch_us": 1e-6,
    "excel_days": 86400.0,
    "elapsed_s": 1.0,
    "elapsed_ms": 1e-3,
    "elapsed_min": 60.0,
    "elapsed_h": 3600.0,
}
# "pattern": by `pattern`, as strptime has it; "clock": a time of day
# alone; "words": each on its own, slowly; "none": by the rate.
_STYLES = (*TIME_STYLES, "pattern", "clock", "words", "none")
_MOST_PA = 1e9


@dataclass(frozen=True, kw_only=True)
class Column(Checked):
    """One column that is read: its place (from 0), what it holds and its unit. Of a signal in mA or
    volts, its ends (in that unit) and what they stand for (Pa
    gauge); absolute pressures are taken over the standard atmosphere."""

    at: int = quantity("Column", "number", 0, 999)
    holds: str = choice("Holds", HELD)
    unit: str = choice("Unit", _UNITS)
    signal_least: float | None = quantity("Signal at its least", "number", -1e4, 1e4, default=None)
    signal_most: float | None = quantity("Signal at its most", "number", -1e4, 1e4, default=None)
    stands_least_pa: float | None = quantity(
        "Least stands for", "pressure", -_MOST_PA, _MOST_PA, default=None
    )
    stands_most_pa: float | None = quantity(
        "Most stands for", "pressure", -_MOST_PA, _MOST_PA, default=None
    )

    absolute: bool | None = flag("Pressures are absolute")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """A unit of its own dimension; a signal has its scale."""
        holds, unit = values.get("holds"), values.get("unit")
        if holds is not None and unit is not None and unit not in FACTORS.get(holds, {}):
            yield Fault(
                path="unit", code="wrong_unit", title="Unit", says=f"does not measure {holds}."
            )
        ends = [values.get(name) for name in ("signal_least", "signal_most")]
        stands = [values.get(name) for name in ("stands_least_pa", "stands_most_pa")]
        if holds == "gauge" and unit in SIGNALS and not _is_scale(ends, stands):
            yield Fault(
                path="signal_least",
                code="no_scale",
                title="Scale",
                says="must say what the signal's two ends stand for.",
            )

    @property
    def line(self) -> tuple[float, float]:
        """Factor and offset that make SI of the column's numbers."""
        if self.holds == "gauge" and self.unit in SIGNALS:
            least, most = self.signal_least or 0.0, self.signal_most or 0.0
            low, high = self.stands_least_pa or 0.0, self.stands_most_pa or 0.0
            factor = (high - low) / (most - least)
            return factor, low - factor * least
        return FACTORS[self.holds][self.unit], -pressure_abs_pa(0.0) if self.absolute else 0.0


def _is_scale(ends: list[Any], stands: list[Any]) -> bool:
    return None not in (*ends, *stands) and ends[0] != ends[1] and stands[0] != stands[1]


@dataclass(frozen=True, kw_only=True)
class Heading(Checked):
    """The name over a column, as it stands in the file."""

    name: str = words("Name", 80)


@dataclass(frozen=True, kw_only=True)
class Layout(Checked):
    """A file's layout. `skipped` lines come before the first row of numbers; `times` are the places
    of the columns that together say the time (a date and a time of day, or one), joined by a
    space; `zone` an IANA name, or empty where the recorder's own clock is kept as it is."""

    packing: str = choice("Kind of file", ("text", "jsonl", "parquet"), default="text")
    encoding: str = choice("Letters", ("utf-8", "latin-1", "utf-16"), default="utf-8")
    separator: str = choice("Separator", (",", ";", "\t", "|", " "), default=",")
    decimal: str = choice("Decimal sign", (".", ","), default=".")
    skipped: int = quantity("Lines before the numbers", "number", 0, 10_000, default=0)
    style: str = choice("Times", _STYLES)
    pattern: str = words("Pattern of the times", 60)
    time_at: int = quantity("Column of the time", "number", 0, 999, default=0)
    clock_at: int | None = quantity("Column of the time of day", "number", 0, 999, default=None)
    every_s: float | None = quantity("A sample every", "duration", 1e-4, 86400, default=None)
    zone: str = words("Time zone", 40)
    names: tuple[Heading, ...] = parts("Names of the columns", Heading, 0, 1000)
    columns: tuple[Column, ...] = parts("Columns", Column, 1, 8)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """One column of pressure; what a style of times needs."""
        held = [each.holds for each in values.get("columns", ())]
        for name in HELD:
            if held.count(name) > 1 or (name == "gauge" and not held.count(name)):
                yield Fault(
                    path="columns",
                    code="which_column",
                    title="Columns",
                    says=f"must hold {'one' if name == 'gauge' else 'at most one'} of {name}.",
                )
        zone = values.get("zone")
        if zone and zone not in available_timezones():
            yield Fault(
                path="zone",
                code="unknown_zone",
                title="Time zone",
                says="is not known. Write it as Europe/Berlin, or leave it empty.",
            )
        if values.get("style") == "pattern" and not values.get("pattern"):
            yield Fault(path="pattern", code="missing", title="Pattern", says="is missing.")
        if values.get("style") == "none" and values.get("every_s") is None:
            yield Fault(path="every_s", code="missing", title="A sample every", says="is missing.")
        if values.get("decimal") == values.get("separator"):
            yield Fault(
                path="decimal", code="same", title="Decimal sign", says="is the separator, too."
            )
