"""The moment of starting: what the tank must hold back while the pump is not delivering yet."""

import math

from zerodip.physics.bladder_tank import Bank, pressure_abs_pa, water_m3

__all__ = ["largest_pre_charge_abs_pa", "lowest_abs_pa", "reserve_m3"]


def reserve_m3(bank: Bank, cut_in_abs_pa: float) -> float:
    """Water (m³) still in the tank when the switch starts the pump. 0 where the pre-charge lies
    above cut-in.

    Args:
        bank: The tanks, in absolute pressures.
        cut_in_abs_pa: Cut-in, Pa abs, above 0.

    Returns:
        Water, m³, 0 or more.

    Source: The gas law.
    """
    return water_m3(bank, cut_in_abs_pa)


def lowest_abs_pa(bank: Bank, cut_in_abs_pa: float, need_m3: float, atmosphere_pa: float) -> float:
    """The lowest pressure (Pa abs) while `need_m3` is drawn after the switch has closed: on the
    tank's line while it holds water, atmospheric when it has run empty (the gauge collapses: the
    dip).

    Args:
        bank: The tanks, in absolute pressures.
        cut_in_abs_pa: Cut-in, Pa abs, above 0.
        need_m3: Water taken while the pump starts, m³, 0 or more.
        atmosphere_pa: Atmospheric pressure at the site, Pa abs, above 0.

    Returns:
        Pressure, Pa abs.

    Source: The gas law.
    """
    left = reserve_m3(bank, cut_in_abs_pa) - need_m3
    if left < 0 or (left == 0 and bank.breakpoints_abs_pa[0] >= cut_in_abs_pa):
        return atmosphere_pa
    return min(pressure_abs_pa(bank, left), cut_in_abs_pa)


def largest_pre_charge_abs_pa(
    volume_m3: float, cut_in_abs_pa: float, need_m3: float, exponent: float
) -> float | None:
    """The largest pre-charge (Pa abs) with which tanks of `volume_m3` hold back `need_m3` at
    cut-in: in (1 − need/V)^n. None when the whole tank could not.

    Args:
        volume_m3: Volume, m³, above 0.
        cut_in_abs_pa: Cut-in, Pa abs, above 0.
        need_m3: Water taken while the pump starts, m³, 0 or more.
        exponent: Gas exponent n, 1 to 1.4.

    Returns:
        Pressure, Pa abs; None where no pre-charge does.

    Source: The gas law, reserve set equal to the need.
    """
    if need_m3 >= volume_m3:
        return None
    return cut_in_abs_pa * math.pow(1 - need_m3 / volume_m3, exponent)
