"""A calibration as a file: the switch, the reference, the runs as found and as left, the turns
between them, and calibrations of the past."""

import math
from collections.abc import Iterable, Mapping
from contextlib import suppress
from dataclasses import dataclass
from datetime import date
from typing import Any

from zerodip.bench.device import MOST_PA, VACUUM_PA, BenchDevice, Reference, reading_faults
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.fields import (
    Checked,
    choice,
    part,
    parts,
    quantity,
    read,
    specs,
    words,
)

__all__ = [
    "LOWER",
    "MAY_LACK",
    "POINTS",
    "UPPER",
    "BenchRun",
    "BenchTurn",
    "Calibration",
    "PastRow",
    "acted_at",
    "deadband_of",
    "read_calibration",
    "screw",
]

LOWER, UPPER = 0, 1
POINTS = ("lower", "upper")
MAY_LACK = ("turns", "left", "past")
_YEARS = range(1900, 2200)
SEEN_BY = ("lamp", "meter", "gauge")


def _pressure(title: str, default: Any = None) -> Any:
    return quantity(title, "pressure", VACUUM_PA, MOST_PA, default=default)


def _off(title: str) -> Any:
    return quantity(title, "pressure", -MOST_PA, MOST_PA, default=None)


def screw(name: str) -> Any:
    """Turns of a screw, clockwise positive."""
    return quantity(f"Turns of the {name} screw", "number", -40, 40, default=0.0)


@dataclass(frozen=True, kw_only=True)
class BenchRun(Checked):
    """One run up and down at a point: where it acted and where it reset (Pa gauge), how fast the
    pressure moved (Pa/s, None where nobody timed it), by what the change was seen, and for how long
    it may have gone unseen (s, None where that is usual)."""

    point: str = choice("Point", POINTS, default="lower")
    set_gauge_pa: float = quantity("Acted at", "pressure", VACUUM_PA, MOST_PA)
    reset_gauge_pa: float | None = _pressure("Reset at")
    rate_pa_s: float | None = quantity(
        "Rate of approach, in a second", "pressure", 0.0, 1e6, default=None
    )
    seen_by: str = choice("Seen by", SEEN_BY, default="lamp")
    delay_s: float | None = quantity("Seen within", "duration", 0.0, 60.0, default=None)

    @property
    def at(self) -> int:
        """Which of the points, `LOWER` or `UPPER`."""
        return POINTS.index(self.point)


@dataclass(frozen=True, kw_only=True)
class BenchTurn(Checked):
    """Turns of the screws of points and of deadbands (clockwise positive), and where both points
    acted afterwards."""

    lower: float = screw("lower")
    upper: float = screw("upper")
    lower_deadband: float = screw("lower deadband")
    upper_deadband: float = screw("upper deadband")
    lower_gauge_pa: float = quantity("Lower point then", "pressure", VACUUM_PA, MOST_PA)
    upper_gauge_pa: float | None = _pressure("Upper point then")


@dataclass(frozen=True, kw_only=True)
class PastRow(Checked):
    """A calibration of the past: its day, and by how much each point was off (Pa) as found and as
    left."""

    on: str = words("Day", 10)
    found_lower_pa: float | None = _off("Lower point off, as found")
    found_upper_pa: float | None = _off("Upper point off, as found")
    left_lower_pa: float | None = _off("Lower point off, as left")
    left_upper_pa: float | None = _off("Upper point off, as left")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """Its day is a date."""
        return _day_faults(values, "on", "Day")


@dataclass(frozen=True, kw_only=True)
class Calibration(Checked):
    """A calibration on a day. Without runs as left it was not adjusted, and as left is as found."""

    device: BenchDevice = part("Switch", BenchDevice)
    reference: Reference = part("Reference", Reference)
    on: str = words("Day", 10)
    found: tuple[BenchRun, ...] = parts("Runs as found", BenchRun, 1, 60)
    turns: tuple[BenchTurn, ...] = parts("Turns", BenchTurn, 0, 40)
    left: tuple[BenchRun, ...] = parts("Runs as left", BenchRun, 0, 60)
    past: tuple[PastRow, ...] = parts("Earlier calibrations", PastRow, 0, 60)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """Its day is a date; runs are of points that the switch has, and of each of them."""
        yield from _day_faults(values, "on", "Day")
        device = values.get("device")
        if device is None:
            return
        for name, title in (("found", "Runs as found"), ("left", "Runs as left")):
            yield from _run_faults(values.get(name) or (), name, title, len(device.points))

    @property
    def day(self) -> date:
        """Its day."""
        return date.fromisoformat(self.on)

    @property
    def as_left(self) -> tuple[BenchRun, ...]:
        """The runs as left; as found where nothing was adjusted."""
        return self.left or self.found


def acted_at(runs: Iterable[BenchRun], at: int) -> float | None:
    """Where a point acted in the mean of its runs.

    Args:
        runs: Runs of any points.
        at: Which point, `LOWER` or `UPPER`.

    Returns:
        The mean, Pa gauge; None without a run of it.
    """
    sets = [run.set_gauge_pa for run in runs if run.at == at]
    return math.fsum(sets) / len(sets) if sets else None


def deadband_of(device: BenchDevice, runs: Iterable[BenchRun]) -> float | None:
    """How wide a deadband is in the mean of its point's runs.

    Args:
        device: The switch.
        runs: Runs of the one point.

    Returns:
        The mean, Pa, below 0 where it resets beyond where it acts; None without a run that was read
        at both ends.
    """
    widths = [
        (run.set_gauge_pa - run.reset_gauge_pa) * (1 if device.points[run.at].rises else -1)
        for run in runs
        if run.reset_gauge_pa is not None
    ]
    return math.fsum(widths) / len(widths) if widths else None


def read_calibration(raw: Any) -> Calibration:
    """A calibration out of plain values.

    Args:
        raw: The file's object; "turns", "left" and "past" may be left out.

    Returns:
        The calibration.

    Raises:
        InvalidInput: With every fault, by field.
    """
    if isinstance(raw, Mapping):
        raw = {**{name: [] for name in MAY_LACK}, **raw}
    made, faults = read(Calibration, raw)
    # Not where it is built: what is on record stays readable, whatever is refused from now on.
    faults += [] if made is None else list(_unread(made))
    if made is None or faults:
        raise InvalidInput(faults)
    return made


def _day_faults(values: Mapping[str, Any], name: str, title: str) -> Iterable[Fault]:
    day = values.get(name)
    if day is None:
        return
    with suppress(ValueError):
        if date.fromisoformat(day).year in _YEARS:
            return
    says = f"must be a day as 2026-11-27, in the years {_YEARS[0]} to {_YEARS[-1]}."
    yield Fault(path=name, code="not_a_day", title=title, says=says)


def _unread(of: Calibration) -> Iterable[Fault]:
    """What cannot have been read off the reference."""
    rows = (
        (f"{name}.{at}", row)
        for name in ("found", "turns", "left")
        for at, row in enumerate(getattr(of, name))
    )
    for path, row in rows:
        for name, spec in specs(type(row)).items():
            pa = getattr(row, name)
            if name.endswith("_gauge_pa") and pa is not None:
                of_field = (f"{path}.{name}", spec.title)
                yield from reading_faults(pa, of.device, of.reference, *of_field)


def _run_faults(runs: tuple[BenchRun, ...], name: str, title: str, points: int) -> Iterable[Fault]:
    for at, run in enumerate(runs):
        if run.at >= points:
            says = "is not there: this switch has one set point."
            yield Fault(path=f"{name}.{at}.point", code="no_point", title="Upper point", says=says)
    if runs and any(all(run.at != point for run in runs) for point in range(points)):
        says = "are wanted of each set point."
        yield Fault(path=name, code="too_few", title=title, says=says)
