"""What a device is given to hold."""

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from common.schemas import SystemFile
from gauges.serializers import GaugeOut
from practice.serializers import PracticeOut
from sites.schemas import DecisionOut, SiteOut
from visits.schemas import EntryOut, MomentOut, PhotoOut
from zerodip.trends.history import Past

MOST_AT_ONCE = 50


class HeldStamp(Schema):
    """A system that this person may see, and a word that changes whenever anything of it does."""

    id: UUID
    stamp: str


class HeldWorkspaceOut(Schema):
    """A workspace with what its systems go by; `may_change` tells whether this person may change
    systems and walk visits there, `may_add` whether they may begin sites and systems."""

    id: UUID
    name: str
    may_add: bool
    may_change: bool
    practice: PracticeOut
    gauges: list[GaugeOut]
    met: dict[str, dict[str, int]]


class DeviceOut(Schema):
    """Whose device it is, the server's clock, for how many days without contact it may hold what it
    holds, and what there is to hold."""

    person: int
    name: str
    at: datetime
    days: int
    workspaces: list[HeldWorkspaceOut]
    systems: list[HeldStamp]


class HeldWanted(Schema):
    """Systems wanted, by id."""

    ids: list[UUID] = Field(max_length=MOST_AT_ONCE)


class WriteIn(Schema):
    """A write that waited: the request, and when it was made by the device's clock (ISO 8601)."""

    method: Literal["PUT", "PATCH"]
    path: str = Field(max_length=200)
    body: Any = None
    made: str = Field(max_length=40)


class WritesIn(Schema):
    """Writes that waited, oldest first, and what the device's clock shows now."""

    writes: list[WriteIn] = Field(max_length=MOST_AT_ONCE)
    sent: str = Field(max_length=40)


class Answered(Schema):
    """What came of one of them: what was made, or why not."""

    status: int
    body: dict[str, Any]


class HeldVisitOut(Schema):
    """A visit as a device holds it."""

    id: UUID
    opened_at: datetime
    opened_by: str
    closed_at: datetime | None
    document: SystemFile | None
    learned: list[Any]
    met: dict[str, int] | None
    entries: list[EntryOut]
    photos: list[PhotoOut]


class HeldSystemOut(Schema):
    """A system as a device holds it: see zerodip.answers.held."""

    id: UUID
    stamp: str
    name: str
    site: SiteOut
    workspace: UUID
    version: int
    changed_at: datetime
    retired: bool
    may_change: bool
    may_visit: bool
    document: SystemFile
    decisions: list[DecisionOut]
    moments: list[MomentOut]
    earlier: list[Past]
    learned: list[Any]
    left: dict[str, Any]
    visits: list[HeldVisitOut]
