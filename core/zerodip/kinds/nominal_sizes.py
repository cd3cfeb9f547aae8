"""The nominal volumes that tanks are sold in. Source: common practice, no source."""

from zerodip.units import to_si

__all__ = ["ACCEPTANCE_SHARE", "accumulator_sizes_m3", "receiver_sizes_m3", "tank_sizes_m3"]

# What a bladder accepts of its tank's volume: a third to four tenths, the usual.
ACCEPTANCE_SHARE = 0.38
_TANK_GALLONS = (2, 4.5, 8.5, 14, 20, 26, 33, 36, 44, 50, 62, 81, 86, 119)
_TANK_LITRES = (8, 12, 18, 24, 35, 50, 60, 80, 100, 150, 200, 300, 500)
_AIR_GALLONS = (2, 5, 10, 15, 20, 30, 40, 50, 60, 80, 100, 120, 200, 300, 500)
_AIR_LITRES = (10, 24, 50, 90, 100, 150, 200, 270, 300, 500, 750, 1000, 1500, 2000, 3000)
_SMALL_LITRES = (0.16, 0.35, 0.5, 0.75, 1, 1.5, 2, 3, 5, 8)


def _sizes(units: str, gallons: tuple[float, ...], litres: tuple[float, ...]) -> tuple[float, ...]:
    if units == "us":
        return tuple(to_si(each, "gal") for each in gallons)
    return tuple(to_si(each, "L") for each in litres)


def tank_sizes_m3(units: str) -> tuple[float, ...]:
    """Pressure tanks, m³, smallest first.

    Args:
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Volumes, m³.
    """
    return _sizes(units, _TANK_GALLONS, _TANK_LITRES)


def receiver_sizes_m3(units: str) -> tuple[float, ...]:
    """Receivers of compressors, m³, smallest first.

    Args:
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Volumes, m³.
    """
    return _sizes(units, _AIR_GALLONS, _AIR_LITRES)


def accumulator_sizes_m3(units: str) -> tuple[float, ...]:
    """Accumulators, m³, smallest first.

    Args:
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Volumes, m³.
    """
    return tuple(to_si(each, "L") for each in _SMALL_LITRES)
