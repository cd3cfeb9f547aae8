"""A visit to a water system: making safe, draining, what is odd among its readings, what is seen to
before leaving."""

import math
from dataclasses import replace

from zerodip.kinds.steps import (
    BYSTANDERS,
    CELLAR,
    COVER,
    LABELLED,
    OUTDOORS,
    PIT,
    POWER_OFF,
    PROVED_DEAD,
    READ,
    TOLD,
    check,
)
from zerodip.kinds.visit_parts import (
    CheckSpec,
    DrainView,
    Question,
    StepSpec,
    air_now,
    bladder_burst,
    question,
)
from zerodip.kinds.water.figures import WaterFigures
from zerodip.rules.engine import exceeds
from zerodip.text.writer import Writer
from zerodip.units import text
from zerodip.visit.log import Log
from zerodip.visit.slots import AIR_CAP, AIR_GAUGE_LOW, FOUND_PRE_CHARGE, WATER_AT_VALVE

__all__ = [
    "BOOSTED_STEPS",
    "CHECKS",
    "PLAIN_CHECKS",
    "READ_WATER",
    "WATCH",
    "WATER_STEPS",
    "WELL_STEPS",
    "drain",
    "questions",
]

BUCKET_M3 = 0.0125  # what a person carries: 12.5 L, about 3 gal
HOSE_M3_S = 0.25e-3  # a garden hose at low pressure, about 15 L/min

_SHUT_HOUSE = StepSpec("house_shut", "Shut the house valve, so that the house is not drained too.")
_SHUT_SUPPLY = StepSpec("supply_shut", "Shut the supply valve before the pump.")
_HOSE = StepSpec(
    "hose",
    "Hose on the lowest drain, led outside or to a sink; not through the filters.",
    "Where it leads must not flood a pit.",
)
_DRAIN = StepSpec(
    "drained",
    "Drain until the gauge stands at zero, before anything is unscrewed.",
    "Stored pressure throws water and parts.",
    "proved_dead",
)
_OFF = (POWER_OFF, PROVED_DEAD)
_DRAINED = (_SHUT_HOUSE, _HOSE, _DRAIN)

_THERE = (BYSTANDERS, CELLAR, OUTDOORS)
_IN_PIT = replace(PIT, places=("pit",))
WATER_STEPS = (*_THERE, _IN_PIT, *_OFF, *_DRAINED)
WELL_STEPS = (*_THERE, PIT, *_OFF, *_DRAINED)
BOOSTED_STEPS = (*_THERE, _IN_PIT, *_OFF, _SHUT_SUPPLY, *_DRAINED)

WATCH = (
    "Before power is on: drain shut, all taps shut, cover on.",
    "Open one tap, or crack the drain, until it clicks in. Read the gauge there: cut-in.",
    "Shut it again and start the stopwatch at the click.",
    "Stop it at the click out, and read the gauge there: cut-out.",
)

_CAP = check("cap", "Valve cap back on: the cap is the real seal.", AIR_CAP)
_SHUT = check("hose_off", "Drain shut, hose off.")
_HOUSE = check("house_open", "House valve open.")
_POINTS = check("label", "Label on the switch: cut-in, cut-out, date.")
PLAIN_CHECKS: tuple[CheckSpec, ...] = (COVER, _SHUT, _HOUSE, _POINTS, TOLD)
CHECKS: tuple[CheckSpec, ...] = (_CAP, COVER, _SHUT, _HOUSE, LABELLED, TOLD)

_AIR = (AIR_GAUGE_LOW.name, FOUND_PRE_CHARGE.name, WATER_AT_VALVE.name)
READ_WATER = (*_AIR, *READ)


def drain(figures: WaterFigures, gauge_pa: float, log: Log, units: str) -> DrainView:
    """What comes out when the tanks are drained from `gauge_pa` (Pa gauge), through a hose and in
    buckets; with the air that was found, where it was read.

    Args:
        figures: The system's figures under its settings.
        gauge_pa: Where the gauge stands, Pa.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What comes out, in figures and words.

    Source: The gas law; hose and bucket common practice, no source.
    """
    held = figures.held_as_found_m3(gauge_pa)
    buckets = max(math.ceil(held / BUCKET_M3), 1) if held > 0 else 0
    seconds = held / HOSE_M3_S
    hose = "under a minute" if seconds < 60 else f"{seconds / 60:.0f} min"
    says = (
        f"About {text(held, 'volume', units)} will come out: {hose} through a hose, or {buckets}"
        f" bucket{'' if buckets == 1 else 's'}."
        f" Tank {Writer(figures, units).text(WaterFigures.nominal_m3)}."
        if held > 0
        else "The tank holds nothing above its air at this pressure."
    )
    if not log.confirmed(_SHUT_HOUSE.id):
        says += " With the house valve open, the pipes of the house empty too."
    return DrainView(volume_m3=held, seconds=seconds, buckets=buckets, says=says)


def questions(figures: WaterFigures, log: Log, units: str) -> list[Question]:
    """What is odd about the pre-charge found.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The questions.

    Source: Common practice, no source.
    """
    air = log.value(FOUND_PRE_CHARGE) if air_now(log) is FOUND_PRE_CHARGE else None
    if bladder_burst(log):
        return [
            question(
                WATER_AT_VALVE,
                "Water at the air valve: the bladder is burst, and the tank is finished.",
            )
        ]
    if air is None:
        return []
    if not exceeds(air, figures.leak_found_pa):
        low = f"{text(air, 'pressure', units)} is so low that the tank leaks: soap valve and seams."
        return [question(FOUND_PRE_CHARGE, low)]
    if air >= figures.cut_in_there_pa:
        return [
            question(
                FOUND_PRE_CHARGE, "Above cut-in: this is the dip that the taps feel at each start."
            )
        ]
    return []
