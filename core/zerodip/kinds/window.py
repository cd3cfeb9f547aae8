"""A picture of two curves against voltage with the window between them, for a pump that is driven
by a battery."""

from dataclasses import dataclass
from typing import Literal

from zerodip.kinds.charts import Grip, Mark

__all__ = ["Window", "WindowPoint"]


@dataclass(frozen=True, kw_only=True)
class WindowPoint:
    """At one voltage (V): the pump's dead-head and its running pressure at the smallest outlet, Pa
    gauge."""

    volts: float
    dead_head_gauge_pa: float
    running_gauge_pa: float


@dataclass(frozen=True, kw_only=True)
class Window:
    """The points over a span of voltages; between `least_v` and `most_v` cut-out must lie above
    `low` and below `high` (Pa gauge; without the gauge's error at the curves themselves). `verdict`
    says what this cut-out does."""

    type: Literal["window"] = "window"
    points: tuple[WindowPoint, ...]
    least_v: float
    most_v: float
    nominal_v: float
    low_gauge_pa: float
    high_gauge_pa: float
    has_window: bool
    cut_out_gauge_pa: float
    cut_in_gauge_pa: float
    pre_charge_gauge_pa: float | None
    outlet: str
    caption: str
    marks: tuple[Mark, ...]
    grips: dict[str, Grip]
    gauge_most_pa: float
