"""The API's description: as the framework writes it, with the core's vocabularies as named
types."""

from typing import Any

from zerodip.units import DIMENSIONS
from zerodip.visit.validation import known_slots

__all__ = ["describe_refusals", "name_the_types"]


def _words(title: str, description: str, among: list[str]) -> dict[str, Any]:
    return {"title": title, "description": description, "type": "string", "enum": among}


def describe_refusals(description: dict[str, Any]) -> dict[str, Any]:
    """The description in which every refusal is a `Problem`."""
    refused = {"schema": {"$ref": "#/components/schemas/Problem"}}
    for operations in description["paths"].values():
        for operation in operations.values():
            for status, answer in operation["responses"].items():
                if int(status) >= 400:
                    answer["content"] = {"application/json": refused}
    return description


def name_the_types(description: dict[str, Any]) -> dict[str, Any]:
    """The description in which a property called `slot` is a `Slot`, and one called
    `dimension` a `Dimension`."""
    schemas = description["components"]["schemas"]
    for schema in schemas.values():
        for name, field in schema.get("properties", {}).items():
            named = _type_of(name)
            if named:
                field.clear()
                field["$ref"] = f"#/components/schemas/{named}"
    schemas["Slot"] = _words("Slot", "What a record of a visit is about.", sorted(known_slots()))
    schemas["Dimension"] = _words("Dimension", "What a figure measures.", list(DIMENSIONS))
    return description


def _type_of(name: str) -> str:
    if name == "slot":
        return "Slot"
    return "Dimension" if name.split("_")[-1] == "dimension" else ""
