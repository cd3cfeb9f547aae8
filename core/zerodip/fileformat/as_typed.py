"""A figure as somebody types it, with its unit: “38 psi”, “2.6 bar”, “1 min”."""

import re
from typing import Any

from zerodip.units import UNITS, measures, to_si

__all__ = ["as_typed"]

_FIGURE = re.compile(r"\s*([-+]?\d+(?:[.,]\d+)?)\s*(\S*)\s*")
_TIMES = {"min": 60.0, "h": 3600.0}  # a duration is told in seconds; it may be typed in these


def as_typed(value: Any, dimension: str) -> Any:
    """A figure in SI, whether it was given as a number in SI or typed with its unit.

    Args:
        value: A number in SI, or text such as “38 psi”; a decimal point or comma.
        dimension: What it measures.

    Returns:
        The figure in SI; whatever was given where that is no figure of the dimension, for who
        checks it to refuse.
    """
    found = _FIGURE.fullmatch(value) if isinstance(value, str) else None
    if found is None:
        return value
    number, unit = float(found[1].replace(",", ".")), found[2]
    if dimension == "duration" and unit in _TIMES:
        return number * _TIMES[unit]
    ids = (each.id for each in UNITS.values() if unit and unit.lower() in _names(each))
    known = next((id for id in ids if measures(id, dimension)), None)
    return value if known is None else to_si(number, known)


def _names(unit: Any) -> set[str]:
    return {unit.id.lower(), unit.symbol.lower()}
