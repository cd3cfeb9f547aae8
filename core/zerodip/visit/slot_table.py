"""Every slot as plain values, for an interface to say what was recorded."""

from typing import Any

from zerodip.fileformat.fields import specs
from zerodip.visit.slots import Slot
from zerodip.visit.validation import known_slots

__all__ = ["slot_table"]


def slot_table() -> dict[str, Any]:
    """Title and dimension of every slot, and of the fields of those that hold several values.

    Returns:
        Plain JSON values, by the slot's name.
    """
    return {slot.name: _row(slot) for slot in known_slots().values()}


def _row(slot: Slot[Any]) -> dict[str, Any]:
    fields = specs(slot.record) if slot.record else {}
    return {
        "title": slot.title,
        "dimension": slot.dimension,
        "fields": {name: spec.dimension for name, spec in fields.items()},
    }
