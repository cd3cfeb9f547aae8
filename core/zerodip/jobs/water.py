"""Jobs at tanks, lines and wells. Source: common practice, no source, unless told."""

from zerodip.jobs.parts import Job, JobStep
from zerodip.jobs.switch import RUN_SEEN
from zerodip.visit.slots import NEW_AIR, REMARK, TANK_REPLACED, WATER_AT_VALVE

__all__ = [
    "FLOODED",
    "LABEL_LINES",
    "PRIME_JET",
    "PURGE_LINES",
    "REPLACE_RELIEF",
    "REPLACE_TANK",
    "RESET_CUT_OFF",
    "RE_AIR",
]

_PRESSURE = "Stored pressure throws water and parts: gauge at zero first."
_LIFT = "A tank with water in it is heavy: two people, or drain it longer."

REPLACE_TANK = Job(
    id="replace_tank",
    title="Replace the tank or its bladder",
    minutes=90,
    have=(
        "A tank of the same or the next size, with its plate",
        "Tyre gauge, inflator",
        "Sealing tape, two wrenches, help to carry",
    ),
    steps=(
        JobStep(
            id="let_air",
            does="Air of the old tank let out at its valve.",
            caution=_PRESSURE,
            off=True,
            drained=True,
        ),
        JobStep(id="out", does="Old tank off and out.", caution=_LIFT, off=True, drained=True),
        JobStep(
            id="charge",
            does="New tank: read its air before any water goes in. They come with about 38 psi.",
            caution="Never above the plate’s greatest pre-charge.",
            off=True,
            drained=True,
        ),
        JobStep(
            id="in",
            does="New tank in and connected, level and free of strain.",
            caution=_LIFT,
            off=True,
            drained=True,
            at=TANK_REPLACED,
        ),
    ),
    checks=(
        JobStep(id="plate", does="Plate of the new tank read: volume, greatest pressure."),
        JobStep(id="no_leak", does="The joint is dry under pressure."),
        JobStep(id="cap", does="No water at the new air valve."),
        RUN_SEEN,
    ),
    records=(TANK_REPLACED, NEW_AIR),
    closes=(WATER_AT_VALVE,),
)

RE_AIR = Job(
    id="re_air",
    title="Drain and re-air a plain tank",
    minutes=45,
    have=("Hose", "A way for air in: tap or plug at the top"),
    steps=(
        JobStep(
            id="house",
            does="House valve shut; hose on the lowest drain.",
            caution="Where it leads must not flood a pit.",
            off=True,
        ),
        JobStep(
            id="air_in",
            does="A tap or plug above the tank opened, so that air goes in.",
            caution=_PRESSURE,
            off=True,
            drained=True,
        ),
        JobStep(
            id="empty",
            does="Drained until nothing comes at all.",
            caution="A tank that is sucked empty with no way for air may buckle.",
            off=True,
            drained=True,
        ),
        JobStep(id="shut", does="Plug and drain shut.", off=True),
    ),
    checks=(
        JobStep(id="renewer", does="The device that renews the air looked at: float, snifter."),
        JobStep(id="no_air", does="No air at the taps after two cycles."),
        RUN_SEEN,
    ),
    complaints=("clicks",),
)

PURGE_LINES = Job(
    id="purge_lines",
    title="Purge air from the lines",
    minutes=20,
    have=("A helper at the furthest tap",),
    steps=(
        JobStep(
            id="slow",
            does="Taps opened one by one from the nearest to the furthest, slowly.",
            caution="Air and water spit: hot taps shut first.",
        ),
        JobStep(
            id="until",
            does="Each runs until the stream is even.",
            caution="Aerators and filters off before: rust comes along.",
        ),
        JobStep(
            id="source",
            does="Where the air comes from: suction side, low well, lost prime.",
            caution="A pump that sucks air runs hot: no more than a few minutes.",
        ),
    ),
    checks=(
        JobStep(id="still", does="No air after an hour or two cycles."),
        JobStep(id="filters", does="Aerators and filters back in, rinsed."),
    ),
)

REPLACE_RELIEF = Job(
    id="replace_relief",
    title="Replace the relief or safety valve",
    minutes=30,
    have=("A valve set no higher than the lowest rating", "Sealing tape, wrench"),
    steps=(
        JobStep(
            id="rating",
            does="Setting at or below the lowest of tank, pump and pipe ratings.",
            caution="Never plug, remove or raise a relief or safety valve.",
        ),
        JobStep(
            id="off",
            does="Old valve off.",
            caution="Pressure at zero first: it holds back all that is stored.",
            off=True,
        ),
        JobStep(
            id="on",
            does="New valve on, no shut-off between it and the tank.",
            caution="Its outlet points where nobody stands, and is never narrowed.",
            off=True,
        ),
    ),
    checks=(
        JobStep(id="tag", does="Its setting read off the tag and noted on the plate."),
        JobStep(id="dry", does="Dry at cut-out."),
        JobStep(
            id="lifts",
            does="Lifts by its lever and closes again.",
            caution="Hot or fast: eyes away, hand from behind.",
        ),
    ),
    records=(REMARK,),
)

PRIME_JET = Job(
    id="prime_jet",
    title="Prime a jet pump",
    minutes=30,
    have=("A few gallons of clean water", "Sealing tape for the plug"),
    steps=(
        JobStep(
            id="plug",
            does="Priming plug out; case and suction filled until water stands.",
            caution="A dry start burns the seal. Drinking water only.",
            off=True,
        ),
        JobStep(id="tight", does="Plug back in with tape; suction joints tight.", off=True),
        JobStep(
            id="start",
            does="Power on, outlet throttled, until the gauge holds.",
            caution="Not within five minutes: off, fill again, look for a suction leak.",
        ),
        JobStep(id="open", does="Outlet opened slowly; the gauge must not collapse."),
    ),
    checks=(
        JobStep(id="holds", does="Stands an hour off and starts with water: the foot valve holds."),
        RUN_SEEN,
    ),
    complaints=("endless",),
)

RESET_CUT_OFF = Job(
    id="reset_cut_off",
    title="Reset a low-pressure cut-off, and find why",
    minutes=20,
    have=("Tyre gauge",),
    steps=(
        JobStep(
            id="why",
            does="Before the lever: is a pipe broken, a tap left open, the well low?",
            caution="It tripped to save the pump. A dry pump burns in minutes.",
        ),
        JobStep(
            id="shut",
            does="House valve shut, or all taps.",
            caution="A broken pipe floods when the pump starts.",
        ),
        JobStep(
            id="lever",
            does="Lever held half way until the gauge passes cut-in, then let go.",
            caution="Cover on. Gauge not rising within a minute: let go, look at the well.",
        ),
        JobStep(
            id="charge",
            does="Pre-charge read, drained: too near cut-in trips it at each big draw.",
            caution=_PRESSURE,
            off=True,
            drained=True,
        ),
    ),
    checks=(
        JobStep(id="draw", does="The greatest usual draw opened: it does not trip."),
        JobStep(id="told", does="Told what the lever is for, and not to tie it up."),
        RUN_SEEN,
    ),
    complaints=("trips", "silent"),
)

FLOODED = Job(
    id="flooded",
    title="Flooded well or pit",
    minutes=240,
    have=("Pump or time for the water to fall", "Disinfectant for wells", "Bottle for the test"),
    steps=(
        JobStep(
            id="touch_not",
            does="Touch nothing in the water. Nobody goes in.",
            caution="Water in a pit may be live, and its air may kill.",
        ),
        JobStep(
            id="upstream",
            does="Disconnected upstream, at the house or by the power company.",
            caution="Not by the switch in the pit. From a dry place only.",
        ),
        JobStep(
            id="dry",
            does="Pumped dry from outside; switch, splices and motor opened and dried or replaced.",
            caution="A switch that was under water is replaced.",
            off=True,
        ),
        JobStep(
            id="disinfect",
            does="Well and lines disinfected as the health authority says.",
            caution="Nobody drinks or cooks with it. Disinfectant burns eyes and lungs.",
        ),
        JobStep(
            id="flush", does="Flushed outside until nothing is smelled.", caution="Not to a septic."
        ),
    ),
    checks=(
        JobStep(id="test", does="Water tested by a laboratory, and the result good."),
        JobStep(id="told", does="Told in writing: not to drink until the test is good."),
        JobStep(id="earth", does="Earth and insulation measured by a licensed person."),
    ),
    records=(REMARK,),
)

LABEL_LINES = Job(
    id="label_lines",
    title="Label non-potable outlets",
    minutes=20,
    have=("Labels “Non-potable water. Do not drink.”", "Purple tape or pipe marker"),
    steps=(
        JobStep(
            id="tank",
            does="Tank and switch labelled.",
            caution="IPC 608 and UPC 601 (from memory): non-potable water is labelled.",
        ),
        JobStep(id="outlets", does="Every outlet labelled; handles taken off where children play."),
        JobStep(
            id="lines",
            does="Lines marked in purple along their length.",
            caution="No joint with drinking water, not even through a valve.",
        ),
    ),
    checks=(
        JobStep(id="cross", does="No cross-connection: drinking water shut, these taps still run."),
        JobStep(id="told", does="Told which outlets are not for drinking."),
    ),
)
