"""The settings worth trying on a tankless pump, and what speaks for them."""

from collections.abc import Iterable

from zerodip.kinds.key_presses import down, settings_at, up
from zerodip.kinds.settings import Settings
from zerodip.kinds.tankless.figures import TanklessFigures as T
from zerodip.units import PSI

__all__ = ["candidates", "preference", "why"]


def candidates(figures: T, units: str) -> Iterable[Settings]:
    """Cut-outs under the dead-head of the lowest voltage and within the window; an accumulator a
    little below cut-in.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        Settings worth trying.
    """
    high = figures.window_high_pa
    tops = [down(high - k * 3 * PSI, units) for k in range(4)]
    if figures.has_window:
        tops += [down(figures.window_mid_pa, units), up(figures.window_low_pa, units)]
    for top in tops:
        for gap in dict.fromkeys((figures.differential_pa, *_gaps_pa(figures))):
            air = figures.settings.pre_charge_gauge_pa
            if figures.bank is not None:
                air = max(down(top - gap - 2 * PSI, units), 0.0)
            yield from settings_at(top - gap, top, air)


def _gaps_pa(figures: T) -> tuple[float, ...]:
    """Differentials worth trying; wider ones where it pulses anyway, if the switch has them."""
    if figures.switch.nuts != "two":
        return ()
    return (10 * PSI,) if figures.has_window else (10 * PSI, 15 * PSI, 20 * PSI)


def preference(figures: T) -> float:
    """With a window: how far cut-out lies inside it (kPa); without one, how slowly it pulses (per
    minute, negative).

    Args:
        figures: The system's figures under its settings.

    Returns:
        More is better.
    """
    if not figures.has_window:
        return -round(60 * figures.pulses_per_s, 1)
    inside = min(
        figures.cut_out_pa - figures.window_low_pa, figures.window_high_pa - figures.cut_out_pa
    )
    return round(inside / 1e3)


def why(figures: T) -> str:
    """How cut-out lies in the window, as a template.

    Args:
        figures: The system's figures under its settings.

    Returns:
        The text, a template.
    """
    if figures.has_window:
        inside = figures.window_low_pa <= figures.cut_out_pa <= figures.window_high_pa
        where = "inside" if inside else "outside"
        return f"Cut-out is {where} the window, {T.window_low_pa} to {T.window_high_pa}."
    if figures.bank:
        return (
            "This one still stops on the lowest voltage; a bigger"
            " accumulator, a larger outlet or a steadier voltage slows the pulses, now"
            f" {T.pulses_per_s}."
        )
    return (
        "This one still stops on the lowest voltage; a small"
        " accumulator, a larger outlet or a steadier voltage would help: see the sizes."
    )
