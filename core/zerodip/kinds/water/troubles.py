"""What may be wrong with a water system, each a change to its plant. Weights and the chance of what
is seen are judgement, no source; the rest is the plant's own model."""

from dataclasses import replace

from zerodip.diagnosis.parts import Cause, Size, Troubles
from zerodip.kinds.trouble_causes import HEALTHY, SWITCH_CAUSES, changed, sized, too_narrow
from zerodip.kinds.trouble_parts import ELECTRICIAN, GAUGE, NIPPLE, PURGE, SET
from zerodip.kinds.trouble_plants import is_narrow
from zerodip.kinds.water.trouble_changes import (
    HOLDS_HIGH,
    HOLDS_LOW,
    broken,
    charge,
    late,
    low_well,
    near_dead_head,
    over,
    over_dead_head,
    run_away,
    worn,
)
from zerodip.kinds.water.trouble_items import ITEMS
from zerodip.kinds.water.trouble_plant import WaterPlant as W
from zerodip.kinds.water.trouble_plant import healthy_plant
from zerodip.kinds.water.trouble_remedies import (
    AIR,
    BIGGER,
    CHECK,
    FILTER,
    LEAK,
    LESS,
    NEW_TANK,
    OPEN_TANK,
    PIPE,
    PLATES,
    PUMP,
    RE_AIR,
    RELIEF,
    RENEWER,
    RESET,
    SUCTION,
    SUPPLY,
    WELL,
)
from zerodip.units import PSI

__all__ = ["BLADDER_TROUBLES", "BOOSTED_TROUBLES", "PLAIN_TROUBLES"]

_SHORT_S = 30.0

_LINE_AND_USE: tuple[Cause[W], ...] = (
    Cause(
        id="house_leak",
        title="A leak or an open outlet in the house",
        weight=10,
        remedy=LEAK,
        if_left="The pump starts day and night; water is lost.",
        seen={"house_tap": 0.85},
        size=run_away((0.004, 0.02, 0.08, 0.3, 0.9, 1.2), "house_m3_s"),
    ),
    Cause(
        id="relief_passes",
        title="The relief valve passes",
        weight=3,
        remedy=RELIEF,
        if_left="It wears on and may not hold when it is needed.",
        seen={"relief_drips": 0.95, "relief_spits": 0.3},
        size=run_away((0.004, 0.03, 0.15), "relief_m3_s"),
    ),
    Cause(
        id="check_valve",
        title="The check or foot valve passes back",
        weight=8,
        remedy=CHECK,
        if_left="The pump starts with nothing open, and may lose its prime.",
        size=run_away((0.004, 0.02, 0.08, 0.3), "back_m3_s"),
    ),
    Cause(
        id="filter",
        title="The filter or treatment is clogged",
        weight=3,
        remedy=FILTER,
        if_left="The taps get less and less.",
        seen={"filter_drop": 0.92, "weak": 0.9, "one_weak": 0.75},
    ),
    Cause(
        id="lines_air",
        title="Air in the lines",
        weight=2,
        remedy=PURGE,
        if_left="Taps spit; pipes knock.",
        seen={"air_spits": 0.9, "wander": 0.2, "first_spit": 0.9},
    ),
    Cause(
        id="draw_large",
        title="More is drawn than the pump delivers",
        weight=4,
        remedy=LESS,
        breaks=("keeps-up", "long-draw-trip"),
        if_left="The tank runs empty while it is drawn; the pump runs on.",
        seen={"weak": 0.75, "breath": 0.25},
    ),
)
_PUMP: tuple[Cause[W], ...] = (
    Cause(
        id="pump_worn",
        title="The pump is worn or stopped up",
        weight=6,
        remedy=PUMP,
        if_left="It runs longer and longer and at last never stops.",
        size=Size(
            values=(0.12, 0.25, 0.4, 0.55, 0.75),
            dimension="share",
            says="delivers about {} of its plate",
            change=worn,
        ),
    ),
    Cause(
        id="pump_strong",
        title="The pump is stronger than was read",
        weight=2.5,
        remedy=PLATES,
        if_left="Runs are shorter than worked out.",
        size=sized((1.35, 1.7, 2.2), "share", "delivers about {} of what was read", "flow"),
    ),
    Cause(
        id="well_low",
        title="The well draws down",
        weight=4,
        remedy=WELL,
        if_left="The pump runs dry and burns.",
        seen={
            "well": 0.92,
            "air_spits": 0.55,
            "first_spit": 0.4,
            "muddy": 0.35,
            "weak": 0.5,
            "trips": 0.3,
        },
        size=Size(
            values=(0.3, 0.55, 0.8),
            dimension="share",
            says="gives about {} of the pump's flow",
            change=low_well,
        ),
        danger="A pump that runs dry burns: off, and let the well rest.",
    ),
    Cause(
        id="suction",
        title="The suction side draws air",
        weight=2.5,
        remedy=SUCTION,
        if_left="The pump loses its prime.",
        seen={"air_spits": 0.85, "wander": 0.15, "weak": 0.4, "first_spit": 0.5},
        size=sized((0.5, 0.75), "share", "delivers about {} of its plate", "flow"),
    ),
    Cause(
        id="broken_pipe",
        title="The pipe in the well is broken",
        weight=2,
        remedy=PIPE,
        if_left="The pump runs without end and the water goes back down.",
        seen={"muddy": 0.45, "trips": 0.4},
        size=Size(
            values=(0.05, 0.2, 0.4),
            dimension="share",
            says="about {} of the flow comes up",
            change=broken,
        ),
    ),
    Cause(
        id="volts_low",
        title="The voltage is low",
        weight=1.5,
        remedy=ELECTRICIAN,
        if_left="The motor runs hot.",
        seen={"volts": 0.92, "hums": 0.4},
        change=changed(flow=0.85, current=1.25),
    ),
)
_SWITCH: tuple[Cause[W], ...] = (
    Cause(
        id="nipple",
        title="The sensing nipple is clogged",
        weight=5,
        remedy=NIPPLE,
        if_left="The switch may not stop the pump at all.",
        seen={"nipple": 0.94, "tap_switch": 0.25, "wander": 0.5},
        size=Size(
            values=(HOLDS_LOW, HOLDS_HIGH, 2.0, 5.0, 12.0),
            dimension="duration",
            says="the switch feels it about {} late",
            change=late,
            says_below="closed up: the switch feels nothing",
        ),
    ),
    Cause(
        id="dead_head",
        title="Cut-out stands at or over what the pump reaches",
        weight=4,
        remedy=SET,
        breaks=("dead-head", "run-ends"),
        if_left="The pump never stops and overheats.",
        applies=near_dead_head,
        size=Size(
            values=(0.9, 0.97),
            dimension="share",
            says="the pump reaches about {} of cut-out",
            change=over_dead_head,
        ),
    ),
    Cause(
        id="tripped",
        title="The low-pressure cut-off has tripped as it should",
        weight=5,
        remedy=RESET,
        breaks=("low-pressure-trip", "long-draw-trip", "low-pressure-margin"),
        if_left="No water until it is reset; it will trip again.",
        seen={"lever": 0.95},
        change=changed(starts=False, trips=True),
        applies=lambda plant: plant.figures.low_pressure_cut_off is not False,
    ),
)
_BLADDER: tuple[Cause[W], ...] = (
    Cause(
        id="air_low",
        title="Too little air: lost, or never set",
        weight=14,
        remedy=AIR,
        if_left="The bladder stretches and bursts; the pump starts too often.",
        seen={"bubbles": 0.08},
        size=charge((0.05, 0.2, 0.35, 0.5, 0.65, 0.8, 0.9)),
    ),
    Cause(
        id="air_valve",
        title="Air valve or cap leaks",
        weight=4,
        remedy=AIR,
        if_left="The air will be lost again.",
        seen={"bubbles": 0.85},
        size=charge((0.05, 0.25, 0.45, 0.65, 0.85)),
    ),
    Cause(
        id="charge_high",
        title="Pre-charge at or above cut-in",
        weight=8,
        remedy=AIR,
        breaks=("pre-charge-below-cut-in",),
        if_left="The taps run dry for a breath at each start.",
        size=over((-1, 1, 4, 8, 14)),
    ),
    Cause(
        id="burst",
        title="The bladder is burst",
        weight=8,
        remedy=NEW_TANK,
        if_left="The pump clicks itself to death.",
        seen={"water_at_valve": 0.94, "relief_spits": 0.1},
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
_PLAIN: tuple[Cause[W], ...] = (
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
_TANKS: tuple[Cause[W], ...] = (
    too_narrow(24, _SHORT_S, "Runs stay short, and the motor wears.", _SHORT_RUNS),
    Cause(
        id="tank_small",
        title="The tank is too small for this pump",
        weight=24,
        remedy=BIGGER,
        breaks=_SHORT_RUNS,
        if_left="Runs stay short, and the motor wears.",
        as_sized=True,
        applies=lambda plant: plant.run_s < _SHORT_S and not is_narrow(plant),
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
        id="tank_shut",
        title="The tank is shut off by its valve",
        weight=1.5,
        remedy=OPEN_TANK,
        if_left="The pump works against a closed pipe.",
        seen={"valves": 0.93},
        change=changed(room=0.02),
    ),
)
_INLET: tuple[Cause[W], ...] = (
    Cause(
        id="inlet_low",
        title="The supply's own pressure is too low",
        weight=6,
        remedy=SUPPLY,
        if_left="The pump may run dry, or never reach cut-out.",
        seen={"inlet": 0.92, "weak": 0.4},
        change=changed(flow=0.65, head=0.75),
    ),
)
_EVERY = (*_TANKS, *_LINE_AND_USE, *_SWITCH, *SWITCH_CAUSES)
_NOT_BOOSTED = {"well", "muddy"}


def _troubles(causes: tuple[Cause[W], ...], without: set[str]) -> Troubles[W]:
    items = tuple(each for each in ITEMS if each.id not in without)
    return Troubles(plant=healthy_plant, items=items, causes=causes, healthy=HEALTHY)


_AIRLESS = {"water_at_valve", "pre_charge", "knee", "bubbles"}
BLADDER_TROUBLES = _troubles((*_BLADDER, *_EVERY, *_PUMP), {"renewer", "inlet"})
PLAIN_TROUBLES = _troubles((*_PLAIN, *_EVERY, *_PUMP), {*_AIRLESS, "inlet"})
_AT_A_MAIN = tuple(each for each in _PUMP if each.id not in ("well_low", "broken_pipe"))
BOOSTED_TROUBLES = _troubles((*_BLADDER, *_INLET, *_EVERY, *_AT_A_MAIN), {"renewer", *_NOT_BOOSTED})
