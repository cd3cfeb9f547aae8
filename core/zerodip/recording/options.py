"""What a person tells of a recorder's file on the command line, over what was guessed."""

from dataclasses import dataclass, replace
from typing import Any

from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.fields import read
from zerodip.recording.layout import FACTORS, SIGNALS, Column, Layout
from zerodip.recording.scales import scale_in

__all__ = ["Told", "with_told"]

_BY_ORDER = {"day": ("%m", "%d"), "month": ("%d", "%m")}  # what comes first, and what in its place


@dataclass(frozen=True, kw_only=True)
class Told:
    """What is told of a file: the column of pressure (from 1), its unit, a signal's scale in words,
    the clock's zone, and whether the day or the month comes first in a date; None or empty for what
    is not."""

    column: int | None = None
    unit: str = ""
    scale: str = ""
    zone: str = ""
    first: str = ""


def with_told(layout: Layout, told: Told) -> Layout:
    """A layout with what a person told in place of what was guessed.

    Args:
        layout: The guess.
        told: What is told.

    Returns:
        The layout.

    Raises:
        InvalidInput: For what cannot be so, all faults at once.
    """
    gauge = next(each for each in layout.columns if each.holds == "gauge")
    made, faults = _column(gauge, told)
    others = [each for each in layout.columns if each.holds != "gauge" and each.at != made.at]
    raw: dict[str, Any] = {
        **layout.__dict__,
        "zone": told.zone or layout.zone,
        "pattern": _ordered(layout.pattern, told.first),
        "names": [each.__dict__ for each in layout.names],
        "columns": [each.__dict__ for each in (made, *others)],
    }
    checked, more = read(Layout, {key: value for key, value in raw.items() if value is not None})
    if checked is None or faults:
        raise InvalidInput([*faults, *more])
    return checked


def _column(gauge: Column, told: Told) -> tuple[Column, list[Fault]]:
    at = gauge.at if told.column is None else told.column - 1
    if told.scale:
        made = scale_in(told.scale, at)
        says = "is not understood. Write it as “4-20 mA = 0-10 bar”."
        wrong = Fault(path="scale", code="no_scale", title="Scale", says=says)
        return made or gauge, [] if made else [wrong]
    if told.unit and told.unit not in FACTORS["gauge"]:
        says = f"must be one of {', '.join(FACTORS['gauge'])}."
        return gauge, [Fault(path="unit", code="unknown_unit", title="Unit", says=says)]
    if told.unit in SIGNALS:
        says = "is a signal: say what it stands for with --scale."
        return gauge, [Fault(path="unit", code="no_scale", title="Unit", says=says)]
    if told.unit:
        return Column(at=at, holds="gauge", unit=told.unit, absolute=gauge.absolute), []
    return replace(gauge, at=at), []


def _ordered(pattern: str, first: str) -> str:
    """A date's pattern with the day or the month first."""
    if not first:
        return pattern
    early, late = _BY_ORDER[first]
    a, b = pattern.find(early), pattern.find(late)
    if a < 0 or b < 0 or b < a:
        return pattern
    return pattern.replace(early, "%?").replace(late, early).replace("%?", late)
