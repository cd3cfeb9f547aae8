"""Jobs at compressors. Source: common practice, no source."""

from zerodip.jobs.parts import Job, JobStep
from zerodip.jobs.switch import RUN_SEEN

__all__ = ["BLEED_CONDENSATE", "CHECK_VALVE", "SEALED_SWITCH", "UNLOADER"]

_HOT = "Head and pipes burn for half an hour after a run."
_EMPTY = "Receiver bled to zero first: what is stored throws parts."
_STEADY = JobStep(id="steady", does="Gauge steady for ten minutes after it settled.")

BLEED_CONDENSATE = Job(
    id="bleed_condensate",
    title="Bleed the condensate",
    minutes=10,
    have=("Tray or hose", "Eye and ear protection"),
    steps=(
        JobStep(
            id="low",
            does="Pressure let down to a tenth or less.",
            caution="Full pressure at the cock cuts skin.",
        ),
        JobStep(
            id="crack",
            does="Drain cock cracked until only air comes.",
            caution="Face away; oil and rust come with it.",
        ),
        JobStep(
            id="oil",
            does="Oily water kept, not poured away.",
            caution="Local codes say where it goes.",
        ),
    ),
    checks=(
        JobStep(id="shut", does="Cock shut and tight at full pressure."),
        JobStep(id="rust", does="Much rust: the receiver is inspected before it is used on."),
    ),
)
UNLOADER = Job(
    id="unloader",
    title="See to the unloader",
    minutes=20,
    have=("Spanner for the small pipe", "Soap water"),
    steps=(
        JobStep(
            id="hiss",
            does="At the click out a short hiss. None: it does not unload. Endless: check valve.",
            caution=_HOT,
        ),
        JobStep(
            id="off",
            does="Small pipe off; valve and pipe blown through.",
            caution=_EMPTY,
            off=True,
            drained=True,
        ),
        JobStep(id="plunger", does="The lever of the switch pushes the plunger home.", off=True),
    ),
    checks=(
        JobStep(id="starts", does="Starts again at cut-in without groaning."),
        JobStep(id="soap", does="Small pipe soaped: no bubbles while it runs."),
        RUN_SEEN,
    ),
    complaints=("silent",),
)
CHECK_VALVE = Job(
    id="check_valve",
    title="Clean or replace the check valve",
    minutes=30,
    have=("A check valve of the same thread", "Spanners, sealing tape fit for heat"),
    steps=(
        JobStep(
            id="off",
            does="Pipe from the pump off; valve out of the receiver.",
            caution=f"{_HOT} {_EMPTY}",
            off=True,
            drained=True,
        ),
        JobStep(
            id="seat",
            does="Seat and disc clean and whole; carbon means it runs hot.",
            caution="No wire brush on the seat.",
            off=True,
            drained=True,
        ),
        JobStep(id="on", does="Back in, arrow to the receiver.", off=True, drained=True),
    ),
    checks=(
        _STEADY,
        JobStep(id="quiet", does="No hiss at the unloader while it stands."),
        RUN_SEEN,
    ),
    complaints=("starts_alone",),
)
SEALED_SWITCH = Job(
    id="sealed_switch",
    title="A sealed or fixed switch",
    minutes=15,
    have=("The maker’s leaflet", "The customer’s word on warranty"),
    steps=(
        JobStep(
            id="which",
            does="Ring, plug or security screw: sealed. No screw at all: fixed, replaced whole.",
            caution="Breaking a factory seal can end a warranty: ask first.",
        ),
        JobStep(
            id="plate",
            does="What the maker allows, off plate and leaflet.",
            caution="Never above the receiver’s plate, never to please a tool.",
        ),
        JobStep(
            id="opened",
            does="Opened with the customer’s word; else left, and said so.",
            caution="Mains and stored air behind the cover.",
            off=True,
        ),
    ),
    checks=(
        JobStep(id="resealed", does="Sealed again, or a note at the switch that it was opened."),
        JobStep(id="valve", does="Safety valve untouched, its tag whole."),
    ),
)
