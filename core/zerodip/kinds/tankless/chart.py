"""The picture of a tankless pump: dead-head and running pressure against voltage, and the window
between them."""

from collections.abc import Sequence

from zerodip.kinds.charts import Grip, band_grips, marks_of
from zerodip.kinds.limits import Limit
from zerodip.kinds.tankless.figures import TanklessFigures as T
from zerodip.kinds.window import Window, WindowPoint
from zerodip.physics.demand_pump import running_gauge_pa
from zerodip.text.writer import Writer
from zerodip.units import PSI

__all__ = ["window"]

_POINTS = 13


def window(figures: T, limits: Sequence[Limit], write: Writer) -> Window:
    """The window of one tankless pump under its settings, worded in the units of `write`.

    Args:
        figures: The system's figures under its settings.
        limits: The system's limits.
        write: Writes figures in the units asked for.

    Returns:
        The window.
    """
    span = max(figures.most_v - figures.least_v, 0.05 * figures.nominal_v)
    low, high = figures.least_v - 0.15 * span, figures.most_v + 0.15 * span
    points = tuple(_point(figures, low + (high - low) * k / (_POINTS - 1)) for k in range(_POINTS))
    marks = marks_of(limits)
    grips = band_grips(figures, marks)
    if figures.bank is not None:
        grips["pre_charge"] = _air_grip(figures)
    return Window(
        points=points,
        least_v=figures.least_v,
        most_v=figures.most_v,
        nominal_v=figures.nominal_v,
        low_gauge_pa=figures.window_low_pa,
        high_gauge_pa=figures.window_high_pa,
        has_window=figures.has_window,
        cut_out_gauge_pa=figures.cut_out_pa,
        cut_in_gauge_pa=figures.cut_in_pa,
        pre_charge_gauge_pa=figures.pre_charge_pa if figures.bank else None,
        outlet=figures.smallest.name or "smallest outlet",
        caption=_caption(figures, write),
        marks=marks,
        grips=grips,
        gauge_most_pa=max(points[-1].dead_head_gauge_pa, figures.cut_out_pa + 5 * PSI),
    )


def _point(figures: T, volts: float) -> WindowPoint:
    running = running_gauge_pa(figures.curve, figures.smallest_k, volts)
    return WindowPoint(
        volts=volts,
        dead_head_gauge_pa=figures.curve.dead_head_gauge_pa(volts),
        running_gauge_pa=running,
    )


def _caption(figures: T, write: Writer) -> str:
    if figures.has_window:
        return write.fill(f"Cut-out between {T.window_low_pa} and {T.window_high_pa}.")
    return write.fill(
        f"No cut-out works: the smallest outlet runs at {T.running_pa} on {T.most_v}, the pump"
        f" stands at {T.dead_head_pa} on {T.least_v}."
    )


def _air_grip(figures: T) -> Grip:
    return Grip(
        least_gauge_pa=0.0,
        most_gauge_pa=figures.cut_out_pa,
        least_reason="No air but the atmosphere's.",
        most_reason="Above cut-out the accumulator does nothing.",
    )
