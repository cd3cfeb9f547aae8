"""A visit to a tankless pump: making safe, what is seen to before leaving."""

from zerodip.kinds.steps import HAND_OVER, READ_LAST, READ_POINTS
from zerodip.kinds.visit_parts import StepSpec

__all__ = ["CHECKS", "READ", "STEPS"]

STEPS = (
    StepSpec("power_off", "Pull the fuse of the pump.", "A battery feeds a short for a long time."),
    StepSpec("proved_dead", "See that the pump does not answer to an open tap.", after="power_off"),
    StepSpec("drained", "Open the lowest tap until nothing comes.", after="proved_dead"),
)
CHECKS = HAND_OVER
READ = (*READ_POINTS, *READ_LAST)
