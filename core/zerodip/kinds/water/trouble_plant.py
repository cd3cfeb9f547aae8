"""A water system as it would be with faults in it: what the gauge, a stopwatch and a bucket would
show, by the gas law and the pump's own line."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

from zerodip.diagnosis.parts import Forecast, Observation
from zerodip.kinds.trouble_plants import (
    SwitchedPlant,
    drawn,
    is_endless,
    points_found,
    runs_on,
    sigmoid,
    timed_run,
)
from zerodip.kinds.water.figures import WaterFigures
from zerodip.physics.bladder_tank import Bank, from_rest, pressure_abs_pa, water_m3
from zerodip.physics.plain_tank import vessel_above_zero
from zerodip.physics.pump_delivery import flow_m3_s
from zerodip.units import PSI

__all__ = ["WaterPlant", "healthy_plant"]

_STEPS = 8
_TIGHT_M3_S = 2e-8
# Errors of plates, stopwatch, bucket and gauge, one standard deviation (judgement, no source).
_PLATE, _UNREAD, _BUCKET = 0.12, 0.45, 0.10
_PUMP_FLOW = ("system.pump.flow_m3_s", "system.pump.points")
_POINT_PA, _DRIFTED_PA, _HIGHEST_PA = 1.5 * PSI, 8 * PSI, 3 * PSI
_AIR_PA, _KNEE_PA = 1.0 * PSI, 1.5 * PSI
_CLICKS_S, _LONG_S, _ALONE_S = 25.0, 600.0, 3 * 3600.0
_USUAL_SHARE = 0.35  # of what the pump delivers is drawn by a usual tap


@dataclass(frozen=True)
class WaterPlant(SwitchedPlant):
    """The system with faults: `charge_pa` the pre-charge; `air` the share of that air that is
    there, `room` the share of the tanks that works; `flow` and `head` of the pump as shares of its
    plate, which `reaches` no more than a share of cut-out; what runs away in the house, past the
    relief valve and back through the check valve (m³/s); how late the switch feels the pressure;
    whether its cut-off `trips`; what the air gauge shows too little (Pa); how far pump and tanks
    may be off their plates, as a share."""

    figures: WaterFigures
    charge_pa: float = 0.0
    air: float = 1.0
    room: float = 1.0
    flow: float = 1.0
    head: float = 1.0
    reaches: float = 9.9
    house_m3_s: float = 0.0
    relief_m3_s: float = 0.0
    back_m3_s: float = 0.0
    lag_s: float = 0.0
    trips: bool = False
    air_gauge_low_pa: float = 0.0
    pump_sd: float = _PLATE
    tank_sd: float = 0.0

    @property
    def plain(self) -> bool:
        """Whether its tanks have no bladder."""
        return self.figures.system.plain

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
        return self.house_m3_s + self.relief_m3_s + self.back_m3_s

    @cached_property
    def run_s(self) -> float:
        """The run with all taps shut; infinity where it never gets there."""
        return self.run_with(self.house_m3_s + self.relief_m3_s) + self.lag_s

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

    def seen(self, item: str) -> float | None:
        """How likely an item is answered yes; None where the plant has no say in it."""
        told = _SEEN.get(item)
        return None if told is None else told(self)

    def shows(self, item: str, context: tuple[float, ...]) -> Forecast | None:
        """A figure; None where this plant cannot tell."""
        told = _SHOWS.get(item)
        return None if told is None else told(self, context)


def healthy_plant(figures: WaterFigures, seen: tuple[Observation, ...]) -> WaterPlant:
    """The system as its plates and settings say, its points where they were found.

    Args:
        figures: The system's figures under its settings.
        seen: What was observed.

    Returns:
        The plant without a fault.
    """
    points, wanted, found = points_found(figures, seen)
    charge = figures.pre_charge_pa
    if charge and figures.is_assumed("settings.pre_charge_gauge_pa"):
        charge = max(charge + points[0] - wanted[0], 0.0)  # as it is usual for that cut-in
    pump_unread = any(figures.is_assumed(path) for path in _PUMP_FLOW)
    return WaterPlant(
        figures,
        points,
        wanted,
        found,
        charge_pa=charge,
        pump_sd=_UNREAD if pump_unread else _PLATE,
        tank_sd=_UNREAD if figures.is_assumed("system.tanks") else 0.0,
    )


def _clicks(plant: WaterPlant) -> float:
    if not (plant.starts and plant.stops):
        return 0.0
    run = plant.run_with(_USUAL_SHARE * plant.plate_flow_m3_s * plant.flow + plant.house_m3_s)
    rest = plant.drawdown_m3 / (_USUAL_SHARE * plant.plate_flow_m3_s)
    return 0.95 * sigmoid(math.log(_CLICKS_S / min(run, rest * 2, 1e6)) / 0.3)


def _breath(plant: WaterPlant) -> float:
    if not plant.starts:
        return 0.0
    low = max(plant.points[0], PSI)
    return 0.92 * sigmoid((0.45 * low - plant.lowest_pa) / (0.08 * low))


def _alone(plant: WaterPlant) -> float:
    if not plant.starts or plant.lost_m3_s < _TIGHT_M3_S:
        return 0.0
    return 0.95 * sigmoid(math.log(_ALONE_S * plant.lost_m3_s / plant.drawdown_m3) / 0.5)


def _weak(plant: WaterPlant) -> float:
    if not plant.starts:
        return 0.5
    given = plant.delivers(plant.points[0]) - plant.house_m3_s
    return 0.85 * sigmoid((0.6 - given / max(plant.plate_flow_m3_s, 1e-9)) / 0.1)


def _one_weak(plant: WaterPlant) -> float:
    """Whether one usual tap alone gets too little."""
    if not plant.starts:
        return 0.5
    given = plant.delivers(plant.points[0]) - plant.house_m3_s
    return 0.9 * sigmoid((_USUAL_SHARE - given / max(plant.plate_flow_m3_s, 1e-9)) / 0.05)


def _tripped(plant: WaterPlant) -> float:
    if plant.figures.low_pressure_cut_off is False:
        return 0.0
    trip = plant.figures.trip_pa
    return 0.9 * max(float(plant.trips), sigmoid((trip - plant.lowest_pa) / PSI))


def _over(plant: WaterPlant) -> float:
    """Whether the relief valve lifts: by what the switch lets through."""
    relief = plant.figures.relief_pa
    top = plant.figures.highest_dead_head_pa if not plant.stops else plant.highest_pa
    if relief is None or top is None:
        return 0.5 if not plant.stops else 0.0
    return 0.9 * sigmoid((top - relief) / (2 * PSI))


def _rising(plant: WaterPlant) -> float:
    """While it runs with all taps shut: whether the gauge still rises."""
    return 0.1 if plant.run_s == math.inf or not plant.starts else 0.9


def _hollow(plant: WaterPlant) -> float:
    """Whether there is enough air to be heard."""
    middle = math.fsum(plant.points) / 2
    whole = math.fsum(tank.volume_m3 for tank in plant.figures.system.tanks) * plant.room
    return 0.9 * sigmoid((1 - plant.water(middle) / whole - 0.22) / 0.05)


_SEEN: dict[str, Callable[[WaterPlant], float]] = {
    "hollow": _hollow,
    "clicks": _clicks,
    "breath": _breath,
    "endless": lambda plant: runs_on(plant, _LONG_S),
    "silent": lambda plant: 0.0 if plant.starts else 0.95,
    "alone": _alone,
    "weak": _weak,
    "one_weak": _one_weak,
    "trips": _tripped,
    "relief_spits": _over,
    "rising": _rising,
}


def _rest(plant: WaterPlant, _: tuple[float, ...]) -> Forecast:
    if not plant.starts or plant.lost_m3_s < _TIGHT_M3_S:
        return Forecast(never=True)
    return Forecast(mean=plant.drawdown_m3 / plant.lost_m3_s, sd=math.hypot(0.2, plant.tank_sd))


def _caught(plant: WaterPlant, context: tuple[float, ...]) -> Forecast:
    high, low = context if len(context) == 2 else (plant.points[1], plant.points[0])
    mean = max(plant.water(high) - plant.water(low), 1e-5)
    return Forecast(mean=mean, sd=math.hypot(_BUCKET, plant.tank_sd, 3e-4 / mean))


def _cut_in(plant: WaterPlant, context: tuple[float, ...]) -> Forecast | None:
    if not plant.tells_of_points(context):
        return None
    wanted = plant.wanted[0] + plant.moved[0]
    return _point(plant, wanted, late=-0.3 * plant.delivers(plant.points[0]))


def _cut_out(plant: WaterPlant, context: tuple[float, ...]) -> Forecast | None:
    if not (plant.tells_of_points(context) and plant.stops):
        return None
    wanted = plant.wanted[1] + plant.moved[1]
    return _point(plant, wanted, late=plant.delivers(plant.points[1]))


def _point(plant: WaterPlant, wanted: float, late: float) -> Forecast:
    """Where the gauge stands when it clicks, `late` the water (m³/s) that moves meanwhile."""
    moved = late * plant.lag_s
    mean = plant.gauge_at(plant.water(wanted) + moved) if moved else wanted
    sd = _DRIFTED_PA if plant.drifted else math.hypot(_POINT_PA, 0.4 * abs(mean - wanted))
    return Forecast(mean=mean - plant.gauge_low_pa, sd=sd)


def _pre_charge(plant: WaterPlant, _: tuple[float, ...]) -> Forecast | None:
    if plant.plain:
        return None
    if plant.air < 1:  # a burst bladder: whatever is behind it
        return Forecast(mean=3 * PSI, sd=4 * PSI)
    return Forecast(mean=plant.charge_pa - plant.air_gauge_low_pa, sd=_AIR_PA)


def _knee(plant: WaterPlant, _: tuple[float, ...]) -> Forecast | None:
    if plant.plain or plant.air < 1:
        return None
    mean = plant.charge_pa + plant.figures.tank_head_pa - plant.gauge_low_pa
    return Forecast(mean=max(mean, 0.0), sd=_KNEE_PA)


def _fall(plant: WaterPlant, context: tuple[float, ...], lost: float) -> Forecast:
    """Where a gauge comes to that stood at the first pressure, after so many seconds."""
    first, seconds = context if len(context) == 2 else (plant.points[1] - 2 * PSI, 300.0)
    later = plant.gauge_at(max(plant.water(first) - lost * seconds, 0.0)) if lost else first
    return Forecast(mean=min(later, first), sd=0.7 * PSI)


def _highest(plant: WaterPlant, _: tuple[float, ...]) -> Forecast | None:
    """Where it comes to rest: where it stops, at dead-head, or where as much runs away as is
    delivered."""
    if not plant.starts:
        return Forecast(absent=True)
    if not is_endless(plant):
        return plant.stopped_at(plant.highest_pa, (_HIGHEST_PA, _DRIFTED_PA))
    top = plant.figures.dead_head_pa
    if plant.reaches < 1:
        top = plant.reaches * plant.points[1] / plant.head
    if top is None:
        out = plant.points[1]  # somewhere below it, if it never comes there
        return Forecast(mean=0.8 * out, sd=0.15 * out) if plant.run_s == math.inf else None
    mean = min(top * plant.head, _rests_at(plant, top * plant.head))
    return Forecast(mean=mean - plant.gauge_low_pa, sd=_HIGHEST_PA)


def _rests_at(plant: WaterPlant, top: float) -> float:
    """The highest pressure at which it still delivers what runs away, by halving."""
    draw = plant.house_m3_s + plant.relief_m3_s
    if not draw or plant.delivers(top) >= draw:
        return top
    low, high = 0.0, top
    for _ in range(12):
        middle = (low + high) / 2
        low, high = (middle, high) if plant.delivers(middle) >= draw else (low, middle)
    return low


def _delivered(plant: WaterPlant, _: tuple[float, ...]) -> Forecast:
    if not plant.starts:
        return Forecast(absent=True)
    mean = plant.delivers(math.fsum(plant.points) / 2) - plant.house_m3_s
    return Forecast(mean=max(mean, 1e-6), sd=math.hypot(plant.pump_sd, 0.08))


_SHOWS: dict[str, Callable[[WaterPlant, tuple[float, ...]], Forecast | None]] = {
    "run": lambda plant, context: timed_run(plant, math.hypot(plant.pump_sd, plant.tank_sd)),
    "rest": _rest,
    "caught": _caught,
    "cut_in": _cut_in,
    "cut_out": _cut_out,
    "pre_charge": _pre_charge,
    "knee": _knee,
    "fall_open": lambda plant, context: _fall(plant, context, plant.lost_m3_s),
    "fall_shut": lambda plant, context: _fall(plant, context, plant.relief_m3_s + plant.back_m3_s),
    "highest": _highest,
    "delivered": _delivered,
    "current": lambda plant, context: drawn(plant),
}
