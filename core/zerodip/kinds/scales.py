"""The scales of the ribbon in a unit's round numbers: worked out once, drawn alike by page and
paper."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, floor, log10

from zerodip.units import Unit, unit_for

__all__ = ["Scale", "Scales", "ribbon_scales", "scale_around"]

_NEAR = 1e-6  # of a step: a value that stands on a tick needs no further one
_LEAST_RUN_S, _USUAL_RUN_S = 20.0, 120.0


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


def ribbon_scales(
    *,
    gauges_pa: tuple[float, float],
    held_least_m3: float,
    held_m3: Sequence[float],
    held_dimension: str,
    before_s: float,
    run_s: float | None,
    units: str,
) -> Scales:
    """The three scales of a ribbon from what stands on them: the ends of the gauge scale, what is
    held at its levels, pump time below cut-in (`before_s`, 0 or less) and at cut-out (None: never
    reached). Room is left above what is held and the run, so that a grip moved up stays on the
    scale.

    Args:
        gauges_pa: Ends of the gauge scale, Pa.
        held_least_m3: Lower end of the scale of what is held, m³.
        held_m3: What is held at the levels, m³.
        held_dimension: Dimension of what is held.
        before_s: Pump time below cut-in, s, 0 or less.
        run_s: Pump run from cut-in to cut-out, s; None: never reached.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The three scales.
    """
    held, run = unit_for(held_dimension, units), unit_for("duration", units)
    top = held_least_m3 + 1.3 * (max(held_m3) - held_least_m3)
    return Scales(
        gauge=scale_around(*gauges_pa, unit_for("pressure", units), 6),
        held=scale_around(held_least_m3, max(top, held.factor), held, 4),
        run=scale_around(
            1.15 * min(before_s, 0.0),
            max(1.25 * (_USUAL_RUN_S if run_s is None else run_s), _LEAST_RUN_S),
            run,
            4,
        ),
    )
