"""The moment of starting: what the tank must hold back while the pump is not delivering yet."""

import math
from collections.abc import Callable, Sequence

from zerodip.physics.bladder_tank import Bank, pressure_abs_pa, water_m3

__all__ = [
    "largest_pre_charge_abs_pa",
    "lowest_abs_pa",
    "reserve_m3",
    "start_need_m3",
    "weak_start_need_m3",
]

STEPS = 12


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
    tanks: Sequence[tuple[float, float]], cut_in_abs_pa: float, need_m3: float
) -> float | None:
    """The largest pre-charge (Pa abs) with which tanks hold back `need_m3` at cut-in, where their
    air has the room's temperature: in (1 − need/V), with the rest on the other tanks where a
    bladder is full. None when all of them could not, whatever their pre-charge.

    Args:
        tanks: Volume and acceptance of each, m³, above 0 (acceptance may be infinite).
        cut_in_abs_pa: Cut-in, Pa abs, above 0.
        need_m3: Water taken while the pump starts, m³, 0 or more.

    Returns:
        Pressure, Pa abs; None where no pre-charge does.

    Source: The gas law at rest (n = 1), reserve set equal to the need.
    """
    rest, need = sorted(tanks, key=lambda tank: tank[1] / tank[0]), need_m3
    while rest:
        share = need / math.fsum(volume for volume, _ in rest)
        volume, acceptance = rest[0]
        if share * volume <= acceptance:
            return cut_in_abs_pa * (1 - share) if share < 1 else None
        need -= acceptance
        rest = rest[1:]
    return None if need > 0 else cut_in_abs_pa


def start_need_m3(draw_m3_s: float, flow_m3_s: float, lag_s: float, ramp_s: float) -> float:
    """The water that a start takes from the tank: the draw over the start lag, and while delivery
    ramps up evenly to the pump's flow at cut-in, until it meets the draw or is all there.

    Args:
        draw_m3_s: Steady draw, m³/s, 0 or more.
        flow_m3_s: The pump's flow at cut-in, m³/s, above 0.
        lag_s: From the switch's closing to the first delivery, s, 0 or more.
        ramp_s: From the first delivery to the whole of it, s, 0 or more.

    Returns:
        Water, m³.

    Source: Mass balance; the pump's flow at cut-in, which is the least in the start.
    """
    if flow_m3_s >= draw_m3_s:
        meets_s = ramp_s * draw_m3_s / flow_m3_s if flow_m3_s else 0.0
        return draw_m3_s * (lag_s + meets_s / 2)
    return draw_m3_s * lag_s + (draw_m3_s - flow_m3_s / 2) * ramp_s


def weak_start_need_m3(
    draw_m3_s: float, delivers: Callable[[float], float], lag_s: float, ramp_s: float
) -> float:
    """The same for a pump that gives less than the draw at cut-in, and more as the gauge falls.

    Args:
        draw_m3_s: Steady draw, m³/s, 0 or more.
        delivers: The pump's whole flow, m³/s, once so much water (m³) is taken; never falls.
        lag_s: From the switch's closing to the first delivery, s, 0 or more.
        ramp_s: From the first delivery to the whole of it, s, 0 or more.

    Returns:
        Water, m³.

    Source: Mass balance, stepped; each step by the flow at its beginning, the least in it.
    """
    taken = most = draw_m3_s * lag_s
    for k in range(STEPS):
        taken += ramp_s / STEPS * (draw_m3_s - (k + 0.5) / STEPS * delivers(taken))
        most = max(most, taken)
    return most
