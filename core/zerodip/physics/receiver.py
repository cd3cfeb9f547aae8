"""A receiver of compressed air as a store of free air, so that the same fill table, rates and
events serve it.

Free air held at gauge pressure p is V·p / p_atm: the volume it would have at the site's atmosphere,
above that atmosphere.
"""

import math
from bisect import bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

from zerodip.physics.fill import FillLine

__all__ = [
    "HotFill",
    "ReceiverStore",
    "free_air_m3",
    "hot_fill",
    "leak_fall_s",
    "leak_m3_s",
    "settled_gauge_pa",
]

_GAMMA, _WALL_W_M2_K, _WALL_SHARE, _STEPS = 1.4, 10.0, 6.0, 16


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
class HotFill:
    """A fill with hot air: how long it takes (s), the free air that it puts in (m³), and how much
    warmer than the room the air in the receiver is at its end (K)."""

    seconds: float
    free_air_m3: float
    warmer_k: float


def hot_fill(
    volume_m3: float,
    flow_m3_s: Callable[[float], float],
    gauges_pa: tuple[float, float],
    temperatures_k: tuple[float, float],
    atmosphere_pa: float,
) -> HotFill:
    """A receiver filled with air that comes in hot and gives heat to the walls, from rest at the
    room's temperature. The pressure rises by the energy that comes in, not by the mass alone, so
    the fill is shorter than the cold form says, and the gauge settles when the air has cooled.

    Args:
        volume_m3: Volume, m³, above 0.
        flow_m3_s: Free air delivered, m³/s above 0, at a gauge pressure, Pa.
        gauges_pa: From and to, Pa gauge, rising.
        temperatures_k: Of the air delivered into the receiver and of the room, K.
        atmosphere_pa: Atmospheric pressure at the site, Pa abs, above 0.

    Returns:
        The fill.

    Source: First law for an open vessel, dU = h dm − hA (T − T₀) dt, air as an ideal gas with
    γ = 1.4; walls of 6 V^(2/3) m² at 10 W/m²K (free convection inside, from memory).
    """
    (low, high), (hot_k, room_k) = gauges_pa, temperatures_k
    walls_w_k = _WALL_W_M2_K * _WALL_SHARE * volume_m3 ** (2 / 3)
    cools = walls_w_k * (_GAMMA - 1) * room_k / atmosphere_pa  # m³/s of free air for each T/T0 − 1

    def slopes(gauge: float, air: float) -> tuple[float, float]:
        warmth = (gauge + atmosphere_pa) * volume_m3 / (atmosphere_pa * air)
        flow = flow_m3_s(gauge)
        rises = _GAMMA * hot_k / room_k * flow - cools * (warmth - 1)
        # Air that has come down to the room's temperature fills at that temperature, no slower.
        pace = volume_m3 / (atmosphere_pa * max(rises, flow))  # s per Pa
        return pace, flow * pace

    seconds, air = 0.0, (low + atmosphere_pa) * volume_m3 / atmosphere_pa
    first, step = air, (high - low) / _STEPS
    for at in range(_STEPS):
        gauge = low + at * step
        a = slopes(gauge, air)
        b = slopes(gauge + step / 2, air + a[1] * step / 2)
        c = slopes(gauge + step / 2, air + b[1] * step / 2)
        d = slopes(gauge + step, air + c[1] * step)
        seconds += step * (a[0] + 2 * b[0] + 2 * c[0] + d[0]) / 6
        air += step * (a[1] + 2 * b[1] + 2 * c[1] + d[1]) / 6
    warmth = (high + atmosphere_pa) * volume_m3 / (atmosphere_pa * air)
    return HotFill(seconds, air - first, room_k * max(warmth - 1, 0.0))


@dataclass(frozen=True)
class ReceiverStore:
    """Receivers of `volume_m3` with a compressor whose free air delivery (m³/s) at `gauges_pa` is
    `flows_m3_s`, straight between them and level outside. `settled_gauge_pa` is where the gauge
    comes to rest after the click of cut-out (None: at cut-out): what the air of a cycle amounts
    to."""

    volume_m3: float
    gauges_pa: Sequence[float]
    flows_m3_s: Sequence[float]
    atmosphere_pa: float
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    start_lag_s: float = 0.0
    settled_gauge_pa: float | None = None

    @cached_property
    def _share(self) -> float:
        """Of the pressure between the points: what is left of it when the air has cooled."""
        if self.settled_gauge_pa is None:
            return 1.0
        gap = self.cut_out_gauge_pa - self.cut_in_gauge_pa
        return (self.settled_gauge_pa - self.cut_in_gauge_pa) / gap

    def held_m3(self, gauge_pa: float) -> float:
        """Free air held at a gauge pressure, m³; above cut-in, in a cycle with hot air."""
        above = max(gauge_pa - self.cut_in_gauge_pa, 0.0)
        cold = gauge_pa - above + above * self._share
        return free_air_m3(self.volume_m3, 0.0, cold, self.atmosphere_pa)

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
        cold = held * self.atmosphere_pa / self.volume_m3
        above = max(cold - self.cut_in_gauge_pa, 0.0)
        return cold - above + above / self._share

    def balance_gauge_pa(self, draw: float) -> float:
        """An empty receiver with more drawn than delivered stands at nothing. Pa."""
        return 0.0


def leak_fall_s(
    from_abs_pa: float, to_abs_pa: float, first_abs_pa: float, later_abs_pa: float, seconds: float
) -> float:
    """How long a leak takes from one pressure to another, from a watch on it: through a small hole
    it goes as the absolute pressure, so that the pressure falls as an exponential.

    Args:
        from_abs_pa: Upper pressure, Pa abs.
        to_abs_pa: Lower pressure, Pa abs, above 0.
        first_abs_pa: First pressure of the watch, Pa abs.
        later_abs_pa: Later pressure of the watch, Pa abs, above 0.
        seconds: Time between them, s, above 0.

    Returns:
        Time, s; infinity where nothing leaks.

    Source: Choked flow is proportional to absolute pressure (physics).
    """
    if later_abs_pa >= first_abs_pa:
        return float("inf")
    return seconds * math.log(from_abs_pa / to_abs_pa) / math.log(first_abs_pa / later_abs_pa)


def leak_factor(first_gauge_pa: float, later_gauge_pa: float, atmosphere_pa: float) -> float:
    """By how much the leak at the first pressure exceeds the mean over the fall, a leak going as
    the absolute pressure: p1 / log-mean(p1, p2), all absolute. It is the sourcebook's 1.25 at one
    ratio only, about p2 = 0.63 p1. Source: choked flow through a small hole is proportional to
    absolute pressure (physics)."""
    first, later = first_gauge_pa + atmosphere_pa, later_gauge_pa + atmosphere_pa
    if first - later < 1e-9 * first:
        return 1.0
    return first * math.log(first / later) / (first - later)
