"""What is believed of one switch: where its points stand and how far each nut moves them, with the
uncertainty of all.

The points move linearly with the turns; readings are noisy; how far a turn goes differs tenfold
between switches. So the belief is a mixture: each part takes a nut to move so many psi a turn, give
or take a quarter, and is a joint normal distribution moved by turns (prediction) and sharpened by
readings (update): Bayesian linear regression, step by step (a Kalman filter). The parts' weights
follow the readings, so that one turn tells a stiff screw from a soft one. Pressures in Pa gauge,
turns clockwise positive. Source: Bayes' rule for normal distributions and their mixtures (physics
of the spring: linear; priors: common practice, no source).
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import product
from typing import NamedTuple

from zerodip.switch.classes import CUT_IN, CUT_OUT, RELATIVE, Nut, SwitchClass
from zerodip.switch.normal import chance_below
from zerodip.units import PSI

__all__ = [
    "Belief",
    "Part",
    "Slopes",
    "Travel",
    "Watch",
    "chance_above",
    "predict",
    "prior",
    "update",
]

Matrix = tuple[tuple[float, ...], ...]
Slopes = Mapping[tuple[str, int], tuple[float, float]]
_WIDER, _LEAST_SPREAD_PA = 1.3, 0.05 * PSI  # what was learned is kept a little wider than learned
_FORGOTTEN = 0.02  # that it is another switch than was learned of, and nobody said so
_NEGLIGIBLE = 1e-11
_HAND = 0.02  # turns: how exactly a nut is turned by eye, and the slack where it turns back


@dataclass(frozen=True)
class Watch:
    """One look at both points (Pa gauge), and the turns made since the look before (none: only
    watched again)."""

    cut_in_pa: float
    cut_out_pa: float
    turns: tuple[float, ...]


@dataclass(frozen=True)
class Part:
    """One part of a belief: its weight, means and covariances of [cut-in, cut-out, then per nut its
    slope on cut-in and on cut-out], Pa and Pa per turn."""

    weight: float
    mean: tuple[float, ...]
    spread: Matrix

    def after(self, turns: Sequence[float], point: int, drift_pa: float) -> tuple[float, float]:
        """Mean and standard deviation of a point after turning each nut by `turns`, Pa."""
        at = [2 + 2 * nut + point for nut in range(len(turns))]
        mean, variance = self.mean[point], self.spread[point][point] + drift_pa**2 * any(turns)
        for i, turn in zip(at, turns, strict=True):
            mean += turn * self.mean[i]
            variance += (_HAND * self.mean[i]) ** 2 * bool(turn)
            row = self.spread[i]
            variance += turn * (
                2 * row[point] + math.fsum(t * row[j] for j, t in zip(at, turns, strict=True))
            )
        return mean, math.sqrt(max(variance, 1e-6))


@dataclass(frozen=True)
class Travel:
    """One nut: the last stretch of turns in one direction (clockwise positive), how much of it may
    have been idle, how far it moved its point (Pa), whether that shows, or shows the other way,
    whether the gauge stood still and nobody looked again; how many stretches showed, and the
    largest slope that the nut may have by them (Pa a turn; None while it may have any)."""

    stretch: float = 0.0
    idle: float = 0.0
    moved_pa: float = 0.0
    off_pa: float = 0.0
    shown: bool = False
    against: bool = False
    hidden: bool = False
    engaged: int = 0
    steepest_pa: float | None = None

    @property
    def unshown(self) -> float:
        """Turns that moved nothing yet."""
        return 0.0 if self.shown else self.stretch


@dataclass(frozen=True)
class Belief:
    """What is believed of a switch of a class, as a mixture of parts; `travels` is what the turns
    of each nut have shown (`zerodip.switch.travel`), none before any was turned, `at_most_pa` what
    cut-out surely is not above by the last look alone (Pa gauge), and `evidence` how well the
    readings were foretold (logarithm of their density, but for a constant)."""

    of: SwitchClass
    parts: tuple[Part, ...]
    travels: tuple[Travel, ...] = ()
    at_most_pa: float = -math.inf
    evidence: float = 0.0

    @cached_property
    def mean(self) -> tuple[float, ...]:
        """Means of the whole, in the order of its parts' means."""
        size = range(len(self.parts[0].mean))
        return tuple(math.fsum(part.weight * part.mean[i] for part in self.parts) for i in size)

    @cached_property
    def spread(self) -> Matrix:
        """Covariances of the whole: within its parts, and between them."""
        size, mean = range(len(self.mean)), self.mean
        return tuple(
            tuple(
                math.fsum(
                    p.weight * (p.spread[i][j] + (p.mean[i] - mean[i]) * (p.mean[j] - mean[j]))
                    for p in self.parts
                )
                for j in size
            )
            for i in size
        )

    def sd(self, point: int) -> float:
        """Standard deviation of a point, Pa."""
        return math.sqrt(max(self.spread[point][point], 0.0))

    def slope(self, nut: int, point: int) -> tuple[float, float]:
        """Mean and standard deviation of a nut's slope on a point, Pa per turn."""
        at = 2 + 2 * nut + point
        return self.mean[at], math.sqrt(max(self.spread[at][at], 0.0))


def prior(
    of: SwitchClass,
    cut_in_pa: float,
    cut_out_pa: float,
    noise_pa: float,
    learned: Slopes | None = None,
) -> Belief:
    """The belief before the first try: both points read once with `noise_pa` (Pa), slopes by the
    class's prior, or as `learned` on an earlier visit by nut and point (Pa per turn; mean and
    spread), which are kept a little wider than learned, and with a small chance that the switch is
    another now.

    Args:
        of: The class of switch.
        cut_in_pa: Cut-in as read, Pa gauge.
        cut_out_pa: Cut-out as read, Pa gauge.
        noise_pa: Standard deviation of a reading, Pa, above 0.
        learned: Slopes by nut and point, Pa a turn: mean and spread; the class's own if None.

    Returns:
        The belief.
    """
    ways = [_ways(nut, learned or {}) for nut in of.nuts]
    points = (cut_in_pa, cut_out_pa), (noise_pa, noise_pa)
    parts = tuple(_part(points, chosen) for chosen in product(*ways))
    return Belief(of, parts)


class _Way(NamedTuple):
    """A way that a nut may be: its chance, means and spreads of its slopes on cut-in and cut-out
    (Pa a turn), their correlation."""

    chance: float
    means: tuple[float, float]
    spreads: tuple[float, float]
    alike: float


def _ways(nut: Nut, learned: Slopes) -> list[_Way]:
    usual = [_way(nut, chance, scale) for chance, scale in nut.scales_pa]
    known = [learned.get((nut.id, point)) for point in (CUT_IN, CUT_OUT)]
    if not any(known):
        return usual
    means = [slope[0] if slope else 0.0 for slope in known]
    spreads = [
        max(_WIDER * slope[1], _LEAST_SPREAD_PA) if slope else nut.cross_pa for slope in known
    ]
    told = _Way(1 - _FORGOTTEN, (means[0], means[1]), (spreads[0], spreads[1]), 0.0)
    return [told, *(way._replace(chance=_FORGOTTEN * way.chance) for way in usual)]


def _way(nut: Nut, chance: float, scale: float) -> _Way:
    means = [scale if moved else 0.0 for moved in nut.moves]
    cross = max(nut.cross_pa, 0.04 * scale)
    spreads = [RELATIVE * scale if moved else cross for moved in nut.moves]
    return _Way(chance, (means[0], means[1]), (spreads[0], spreads[1]), nut.alike)


def _part(points: tuple[tuple[float, float], tuple[float, float]], nuts: Sequence[_Way]) -> Part:
    mean, spreads = list(points[0]), list(points[1])
    for way in nuts:
        mean += way.means
        spreads += way.spreads
    spread = [[s * s if i == j else 0.0 for j in range(len(mean))] for i, s in enumerate(spreads)]
    for k, way in enumerate(nuts):
        i, j = 2 + 2 * k, 3 + 2 * k
        spread[i][j] = spread[j][i] = way.alike * math.prod(way.spreads)
    return Part(math.prod(way.chance for way in nuts), tuple(mean), _matrix(spread))


def predict(belief: Belief, turns: Sequence[float]) -> Belief:
    """The belief after turning each nut by `turns` (clockwise positive), before anything is read:
    points move by slope times turns, and become less certain; they also drift a little by
    themselves.

    Args:
        belief: What is believed of the switch.
        turns: Turns of each nut, clockwise positive.

    Returns:
        The belief.
    """
    drift = belief.of.drift_pa**2 if any(turns) else 0.0
    parts = tuple(_predicted(part, turns, drift) for part in belief.parts)
    return replace(belief, parts=parts)


def _predicted(part: Part, turns: Sequence[float], drift: float) -> Part:
    size = len(part.mean)
    at = [[2 + 2 * nut + p for nut in range(len(turns))] for p in (CUT_IN, CUT_OUT)]
    mean, spread = list(part.mean), [list(row) for row in part.spread]
    for p in (CUT_IN, CUT_OUT):
        mean[p] += math.fsum(turn * part.mean[i] for i, turn in zip(at[p], turns, strict=True))
        for j in range(size):
            spread[p][j] += math.fsum(
                turn * part.spread[i][j] for i, turn in zip(at[p], turns, strict=True)
            )
    moved = [list(row) for row in spread[:2]]
    for p in (CUT_IN, CUT_OUT):
        for q in (CUT_IN, CUT_OUT):
            by_turns = (t * moved[p][i] for i, t in zip(at[q], turns, strict=True))
            spread[p][q] = moved[p][q] + math.fsum(by_turns)
        spread[p][p] += drift
        spread[p][p] += math.fsum(
            (_HAND * part.mean[i]) ** 2 for i, t in zip(at[p], turns, strict=True) if t
        )
        for j in range(2, size):
            spread[j][p] = spread[p][j]
    return Part(part.weight, tuple(mean), _matrix(spread))


def update(belief: Belief, point: int, gauge_pa: float, noise_pa: float) -> Belief:
    """The belief after one reading of a point (Pa gauge, standard deviation `noise_pa` > 0): Bayes'
    rule for each part, and for how much each part counts. Parts that no longer count are let go.

    Args:
        belief: What is believed of the switch.
        point: Which point: `CUT_IN` or `CUT_OUT`.
        gauge_pa: What the gauge showed, Pa.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        The belief.
    """
    scored = [(_told(part, point, gauge_pa, noise_pa), part) for part in belief.parts]
    best = max(score for score, _ in scored)
    weighed = [(math.exp(score - best), part) for score, part in scored]
    whole = math.fsum(weight for weight, _ in weighed)
    parts = tuple(
        _updated(part, weight / whole, point, gauge_pa, noise_pa)
        for weight, part in weighed
        if weight > _NEGLIGIBLE * whole
    )
    return replace(belief, parts=parts, evidence=belief.evidence + best + math.log(whole))


def _told(part: Part, point: int, gauge_pa: float, noise_pa: float) -> float:
    """Logarithm of a part's weight after a reading, but for a constant."""
    total = part.spread[point][point] + noise_pa**2
    miss = gauge_pa - part.mean[point]
    return math.log(part.weight) - 0.5 * (miss * miss / total + math.log(total))


def _updated(part: Part, weight: float, point: int, gauge_pa: float, noise_pa: float) -> Part:
    column = [row[point] for row in part.spread]
    total = column[point] + noise_pa**2
    share = [c / total for c in column]
    miss = gauge_pa - part.mean[point]
    return Part(
        weight,
        tuple(m + s * miss for m, s in zip(part.mean, share, strict=True)),
        tuple(
            tuple(cell - mine * c for cell, c in zip(row, column, strict=True))
            for row, mine in zip(part.spread, share, strict=True)
        ),
    )


def chance_above(belief: Belief, turns: Sequence[float], point: int, gauge_pa: float) -> float:
    """The chance that a point stands above a pressure after turning each nut by `turns`.

    Args:
        belief: What is believed of the switch.
        turns: Turns of each nut, clockwise positive.
        point: Which point: `CUT_IN` or `CUT_OUT`.
        gauge_pa: The pressure, Pa gauge.

    Returns:
        Probability, 0 to 1.
    """
    furthest = math.fsum(
        turn * nut.most_pa for turn, nut in zip(turns, belief.of.nuts, strict=True) if turn > 0
    )
    return math.fsum(
        part.weight * min(_above(part.after(turns, point, drift), gauge_pa), end)
        for drift in (belief.of.drift_pa,)
        for part in belief.parts
        for end in (_above(_moved(part, point, furthest, drift), gauge_pa),)
    )


def _moved(part: Part, point: int, by_pa: float, drift_pa: float) -> tuple[float, float]:
    """A point if the nuts had moved it as far as any nut of the class ever does."""
    return part.mean[point] + by_pa, math.hypot(math.sqrt(part.spread[point][point]), drift_pa)


def _above(point: tuple[float, float], gauge_pa: float) -> float:
    return chance_below((point[0] - gauge_pa) / point[1])


def _matrix(rows: Sequence[Sequence[float]]) -> Matrix:
    return tuple(tuple(row) for row in rows)
