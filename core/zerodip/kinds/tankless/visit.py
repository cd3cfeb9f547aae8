"""A visit to a tankless pump: making safe, what is seen to before leaving."""

from zerodip.jobs.switch import CLEAN_CONTACTS, REPLACE_SWITCH
from zerodip.jobs.water import PURGE_LINES
from zerodip.kinds.steps import HAND_OVER
from zerodip.kinds.visit_parts import StepSpec

__all__ = ["CHECKS", "JOBS", "STEPS", "WATCH"]

STEPS = (
    StepSpec("power_off", "Pull the fuse of the pump.", "A battery feeds a short for a long time."),
    StepSpec("proved_dead", "See that the pump does not answer to an open tap.", after="power_off"),
    StepSpec("drained", "Open the lowest tap until nothing comes.", after="proved_dead"),
)
CHECKS = HAND_OVER
JOBS = (REPLACE_SWITCH, CLEAN_CONTACTS, PURGE_LINES)
WATCH = (
    "Before power is on: all taps shut, air purged from the lines.",
    "Open the furthest outlet until the pump clicks in. Read the gauge there: cut-in.",
    "Shut it again; time the run from the click.",
    "At the click out read the gauge: cut-out. At a small trickle: does it chatter?",
)
