"""Gauges that a crew owns: what their grade lets them be wrong by, and when they were last checked.

Source of the grades: ASME B40.100 (from memory). A check every year: common practice, no source.
"""

from dataclasses import dataclass
from typing import Literal

from zerodip.fileformat.fields import Checked, choice, quantity, words
from zerodip.units import PSI

__all__ = ["GRADES", "GaugeSpec", "check_state", "error_pa", "grade_error_pa"]

# Per cent of the span that a gauge may be off by, within the middle half of the scale and beyond
# it.
GRADES = {
    "4A": (0.1, 0.1),
    "3A": (0.25, 0.25),
    "2A": (0.5, 0.5),
    "1A": (1.0, 1.0),
    "A": (1.0, 2.0),
    "B": (2.0, 3.0),
    "C": (3.0, 4.0),
    "D": (5.0, 5.0),
}
READS = ("system", "air")
CheckState = Literal["never", "overdue", "soon", "good"]
_YEAR_DAYS, _SOON_DAYS = 365, 30


@dataclass(frozen=True, kw_only=True)
class GaugeSpec(Checked):
    """A gauge: what it is called, what it reads (the system, or air at the valve), the end of its
    scale, its grade, and what it is known to show too little by."""

    name: str = words("Name", 40)
    reads: str = choice("Reads", READS, default="system")
    scale_gauge_pa: float = quantity("End of the scale", "pressure", 5 * PSI, 6000 * PSI)
    grade: str = choice("Grade", GRADES, default="B")
    low_pa: float = quantity("Shows too little by", "pressure", -70e3, 70e3, default=0.0)


def error_pa(gauge: GaugeSpec, least_gauge_pa: float, most_gauge_pa: float) -> float:
    """What the gauge may be off by between two pressures (Pa gauge): by its grade, the worse of
    them where they leave the middle half of the scale."""
    return grade_error_pa(gauge.grade, gauge.scale_gauge_pa, least_gauge_pa, most_gauge_pa)


def grade_error_pa(grade: str, span_pa: float, least_pa: float, most_pa: float) -> float:
    """What a gauge of a grade may be off by between two places of its scale.

    Args:
        grade: The grade, one of `GRADES`.
        span_pa: How wide its scale is, Pa, above 0.
        least_pa: The lower place, Pa above the scale's beginning.
        most_pa: The upper place.

    Returns:
        The most that it may be off by, Pa: the worse of both where they leave the middle half.
    """
    middle, outside = GRADES[grade]
    inside = 0.25 * span_pa <= least_pa and most_pa <= 0.75 * span_pa
    return (middle if inside else outside) / 100 * span_pa


def check_state(days_since: int | None) -> CheckState:
    """How a gauge's own check stands: "never", "overdue", "soon" (within thirty days) or "good"."""
    if days_since is None:
        return "never"
    return (
        "overdue"
        if days_since > _YEAR_DAYS
        else "soon"
        if days_since > _YEAR_DAYS - _SOON_DAYS
        else "good"
    )
