"""What is put right after a visit was closed: added with its date beside what stood there, never in its place unseen."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from ..units import text
from .records import SERIES, VALUES, Entry, log_of

__all__ = ["Correctable", "Correction", "LateView", "late_view", "may_come_late"]

# Readings and words; not what was done or decided, which is over.
_SLOTS = frozenset(
    slot for slot, (step, _) in VALUES.items() if step in ("read", "prove") or slot in ("air.left", "signed")
)
_POINTS = (("cut_in_gauge_pa", "Cut-in as left"), ("cut_out_gauge_pa", "Cut-out as left"))


@dataclass(frozen=True, kw_only=True)
class Correction:
    """One figure put right: what stood there, what stands now (in words), when (ISO 8601) and by whom."""

    title: str
    was: str
    now: str
    at: str
    by: str


@dataclass(frozen=True, kw_only=True)
class Correctable:
    """A pressure that may be put right: the entry that holds it (None where nothing was read), the field of its value where
    it has several, and the value, Pa as the gauge showed it."""

    slot: str
    field: str | None
    title: str
    entry: str | None
    value: Any
    gauge_pa: float | None


@dataclass(frozen=True, kw_only=True)
class LateView:
    """What was put right since closing, oldest first, and what may be."""

    corrections: tuple[Correction, ...]
    correctable: tuple[Correctable, ...]


def may_come_late(slot: str, corrects: bool) -> bool:
    """Whether a record may be added to a closed visit: a reading or a name, a remark, or an entry that `corrects` another of its
    series. What was confirmed, turned or decided is over."""
    return slot in _SLOTS or slot == "note" or (slot in SERIES and corrects)


def late_view(entries: Sequence[Entry], closed_at: str, units: str) -> LateView:
    """The late part of a closed visit. `entries` oldest first; `closed_at` and their times ISO 8601 with an offset."""
    return LateView(
        corrections=tuple(_corrections(entries, closed_at, units)), correctable=tuple(_correctable(entries))
    )


def _corrections(entries: Sequence[Entry], closed_at: str, units: str) -> Iterable[Correction]:
    closed = datetime.fromisoformat(closed_at)
    for index, entry in enumerate(entries):
        if datetime.fromisoformat(entry.at) > closed:
            was = _stood(entries[:index], entry)
            yield Correction(
                title=_title(entry.slot),
                was=_told(entry.slot, was, units),
                now=_told(entry.slot, entry.value, units),
                at=entry.at,
                by=entry.by,
            )


def _stood(before: Sequence[Entry], entry: Entry) -> Any:
    """The value in whose place an entry stands."""
    log = log_of(before)
    if entry.slot in SERIES:
        standing = log.standing(entry.supersedes) if entry.supersedes else None
        return standing.value if standing else None
    return log.value(entry.slot)


_TITLES = {"try": "Switch as left", "lap": "Pump run", "bucket": "Bucket test", "leak": "Leak watch", "note": "Remark"}


def _title(slot: str) -> str:
    return VALUES[slot][1].title if slot in VALUES else _TITLES.get(slot, slot.capitalize())


def _told(slot: str, value: Any, units: str) -> str:
    """A recorded value in words; an empty one is a dash."""
    if value is None or value == "":
        return "–"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if slot in VALUES:
        spec = VALUES[slot][1]
        return text(value, spec.dimension, units) if spec.kind == "quantity" else str(value)
    if slot == "note":
        return str(value["text"])
    if slot == "try":
        low, high = (text(value[name], "pressure", units) for name, _ in _POINTS)
        return f"cut-in {low}, cut-out {high}"
    if slot == "lap":
        return text(value["run_s"], "duration", units)
    if slot == "bucket":
        return text(value["caught_m3"], "volume", units)
    return "recorded"


def _correctable(entries: Sequence[Entry]) -> Iterable[Correctable]:
    log = log_of(entries)
    for slot in ("found.cut_in", "found.cut_out", "found.pre_charge", "air.left"):
        held = log.values.get(slot)
        value = None if held is None else held.value
        entry = None if held is None else held.id
        yield Correctable(slot=slot, field=None, title=_title(slot), entry=entry, value=None, gauge_pa=value)
    looks = log.series.get("try", ())
    for name, title in _POINTS if looks else ():
        look = looks[-1]
        yield Correctable(
            slot="try", field=name, title=title, entry=look.id, value=look.value, gauge_pa=look.value[name]
        )
