"""Reading visits, from the actor on."""

from typing import NamedTuple, TypedDict
from uuid import UUID

from django.db.models import Q, QuerySet, Value
from django.db.models.expressions import OuterRef, Subquery
from django.db.models.functions import Coalesce, Concat, NullIf, Trim

from accounts.models import shown
from accounts.permissions import Actor
from common.errors import NotFound
from common.json_responses import as_iso, as_seconds, as_text
from sites.models import System
from sites.selectors import systems_for_actor
from zerodip.fileformat.document import Document, read_document
from zerodip.switch.learned import Learned, read_learned
from zerodip.visit.additions import left_by_slot
from zerodip.visit.log import Record, log_of
from zerodip.visit.slots import PLACE, SWITCH_REPLACED
from zerodip.visit.view import VisitAsked

from .models import Entry, NextCheck, Photo, Visit

__all__ = [
    "asked_of",
    "document_of",
    "learned_before",
    "learned_on",
    "next_checks",
    "open_visits",
    "photo_for_actor",
    "record_of",
    "records_of",
    "visit_for_actor",
    "visits_of",
]


def visit_for_actor(actor: Actor, visit_id: UUID, lock: bool = False) -> Visit:
    """One visit with its system, or NotFound; both locked until the transaction ends if asked."""
    visits = Visit.objects.filter(system__in=systems_for_actor(actor)).select_related(
        "system__site"
    )
    if lock:
        visits = visits.select_for_update(of=("self", "system"))
    visit = visits.filter(pk=visit_id).first()
    if visit is None:
        raise NotFound
    return visit


def photo_for_actor(actor: Actor, visit_id: UUID, photo_id: UUID) -> Photo:
    """One photo of a visit, or NotFound."""
    photo = visit_for_actor(actor, visit_id).photos.filter(pk=photo_id).first()
    if photo is None:
        raise NotFound
    return photo


def document_of(visit: Visit) -> Document:
    """The system's file that a visit goes by: as it stands, or as it was when the visit was
    closed."""
    return read_document(visit.system.document if visit.document is None else visit.document)


def record_of(entry: Entry) -> Record:
    """One entry as the core reads it, with who made it and when."""
    return Record(
        id=str(entry.id),
        slot=entry.slot,
        value=entry.value,
        supersedes=str(entry.supersedes) if entry.supersedes else None,
        at=entry.made_at.isoformat(),
        by=shown(entry.made_by, entry.by),
        by_gauge=entry.by_gauge,
    )


def records_of(visit: Visit) -> list[Record]:
    """The visit's entries, oldest first, as the core reads them."""
    return [record_of(entry) for entry in visit.entries.select_related("made_by")]


def learned_before(visit: Visit) -> Learned:
    """What the visits before learned of the nuts of the switch that is there."""
    earlier = Visit.objects.filter(system_id=visit.system_id, opened_at__lt=visit.opened_at)
    return learned_on(earlier)


def learned_on(visits: QuerySet[Visit]) -> Learned:
    """What the latest of some visits that turned nuts learned of them; nothing where the switch was
    replaced on one after it."""
    words = Entry.objects.filter(visit=OuterRef("pk"), slot=SWITCH_REPLACED.name)
    replaced = words.order_by("-made_at", "-number").values("value")[:1]
    told = visits.annotate(replaced=Subquery(replaced)).filter(~Q(learned=[]) | Q(replaced=True))
    taught = told.values_list("learned", flat=True).first()
    return read_learned(taught or [])[0]


def asked_of(visit: Visit, order: str = "together", eager: bool = False) -> VisitAsked:
    """What goes with a visit when it is shown: what the one before left, by slot, and what was
    learned of the nuts."""
    earlier = Visit.objects.filter(system_id=visit.system_id, opened_at__lt=visit.opened_at)
    last = earlier.values("pk")[:1]
    log = log_of(
        record_of(entry) for entry in Entry.objects.filter(visit__in=last).select_related("made_by")
    )
    return VisitAsked(
        last=left_by_slot(log),
        learned=learned_before(visit),
        order="first" if order == "first" else "together",
        eager=eager,
    )


def visits_of(system: System, most: int = 20) -> list[Visit]:
    """The system's latest visits, newest first, each with the step where it stands (`place`); one
    query."""
    said = Entry.objects.filter(visit=OuterRef("pk"), slot=PLACE.name).order_by(
        "-made_at", "-number"
    )
    visits = system.visits.select_related("opened_by").annotate(
        place=Subquery(said.values("value")[:1])
    )
    return list(visits[:most])


class OpenVisitRow(TypedDict):
    """A visit that was left open."""

    id: UUID
    system: UUID
    opened_at: str
    opened_by: str


def open_visits(actor: Actor) -> list[OpenVisitRow]:
    """The visits left open on systems that the actor may see, oldest first; one query."""
    visits = Visit.objects.filter(system__in=systems_for_actor(actor).values("pk"), closed_at=None)
    name = Trim(Concat("opened_by__first_name", Value(" "), "opened_by__last_name"))
    who = Coalesce(NullIf(name, Value("")), "opened_by__username", "by")
    rows = visits.order_by("opened_at").annotate(at=as_iso("opened_at"), who=who)
    return [
        OpenVisitRow(id=id, system=system, opened_at=at, opened_by=who)
        for id, system, at, who in rows.values_list("pk", "system_id", "at", "who")
    ]


class StoredCheck(NamedTuple):
    """What the past visits say of a system: times (ISO 8601, seconds since 1970), packed words."""

    system: UUID
    last_at: str
    due_at: str | None
    leaves_at: str | None
    due_s: float | None
    leaves_s: float | None
    drifting: str
    seen: str


def next_checks(actor: Actor) -> list[StoredCheck]:
    """The next check of every system that the actor may see and that was visited; one query."""
    checks = NextCheck.objects.filter(system__in=systems_for_actor(actor).values("pk"))
    columns = {"last": as_iso("last_at"), "due": as_iso("due_at"), "leaves": as_iso("leaves_at")}
    rows = checks.annotate(**columns, told=as_text("drifting"), left=as_text("seen"))
    rows = rows.annotate(due_s=as_seconds("due_at"), leaves_s=as_seconds("leaves_at"))
    names = ("system_id", *columns, "due_s", "leaves_s", "told", "left")
    return [StoredCheck(*row) for row in rows.values_list(*names)]
