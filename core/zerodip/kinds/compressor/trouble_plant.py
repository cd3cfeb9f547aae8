"""A compressor as it would be with faults in it, by its own figures scaled by the fault."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from zerodip.diagnosis.parts import Forecast, Observation
from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.trouble_plants import (
    SwitchedPlant,
    drawn,
    is_endless,
    points_found,
    runs_on,
    sigmoid,
    timed_run,
)
from zerodip.units import PSI

__all__ = ["AirPlant", "healthy_plant"]

_PLATE, _UNREAD = 0.12, 0.45
_POINT_PA = (2 * PSI, 15 * PSI)  # sound, drifting
_HIGHEST_PA = 5 * PSI
_JUST_STOPPED_PA, _SETTLES = 2.5 * PSI, 0.02  # of the absolute pressure (judgement, no source)
_SHORT_S, _LONG_S, _ALONE_S = 20.0, 1200.0, 3600.0


@dataclass(frozen=True)
class AirPlant(SwitchedPlant):
    """The machine with faults: `room` the share of the receivers that holds air, `flow` the share
    of its plate that the machine delivers, `reaches` the share of cut-out that it comes to; what
    leaks in the lines and back through the check valve (m³/s of free air); how far runs may be off
    the plates, as a share."""

    figures: CompressorFigures
    room: float = 1.0
    flow: float = 1.0
    reaches: float = 9.9
    leak_m3_s: float = 0.0
    back_m3_s: float = 0.0
    spread: float = _PLATE

    @property
    def mean_flow_m3_s(self) -> float:
        """What a healthy machine delivers from cut-in to cut-out."""
        return self.figures.mean_flow_m3_s

    @cached_property
    def run_s(self) -> float:
        """The run with nothing used; infinity where it never gets there."""
        net = self.flow * self.mean_flow_m3_s - self.leak_m3_s
        if net <= 0 or self.reaches < 1:
            return math.inf
        wide = (self.points[1] - self.points[0]) / self.figures.differential_pa
        return max(self.figures.run_s * wide * self.room * self.mean_flow_m3_s / net, 0.05)

    @property
    def held_m3(self) -> float:
        """Free air from cut-out down to cut-in."""
        volume = self.figures.volume_m3 * self.room
        wide = max(self.points[1] - self.points[0], 1.0)
        return volume * wide / self.figures.atmosphere_pa

    @property
    def lost_m3_s(self) -> float:
        """What is lost while it stands."""
        return self.leak_m3_s + self.back_m3_s

    def seen(self, item: str) -> float | None:
        """How likely an item is answered yes; None where the plant has no say in it."""
        told = _SEEN.get(item)
        return None if told is None else told(self)

    def shows(self, item: str, context: tuple[float, ...]) -> Forecast | None:
        """A figure; None where this plant cannot tell."""
        told = _SHOWS.get(item)
        return None if told is None else told(self, context)


def healthy_plant(figures: CompressorFigures, seen: tuple[Observation, ...]) -> AirPlant:
    """The machine as its plates and settings say, its points where they were found.

    Args:
        figures: The system's figures under its settings.
        seen: What was observed.

    Returns:
        The plant without a fault.
    """
    unread = any(figures.is_assumed(path) for path in ("system.receivers", "system.pump.points"))
    return AirPlant(figures, *points_found(figures, seen), spread=_UNREAD if unread else _PLATE)


def _clicks(plant: AirPlant) -> float:
    if not plant.starts or is_endless(plant):
        return 0.0
    return 0.9 * sigmoid(math.log(_SHORT_S / plant.run_s) / 0.3)


def _alone(plant: AirPlant) -> float:
    if not plant.starts or plant.lost_m3_s <= 0:
        return 0.0
    return 0.95 * sigmoid(math.log(_ALONE_S * plant.lost_m3_s / plant.held_m3) / 0.5)


def _slow(plant: AirPlant) -> float:
    if not plant.starts:
        return 0.0
    given = plant.flow - plant.leak_m3_s / plant.mean_flow_m3_s
    return 0.9 * sigmoid((0.72 - given) / 0.08)


_SEEN: dict[str, Callable[[AirPlant], float]] = {
    "clicks": _clicks,
    "endless": lambda plant: runs_on(plant, _LONG_S),
    "silent": lambda plant: 0.0 if plant.starts else 0.95,
    "runs_over": lambda plant: plant.runs_over(
        plant.points[1] if plant.stops else (plant.figures.relief_pa or 1e9)
    ),
    "alone": _alone,
    "slow": _slow,
}


def _rest(plant: AirPlant, _: tuple[float, ...]) -> Forecast:
    if not plant.starts or plant.lost_m3_s <= 0:
        return Forecast(never=True)
    return Forecast(mean=plant.held_m3 / plant.lost_m3_s, sd=0.25)


def _fall(plant: AirPlant, context: tuple[float, ...], lost: float) -> Forecast:
    first, seconds = context if len(context) == 2 else (plant.points[1] - 4 * PSI, 300.0)
    of, volume = plant.figures, plant.figures.volume_m3 * plant.room
    # A leak goes with the absolute pressure: the fall is an exponential.
    rate = lost * of.atmosphere_pa / (volume * (math.fsum(plant.points) / 2 + of.atmosphere_pa))
    later = (first + of.atmosphere_pa) * math.exp(-rate * seconds) - of.atmosphere_pa
    # Right after the stop hot air cools, and the gauge settles with nothing lost.
    fresh = first > plant.points[1] - plant.gauge_low_pa - _JUST_STOPPED_PA
    settles = _SETTLES * (first + of.atmosphere_pa) if fresh else 0.0
    return Forecast(mean=max(later - settles, 0.0), sd=math.hypot(1.0 * PSI, settles))


def _highest(plant: AirPlant, _: tuple[float, ...]) -> Forecast | None:
    """Where it comes to rest: where it stops, at what it reaches, where as much leaks as is
    delivered, or at the safety valve."""
    if not plant.starts:
        return Forecast(absent=True)
    if not is_endless(plant):
        return plant.stopped_at(plant.points[1], _POINT_PA)
    tops = [plant.reaches * plant.points[1]] if plant.reaches < 1 else []
    if plant.leak_m3_s:  # a leak goes with the absolute pressure
        atmosphere = plant.figures.atmosphere_pa
        middle = math.fsum(plant.points) / 2 + atmosphere
        given = plant.flow * plant.mean_flow_m3_s
        tops.append(max(middle * given / plant.leak_m3_s - atmosphere, 0.0))
    if plant.figures.relief_pa is not None:
        tops.append(plant.figures.relief_pa)
    if not tops:
        return None
    return Forecast(mean=min(tops) - plant.gauge_low_pa, sd=_HIGHEST_PA)


_SHOWS: dict[str, Callable[[AirPlant, tuple[float, ...]], Forecast | None]] = {
    "run": lambda plant, context: timed_run(plant, plant.spread),
    "rest": _rest,
    "cut_in": lambda plant, context: plant.point(0, context, _POINT_PA),
    "cut_out": lambda plant, context: plant.point(1, context, _POINT_PA),
    "highest": _highest,
    "fall_open": lambda plant, context: _fall(plant, context, plant.lost_m3_s),
    "fall_shut": lambda plant, context: _fall(plant, context, plant.back_m3_s),
    "current": lambda plant, context: drawn(plant),
}
