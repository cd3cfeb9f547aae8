"""What is read while it runs and when it is dead: what is asked, in what condition and where, what
was found the last time, and what is odd about what was entered."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.steps import GAUGE_AT_ZERO, PROVED_DEAD, SEEN_EARLIER
from zerodip.kinds.visit_parts import Question, air_reads_as_gauge, question
from zerodip.units import PSI, text
from zerodip.visit.log import Log
from zerodip.visit.slots import (
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_GAUGE,
    FOUND_PRE_CHARGE,
    SLOTS,
    Slot,
    When,
    Where,
    confirmation,
)
from zerodip.visit.steps.make_safe import power_state

__all__ = ["ReadField", "questions", "read_fields"]

_EMPTY_PA = 3 * PSI  # a gauge that stands no higher tells nothing of water in the tank
_WHEN: dict[When, str] = {
    "": "",
    "powered": "Power on, water in the tank",
    "off": "Power off",
    "drained": "Power off, tank drained",
}
_WHERE: dict[Where, str] = {
    "": "",
    "gauge": "At the gauge",
    "switch": "At the switch",
    "tank": "At the tank",
    "pump": "At the pump and its pipes",
}
_NARROW_PA = 5 * PSI
_ABOVE_PA = 3 * PSI
_SAME_PA = 0.05 * PSI


@dataclass(frozen=True, kw_only=True)
class ReadField:
    """One thing to read: its value in force and the entry that holds it, and last time's with the
    drift since, in what condition it is taken and at which part of the system (words), and the
    gauge on the wire that showed it, if one did."""

    slot: str
    title: str
    kind: str
    dimension: str
    value: Any
    entry: str | None
    last: Any
    drift: str
    when: str
    where: str
    by_gauge: str


def read_fields(
    names: Iterable[str], log: Log, last: Mapping[str, Any], units: str
) -> tuple[ReadField, ...]:
    """What to read, beside what the last visit left (by slot).

    Args:
        names: The slots to read, in order.
        log: The visit's log.
        last: What the last visit left, by slot.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What to read, in order.
    """
    return tuple(_field(SLOTS[name], log, last.get(name), units) for name in names)


def _field(slot: Slot[Any], log: Log, last: Any, units: str) -> ReadField:
    record = log.record(slot)
    value = record.value if record else None
    return ReadField(
        slot=slot.name,
        title=slot.title,
        kind=slot.spec.kind if slot.spec else "",
        dimension=slot.dimension,
        value=value,
        entry=record.id if record else None,
        last=last,
        drift=_drift(slot, value, last, units),
        when=_WHEN[slot.when],
        where=_WHERE[slot.where],
        by_gauge=record.by_gauge if record else "",
    )


def _drift(slot: Slot[Any], value: Any, last: Any, units: str) -> str:
    if (
        isinstance(value, bool)
        or not isinstance(value, int | float)
        or not isinstance(last, int | float)
    ):
        return ""
    moved = value - last
    if abs(moved) < _SAME_PA:
        return "as last time"
    return f"{text(abs(moved), slot.dimension, units)} {'up' if moved > 0 else 'down'}"


def questions(figures: Figures, log: Log, units: str) -> tuple[Question, ...]:
    """What is odd.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The questions.

    Source: Common practice, no source.
    """
    odd = kind_of(figures).visit.questions(figures, log, units)
    asked = (*_tank_questions(log, units), *_point_questions(log, units), *odd)
    return (*_powered_questions(log), *asked)


def _powered_questions(log: Log) -> list[Question]:
    """Points that were entered while power was proved off: they are watched with it on."""
    dead = log.values.get(confirmation(PROVED_DEAD.id).name)
    if power_state(log) != "off" or dead is None or log.confirmed(SEEN_EARLIER.id):
        return []
    late = [
        slot
        for slot in SLOTS.values()
        if slot.when == "powered" and (kept := log.record(slot)) and kept.at > dead.at
    ]
    if not late:
        return []
    asks = "Power is off, and this is watched with power on. Was it seen earlier?"
    return [replace(question(late[0], asks), earlier=True)]


def _tank_questions(log: Log, units: str) -> list[Question]:
    """A tank under water pressure shows the system's pressure at its air valve, not its
    pre-charge."""
    air, gauge = log.value(FOUND_PRE_CHARGE), log.value(FOUND_GAUGE)
    if air is None or gauge is None:
        return []
    if air_reads_as_gauge(log) and not log.confirmed(GAUGE_AT_ZERO.id):
        shown = (
            f"{text(air, 'pressure', units)} at the air valve while the gauge shows"
            f" {text(gauge, 'pressure', units)}"
        )
        asks = f"{shown}: is the tank drained? Under pressure the valve shows the system."
        return [question(FOUND_PRE_CHARGE, asks)]
    if gauge <= _EMPTY_PA or log.confirmed("drained"):
        return []
    asks = "The tank is not confirmed drained: only then is this its pre-charge."
    return [question(FOUND_PRE_CHARGE, asks)]


def _point_questions(log: Log, units: str) -> list[Question]:
    low, high, now = log.value(FOUND_CUT_IN), log.value(FOUND_CUT_OUT), log.value(FOUND_GAUGE)
    found = []
    if low is not None and high is not None and low >= high:
        asks = "Cut-in is not below cut-out: were they read the other way round?"
        found.append(question(FOUND_CUT_IN, asks))
    elif low is not None and high is not None and high - low < _NARROW_PA:
        asks = f"Only {text(high - low, 'pressure', units)} apart: watch both points once more."
        found.append(question(FOUND_CUT_OUT, asks))
    if now is not None and high is not None and now > high + _ABOVE_PA:
        stands = f"The gauge stands at {text(now, 'pressure', units)}, above the cut-out found"
        found.append(question(FOUND_GAUGE, f"{stands}: has it crept up, or is a point misread?"))
    return found
