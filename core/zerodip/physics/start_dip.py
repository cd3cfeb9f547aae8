"""The moment of starting: what the tank must hold back while the pump is not delivering yet."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from zerodip.physics.bladder_tank import Bank, pressure_abs_pa, water_m3
from zerodip.physics.fill import FillLine, log_mean, pieces

__all__ = [
    "Sustained",
    "emptied_in_start_s",
    "largest_pre_charge_abs_pa",
    "lowest_abs_pa",
    "reserve_m3",
    "start_need_m3",
    "sustained_draw",
]


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


def emptied_in_start_s(
    reserve_m3: float, draw_m3_s: float, flow_m3_s: float, lag_s: float, ramp_s: float
) -> float:
    """How long a reserve lasts that is less than a start needs, from the switch's closing: within
    the lag in a straight line, after it less what the ramp has delivered by then.

    Args:
        reserve_m3: Water held at cut-in, m³, 0 to what the start needs.
        draw_m3_s: Steady draw, m³/s, above 0.
        flow_m3_s: The pump's flow at cut-in, m³/s, 0 or more.
        lag_s: From the switch's closing to the first delivery, s, 0 or more.
        ramp_s: From the first delivery to the whole of it, s, 0 or more.

    Returns:
        Time, s.

    Source: Mass balance, draw·τ − flow·τ²/(2·ramp) after the lag.
    """
    left = reserve_m3 - draw_m3_s * lag_s
    if left <= 0 or ramp_s <= 0:
        return reserve_m3 / draw_m3_s
    pace = flow_m3_s / ramp_s
    root = math.sqrt(max(draw_m3_s**2 - 2 * pace * left, 0.0))
    return lag_s + 2 * left / (draw_m3_s + root)


@dataclass(frozen=True)
class Sustained:
    """Where tank and pump come to under a steady draw: the water then held (m³), and the seconds
    until the tank is empty (infinity where it never is)."""

    held_m3: float
    empty_s: float


def sustained_draw(fill: FillLine, held_m3: float, draw_m3_s: float) -> Sustained:
    """Where a running pump and its tank come to under a steady draw, from `held_m3`, if they
    fall.

    Args:
        fill: The fill table, from empty to cut-out.
        held_m3: Water held at first, m³, 0 or more.
        draw_m3_s: Steady draw, m³/s, 0 or more.

    Returns:
        Where they come to.

    Source: Mass balance dW/dt = Q_pump − Q_draw; straight lines between entries (numerical).
    """
    seconds = 0.0
    for width, below, above in reversed(pieces(fill, 0.0, held_m3)):
        if above >= draw_m3_s:
            return Sustained(held_m3, float("inf"))
        if below >= draw_m3_s:
            kept = width * (below - draw_m3_s) / (below - above)
            return Sustained(held_m3 - width + kept, float("inf"))
        seconds += width / log_mean(draw_m3_s - above, draw_m3_s - below)
        held_m3 -= width
    empties = fill.flows_m3_s[0] < draw_m3_s
    return Sustained(0.0, seconds if empties else float("inf"))
