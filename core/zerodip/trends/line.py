"""A straight line through readings over time; what a tank loses between visits, and when it has
lost too much.

Times in years, values in any one unit; every reading has the same standard deviation. Source:
ordinary least squares; the interval of a crossing is Fieller's (E. C. Fieller, "Some problems in
interval estimation", J. R. Stat. Soc. B, 1954; from memory).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["NINETY", "Crossing", "Line", "falls_to", "fit", "losses"]

NINETY = 1.6449  # standard deviations of a normal distribution that hold nine in ten


@dataclass(frozen=True)
class Line:
    """`value` at `middle` (year), `slope` per year and its standard deviation."""

    middle: float
    value: float
    slope: float
    slope_sd: float

    @property
    def sure(self) -> bool:
        """Whether it goes one way at nine in ten."""
        return abs(self.slope) > NINETY * self.slope_sd


@dataclass(frozen=True)
class Crossing:
    """In how many years a falling value meets a limit: likeliest, and at nine in ten between; None:
    never, or not to be told."""

    likely: float | None
    earliest: float | None
    latest: float | None


def fit(years: Sequence[float], values: Sequence[float], reading_sd: float) -> Line | None:
    """The least-squares line; None with fewer than two readings at different times. The spread of a
    reading is taken as at least `reading_sd`, more where four or more readings scatter more about
    the line.

    Args:
        years: When each value was read, years.
        values: The values, as many as years.
        reading_sd: Standard deviation of a reading, in the value's unit, 0 or more.

    Returns:
        The line; None with too few readings.
    """
    count = len(years)
    if count < 2:
        return None
    middle, value = math.fsum(years) / count, math.fsum(values) / count
    width = math.fsum((year - middle) ** 2 for year in years)
    if width < 1e-9:
        return None
    together = [(year - middle) * (v - value) for year, v in zip(years, values, strict=True)]
    slope = math.fsum(together) / width
    scatter = math.fsum(
        (v - value - slope * (year - middle)) ** 2 for year, v in zip(years, values, strict=True)
    )
    seen = math.sqrt(scatter / (count - 2)) if count >= 4 else 0.0
    return Line(middle, value, slope, max(reading_sd, seen) / math.sqrt(width))


def losses(
    spans: Sequence[float], lost: Sequence[float], reading_sd: float
) -> tuple[float, float] | None:
    """Loss per year and its standard deviation from what was lost over each span (years) between a
    value left and the value found next: least squares through nothing lost in no time. Each loss is
    the difference of two readings. None without a span.

    Args:
        spans: Years from a value left to the value found next, each above 0.
        lost: What was lost over each span, in the value's unit.
        reading_sd: Standard deviation of a reading, in the value's unit, 0 or more.

    Returns:
        Loss per year and its standard deviation; None without a span.
    """
    width = math.fsum(span**2 for span in spans)
    if width < 1e-9:
        return None
    rate = math.fsum(span * loss for span, loss in zip(spans, lost, strict=True)) / width
    scatter = math.fsum((loss - rate * span) ** 2 for span, loss in zip(spans, lost, strict=True))
    seen = math.sqrt(scatter / (len(spans) - 1)) if len(spans) >= 3 else 0.0
    return rate, max(math.sqrt(2) * reading_sd, seen) / math.sqrt(width)


def falls_to(value: float, limit: float, reading_sd: float, rate: tuple[float, float]) -> Crossing:
    """When a value left (read with `reading_sd`) has fallen to `limit` at `rate` (per year, mean
    and standard deviation). Already there: at once. A rate that may be nothing at nine in ten has
    no latest time.

    Args:
        value: The value left.
        limit: The value at which it counts as fallen, in the same unit.
        reading_sd: Standard deviation of a reading, in the value's unit, 0 or more.
        rate: Loss per year: mean and standard deviation, in the same unit.

    Returns:
        When: likely, earliest and latest.
    """
    room, (mean, sd) = value - limit, rate
    if room <= 0:
        return Crossing(0.0, 0.0, 0.0)
    a = mean**2 - (NINETY * sd) ** 2
    b, c = mean * room, room**2 - (NINETY * reading_sd) ** 2
    inside = b * b - a * c
    likely = room / mean if mean > 0 else None
    if inside < 0:
        return Crossing(likely, None, None)
    if c <= 0:
        return Crossing(likely, 0.0, (b + math.sqrt(inside)) / a if a > 0 and mean > 0 else None)
    # Written so that it holds for a = 0 too.
    earliest = c / (b + math.sqrt(inside)) if b + math.sqrt(inside) > 0 else None
    return Crossing(likely, earliest, (b + math.sqrt(inside)) / a if a > 0 and mean > 0 else None)
