"""The limits of a compressor and its receivers, listed once."""

from zerodip.kinds.compressor.figures import CompressorFigures as C
from zerodip.kinds.limits import RATING, SWITCH_HIGH, SWITCH_LOW, LimitSpec, rating
from zerodip.rules.sources import practice

__all__ = ["LIMITS"]

_COUNTED = "Whatever the gauge is off by, the plate is not passed at the click."
_ERROR = f"less {C.gauge_error_pa} for the gauge."

LIMITS = (
    rating(
        "receiver", "plate", "receiver plate", C.receiver_max_pa, C.receiver_allowed_pa, _COUNTED
    ),
    LimitSpec(
        id="compressor",
        title="pump",
        bounds="cut_out",
        at=C.compressor_max_pa,
        allowed=C.compressor_allowed_pa,
        reason=f"Held at the compressor's {C.compressor_max_pa}, {_ERROR}",
        source=RATING,
        error_counted=True,
        error_why=_COUNTED,
        hurts=True,
    ),
    rating(
        "valve",
        "valve",
        "safety valve",
        C.relief_pa,
        C.valve_allowed_pa,
        _COUNTED,
        source=practice("and codes"),
    ),
    LimitSpec(
        id="relief",
        title="valve − 10 %",
        bounds="cut_out",
        at=C.relief_limit_pa,
        allowed=C.relief_allowed_pa,
        reason=f"Held a tenth below the safety valve, {C.relief_pa}, {_ERROR}",
        source=practice("10 % below the valve, so that it does not weep"),
        error_counted=True,
        error_why="A valve weeps by the true pressure.",
    ),
    SWITCH_HIGH,
    SWITCH_LOW,
)
