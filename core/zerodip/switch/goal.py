"""What the setting is to reach, what it may not pass, and what a look and a power-off cost."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from zerodip.switch.belief import Belief
from zerodip.switch.classes import CUT_IN, CUT_OUT
from zerodip.switch.normal import chance_below
from zerodip.units import PSI

__all__ = [
    "HOW_NEARS",
    "SURE",
    "Goal",
    "HowNear",
    "Work",
    "aimed_points",
    "inside",
    "near_enough_pa",
    "radius_pa",
    "within",
]

SURE = 0.96


@dataclass(frozen=True, kw_only=True)
class Goal:
    """Where the points must come to (Pa gauge) and how near; `highest_pa` is what cut-out may never
    pass (None: not known, and then nothing is raised above `stood_pa`, where it was found),
    `most_pa` what it is not set above. `order` is all nuts in one power-off, or one nut at a time:
    "first" sets the first point before the second. `leave` names nuts that are not turned at all.
    `eager` turns rather than watch."""

    cut_in_pa: float
    cut_out_pa: float
    tolerance_pa: float = 1.0 * PSI
    highest_pa: float | None = None
    stood_pa: float | None = None
    most_pa: float = float("inf")
    order: str = "together"
    leave: frozenset[str] = frozenset()
    eager: bool = False

    def target_pa(self, point: int) -> float:
        """Where a point must come to, Pa gauge."""
        return self.cut_in_pa if point == CUT_IN else self.cut_out_pa


@dataclass(frozen=True, kw_only=True)
class Work:
    """What it takes: seconds of one look at a whole cycle, seconds of one power-off (breaker,
    proving dead, cover), how far a reading is off by chance (Pa, one standard deviation), and the
    seconds that points outside the tolerance are weighed with (common practice, no source)."""

    noise_pa: float
    look_s: float = 150.0
    power_off_s: float = 120.0
    missed_s: float = 1200.0


Near = Literal["gauge", "one", "two"]


@dataclass(frozen=True, kw_only=True)
class HowNear:
    """How near is near enough: within `near_pa` (None: as near as the gauge can tell), and the
    seconds that points outside it are weighed with."""

    id: Near
    near_pa: float | None
    missed_s: float

    def tolerance_pa(self, noise_pa: float) -> float:
        """The tolerance with a gauge whose readings are off by so much (Pa, one standard
        deviation)."""
        return near_enough_pa(noise_pa) if self.near_pa is None else self.near_pa


_CHOICES = (
    HowNear(id="gauge", near_pa=None, missed_s=1200.0),
    HowNear(id="one", near_pa=1 * PSI, missed_s=2400.0),  # whoever asks for a figure means it
    HowNear(id="two", near_pa=2 * PSI, missed_s=2400.0),
)
HOW_NEARS: dict[Near, HowNear] = {each.id: each for each in _CHOICES}


def near_enough_pa(noise_pa: float) -> float:
    """As near as a gauge can tell: what two looks after a turn are sure of for both points, but not
    nearer than 1 psi.

    Args:
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        A tolerance, Pa.

    Source: 2.24 standard deviations hold 97.5 % of a normal figure, and both points 95 %.
    """
    return max(1.0 * PSI, 2.24 / math.sqrt(2) * noise_pa)


def aimed_points(belief: Belief, goal: Goal) -> tuple[int, ...]:
    """The points that can be set: cut-out alone where one screw moves both, and cut-in alone where
    the nut for the other is left alone.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to.

    Returns:
        The points, `CUT_IN` and `CUT_OUT`.
    """
    if belief.of.follows:
        return (CUT_OUT,)
    left = {nut.sets for nut in belief.of.nuts if nut.id in goal.leave}
    return tuple(point for point in (CUT_IN, CUT_OUT) if point not in left) or (CUT_OUT,)


def within(belief: Belief, goal: Goal, near_pa: float | None = None) -> float:
    """The probability that the points lie within `near_pa` (Pa; the goal's tolerance if None) of
    their targets, both together, in each part.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to, and how near.
        near_pa: How near, Pa, above 0.

    Returns:
        Probability, 0 to 1.
    """
    near = goal.tolerance_pa if near_pa is None else near_pa
    points, total = aimed_points(belief, goal), 0.0
    for part in belief.parts:
        offs = [part.mean[point] - goal.target_pa(point) for point in points]
        sds = [math.sqrt(max(part.spread[point][point], 1e-6)) for point in points]
        if len(points) == 1:
            total += part.weight * inside(offs[0], sds[0], near)
        else:
            alike = part.spread[points[0]][points[1]] / (sds[0] * sds[1])
            total += part.weight * _both_inside(offs, sds, alike, near)
    return total


# Gauss–Legendre nodes and weights on -1..1, NIST Digital Library of Mathematical Functions, 3.5(v).
_NODES = (
    (0.1834346424956498, 0.3626837833783620),
    (0.5255324099163290, 0.3137066458778873),
    (0.7966664774136267, 0.2223810344533745),
    (0.9602898564975363, 0.1012285362903763),
)
_ALIKE = 0.02


def _both_inside(offs: Sequence[float], sds: Sequence[float], alike: float, near: float) -> float:
    """The chance that two normal figures with a correlation both lie within a distance of
    nothing: over the first, of what is left of the second."""
    if abs(alike) < _ALIKE:
        return inside(offs[0], sds[0], near) * inside(offs[1], sds[1], near)
    alike = min(max(alike, -0.9999), 0.9999)
    low, high = (max(min((end - offs[0]) / sds[0], 6.0), -6.0) for end in (-near, near))
    rest, total = sds[1] * math.sqrt(1 - alike * alike), 0.0
    for begin, end in pairwise((low, (low + high) / 2, high)):
        middle, half = (begin + end) / 2, (end - begin) / 2
        for node, weight in ((sign * n, w) for n, w in _NODES for sign in (-1, 1)):
            z = middle + half * node
            density = math.exp(-0.5 * z * z) / math.sqrt(2 * math.pi)
            left = inside(offs[1] + alike * sds[1] * z, rest, near)
            total += half * weight * density * left
    return total


def inside(off: float, sd: float, near: float) -> float:
    """The chance that a normal figure lies within a distance of nothing.

    Args:
        off: Its mean.
        sd: Its standard deviation, above 0.
        near: The distance, in the same unit.

    Returns:
        Probability, 0 to 1.
    """
    return chance_below((near - off) / sd) - chance_below((-near - off) / sd)


def radius_pa(belief: Belief, goal: Goal, sure: float = SURE) -> float:
    """How near both points surely lie: the least distance from their targets within which they are
    with the probability `sure`.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to.
        sure: Probability, above 0 and below 1.

    Returns:
        Distance, Pa.
    """
    low, high, under = 0.0, goal.tolerance_pa, -sure
    over = within(belief, goal, high) - sure
    while over < 0:
        low, high, under = high, 2 * high, over
        over = within(belief, goal, high) - sure
    while high - low > 1e-3 * high and over > 1e-4:
        # A third of the way towards the middle: neither end may stay where it is for long.
        line = (low * over - high * under) / (over - under)
        middle = (2 * line + 0.5 * (low + high)) / 3
        value = within(belief, goal, middle) - sure
        if value >= 0:
            high, over = middle, value
        else:
            low, under = middle, value
    return high
