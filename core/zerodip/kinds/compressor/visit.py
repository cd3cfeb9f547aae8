"""A visit to a compressor: making safe, bleeding, what is seen to before leaving."""

from zerodip.jobs.compressor import BLEED_CONDENSATE, CHECK_VALVE, SEALED_SWITCH, UNLOADER
from zerodip.jobs.switch import CLEAN_CONTACTS, REPLACE_SWITCH, WIRE_SWITCH
from zerodip.jobs.water import REPLACE_RELIEF
from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.steps import (
    BYSTANDERS,
    COVER,
    POWER_OFF,
    PROVED_DEAD,
    check,
)
from zerodip.kinds.visit_parts import DrainView, StepSpec
from zerodip.units import text
from zerodip.visit.log import Log

__all__ = ["CHECKS", "JOBS", "STEPS", "WATCH", "drain"]

_GLASSES = StepSpec(
    "glasses",
    "Eye and ear protection on; hot parts left to cool.",
    "Head and pipes burn; air cuts.",
)
_BLEED = StepSpec(
    "bled",
    "Open the drain cock slowly, until the gauge stands at zero.",
    "Never plug, remove or raise the safety valve.",
    "proved_dead",
)
STEPS = (BYSTANDERS, _GLASSES, POWER_OFF, PROVED_DEAD, _BLEED)
CHECKS = (
    COVER,
    check("cock_shut", "Drain cock shut, safety valve untouched."),
    check("label", "Label on the switch: cut-in, cut-out, date."),
    check("customer_told", "Told what to watch for: starts with no air used, a hiss, much water."),
)
WATCH = (
    "Before power is on: drain cock shut, no tool running, cover on.",
    "Let air out slowly until it clicks in. Read the gauge there: cut-in.",
    "Shut it off and start the stopwatch at the click.",
    "Stop it at the click out and read the gauge at once: cut-out. It settles as the air cools.",
)

JOBS = (
    REPLACE_SWITCH,
    WIRE_SWITCH,
    CLEAN_CONTACTS,
    SEALED_SWITCH,
    BLEED_CONDENSATE,
    UNLOADER,
    CHECK_VALVE,
    REPLACE_RELIEF,
)


def drain(figures: CompressorFigures, gauge_pa: float, log: Log, units: str) -> DrainView:
    """The free air that comes out of the receivers from `gauge_pa` (Pa gauge).

    Args:
        figures: The system's figures under its settings.
        gauge_pa: Where the gauge stands, Pa.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What comes out, in figures and words.

    Source: The gas law.
    """
    air = figures.store.held_m3(gauge_pa)
    says = f"{text(air, 'air_volume', units)} of free air will come out: bleed slowly."
    return DrainView(volume_m3=air, seconds=0.0, buckets=0, says=says)
