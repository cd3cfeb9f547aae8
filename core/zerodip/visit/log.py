"""A visit's records put in force: the last of each slot with one value, and of each series what was
not superseded."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any, TypeVar

from zerodip.fileformat.fields import read
from zerodip.visit.records import Drain, Turned
from zerodip.visit.slots import (
    AIR_GAUGE_LOW,
    CONFIRMED,
    DRAIN,
    GAUGE_LOW,
    SLOTS,
    TRY,
    TURNED,
    UNDONE_BY_POWER,
    Slot,
)

__all__ = ["Log", "Record", "log_of"]

T = TypeVar("T")


@dataclass(frozen=True)
class Record:
    """One record as it was made. `supersedes` names the entry that it corrects; `at` orders them.
    `by_gauge`
    names the gauge on the wire that showed it. In force, it stands for those that it and its like
    corrected."""

    id: str
    slot: str
    value: Any
    supersedes: str | None = None
    at: str = ""
    by: str = ""
    by_gauge: str = ""
    stands_for: tuple[str, ...] = ()


@dataclass(frozen=True)
class Log:
    """A visit's records in force, by the name of their slot."""

    values: Mapping[str, Record]
    series: Mapping[str, tuple[Record, ...]]

    def record(self, slot: Slot[Any]) -> Record | None:
        """The record in force of a slot with one value, or None."""
        return self.values.get(slot.name)

    def value(self, slot: Slot[T]) -> T | None:
        """The value in force of a slot with one value, or None."""
        record = self.values.get(slot.name)
        return None if record is None else record.value

    def records_in(self, slot: Slot[Any]) -> tuple[Record, ...]:
        """A series as it was recorded, oldest first."""
        return self.series.get(slot.name, ())

    def all(self, slot: Slot[T]) -> tuple[T, ...]:
        """A series as checked objects, oldest first."""
        return tuple(_built(slot, record.value) for record in self.records_in(slot))

    def standing(self, id: str) -> Record | None:
        """What stands of a series where a record stood: itself, or what corrected it; None if it
        never stood."""
        return next(
            (
                each
                for kept in self.series.values()
                for each in kept
                if id in (each.id, *each.stands_for)
            ),
            None,
        )

    def true(self, slot: Slot[float]) -> float | None:
        """A pressure freed of what its gauge is known to show too little by, Pa gauge."""
        shown = self.value(slot)
        return None if shown is None else float(shown) + self.low_by(slot)

    def low_by(self, slot: Slot[Any]) -> float:
        """What the gauge that a slot is read by is known to show too little by, Pa; nothing where
        that is not known."""
        return float(self.value(AIR_GAUGE_LOW if slot.gauge == "air" else GAUGE_LOW) or 0.0)

    def turned(self) -> Turned | None:
        """Turns made since the last look, if any."""
        value: Any = self.value(TURNED)
        made = None if value is None else read(Turned, value)[0]
        return made if made is not None and made.after == len(self.records_in(TRY)) else None

    def has_confirmed(self) -> bool:
        """Whether anything was ever confirmed by hand."""
        return any(name.startswith(CONFIRMED) for name in self.values)

    def confirmed(self, id: str) -> bool:
        """Whether a step of making safe holds: confirmed, and not undone since by powering up."""
        record, up = self.values.get(f"{CONFIRMED}{id}"), self.values.get(f"{CONFIRMED}power_up")
        if record is None or not record.value:
            return False
        undone = id in UNDONE_BY_POWER and up is not None and bool(up.value)
        return not (undone and up is not None and up.at >= record.at)


def _built(slot: Slot[Any], value: Any) -> Any:
    if slot is DRAIN:
        return Drain(tuple(float(t) for t, _ in value), tuple(float(p) for _, p in value))
    return read(slot.record, value)[0] if slot.record else value


def log_of(records: Iterable[Record]) -> Log:
    """Records, oldest first, put in force. A correction stands where the record stood that it
    corrects.

    Args:
        records: Records, oldest first.

    Returns:
        The log.
    """
    values: dict[str, Record] = {}
    series: dict[str, list[Record]] = {}
    for record in records:
        slot = SLOTS.get(record.slot)
        if slot is None or not slot.series:
            values[record.slot] = record
            continue
        kept = series.setdefault(record.slot, [])
        at = next((k for k, old in enumerate(kept) if old.id == record.supersedes), None)
        if at is None:
            kept.append(record)
        else:
            kept[at] = replace(record, stands_for=(*kept[at].stands_for, kept[at].id))
    return Log(values, {slot: tuple(kept) for slot, kept in series.items()})
