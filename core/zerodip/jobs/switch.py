"""Jobs at the switch: replacing, wiring, cleaning. Source: common practice, no source."""

from zerodip.jobs.parts import Job, JobStep
from zerodip.visit.slots import (
    BRIDGED,
    CONTACTS_BURNT,
    CORROSION,
    EARTH_MISSING,
    NIPPLE_CLOGGED,
    RATING,
    RATING_LOW,
    SWAPPED,
    SWITCH_REPLACED,
)

__all__ = ["CLEAN_CONTACTS", "CLEAN_NIPPLE", "REPLACE_SWITCH", "RUN_SEEN", "WIRE_SWITCH"]

_MAINS = "Mains stands at the line terminals even with the machine’s own switch off."
_PRESSURE = "Stored pressure throws parts: gauge at zero first."
_LICENSED = "Wiring may need a licensed person: local codes come first."
RUN_SEEN = JobStep(
    id="run_seen",
    does="Cover on, power on: one whole run seen, click in to click out.",
    caution="A hand on the switch during the first fill.",
)
_NO_LEAK = JobStep(id="no_leak", does="The thread is dry under pressure.")
_CLAMPS = JobStep(
    id="clamps",
    does="Cables through clamps in the knock-outs.",
    caution="Edges of knock-outs are sharp.",
    off=True,
)
_TIGHT = JobStep(id="tight", does="Every screw tugged: no strand loose, nothing bridged.", off=True)
_EARTH_FIRST = JobStep(
    id="earth",
    does="Earth first, to the earth screw; then line, then load.",
    caution=_LICENSED,
    off=True,
)
_BY_DIAGRAM = JobStep(
    id="diagram",
    does="Line and load by the diagram under the cover. Outer pair line, inner pair load is usual.",
    caution="Usual is not always: read the diagram of this switch.",
    off=True,
)

REPLACE_SWITCH = Job(
    id="replace_switch",
    title="Replace the switch",
    minutes=30,
    have=(
        "A switch of the same range, rating and kind of lever",
        "Sealing tape, two wrenches, meter",
        "Cable clamps for the knock-outs",
    ),
    steps=(
        JobStep(
            id="photo",
            does="Photo of the wires before anything is loosened.",
            caution=_MAINS,
            off=True,
        ),
        JobStep(
            id="lever",
            does="Same kind of lever: with a lever for low-pressure cut-off, or without.",
            off=True,
        ),
        JobStep(
            id="off",
            does="Wires off and marked; old switch off its nipple, the nipple held with a wrench.",
            caution=_PRESSURE,
            off=True,
            drained=True,
        ),
        JobStep(
            id="nipple",
            does="Look through the nipple: clear, or a new one of brass.",
            caution="A rusted nipple breaks off in the tee.",
            off=True,
            drained=True,
        ),
        JobStep(
            id="on",
            does="New switch on, sealing tape wound with the thread.",
            caution="Turn it by its hexagon, never by its cover.",
            off=True,
            drained=True,
            at=SWITCH_REPLACED,
        ),
        _CLAMPS,
        _EARTH_FIRST,
        _BY_DIAGRAM,
    ),
    checks=(
        _TIGHT,
        _NO_LEAK,
        RUN_SEEN,
    ),
    records=(RATING, SWITCH_REPLACED),
    closes=(
        EARTH_MISSING,
        SWAPPED,
        BRIDGED,
        RATING_LOW,
        CONTACTS_BURNT,
        CORROSION,
        NIPPLE_CLOGGED,
    ),
    complaints=("silent", "endless"),
)

WIRE_SWITCH = Job(
    id="wire_switch",
    title="Wire a switch for the first time",
    minutes=30,
    have=("Meter, cable clamps, strippers", "The diagram under the cover", "The motor’s plate"),
    steps=(
        JobStep(
            id="rating",
            does="Rating under the cover at least what the motor’s plate draws.",
            caution="An overloaded switch welds shut: the pump never stops.",
            off=True,
        ),
        JobStep(
            id="volts",
            does="Motor and supply at the same voltage. Two hot legs on 240 V.",
            caution="Polarity words are wrong for AC: both legs are live.",
            off=True,
        ),
        _CLAMPS,
        _EARTH_FIRST,
        _BY_DIAGRAM,
    ),
    checks=(
        _TIGHT,
        JobStep(
            id="continuity",
            does="Meter: line to load open with points open; no leg to earth.",
            off=True,
        ),
        RUN_SEEN,
    ),
    records=(RATING,),
    closes=(EARTH_MISSING, SWAPPED, BRIDGED),
)

CLEAN_CONTACTS = Job(
    id="clean_contacts",
    title="Clean the contacts",
    minutes=10,
    have=("Contact file or fine card, brush", "Meter"),
    steps=(
        JobStep(
            id="out",
            does="Ants, webs and dirt out with a dry brush.",
            caution=_MAINS,
            off=True,
        ),
        JobStep(
            id="draw",
            does="A card drawn through the closed contacts until it comes out clean.",
            caution="Never wet, never oil. Pitted deep or welded: replace the switch.",
            off=True,
        ),
        JobStep(
            id="seal",
            does="The way in of dirt and damp closed.",
            caution="Insects come back through open knock-outs.",
            off=True,
        ),
    ),
    checks=(
        JobStep(id="snap", does="Contacts snap open and shut together by hand.", off=True),
        RUN_SEEN,
    ),
    closes=(CONTACTS_BURNT,),
    complaints=("silent",),
)

CLEAN_NIPPLE = Job(
    id="clean_nipple",
    title="Clean or replace the sensing nipple",
    minutes=20,
    have=("A brass nipple of the same thread", "Sealing tape, two wrenches", "Stiff wire"),
    steps=(
        JobStep(
            id="off",
            does="Switch off its nipple, wires eased or taken off; then the nipple.",
            caution=_PRESSURE,
            off=True,
            drained=True,
        ),
        JobStep(
            id="through",
            does="Look through it. Galvanised and closing up: brass instead.",
            caution="A rusted nipple breaks off in the tee: hold the tee.",
            off=True,
            drained=True,
        ),
        JobStep(
            id="tee",
            does="The hole in the tee and the foot of the switch picked clean.",
            caution="Do not push dirt under the diaphragm.",
            off=True,
            drained=True,
        ),
        JobStep(
            id="on",
            does="Back on, sealing tape wound with the thread.",
            caution="Turn the switch by its hexagon, never by its cover.",
            off=True,
            drained=True,
        ),
    ),
    checks=(
        _NO_LEAK,
        JobStep(id="follows", does="Gauge and switch move together: it clicks at the same points."),
        RUN_SEEN,
    ),
    closes=(NIPPLE_CLOGGED,),
    complaints=("endless", "silent"),
)
