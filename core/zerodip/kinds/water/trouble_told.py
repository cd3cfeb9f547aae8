"""What a caller can tell of a water system, and what is looked at seldom. Chances and minutes are
judgement, no source."""

from zerodip.diagnosis.parts import Item
from zerodip.kinds.trouble_parts import gauge_item

__all__ = ["SELDOM", "TOLD"]

_DRY = "Breaker locked off and proved dead; pit pumped dry and aired. Nobody goes in alone."


def _told(id: str, title: str, asks: str, base: float = 0.05) -> Item:
    """Something that is known without looking."""
    return Item(id=id, title=title, asks=asks, minutes=0.5, base=base, together="told", told=True)


TOLD: tuple[Item, ...] = (
    _told("changed_pump", "The pump was replaced lately", "Was the pump replaced lately?"),
    _told("changed_tank", "The tank was replaced lately", "Was the tank replaced lately?"),
    _told(
        "raised",
        "Set higher lately, the air left as it was",
        "Was the switch set higher lately, and the air left as it was?",
        0.02,
    ),
    _told(
        "lowered",
        "Set lower lately, the air left as it was",
        "Was the switch set lower lately, and the air left as it was?",
        0.02,
    ),
    _told(
        "air_unread",
        "The air was not read for a year or more",
        "Is it a year or more since the air was read?",
        0.5,
    ),
    _told("frost", "It froze", "Did it freeze at the pump, a pipe or the switch?", 0.03),
    Item(
        id="pit_flooded",
        title="The pit or cellar stood full of water",
        asks="Did the pit or cellar stand full of water?",
        minutes=0.5,
        base=0.01,
        stop=_DRY,
        told=True,
    ),
    _told(
        "hose",
        "Something large runs",
        "Does a hose, a filling pool or the garden run while it does this?",
        0.1,
    ),
)
SELDOM: tuple[Item, ...] = (
    Item(
        id="stops_shut",
        together="running",
        title="It stops in its usual time once all is shut",
        asks="Shut every tap and hose: does it stop in its usual time?",
        unless=("silent",),
        minutes=3,
        needs="powered",
        base=0.2,
    ),
    Item(
        id="late_water",
        together="taps",
        title="Water comes late",
        asks="Does it take ten seconds or more after the start until water comes?",
        unless=("silent",),
        minutes=2,
        needs="powered",
        told=True,
    ),
    Item(
        id="upper_weak",
        together="taps",
        title="Only the upper taps are weak",
        asks="Are the taps upstairs weak, and those below good?",
        unless=("silent",),
        minutes=2,
        needs="powered",
        base=0.03,
        told=True,
    ),
    Item(
        id="filter_before",
        together="round",
        title="A filter or screen before the switch is dirty",
        asks="Is there a filter or screen between pump and switch, and is it dirty?",
        minutes=4,
        base=0.02,
        told=True,
    ),
    Item(
        id="wet_ground",
        together="round",
        title="Wet ground over a pipe",
        asks="Is the ground wet, or does it sink, between well, tank and house?",
        minutes=3,
        base=0.02,
        told=True,
    ),
    Item(
        id="stains",
        together="round",
        title="Old stains under gauge, drain or fittings",
        asks="Are there old stains under the gauge, the drain or a fitting?",
        minutes=1,
        base=0.1,
        told=True,
    ),
    Item(
        id="cap",
        together="tank",
        title="The cap of the air valve is missing",
        asks="Is the cap of the air valve missing, or without its seal?",
        minutes=0.5,
        base=0.1,
        told=True,
    ),
    Item(
        id="tank_apart",
        together="drain",
        title="One tank holds much less air than the others",
        asks="Read tank by tank, drained: does one hold much less air than the others?",
        minutes=4,
        needs="drained",
        tools="Tyre gauge",
    ),
    Item(
        id="level_falls",
        title="The level in the well falls away",
        asks="Does the level in the well fall near the pump while it runs?",
        unless=("silent",),
        minutes=8,
        needs="powered",
        tools="Level tape",
    ),
    Item(
        id="reset_fails",
        title="Reset, it trips again",
        asks="Lever held in until the gauge has passed cut-in: does it trip again?",
        unless=("silent",),
        minutes=4,
        needs="powered",
        base=0.01,
    ),
    gauge_item(
        "fall_pump_shut",
        "Gauge after five minutes, valve towards the pump shut",
        "Valve between pump and tank shut: where does the gauge stand after five minutes?",
        full=True,
        how="Breaker off first: the pump must not run against a shut valve. Read now, and again.",
        caution="Open the valve again before power comes on.",
        minutes=6,
        needs="off",
        told=True,
    ),
    gauge_item(
        "lowest",
        "Lowest at a start",
        "A tap open: how low does the gauge go at the start?",
        unless=("silent",),
        minutes=3,
        needs="powered",
        told=True,
    ),
    gauge_item(
        "zero",
        "Gauge once drained",
        "Drained, a tap open: what does the gauge show?",
        minutes=1,
        needs="drained",
        together="drain",
    ),
    Item(
        id="starts_an_hour",
        title="Starts in an hour while something runs",
        asks="How many times an hour does it start while something runs?",
        unless=("silent", "endless"),
        minutes=10,
        needs="powered",
        dimension="rate",
        least=0.2 / 3600,
        most=3600 / 3600,
        log=True,
    ),
    gauge_item(
        "air_full",
        "Air valve, not drained",
        "What did the air valve show with water still in the tank?",
        gauge=False,
        minutes=1,
        tools="Tyre gauge",
        told=True,
    ),
    gauge_item(
        "dead_head",
        "Dead-head",
        "Against a shut valve, or the switch held closed by a test: where does the gauge stand?",
        minutes=4,
        needs="powered",
        unless=("silent",),
        told=True,
    ),
)
