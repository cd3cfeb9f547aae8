"""The limits of a system, listed once. Marks and grips of the picture, rules, the next turn of a
nut, Rounds, Propose and the report all read this list."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any, Literal

from zerodip.kinds.figures import Figures
from zerodip.rules.sources import Source, practice
from zerodip.text.figure import Figure, Reading
from zerodip.text.writer import Writer
from zerodip.units import PSI

__all__ = [
    "SWITCH_HIGH",
    "SWITCH_LOW",
    "Limit",
    "LimitSpec",
    "highest_allowed_pa",
    "limits_of",
    "limits_to_read",
    "lowest_limit",
    "may_raise",
    "raised_to_pa",
    "rating",
]

_ROOM_PA = 3 * PSI  # what a nut needs below a limit, with a usual gauge, to be set for sure
RATING = practice("never exceed the lowest rating")
Bounds = Literal["cut_out", "cut_in"]
NOT_COUNTED = (
    "A range of the switch itself, read by its own scale: nothing is hurt by the gauge's error."
)


@dataclass(frozen=True, kw_only=True)
class LimitSpec:
    """How a kind declares one limit. `at` is the limit itself (Pa gauge), `allowed` what the point
    may be set to as the gauge shows it: less margin and gauge error. `hurts` tells that it must not
    be passed even for a moment, while a nut is tried; `asked` that it stands on a plate which is
    read as a matter of course. `holds` tells that a grip stops there, `there` whether this system
    has such a part at all."""

    id: str
    title: str
    bounds: Bounds
    at: Figure[Any]
    allowed: Figure[Any]
    reason: str
    source: Source
    error_counted: bool
    error_why: str
    hurts: bool = False
    asked: bool = True
    holds: bool = True
    lowest: bool = False
    there: Callable[[Any], bool] = lambda figures: True


@dataclass(frozen=True, kw_only=True)
class Limit:
    """One limit of one system. `gauge_pa` is the limit itself, `allowed_pa` what the point that it
    bounds may be set to (Pa gauge, as the gauge shows it); `error_counted` whether the gauge's
    error is taken off, and `error_why` why or why not. `lowest` tells that the point must lie above
    it rather than below."""

    id: str
    title: str
    bounds: Bounds
    gauge_pa: float
    allowed_pa: float
    reason: str
    source: str
    error_counted: bool
    error_why: str
    hurts: bool
    holds: bool
    lowest: bool


def limits_of(specs: Iterable[LimitSpec], figures: Figures, write: Writer) -> tuple[Limit, ...]:
    """The limits that are known, in the order of the kind's list, worded in the units of `write`.

    Args:
        specs: The kind's list.
        figures: The system's figures under its settings.
        write: Writes figures in the units asked for.

    Returns:
        The limits that are known, in order.
    """
    found = (
        (spec, getattr(figures, spec.at.name), getattr(figures, spec.allowed.name))
        for spec in specs
    )
    return tuple(_limit(spec, at, allowed, write) for spec, at, allowed in found if at is not None)


def _limit(spec: LimitSpec, at: float, allowed: float, write: Writer) -> Limit:
    return Limit(
        id=spec.id,
        title=spec.title,
        bounds=spec.bounds,
        gauge_pa=at,
        allowed_pa=allowed,
        reason=write.fill(spec.reason),
        source=spec.source.line,
        error_counted=spec.error_counted,
        error_why=spec.error_why,
        hurts=spec.hurts,
        holds=spec.holds,
        lowest=spec.lowest,
    )


def _bound(specs: Iterable[LimitSpec], figures: Figures, hurts: bool) -> list[LimitSpec]:
    """The limits that cut-out stays under. Where it `hurts`, those that must not be passed even for
    a moment; of a system on which no part has such a limit, all."""
    listed = [
        spec
        for spec in specs
        if spec.bounds == "cut_out" and not spec.lowest and spec.there(figures)
    ]
    hurting = [spec for spec in listed if spec.hurts]
    return hurting if hurts and hurting else listed


def _is_read(spec: LimitSpec, figures: Figures) -> bool:
    """Whether the limit is known and no usual value."""
    reading = spec.at.reading
    known = getattr(figures, spec.at.name) is not None
    return known and not (reading and figures.is_assumed(reading.path))


def lowest_limit(specs: Iterable[LimitSpec], figures: Figures) -> float | None:
    """The most that cut-out may be set to, by every limit that is known (Pa gauge); None where none
    is.

    Args:
        specs: The kind's list.
        figures: The system's figures under its settings.

    Returns:
        Gauge pressure, Pa; None where no limit is known.
    """
    return _lowest(_bound(specs, figures, hurts=False), figures)


def _lowest(specs: Iterable[LimitSpec], figures: Figures) -> float | None:
    values = (getattr(figures, spec.allowed.name) for spec in specs)
    return min((value for value in values if value is not None), default=None)


def highest_allowed_pa(specs: Iterable[LimitSpec], figures: Figures) -> float | None:
    """What cut-out may not pass even for a moment, by the limits that were read (Pa gauge); None
    where none was: then nothing may be raised. Of a system on which no part has such a limit, the
    lowest of the others.

    Args:
        specs: The kind's list.
        figures: The system's figures under its settings.

    Returns:
        Gauge pressure, Pa; None where no limit was read.
    """
    bound = _bound(specs, figures, hurts=True)
    return _lowest((spec for spec in bound if _is_read(spec, figures)), figures)


def raised_to_pa(specs: Iterable[LimitSpec], figures: Figures) -> float | None:
    """How far cut-out may be told to be raised: to where a switch can still be set with an eye on
    the gauge below every limit that must not be passed (Pa gauge). None where one of those that are
    asked for as a matter of course was not read.

    Args:
        specs: The kind's list.
        figures: The system's figures under its settings.

    Returns:
        Gauge pressure, Pa; None where nothing may be raised.

    Source: Common practice, no source.
    """
    bound = _bound(specs, figures, hurts=True)
    hurting = [spec for spec in bound if spec.hurts]
    if any(spec.asked and not _is_read(spec, figures) for spec in hurting):
        return None
    highest = highest_allowed_pa(bound, figures)
    return highest - _ROOM_PA if hurting and highest is not None else highest


def may_raise(specs: Iterable[LimitSpec], figures: Figures, to_pa: float) -> bool:
    """Whether cut-out may be told to be set to a pressure: lower than it is set always, but nothing
    is raised before the limits are read, nor so near to one that no nut can be set below it.

    Args:
        specs: The kind's list.
        figures: The system's figures under its settings.
        to_pa: Cut-out, Pa gauge.

    Returns:
        Whether it may.

    Source: Common practice, no source.
    """
    listed = tuple(specs)
    if highest_allowed_pa(listed, figures) is None and to_pa > figures.stands_pa + 1.0:
        return False  # not even back to where it once was set
    if to_pa <= figures.cut_out_pa + 1.0:
        return True
    raised_to = raised_to_pa(listed, figures)
    return raised_to is not None and to_pa <= raised_to + 1.0


def limits_to_read(specs: Iterable[LimitSpec], figures: Figures) -> tuple[Reading, ...]:
    """Where the limits that must not be passed even for a moment are read, as far as they were not.

    Args:
        specs: The kind's list.
        figures: The system's figures under its settings.

    Returns:
        The readings, in the order of the list.
    """
    return tuple(
        spec.at.reading
        for spec in _bound(specs, figures, hurts=True)
        if spec.at.reading and not _is_read(spec, figures)
    )


def rating(
    id: str,
    title: str,
    plate: str,
    at: Figure[Any],
    allowed: Figure[Any],
    error_why: str,
    source: Source = RATING,
    there: Callable[[Any], bool] = lambda figures: True,
    asked: bool = True,
) -> LimitSpec:
    """The limit of a plate or a valve: cut-out must not pass it even for a moment, whatever the
    gauge is off by.

    Args:
        id: Its id.
        title: What it is called beside the scale.
        plate: Where it is read, in words.
        at: The limit itself, Pa gauge.
        allowed: What the gauge may show, Pa gauge.
        error_why: Why the gauge's error is counted.
        source: Where it comes from.
        there: Whether a system has such a part.
        asked: Whether it is read as a matter of course.

    Returns:
        The limit.
    """
    return LimitSpec(
        id=id,
        title=title,
        bounds="cut_out",
        at=at,
        allowed=allowed,
        reason=f"Held at the {plate}, {at}, less {Figures.gauge_error_pa} for the gauge.",
        source=source,
        error_counted=True,
        error_why=error_why,
        hurts=True,
        asked=asked,
        there=there,
    )


SWITCH_HIGH = LimitSpec(
    id="switch",
    title="switch",
    bounds="cut_out",
    at=Figures.switch_most_out_pa,
    allowed=Figures.switch_most_out_pa,
    reason=f"Held at the switch's range, {Figures.switch_most_out_pa}.",
    source=practice("the range under the cover"),
    error_counted=False,
    error_why=NOT_COUNTED,
)
SWITCH_LOW = LimitSpec(
    id="switch-low",
    title="switch",
    bounds="cut_in",
    at=Figures.switch_least_in_pa,
    allowed=Figures.switch_least_in_pa,
    reason=f"Held at the low end of the switch's range, {Figures.switch_least_in_pa}.",
    source=practice("the range under the cover"),
    error_counted=False,
    error_why=NOT_COUNTED,
    lowest=True,
)
