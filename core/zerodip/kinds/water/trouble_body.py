"""A water system as it would be with faults in it, by the gas law and the pump's own line.

Source: the polytropic exponent of a fill of a minute is judgement, between 1 (slow) and 1.4 (fast).
"""

import math
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import Self

from zerodip.kinds.trouble_plants import SwitchedPlant
from zerodip.kinds.water.figures import WaterFigures
from zerodip.physics.bladder_tank import Bank, from_rest, pressure_abs_pa, water_m3
from zerodip.physics.plain_tank import vessel_above_zero
from zerodip.physics.pump_delivery import flow_m3_s
from zerodip.units import PSI

__all__ = ["PLATE_SD", "WaterBody"]

_STEPS = 8
_WARMED = 1.15  # polytropic exponent of a run
PLATE_SD = 0.12  # of a pump's plate, one standard deviation (judgement, no source)


@dataclass(frozen=True)
class WaterBody(SwitchedPlant):
    """The system with faults: `charge_pa` the pre-charge, `target_pa` what it should be; `air` the
    share of that air that is there, `room` the share of the tanks that works; `flow` and `head` of
    the pump as shares of its plate, which `reaches` no more than a share of cut-out; what runs away
    in the house, past the relief valve, out of a pipe in the ground and back through the check
    valve (m³/s); how late the switch feels the pressure; whether its cut-off `trips`; what the air
    gauge shows too little (Pa); how far pump and tanks may be off their plates, as a share."""

    figures: WaterFigures
    charge_pa: float = 0.0
    target_pa: float = 0.0
    air: float = 1.0
    room: float = 1.0
    flow: float = 1.0
    head: float = 1.0
    reaches: float = 9.9
    house_m3_s: float = 0.0
    relief_m3_s: float = 0.0
    back_m3_s: float = 0.0
    pipe_m3_s: float = 0.0
    lag_s: float = 0.0
    trips: bool = False
    air_gauge_low_pa: float = 0.0
    pump_sd: float = PLATE_SD
    tank_sd: float = 0.0

    @property
    def plain(self) -> bool:
        """Whether its tanks have no bladder."""
        return self.figures.system.plain

    @property
    def decided(self) -> Self:
        """The plant with the pre-charge that Decide would set."""
        return replace(self, charge_pa=self.target_pa)

    @property
    def tanks(self) -> int:
        """How many tanks there are."""
        return len(self.figures.system.tanks)

    @property
    def plate_flow_m3_s(self) -> float:
        """What the pump delivers half-way by its plate; a trickle where it does not come there."""
        return max(flow_m3_s(self.figures.line, math.fsum(self.points) / 2), 1e-6)

    @cached_property
    def bank(self) -> Bank:
        """The tanks with the air that is in them."""
        of, exponent = self.figures, self.figures.practice.gas_exponent
        charge = max((self.charge_pa + of.atmosphere_pa) * self.air, 500.0)
        vessels = (
            vessel_above_zero(
                tank.volume_m3 * self.room,
                charge,
                of.datum_pa,
                # A burst bladder holds nothing back.
                float("inf")
                if self.plain or self.air < 1
                else (tank.acceptance_m3 or float("inf")),
            )
            for tank in of.system.tanks
        )
        rest = self.points[0] + of.datum_pa
        return Bank(tuple(from_rest(each, rest, exponent) for each in vessels), exponent)

    def water(self, gauge_pa: float) -> float:
        """Water held at a gauge pressure, m³."""
        return water_m3(self.bank, max(gauge_pa, 0.0) + self.figures.datum_pa)

    def gauge_at(self, water: float) -> float:
        """The gauge with so much water held, not above a thousand psi."""
        if water <= 0:
            return 0.0
        return min(pressure_abs_pa(self.bank, water) - self.figures.datum_pa, 1000 * PSI)

    def delivers(self, gauge_pa: float) -> float:
        """What the pump delivers at a gauge pressure, m³/s."""
        if gauge_pa >= self.reaches * self.points[1]:
            return 0.0
        return self.flow * flow_m3_s(self.figures.line, gauge_pa / self.head)

    @cached_property
    def drawdown_m3(self) -> float:
        """From cut-out down to cut-in."""
        return max(self.water(self.points[1]) - self.water(self.points[0]), 1e-7)

    @property
    def lost_m3_s(self) -> float:
        """What runs away with the pump off and all taps shut."""
        return self.house_m3_s + self.outside_m3_s + self.back_m3_s

    @property
    def outside_m3_s(self) -> float:
        """What runs away before the house, whether its valve is shut or not."""
        return self.relief_m3_s + self.pipe_m3_s

    @cached_property
    def cooling_pa(self) -> float:
        """How far the gauge sags after a stop, as the air that the run warmed cools down."""
        low, high = (point + self.figures.datum_pa for point in self.points)
        return float(high * (1 - (low / high) ** (1 - 1 / _WARMED)))

    @cached_property
    def run_s(self) -> float:
        """The run with all taps shut; infinity where it never gets there."""
        return self.run_with(self.house_m3_s + self.outside_m3_s) + self.lag_s

    def run_with(self, draw: float) -> float:
        """The run with so much drawn (m³/s)."""
        low, high = self.points
        if self.delivers(high) <= draw:
            return math.inf
        step = (high - low) / _STEPS
        waters = [self.water(low + step * k) for k in range(_STEPS + 1)]
        total = 0.0
        for k, (a, b) in enumerate(pairwise(waters)):
            net = self.delivers(low + step * (k + 0.5)) - draw
            if net <= 0:
                return math.inf
            total += (b - a) / net
        return max(total, 0.05)

    @cached_property
    def highest_pa(self) -> float:
        """Where the gauge stands when the switch has felt cut-out."""
        late = self.delivers(self.points[1]) * self.lag_s
        return self.gauge_at(self.water(self.points[1]) + late) if late else self.points[1]

    @cached_property
    def lowest_pa(self) -> float:
        """Where the gauge comes to in a start, while the pump does not deliver yet."""
        of = self.figures
        draw = of.peak_draw_m3_s or 0.6 * self.plate_flow_m3_s
        wait = of.start_lag_s + of.ramp_s / 2 + self.lag_s
        return min(self.gauge_at(self.water(self.points[0]) - draw * wait), self.points[0])
