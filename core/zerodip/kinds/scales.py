"""The scales of the ribbon in a unit's round numbers: worked out once, drawn alike by page and
paper."""

from dataclasses import dataclass
from math import ceil, floor, log10

from zerodip.units import Unit

__all__ = ["Scale", "Scales", "scale_around"]

_NEAR = 1e-6  # of a step: a value that stands on a tick needs no further one


@dataclass(frozen=True, kw_only=True)
class Scale:
    """From `least` to `most`, with ticks between, all in SI."""

    least: float
    most: float
    ticks: tuple[float, ...]


@dataclass(frozen=True, kw_only=True)
class Scales:
    """Gauge pressure (Pa), what is held (m³) and pump run (s)."""

    gauge: Scale
    held: Scale
    run: Scale


def round_step(span: float, count: int) -> float:
    """A step of 1, 2 or 5 times a power of ten that cuts `span` (above 0) into about `count`."""
    rough = span / count
    power = 10.0 ** floor(log10(rough))
    return power * next(step for step in (1, 2, 5, 10) if step * power >= rough * (1 - 1e-12))


def scale_around(least: float, most: float, unit: Unit, count: int) -> Scale:
    """A scale of about `count` steps in round numbers of `unit` around two SI values; at least two
    steps long, each at least one of the unit's own steps.

    Args:
        least: Lower end, SI.
        most: Upper end, SI, not below `least`.
        unit: The unit whose round numbers are wanted.
        count: Steps wanted, 1 or more.

    Returns:
        The scale, in SI.
    """
    low, high = (least - unit.offset) / unit.factor, (most - unit.offset) / unit.factor
    step = round_step(max(high - low, unit.step), count)
    first = floor(low / step + _NEAR)
    last = max(ceil(high / step - _NEAR), first + 2)
    ticks = tuple(at * step * unit.factor + unit.offset for at in range(first, last + 1))
    return Scale(least=ticks[0], most=ticks[-1], ticks=ticks)
