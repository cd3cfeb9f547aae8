"""Changing visits: one function per change, with permission, transaction and log entry inside.
Every write carries the id that the page gave it, so that sending it again changes nothing."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from hashlib import sha256
from typing import Any
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.clock import Made
from common.errors import Conflict, NotFound
from common.idempotency import same_again, stored_already
from common.transactions import write
from sites.selectors import system_for_actor
from sites.services import put_found
from zerodip.errors import Fault, InvalidInput
from zerodip.visit.additions import (
    CHANGES_FOUND,
    TEACHES,
    learned_after,
    remembered,
    unseen_by,
)
from zerodip.visit.corrections import may_be_corrected
from zerodip.visit.found import found_values
from zerodip.visit.log import Log, Record, log_of
from zerodip.visit.slots import PhotoOf
from zerodip.visit.validation import check_record

from .experience import keep_outcome
from .models import Entry, Photo, Visit
from .next_checks import past_of, refresh_next_checks
from .pictures import rewritten
from .selectors import document_of, learned_before, record_of, records_of, visit_for_actor

__all__ = ["add_entry", "add_photo", "cleaned", "close_visit", "open_visit"]

MOST_PHOTOS = 40


@write
def open_visit(actor: Actor, system_id: UUID, visit_id: UUID, made: Made | None = None) -> Visit:
    """Opens a visit under the id given, or gives the one already open on the system: two people
    walk the same visit. Raises NotFound, Forbidden."""
    system = system_for_actor(actor, system_id, lock=True)
    require(actor, "visits.change", system.site.workspace_id)
    known = stored_already(Visit.objects.filter(pk=visit_id), system_id=system.pk)
    running = known or Visit.objects.filter(system=system, closed_at=None).first()
    if running is not None:
        return running
    made = made or Made(timezone.now())
    visit = Visit.objects.create(
        id=visit_id, system=system, opened_by=actor.user, opened_at=made.at
    )
    _remember(visit)
    log_event(actor.user, "visits.open", system.pk, visit=str(visit.pk), **made.noted)
    return visit


def _remember(visit: Visit) -> None:
    """Puts into the system's file what the last visit left and how long ago."""
    past = past_of([visit.system_id]).get(visit.system_id)
    if past:
        put_found(visit.system, remembered(past[-1], visit.opened_at.timestamp()))


@write
def add_entry(
    actor: Actor,
    visit_id: UUID,
    entry_id: UUID,
    slot: str,
    value: Any,
    supersedes: UUID | None,
    made: Made | None = None,
    by_gauge: str = "",
) -> tuple[Visit, list[Record]]:
    """Adds one record; gives the visit with all its records. The same id again changes nothing; a
    closed visit takes only what puts its readings right. Raises InvalidInput, Conflict (with what
    stands there now, or when the visit is closed), NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    records = records_of(visit)
    known = next((record for record in records if record.id == str(entry_id)), None)
    if known is not None:
        same_again({"slot": known.slot, "value": known.value}, {"slot": slot, "value": value})
        return visit, records
    stored_already(Entry.objects.filter(id=entry_id), visit_id=visit.pk)
    faults = check_record(slot, value)
    if faults:
        raise InvalidInput(faults)
    if visit.closed_at is not None and not may_be_corrected(slot, supersedes is not None):
        raise Conflict(
            "The visit is closed. Its readings can be corrected; nothing else.", {"closed": True}
        )
    _no_overwriting(log_of(records), slot, value, supersedes)
    made = made or Made(timezone.now())
    entry = Entry.objects.create(
        id=entry_id,
        visit=visit,
        slot=slot,
        value=value,
        supersedes=supersedes,
        made_by=actor.user,
        by_gauge=by_gauge,
        made_at=_after(made.at, records, supersedes),
    )
    records.append(record_of(entry))
    records.sort(key=lambda record: datetime.fromisoformat(record.at))
    _follow_up(visit, log_of(records), slot)
    noted = {"visit": str(visit.pk), "slot": slot, **made.noted}
    log_event(actor.user, "visits.change", visit.system_id, **noted)
    return visit, records


def _after(at: datetime, records: Sequence[Record], supersedes: UUID | None) -> datetime:
    """A correction comes after what it corrects, whatever the clocks say."""
    corrected = (datetime.fromisoformat(r.at) for r in records if r.id == str(supersedes))
    return max([at, *(time + timedelta(microseconds=1) for time in corrected)])


def _follow_up(visit: Visit, log: Log, slot: str) -> None:
    """What follows from a record: nuts teach, readings go into the system's file, corrections move
    the next check."""
    if slot in TEACHES:
        _learn(visit, log)
    if visit.closed_at is not None:
        refresh_next_checks([visit.system])
    elif slot in CHANGES_FOUND:
        put_found(visit.system, found_values(log))


def _no_overwriting(log: Log, name: str, value: Any, supersedes: UUID | None) -> None:
    current = unseen_by(log, name, value, str(supersedes) if supersedes else None)
    if current is not None:
        stored = {"slot": name, "entry": current.id, "value": current.value, "by": current.by}
        raise Conflict("Somebody recorded another value meanwhile.", {**stored, "yours": value})


def _learn(visit: Visit, log: Log) -> None:
    """Keeps what the tries teach of the nuts, for the next visit."""
    visit.learned = learned_after(document_of(visit), log, learned_before(visit))
    visit.save(update_fields=["learned"])


@write
def close_visit(actor: Actor, visit_id: UUID, made: Made | None = None) -> Visit:
    """Closes a visit for good, with the system's file as it stands. Safe to repeat. Raises
    NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    if visit.closed_at is None:
        made = made or Made(timezone.now())
        visit.closed_at, visit.document = _after_all(made.at, visit), visit.system.document
        visit.save(update_fields=["closed_at", "document"])
        refresh_next_checks([visit.system])
        keep_outcome(visit, log_of(records_of(visit)))
        log_event(actor.user, "visits.close", visit.system_id, visit=str(visit.pk), **made.noted)
    return visit


def _after_all(at: datetime, visit: Visit) -> datetime:
    """A visit is closed after everything in it, whatever the clocks say."""
    last: datetime | None = visit.entries.aggregate(last=Max("made_at"))["last"]
    return max(at, visit.opened_at, last or at)


@write
def add_photo(
    actor: Actor, visit_id: UUID, photo_id: UUID, plate: PhotoOf, data: bytes, draft: bool = False
) -> Photo:
    """Adds a photo (JPEG or PNG) and what it is of. Where a draft of it stands it takes its place,
    also when the visit was closed meanwhile. Raises InvalidInput, Conflict (closed), NotFound,
    Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    known = stored_already(Photo.objects.filter(pk=photo_id), visit_id=visit.pk)
    if known is not None:
        sent = known.sent or _digest(known.data)
        yours = sent if draft or known.draft else _digest(data)
        same_again({"plate": known.plate, "sha256": sent}, {"plate": plate, "sha256": yours})
        if draft or not known.draft:
            return known
    elif visit.closed_at is not None:
        raise Conflict("The visit is closed: no photo can be added.", {"closed": True})
    kind, kept = _picture(data, visit.photos.count() if known is None else 0)
    photo, _ = Photo.objects.update_or_create(
        id=photo_id,
        defaults={"visit": visit, "plate": plate, "draft": draft}
        | {"kind": kind, "data": kept, "sent": _digest(data)},
    )
    log_event(actor.user, "visits.photo", visit.system_id, visit=str(visit.pk))
    return photo


def _picture(data: bytes, others: int) -> tuple[str, bytes]:
    """The kind and bytes of a photo as it is kept, beside others. Raises InvalidInput."""
    picture = rewritten(data)
    if picture is not None and others < MOST_PHOTOS:
        return picture
    says = (
        "must be a JPEG or PNG, of at most 50 million points."
        if picture is None
        else f"are {MOST_PHOTOS} already: enough for one visit."
    )
    raise InvalidInput([Fault(path="photo", code="not_a_photo", title="Photos", says=says)])


def cleaned(photo: Photo) -> Photo:
    """A photo as it may go out. One that came with an archive is written anew when it is first
    asked for; raises NotFound where it turns out to be no picture."""
    if photo.sent:
        return photo
    picture = rewritten(bytes(photo.data))
    if picture is None:
        raise NotFound
    photo.sent = _digest(photo.data)
    photo.kind, photo.data = picture
    photo.save(update_fields=["kind", "data", "sent"])
    return photo


def _digest(data: bytes | memoryview) -> str:
    return sha256(data).hexdigest()
