"""Figures of water tanks with their pump: what is stored, how long it fills, how often it
starts."""

import math
from collections.abc import Callable, Mapping
from functools import cached_property
from typing import Any, Self

from zerodip.kinds.figures import Figures
from zerodip.kinds.parts import System
from zerodip.kinds.water.model import Tank, WaterSystem
from zerodip.physics.atmosphere import head_pa
from zerodip.physics.bladder_tank import Bank, Vessel, from_rest, pressure_abs_pa, water_m3
from zerodip.physics.cycle_rate import WorstDraw, worst_draw
from zerodip.physics.fill import fill_seconds
from zerodip.physics.plain_tank import charge_abs_pa, vessel_above_zero
from zerodip.physics.pump_delivery import Delivery, flow_m3_s
from zerodip.physics.simulation import WaterStore
from zerodip.rules.engine import slack
from zerodip.text.figure import Figure, Reading, figure

__all__ = ["PEAK_DRAW", "TankFigures"]

PEAK_DRAW = Reading("system.demand.peak_draw_m3_s", "the peak draw of the house")


_MISREAD = 1.05  # times all air: what a bucket read a little wrong may tell


class TankFigures(Figures):
    """What tanks, pump and switch do together."""

    system: WaterSystem

    def varied(self, elsewhere: Mapping[Figure[Any], Any], system: System | None = None) -> Self:
        """As for every kind; the line of a pump that stays is not worked out again."""
        kept = system is None or getattr(system, "pump", None) is self.system.pump
        return super().varied(
            {TankFigures.line: self.line, **elsewhere} if kept else elsewhere, system
        )

    @figure("pressure")
    def pre_charge_pa(self) -> float:
        """Pre-charge as set; 0 for plain atmospheric air."""
        return self.settings.pre_charge_gauge_pa or 0.0

    @figure("flow", PEAK_DRAW)
    def peak_draw_m3_s(self) -> float | None:
        """The most that the house draws."""
        return self.system.demand.peak_draw_m3_s

    @figure("volume", Reading("system.demand.daily_m3", "the water used in a day"))
    def daily_m3(self) -> float | None:
        """Water used in a day."""
        return self.system.demand.daily_m3

    @figure("duration")
    def start_lag_s(self) -> float:
        """From the switch's closing to the first delivery."""
        return self.system.pump.start_lag_s

    @figure("duration")
    def ramp_s(self) -> float:
        """From the first delivery to the whole of it."""
        return self.system.pump.ramp_s

    @figure("pressure")
    def tank_head_pa(self) -> float:
        """What the gauge shows more than there is in the tanks, where they stand higher."""
        return head_pa(self.system.tanks_above_m)

    @figure("pressure")
    def datum_pa(self) -> float:
        """What comes on top of the gauge for the absolute pressure in the tanks."""
        return self.atmosphere_pa - self.tank_head_pa

    @figure("pressure")
    def cut_in_there_pa(self) -> float:
        """Cut-in as a gauge at the tanks would show it: what the pre-charge stays under."""
        return self.cut_in_pa - self.tank_head_pa

    @figure("pressure")
    def cut_in_abs_pa(self) -> float:
        """Cut-in, absolute, in the tanks."""
        return self.cut_in_pa + self.datum_pa

    @figure("pressure")
    def cut_out_abs_pa(self) -> float:
        """Cut-out, absolute, in the tanks."""
        return self.cut_out_pa + self.datum_pa

    @figure("pressure")
    def pre_charge_abs_pa(self) -> float:
        """Pre-charge as set, absolute."""
        return self.pre_charge_pa + self.atmosphere_pa

    @figure("pressure")
    def highest_pre_charge_pa(self) -> float:
        """The highest pre-charge among the tanks, Pa gauge."""
        return max(self._pre_charge_of(tank) for tank in self.system.tanks)

    @property
    def dips(self) -> bool:
        """Whether the pre-charge lies at or above cut-in, as the rules compare them."""
        there = self.cut_in_there_pa
        return self.highest_pre_charge_pa >= there - slack(there, "pressure")

    @figure("pressure")
    def uneven_pa(self) -> float:
        """How far the tanks' pre-charges lie apart."""
        return self.highest_pre_charge_pa - min(
            self._pre_charge_of(tank) for tank in self.system.tanks
        )

    def _pre_charge_of(self, tank: Tank) -> float:
        own = tank.pre_charge_gauge_pa
        return self.pre_charge_pa if own is None else own

    @figure("volume")
    def nominal_m3(self) -> float:
        """Volume of the tanks by their plates."""
        return math.fsum(tank.volume_m3 for tank in self.system.tanks)

    @cached_property
    def measured_charge_abs_pa(self) -> float | None:
        """What the bucket test says of a plain tank's air, spread over the whole tank; None where
        more was caught than the tank can give between those points."""
        found = self.system.found
        if (
            found.caught_m3 is None
            or found.cut_in_gauge_pa is None
            or found.cut_out_gauge_pa is None
        ):
            return None
        low, high = (
            found.cut_in_gauge_pa + self.datum_pa,
            found.cut_out_gauge_pa + self.datum_pa,
        )
        told = charge_abs_pa(
            self.nominal_m3, found.caught_m3, low, high, self.practice.gas_exponent
        )
        return None if told > _MISREAD * low else min(told, low)

    @figure(
        "share",
        Reading(
            "system.found.caught_m3",
            "the water caught in a bucket from cut-out to cut-in, power off",
        ),
    )
    def air_left(self) -> float | None:
        """The share of a fresh charge of air that is in a plain tank; above 1, more than it was
        thought to take."""
        measured = self.measured_charge_abs_pa
        if self.settings.air_renewed:
            return 1.0
        return None if measured is None else measured / self.pre_charge_abs_pa

    @cached_property
    def resting(self) -> Bank:
        """The tanks with their air as it is, and with time to keep the room's temperature."""
        if self.system.plain:
            return self._plain(1.0 if self.air_left is None else self.air_left)
        return self._bladders(self._pre_charge_of)

    def _bladders(self, charge_of: Callable[[Tank], float]) -> Bank:
        """Bladder tanks, each with a pre-charge (Pa gauge) of its own."""
        vessels = (
            vessel_above_zero(
                tank.volume_m3,
                charge_of(tank) + self.atmosphere_pa,
                self.datum_pa,
                tank.acceptance_m3 or float("inf"),
            )
            for tank in self.system.tanks
        )
        return Bank(tuple(vessels))

    def held_as_found_m3(self, gauge_pa: float) -> float:
        """Water in the tanks at a gauge pressure (Pa), with the air that was found in them where
        that was read."""
        found = self.system.found.pre_charge_gauge_pa
        bank = self.bank
        if found is not None and not self.system.plain:
            bank = self._from_cut_in(self._bladders(lambda tank: found))
        return water_m3(bank, gauge_pa + self.datum_pa)

    def _plain(self, left: float) -> Bank:
        """Plain tanks with the share `left` of a fresh charge."""
        charge = self.pre_charge_abs_pa * left
        tanks = (vessel_above_zero(t.volume_m3, charge, self.datum_pa) for t in self.system.tanks)
        return Bank(tuple(tanks))

    @cached_property
    def bank(self) -> Bank:
        """The same as they behave in a cycle, for the gas law."""
        return self._from_cut_in(self.resting)

    def plain_bank(self, left: float) -> Bank:
        """Plain tanks with the share `left` of a fresh charge, as they behave in a cycle."""
        return self._from_cut_in(self._plain(left))

    def _from_cut_in(self, resting: Bank) -> Bank:
        """Tanks that have stood at cut-in when a cycle begins."""
        exponent, rest = self.practice.gas_exponent, self.cut_in_abs_pa
        return Bank(tuple(from_rest(each, rest, exponent) for each in resting.vessels), exponent)

    @figure("volume")
    def slow_drawdown_m3(self) -> float:
        """Drawdown when it is filled slowly."""
        return water_m3(self.resting, self.cut_out_abs_pa) - self.reserve_m3

    @figure("pressure")
    def cooled_pa(self) -> float:
        """Where the gauge comes to after a fast fill, once the air has cooled."""
        return pressure_abs_pa(self.resting, self.full_m3) - self.datum_pa

    @figure("volume")
    def renewed_m3(self) -> float:
        """Drawdown once drained and re-aired."""
        fresh = self.plain_bank(1.0)
        return water_m3(fresh, self.cut_out_abs_pa) - water_m3(fresh, self.cut_in_abs_pa)

    @figure("volume")
    def regained_m3(self) -> float:
        """What re-airing gives back of the drawdown."""
        return self.renewed_m3 - self.drawdown_m3

    @figure("volume")
    def volume_m3(self) -> float:
        """Volume that works: all of a bladder tank, of a plain tank what is not waterlogged."""
        return self.bank.volume_m3

    @figure("")
    def line(self) -> Delivery:
        """The pump's line of flow against gauge pressure."""
        return self.system.pump.delivery()

    @cached_property
    def store(self) -> WaterStore:
        """Tank, pump and switch together, for filling and for the simulation."""
        return self._store(self.bank)

    def _store(self, bank: Bank) -> WaterStore:
        # While delivery ramps up evenly, half of it is missing: as long a start without any.
        lag_s = self.start_lag_s + self.ramp_s / 2
        return WaterStore(bank, self.line, self.datum_pa, self.cut_in_pa, self.cut_out_pa, lag_s)

    @figure("volume")
    def reserve_m3(self) -> float:
        """Reserve: water still held at cut-in."""
        return self.store.on_m3

    @figure("volume")
    def full_m3(self) -> float:
        """Water held at cut-out."""
        return self.store.off_m3

    @figure("volume")
    def unbounded_full_m3(self) -> float:
        """Water the air would let in at cut-out, were there no bladder limit."""
        return math.fsum(
            water_m3(
                Bank((Vessel(v.volume_m3, v.pre_charge_abs_pa),), self.bank.exponent),
                self.cut_out_abs_pa,
            )
            for v in self.bank.vessels
        )

    @figure("volume")
    def drawdown_m3(self) -> float:
        """Water given from cut-out down to cut-in."""
        return self.full_m3 - self.reserve_m3

    @cached_property
    def one_lost(self) -> WaterStore | None:
        """The tanks, pump and switch with the tank that gives most out of action; None with a
        single tank."""
        vessels = self.bank.vessels
        if len(vessels) < 2:
            return None
        gives = [self._gives(vessel) for vessel in vessels]
        lost = gives.index(max(gives))
        return self._store(Bank(vessels[:lost] + vessels[lost + 1 :], self.bank.exponent))

    def _gives(self, vessel: Vessel) -> float:
        alone = Bank((vessel,), self.bank.exponent)
        return water_m3(alone, self.cut_out_abs_pa) - water_m3(alone, self.cut_in_abs_pa)

    @figure("volume")
    def one_lost_m3(self) -> float | None:
        """Drawdown left when the tank that gives most has lost its air."""
        return None if self.one_lost is None else self.one_lost.off_m3 - self.one_lost.on_m3

    @figure("duration")
    def one_lost_run_s(self) -> float | None:
        """Pump run left then."""
        return None if self.one_lost is None else _run_s(self.one_lost)

    @figure("duration")
    def run_s(self) -> float:
        """Fill time with nothing drawn, by integration; infinity when the pump never reaches
        cut-out."""
        return _run_s(self.store)

    @figure("flow")
    def mid_flow_m3_s(self) -> float:
        """The pump's flow half-way between the set points."""
        return flow_m3_s(self.line, (self.cut_in_pa + self.cut_out_pa) / 2)

    @figure("flow")
    def cut_in_flow_m3_s(self) -> float:
        """What the pump delivers at cut-in: the most it takes from the well."""
        return flow_m3_s(self.line, self.cut_in_pa)

    @figure("flow")
    def cut_out_flow_m3_s(self) -> float:
        """What the pump still delivers at cut-out."""
        return self.store.fill.flows_m3_s[-1]

    @figure("duration")
    def simple_run_s(self) -> float:
        """Drawdown over the mid-band flow: the rule of thumb."""
        return self.drawdown_m3 / self.mid_flow_m3_s if self.mid_flow_m3_s > 0 else float("inf")

    @cached_property
    def worst(self) -> WorstDraw | None:
        return worst_draw(self.store.fill, self.reserve_m3, self.full_m3)

    @figure("flow")
    def worst_draw_m3_s(self) -> float | None:
        """The steady draw at which the pump starts most often."""
        return None if self.worst is None else self.worst.draw_m3_s

    @figure("rate")
    def worst_starts_per_s(self) -> float | None:
        """Starts at that draw; without end where nothing is stored between the points, and None
        where the pump never reaches cut-out."""
        if self.worst is not None:
            return self.worst.starts_per_s
        return float("inf") if self.run_s == 0.0 else None


def _run_s(store: WaterStore) -> float:
    if store.fill.flows_m3_s[-1] <= 0:
        return float("inf")
    return fill_seconds(store.fill, store.on_m3, store.off_m3)
