"""The air the gauge is read in, and water's weight."""

import math

__all__ = ["GRAVITY", "WATER_DENSITY", "head_pa", "pressure_abs_pa"]

GRAVITY = 9.80665  # m/s², standard
WATER_DENSITY = 999.1  # kg/m³, fresh water at 15 °C


def pressure_abs_pa(altitude_m: float) -> float:
    """Atmospheric pressure, Pa absolute, at `altitude_m` in metres, −500 to 11 000 (the
    troposphere; not checked here, `system.SiteConditions` does).

    Args:
        altitude_m: Altitude, m, −500 to 11 000.

    Returns:
        Pressure, Pa abs.

    Source: ISO 2533:1975 / US Standard Atmosphere 1976, p = 101325 (1 − 2.25577e−5 h)^5.25588.
    """
    return 101325.0 * math.pow(1 - 2.25577e-5 * altitude_m, 5.25588)


def head_pa(height_m: float) -> float:
    """Pressure, Pa, of a column of fresh water `height_m` high (about 9.8 kPa per m, 0.433 psi per
    ft).

    Args:
        height_m: Height of the column, m.

    Returns:
        Pressure, Pa.

    Source: Hydrostatics, p = ρ·g·h.
    """
    return WATER_DENSITY * GRAVITY * height_m
