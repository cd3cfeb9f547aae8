"""How far the differential may be widened: as far as every limit lets cut-out go, and no further
than is needed."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Generic, TypeVar

from zerodip.kinds.figures import Figures
from zerodip.kinds.key_presses import down, up
from zerodip.kinds.limits import LimitSpec, all_read, lowest_limit
from zerodip.rules.engine import exceeds
from zerodip.units import PSI, text

__all__ = ["Wider", "wider", "wider_says"]

F = TypeVar("F", bound=Figures)
_WORTH_PA = 1 * PSI  # nobody turns a nut for less
_TRIES = 3


@dataclass(frozen=True)
class Wider(Generic[F]):
    """The system with its cut-out raised, and whether that is enough."""

    figures: F
    enough: bool


def wider(
    figures: F,
    limits: Iterable[LimitSpec],
    most_pa: float,
    short: Callable[[F], float],
    units: str,
) -> Wider[F] | None:
    """Cut-out raised, cut-in as it is, until nothing is short any more, or as far as is allowed.

    Args:
        figures: The system's figures under its settings.
        limits: The kind's limits, all of which have to be read.
        most_pa: The widest differential of the practice, Pa.
        short: How much is short with a differential, above 0; it falls as that is widened.
        units: Whole steps of the pressure unit of this unit system.

    Returns:
        The system so; None where nothing is short, no limit allows it, one is not read, or the
        differential is fixed.
    """
    listed = tuple(limits)
    widest = figures.most_differential_pa
    if figures.switch.nuts != "two" or widest is None or not all_read(listed, figures):
        return None
    widest = min(most_pa, widest)
    allowed = min(lowest_limit(listed, figures) or 0.0, figures.cut_in_pa + widest)
    top = down(allowed, units)
    if top < figures.cut_out_pa + _WORTH_PA:
        return None
    now, at_top = short(figures), short(_at(figures, top))
    if now <= 0 or at_top >= now:
        return None
    if at_top > 0:
        return Wider(_at(figures, top), False)
    # A straight line tells about where it is enough; then step by step, or as far as is allowed.
    cut_out = up(figures.cut_out_pa + (top - figures.cut_out_pa) * now / (now - at_top), units)
    for _ in range(_TRIES):
        if not exceeds(cut_out, top) and short(_at(figures, cut_out)) <= 0:
            return Wider(_at(figures, cut_out), True)
        cut_out = up(cut_out + _WORTH_PA, units)
    return Wider(_at(figures, top), True)


def _at(figures: F, cut_out_pa: float) -> F:
    return figures.varied({Figures.cut_out_pa: cut_out_pa})


def wider_says(to: Wider[F] | None, gives: str, units: str) -> str:
    """What widening does, in words; empty where it may not be.

    Args:
        to: How far it may be widened.
        gives: What that gives, in words.
        units: Unit system of the text: "us", "metric" or "kpa".

    Returns:
        A sentence, or nothing.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    if to is None:
        return ""
    differential, cut_out = (
        text(pa, "pressure", units) for pa in (to.figures.differential_pa, to.figures.cut_out_pa)
    )
    if to.enough:
        return (
            f"Or widen the differential to {differential}, cut-out {cut_out}: every limit allows"
            f" it, and it gives {gives}."
        )
    return (
        f"Widening the differential is not enough: as far as every limit allows, {differential},"
        f" cut-out {cut_out}, it gives {gives}."
    )
