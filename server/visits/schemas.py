"""What the visit operations take and give."""

from datetime import datetime
from typing import Any, Literal, TypedDict
from uuid import UUID

from ninja import Schema

from common.schemas import SystemFile
from sites.schemas import SiteOut
from zerodip.diagnosis.experience import CauseMet
from zerodip.visit.corrections import CorrectionsView
from zerodip.visit.slots import PhotoOf
from zerodip.visit.view import VisitView

Order = Literal["together", "first"]
MomentKind = Literal["visit", "decision", "added", "retired", "restored"]


class TroubleWanted(Schema):
    """A trouble to be diagnosed: a system's file, or only its kind and what was read of its
    `plates` (cut_in_gauge_pa, cut_out_gauge_pa, volume_m3, flow_m3_s), what was observed (`item`,
    `value`), how the system stands, and the items that cannot be looked at
    (docs/trouble.schema.json); `system` is the id of the one that it is about, if it is on
    record."""

    system: UUID | None = None
    kind: str | None = None
    system_file: dict[str, Any] | None = None
    plates: dict[str, Any] = {}
    evidence: list[Any] = []
    condition: str = "powered"
    impossible: list[Any] = []


class KindMet(Schema):
    """What the troubles of one kind of system were: outcomes confirmed, those that are `counted`
    since it was set back; of the `judged` ones how often the cause stood first, and among the first
    three; each cause with its share of all as usual and now."""

    kind: str
    title: str
    confirmed: int
    counted: int
    judged: int
    first: int
    among_three: int
    causes: list[CauseMet]


class ExperienceOut(Schema):
    """What a workspace has met, by kind of system; set back at `since`, if ever."""

    since: datetime | None
    may_change: bool
    kinds: list[KindMet]


class EntryIn(Schema):
    """One record: its slot (zerodip.visit.slots), its value, and the entry that it corrects."""

    slot: str
    value: Any = None
    supersedes: UUID | None = None


class EntryOut(Schema):
    """One record as it was made."""

    id: UUID
    slot: str
    value: Any
    supersedes: UUID | None
    at: str
    by: str
    by_gauge: str = ""


class PhotoOut(Schema):
    """A photo, fetched by its id."""

    id: UUID
    plate: PhotoOf


class MomentOut(Schema):
    """Something that happened to a system: what, in a line, by whom; the visit that it leads to,
    with its photos."""

    at: datetime
    kind: MomentKind
    says: str
    by: str
    visit: UUID | None = None
    open: bool = False
    photos: list[PhotoOut] = []


class VisitSystem(Schema):
    """The system that is visited, with its file as it stands."""

    id: UUID
    name: str
    site: SiteOut
    version: int
    document: SystemFile


class VisitOut(Schema):
    """A visit: what its steps show, and every entry ever made."""

    id: UUID
    system: VisitSystem
    open: bool
    opened_at: datetime
    closed_at: datetime | None
    corrections: CorrectionsView | None
    may_change: bool
    view: VisitView
    entries: list[EntryOut]
    photos: list[PhotoOut]


class OpenVisit(Schema):
    """A visit in a list over systems."""

    id: UUID
    system: UUID
    opened_at: datetime
    opened_by: str


class SeenOut(Schema):
    """Something that a visit found and did not put right."""

    verdict: Literal["stop", "caution", "cannot_tell"]
    title: str


class NextCheckOut(Schema):
    """What the past visits say of a system; `drifting` and what the last one left (`seen`) by unit
    system; `state` is how the check stands today,
    `may_be_out` whether the pre-charge may be out of its band."""

    system: UUID
    last_at: datetime
    due_at: datetime | None
    leaves_at: datetime | None
    drifting: dict[str, list[str]]
    seen: dict[str, list[SeenOut]]
    state: Literal["overdue", "soon", "later", "none"]
    may_be_out: bool


class VisitRow(OpenVisit):
    """A visit in the list of its system."""

    open: bool
    place: str


class PackedNextCheck(TypedDict):
    """`NextCheckOut` as it is written out: columns go from the database into the answer as they
    are."""

    system: UUID
    last_at: str
    due_at: str | None
    leaves_at: str | None
    drifting: Any
    seen: Any
    state: str
    may_be_out: bool
