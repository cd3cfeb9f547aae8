"""The limits of a water system, listed once."""

from zerodip.kinds.limits import SWITCH_HIGH, SWITCH_LOW, LimitSpec, rating
from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.rules.sources import IPC_604_8, PUMP_LINE, practice

__all__ = ["LIMITS"]

_COUNTED = "Whatever the gauge is off by, the rating is not passed."
_ERROR = f"less {W.gauge_error_pa} for the gauge."

LIMITS = (
    rating(
        "relief",
        "relief",
        "relief valve",
        W.relief_pa,
        W.relief_allowed_pa,
        _COUNTED,
        source=practice("and codes"),
    ),
    rating("tank", "tank", "tank plate", W.tank_max_here_pa, W.tank_allowed_pa, _COUNTED),
    rating(
        "pipe", "pipe", "pipe's rating", W.pipe_max_pa, W.pipe_allowed_pa, _COUNTED, asked=False
    ),
    rating(
        "pump", "pump", "pump's rating", W.pump_max_pa, W.pump_allowed_pa, _COUNTED, asked=False
    ),
    SWITCH_HIGH,
    LimitSpec(
        id="dead-head",
        title="dead-head",
        bounds="cut_out",
        at=W.lowest_dead_head_pa,
        allowed=W.dead_head_limit_pa,
        reason=f"Held {W.dead_head_margin_pa} under dead-head, at {W.dead_head_limit_pa}.",
        source=PUMP_LINE,
        error_counted=False,
        error_why="The margin under dead-head is kept for the gauge too.",
    ),
    LimitSpec(
        id="fixtures",
        title="taps",
        bounds="cut_out",
        at=W.fixture_cut_out_pa,
        allowed=W.fixture_cut_out_pa,
        reason=f"Held at {W.fixture_limit_pa} at the lowest tap.",
        source=IPC_604_8,
        error_counted=False,
        error_why="A figure of the code, judged as the gauge is read.",
    ),
    LimitSpec(
        id="tap",
        title="top tap",
        bounds="cut_in",
        at=W.least_cut_in_pa,
        allowed=W.least_cut_in_pa,
        reason=f"The highest tap asks for {W.least_cut_in_pa}.",
        source=PUMP_LINE,
        error_counted=False,
        error_why="A wish for pressure, not a danger.",
        holds=False,
        lowest=True,
    ),
    SWITCH_LOW,
)
