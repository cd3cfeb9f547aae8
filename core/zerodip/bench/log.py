"""A calibration as it is made: entries in order, each once, corrected by later ones; what they come
to, and what is next.

Runs before the first turn of a screw are as found, those after the last are as left."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from zerodip.bench.course import AFTER, BEFORE, LEFT
from zerodip.bench.device import MOST_PA, VACUUM_PA, BenchDevice
from zerodip.bench.file import POINTS, SEEN_BY, BenchRun, acted_at, screw
from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, quantity, read, variants, words

__all__ = [
    "SCREWS",
    "Confirmed",
    "Entry",
    "Progress",
    "Read",
    "Segment",
    "Turned",
    "Value",
    "Voided",
    "may_follow_closing",
    "progress_of",
    "read_value",
]


@dataclass(frozen=True, kw_only=True)
class Confirmed(Checked):
    """Something was done: a preparation, or what is done after the last run; or it was decided that
    points are left as they are."""

    tag = ("kind", "confirmed")
    what: str = choice("Confirmed", (*BEFORE, LEFT, *AFTER))


@dataclass(frozen=True, kw_only=True)
class Read(Checked):
    """Where a point acted or reset (Pa gauge), how fast the pressure moved (Pa/s), or from where
    (Pa gauge) it came in how long (s), by what the change was seen and within how long (s)."""

    tag = ("kind", "read")
    point: str = choice("Point", POINTS)
    which: str = choice("Change", ("set", "reset"))
    gauge_pa: float = quantity("Read", "pressure", VACUUM_PA, MOST_PA)
    rate_pa_s: float | None = quantity(
        "Rate of approach, in a second", "pressure", 0.0, 1e6, default=None
    )
    from_gauge_pa: float | None = quantity(
        "Approached from", "pressure", VACUUM_PA, MOST_PA, default=None
    )
    approach_s: float | None = quantity("Approached in", "duration", 0.1, 86400, default=None)
    seen_by: str = choice("Seen by", SEEN_BY, default="lamp")
    delay_s: float | None = quantity("Seen within", "duration", 0.0, 60.0, default=None)

    def approach_pa_s(self, rises: bool) -> float | None:
        """How fast the pressure came, Pa/s, at a point that acts on rising pressure or not; None
        where nobody timed it, or what was timed did not lead up to the point."""
        if self.rate_pa_s is not None or self.approach_s is None or self.from_gauge_pa is None:
            return self.rate_pa_s
        way = self.gauge_pa - self.from_gauge_pa
        way = way if rises else -way
        return way / self.approach_s if way > 0 else None


@dataclass(frozen=True, kw_only=True)
class Turned(Checked):
    """Screws of points or of deadbands were turned, clockwise positive."""

    tag = ("kind", "turned")
    lower: float = screw("lower")
    upper: float = screw("upper")
    lower_deadband: float = screw("lower deadband")
    upper_deadband: float = screw("upper deadband")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """Something was turned."""
        if not any(values.get(each) for each in SCREWS):
            says = "are wanted of one screw at least."
            yield Fault(path="lower", code="nothing", title="Turns", says=says)


@dataclass(frozen=True, kw_only=True)
class Voided(Checked):
    """What it takes the place of was no entry at all."""

    tag = ("kind", "voided")
    why: str = words("Why", 200, default="")


Value = Confirmed | Read | Turned | Voided
_CLASSES: dict[str, type[Checked]] = {
    "confirmed": Confirmed,
    "read": Read,
    "turned": Turned,
    "voided": Voided,
}
SCREWS = ("lower", "upper", "lower_deadband", "upper_deadband")
_CORRECTS = ("read", "turned", "voided")
_KIND = variants("kind", lambda: _CLASSES)


@dataclass(frozen=True)
class Entry:
    """One entry: its id, what it holds, and the id of the one that it corrects."""

    id: str
    value: Value
    supersedes: str | None = None


@dataclass(frozen=True)
class Segment:
    """Runs without a turn between: the turns before them (None: as found), and the runs."""

    turned: Turned | None
    runs: tuple[BenchRun, ...] = ()

    def mean(self, at: int) -> float | None:
        """Where a point acted in the mean, Pa gauge; None where it was not read."""
        return acted_at(self.runs, at)

    def count(self, at: int) -> int:
        """How many runs of a point are whole or begun."""
        return sum(run.at == at for run in self.runs)


@dataclass(frozen=True)
class Progress:
    """How far a calibration is: what was confirmed, and its segments, the first as found."""

    confirmed: frozenset[str] = frozenset()
    segments: tuple[Segment, ...] = field(default=(Segment(None),))

    @property
    def found(self) -> tuple[BenchRun, ...]:
        """The runs as found."""
        return self.segments[0].runs

    @property
    def adjusted(self) -> bool:
        """Whether a screw was turned."""
        return len(self.segments) > 1


def read_value(raw: Any, device: BenchDevice) -> tuple[Value | None, list[Fault]]:
    """What an entry holds, out of plain values.

    Args:
        raw: The values, with their "kind".
        device: The switch.

    Returns:
        The value and no faults, or None and every fault by field.
    """
    cls = _KIND(raw)
    if cls is None:
        says = f"must be one of: {', '.join(_CLASSES)}."
        return None, [Fault(path="kind", code="not_a_choice", title="Kind of entry", says=says)]
    value: Any
    value, faults = read(cls, raw)
    faults += [] if value is None else list(_beside(value, device))
    return (None, faults) if faults else (value, [])


def _beside(value: Value, device: BenchDevice) -> Iterable[Fault]:
    """A switch of one point has no upper one."""
    if len(device.points) == 2:
        return
    says = "is not there: this switch has one set point."
    if isinstance(value, Read) and value.point == "upper":
        yield Fault(path="point", code="no_point", title="Upper point", says=says)
    for path in ("upper", "upper_deadband") if isinstance(value, Turned) else ():
        if getattr(value, path):
            yield Fault(path=path, code="no_point", title="Upper screw", says=says)


def may_follow_closing(raw: Any, supersedes: object) -> bool:
    """Whether an entry may come after a calibration was signed: only what corrects a reading or a
    turn.

    Args:
        raw: What the entry holds, as plain values.
        supersedes: What it corrects; None for nothing.

    Returns:
        Whether it may.
    """
    kind = raw.get("kind") if isinstance(raw, Mapping) else None
    return supersedes is not None and kind in _CORRECTS


def progress_of(entries: Sequence[Entry], device: BenchDevice) -> Progress:
    """How far a calibration is.

    Args:
        entries: Its entries in the order in which they came; one sent twice counts once.
        device: The switch.

    Returns:
        The progress.
    """
    made = Progress()
    for value in _standing(entries):
        made = _with(made, value, device)
    return made


def _standing(entries: Sequence[Entry]) -> list[Value]:
    """What stands, where the first of each chain of corrections stood."""
    places: dict[str, int] = {}
    values: list[Value] = []
    for entry in entries:
        if entry.id in places:
            continue
        at = places.get(entry.supersedes) if entry.supersedes else None
        if at is None:
            at = len(values)
            values.append(entry.value)
        else:
            values[at] = entry.value
        places[entry.id] = at
    return [value for value in values if not isinstance(value, Voided)]


def _with(made: Progress, value: Value, device: BenchDevice) -> Progress:
    if isinstance(value, Confirmed):
        return replace(made, confirmed=made.confirmed | {value.what})
    *before, last = made.segments
    if isinstance(value, Turned):
        return replace(made, segments=(*made.segments, Segment(value)))
    if isinstance(value, Read):
        return replace(
            made, segments=(*before, replace(last, runs=_read(last.runs, value, device)))
        )
    return made


def _read(runs: tuple[BenchRun, ...], value: Read, device: BenchDevice) -> tuple[BenchRun, ...]:
    """A resetting belongs to the run of its point that still wants one; none begins with it."""
    if value.which == "set":
        run = BenchRun(
            point=value.point,
            set_gauge_pa=value.gauge_pa,
            rate_pa_s=value.approach_pa_s(device.points[POINTS.index(value.point)].rises),
            seen_by=value.seen_by,
            delay_s=value.delay_s,
        )
        return (*runs, run)
    open_at = [
        k for k, run in enumerate(runs) if run.point == value.point and run.reset_gauge_pa is None
    ]
    if not open_at:
        return runs
    at = open_at[-1]
    return (*runs[:at], replace(runs[at], reset_gauge_pa=value.gauge_pa), *runs[at + 1 :])
