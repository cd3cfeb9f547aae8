"""The rules of water systems, in the order in which findings of equal weight are shown."""

from zerodip.kinds.switch_rules import EARTH, SWITCH
from zerodip.kinds.water.figures import WaterFigures
from zerodip.kinds.water.rules.ratings import ACCEPTANCE, RATINGS
from zerodip.kinds.water.rules.running import RUNNING
from zerodip.kinds.water.rules.start import BLADDER, CUT_OFF, START
from zerodip.kinds.water.rules.supply import BOOSTED, CISTERN, PLAIN
from zerodip.kinds.water.rules.taps import DIFFERENTIAL, TAPS, WELL
from zerodip.rules.engine import Rule

__all__ = ["BOOSTED_RULES", "CISTERN_RULES", "PLAIN_WELL_RULES", "WELL_RULES"]

Rules = tuple[Rule[WaterFigures], ...]

WELL_RULES: Rules = (
    *BLADDER,
    *CUT_OFF,
    *RUNNING,
    *RATINGS,
    *ACCEPTANCE,
    *EARTH,
    *TAPS,
    *WELL,
    *SWITCH,
    *DIFFERENTIAL,
)
PLAIN_WELL_RULES: Rules = (
    *START,
    *CUT_OFF,
    *PLAIN,
    *RUNNING,
    *RATINGS,
    *EARTH,
    *TAPS,
    *WELL,
    *SWITCH,
    *DIFFERENTIAL,
)
CISTERN_RULES: Rules = (
    *BLADDER,
    *CUT_OFF,
    *CISTERN,
    *RUNNING,
    *RATINGS,
    *ACCEPTANCE,
    *EARTH,
    *TAPS,
    *SWITCH,
    *DIFFERENTIAL,
)
BOOSTED_RULES: Rules = (
    *BLADDER,
    *CUT_OFF,
    *BOOSTED,
    *RUNNING,
    *RATINGS,
    *ACCEPTANCE,
    *EARTH,
    *TAPS,
    *SWITCH,
    *DIFFERENTIAL,
)
