"""Causes that every kind of system shares: power, motor, switch and gauge. Weights and chances are
judgement, no source."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from zerodip.diagnosis.parts import Cause, Size, Troubles
from zerodip.kinds.trouble_parts import (
    CONTACTS,
    ELECTRICIAN,
    GAUGE,
    NOTHING,
    POWER,
    SET,
    SWITCH,
)
from zerodip.kinds.trouble_plants import widening_helps
from zerodip.units import PSI

__all__ = [
    "HEALTHY",
    "NO_TROUBLES",
    "SWITCH_CAUSES",
    "changed",
    "cut_out_over",
    "drifts",
    "lost",
    "sized",
    "too_narrow",
]


def changed(**fields: Any) -> Callable[[Any], Any]:
    """A fault that puts figures of a plant elsewhere.

    Args:
        **fields: The plant's figures, by name.

    Returns:
        The change.
    """
    return lambda plant: replace(plant, **fields)


def sized(
    values: tuple[float, ...], dimension: str, says: str, name: str, below: str = ""
) -> Size[Any]:
    """A size that stands in one of the plant's figures by itself.

    Args:
        values: Values of like chance, SI, rising.
        dimension: Their dimension.
        says: Words with a place for the value.
        name: The plant's figure.
        below: The words for a value less than nothing.

    Returns:
        The size.
    """

    def change(plant: Any, value: float) -> Any:
        return replace(plant, **{name: value})

    return Size(values=values, dimension=dimension, says=says, change=change, says_below=below)


def lost(values: tuple[float, ...], says: str, name: str, delivered: str) -> Size[Any]:
    """What runs away, as shares of what is delivered.

    Args:
        values: Shares, rising.
        says: Words with a place for the share.
        name: The plant's figure that it stands in.
        delivered: The plant's figure of what is delivered.

    Returns:
        The size.
    """

    def change(plant: Any, value: float) -> Any:
        return replace(plant, **{name: value * getattr(plant, delivered)})

    return Size(values=values, dimension="share", says=says, change=change)


def cut_out_over(plant: Any, top_pa: float) -> Any:
    """Cut-out set where it is not reached.

    Args:
        plant: A plant.
        top_pa: Where cut-out stands, Pa gauge.

    Returns:
        The plant with its points there, or where they were read.
    """
    out = max(top_pa, plant.wanted[0] + PSI)
    there = plant.found or (plant.points[0], out)
    return replace(plant, moved=(0.0, out - plant.wanted[1]), points=there)


def too_narrow(weight: float, short_s: float, if_left: str, breaks: tuple[str, ...]) -> Cause[Any]:
    """Runs that are short because cut-in and cut-out were set too close to each other.

    Args:
        weight: How often it is met against the others.
        short_s: A run that is too short, s.
        if_left: What comes of it.
        breaks: The rules of Decide that it shows in.

    Returns:
        The cause; it takes the place of “nothing is wrong”.
    """
    return Cause(
        id="narrow",
        title="The differential as set is too narrow",
        weight=weight,
        remedy=SET,
        breaks=breaks,
        if_left=if_left,
        filed=lambda plant: True,
        look=("cut_in", "cut_out"),
        applies=lambda plant: plant.decided.run_s < short_s and widening_helps(plant, short_s),
    )


def drifts(plant: Any) -> Any:
    """Points that stand wherever they were seen last.

    Args:
        plant: A plant.

    Returns:
        The plant with points that wander.
    """
    return replace(plant, drifted=True, points=plant.found or plant.points)


def _gauge_off(plant: Any, low: float) -> Any:
    """A gauge that shows so much too little: points that were read on it stand higher by that."""
    there = tuple(max(point + low, PSI) for point in plant.found or ()) or plant.points
    return replace(plant, gauge_low_pa=low, points=there)


def _apart(lower: float, says: str, below: str) -> Size[Any]:
    """Points that stand away from where they were set: cut-out, and cut-in by a share of that."""

    def change(plant: Any, value: float) -> Any:
        moved = lower * value, value
        low, high = (point + step for point, step in zip(plant.wanted, moved, strict=True))
        there = (max(low, PSI), max(high, max(low, PSI) + PSI))
        return replace(plant, moved=moved, points=plant.found or there)

    values = tuple(psi * PSI for psi in (-18, -9, -6, -4, -2.5, 2.5, 4, 6, 9, 18, 32))
    return Size(values=values, dimension="pressure", says=says, change=change, says_below=below)


HEALTHY: Cause[Any] = Cause(
    id="healthy",
    title="Nothing is wrong: it is sized or used like this",
    weight=1,
    remedy=NOTHING,
    if_left="",
)
NO_TROUBLES: Troubles[Any] = Troubles(
    plant=lambda figures, seen: None, items=(), causes=(), healthy=HEALTHY
)
SWITCH_CAUSES: tuple[Cause[Any], ...] = (
    Cause(
        id="no_power",
        title="No power: breaker, fuse or supply",
        weight=6,
        remedy=POWER,
        if_left="It stays off.",
        seen={"breaker": 0.85, "no_volts": 0.95},
        change=changed(starts=False),
    ),
    Cause(
        id="overload",
        title="The motor, its capacitor or overload",
        weight=2.5,
        remedy=ELECTRICIAN,
        if_left="It burns out.",
        seen={"hums": 0.75, "breaker": 0.4},
        change=changed(starts=False, stalled=1.8),
    ),
    Cause(
        id="contacts",
        title="Contacts burnt or dirty",
        weight=5,
        remedy=CONTACTS,
        if_left="They weld shut or no longer close.",
        seen={"contacts": 0.97, "tap_switch": 0.55, "wander": 0.1, "pit_flooded": 0.2},
        look=("contacts",),
        change=changed(starts=False),
    ),
    Cause(
        id="welded",
        title="Contacts welded shut",
        weight=2,
        remedy=SWITCH,
        if_left="Nothing stops it but the relief or safety valve.",
        seen={"contacts": 0.97, "tap_switch": 0.2, "relief_spits": 0.5},
        look=("contacts",),
        change=changed(stops=False),
        danger="Stop: breaker off. The switch may no longer open.",
    ),
    Cause(
        id="wet",
        title="The switch is wet, or full of ants or dirt",
        weight=2.5,
        remedy=SWITCH,
        if_left="It shorts, or fails without a warning.",
        seen={"wet": 0.94, "wander": 0.25, "breaker": 0.35, "pit_flooded": 0.75},
        look=("wet",),
        change=changed(starts=False),
        danger="Live parts may be wet: breaker off before anything is touched.",
    ),
    Cause(
        id="diaphragm",
        title="Dirt under the switch’s diaphragm",
        weight=2.5,
        remedy=SWITCH,
        if_left="The points wander, and one day it does not stop.",
        seen={"wander": 0.92},
        look=("nipple", "cut_out"),
        change=drifts,
    ),
    Cause(
        id="points",
        title="Both points out of place",
        weight=8,
        remedy=SET,
        if_left="Runs and limits are not those worked out.",
        seen={"relief_spits": 0.2, "changed_points": 0.6},
        look=("cut_in", "cut_out"),
        size=_apart(1.0, "both points stand about {} high", "both points stand about {} low"),
    ),
    Cause(
        id="differential",
        title="The differential out of place",
        weight=6,
        remedy=SET,
        if_left="Runs and limits are not those worked out.",
        seen={"relief_spits": 0.15, "changed_points": 0.6},
        look=("cut_in", "cut_out"),
        size=_apart(0.0, "cut-out stands about {} high", "cut-out stands about {} low"),
    ),
    Cause(
        id="gauge_off",
        title="The gauge shows the wrong pressure",
        weight=3,
        remedy=GAUGE,
        if_left="Everything is set by a wrong figure.",
        seen={"gauge_differs": 0.92, "wander": 0.4},
        look=("gauge_differs", "zero"),
        size=Size(
            values=tuple(psi * PSI for psi in (-8, -5, 5, 8)),
            dimension="pressure",
            says="shows about {} too little",
            change=_gauge_off,
            says_below="shows about {} too much",
        ),
    ),
)
