"""Items and remedies of a diagnosis that several kinds of system share: power, switch, gauge.
Chances and minutes are judgement, no source."""

from typing import Any

from zerodip.diagnosis.parts import Item, Remedy, Sketch
from zerodip.fileformat.ranges import RUN_S
from zerodip.units import PSI

__all__ = [
    "AT_SWITCH",
    "CONTACTS",
    "ELECTRICIAN",
    "FIRST_SPIT",
    "GAUGE",
    "NIPPLE",
    "NOTHING",
    "POINTS",
    "POWER",
    "PURGE",
    "RUN",
    "SET",
    "SWITCH",
    "gauge_item",
    "rest_item",
    "symptom",
]

_SEEN_PLAINLY = 0.02  # of what is looked at with the part in the hand is wrong
_LIVE = "Cover on. Mains voltage stands at open terminals."
_RUNS = ("clicks", "breath", "endless", "alone", "slow", "chatter")  # so it has power
_DEAD = "Breaker off, proved dead, before the cover comes off."
NOTHING = Remedy(
    id="nothing", kind="nothing", says="Nothing to mend: it is sized or used like this."
)
SET = Remedy(
    id="set", kind="setting", says="Set cut-in and cut-out, from Decide, by the nuts.", minutes=30
)
GAUGE = Remedy(id="gauge", kind="fix", says="Replace the gauge; then read again.", minutes=10)
POWER = Remedy(
    id="power",
    kind="fix",
    says="Close the breaker once. If it goes again, call an electrician.",
    minutes=5,
)
ELECTRICIAN = Remedy(
    id="electrician", kind="person", says="Call an electrician or the motor's dealer.", minutes=120
)
CONTACTS = Remedy(id="clean_contacts", kind="job", says="Clean the contacts.", minutes=10)
SWITCH = Remedy(id="replace_switch", kind="job", says="Replace the switch.", minutes=30)
NIPPLE = Remedy(
    id="clean_nipple", kind="job", says="Clean or replace the sensing nipple.", minutes=20
)

PURGE = Remedy(id="purge_lines", kind="job", says="Purge the air from the lines.", minutes=20)

AT_SWITCH: tuple[Item, ...] = (
    Item(
        id="silent",
        title="It will not start",
        asks="Does the pump stay still although the gauge stands below cut-in?",
        symptom=True,
        sketch="still",
        minutes=1.5,
        base=0.01,
    ),
    Item(
        id="runs_over",
        together="running",
        title="It runs above cut-out",
        asks="Does it run on although the gauge stands well above cut-out?",
        symptom=True,
        sketch="over",
        minutes=0.5,
        needs="powered",
        unless=("silent",),
        stop="Stop: breaker off now. A switch that does not open can burst tank or pipe.",
        base=0.01,
    ),
    Item(
        id="wander",
        title="The points wander",
        asks="Does it click in or out at another pressure each time?",
        symptom=True,
        sketch="wander",
        minutes=6,
        needs="powered",
        how="Watch three cycles on the gauge, cover on.",
        unless=("silent", "endless"),
    ),
    Item(
        id="breaker",
        together="round",
        title="Breaker or fuse is out",
        asks="Is the breaker off, or a fuse blown?",
        minutes=1,
        how="Look at the panel. Do not close it twice.",
        unless=_RUNS,
    ),
    Item(
        id="no_volts",
        together="meter",
        title="No voltage at the line side",
        unless=_RUNS,
        asks="Does a tester show no voltage at the switch’s line side?",
        minutes=4,
        needs="powered",
        tools="Voltage tester",
        caution="Only for who may work live.",
        base=0.01,
    ),
    Item(
        id="hums",
        together="switch",
        title="The motor hums",
        asks="Does the motor hum, or throw the breaker, when it should start?",
        minutes=1,
        needs="powered",
        caution=_LIVE,
    ),
    Item(
        id="tap_switch",
        together="switch",
        title="A tap on the switch starts or stops it",
        asks="Tap the switch lightly with a handle, cover on. Does it click over?",
        minutes=0.5,
        needs="powered",
        caution=_LIVE,
    ),
    Item(
        id="contacts",
        together="cover",
        title="Contacts burnt or stuck",
        asks="Are the contacts burnt, pitted or stuck together, or a wire loose?",
        wrong=_SEEN_PLAINLY,
        minutes=4,
        needs="off",
        tools="Screwdriver, lamp",
        caution=_DEAD,
    ),
    Item(
        id="wet",
        together="cover",
        title="Damp, ants or dirt under the cover",
        asks="Is it damp, or full of ants or dirt, under the cover?",
        minutes=4,
        needs="off",
        tools="Screwdriver, lamp",
        caution=_DEAD,
        stop="Live parts are wet: breaker off, and do not touch it until it is proved dead.",
        base=0.02,
    ),
    Item(
        id="nipple",
        title="Sensing nipple closed up",
        asks="Blow through the nipple under the switch: is it closed up with rust or dirt?",
        wrong=_SEEN_PLAINLY,
        minutes=15,
        needs="drained",
        tools="Wrench, wire",
        caution="Gauge at zero before anything is unscrewed.",
    ),
    Item(
        id="gauge_differs",
        title="A second gauge shows otherwise",
        asks="Does a second gauge show 3 psi more or less than this one?",
        minutes=4,
        tools="Second gauge",
    ),
    Item(
        id="changed_points",
        title="The switch was turned or replaced lately",
        asks="Did anybody turn the switch’s nuts, or replace it, lately?",
        minutes=0.5,
        base=0.1,
        told=True,
    ),
    Item(
        id="current",
        together="meter",
        title="Current drawn",
        asks="What does the motor draw, as a share of its plate?",
        minutes=4,
        needs="powered",
        tools="Clamp meter",
        how="A clamp round one wire, nothing touched.",
        caution="Only for who may work live.",
        dimension="share",
        least=0.0,
        most=3.0,
    ),
)


FIRST_SPIT = Item(
    id="first_spit",
    together="taps",
    title="A tap spits at first, then runs clear",
    asks="Open the taps one after the other: does one spit at first, then run clear?",
    unless=("silent",),
    minutes=3,
    needs="powered",
)


def symptom(id: str, title: str, asks: str, sketch: Sketch, **more: Any) -> Item:
    """Something that a call begins with.

    Args:
        id: Its id.
        title: As it is said.
        asks: The question.
        sketch: The line of the pressure beside it.
        **more: Whatever else is particular about it.

    Returns:
        The item.
    """
    return Item(id=id, title=title, asks=asks, symptom=True, sketch=sketch, **more)


def gauge_item(id: str, title: str, asks: str, most_pa: float = 200 * PSI, **more: Any) -> Item:
    """A pressure that is read on the system's gauge.

    Args:
        id: Its id.
        title: What it is.
        asks: The question.
        most_pa: The most that may be read, Pa gauge.
        **more: Whatever else is particular about it.

    Returns:
        The item.
    """
    told = {"dimension": "pressure", "least": 0.0, "most": most_pa, "gauge": True, **more}
    return Item(id=id, title=title, asks=asks, **told)


_CYCLE: dict[str, Any] = {
    "how": "Cover on. Open one tap until it clicks in; shut it until it clicks out.",
    "unless": ("silent",),
    "minutes": 3,
    "needs": "powered",
    "together": "cycle",
}
POINTS: tuple[Item, ...] = (
    gauge_item("cut_in", "Cut-in", "At what pressure does it click in?", **_CYCLE),
    gauge_item("cut_out", "Cut-out", "At what pressure does it click out?", **_CYCLE),
)
RUN = Item(
    id="run",
    title="Run",
    asks="How long does it run, all taps shut?",
    how="From click to click, cover on, nothing drawn.",
    never="It does not stop",
    watch_s=600.0,
    together="cycle",
    unless=("silent", "endless"),
    minutes=3,
    needs="powered",
    dimension="duration",
    least=RUN_S[0],
    most=RUN_S[1],
    log=True,
)


def rest_item(asks: str) -> Item:
    """How long it stays off with nothing used.

    Args:
        asks: The question.

    Returns:
        The item.
    """
    return Item(
        id="rest",
        title="Rest",
        asks=asks,
        how="Note the time at the click out, and again at the click in. Ten minutes will do.",
        never="It does not start",
        watch_s=600.0,
        unless=("silent", "endless"),
        minutes=10,
        needs="powered",
        dimension="duration",
        least=1.0,
        most=360000.0,
        log=True,
    )
