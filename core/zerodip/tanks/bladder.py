"""Bladder and diaphragm tanks by the gas law, alone or several in parallel.

All pressures here are absolute, Pa. The air follows p·v^n = const: n = 1 when filled slowly (the air keeps its temperature),
up to 1.4 when filled fast. Source: the ideal gas law; common practice for n.
"""

import math
from bisect import bisect_left
from dataclasses import dataclass
from functools import cached_property

__all__ = ["Bank", "Vessel", "air_to_add_m3", "pressure_abs_pa", "water_m3"]


@dataclass(frozen=True)
class Vessel:
    """One tank: its volume, the pre-charge of its air when drained, and the most water its bladder takes (m³, Pa abs)."""

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
        return sum(vessel.volume_m3 for vessel in self.vessels)

    @cached_property
    def kinks_abs_pa(self) -> tuple[float, ...]:
        """The pressures at which a tank begins to take water or its bladder is full, rising, Pa abs."""
        starts = [vessel.pre_charge_abs_pa for vessel in self.vessels]
        fulls = [_full_abs_pa(vessel, self.exponent) for vessel in self.vessels]
        return tuple(sorted({p for p in starts + fulls if p != float("inf")}))

    @cached_property
    def _alike_up_to_abs_pa(self) -> float:
        """Up to this pressure all tanks share one closed form: one pre-charge, and no bladder full yet. 0: they never do."""
        if any(vessel.pre_charge_abs_pa != self.vessels[0].pre_charge_abs_pa for vessel in self.vessels):
            return 0.0
        return min(_full_abs_pa(vessel, self.exponent) for vessel in self.vessels)

    @cached_property
    def _kink_waters_m3(self) -> tuple[float, ...]:
        return tuple(water_m3(self, p) for p in self.kinks_abs_pa)


def _full_abs_pa(vessel: Vessel, exponent: float) -> float:
    if vessel.acceptance_m3 >= vessel.volume_m3:
        return float("inf")
    return vessel.pre_charge_abs_pa / math.pow(1 - vessel.acceptance_m3 / vessel.volume_m3, exponent)


def _held_m3(vessel: Vessel, p_abs: float, exponent: float) -> float:
    if p_abs <= vessel.pre_charge_abs_pa:
        return 0.0
    free = vessel.volume_m3 * (1 - math.pow(vessel.pre_charge_abs_pa / p_abs, 1 / exponent))
    return min(free, vessel.acceptance_m3)


def water_m3(bank: Bank, p_abs: float) -> float:
    """Water held at `p_abs` (Pa abs, above 0), m³: Σ V (1 − (c/p)^(1/n)) over the tanks with p above their pre-charge c,
    each at most its bladder's acceptance. Never negative, never the whole tank. Source: the gas law."""
    total = 0.0
    for vessel in bank.vessels:
        total += _held_m3(vessel, p_abs, bank.exponent)
    return total


def pressure_abs_pa(bank: Bank, water: float) -> float:
    """The pressure (Pa abs) at which the bank holds `water` m³; the inverse of `water_m3`. At 0 it is the lowest
    pre-charge; at or above what the bank can take, infinity. Source: the gas law, solved for p."""
    if water <= 0:
        return bank.kinks_abs_pa[0]
    room = 1 - water / bank.volume_m3
    if room <= 0:
        return float("inf")
    alike = bank.vessels[0].pre_charge_abs_pa / math.pow(room, bank.exponent)
    if alike <= bank._alike_up_to_abs_pa:
        return alike
    return _solved_abs_pa(bank, water)


def _solved_abs_pa(bank: Bank, water: float) -> float:
    at = bisect_left(bank._kink_waters_m3, water)
    low = bank.kinks_abs_pa[max(at - 1, 0)]
    high = bank.kinks_abs_pa[at] if at < len(bank.kinks_abs_pa) else low * 2
    while water_m3(bank, high) < water:
        low, high = high, high * 2
        if high > 1e12:
            return float("inf")
    return _between(bank, water, low, high)


def _between(bank: Bank, water: float, low: float, high: float) -> float:
    """The pressure between two brackets, by false position; an end that stays put counts half (Illinois)."""
    below, above = water_m3(bank, low) - water, water_m3(bank, high) - water
    for _ in range(60):
        if high - low <= 1e-12 * high or above <= below:
            break
        p = high - above * (high - low) / (above - below)
        miss = water_m3(bank, p) - water
        if abs(miss) <= 1e-14 * bank.volume_m3:
            return p
        if miss < 0:
            low, below, above = p, miss, above / 2
        else:
            high, above, below = p, miss, below / 2
    return (low + high) / 2


def air_to_add_m3(volume_m3: float, from_gauge_pa: float, to_gauge_pa: float, atmosphere_pa: float) -> float:
    """Free air (m³ at the atmosphere `atmosphere_pa`) that takes a drained tank from one gauge pressure to another;
    negative is air to let out. Source: the gas law, V·Δc/p_atm."""
    return volume_m3 * (to_gauge_pa - from_gauge_pa) / atmosphere_pa
