"""The limits of a tankless pump, listed once."""

from zerodip.kinds.limits import SWITCH_HIGH, SWITCH_LOW, LimitSpec, rating
from zerodip.kinds.tankless.figures import TanklessFigures as T
from zerodip.rules.sources import AFFINITY

__all__ = ["LIMITS"]

LIMITS = (
    rating(
        "accumulator",
        "accumulator",
        "accumulator's plate",
        T.accumulator_max_pa,
        T.accumulator_allowed_pa,
        "Whatever the gauge is off by, the plate is not passed.",
        there=lambda figures: figures.accumulator_m3 is not None,
    ),
    LimitSpec(
        id="dead-head",
        title="stands",
        bounds="cut_out",
        at=T.dead_head_pa,
        allowed=T.window_high_pa,
        reason=f"Above {T.window_high_pa} the pump never stops at {T.least_v}.",
        source=AFFINITY,
        error_counted=True,
        error_why="A pump that stands just under cut-out runs on until the battery is flat.",
        holds=False,
    ),
    SWITCH_HIGH,
    SWITCH_LOW,
)
