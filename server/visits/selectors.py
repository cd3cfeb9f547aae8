"""Reading visits, from the actor on."""

from typing import Any
from uuid import UUID

from django.db.models import Value
from django.db.models.functions import Coalesce, Concat, NullIf, Trim

from config.answers import as_iso, as_seconds, as_text
from config.problems import NotFound
from people.policies import Actor
from plants.models import System
from plants.selectors import systems_for_actor
from zerodip.document import Document, read_document
from zerodip.visit.records import Entry as Record
from zerodip.visit.records import log_of

from .models import Outlook, Photo, Visit
from .records import record_of

__all__ = [
    "before",
    "document_of",
    "open_visits",
    "outlooks",
    "photo_for_actor",
    "records_of",
    "visit_for_actor",
    "visits_of",
]


def visit_for_actor(actor: Actor, visit_id: UUID, lock: bool = False) -> Visit:
    """One visit, or NotFound; locked until the transaction ends if asked."""
    visits = Visit.objects.filter(system__in=systems_for_actor(actor)).select_related("system__site")
    visit = (visits.select_for_update(of=("self",)) if lock else visits).filter(pk=visit_id).first()
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
    """The system's file that a visit goes by: as it stands, or as it was when the visit was closed."""
    return read_document(visit.system.document if visit.document is None else visit.document)


def records_of(visit: Visit) -> list[Record]:
    """The visit's entries, oldest first, as the core reads them."""
    return [record_of(entry) for entry in visit.entries.select_related("made_by")]


def before(visit: Visit) -> tuple[dict[str, Any], list[float]]:
    """What the visit before left, by slot, and what the latest visit that turned nuts learned of them."""
    earlier = Visit.objects.filter(system_id=visit.system_id, opened_at__lt=visit.opened_at)
    last = earlier.first()
    values: dict[str, Any] = {}
    if last is not None:
        log = log_of(records_of(last))
        values = {slot: entry.value for slot, entry in log.values.items()}
        if log.value("air.left") is not None:
            values["found.pre_charge"] = log.value("air.left")
    return values, slopes_before(visit)


def slopes_before(visit: Visit) -> list[float]:
    """What the latest visit before that turned nuts learned of them."""
    earlier = Visit.objects.filter(system_id=visit.system_id, opened_at__lt=visit.opened_at)
    taught = earlier.exclude(slopes=[]).first()
    return list(taught.slopes) if taught else []


def visits_of(system: System, most: int = 20) -> list[Visit]:
    """The system's latest visits, newest first."""
    return list(system.visits.select_related("opened_by")[:most])


def open_visits(actor: Actor) -> list[dict[str, Any]]:
    """The visits left open on systems that the actor may see, oldest first; one query."""
    visits = Visit.objects.filter(system__in=systems_for_actor(actor).values("pk"), closed_at=None)
    name = Trim(Concat("opened_by__first_name", Value(" "), "opened_by__last_name"))
    who = Coalesce(NullIf(name, Value("")), "opened_by__username", "by")
    rows = visits.order_by("opened_at").annotate(at=as_iso("opened_at"), who=who)
    return [
        {"id": id, "system": system, "opened_at": at, "opened_by": who}
        for id, system, at, who in rows.values_list("pk", "system_id", "at", "who")
    ]


def outlooks(actor: Actor) -> list[dict[str, Any]]:
    """The outlook of every system that the actor may see and that was visited; one query."""
    seen = Outlook.objects.filter(system__in=systems_for_actor(actor).values("pk"))
    columns = {"last": as_iso("last_at"), "due": as_iso("due_at"), "leaves": as_iso("leaves_at")}
    rows = seen.annotate(**columns, due_s=as_seconds("due_at"), told=as_text("drifting"))
    return list(rows.values("system_id", *columns, "due_s", "told"))
