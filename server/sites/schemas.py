"""What the operations of sites and systems take and give."""

from datetime import datetime
from typing import Any, TypedDict
from uuid import UUID

from ninja import Schema
from pydantic import Field

from common.schemas import SystemFile, Units
from practice.serializers import VOLUMES
from zerodip.decide.judge import Decision as Decided
from zerodip.decide.simulation import Simulation
from zerodip.decide.summary import SystemSummary
from zerodip.kinds.results import Column


class WhatIf(Schema):
    """A file to judge, the draw to simulate (m³/s; the worst draw if null), and whether to tell how
    sure the results are."""

    document: SystemFile
    draw_m3_s: Any = Field(
        None, json_schema_extra={"anyOf": [{"type": "number", "minimum": 0}, {"type": "null"}]}
    )
    sure: bool = False


class DecideOut(Schema):
    """The judgement, and the next minutes (none for a kind whose cycles are too fast to draw)."""

    decision: Decided
    simulation: Simulation | None


class FileIn(Schema):
    """A file to weigh other settings or ways for."""

    document: SystemFile


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


class ProposalWanted(Schema):
    """A file to set; whether a stop was seen on site that is not put right."""

    document: SystemFile
    stop_seen: bool = False


class SizesWanted(Schema):
    """A file to size; the target (s, or 1/s; what the practice wants if null) and the nominal
    volumes (m³; the usual if null)."""

    document: SystemFile
    target: Any = Field(None, json_schema_extra=_TARGET)
    sizes_m3: Any = Field(None, json_schema_extra=VOLUMES)


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
    summary: SystemSummary
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
    """A kept decision: its file and the figures shown then (SI, by result)."""

    id: UUID
    document: SystemFile
    figures: dict[str, float | None]
    verdict: str
    made_by: str
    made_at: datetime


class SystemOut(SystemRow):
    """A system with its file and latest decisions. `may_change` tells whether this person may
    save; `columns` are the figures of a decision worth a column."""

    site: SiteOut
    workspace: UUID
    version: int
    may_change: bool
    document: SystemFile
    columns: tuple[Column, ...]
    decisions: list[DecisionOut]


class PackedSystem(TypedDict):
    """`SystemRow` as it is written out: its summary goes from the database into the answer as it
    is."""

    id: UUID
    name: str
    summary: Any
    changed_at: str
    retired: bool


class PackedSite(TypedDict):
    """`RoundsSite` as it is written out."""

    id: UUID
    name: str
    units: str
    workspace: UUID
    systems: list[PackedSystem]


class PackedWorkspace(TypedDict):
    """`WorkspaceOut` as it is written out."""

    id: UUID
    name: str
    may_add: bool


class PackedRounds(TypedDict):
    """`RoundsOut` as it is written out."""

    sites: list[PackedSite]
    workspaces: list[PackedWorkspace]
