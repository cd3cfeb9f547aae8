"""What is put right after a visit was closed: added with its date beside what stood there, never in
its place unseen."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from zerodip.units import text
from zerodip.visit.log import Record, log_of
from zerodip.visit.slots import (
    AIR_LEFT,
    BUCKET,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_PRE_CHARGE,
    LAP,
    REMARK,
    TRY,
    Slot,
)
from zerodip.visit.validation import known_slots

__all__ = ["Correctable", "Correction", "CorrectionsView", "corrections_view", "may_be_corrected"]

_POINTS = (("cut_in_gauge_pa", "Cut-in as left"), ("cut_out_gauge_pa", "Cut-out as left"))
_CORRECTABLE = (FOUND_CUT_IN, FOUND_CUT_OUT, FOUND_PRE_CHARGE, AIR_LEFT)


@dataclass(frozen=True, kw_only=True)
class Correction:
    """One figure put right: what stood there, what stands now (in words), when (ISO 8601) and by
    whom."""

    title: str
    was: str
    now: str
    at: str
    by: str


@dataclass(frozen=True, kw_only=True)
class Correctable:
    """A pressure that may be put right: the entry that holds it (None where nothing was read), the
    field of its value where it has several, and the value, Pa as the gauge showed it."""

    slot: str
    field: str | None
    title: str
    entry: str | None
    value: Any
    gauge_pa: float | None


@dataclass(frozen=True, kw_only=True)
class CorrectionsView:
    """What was put right since closing, oldest first, and what may be."""

    corrections: tuple[Correction, ...]
    correctable: tuple[Correctable, ...]


def may_be_corrected(name: str, corrects: bool) -> bool:
    """Whether a record may be added to a closed visit: a reading or a name, a remark, or a record
    that `corrects` another of its series. What was confirmed, turned or decided is over.

    Args:
        name: Name of the slot.
        corrects: Whether it corrects another record of its series.

    Returns:
        Whether it may.
    """
    slot = known_slots().get(name)
    return slot is not None and (slot.late or (slot.series and corrects))


def corrections_view(records: Sequence[Record], closed_at: str, units: str) -> CorrectionsView:
    """The late part of a closed visit. `records` oldest first; `closed_at` and their times ISO 8601
    with an offset.

    Args:
        records: The visit's records, oldest first.
        closed_at: When the visit was closed, ISO 8601 with an offset.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What was put right, and what may be.
    """
    return CorrectionsView(
        corrections=tuple(_corrections(records, closed_at, units)),
        correctable=tuple(_correctable(records)),
    )


def _corrections(records: Sequence[Record], closed_at: str, units: str) -> Iterable[Correction]:
    closed, slots = datetime.fromisoformat(closed_at), known_slots()
    for index, record in enumerate(records):
        slot = slots.get(record.slot)
        if slot is not None and datetime.fromisoformat(record.at) > closed:
            yield Correction(
                title=slot.title,
                was=_says(slot, _stood(records[:index], slot, record), units),
                now=_says(slot, record.value, units),
                at=record.at,
                by=record.by,
            )


def _stood(before: Sequence[Record], slot: Slot[Any], record: Record) -> Any:
    """The value in whose place a record stands."""
    log = log_of(before)
    if not slot.series:
        return log.value(slot)
    standing = log.standing(record.supersedes) if record.supersedes else None
    return standing.value if standing else None


def _says(slot: Slot[Any], value: Any, units: str) -> str:
    """A recorded value in words; an empty one is a dash."""
    if value is None or value == "":
        return "–"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if slot.spec is not None:
        return text(value, slot.dimension, units) if slot.spec.kind == "quantity" else str(value)
    if slot is REMARK:
        return str(value["text"])
    if slot is TRY:
        low, high = (text(value[name], "pressure", units) for name, _ in _POINTS)
        return f"cut-in {low}, cut-out {high}"
    if slot is LAP:
        return text(value["run_s"], "duration", units)
    return text(value["caught_m3"], "volume", units) if slot is BUCKET else "recorded"


def _correctable(records: Sequence[Record]) -> Iterable[Correctable]:
    log = log_of(records)
    for slot in _CORRECTABLE:
        held = log.record(slot)
        yield Correctable(
            slot=slot.name,
            field=None,
            title=slot.title,
            entry=None if held is None else held.id,
            value=None,
            gauge_pa=None if held is None else held.value,
        )
    looks = log.records_in(TRY)
    for name, title in _POINTS if looks else ():
        look = looks[-1]
        yield Correctable(
            slot=TRY.name,
            field=name,
            title=title,
            entry=look.id,
            value=look.value,
            gauge_pa=look.value[name],
        )
