"""Air-over-water tanks: no bladder, so the air dissolves and its amount is itself unknown.

Air that has been lost shrinks the product of tank volume and charge. What matters at the tap is the
water above the point where the gauge stands at zero; with less air than fills the tank at the
atmosphere, the tank works like a smaller one (the rest of it is waterlogged). All pressures here
are absolute, Pa.
"""

import math

from zerodip.physics.bladder_tank import Vessel

__all__ = ["charge_abs_pa", "vessel_above_zero"]


def charge_abs_pa(
    volume_m3: float, caught_m3: float, in_abs: float, out_abs: float, exponent: float = 1.0
) -> float:
    """The charge (Pa abs, spread over the whole tank of `volume_m3`) that gives `caught_m3` between
    `out_abs` and `in_abs`: the bucket test, V·c = D / (1/in − 1/out) when it is caught slowly. The
    tank has stood at `out_abs`, so a fast catch acts on its air V·c/out: D = V·c/out
    ((out/in)^(1/n) − 1). Valid for 0 < in < out, while the tank does not run empty between them.

    Args:
        volume_m3: Volume, m³, above 0.
        caught_m3: Water caught, m³, above 0.
        in_abs: Lower pressure, Pa abs, above 0.
        out_abs: Upper pressure, Pa abs, above the lower.
        exponent: Gas exponent n, 1 to 1.4.

    Returns:
        The charge, Pa abs.

    Source: The gas law, solved for c.
    """
    grows = math.pow(out_abs / in_abs, 1 / exponent) - 1
    return caught_m3 * out_abs / (volume_m3 * grows)


def vessel_above_zero(
    volume_m3: float,
    charge_abs: float,
    zero_abs: float,
    acceptance_m3: float = float("inf"),
) -> Vessel:
    """The vessel that holds and gives the same water above gauge zero as a tank with that much air:
    what stands in it at zero does not come out. So a plain tank short of air is a smaller one (with
    more than fills it at zero it is supercharged), and a bladder tank far below the gauge too.

    Args:
        volume_m3: Volume, m³, above 0.
        charge_abs: Charge spread over the whole tank, Pa abs, above 0.
        zero_abs: Pressure in the tank where the gauge shows nothing, Pa abs, above 0.
        acceptance_m3: The most water that its bladder takes, m³.

    Returns:
        The vessel at rest, in absolute pressures.

    Source: The gas law.
    """
    if charge_abs >= zero_abs:
        return Vessel(volume_m3, charge_abs, acceptance_m3)
    sunk = volume_m3 * (1 - charge_abs / zero_abs)
    return Vessel(volume_m3 - sunk, zero_abs, max(acceptance_m3 - sunk, 1e-9))
