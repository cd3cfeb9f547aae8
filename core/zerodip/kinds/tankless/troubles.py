"""A tankless pump in trouble: the plant with its faults, what can be seen of it, and what may be
wrong. Weights, chances and minutes are judgement, no source; the rest is the pump's own model."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from zerodip.diagnosis.parts import Cause, Forecast, Item, Observation, Remedy, Troubles
from zerodip.kinds.tankless.figures import TanklessFigures
from zerodip.kinds.trouble_causes import HEALTHY, SWITCH_CAUSES, changed, cut_out_over, sized
from zerodip.kinds.trouble_parts import (
    AT_SWITCH,
    FIRST_SPIT,
    POINTS,
    PURGE,
    SET,
    gauge_item,
    symptom,
)
from zerodip.kinds.trouble_plants import SwitchedPlant, drawn, points_found, sigmoid
from zerodip.kinds.trouble_words import causes_in_words, items_in_words
from zerodip.physics.demand_pump import running_gauge_pa
from zerodip.units import PSI

__all__ = ["TROUBLES", "DemandPlant"]

_POINT_PA = (2 * PSI, 8 * PSI)  # sound, drifting


@dataclass(frozen=True)
class DemandPlant(SwitchedPlant):
    """The pump with faults: `outlet` the share that the smallest outlet passes, `head` and `flow`
    shares of the pump's, `volts` of the battery's; `leak` whether water is lost; `cushion` whether
    an accumulator works."""

    figures: TanklessFigures
    outlet: float = 1.0
    head: float = 1.0
    flow: float = 1.0
    volts: float = 1.0
    leak: bool = False
    cushion: bool = True

    @cached_property
    def dead_head_pa(self) -> float:
        """The highest it comes to on the lowest voltage."""
        of = self.figures
        return of.curve.dead_head_gauge_pa(of.least_v * self.volts) * self.head

    @cached_property
    def running_pa(self) -> float:
        """Where it runs at the smallest outlet, on the highest voltage."""
        of = self.figures
        k = of.smallest_k * self.outlet / self.flow
        return running_gauge_pa(of.curve, k, of.most_v * self.volts) * self.head

    def seen(self, item: str) -> float | None:
        """How likely an item is answered yes; None where the plant has no say in it."""
        told = _SEEN.get(item)
        return None if told is None else told(self)

    def shows(self, item: str, context: tuple[float, ...]) -> Forecast | None:
        """A figure; None where this plant cannot tell."""
        told = _SHOWS.get(item)
        return None if told is None else told(self, context)


def _plant(figures: TanklessFigures, seen: tuple[Observation, ...]) -> DemandPlant:
    return DemandPlant(figures, *points_found(figures, seen))


def _chatter(plant: DemandPlant) -> float:
    if not (plant.starts and plant.stops):
        return 0.0
    over = sigmoid((plant.running_pa - plant.points[1]) / (1.5 * PSI))
    works = plant.cushion and plant.figures.bank is not None
    slow = works and plant.figures.pulses_per_s <= plant.figures.tolerable_pulses_per_s
    return 0.93 * over * (0.3 if slow else 1.0)


def _endless(plant: DemandPlant) -> float:
    if not plant.starts:
        return 0.0
    if not plant.stops:
        return 0.95
    return 0.95 * sigmoid((plant.points[1] - plant.dead_head_pa) / (1.5 * PSI))


_SEEN: dict[str, Callable[[DemandPlant], float]] = {
    "chatter": _chatter,
    "endless": _endless,
    "silent": lambda plant: 0.0 if plant.starts else 0.95,
    "runs_over": lambda plant: plant.runs_over(
        plant.points[1] if plant.stops else plant.dead_head_pa
    ),
    "alone": lambda plant: 0.9 if plant.leak and plant.starts else 0.0,
    "weak": lambda plant: (
        0.0 if not plant.starts else 0.9 * sigmoid((0.68 - plant.flow * plant.volts) / 0.08)
    ),
}


def _highest(plant: DemandPlant, _: tuple[float, ...]) -> Forecast:
    """Where it comes to rest: at cut-out where it stops there, else at dead-head."""
    if not plant.starts:
        return Forecast(absent=True)
    out, top = plant.points[1], plant.dead_head_pa
    if plant.stops and out < top:
        return plant.stopped_at(out, _POINT_PA)
    return Forecast(mean=top - plant.gauge_low_pa, sd=math.hypot(2 * PSI, 0.1 * top))


_SHOWS: dict[str, Callable[[DemandPlant, tuple[float, ...]], Forecast | None]] = {
    "cut_in": lambda plant, context: plant.point(0, context, _POINT_PA),
    "cut_out": lambda plant, context: plant.point(1, context, _POINT_PA),
    "highest": _highest,
    "volts_at_pump": lambda plant, context: Forecast(mean=plant.volts, sd=0.03),
    "current": lambda plant, context: drawn(plant),
}


_ITEMS: tuple[Item, ...] = (
    symptom(
        "chatter",
        "It chatters at a small tap",
        "Does it click on and off fast while a small tap runs?",
        "sawtooth",
    ),
    symptom(
        "endless",
        "It never stops",
        "Does it run on with all taps shut?",
        "never",
        base=0.01,
        unless=("runs_over",),
    ),
    symptom("alone", "Starts with all taps shut", "Does it start, nothing open?", "creep"),
    symptom("weak", "Little water", "Is there little water at the taps?", "flat", base=0.05),
    symptom("air_spits", "Air spits from the taps", "Does air spit from the taps?", "wander"),
    *(each for each in AT_SWITCH if each.id not in ("nipple", "gauge_differs")),
    *POINTS,
    gauge_item(
        "highest",
        "Highest the gauge comes to",
        "All taps shut: where does the gauge come to rest?",
        unless=("silent",),
        minutes=3,
        needs="powered",
        together="cycle",
    ),
    Item(
        id="volts_at_pump",
        together="meter",
        title="Voltage at the pump",
        asks="Volts at the pump while it runs, as a share of the battery’s?",
        unless=("silent",),
        minutes=3,
        needs="powered",
        tools="Voltmeter",
        dimension="share",
        least=0.3,
        most=1.2,
    ),
    Item(
        id="tank_dry",
        together="round",
        title="The water tank is empty",
        asks="Is the water tank empty, or its suction hose out of the water?",
        minutes=1,
        base=0.01,
    ),
    Item(
        id="strainer",
        title="The strainer is clogged",
        asks="Is the strainer before the pump clogged?",
        minutes=4,
        needs="off",
    ),
    Item(
        id="outlet_clogged",
        together="taps",
        title="The small outlet passes little",
        asks="Does the small outlet (shower head, aerator) pass more once it is taken off?",
        minutes=3,
        needs="powered",
    ),
    Item(
        id="alone_shut",
        title="Starts with its outlet shut",
        asks="Outlet of the pump shut, hose or valve: does it still start by itself?",
        unless=("silent",),
        minutes=5,
        needs="powered",
    ),
    FIRST_SPIT,
    Item(
        id="drips",
        together="taps",
        needs="powered",
        title="Something drips or runs",
        asks="Does a tap, a hose or a fitting drip?",
        minutes=4,
    ),
    Item(
        id="cushion_full",
        title="The accumulator’s air is out of place",
        asks="Is the accumulator’s air, drained, above cut-out or near nothing?",
        minutes=5,
        needs="drained",
        tools="Tyre gauge",
    ),
)
_TAP = Remedy(id="outlet", kind="fix", says="Clean the outlet, or take one that passes more.")
_LEAK = Remedy(id="leak", kind="fix", says="Mend the drip.", minutes=30)
_CHECK = Remedy(id="valves", kind="fix", says="Clean or replace the pump’s valves.", minutes=45)
_WIRES = Remedy(
    id="wires", kind="fix", says="Charge the battery; mend or thicken the wires.", minutes=60
)
_STRAIN = Remedy(id="strainer", kind="fix", says="Clean the strainer.", minutes=10)
_PUMP = Remedy(id="pump", kind="fix", says="Replace the pump’s diaphragm, or the pump.", minutes=60)
_FILL = Remedy(id="fill", kind="fix", says="Fill the tank; prime.", minutes=10)
_CUSHION = Remedy(id="air", kind="air", says="Set the accumulator’s air below cut-in.", minutes=15)

_ASTRAY_PA = 30 * PSI  # further than this no switch goes astray


def _over_dead_head(plant: DemandPlant) -> DemandPlant:
    """Cut-out set a little above what the pump comes to."""
    made: DemandPlant = cut_out_over(plant, 1.04 * plant.dead_head_pa)
    return made


_CAUSES: tuple[Cause[DemandPlant], ...] = (
    Cause(
        id="outlet_small",
        title="The smallest outlet passes too little",
        weight=9,
        remedy=_TAP,
        breaks=("cut-out-steady", "pulse-rate"),
        if_left="The switch clicks itself to death.",
        seen={"outlet_clogged": 0.9},
        size=sized((0.3, 0.5, 0.7), "share", "passes about {} of what was read", "outlet"),
    ),
    Cause(
        id="window",
        title="No cut-out fits both voltages here",
        weight=12,
        remedy=_WIRES,
        breaks=("window",),
        if_left="It chatters on shore power, or never stops on battery.",
        filed=lambda plant: True,
        applies=lambda plant: not plant.figures.has_window,
    ),
    Cause(
        id="cushion",
        title="The accumulator’s air is out of place",
        weight=6,
        remedy=_CUSHION,
        breaks=("accumulator-pre-charge",),
        if_left="It does nothing against the chatter.",
        seen={"cushion_full": 0.93, "chatter": 0.6},
        change=changed(cushion=False),
        applies=lambda plant: plant.figures.bank is not None,
    ),
    Cause(
        id="lines_air",
        title="Air in the lines",
        weight=4,
        remedy=PURGE,
        if_left="It chatters and spits.",
        seen={"air_spits": 0.9, "chatter": 0.45, "first_spit": 0.9},
    ),
    Cause(
        id="dry",
        title="No water comes to the pump",
        weight=4,
        remedy=_FILL,
        if_left="The pump runs dry.",
        seen={"tank_dry": 0.94, "air_spits": 0.7},
        change=changed(flow=0.1, head=0.2),
        danger="It runs dry: off.",
    ),
    Cause(
        id="strainer",
        title="The strainer is clogged",
        weight=5,
        remedy=_STRAIN,
        if_left="Less and less water.",
        seen={"strainer": 0.93},
        size=sized((0.35, 0.6), "share", "passes about {} of the flow", "flow"),
    ),
    Cause(
        id="leak",
        title="A drip or a leak",
        weight=8,
        remedy=_LEAK,
        if_left="It starts day and night.",
        seen={"drips": 0.87},
        change=changed(leak=True),
    ),
    Cause(
        id="pump_valves",
        title="The pump’s own valves pass back",
        weight=6,
        remedy=_CHECK,
        if_left="It starts day and night.",
        seen={"alone_shut": 0.9},
        change=changed(leak=True, head=0.9),
    ),
    Cause(
        id="volts_low",
        title="Battery low or wires too thin",
        weight=8,
        remedy=_WIRES,
        if_left="It never stops on a low battery.",
        size=sized((0.72, 0.8, 0.88), "share", "about {} of the voltage arrives", "volts"),
    ),
    Cause(
        id="pump_worn",
        title="The pump is worn",
        weight=6,
        remedy=_PUMP,
        if_left="It never reaches cut-out.",
        size=sized((0.5, 0.65, 0.8), "share", "reaches about {} of its dead-head", "head"),
    ),
    Cause(
        id="dead_head",
        title="Cut-out stands over what it reaches",
        weight=6,
        remedy=SET,
        breaks=("cut-out-stops",),
        if_left="It never stops.",
        change=_over_dead_head,
        applies=lambda plant: plant.dead_head_pa - plant.wanted[1] < _ASTRAY_PA,
    ),
    *(each for each in SWITCH_CAUSES if each.id not in ("gauge_off", "diaphragm")),
)
# A battery's pump has a fuse, and no mains.
_WORDS = {
    "Breaker or fuse is out": "The fuse is blown",
    "Is the breaker off, or a fuse blown?": "Is the pump’s fuse blown?",
    "Look at the panel. Do not close it twice.": "Look at the fuse. Put in its own size, once.",
    "No voltage at the line side": "No voltage at the switch",
    "at the switch’s line side": "at the switch",
    "or throw the breaker": "or blow the fuse",
    "Cover on. Mains voltage stands at open terminals.": "Cover on: bare terminals spark.",
    "Breaker off, proved dead, before": "Fuse out before",
    "Only for who may work live.": "Keep the probes from touching each other.",
    "Stop: breaker off now.": "Stop: pull the fuse now.",
    "burst tank or pipe": "burst a hose or a fitting",
    "Live parts are wet: breaker off, and do not touch it until it is proved dead.": (
        "Wet terminals: pull the fuse before anything is touched."
    ),
    "Live parts may be wet: breaker off before": "Terminals may be wet: pull the fuse before",
    "Stop: breaker off. The switch": "Stop: pull the fuse. The switch",
    "No power: breaker, fuse or supply": "No power: fuse, wires or battery",
    "Close the breaker once. If it goes again, call an electrician.": (
        "Put in a fuse of its own size, once. If it blows again, find the short first."
    ),
    "Call an electrician or the motor's dealer.": "Have the pump’s motor looked at.",
}
TROUBLES: Troubles[DemandPlant] = Troubles(
    plant=_plant,
    items=items_in_words(_ITEMS, _WORDS),
    causes=causes_in_words(_CAUSES, _WORDS),
    healthy=HEALTHY,
)
