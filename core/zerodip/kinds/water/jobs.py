"""Which jobs belong to which water system, and the parts of those that have many, in the order of
the flow. Source: common practice, no source."""

from zerodip.jobs.switch import CLEAN_CONTACTS, CLEAN_NIPPLE, REPLACE_SWITCH, WIRE_SWITCH
from zerodip.jobs.water import (
    FLOODED,
    LABEL_LINES,
    PRIME_JET,
    PURGE_LINES,
    RE_AIR,
    REPLACE_RELIEF,
    REPLACE_TANK,
    RESET_CUT_OFF,
)
from zerodip.kinds.visit_parts import PartSpec

__all__ = [
    "BOOSTED_JOBS",
    "BOOSTED_PARTS",
    "CISTERN_JOBS",
    "CISTERN_PARTS",
    "PLAIN_JOBS",
    "WELL_JOBS",
]

_SWITCH = (REPLACE_SWITCH, WIRE_SWITCH, CLEAN_CONTACTS, CLEAN_NIPPLE)
_LINES = (PURGE_LINES, REPLACE_RELIEF, RESET_CUT_OFF)
WELL_JOBS = (*_SWITCH, REPLACE_TANK, *_LINES, PRIME_JET, FLOODED, LABEL_LINES)
PLAIN_JOBS = (*_SWITCH, RE_AIR, *_LINES, PRIME_JET, FLOODED, LABEL_LINES)
CISTERN_JOBS = (*_SWITCH, REPLACE_TANK, *_LINES, PRIME_JET, LABEL_LINES, FLOODED)
BOOSTED_JOBS = (*_SWITCH, REPLACE_TANK, *_LINES)

CISTERN_PARTS = (
    PartSpec("Roof and gutters", "Leaves, moss, a broken strainer."),
    PartSpec("First flush or filter", "Emptied and clean; a clogged one sends all past."),
    PartSpec("Calmed inlet", "In place, so that mud is not stirred up."),
    PartSpec("Cistern", "Level, smell, mud; overflow free, with a trap and a screen."),
    PartSpec("Floating intake", "Floats; its screen clean; hose not kinked."),
    PartSpec("Foot or check valve", "Holds: the gauge stands with the pump off."),
    PartSpec("Pump", "Runs quietly; dry-run guard tried."),
    PartSpec("Tank and switch", "Pre-charge, cut-in, cut-out; label non-potable."),
    PartSpec("Mains top-up", "An air gap above the highest water; never a joined pipe."),
    PartSpec("Lines and outlets", "Marked as non-potable, every outlet labelled."),
)
BOOSTED_PARTS = (
    PartSpec("Supply and meter", "Lowest and highest inlet pressure, at busy and quiet hours."),
    PartSpec("Strainer", "Clean: a clogged one starves the pump."),
    PartSpec("Backflow preventer", "In place, vented port dry."),
    PartSpec("Inlet switch or guard", "Stops the pump before the supply is sucked down."),
    PartSpec("Pump", "Runs quietly; turns the right way."),
    PartSpec("Check valve", "Holds: the gauge stands with the pump off."),
    PartSpec("Tank and switch", "Pre-charge, cut-in, cut-out at the highest inlet."),
    PartSpec("Relief valve", "There, dry, set under the lowest rating."),
    PartSpec("Pressure reducer", "After the tank, set under 80 psi at the fixtures."),
    PartSpec("Bypass", "Shut; its valve turns."),
)
