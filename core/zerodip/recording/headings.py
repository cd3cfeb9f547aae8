"""What columns hold and in which units, by the names over them and, failing that, by their
figures."""

import re
from collections.abc import Mapping, Sequence
from contextlib import suppress
from statistics import median

from zerodip.recording.layout import SIGNALS, Column
from zerodip.recording.scales import scale_in

__all__ = ["columns_of"]

# Most telling first; whole words, in the languages recorders speak.
_UNITS = (
    ("gauge", "kgf/cm2", r"kgf?/cm[2²]"),
    ("gauge", "psi", r"psi[agd]?|lbf?/in[2²]|pounds"),
    ("gauge", "mbar", r"mbar[ag]?|hpa"),
    ("gauge", "bar", r"bar[ag]?"),
    ("gauge", "kPa", r"kpa"),
    ("gauge", "MPa", r"mpa"),
    ("gauge", "Pa", r"pa"),
    ("gauge", "mH2O", r"m ?h2o|mwc|mws|mwk"),
    ("gauge", "ftH2O", r"ft ?h2o|ftwc"),
    ("flow", "gpm", r"gpm|gal(/|[_ ]per[_ ])min"),
    ("flow", "L/min", r"l(/|[_ ]per[_ ])min|lpm"),
    ("flow", "L/s", r"l(/|[_ ]per[_ ])s(ec)?|lps"),
    ("flow", "L/h", r"l(/|[_ ]per[_ ])h|lph"),
    ("flow", "m3/h", r"m[3³](/|[_ ]per[_ ])h"),
    ("current", "A", r"amps?|amperes?"),
    ("gauge", "mA", r"ma"),
    ("gauge", "mV", r"mv"),
    ("gauge", "V", r"volts?"),
)
# One letter is a unit only in brackets or behind a stroke, whatever stands before it.
_LETTERS = (("current", "A", r"[(\[]a[)\]]|/ ?a$"), ("gauge", "V", r"[(\[]v[)\]]|/ ?v$"))
_NAMES = (
    ("gauge", r"press|druck|presi|gauge|manom"),
    ("current", r"current|amp|strom|courant|corrente"),
    ("flow", r"flow|durchfl|d[eé]bit|caudal|portata"),
)
_USUAL = {"gauge": "psi", "current": "A", "flow": "gpm"}
_ABSOLUTE = re.compile(r"psia\b|bara\b|\babs", re.IGNORECASE)
# Of figures without a unit: the pressures of houses lie thus. Common practice, no source.
_BY_SIZE = ((0.7, "MPa"), (15.0, "bar"), (140.0, "psi"), (20e3, "kPa"), (1e9, "Pa"))
_BAR = 1e5


def columns_of(
    columns: Mapping[int, Sequence[str]], headings: Sequence[str], chatter: str
) -> tuple[tuple[Column, ...], list[str]]:
    """The columns that are read, at most one of each, and what is not sure about them.

    Args:
        columns: Columns of figures, by their place.
        headings: Names over all columns; may be empty.
        chatter: The lines before the table, which may name a unit.

    Returns:
        The columns, and doubts in words.
    """
    names = {at: headings[at] if at < len(headings) else "" for at in columns}
    known = {at: _known(name) for at, name in names.items()}
    scales = {at: _scale(name, known[at][1], chatter, at) for at, name in names.items()}
    gauge = _gauge_at(columns, known, scales)
    scaled = scales[gauge]
    made: list[tuple[Column, list[str]]] = [
        (scaled, [])
        if scaled
        else _gauge(gauge, columns[gauge], names[gauge], known[gauge][1], chatter)
    ]
    doubts = made[0][1]
    for at, (holds, unit) in known.items():
        if holds in ("current", "flow") and at != gauge and holds not in {c.holds for c, _ in made}:
            made.append((Column(at=at, holds=holds, unit=unit or _USUAL[holds]), []))
    return tuple(column for column, _ in made), doubts


def _known(name: str) -> tuple[str, str]:
    """What a name says: what the column holds, and its unit; empty where it does not."""
    low = name.lower()
    by_name = next((holds for holds, sign in _NAMES if re.search(sign, low)), "")
    for holds, unit, sign in _UNITS:
        if re.search(rf"(?<![a-z/])({sign})(?![a-z0-9/²³])", low):
            if by_name == "current" and unit == "mA":
                return "current", "mA"
            if not by_name or by_name == holds:
                return holds, unit
    for holds, unit, sign in _LETTERS:
        if re.search(sign, low) and by_name in ("", holds):
            return holds, unit
    return by_name, ""


def _scale(name: str, unit: str, chatter: str, at: int) -> Column | None:
    """The scale of a signal, by its name; by the lines before the table where it is of that
    signal."""
    made = scale_in(name, at)
    if made is None and unit in SIGNALS:
        made = scale_in(chatter, at)
    return made if made is None or made.unit == unit else None


def _gauge_at(
    columns: Mapping[int, Sequence[str]],
    known: Mapping[int, tuple[str, str]],
    scales: Mapping[int, Column | None],
) -> int:
    """The column of pressure: the one that says so, with a unit of pressure or a signal with its
    scale rather than a signal alone; else the first that says nothing."""
    rank = {
        at: (
            (holds == "gauge" and unit not in (*SIGNALS, "")) or scales[at] is not None,
            holds == "gauge",
            not holds,
            -at,
        )
        for at, (holds, unit) in known.items()
    }
    return max(columns, key=lambda at: rank[at])


def _gauge(
    at: int, figures: Sequence[str], name: str, unit: str, chatter: str
) -> tuple[Column, list[str]]:
    doubts = []
    for said in (figures[0], chatter):
        if not unit:
            holds, found = _known(said)
            unit = found if holds == "gauge" else ""
    if unit in SIGNALS:
        low, high = {"mA": (4.0, 20.0), "V": (0.0, 10.0), "mV": (0.0, 100.0)}[unit]
        doubts.append(
            f"{low:g} to {high:g} {unit} is taken as 0 to 10 bar: enter the sensor’s own range."
        )
        ends = Column(
            at=at,
            holds="gauge",
            unit=unit,
            signal_least=low,
            signal_most=high,
            stands_least_pa=0.0,
            stands_most_pa=10 * _BAR,
        )
        return ends, doubts
    if not unit:
        size = abs(median(_figures(figures) or [0.0]))
        unit = next(unit for most, unit in _BY_SIZE if size <= most or unit == "Pa")
        doubts.append(f"No unit is named: taken as {unit}, by the size of the figures.")
    absolute = bool(_ABSOLUTE.search(name)) or None
    return Column(at=at, holds="gauge", unit=unit, absolute=absolute), doubts


def _figures(texts: Sequence[str]) -> list[float]:
    made = []
    for text in texts:
        if found := re.match(r"[-+\d.]+", text.replace(",", ".")):
            with suppress(ValueError):
                made.append(float(found[0]))
    return made
