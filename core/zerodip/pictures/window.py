"""The picture of a tankless pump: dead-head and running pressure against voltage, and the window between them."""

from dataclasses import dataclass

from ..facts import TanklessFacts
from ..pumps.demand import running_gauge_pa
from ..units import PSI, Shown
from .parts import Grip, Mark, band_grips, marks_of

__all__ = ["Window", "WindowPoint", "window"]

_POINTS = 13


@dataclass(frozen=True, kw_only=True)
class WindowPoint:
    """At one voltage (V): the pump's dead-head and its running pressure at the smallest outlet, Pa gauge."""

    volts: float
    dead_head_gauge_pa: float
    running_gauge_pa: float


@dataclass(frozen=True, kw_only=True)
class Window:
    """The points over a span of voltages; between `least_v` and `most_v` cut-out must lie above `low` and below `high`
    (Pa gauge; without the gauge's error at the curves themselves). `verdict` says what this cut-out does."""

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


def window(facts: TanklessFacts, f: Shown) -> Window:
    """The window of one tankless pump under its settings, worded in the units of `f`."""
    span = max(facts.most_v - facts.least_v, 0.05 * facts.nominal_v)
    low, high = facts.least_v - 0.15 * span, facts.most_v + 0.15 * span
    points = tuple(_point(facts, low + (high - low) * k / (_POINTS - 1)) for k in range(_POINTS))
    marks = marks_of(
        [
            (
                "switch",
                "switch",
                facts.switch_most_out_pa,
                "Held at the switch's range, {f.switch_most_out_pa:pressure}.",
            )
        ],
        f,
    )
    grips = band_grips(facts, marks)
    if facts.bank is not None:
        grips["pre_charge"] = _air_grip(facts)
    return Window(
        points=points,
        least_v=facts.least_v,
        most_v=facts.most_v,
        nominal_v=facts.nominal_v,
        low_gauge_pa=facts.window_low_pa,
        high_gauge_pa=facts.window_high_pa,
        has_window=facts.has_window,
        cut_out_gauge_pa=facts.cut_out_pa,
        cut_in_gauge_pa=facts.cut_in_pa,
        pre_charge_gauge_pa=facts.pre_charge_pa if facts.bank else None,
        outlet=facts.smallest.name or "smallest outlet",
        caption=_caption(facts, f),
        marks=tuple(marks),
        grips=grips,
        gauge_most_pa=max(points[-1].dead_head_gauge_pa, facts.cut_out_pa + 5 * PSI),
    )


def _point(facts: TanklessFacts, volts: float) -> WindowPoint:
    running = running_gauge_pa(facts.curve, facts.smallest_k, volts)
    return WindowPoint(volts=volts, dead_head_gauge_pa=facts.curve.dead_head_gauge_pa(volts), running_gauge_pa=running)


def _caption(facts: TanklessFacts, f: Shown) -> str:
    if facts.has_window:
        return f"Cut-out between {f.window_low_pa:pressure} and {f.window_high_pa:pressure}."
    return (
        f"No cut-out works: the smallest outlet runs at {f.running_pa:pressure} on {f.most_v:voltage}, the pump stands at "
        f"{f.dead_head_pa:pressure} on {f.least_v:voltage}."
    )


def _air_grip(facts: TanklessFacts) -> Grip:
    return Grip(
        least_gauge_pa=0.0,
        most_gauge_pa=facts.cut_out_pa,
        least_reason="No air but the atmosphere's.",
        most_reason="Above cut-out the accumulator does nothing.",
    )
