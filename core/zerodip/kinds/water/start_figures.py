"""Figures of a start and of a peak draw that goes on."""

import math
from functools import cached_property

from zerodip.kinds.water.tank_figures import TankFigures
from zerodip.physics.bladder_tank import Bank, water_m3
from zerodip.physics.pump_delivery import balance_gauge_pa
from zerodip.physics.start_dip import (
    Sustained,
    emptied_in_start_s,
    largest_pre_charge_abs_pa,
    lowest_abs_pa,
    start_need_m3,
    sustained_draw,
)
from zerodip.text.figure import figure

__all__ = ["StartFigures"]


class StartFigures(TankFigures):
    """What a tank must hold back while the pump starts, and what comes of a draw that goes on."""

    @figure("volume")
    def dip_need_m3(self) -> float | None:
        """The reserve that a start needs at the peak draw, until the pump delivers in full."""
        if self.peak_draw_m3_s is None:
            return None
        return start_need_m3(
            self.peak_draw_m3_s, self.cut_in_flow_m3_s, self.start_lag_s, self.ramp_s
        )

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

    @cached_property
    def sustained(self) -> Sustained | None:
        """Where tank and pump come to when the peak draw goes on after the start."""
        if self.peak_draw_m3_s is None or self.dip_need_m3 is None:
            return None
        held = max(self.reserve_m3 - self.dip_need_m3, 0.0)
        return sustained_draw(self.store.fill, held, self.peak_draw_m3_s)

    @property
    def keeps_up(self) -> bool:
        """Whether the tank never runs empty however long the peak draw goes on."""
        return self.sustained is None or math.isinf(self.sustained.empty_s)

    @property
    def starts_empty(self) -> bool:
        """Whether the tank runs empty in the start itself."""
        return self.dip_need_m3 is not None and self.dip_need_m3 > self.reserve_m3

    @figure("flow")
    def sustained_flow_m3_s(self) -> float:
        """What the pump delivers with the tank all but empty: the draw that it can keep up with."""
        return self.store.fill.flows_m3_s[0]

    @figure("duration")
    def empty_s(self) -> float | None:
        """From the switch's closing until the tank is empty at the peak draw; infinity where it
        never is."""
        if self.sustained is None or self.peak_draw_m3_s is None:
            return None
        if self.starts_empty:
            return emptied_in_start_s(
                self.reserve_m3,
                self.peak_draw_m3_s,
                self.cut_in_flow_m3_s,
                self.start_lag_s,
                self.ramp_s,
            )
        return self.start_lag_s + self.ramp_s + self.sustained.empty_s

    @figure("pressure")
    def lowest_pa(self) -> float | None:
        """The lowest gauge pressure over the whole start and a peak draw that goes on; 0 when the
        tank runs empty before the pump delivers."""
        if self.sustained is None or self.dip_need_m3 is None or self.peak_draw_m3_s is None:
            return None
        if not self.keeps_up and not self.starts_empty:
            return max(balance_gauge_pa(self.line, self.peak_draw_m3_s), 0.0)
        fallen = self.reserve_m3 - self.sustained.held_m3
        need = self.dip_need_m3 if self.starts_empty else fallen
        return lowest_abs_pa(self.bank, self.cut_in_abs_pa, need, self.datum_pa) - self.datum_pa

    @figure("pressure")
    def largest_pre_charge_abs_pa(self) -> float | None:
        """The largest pre-charge, of the tanks that are set, with which no start dips; None also
        where no pre-charge does."""
        if self.dip_need_m3 is None:
            return None
        of = self.bank.vessels
        own = [
            k for k, tank in enumerate(self.system.tanks) if tank.pre_charge_gauge_pa is not None
        ]
        held = water_m3(Bank(tuple(of[k] for k in own), self.bank.exponent), self.cut_in_abs_pa)
        need = max(self.dip_need_m3 - held, 0.0)
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
