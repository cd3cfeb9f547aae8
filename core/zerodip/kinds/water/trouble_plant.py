"""What the gauge, a stopwatch, a bucket and people would show of a water system with faults."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

from zerodip.diagnosis.parts import Forecast, Observation
from zerodip.kinds.trouble_plants import (
    drawn,
    is_endless,
    points_found,
    runs_on,
    sigmoid,
    timed_run,
)
from zerodip.kinds.water.figures import WaterFigures
from zerodip.kinds.water.trouble_body import PLATE_SD, WaterBody
from zerodip.units import PSI

__all__ = ["WaterPlant", "healthy_plant"]

_TIGHT_M3_S = 2e-8
# Errors of plates, stopwatch, bucket and gauge, one standard deviation (judgement, no source).
_UNREAD, _BUCKET = 0.45, 0.10
_PUMP_FLOW = ("system.pump.flow_m3_s", "system.pump.points")
_POINT_PA, _DRIFTED_PA, _HIGHEST_PA = 1.5 * PSI, 8 * PSI, 3 * PSI
_AIR_PA, _KNEE_PA = 1.0 * PSI, 1.5 * PSI
_CLICKS_S, _LONG_S, _ALONE_S = 25.0, 600.0, 3 * 3600.0
_ANY_HEAD = 5.0  # of cut-out: nobody knows what it reaches
_USUAL_SHARE = 0.35  # of what the pump delivers is drawn by a usual tap
_JUST_STOPPED_PA, _COOLS_S = 1.5 * PSI, 180.0
_SAGS, _SAGS_LATER = (
    0.9,
    0.2,
)  # of what cooling air takes: right after the stop, and some time later


@dataclass(frozen=True)
class WaterPlant(WaterBody):
    """The system with faults, and what is seen and measured of it."""

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
    charge, target = figures.pre_charge_pa, _target(figures)
    decided = any(each.context and each.item in ("cut_in", "cut_out") for each in seen)
    if charge and (figures.is_assumed("settings.pre_charge_gauge_pa") or decided):
        # As it is usual for that cut-in, or was set for it.
        charge, target = (max(each + points[0] - wanted[0], 0.0) for each in (charge, target))
    pump_unread = any(figures.is_assumed(path) for path in _PUMP_FLOW)
    return WaterPlant(
        figures,
        points,
        wanted,
        found,
        charge_pa=charge,
        target_pa=target,
        pump_sd=_UNREAD if pump_unread else PLATE_SD,
        tank_sd=_UNREAD if figures.is_assumed("system.tanks") else 0.0,
    )


def _target(figures: WaterFigures) -> float:
    """The pre-charge that Decide would set; that on file where it is near enough."""
    target, off = figures.target_pa, figures.off_target_pa
    if figures.system.plain or target is None or off is None or off <= figures.way_tolerance_pa:
        return figures.pre_charge_pa
    return target


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


def _long(plant: WaterPlant) -> float:
    """Whether it runs for ten minutes while a usual tap runs."""
    if not plant.starts:
        return 0.0
    run = plant.run_with(_USUAL_SHARE * plant.plate_flow_m3_s + plant.house_m3_s)
    return 0.9 * sigmoid(math.log(max(run, 1.0) / _LONG_S) / 0.25) if run < math.inf else 0.9


def _runs_over(plant: WaterPlant) -> float:
    """Whether it runs on well above cut-out: nothing stops it, or the gauge shows too much."""
    top = plant.highest_pa if plant.stops else plant.figures.highest_dead_head_pa
    return 0.95 * plant.starts if top is None else plant.runs_over(top)


def _trips_again(plant: WaterPlant) -> float:
    """Whether its cut-off trips once more, reset and held in until the gauge has passed cut-in."""
    return _tripped(replace(plant, trips=False)) if plant.starts or plant.trips else 0.0


def _stops_shut(plant: WaterPlant) -> float:
    """Whether it stops in its usual time once everything is shut."""
    return 0.95 * (1 - runs_on(plant, 2 * _LONG_S)) if plant.starts else 0.0


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
    "runs_over": _runs_over,
    "lever": _tripped,
    "reset_fails": _trips_again,
    "stops_shut": _stops_shut,
    "long": _long,
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


def _pre_charge(plant: WaterPlant, context: tuple[float, ...]) -> Forecast | None:
    if plant.plain or _was_set_for_others(plant, context):
        return None
    if plant.air < 1:  # a burst bladder: whatever is behind it
        return Forecast(mean=3 * PSI, sd=4 * PSI)
    return Forecast(mean=plant.charge_pa - plant.air_gauge_low_pa, sd=_AIR_PA)


def _was_set_for_others(plant: WaterPlant, context: tuple[float, ...]) -> bool:
    """Whether the air was read before new points were decided on, and nobody read the old ones."""
    return bool(context) and plant.found is None


def _knee(plant: WaterPlant, context: tuple[float, ...]) -> Forecast | None:
    if plant.plain or _was_set_for_others(plant, context):
        return None
    if plant.air < 1:  # it falls fast, with no clear end
        return Forecast(mean=5 * PSI, sd=10 * PSI)
    mean = plant.charge_pa + plant.figures.tank_head_pa - plant.gauge_low_pa
    return Forecast(mean=max(mean, 0.0), sd=_KNEE_PA)


def _fall(plant: WaterPlant, context: tuple[float, ...], lost: float) -> Forecast:
    """Where a gauge comes to that stood at the first pressure, after so many seconds. Right after a
    stop it sags as the air cools, with nothing lost."""
    first, seconds = context if len(context) == 2 else (plant.points[1] - 2 * PSI, 300.0)
    later = plant.gauge_at(max(plant.water(first) - lost * seconds, 0.0)) if lost else first
    fresh = first > plant.points[1] - plant.gauge_low_pa - _JUST_STOPPED_PA
    sags = plant.cooling_pa * (_SAGS if fresh else _SAGS_LATER)
    mean = max(min(later, first) - sags * (1 - math.exp(-seconds / _COOLS_S)), 0.0)
    began = 0.0 if context else (plant.points[1] - plant.wanted[1]) / 2  # who knows where
    return Forecast(mean=mean, sd=math.hypot(0.7 * PSI, sags, began))


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
    draw = plant.house_m3_s + plant.outside_m3_s
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


def _dead_head(plant: WaterPlant, _: tuple[float, ...]) -> Forecast | None:
    """What the pump comes to with nothing drawn and nothing that stops it."""
    if not plant.starts:
        return Forecast(absent=True)
    if plant.figures.dead_head_pa is not None:
        mean = plant.figures.dead_head_pa * plant.head - plant.gauge_low_pa
        return Forecast(mean=mean, sd=math.hypot(_HIGHEST_PA, 0.05 * mean))
    if plant.reaches > _ANY_HEAD:
        return None
    mean = plant.reaches * plant.points[1]
    return Forecast(mean=mean, sd=0.2 * mean)


def _lowest(plant: WaterPlant, _: tuple[float, ...]) -> Forecast:
    """The lowest the gauge comes to in a start; how much is drawn then is not known."""
    if not plant.starts:
        return Forecast(absent=True)
    falls = plant.points[0] - plant.lowest_pa
    return Forecast(mean=plant.lowest_pa - plant.gauge_low_pa, sd=math.hypot(2 * PSI, 0.35 * falls))


def _starts_an_hour(plant: WaterPlant, _: tuple[float, ...]) -> Forecast:
    """Starts while something runs: seldom the most, where half of what is delivered is drawn."""
    if not plant.starts:
        return Forecast(absent=True)
    if is_endless(plant):
        return Forecast(mean=2 / 3600, sd=0.7)
    given = plant.delivers(math.fsum(plant.points) / 2)
    return Forecast(mean=0.7 * given / (4 * plant.drawdown_m3), sd=math.hypot(0.5, plant.pump_sd))


def _air_full(plant: WaterPlant, _: tuple[float, ...]) -> Forecast:
    """At the air valve with water in the tank: what the water stands at, whatever the air."""
    low, high = plant.points
    mean = (low + high) / 2 - plant.air_gauge_low_pa
    return Forecast(mean=mean, sd=math.hypot(_AIR_PA, (high - low) / 2))


_SHOWS: dict[str, Callable[[WaterPlant, tuple[float, ...]], Forecast | None]] = {
    "run": lambda plant, context: timed_run(plant, math.hypot(plant.pump_sd, plant.tank_sd)),
    "rest": _rest,
    "caught": _caught,
    "cut_in": _cut_in,
    "cut_out": _cut_out,
    "pre_charge": _pre_charge,
    "knee": _knee,
    "fall_open": lambda plant, context: _fall(plant, context, plant.lost_m3_s),
    "fall_shut": lambda plant, context: _fall(plant, context, plant.outside_m3_s + plant.back_m3_s),
    "highest": _highest,
    "delivered": _delivered,
    "current": lambda plant, context: drawn(plant),
    "fall_pump_shut": lambda plant, context: _fall(
        plant, context, plant.house_m3_s + plant.outside_m3_s
    ),
    "dead_head": _dead_head,
    "zero": lambda plant, context: Forecast(mean=max(-plant.gauge_low_pa, 0.0), sd=0.8 * PSI),
    "lowest": _lowest,
    "starts_an_hour": _starts_an_hour,
    "air_full": _air_full,
}
