"""The dial of a gauge that is read from afar: its scale, the band wanted, the air, and the limits
over which it alarms."""

from dataclasses import dataclass

from zerodip.fileformat.document import Document
from zerodip.kinds.limits import limits_of
from zerodip.kinds.registry import kind_of
from zerodip.text.writer import Writer
from zerodip.units import from_si, to_si, unit_for

__all__ = ["Dial", "DialLimit", "dial_of"]

_ROOM = 1.15  # of what stands on the dial, that its scale ends beyond


@dataclass(frozen=True, kw_only=True)
class DialLimit:
    """A pressure that must not be passed (Pa gauge, as the gauge shows it), and what it is."""

    title: str
    gauge_pa: float


@dataclass(frozen=True, kw_only=True)
class Dial:
    """A dial, in Pa gauge as the gauge shows it: the end of its scale, cut-in and cut-out as
    decided, the pre-charge (None without one), the limits, the lowest first. It alarms over the
    first of them."""

    most_gauge_pa: float
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    pre_charge_gauge_pa: float | None
    limits: tuple[DialLimit, ...]


def dial_of(document: Document, units: str, low_pa: float) -> Dial:
    """The dial of a visit's gauge.

    Args:
        document: The system's file.
        units: Unit system, for the steps of the scale: "us", "metric" or "kpa".
        low_pa: What the gauge shows too little by, Pa.

    Returns:
        The dial.
    """
    figures, settings = document.figures(), document.settings
    limits = sorted(
        (
            DialLimit(title=each.title, gauge_pa=each.gauge_pa - low_pa)
            for each in limits_of(kind_of(figures).limits, figures, Writer(figures, units))
            if each.bounds == "cut_out" and each.hurts and not each.lowest
        ),
        key=lambda limit: limit.gauge_pa,
    )
    charge = settings.pre_charge_gauge_pa
    shown = [settings.cut_out_gauge_pa, *(each.gauge_pa for each in limits[:1])]
    return Dial(
        most_gauge_pa=_end(_ROOM * max(shown), units),
        cut_in_gauge_pa=settings.cut_in_gauge_pa - low_pa,
        cut_out_gauge_pa=settings.cut_out_gauge_pa - low_pa,
        pre_charge_gauge_pa=None if charge is None else charge - low_pa,
        limits=tuple(limits),
    )


def _end(pa: float, units: str) -> float:
    """The next end of a usual scale."""
    unit = unit_for("pressure", units).id
    wanted = from_si(pa, unit)
    power = 10.0 ** (len(str(int(max(wanted, 1)))) - 1)
    ends = (power * each for each in (1, 1.6, 2, 3, 4, 6, 10, 16))
    return to_si(next(end for end in ends if end >= wanted), unit)
