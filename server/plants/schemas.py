"""What the plant operations take and give. Files are read by the core alone, so that all faults come at once; their
shape in the API's description is the core's own JSON Schema."""

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, GetJsonSchemaHandler, RootModel
from pydantic_core import CoreSchema

from zerodip.decide import Decision as Decided
from zerodip.glance import Glance
from zerodip.schema import document_schema, practice_schema
from zerodip.strip import Strip

Units = Literal["us", "metric", "kpa"]


def inlined(schema: Any, definitions: dict[str, Any]) -> Any:
    """A JSON Schema with its references written out."""
    if isinstance(schema, list):
        return [inlined(item, definitions) for item in schema]
    if not isinstance(schema, dict):
        return schema
    if "$ref" in schema:
        name = schema["$ref"].rsplit("/", 1)[1]
        return {**inlined(definitions[name], definitions), **{k: v for k, v in schema.items() if k != "$ref"}}
    return {key: inlined(value, definitions) for key, value in schema.items() if key not in ("$defs", "$schema")}


class SystemFile(RootModel[Any]):
    """A system file (docs/system.schema.json)."""

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        whole = document_schema()
        return dict(inlined(whole, whole["$defs"]))


class WhatIf(Schema):
    """A file to judge, and the draw for the strip (m³/s; the worst draw if null)."""

    document: SystemFile
    draw_m3_s: Any = Field(None, json_schema_extra={"anyOf": [{"type": "number", "minimum": 0}, {"type": "null"}]})


class DecideOut(Schema):
    """The judgement and the strip (none for a tankless pump)."""

    decision: Decided
    strip: Strip | None


class FileIn(Schema):
    """A file to weigh other settings or schools for."""

    document: SystemFile


_VOLUMES: dict[str, Any] = {"anyOf": [{"type": "array", "items": {"type": "number"}, "maxItems": 60}, {"type": "null"}]}
_TARGET: dict[str, Any] = {
    "anyOf": [
        {
            "type": "object",
            "properties": {"kind": {"enum": ["run", "starts"]}, "value": {"type": "number"}},
            "required": ["kind", "value"],
        },
        {"type": "null"},
    ]
}


class SizesWanted(Schema):
    """A file to size; the target (s, or 1/s; what the practice wants if null) and the nominal volumes (m³; the usual if null)."""

    document: SystemFile
    target: Any = Field(None, json_schema_extra=_TARGET)
    sizes_m3: Any = Field(None, json_schema_extra=_VOLUMES)


class PracticeIn(RootModel[Any]):
    """A practice, as in a system file."""

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return practice_schema()


class HabitsIn(Schema):
    """A workspace's practice and nominal sizes (m³; the usual if null), over the version they were read at."""

    version: int
    practice: PracticeIn
    sizes_m3: Any = Field(None, json_schema_extra=_VOLUMES)


class HabitsOut(Schema):
    """A workspace's practice and nominal sizes (m³). `may_change` tells whether this person may change them."""

    workspace: UUID
    name: str
    version: int
    practice: PracticeIn
    sizes_m3: list[float] | None
    may_change: bool


class SaveSystem(Schema):
    """A file to put in force, over the version it was read at."""

    version: int
    document: SystemFile


class SiteOut(Schema):
    """A site."""

    id: UUID
    name: str
    units: Units


class SiteIn(Schema):
    """What to change of a site: the units to remember, the name."""

    units: Units | None = None
    name: str | None = None


class NewSite(Schema):
    """A site to begin."""

    name: str
    units: Units = "us"


class NewSystem(Schema):
    """A system to begin: from a file, or of a kind with usual values."""

    name: str = ""
    kind: str | None = None
    document: SystemFile | None = None


class Retired(Schema):
    """Whether a system is off the rounds."""

    retired: bool


class SystemRow(Schema):
    """A system in a list."""

    id: UUID
    name: str
    glance: Glance
    changed_at: datetime
    retired: bool


class RoundsSite(SiteOut):
    """A site with its systems, what needs a person first."""

    workspace: UUID
    systems: list[SystemRow]


class WorkspaceOut(Schema):
    """A workspace; `may_add` tells whether this person may begin sites and systems in it."""

    id: UUID
    name: str
    may_add: bool


class RoundsOut(Schema):
    """All sites of the actor, and the workspaces they belong to."""

    sites: list[RoundsSite]
    workspaces: list[WorkspaceOut]


class DecisionOut(Schema):
    """A kept decision: its file and the figures shown then (SI, by answer)."""

    id: UUID
    document: SystemFile
    figures: dict[str, float | None]
    verdict: str
    made_by: str
    made_at: datetime


class SystemOut(SystemRow):
    """A system with its file and latest decisions. `may_change` tells whether this person may save."""

    site: SiteOut
    workspace: UUID
    version: int
    may_change: bool
    document: SystemFile
    decisions: list[DecisionOut]
