"""The nominal volumes usually sold, round in the units of each unit system. Source: common
practice, no source."""

from zerodip.units import to_si

__all__ = ["accumulator_sizes_m3", "tank_sizes_m3"]

_GALLONS = (2, 5, 10, 15, 20, 30, 40, 50, 60, 80, 100, 120, 200, 300, 500)
_LITRES = (
    8,
    12,
    18,
    24,
    35,
    50,
    60,
    80,
    100,
    150,
    200,
    250,
    300,
    400,
    500,
    750,
    1000,
    1500,
    2000,
    3000,
)
_SMALL_LITRES = (0.16, 0.35, 0.5, 0.75, 1, 1.5, 2, 3, 5, 8)


def tank_sizes_m3(units: str) -> tuple[float, ...]:
    """Tanks and receivers, m³, smallest first.

    Args:
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Volumes, m³.
    """
    if units == "us":
        return tuple(to_si(each, "gal") for each in _GALLONS)
    return tuple(to_si(each, "L") for each in _LITRES)


def accumulator_sizes_m3(units: str) -> tuple[float, ...]:
    """Accumulators, m³, smallest first.

    Args:
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Volumes, m³.
    """
    return tuple(to_si(each, "L") for each in _SMALL_LITRES)
