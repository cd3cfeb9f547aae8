"""Classes of switches by their nuts, and what is known of a switch before it was ever turned.

How far a turn moves a point differs tenfold between switches: water switches 1 to 6 psi a turn,
compressor screws 6 to 64 (common practice, no source). So the prior of a slope is log-normal, with
three in a hundred of it spread evenly over everything that was ever seen, as a few parts with a
chance each.
"""

import math
from dataclasses import dataclass, replace
from functools import cached_property

from zerodip.units import PSI

__all__ = [
    "CLASSES",
    "CUT_IN",
    "CUT_OUT",
    "RELATIVE",
    "STIFF",
    "Nut",
    "SwitchClass",
    "class_of",
    "scales",
]

CUT_IN, CUT_OUT = 0, 1
_RATIO = 1.6
RELATIVE = 0.27  # of a part's slope: its spread, so that neighbouring parts meet
_EVENLY = 0.03
_SOFT = 0.1

Scales = tuple[tuple[float, float], ...]


def scales(median: float, sigma: float, least: float, most: float) -> Scales:
    """Chances and slopes of the parts of a prior of how far a turn moves a point.

    Args:
        median: The usual slope, psi a turn, above 0.
        sigma: Standard deviation of its natural logarithm, above 0.
        least: The least that was ever seen, psi a turn, above 0.
        most: The most, psi a turn, above the least.

    Returns:
        Chances (their sum is 1) and slopes (Pa a turn).
    """
    count = round(math.log(most / least, _RATIO)) + 1
    slopes = [least * _RATIO**k for k in range(count)]
    usual = [math.exp(-0.5 * (math.log(slope / median) / sigma) ** 2) for slope in slopes]
    whole = math.fsum(usual)
    chances = [(1 - _EVENLY) * each / whole + _EVENLY / count for each in usual]
    return tuple((chance, slope * PSI) for chance, slope in zip(chances, slopes, strict=True))


@dataclass(frozen=True, kw_only=True)
class Nut:
    """One nut or screw: its name, the point that it is there to set, which of cut-in and cut-out it
    moves (`cross_pa`: the spread of its slope on one that it should not), how far (chances and
    slopes, Pa a turn), and how alike both slopes are (a correlation)."""

    id: str
    title: str
    sets: int
    moves: tuple[bool, bool]
    scales_pa: Scales
    cross_pa: float = 0.0
    alike: float = 0.0

    @property
    def least_pa(self) -> float:
        """The least that a turn of such a nut moves its point, Pa."""
        return self.scales_pa[0][1]

    @property
    def usual_pa(self) -> float:
        """What a turn of such a nut usually moves its point, Pa."""
        return math.fsum(chance * slope for chance, slope in self.scales_pa)

    @cached_property
    def soft_pa(self) -> float:
        """What a turn moves its point at least, with nine such nuts of ten, Pa."""
        passed = 0.0
        for chance, slope in self.scales_pa:
            passed += chance
            if passed > _SOFT:
                return slope
        return self.scales_pa[-1][1]

    @property
    def most_pa(self) -> float:
        """The most that a turn of such a nut moves a point, Pa: a little beyond its last part."""
        return 1.1 * self.scales_pa[-1][1]


@dataclass(frozen=True, kw_only=True)
class SwitchClass:
    """A class of switch by its nuts. `drift_pa` is how far a point wanders by itself with each try;
    `follows` tells that cut-in cannot be set by itself; `begin` is the furthest that an unknown nut
    is turned at first, `finest` the least that it can be turned by eye."""

    id: str
    nuts: tuple[Nut, ...]
    drift_pa: float
    follows: bool = False
    begin: float = 6.0
    finest: float = 0.125


_TWO = SwitchClass(
    id="two",
    nuts=(
        Nut(
            id="range",
            title="range nut",
            sets=CUT_IN,
            moves=(True, True),
            scales_pa=scales(2.5, 0.25, 0.9, 9.4),
            alike=0.93,
        ),
        Nut(
            id="differential",
            title="differential nut",
            sets=CUT_OUT,
            moves=(False, True),
            scales_pa=scales(3.2, 0.3, 0.9, 9.4),
            cross_pa=0.12 * PSI,
        ),
    ),
    drift_pa=0.2 * PSI,
)
_ONE = SwitchClass(
    id="one",
    nuts=(
        Nut(
            id="screw",
            title="screw",
            sets=CUT_OUT,
            moves=(True, True),
            scales_pa=scales(4.0, 0.6, 0.9, 16.8),
            alike=0.93,
        ),
    ),
    drift_pa=0.2 * PSI,
    follows=True,
    begin=0.5,
)
_POINTS = SwitchClass(
    id="points",
    nuts=(
        Nut(
            id="upper",
            title="upper set-point screw",
            sets=CUT_OUT,
            moves=(False, True),
            scales_pa=scales(4.0, 0.5, 1.0, 16.8),
            cross_pa=0.2 * PSI,
        ),
        Nut(
            id="lower",
            title="lower set-point screw",
            sets=CUT_IN,
            moves=(True, False),
            scales_pa=scales(4.0, 0.5, 1.0, 16.8),
            cross_pa=0.2 * PSI,
        ),
    ),
    drift_pa=0.2 * PSI,
)
CLASSES: dict[str, SwitchClass] = {each.id: each for each in (_TWO, _ONE, _POINTS)}


def _stiff(of: SwitchClass) -> SwitchClass:
    """The same nuts over the springs of a compressor's switch."""
    stiffer = scales(9.0, 0.8, 1.0, 68.7)
    nuts = tuple(replace(nut, scales_pa=stiffer) for nut in of.nuts)
    return replace(of, nuts=nuts, drift_pa=0.3 * PSI, begin=0.125, finest=0.0625)


STIFF: dict[str, SwitchClass] = {id: _stiff(of) for id, of in CLASSES.items()}


def class_of(id: str, stiff: bool) -> SwitchClass:
    """A class of switch by its nuts ("two", "one", "points"), over the springs that a kind of
    system has.

    Args:
        id: Id of the class.
        stiff: Whether its springs are those of a compressor's switch.

    Returns:
        The class.

    Raises:
        KeyError: For a class that there is none of.
    """
    return (STIFF if stiff else CLASSES)[id]
