"""The system's figures at the points that a visit read."""

from dataclasses import replace

from zerodip.errors import InvalidInput
from zerodip.fileformat.document import Document
from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Settings
from zerodip.visit.summary import Points

__all__ = ["figures_at", "figures_stood", "settings_at"]


def settings_at(document: Document, points: Points) -> Settings | None:
    """Settings that keep the switch as it was found: both points as read, and the pre-charge read
    or, where it was not, the one set.

    Args:
        document: The system's file.
        points: The points read.

    Returns:
        The settings; None where a point was not read, or they make no possible settings.
    """
    stood = figures_stood(document, points)
    return None if stood is None else stood.settings


def figures_at(document: Document, points: Points, whole: bool = False) -> Figures | None:
    """The system at the points read; those not read are as set, or nothing is told where the
    `whole` is asked for.

    Args:
        document: The system's file.
        points: The points read.
        whole: Whether all of them must have been read.

    Returns:
        The figures; None where the points make no possible settings, or are not all there.
    """
    air_read = points.pre_charge_gauge_pa is not None
    if whole and document.settings.pre_charge_gauge_pa is not None and not air_read:
        return None
    return figures_stood(document, points) if whole else _made(document, points)


def figures_stood(of: Document | Figures, points: Points) -> Figures | None:
    """The system as it stood when its points were read; a pre-charge not read is as set.

    Args:
        of: The system's file, or its figures.
        points: The points read.

    Returns:
        The figures; None where a point was not read, or they make no possible settings.
    """
    if None in (points.cut_in_gauge_pa, points.cut_out_gauge_pa):
        return None
    return _made(of, points)


def _made(of: Document | Figures, points: Points) -> Figures | None:
    try:
        return figures_for(of.system, _at(of.settings, points), of.practice)
    except InvalidInput:
        return None


def _at(settings: Settings, points: Points) -> Settings:
    """The settings with the points that were read. A system that is set without a pre-charge stays
    so."""
    charge = None if settings.pre_charge_gauge_pa is None else points.pre_charge_gauge_pa
    return replace(
        settings,
        cut_in_gauge_pa=_or(points.cut_in_gauge_pa, settings.cut_in_gauge_pa),
        cut_out_gauge_pa=_or(points.cut_out_gauge_pa, settings.cut_out_gauge_pa),
        pre_charge_gauge_pa=settings.pre_charge_gauge_pa if charge is None else charge,
    )


def _or(read: float | None, set_to: float) -> float:
    return set_to if read is None else read
