"""What may be wrong with the pump, the well and the pipes of a water system, and how it is used,
each a change to its plant. Weights and the chance of what is seen are judgement, no source; the
rest is the plant's own model."""

from zerodip.diagnosis.parts import Cause, Size
from zerodip.kinds.trouble_causes import changed, sized
from zerodip.kinds.trouble_parts import ELECTRICIAN, PURGE, SET
from zerodip.kinds.water.trouble_changes import broken, low_well, run_away, worn
from zerodip.kinds.water.trouble_plant import WaterPlant as W
from zerodip.kinds.water.trouble_remedies import (
    CHECK,
    FILTER,
    LEAK,
    LESS,
    OUTSIDE,
    PIPE,
    PLATES,
    PUMP,
    RELIEF,
    SUCTION,
    SUPPLY,
    THAW,
    WELL,
)
from zerodip.units import PSI

__all__ = ["INLET", "LINE_AND_USE", "PUMPS"]

_LOW_PA = 36 * PSI

LINE_AND_USE: tuple[Cause[W], ...] = (
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
        seen={"relief_drips": 0.95, "relief_spits": 0.3, "stains": 0.3},
        size=run_away((0.004, 0.03, 0.15), "relief_m3_s"),
    ),
    Cause(
        id="check_valve",
        title="The check or foot valve passes back",
        weight=8,
        remedy=CHECK,
        if_left="The pump starts with nothing open, and may lose its prime.",
        seen={"late_water": 0.4, "first_spit": 0.3},
        look=("fall_pump_shut", "fall_shut", "rest"),
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
        seen={"weak": 0.75, "breath": 0.25, "hose": 0.93, "long": 0.9, "trips": 0.2, "lever": 0.2},
    ),
    Cause(
        id="pipe_outside",
        title="A pipe outside the house is broken",
        weight=2,
        remedy=OUTSIDE,
        if_left="The pump runs day and night; the ground is washed out.",
        seen={"wet_ground": 0.7, "muddy": 0.2, "trips": 0.15, "lever": 0.15},
        size=run_away((0.05, 0.3, 0.9), "pipe_m3_s"),
        look=("wet_ground", "fall_shut"),
    ),
    Cause(
        id="frozen",
        title="A pipe or the switch’s nipple is frozen",
        weight=0.6,
        remedy=THAW,
        if_left="Ice bursts pipe and pump.",
        seen={"frost": 0.95, "weak": 0.6, "silent": 0.35, "breaker": 0.1},
        look=("frost",),
    ),
    Cause(
        id="filter_before",
        title="A filter or screen between pump and switch is clogged",
        weight=1.5,
        remedy=FILTER,
        if_left="The pump runs long against a shut pipe.",
        seen={"filter_drop": 0.5, "weak": 0.3, "filter_before": 0.9},
        size=sized((0.3, 0.6), "share", "lets about {} of the flow through", "flow"),
    ),
    Cause(
        id="set_low",
        title="Cut-in and cut-out are set lower than the house wants",
        weight=2,
        remedy=SET,
        breaks=("highest-tap",),
        if_left="Upper taps stay weak.",
        seen={"weak": 0.85, "one_weak": 0.7, "upper_weak": 0.9},
        applies=lambda plant: plant.points[0] < _LOW_PA,
        filed=lambda plant: True,
    ),
)
PUMPS: tuple[Cause[W], ...] = (
    Cause(
        id="pump_worn",
        title="The pump is worn or stopped up",
        weight=6,
        remedy=PUMP,
        if_left="It runs longer and longer and at last never stops.",
        seen={"reset_fails": 0.3},
        look=("dead_head", "highest", "delivered"),
        size=Size(
            values=(0.12, 0.25, 0.4, 0.55, 0.75),
            dimension="share",
            says="delivers about {} of its plate",
            change=worn,
        ),
    ),
    Cause(
        id="pump_strong",
        title="The pump is another than was read, or of another country’s mains",
        weight=3,
        remedy=PLATES,
        if_left="Runs are other than worked out.",
        seen={"changed_pump": 0.5},
        size=sized(
            (0.7, 0.83, 1.35, 1.7, 2.2), "share", "delivers about {} of what was read", "flow"
        ),
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
            "lever": 0.3,
            "level_falls": 0.92,
            "reset_fails": 0.4,
            "late_water": 0.3,
        },
        look=("well", "level_falls"),
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
        seen={
            "air_spits": 0.85,
            "wander": 0.15,
            "weak": 0.4,
            "first_spit": 0.5,
            "late_water": 0.5,
            "trips": 0.2,
            "lever": 0.2,
        },
        size=sized((0.5, 0.75), "share", "delivers about {} of its plate", "flow"),
    ),
    Cause(
        id="broken_pipe",
        title="The pipe in the well is broken",
        weight=2,
        remedy=PIPE,
        if_left="The pump runs without end and the water goes back down.",
        seen={"muddy": 0.45, "trips": 0.4, "lever": 0.4, "reset_fails": 0.8, "late_water": 0.4},
        look=("delivered", "dead_head", "highest"),
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
INLET: tuple[Cause[W], ...] = (
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
