"""What can be seen on a compressor in trouble, and what may be wrong with it. Weights, chances and
minutes are judgement, no source; the rest is the plant's own model."""

from dataclasses import replace

from zerodip.diagnosis.parts import Cause, Item, Remedy, Size, Troubles
from zerodip.kinds.compressor.trouble_plant import AirPlant as A
from zerodip.kinds.compressor.trouble_plant import healthy_plant
from zerodip.kinds.trouble_causes import HEALTHY, SWITCH_CAUSES, drifts, lost, sized, too_narrow
from zerodip.kinds.trouble_parts import AT_SWITCH, POINTS, RUN, SET, gauge_item, rest_item, symptom
from zerodip.kinds.trouble_plants import widening_helps
from zerodip.kinds.trouble_words import causes_in_words, items_in_words
from zerodip.units import PSI

__all__ = ["TROUBLES"]

_SHORT_S = 20.0
_HOT = "Hot parts and moving belts: breaker off before a guard comes off."


def _fall(id: str, title: str, asks: str, how: str) -> Item:
    return gauge_item(id, title, asks, 400 * PSI, how=how, minutes=6)


_ITEMS: tuple[Item, ...] = (
    symptom("alone", "Starts with no air used", "Does it start with no air used?", "creep"),
    symptom(
        "clicks", "Starts and stops within seconds", "Does it run for seconds only?", "sawtooth"
    ),
    symptom(
        "endless",
        "It never stops",
        "Does it run on with no air used?",
        "never",
        base=0.01,
        unless=("runs_over",),
    ),
    symptom(
        "labours", "It labours or stalls at the start", "Does it labour at the start?", "still"
    ),
    symptom("slow", "It fills slowly", "Does it take much longer to fill than it did?", "flat"),
    symptom(
        "relief_spits",
        "The safety valve blows",
        "Does the safety valve blow?",
        "over",
        together="running",
        needs="powered",
        base=0.01,
        stop="Breaker off. A safety valve that blows is the last guard: never plug or raise it.",
    ),
    *AT_SWITCH,
    RUN,
    *POINTS,
    rest_item("How long until it starts again, no air used?"),
    _fall(
        "fall_open",
        "Gauge after five minutes, lines open",
        "Machine off, no air used, lines open: where does the gauge stand after five minutes?",
        "Let it click out and settle for some minutes. Read now, and again in five minutes.",
    ),
    _fall(
        "fall_shut",
        "Gauge after five minutes, outlet shut",
        "Machine off, the receiver’s outlet shut: where does the gauge stand after five minutes?",
        "Shut the valve at the receiver’s outlet. Read now, and again in five minutes.",
    ),
    gauge_item(
        "highest",
        "Highest the gauge comes to",
        "No air used: how high does the gauge come?",
        400 * PSI,
        how="Hand at the breaker. Off at once above a plate or the safety valve's setting.",
        caution="Stay at the gauge; never above a plate or the safety valve.",
        unless=("silent",),
        minutes=4,
        needs="powered",
    ),
    Item(
        id="hiss",
        together="standing",
        title="It hisses at the unloader while it stands",
        asks="Standing, does air hiss at the unloader or the switch without end?",
        minutes=1,
        needs="powered",
    ),
    Item(
        id="no_puff",
        together="standing",
        title="No puff when it clicks out",
        asks="Is the short puff of air missing when it clicks out?",
        unless=("silent",),
        minutes=3,
        needs="powered",
    ),
    Item(
        id="starts_empty",
        title="It starts with the receiver empty",
        asks="Receiver bled to zero: does it start easily now?",
        minutes=8,
        needs="powered",
        caution="Open the drain slowly, eyes and ears guarded.",
        unless=("alone", "clicks", "endless", "slow"),
    ),
    Item(
        id="drain_water",
        title="Much water at the drain",
        asks="Does more than a cup of water come from the receiver’s drain?",
        minutes=4,
        caution="Crack it slowly, below 20 psi if it can be. Eyes and ears guarded.",
    ),
    Item(
        id="belt",
        together="guard",
        title="The belt slips",
        asks="Is the belt loose, glazed or squealing?",
        minutes=3,
        needs="off",
        caution=_HOT,
    ),
    Item(
        id="intake",
        together="guard",
        title="The intake filter is clogged",
        asks="Is the intake filter black or clogged?",
        minutes=3,
        needs="off",
        caution=_HOT,
    ),
    Item(
        id="leak_heard",
        title="Bubbles or a hiss along the lines",
        asks="Soap on couplings, hoses and drains: do bubbles come?",
        minutes=8,
        tools="Soap and water",
    ),
    Item(
        id="demand",
        title="The tools use more than it delivers",
        asks="Does it catch up as soon as the tools rest?",
        unless=("silent",),
        minutes=3,
        needs="powered",
    ),
    Item(
        id="screw",
        together="cover",
        title="The screw stands at its stop",
        asks="Is the switch’s screw turned to its stop?",
        minutes=4,
        needs="off",
    ),
)
_LEAK = Remedy(id="leak", kind="fix", says="Find the leaks with soap and mend them.", minutes=45)
_CHECK = Remedy(id="check_valve", kind="job", says="Clean or replace the check valve.", minutes=30)
_UNLOADER = Remedy(id="unloader", kind="job", says="Free or replace the unloader.", minutes=20)
_BLEED = Remedy(id="bleed_condensate", kind="job", says="Bleed the condensate.", minutes=10)
_VALVES = Remedy(id="overhaul", kind="person", says="Have valves and rings looked at.", minutes=240)
_BELT = Remedy(id="belt", kind="fix", says="Tighten or replace the belt.", minutes=20)
_INTAKE = Remedy(id="intake", kind="fix", says="Clean or replace the intake filter.", minutes=10)
_LESS = Remedy(
    id="draw_less", kind="nothing", says="Use less at once, or take a bigger machine.", minutes=0
)
_VALVE = Remedy(id="replace_relief", kind="job", says="Replace the safety valve.", minutes=30)
_BIGGER = Remedy(id="bigger", kind="setting", says="Add a receiver: see Sizes.", minutes=120)
_OTHER_SWITCH = Remedy(
    id="replace_switch", kind="job", says="Take a switch of another range.", minutes=30
)


def _shares(values: tuple[float, ...], name: str) -> Size[A]:
    """Air that is lost, as shares of what the machine delivers."""
    return lost(values, "about {} of what it delivers is lost", name, "mean_flow_m3_s")


def _worn(plant: A, value: float) -> A:
    reaches = 0.9 if value < 0.35 else plant.reaches
    return replace(plant, flow=value, reaches=reaches, current=0.75 + 0.2 * value)


_CAUSES: tuple[Cause[A], ...] = (
    Cause(
        id="leak",
        title="An air leak in the lines",
        weight=16,
        remedy=_LEAK,
        if_left="It runs at night; the leak costs power every hour.",
        seen={"leak_heard": 0.85},
        size=_shares((0.02, 0.06, 0.15, 0.4, 1.1), "leak_m3_s"),
    ),
    Cause(
        id="check_valve",
        title="The check valve passes back",
        weight=8,
        remedy=_CHECK,
        if_left="The motor starts against pressure and burns.",
        seen={"hiss": 0.92, "hums": 0.3, "labours": 0.3, "starts_empty": 0.4},
        size=_shares((0.02, 0.06, 0.2), "back_m3_s"),
    ),
    Cause(
        id="unloader",
        title="The unloader does not vent",
        weight=6,
        remedy=_UNLOADER,
        if_left="The motor starts against pressure and burns.",
        seen={
            "no_puff": 0.93,
            "labours": 0.8,
            "starts_empty": 0.92,
            "hums": 0.7,
            "breaker": 0.3,
            "silent": 0.2,
        },
    ),
    Cause(
        id="condensate",
        title="Water in the receiver",
        weight=6,
        remedy=_BLEED,
        if_left="The receiver rusts from within and may burst.",
        seen={"drain_water": 0.94},
        size=sized((0.45, 0.65, 0.85), "share", "about {} of the room is left for air", "room"),
        danger="A receiver that stood full of water may be rusted through: have it inspected.",
    ),
    Cause(
        id="worn",
        title="Valves or rings are worn",
        weight=8,
        remedy=_VALVES,
        if_left="It runs hot and at last no longer reaches cut-out.",
        size=Size(
            values=(0.25, 0.45, 0.6, 0.75),
            dimension="share",
            says="delivers about {} of its plate",
            change=_worn,
        ),
    ),
    Cause(
        id="belt",
        title="The belt slips",
        weight=3,
        remedy=_BELT,
        if_left="The belt burns through.",
        seen={"belt": 0.93},
        size=sized((0.5, 0.75), "share", "delivers about {} of its plate", "flow"),
    ),
    Cause(
        id="intake",
        title="The intake filter is clogged",
        weight=3,
        remedy=_INTAKE,
        if_left="It runs hot and long.",
        seen={"intake": 0.93},
        size=sized((0.6, 0.8), "share", "delivers about {} of its plate", "flow"),
    ),
    Cause(
        id="demand",
        title="More air is used than it delivers",
        weight=5,
        remedy=_LESS,
        breaks=("air-keeps-up", "duty"),
        if_left="It runs without a rest and wears.",
        seen={"demand": 0.92, "slow": 0.8, "endless": 0.35},
    ),
    Cause(
        id="screw",
        title="The switch’s screw stands at its stop",
        weight=2,
        remedy=_OTHER_SWITCH,
        if_left="It cannot be set where it is wanted.",
        seen={"screw": 0.93},
        change=drifts,
    ),
    Cause(
        id="dead_head",
        title="Cut-out stands over what it reaches",
        weight=3,
        remedy=SET,
        if_left="It never stops and overheats.",
        size=sized((0.92, 0.97), "share", "it reaches about {} of cut-out", "reaches"),
    ),
    Cause(
        id="relief_passes",
        title="The safety valve passes or is too weak",
        weight=2,
        remedy=_VALVE,
        if_left="It may not hold when it is needed.",
        seen={"relief_spits": 0.9},
        size=_shares((0.05, 0.3), "leak_m3_s"),
    ),
    too_narrow(
        20, _SHORT_S, "Runs stay short, and motor and switch wear.", ("air-starts-per-hour",)
    ),
    Cause(
        id="receiver_small",
        title="The receiver is too small for this machine",
        weight=20,
        remedy=_BIGGER,
        breaks=("air-starts-per-hour", "duty"),
        if_left="Runs stay short, and motor and switch wear.",
        filed=lambda plant: True,
        look=("drain_water",),
        applies=lambda plant: plant.run_s < _SHORT_S and not widening_helps(plant, _SHORT_S),
    ),
    *SWITCH_CAUSES,
)
_WITHOUT = {"nipple"}
_WORDS = {
    "Does the pump stay": "Does the machine stay",
    "all taps shut": "no air used",
    "Open one tap until it clicks in; shut it": "Bleed air until it clicks in; shut it off",
    "burst tank or pipe": "burst the receiver or a pipe",
}
TROUBLES: Troubles[A] = Troubles(
    plant=healthy_plant,
    items=items_in_words((each for each in _ITEMS if each.id not in _WITHOUT), _WORDS),
    causes=causes_in_words(_CAUSES, _WORDS),
    healthy=HEALTHY,
)
