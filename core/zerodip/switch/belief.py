"""What is believed of one switch: where its points stand and how far each nut moves them, with the
uncertainty of all.

The points move linearly with the turns; slopes are unknown, readings are noisy. So the belief is a
joint normal distribution, moved by turns (prediction) and sharpened by readings (update): Bayesian
linear regression, step by step (a Kalman filter). Pressures in Pa gauge, turns clockwise positive.
Source: Bayes' rule for normal distributions (physics of the spring: linear; priors: common
practice, no source).
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from zerodip.units import PSI

__all__ = [
    "CLASSES",
    "CUT_IN",
    "CUT_OUT",
    "Belief",
    "Nut",
    "SwitchClass",
    "predict",
    "prior",
    "update",
]

CUT_IN, CUT_OUT = 0, 1
Matrix = tuple[tuple[float, ...], ...]


@dataclass(frozen=True, kw_only=True)
class Nut:
    """One nut or screw: its name, the point that it is there to set, and the prior of its slopes on
    cut-in and cut-out (Pa per turn, mean and spread)."""

    id: str
    title: str
    sets: int
    on_in_pa: tuple[float, float]
    on_out_pa: tuple[float, float]
    alike: float = 0.0


@dataclass(frozen=True, kw_only=True)
class SwitchClass:
    """A class of switch by its nuts. `drift_pa` is how far a point wanders by itself with each try;
    `follows` tells that cut-in cannot be set by itself."""

    id: str
    nuts: tuple[Nut, ...]
    drift_pa: float
    follows: bool = False


def _psi(mean: float, spread: float) -> tuple[float, float]:
    return mean * PSI, spread * PSI


CLASSES: dict[str, SwitchClass] = {
    "two": SwitchClass(
        id="two",
        nuts=(
            Nut(
                id="range",
                title="range nut",
                sets=CUT_IN,
                on_in_pa=_psi(2.6, 0.95),
                on_out_pa=_psi(2.6, 0.95),
                alike=0.93,
            ),
            Nut(
                id="differential",
                title="differential nut",
                sets=CUT_OUT,
                on_in_pa=_psi(0.0, 0.12),
                on_out_pa=_psi(3.4, 1.3),
            ),
        ),
        drift_pa=0.2 * PSI,
    ),
    "one": SwitchClass(
        id="one",
        nuts=(
            Nut(
                id="screw",
                title="screw",
                sets=CUT_OUT,
                on_in_pa=_psi(6.0, 2.5),
                on_out_pa=_psi(6.5, 2.7),
                alike=0.93,
            ),
        ),
        drift_pa=0.3 * PSI,
        follows=True,
    ),
    "points": SwitchClass(
        id="points",
        nuts=(
            Nut(
                id="upper",
                title="upper set-point screw",
                sets=CUT_OUT,
                on_in_pa=_psi(0.0, 0.2),
                on_out_pa=_psi(4.0, 1.6),
            ),
            Nut(
                id="lower",
                title="lower set-point screw",
                sets=CUT_IN,
                on_in_pa=_psi(4.0, 1.6),
                on_out_pa=_psi(0.0, 0.2),
            ),
        ),
        drift_pa=0.2 * PSI,
    ),
}


@dataclass(frozen=True)
class Belief:
    """Means and covariances of [cut-in, cut-out, then per nut its slope on cut-in and on cut-out],
    Pa and Pa per turn."""

    of: SwitchClass
    mean: tuple[float, ...]
    spread: Matrix

    def sd(self, point: int) -> float:
        """Standard deviation of a point, Pa."""
        return math.sqrt(max(self.spread[point][point], 0.0))

    def slope(self, nut: int, point: int) -> tuple[float, float]:
        """Mean and standard deviation of a nut's slope on a point, Pa per turn."""
        at = 2 + 2 * nut + point
        return self.mean[at], math.sqrt(max(self.spread[at][at], 0.0))


Slopes = Mapping[tuple[str, int], tuple[float, float]]
_WIDER, _LEAST_SPREAD_PA = (
    1.3,
    0.05 * PSI,
)  # what was learned is kept a little wider, and never as certain as this


def prior(
    of: SwitchClass,
    cut_in_pa: float,
    cut_out_pa: float,
    noise_pa: float,
    learned: Slopes | None = None,
) -> Belief:
    """The belief before the first try: both points read once with `noise_pa` (Pa), slopes by the
    class's prior, or as `learned` on an earlier visit by nut and point (Pa per turn; mean and
    spread), which are kept a little wider than learned.

    Args:
        of: The class of switch.
        cut_in_pa: Cut-in as read, Pa gauge.
        cut_out_pa: Cut-out as read, Pa gauge.
        noise_pa: Standard deviation of a reading, Pa, above 0.
        learned: Slopes by nut and point, Pa a turn: mean and spread; the class's own if None.

    Returns:
        The belief.
    """
    known = learned or {}
    mean, spreads = [cut_in_pa, cut_out_pa], [noise_pa, noise_pa]
    for nut in of.nuts:
        for point, usual in ((CUT_IN, nut.on_in_pa), (CUT_OUT, nut.on_out_pa)):
            slope = known.get((nut.id, point))
            mean.append(usual[0] if slope is None else slope[0])
            spreads.append(usual[1] if slope is None else max(_WIDER * slope[1], _LEAST_SPREAD_PA))
    spread = [[s * s if i == j else 0.0 for j in range(len(mean))] for i, s in enumerate(spreads)]
    for k, nut in enumerate(of.nuts):
        if not any((nut.id, point) in known for point in (CUT_IN, CUT_OUT)):
            i, j = 2 + 2 * k, 3 + 2 * k
            spread[i][j] = spread[j][i] = nut.alike * spreads[i] * spreads[j]
    return Belief(of, tuple(mean), _matrix(spread))


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
    size = len(belief.mean)
    gain = [_gain(size, turns, point) for point in (CUT_IN, CUT_OUT)]
    mean = list(belief.mean)
    for point in (CUT_IN, CUT_OUT):
        mean[point] = sum(g * m for g, m in zip(gain[point], belief.mean, strict=True))
    spread = [list(row) for row in belief.spread]
    moved = [
        [
            sum(g * row[j] for g, row in zip(gain[p], belief.spread, strict=True))
            for j in range(size)
        ]
        for p in (0, 1)
    ]
    for p in (CUT_IN, CUT_OUT):
        for j in range(2, size):
            spread[p][j] = spread[j][p] = moved[p][j]
    drift = belief.of.drift_pa**2 if any(turns) else 0.0
    for p in (CUT_IN, CUT_OUT):
        for q in (CUT_IN, CUT_OUT):
            spread[p][q] = sum(m * g for m, g in zip(moved[p], gain[q], strict=True)) + (
                drift if p == q else 0.0
            )
    return Belief(belief.of, tuple(mean), _matrix(spread))


def _gain(size: int, turns: Sequence[float], point: int) -> list[float]:
    gain = [0.0] * size
    gain[point] = 1.0
    for nut, turn in enumerate(turns):
        gain[2 + 2 * nut + point] = turn
    return gain


def update(belief: Belief, point: int, gauge_pa: float, noise_pa: float) -> Belief:
    """The belief after one reading of a point (Pa gauge, standard deviation `noise_pa` > 0): Bayes'
    rule for normals.

    Args:
        belief: What is believed of the switch.
        point: Which point: `CUT_IN` or `CUT_OUT`.
        gauge_pa: What the gauge showed, Pa.
        noise_pa: Standard deviation of a reading, Pa, above 0.

    Returns:
        The belief.
    """
    column = [row[point] for row in belief.spread]
    total = column[point] + noise_pa**2
    share = [c / total for c in column]
    miss = gauge_pa - belief.mean[point]
    mean = tuple(m + s * miss for m, s in zip(belief.mean, share, strict=True))
    spread = [
        [cell - share[i] * column[j] for j, cell in enumerate(row)]
        for i, row in enumerate(belief.spread)
    ]
    return Belief(belief.of, mean, _matrix(spread))


def _matrix(rows: Sequence[Sequence[float]]) -> Matrix:
    return tuple(tuple(row) for row in rows)
