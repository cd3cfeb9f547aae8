"""Figures of a start, and of a peak draw that goes on."""

from dataclasses import replace
from functools import cached_property

from zerodip.kinds.water.model import BOOSTED
from zerodip.kinds.water.tap_figures import TapFigures
from zerodip.physics.atmosphere import head_pa
from zerodip.physics.bladder_tank import Bank, water_m3
from zerodip.physics.pump_delivery import Delivery, flow_m3_s, tapped_gauge_pa
from zerodip.physics.start_dip import (
    largest_pre_charge_abs_pa,
    lowest_abs_pa,
    start_need_m3,
    weak_start_need_m3,
)
from zerodip.text.figure import Reading, figure

__all__ = ["StartFigures"]

_WEAK = 0.5  # of the draw, under which a pump's flow at cut-in says too little of a start
_LOWEST_INLET = Reading(
    "system.supply.lowest_inlet_gauge_pa", "the lowest inlet pressure with the pump on"
)


class StartFigures(TapFigures):
    """What a tank must hold back while the pump starts, and what comes of a draw that goes on. The
    peak draw is what the open taps pass at cut-in: as little as a start takes, it is a constant; in
    a long draw the taps are orifices, Q = K·√p."""

    @figure("volume")
    def dip_need_m3(self) -> float | None:
        """The reserve that a start takes at the peak draw, until the pump delivers in full."""
        return self._taken_m3(self.careful_need_m3, 1.0)

    @figure("volume")
    def careful_need_m3(self) -> float | None:
        """The same by the pump's flow at cut-in, the least in the start: what a pre-charge should
        hold back, whatever the gauge does meanwhile."""
        if self.peak_draw_m3_s is None:
            return None
        return start_need_m3(
            self.peak_draw_m3_s, self.cut_in_flow_m3_s, self.start_lag_s, self.ramp_s
        )

    def _taken_m3(self, careful_m3: float | None, slower: float) -> float | None:
        """What a start takes that is `slower` times as slow, of what it takes at most."""
        draw = self.peak_draw_m3_s
        if draw is None or careful_m3 is None or self.cut_in_flow_m3_s >= _WEAK * draw:
            return careful_m3
        lag, ramp = slower * self.start_lag_s, slower * self.ramp_s
        return weak_start_need_m3(draw, self._delivers_m3_s, lag, ramp)

    def _delivers_m3_s(self, taken_m3: float) -> float:
        """The pump's flow once so much is taken out of the tank at cut-in."""
        fallen = lowest_abs_pa(self.bank, self.cut_in_abs_pa, taken_m3, self.datum_pa)
        return flow_m3_s(self.line, fallen - self.datum_pa)

    @property
    def lag_need_m3(self) -> float:
        """What the lag alone takes, whatever the pump delivers after it."""
        return (self.peak_draw_m3_s or 0.0) * self.start_lag_s

    @figure("volume")
    def seal_m3(self) -> float:
        """Water left in a plain tank at the lowest of a start: what stands below the air that works
        too."""
        below = self.nominal_m3 - self.volume_m3
        return below + max(self.reserve_m3 - (self.dip_need_m3 or 0.0), 0.0)

    @figure("volume")
    def least_seal_m3(self) -> float:
        """What should be left as a seal over the outlet."""
        return 0.1 * self.nominal_m3

    @property
    def starts_empty(self) -> bool:
        """Whether the tank runs empty in the start itself."""
        return self.dip_need_m3 is not None and self.dip_need_m3 > self.reserve_m3

    @figure("pressure")
    def through_pa(self) -> float:
        """What a standing pump lets through from a boosted supply, Pa gauge; 0 elsewhere."""
        if self.system.kind != BOOSTED:
            return 0.0
        lowest = self.lowest_inlet_pa
        return max(self.system.pump.usual_inlet_gauge_pa if lowest is None else lowest, 0.0)

    @figure("pressure")
    def start_lowest_pa(self) -> float | None:
        """The lowest gauge pressure in a start at the peak draw: on the tank's line while it holds
        water, then what the supply lets through."""
        return self._lowest_after_pa(self.dip_need_m3)

    @figure("volume")
    def slow_need_m3(self) -> float | None:
        """The reserve that a start twice as slow would need."""
        return self._taken_m3(self.careful_slow_need_m3, 2.0)

    @figure("volume")
    def careful_slow_need_m3(self) -> float | None:
        """The same by the pump's flow at cut-in."""
        return None if self.careful_need_m3 is None else 2 * self.careful_need_m3

    @figure("pressure")
    def slow_lowest_pa(self) -> float | None:
        """The same in a start twice as slow."""
        return self._lowest_after_pa(self.slow_need_m3)

    def _lowest_after_pa(self, need_m3: float | None) -> float | None:
        if need_m3 is None:
            return None
        held = lowest_abs_pa(self.bank, self.cut_in_abs_pa, need_m3, self.datum_pa)
        return max(held - self.datum_pa, min(self.through_pa, self.cut_in_pa))

    @figure("pressure", _LOWEST_INLET)
    def lowest_inlet_pa(self) -> float | None:
        """The lowest inlet pressure, pump on."""
        return self.system.supply.lowest_inlet_gauge_pa

    @property
    def inlet_fall_pa(self) -> float:
        """How far the inlet may fall below what the pump's line was made with."""
        lowest = self.lowest_inlet_pa
        return 0.0 if lowest is None else self.system.pump.usual_inlet_gauge_pa - lowest

    @cached_property
    def lowest_line(self) -> Delivery:
        """The pump's line with the inlet at its lowest."""
        line, fall = self.line, self.inlet_fall_pa
        if fall <= 0 or len(line.gauges_pa) == 1:
            return line
        top = line.dead_head_gauge_pa
        gauges = tuple(gauge - fall for gauge in line.gauges_pa)
        return replace(
            line, gauges_pa=gauges, dead_head_gauge_pa=None if top is None else top - fall
        )

    @figure("pressure")
    def balance_pa(self) -> float | None:
        """Where a long peak draw holds the gauge, inlet at its lowest: pump and taps balance there.
        The tank only delays it."""
        if self.peak_draw_m3_s is None:
            return None
        outlet_pa = min(head_pa(self.system.demand.lowest_tap_m), self.cut_in_pa - 1.0)
        return tapped_gauge_pa(self.lowest_line, self.peak_draw_m3_s, self.cut_in_pa, outlet_pa)

    @figure("pressure")
    def least_balance_pa(self) -> float:
        """What the gauge should hold in a long draw: cut-in, or what the highest tap asks for where
        that is less."""
        wanted = self.least_cut_in_pa
        return self.cut_in_pa if wanted is None else min(self.cut_in_pa, max(wanted, 0.0))

    @property
    def keeps_up(self) -> bool:
        """Whether a long peak draw keeps the pressure that is wanted."""
        return self.balance_pa is None or self.balance_pa >= self.least_balance_pa - 1.0

    def no_dip_charge_pa(self, need_m3: float | None) -> float | None:
        """The largest pre-charge (Pa gauge), the same in every tank, with which they hold back
        `need_m3` at cut-in; None where that is not known, or no pre-charge does."""
        if need_m3 is None:
            return None
        tanks = [(vessel.volume_m3, vessel.acceptance_m3) for vessel in self.bank.vessels]
        largest = largest_pre_charge_abs_pa(tanks, self.cut_in_abs_pa, need_m3)
        return None if largest is None else largest - self.atmosphere_pa

    @figure("pressure")
    def largest_pre_charge_abs_pa(self) -> float | None:
        """The largest pre-charge, of the tanks that are set, with which no start dips; None also
        where no pre-charge does."""
        if self.careful_need_m3 is None:
            return None
        of = self.bank.vessels
        own = [
            k for k, tank in enumerate(self.system.tanks) if tank.pre_charge_gauge_pa is not None
        ]
        held = water_m3(Bank(tuple(of[k] for k in own), self.bank.exponent), self.cut_in_abs_pa)
        need = max(self.careful_need_m3 - held, 0.0)
        shared = [(v.volume_m3, v.acceptance_m3) for k, v in enumerate(of) if k not in own]
        return largest_pre_charge_abs_pa(shared, self.cut_in_abs_pa, need)

    @figure("pressure")
    def largest_pre_charge_pa(self) -> float | None:
        """The same, gauge; None where even an empty tank's air would be too much."""
        largest = self.largest_pre_charge_abs_pa
        return (
            None
            if largest is None or largest < self.atmosphere_pa
            else largest - self.atmosphere_pa
        )
