"""What a line tells of the plates behind it, and which one reading would tell the rest.

Where the pump starts or stops the line breaks, and by the gas law what it breaks by is the pump's
delivery Q divided by the air's V·c, whatever taps are open: d(1/p)/dt = (draw − Q)/(V·c), p
absolute, air at an even temperature. So pressure alone tells Q/(V·c), never Q, V or c apart: a low
pre-charge and a small tank draw the same line. What else is known enters as a reading with its
spread; all is a linear problem in logarithms, solved with normal distributions (JCGM 100 6.2, from
memory)."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from zerodip.recording.arrays import Floats
from zerodip.recording.pump import Pump

__all__ = ["READINGS", "Fitted", "Known", "Within", "fitted"]

_Z90 = 1.6449  # normal quantile: 5 % on either side
_UNKNOWN = 3.0  # spread (logarithm) of what nothing is known of: a factor of 20 either way
# A reading: what it tells (powers of V, c and Q), and its spread, as a share, when taken with care.
# Common practice, no source.
READINGS: Mapping[str, tuple[tuple[float, float, float], float]] = {
    "catch": ((1.0, 1.0, 0.0), 0.03),
    "pre_charge": ((0.0, 1.0, 0.0), 0.015),
    "volume": ((1.0, 0.0, 0.0), 0.02),
    "flow": ((0.0, 0.0, 1.0), 0.03),
}
# What is told, in the same powers.
_FIGURES: Mapping[str, tuple[float, float, float]] = {
    "volume_m3": (1.0, 0.0, 0.0),
    "pre_charge_abs_pa": (0.0, 1.0, 0.0),
    "flow_m3_s": (0.0, 0.0, 1.0),
    "air_pa_m3": (1.0, 1.0, 0.0),
}
_TOLD = 0.15  # a spread (90 %) within which a figure counts as told


@dataclass(frozen=True)
class Within:
    """A figure and the interval in which it lies nine times in ten, SI."""

    value: float
    least: float
    most: float

    @property
    def is_told(self) -> bool:
        """Whether the interval is narrow enough to act on."""
        return self.most - self.least <= 2 * _TOLD * abs(self.value)


@dataclass(frozen=True)
class Known:
    """A reading that is known beside the line: its name in `READINGS`, its value (SI; a catch as
    V·c, Pa·m³; a pre-charge absolute) and its standard deviation as a share."""

    name: str
    value: float
    spread: float


@dataclass(frozen=True)
class Fitted:
    """The plates by the line and what is known: tank volume, pre-charge (absolute), delivery in the
    middle of the band, V·c (Pa·m³) and Q/(V·c); None where they cannot be told. `settles` is the
    reading that would tell most of the rest, `settles_all` whether it would tell all, and `then`
    how narrow the pre-charge would be."""

    volume_m3: Within | None
    pre_charge_abs_pa: Within | None
    flow_m3_s: Within | None
    air_pa_m3: Within | None
    flow_by_air: Within
    settles: str | None
    settles_all: bool
    then_pre_charge: Within | None


def fitted(pump: Pump, known: Sequence[Known]) -> Fitted:
    """The plates by the line and by what is known.

    Args:
        pump: The pump's delivery by the line.
        known: Readings known beside it.

    Returns:
        The plates, and the reading that would settle the rest.
    """
    mean, cover = _posterior(pump, known)
    told = {name: _within(mean, cover, powers) for name, powers in _FIGURES.items()}
    best = _best_reading(pump, known, told)
    after = _after(pump, known, best, mean) if best else told
    then = after["pre_charge_abs_pa"]
    return Fitted(
        **{name: each if each.is_told else None for name, each in told.items()},
        flow_by_air=_interval(math.log(pump.value), pump.error / pump.value),
        settles=best,
        settles_all=all(each.is_told for each in after.values()),
        then_pre_charge=then if best and then.is_told else None,
    )


def _after(pump: Pump, known: Sequence[Known], reading: str, mean: Floats) -> dict[str, Within]:
    """What would be told after one more reading, if it came out as expected."""
    powers, spread = READINGS[reading]
    value = math.exp(float(np.dot(powers, mean)))
    at, cover = _posterior(pump, [*known, Known(reading, value, spread)])
    return {name: _within(at, cover, row) for name, row in _FIGURES.items()}


def _posterior(pump: Pump, known: Sequence[Known]) -> tuple[Floats, Floats]:
    """Mean and covariance of (ln V, ln c, ln Q)."""
    rows = [((-1.0, -1.0, 1.0), math.log(pump.value), pump.error / pump.value)]
    rows += [(READINGS[k.name][0], math.log(k.value), k.spread) for k in known]
    # Nothing known of the rest: a house's tank, pressure and pump, within a factor of twenty.
    usual = (math.log(0.1), math.log(3.5e5), math.log(6e-4))
    rows += [(tuple(np.eye(3)[at]), usual[at], _UNKNOWN) for at in range(3)]
    design = np.array([powers for powers, _, _ in rows])
    weights = 1 / np.array([max(spread, 1e-9) for _, _, spread in rows]) ** 2
    values = np.array([value for _, value, _ in rows])
    cover = np.linalg.inv(design.T @ (weights[:, None] * design))
    return cover @ (design.T @ (weights * values)), cover


def _within(mean: Floats, cover: Floats, powers: Sequence[float]) -> Within:
    row = np.array(powers)
    return _interval(float(row @ mean), math.sqrt(float(row @ cover @ row)))


def _interval(log_value: float, spread: float) -> Within:
    value, factor = math.exp(log_value), math.exp(_Z90 * spread)
    return Within(value, value / factor, value * factor)


def _best_reading(pump: Pump, known: Sequence[Known], told: Mapping[str, Within]) -> str | None:
    """The reading after which most is told; None where all is."""
    if all(each.is_told for each in told.values()):
        return None
    ranks: dict[str, tuple[int, float]] = {}
    for name, (_, spread) in READINGS.items():
        if name in {each.name for each in known}:
            continue
        _, cover = _posterior(pump, [*known, Known(name, 1.0, spread)])
        spreads = [math.sqrt(float(np.array(p) @ cover @ np.array(p))) for p in _FIGURES.values()]
        ranks[name] = (sum(_Z90 * s <= _TOLD for s in spreads), -sum(spreads))
    return max(ranks, key=lambda name: ranks[name], default=None)
