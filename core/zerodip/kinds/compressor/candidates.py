"""The settings worth trying on a compressor, and what speaks for them."""

from collections.abc import Iterable

from zerodip.kinds.compressor.figures import CompressorFigures as C
from zerodip.kinds.compressor.limits import LIMITS
from zerodip.kinds.key_presses import down, settings_at, up
from zerodip.kinds.limits import lowest_limit
from zerodip.kinds.settings import Settings
from zerodip.units import PSI

__all__ = ["USUAL_PSI", "candidates", "floor_pa", "keeps"]

USUAL_PSI = ((95, 120), (100, 135))
_GAPS_PA = tuple(psi * PSI for psi in (20, 25, 30, 35))
_STEP_PA = 1 * PSI  # cut-out is set in whole steps: so much may be lost below a limit
_LOWER_PA = tuple(psi * PSI for psi in (0, 5, 10, 15))


def floor_pa(figures: C) -> float:
    """The cut-in that must be kept for the pressure that the tools need; today's where that cannot
    be told, but no higher than the limits leave room for.

    Args:
        figures: The system's figures under its settings.

    Returns:
        Cut-in, Pa gauge.
    """
    if figures.wanted_air_pa is not None:
        return figures.wanted_air_pa
    limit = lowest_limit(LIMITS, figures)
    if limit is None:
        return figures.cut_in_pa
    gap = figures.differential_pa if figures.one_screw else figures.least_usual_differential_pa
    return min(figures.cut_in_pa, limit - gap - _STEP_PA)


def candidates(figures: C, units: str) -> Iterable[Settings]:
    """Bands under the lowest limit, the usual ones, and those that begin where the tools need it.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        Settings worth trying.
    """
    limit = lowest_limit(LIMITS, figures)
    tops = [figures.cut_out_pa, *(out * PSI for _, out in USUAL_PSI)]
    if limit is not None:
        tops += [down(limit - lower, units) for lower in _LOWER_PA]
    gaps = (figures.differential_pa,) if figures.one_screw else (*_GAPS_PA, figures.differential_pa)
    for top in tops:
        for gap in gaps:
            yield from settings_at(top - gap, top, None)
    if figures.wanted_air_pa is not None:
        low = up(figures.wanted_air_pa, units)
        for gap in gaps:
            yield from settings_at(low, low + gap, None)


def keeps(figures: C, kept: bool, floor: str) -> str:
    """What the tools get, as a template.

    Args:
        figures: The system's figures under its settings.
        kept: Whether the wanted pressure is kept.
        floor: The cut-in that is not lowered, in words.

    Returns:
        The text, a template; empty for nothing.
    """
    if figures.wanted_air_pa is None:
        return ""
    said = f"The tools get {C.cut_in_pa} at least; they need {C.wanted_air_pa}."
    return said if kept else f"{said} No setting within the limits keeps it."
