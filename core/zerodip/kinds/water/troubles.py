"""What may be wrong with a water system, each a change to its plant. Weights and the chance of what
is seen are judgement, no source; the rest is the plant's own model."""

from zerodip.diagnosis.parts import Cause, Size, Troubles
from zerodip.kinds.trouble_causes import HEALTHY, SWITCH_CAUSES, changed
from zerodip.kinds.trouble_parts import NIPPLE, SET
from zerodip.kinds.water.figures import WaterFigures
from zerodip.kinds.water.trouble_air import BLADDER, PLAIN, TANKS
from zerodip.kinds.water.trouble_changes import (
    HOLDS_HIGH,
    HOLDS_LOW,
    late,
    near_dead_head,
    over_dead_head,
)
from zerodip.kinds.water.trouble_items import ITEMS
from zerodip.kinds.water.trouble_plant import WaterPlant as W
from zerodip.kinds.water.trouble_plant import healthy_plant
from zerodip.kinds.water.trouble_remedies import RESET
from zerodip.kinds.water.trouble_supply import INLET, LINE_AND_USE, PUMPS

__all__ = ["BLADDER_TROUBLES", "BOOSTED_TROUBLES", "PLAIN_TROUBLES"]

_SWITCH: tuple[Cause[W], ...] = (
    Cause(
        id="nipple",
        title="The sensing nipple is clogged",
        weight=5,
        remedy=NIPPLE,
        if_left="The switch may not stop the pump at all.",
        seen={"nipple": 0.94, "tap_switch": 0.25, "wander": 0.5},
        look=("nipple", "cut_out"),
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
        filed=lambda plant: True,
        look=("highest", "dead_head"),
        size=Size(
            values=(0.9, 0.97),
            dimension="share",
            says="the pump reaches about {} of cut-out",
            change=over_dead_head,
        ),
    ),
    Cause(
        id="tripped",
        title="The low-pressure cut-off tripped once: power cut, or a long draw",
        weight=5,
        remedy=RESET,
        breaks=("low-pressure-trip", "long-draw-trip", "low-pressure-margin"),
        if_left="No water until it is reset; it will trip again.",
        seen={"lever": 0.95},
        change=changed(starts=False, trips=True),
        applies=lambda plant: plant.figures.low_pressure_cut_off is not False,
    ),
)
_EVERY = (*TANKS, *LINE_AND_USE, *_SWITCH, *SWITCH_CAUSES)
_NOT_BOOSTED = {"well", "muddy"}


def _troubles(causes: tuple[Cause[W], ...], without: set[str]) -> Troubles[W]:
    items = tuple(each for each in ITEMS if each.id not in without)
    return Troubles(
        plant=healthy_plant, items=items, causes=causes, healthy=HEALTHY, needless=_needless
    )


def _needless(figures: WaterFigures) -> frozenset[str]:
    """No lever is looked for on a switch without one, no second tank where there is one."""
    no_lever = figures.low_pressure_cut_off is False
    one_tank = len(figures.system.tanks) == 1 and not figures.is_assumed("system.tanks")
    return frozenset(("lever", "reset_fails") * no_lever + ("tank_apart",) * one_tank)


_AIRLESS = {"water_at_valve", "pre_charge", "knee", "bubbles"}
BLADDER_TROUBLES = _troubles((*BLADDER, *_EVERY, *PUMPS), {"renewer", "inlet"})
PLAIN_TROUBLES = _troubles((*PLAIN, *_EVERY, *PUMPS), {*_AIRLESS, "inlet"})
_AT_A_MAIN = tuple(each for each in PUMPS if each.id not in ("well_low", "broken_pipe"))
BOOSTED_TROUBLES = _troubles((*BLADDER, *INLET, *_EVERY, *_AT_A_MAIN), {"renewer", *_NOT_BOOSTED})
