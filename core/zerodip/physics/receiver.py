"""A receiver of compressed air as a store of free air, so that the same fill table, rates and
events serve it.

Free air held at gauge pressure p is V·p / p_atm: the volume it would have at the site's atmosphere,
above that atmosphere.
"""

import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from zerodip.physics.fill import FillLine

__all__ = ["ReceiverStore", "free_air_m3", "leak_m3_s", "settled_gauge_pa"]


def free_air_m3(
    volume_m3: float, from_gauge_pa: float, to_gauge_pa: float, atmosphere_pa: float
) -> float:
    """Free air (m³ at the atmosphere, Pa abs) between two gauge pressures (Pa) in a receiver: V·Δp
    / p_atm. For air as an ideal gas at one temperature; real air holds about 0.5 % more at 10 bar.

    Args:
        volume_m3: Volume, m³, above 0.
        from_gauge_pa: Gauge pressure before, Pa.
        to_gauge_pa: Gauge pressure after, Pa.
        atmosphere_pa: Atmospheric pressure at the site, Pa abs, above 0.

    Returns:
        Free air, m³.

    Source: The gas law.
    """
    return volume_m3 * (to_gauge_pa - from_gauge_pa) / atmosphere_pa


def leak_m3_s(
    volume_m3: float,
    first_gauge_pa: float,
    later_gauge_pa: float,
    seconds: float,
    atmosphere_pa: float,
) -> float:
    """Free air lost (m³/s) while the gauge fell in `seconds`, compressor off: V (p1 − p2) /
    (t·p_atm). For small falls; the leak at the first pressure is higher (`leak_factor`).

    Args:
        volume_m3: Volume, m³, above 0.
        first_gauge_pa: First gauge pressure, Pa.
        later_gauge_pa: Later gauge pressure, Pa, not above the first.
        seconds: Time, s, above 0.
        atmosphere_pa: Atmospheric pressure at the site, Pa abs, above 0.

    Returns:
        Free air lost, m³/s.

    Source: The gas law; US DOE compressed-air sourcebook, from memory.
    """
    return free_air_m3(volume_m3, later_gauge_pa, first_gauge_pa, atmosphere_pa) / seconds


def settled_gauge_pa(
    click_gauge_pa: float, warmer_k: float, room_k: float, atmosphere_pa: float
) -> float:
    """Gauge pressure (Pa) once air that was `warmer_k` above the room (`room_k`, K) at the click
    has cooled to it: p·T/(T + ΔT) in absolute terms.

    Args:
        click_gauge_pa: Gauge pressure at the click, Pa.
        warmer_k: How much warmer than the room the air was, K, 0 or more.
        room_k: Temperature of the room, K, above 0.
        atmosphere_pa: Atmospheric pressure at the site, Pa abs, above 0.

    Returns:
        Gauge pressure, Pa.

    Source: The gas law at constant volume.
    """
    return (click_gauge_pa + atmosphere_pa) * room_k / (room_k + warmer_k) - atmosphere_pa


@dataclass(frozen=True)
class ReceiverStore:
    """Receivers of `volume_m3` with a compressor whose free air delivery (m³/s) at `gauges_pa` is
    `flows_m3_s`, straight between them and level outside."""

    volume_m3: float
    gauges_pa: Sequence[float]
    flows_m3_s: Sequence[float]
    atmosphere_pa: float
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    start_lag_s: float = 0.0

    def held_m3(self, gauge_pa: float) -> float:
        """Free air held at a gauge pressure, m³."""
        return free_air_m3(self.volume_m3, 0.0, gauge_pa, self.atmosphere_pa)

    def flow_m3_s(self, gauge_pa: float) -> float:
        """Free air delivered at a gauge pressure, m³/s."""
        at = bisect_right(self.gauges_pa, gauge_pa)
        if at == 0 or at == len(self.gauges_pa):
            return self.flows_m3_s[0 if at == 0 else -1]
        low, high = self.gauges_pa[at - 1], self.gauges_pa[at]
        share = (gauge_pa - low) / (high - low)
        return self.flows_m3_s[at - 1] * (1 - share) + self.flows_m3_s[at] * share

    @cached_property
    def fill(self) -> FillLine:
        """The fill table from empty to cut-out: exact, since all is straight between its joints."""
        joints = {0.0, self.cut_in_gauge_pa, self.cut_out_gauge_pa}
        gauges = sorted(joints | {g for g in self.gauges_pa if 0 < g < self.cut_out_gauge_pa})
        held = tuple(self.held_m3(g) for g in gauges)
        return FillLine(tuple(gauges), held, tuple(self.flow_m3_s(g) for g in gauges))

    @cached_property
    def on_m3(self) -> float:
        """Free air held at cut-in, m³."""
        return self.held_m3(self.cut_in_gauge_pa)

    @cached_property
    def off_m3(self) -> float:
        """Free air held at cut-out, m³."""
        return self.held_m3(self.cut_out_gauge_pa)

    def gauge_at(self, held: float) -> float:
        """Gauge pressure (Pa) with `held` m³ of free air inside."""
        return held * self.atmosphere_pa / self.volume_m3

    def balance_gauge_pa(self, draw: float) -> float:
        """An empty receiver with more drawn than delivered stands at nothing. Pa."""
        return 0.0


def leak_factor(first_gauge_pa: float, later_gauge_pa: float, atmosphere_pa: float) -> float:
    """By how much the leak at the first pressure exceeds the mean over the fall, a leak going as
    the absolute pressure: p1 / log-mean(p1, p2), all absolute. It is the sourcebook's 1.25 at one
    ratio only, about p2 = 0.63 p1. Source: choked flow through a small hole is proportional to
    absolute pressure (physics)."""
    first, later = first_gauge_pa + atmosphere_pa, later_gauge_pa + atmosphere_pa
    if first - later < 1e-9 * first:
        return 1.0
    return first * math.log(first / later) / (first - later)
