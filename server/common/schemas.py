"""What several apps take and give: unit systems, and files that the core alone reads, so that all
faults come at once."""

from typing import Any, Literal

from pydantic import GetJsonSchemaHandler, RootModel
from pydantic_core import CoreSchema

from zerodip.fileformat.schema import document_schema, practice_schema

__all__ = ["PracticeFile", "SystemFile", "Told", "Units", "inlined"]

Units = Literal["us", "metric", "kpa"]
Scale = Literal["psi", "inHg", "inH2O", "bar", "mbar", "kPa", "MPa", "mmHg", "kgf/cm2"]
Told = Units | Scale  # in what texts may be told: a unit system, or what an instrument is marked in


def inlined(schema: Any, definitions: dict[str, Any]) -> Any:
    """A JSON Schema with its references written out."""
    if isinstance(schema, list):
        return [inlined(item, definitions) for item in schema]
    if not isinstance(schema, dict):
        return schema
    if "$ref" in schema:
        name = schema["$ref"].rsplit("/", 1)[1]
        rest = {key: value for key, value in schema.items() if key != "$ref"}
        return {**inlined(definitions[name], definitions), **rest}
    return {
        key: inlined(value, definitions)
        for key, value in schema.items()
        if key not in ("$defs", "$schema")
    }


class SystemFile(RootModel[Any]):
    """A system file (docs/system.schema.json)."""

    @classmethod
    def __get_pydantic_json_schema__(
        cls, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        whole = document_schema()
        return dict(inlined(whole, whole["$defs"]))


class PracticeFile(RootModel[Any]):
    """A practice, as in a system file."""

    @classmethod
    def __get_pydantic_json_schema__(
        cls, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        return practice_schema()
