"""A set-point switch to be calibrated, and the reference gauge it is held against.

Pressures are gauge, below 0 for vacuum: a rising vacuum is a falling pressure. The lower point
comes first."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, flag, parts, quantity, words
from zerodip.gauges import GRADES, grade_error_pa
from zerodip.units import SCALES

__all__ = [
    "ACTS",
    "APART",
    "MEDIA",
    "MOST_PA",
    "VACUUM_PA",
    "BenchDevice",
    "Reference",
    "SetPoint",
    "reading_faults",
]

# A scale is marked to 30 inHg or 15 psi of vacuum, and under a high barometer that much is there:
# the highest at sea level stood at 1084.8 hPa (from memory).
VACUUM_PA, MOST_PA = -108_480.0, 1e8
ACTS = ("rising", "falling")
MEDIA = ("air", "inert gas", "fuel gas", "water", "oil", "steam", "oxygen", "other")
_PAST = 0.1  # of a scale, by which a pointer or a display may stand beyond its end
APART = 0.03  # of the range, that the upper point lies above the lower at least: common practice


def _unit() -> Any:
    return choice("Marked in", tuple(SCALES), default=None)


def _pressure(title: str, default: Any = None) -> Any:
    return quantity(title, "pressure", VACUUM_PA, MOST_PA, default=default)


def _difference(title: str, default: Any = None) -> Any:
    return quantity(title, "pressure", 0.0, MOST_PA, default=default)


@dataclass(frozen=True, kw_only=True)
class SetPoint(Checked):
    """One set point: where it acts (Pa gauge), on which way of the pressure, how far off it may be
    (Pa, or a share of the range; one of both), and its deadband: what is wanted of one that can be
    adjusted, the most that a fixed one may have."""

    gauge_pa: float = quantity("Set point", "pressure", VACUUM_PA, MOST_PA)
    acts: str = choice("Acts on", ACTS)
    tolerance_pa: float | None = quantity("Tolerance", "pressure", 1.0, MOST_PA, default=None)
    tolerance_share: float | None = quantity(
        "Tolerance of the range", "share", 1e-4, 0.2, default=None
    )
    deadband: str = choice("Deadband is", ("fixed", "adjustable"), default="fixed")
    deadband_pa: float | None = _difference("Deadband")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """One tolerance is given; an adjustable deadband is wanted to be something."""
        given = [values.get(name) is not None for name in ("tolerance_pa", "tolerance_share")]
        if sum(given) != 1:
            says = "is wanted once: as a pressure, or as a share of the range."
            yield Fault(path="tolerance_pa", code="one_of", title="Tolerance", says=says)
        if values.get("deadband") == "adjustable" and values.get("deadband_pa") is None:
            says = "is wanted where it can be adjusted."
            yield Fault(path="deadband_pa", code="missing", title="Deadband", says=says)

    @property
    def rises(self) -> bool:
        """Whether it acts on rising pressure."""
        return self.acts == "rising"


@dataclass(frozen=True, kw_only=True)
class BenchDevice(Checked):
    """A switch: its plates, the unit it is marked in (None: in whatever its reader uses), its range
    (Pa gauge), its points, what it guards and how often it is calibrated."""

    name: str = words("Name", 60)
    tag_number: str = words("Tag", 40, default="")
    plate: str = words("Plate", 120, default="")
    location: str = words("Location", 80, default="")
    guards: str = words("Guards", 80, default="")
    medium: str = choice("Medium", MEDIA, default="other")
    hazardous: bool | None = flag("Hazardous area")
    unit: str | None = _unit()
    low_gauge_pa: float = _pressure("Range from", 0.0)
    high_gauge_pa: float = quantity("Range to", "pressure", VACUUM_PA, MOST_PA)
    points: tuple[SetPoint, ...] = parts("Set points", SetPoint, 1, 2)
    interval_months: float = quantity("Calibrated every, months", "number", 1, 120, default=12.0)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """The range goes up, points lie in it with their deadbands, the upper clear of the
        lower."""
        low, high = values.get("low_gauge_pa") or 0.0, values.get("high_gauge_pa")
        if high is None:
            return
        if not low < high:
            yield Fault(
                path="high_gauge_pa",
                code="order",
                title="Range to",
                says="must lie above its from.",
            )
            return
        points = values.get("points") or ()
        for at, point in enumerate(points):
            yield from _outside(point, f"points.{at}", low, high)
        for lower, upper in pairwise(points):
            yield from _too_near(lower.gauge_pa, upper.gauge_pa, high - low)

    def told_in(self, units: str) -> str:
        """In what its papers are told to whoever uses `units`: what it is marked in comes first."""
        return self.unit or units

    @property
    def span_pa(self) -> float:
        """How wide its range is, Pa."""
        return self.high_gauge_pa - self.low_gauge_pa

    @property
    def vacuum(self) -> bool:
        """Whether any of its range is a vacuum."""
        return self.low_gauge_pa < 0

    def tolerance_pa(self, at: int) -> float:
        """How far a point may be off either way, Pa."""
        point = self.points[at]
        return point.tolerance_pa or (point.tolerance_share or 0.0) * self.span_pa


def reading_faults(
    gauge_pa: float, device: BenchDevice, reference: "Reference", path: str, title: str
) -> Iterable[Fault]:
    """Whether a pressure can have been read: it lies on the reference's scale, or little beyond its
    ends, and is no pressure where a switch knows only vacuum (its minus was forgotten).

    Args:
        gauge_pa: What was read, Pa gauge.
        device: The switch.
        reference: The reference.
        path: Path of the value.
        title: What it is called.

    Yields:
        What speaks against it.
    """
    past = _PAST * (reference.high_gauge_pa - reference.low_gauge_pa)
    if not reference.low_gauge_pa - past <= gauge_pa <= reference.high_gauge_pa + past:
        says = "does not lie on the reference's scale: look again."
        yield Fault(path=path, code="off_scale", title=title, says=says)
    elif device.high_gauge_pa <= 0 and gauge_pa > device.high_gauge_pa + _PAST * device.span_pa:
        says = "is above 0, which this switch never sees: a vacuum is written with a minus."
        yield Fault(path=path, code="no_vacuum", title=title, says=says)


def _outside(point: SetPoint, path: str, low: float, high: float) -> Iterable[Fault]:
    if not low <= point.gauge_pa <= high:
        yield Fault(
            path=f"{path}.gauge_pa",
            code="outside",
            title="Set point",
            value=point.gauge_pa,
            least=low,
            most=high,
            dimension="pressure",
        )
        return
    room = point.gauge_pa - low if point.rises else high - point.gauge_pa
    if (point.deadband_pa or 0.0) > room:
        yield Fault(
            path=f"{path}.deadband_pa",
            code="outside",
            title="Deadband",
            says="reaches out of the range: the point could not reset.",
        )


def _too_near(lower: float, upper: float, span: float) -> Iterable[Fault]:
    if upper - lower < APART * span * (1 - 1e-9):
        says = f"must lie at least {APART:.0%} of the range above the lower one."
        yield Fault(path="points.1.gauge_pa", code="too_near", title="Upper set point", says=says)


@dataclass(frozen=True, kw_only=True)
class Reference(Checked):
    """The gauge that is taken for right: the unit it is marked in (None: as the switch), its scale
    (Pa gauge), what its grade or its certificate (expanded, k = 2) lets it be off by, the finest
    that is read off it, and until when its own certificate holds (a date). `overruled` is why it is
    used though it should not be."""

    name: str = words("Reference", 60)
    serial: str = words("Serial number", 40, default="")
    unit: str | None = _unit()
    low_gauge_pa: float = _pressure("Scale from", 0.0)
    high_gauge_pa: float = quantity("Scale to", "pressure", VACUUM_PA, MOST_PA)
    grade: str | None = choice("Grade", tuple(GRADES), default=None)
    expanded_pa: float | None = quantity(
        "Uncertainty by its certificate", "pressure", 0.1, MOST_PA, default=None
    )
    resolution_pa: float = quantity("Finest reading", "pressure", 0.01, MOST_PA)
    due: str = words("Its certificate holds until", 10, default="")
    overruled: str = words("Used all the same, because", 200, default="")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """Its scale goes up, and how far it may be off is known."""
        high = values.get("high_gauge_pa")
        if high is not None and not (values.get("low_gauge_pa") or 0.0) < high:
            yield Fault(
                path="high_gauge_pa",
                code="order",
                title="Scale to",
                says="must lie above its from.",
            )
        if values.get("grade") is None and values.get("expanded_pa") is None:
            says = "is wanted, or the uncertainty by its certificate."
            yield Fault(path="grade", code="missing", title="Grade", says=says)

    def told_in(self, device: BenchDevice, units: str) -> str:
        """In what a calibration against it is told, as it is read off: what it is marked in, else
        what the switch is, else the reader's `units`."""
        return self.unit or device.told_in(units)

    def off_pa(self, gauge_pa: float) -> float:
        """By its grade: the most that it may be off at a pressure, Pa."""
        at = gauge_pa - self.low_gauge_pa
        span = self.high_gauge_pa - self.low_gauge_pa
        return grade_error_pa(self.grade or "D", span, at, at)
