"""Bladder and diaphragm tanks by the gas law, alone or several in parallel.

All pressures here are absolute, Pa. The air follows p·v^n = const: n = 1 when filled slowly (the
air keeps its temperature), up to 1.4 when filled fast. Source: the ideal gas law; common practice
for n.
"""

import math
from bisect import bisect_left
from dataclasses import dataclass
from functools import cached_property

__all__ = ["Bank", "Vessel", "air_to_add_m3", "from_rest", "pressure_abs_pa", "water_m3"]


@dataclass(frozen=True)
class Vessel:
    """One tank: its volume, the pre-charge of its air when drained, and the most water its bladder
    takes (m³, Pa abs)."""

    volume_m3: float
    pre_charge_abs_pa: float
    acceptance_m3: float = float("inf")


@dataclass(frozen=True)
class Bank:
    """Tanks joined at one pressure. `exponent` is n of the gas law, 1 to 1.4."""

    vessels: tuple[Vessel, ...]
    exponent: float = 1.0

    @cached_property
    def volume_m3(self) -> float:
        """Volume of all tanks together, m³."""
        return math.fsum(vessel.volume_m3 for vessel in self.vessels)

    @cached_property
    def breakpoints_abs_pa(self) -> tuple[float, ...]:
        """The pressures at which a tank begins to take water or its bladder is full, rising, Pa
        abs."""
        starts = [vessel.pre_charge_abs_pa for vessel in self.vessels]
        fulls = [_full_abs_pa(vessel, self.exponent) for vessel in self.vessels]
        return tuple(sorted({p for p in starts + fulls if p != float("inf")}))

    @cached_property
    def _breakpoint_waters_m3(self) -> tuple[float, ...]:
        return tuple(water_m3(self, p) for p in self.breakpoints_abs_pa)

    @cached_property
    def _stretches(self) -> tuple[tuple[float, float], ...]:
        """For the stretch above each kink: the room that the tanks at work leave and have filled up
        to now (Σ V + what full bladders hold), and Σ V·c^(1/n) of those at work; water = room −
        that · p^(−1/n)."""
        return tuple(_stretch(self, kink) for kink in self.breakpoints_abs_pa)


def _full_abs_pa(vessel: Vessel, exponent: float) -> float:
    if vessel.acceptance_m3 >= vessel.volume_m3:
        return float("inf")
    return vessel.pre_charge_abs_pa / math.pow(
        1 - vessel.acceptance_m3 / vessel.volume_m3, exponent
    )


def _held_m3(vessel: Vessel, p_abs: float, exponent: float) -> float:
    if p_abs <= vessel.pre_charge_abs_pa:
        return 0.0
    free = vessel.volume_m3 * (1 - math.pow(vessel.pre_charge_abs_pa / p_abs, 1 / exponent))
    return min(free, vessel.acceptance_m3)


def water_m3(bank: Bank, p_abs: float) -> float:
    """Water held at `p_abs` (Pa abs, above 0), m³: Σ V (1 − (c/p)^(1/n)) over the tanks with p
    above their pre-charge c, each at most its bladder's acceptance. Never negative, never the whole
    tank.

    Args:
        bank: The tanks, in absolute pressures.
        p_abs: Pressure, Pa abs, above 0.

    Returns:
        Water held, m³, 0 or more.

    Source: The gas law.
    """
    total = 0.0
    for vessel in bank.vessels:
        total += _held_m3(vessel, p_abs, bank.exponent)
    return total


def pressure_abs_pa(bank: Bank, water: float) -> float:
    """The pressure (Pa abs) at which the bank holds `water` m³; the inverse of `water_m3`. At 0 it
    is the lowest pre-charge; at or above what the bank can take, infinity.

    Args:
        bank: The tanks, in absolute pressures.
        water: Water held, m³, 0 or more.

    Returns:
        Pressure, Pa abs; infinity where it cannot be held.

    Source: The gas law, solved for p.
    """
    if water <= 0:
        return bank.breakpoints_abs_pa[0]
    room, air = bank._stretches[bisect_left(bank._breakpoint_waters_m3, water) - 1]
    if room <= water:
        return float("inf")
    return math.pow(air / (room - water), bank.exponent)


def _stretch(bank: Bank, kink: float) -> tuple[float, float]:
    room = air = 0.0
    for vessel in bank.vessels:
        if _full_abs_pa(vessel, bank.exponent) <= kink:
            room += vessel.acceptance_m3
        elif vessel.pre_charge_abs_pa <= kink:
            room += vessel.volume_m3
            air += vessel.volume_m3 * math.pow(vessel.pre_charge_abs_pa, 1 / bank.exponent)
    return room, air


def from_rest(vessel: Vessel, rest_abs_pa: float, exponent: float) -> Vessel:
    """The vessel as it behaves when its pressure changes fast from `rest_abs_pa`, at which it has
    stood until its air had the room's temperature: the exponent acts from there on, not from the
    pre-charge. At rest it holds what the law with n = 1 says; the charge that a fast change would
    then empty it at is rest·(c/rest)^n. A vessel that is empty at rest is as it was.

    Args:
        vessel: The tank, pre-charge in absolute pressure.
        rest_abs_pa: The pressure at which it stood, Pa abs, above 0.
        exponent: Gas exponent n of the fast change, 1 to 1.4.

    Returns:
        The vessel.

    Source: The gas law, p·v = const up to rest, p·v^n = const from there.
    """
    share = vessel.pre_charge_abs_pa / rest_abs_pa
    if share >= 1 or exponent == 1:
        return vessel
    charge = rest_abs_pa * math.pow(share, exponent)
    return Vessel(vessel.volume_m3, charge, vessel.acceptance_m3)


def air_to_add_m3(
    volume_m3: float, from_gauge_pa: float, to_gauge_pa: float, atmosphere_pa: float
) -> float:
    """Free air (m³ at the atmosphere `atmosphere_pa`) that takes a drained tank from one gauge
    pressure to another; negative is air to let out.

    Args:
        volume_m3: Volume, m³, above 0.
        from_gauge_pa: Gauge pressure before, Pa.
        to_gauge_pa: Gauge pressure after, Pa.
        atmosphere_pa: Atmospheric pressure at the site, Pa abs, above 0.

    Returns:
        Free air, m³; negative to let out.

    Source: The gas law, V·Δc/p_atm.
    """
    return volume_m3 * (to_gauge_pa - from_gauge_pa) / atmosphere_pa
