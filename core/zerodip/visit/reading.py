"""Reading: what is asked, what was found the last time, and what is odd about what was entered."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from ..facts import Facts, WaterFacts
from ..units import PSI, text
from .records import VALUES, Log

__all__ = ["Question", "ReadField", "questions", "read_fields"]

_ALWAYS = (
    "gauge.used",
    "gauge.error",
    "gauge.low",
    "found.gauge",
    "found.cut_in",
    "found.cut_out",
    "found.rating",
    "found.corrosion",
    "found.leaks",
)
_WATER = (*_ALWAYS[:6], "gauge.air_low", "found.pre_charge", "found.water_at_valve", *_ALWAYS[6:])
_CLOSE = 1.0 * PSI


@dataclass(frozen=True, kw_only=True)
class ReadField:
    """One thing to read: its value in force and the entry that holds it, and last time's with the drift since (words)."""

    slot: str
    title: str
    kind: str
    dimension: str
    value: Any
    entry: str | None
    last: Any
    drift: str


@dataclass(frozen=True, kw_only=True)
class Question:
    """Something odd among the readings, asked rather than refused; `slot` is where the answer is corrected."""

    slot: str
    asks: str


def read_fields(facts: Facts, log: Log, last: Mapping[str, Any], units: str) -> tuple[ReadField, ...]:
    """What to read on this kind of system, beside what the last visit left (by slot)."""
    slots = _WATER if isinstance(facts, WaterFacts) else _ALWAYS
    return tuple(_field(slot, log, last.get(slot), units) for slot in slots)


def _field(slot: str, log: Log, last: Any, units: str) -> ReadField:
    spec, entry = VALUES[slot][1], log.values.get(slot)
    value = entry.value if entry else None
    drift = ""
    if spec.kind == "quantity" and isinstance(value, int | float) and isinstance(last, int | float):
        moved = value - last
        drift = (
            "as last time"
            if abs(moved) < 0.05 * PSI
            else f"{text(abs(moved), spec.dimension, units)} {'up' if moved > 0 else 'down'}"
        )
    return ReadField(
        slot=slot, title=spec.title, kind=spec.kind, dimension=spec.dimension, value=value,
        entry=entry.id if entry else None, last=last, drift=drift,
    )  # fmt: skip


def questions(facts: Facts, log: Log, units: str) -> tuple[Question, ...]:
    """What is odd. Source: common practice, no source."""
    found = [*_tank_questions(log, units), *_point_questions(log, units)]
    if isinstance(facts, WaterFacts):
        found += _charge_questions(facts, log, units)
    return tuple(found)


def _tank_questions(log: Log, units: str) -> list[Question]:
    """A tank under water pressure shows the system's pressure at its air valve, not its pre-charge."""
    air, gauge = log.value("found.pre_charge"), log.value("found.gauge")
    if air is None or gauge is None or gauge <= 3 * PSI or log.confirmed("drained"):
        return []
    if abs(air - gauge) <= 2 * _CLOSE:
        both = f"{text(air, 'pressure', units)} at the air valve while the gauge shows {text(gauge, 'pressure', units)}"
        return [
            Question(
                slot="found.pre_charge", asks=f"{both}: is the tank drained? Under pressure the valve shows the system."
            )
        ]
    return [
        Question(slot="found.pre_charge", asks="The tank is not confirmed drained: only then is this its pre-charge.")
    ]


def _point_questions(log: Log, units: str) -> list[Question]:
    low, high, now = log.value("found.cut_in"), log.value("found.cut_out"), log.value("found.gauge")
    found = []
    if low is not None and high is not None and low >= high:
        found.append(
            Question(slot="found.cut_in", asks="Cut-in is not below cut-out: were they read the other way round?")
        )
    elif low is not None and high is not None and high - low < 5 * PSI:
        found.append(
            Question(
                slot="found.cut_out",
                asks=f"Only {text(high - low, 'pressure', units)} apart: watch both points once more.",
            )
        )
    if now is not None and high is not None and now > high + 3 * PSI:
        stands = f"The gauge stands at {text(now, 'pressure', units)}, above the cut-out found"
        says = f"{stands}: has it crept up, or is a point misread?"
        found.append(Question(slot="found.gauge", asks=says))
    return found


def _charge_questions(facts: WaterFacts, log: Log, units: str) -> list[Question]:
    air = log.value("found.pre_charge")
    if log.value("found.water_at_valve"):
        return [
            Question(
                slot="found.water_at_valve",
                asks="Water at the air valve: the bladder is burst, and the tank is finished.",
            )
        ]
    if air is None:
        return []
    if air <= facts.leak_found_pa:
        return [
            Question(
                slot="found.pre_charge",
                asks=f"{text(air, 'pressure', units)} is so low that the tank leaks: soap valve and seams.",
            )
        ]
    if air >= facts.cut_in_pa:
        return [
            Question(slot="found.pre_charge", asks="Above cut-in: this is the dip that the taps feel at each start.")
        ]
    return []
