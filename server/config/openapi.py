"""The API's description: as the framework writes it, with the slots of a visit as one named
type."""

from typing import Any

from zerodip.visit.validation import known_slots

__all__ = ["name_the_slots"]


def name_the_slots(description: dict[str, Any]) -> dict[str, Any]:
    """The description in which every property `slot` is of the one type `Slot`."""
    schemas = description["components"]["schemas"]
    for schema in schemas.values():
        slot = schema.get("properties", {}).get("slot")
        if slot is not None:
            slot.clear()
            slot["$ref"] = "#/components/schemas/Slot"
    schemas["Slot"] = {
        "title": "Slot",
        "description": "What a record of a visit is about.",
        "type": "string",
        "enum": sorted(known_slots()),
    }
    return description
