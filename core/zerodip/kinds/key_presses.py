"""Pressures in whole key presses of the unit that a person works in, and settings made of them."""

import math
from collections.abc import Iterable

from zerodip.kinds.settings import Settings
from zerodip.units import PSI, unit_for

__all__ = ["down", "nearest", "settings_at", "up"]

_LEAST_PA, _MOST_IN_PA, _MOST_PA = 1 * PSI, 250 * PSI, 300 * PSI


def _step_pa(units: str) -> float:
    unit = unit_for("pressure", units)
    return unit.step * unit.factor


def down(pa: float, units: str) -> float:
    """The next whole key press at or below a pressure (Pa), in the pressure unit of `units`.

    Args:
        pa: Pressure, Pa.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Pressure, Pa.
    """
    step = _step_pa(units)
    return math.floor(pa / step + 1e-6) * step


def up(pa: float, units: str) -> float:
    """The next whole key press at or above a pressure (Pa), in the pressure unit of `units`.

    Args:
        pa: Pressure, Pa.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Pressure, Pa.
    """
    step = _step_pa(units)
    return math.ceil(pa / step - 1e-6) * step


def nearest(pa: float, units: str) -> float:
    """The whole key press nearest to a pressure (Pa), in the pressure unit of `units`.

    Args:
        pa: Pressure, Pa.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Pressure, Pa.
    """
    step = _step_pa(units)
    return round(pa / step) * step


def settings_at(
    cut_in: float, cut_out: float, air: float | None, renewed: bool | None = None
) -> Iterable[Settings]:
    """The settings with these points and this pre-charge (Pa gauge), if there can be such settings
    at all.

    Args:
        cut_in: Cut-in, Pa gauge.
        cut_out: Cut-out, Pa gauge, above cut-in.
        air: Pre-charge, Pa gauge; None where there is none.
        renewed: Whether the air is renewed; None where that is no question.

    Yields:
        One, or none.
    """
    if _LEAST_PA <= cut_in < cut_out <= _MOST_PA and cut_in <= _MOST_IN_PA:
        yield Settings(
            cut_in_gauge_pa=cut_in,
            cut_out_gauge_pa=cut_out,
            pre_charge_gauge_pa=air,
            air_renewed=renewed,
        )
