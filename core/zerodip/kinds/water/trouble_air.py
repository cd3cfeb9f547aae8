"""What may be wrong with the air and the tanks of a water system, each a change to its plant.
Weights and the chance of what is seen are judgement, no source; the rest is the plant's own
model."""

from dataclasses import replace

from zerodip.diagnosis.parts import Cause
from zerodip.kinds.trouble_causes import changed, sized, too_narrow
from zerodip.kinds.trouble_parts import GAUGE
from zerodip.kinds.trouble_plants import widening_helps
from zerodip.kinds.water.trouble_changes import charge, over
from zerodip.kinds.water.trouble_plant import WaterPlant as W
from zerodip.kinds.water.trouble_remedies import (
    AIR,
    BIGGER,
    NEW_TANK,
    OPEN_TANK,
    PLATES,
    RE_AIR,
    RENEWER,
)
from zerodip.units import PSI

__all__ = ["BLADDER", "PLAIN", "TANKS"]

_SHORT_S = 30.0
_AIR_READ = ("caught", "pre_charge", "knee")

BLADDER: tuple[Cause[W], ...] = (
    Cause(
        id="air_low",
        title="Too little air: lost, or never set",
        weight=14,
        remedy=AIR,
        if_left="The bladder stretches and bursts; the pump starts too often.",
        seen={"bubbles": 0.08, "air_unread": 0.85, "raised": 0.9},
        breaks=("pre-charge-practice", "bladder-acceptance"),
        filed=lambda plant: plant.charge_pa < plant.target_pa,
        put_right=lambda plant: plant.decided,
        size=charge((0.05, 0.2, 0.35, 0.5, 0.65, 0.8, 0.9)),
    ),
    Cause(
        id="air_valve",
        title="Air valve or cap leaks",
        weight=4,
        remedy=AIR,
        if_left="The air will be lost again.",
        seen={"bubbles": 0.85, "cap": 0.75, "air_unread": 0.4},
        size=charge((0.05, 0.25, 0.45, 0.65, 0.85)),
    ),
    Cause(
        id="charge_high",
        title="Pre-charge above cut-in, or too near it",
        weight=8,
        remedy=AIR,
        breaks=(
            "pre-charge-below-cut-in",
            "start-dip",
            "low-pressure-trip",
            "low-pressure-margin",
            "pre-charge-practice",
            "summer-charge",
        ),
        if_left="The taps run dry for a breath at each start.",
        seen={"changed_tank": 0.5, "lowered": 0.9},
        filed=lambda plant: plant.charge_pa > plant.target_pa,
        put_right=lambda plant: plant.decided,
        size=over((-1, 1, 4, 8, 11, 14)),
    ),
    Cause(
        id="burst",
        title="The bladder is burst",
        weight=8,
        remedy=NEW_TANK,
        if_left="The pump clicks itself to death.",
        seen={"water_at_valve": 0.94, "relief_spits": 0.1},
        look=("water_at_valve",),
        size=sized((0.02, 0.05, 0.1, 0.2), "share", "about {} of the air is left in it", "air"),
    ),
    Cause(
        id="air_gauge",
        title="The tyre gauge is off",
        weight=1.0,
        remedy=GAUGE,
        if_left="The pre-charge is set by a wrong figure.",
        size=sized(
            tuple(psi * PSI for psi in (-6, 6)),
            "pressure",
            "shows about {} too little",
            "air_gauge_low_pa",
            "shows about {} too much",
        ),
    ),
)
PLAIN: tuple[Cause[W], ...] = (
    Cause(
        id="waterlogged",
        title="The tank is waterlogged: its air is gone",
        weight=18,
        remedy=RE_AIR,
        breaks=("air-left",),
        if_left="The pump clicks itself to death.",
        seen={"relief_spits": 0.1},
        size=sized((0.04, 0.09, 0.18, 0.3, 0.45, 0.65), "share", "about {} of its air left", "air"),
    ),
    Cause(
        id="renewer_failed",
        title="The device that renews the air has failed",
        weight=6,
        remedy=RENEWER,
        if_left="The tank will be waterlogged again.",
        seen={"renewer": 0.9},
        size=sized((0.05, 0.12, 0.25, 0.5), "share", "about {} of its air left", "air"),
    ),
    Cause(
        id="too_much_air",
        title="Too much air in the tank",
        weight=3,
        remedy=RE_AIR,
        breaks=("supercharge",),
        if_left="Air goes down the outlet and out at the taps.",
        seen={"air_spits": 0.8, "first_spit": 0.6},
        size=sized((1.5, 2.2), "share", "about {} of the usual air", "air"),
    ),
)
_SHORT_RUNS = ("run-time", "starts-per-hour")
TANKS: tuple[Cause[W], ...] = (
    too_narrow(24, _SHORT_S, "Runs stay short, and the motor wears.", _SHORT_RUNS),
    Cause(
        id="tank_small",
        title="The tank is too small for this pump",
        weight=24,
        remedy=BIGGER,
        breaks=_SHORT_RUNS,
        if_left="Runs stay short, and the motor wears.",
        seen={"changed_pump": 0.35, "changed_tank": 0.35},
        filed=lambda plant: True,
        look=_AIR_READ,
        applies=lambda plant: (
            plant.decided.run_s < _SHORT_S and not widening_helps(plant, _SHORT_S)
        ),
    ),
    Cause(
        id="tank_out",
        title="One of the tanks is out, or shut off by its valve",
        weight=4,
        remedy=OPEN_TANK,
        if_left="The other tanks do all the work.",
        seen={"valves": 0.75},
        change=lambda plant: replace(plant, room=1 - 1 / plant.tanks),
        applies=lambda plant: plant.tanks > 1,
    ),
    Cause(
        id="one_tank_low",
        title="One of the tanks has lost its air",
        weight=4,
        remedy=AIR,
        if_left="The other tanks do all the work, and its bladder stretches.",
        seen={"tank_apart": 0.93},
        change=lambda plant: replace(plant, room=1 - 0.7 / plant.tanks),
        applies=lambda plant: plant.tanks > 1 and not plant.plain,
    ),
    Cause(
        id="tank_plate",
        title="The tank is not the size that was read",
        weight=2,
        remedy=PLATES,
        if_left="Runs and drawdown are other than worked out.",
        seen={"changed_tank": 0.35},
        size=sized((0.5, 0.7, 1.4, 2.0), "share", "holds about {} of what was read", "room"),
    ),
    Cause(
        id="tank_shut",
        title="The tank is shut off by its valve",
        weight=1.5,
        remedy=OPEN_TANK,
        if_left="The pump works against a closed pipe.",
        seen={"valves": 0.93},
        change=changed(room=0.02),
    ),
)
