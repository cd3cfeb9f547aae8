"""Changing visits: one function per change, with permission, transaction and log entry inside.
Every write carries the id that the page gave it, so that sending it again changes nothing."""

from hashlib import sha256
from typing import Any
from uuid import UUID

from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.errors import Conflict, NotFound
from common.idempotency import same_again, stored_already
from common.transactions import write
from sites.selectors import system_for_actor
from sites.services import put_found
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import plain
from zerodip.switch.learned import learned_of
from zerodip.trends.history import YEAR_S
from zerodip.visit.corrections import may_be_corrected
from zerodip.visit.found import FILE_FIELDS, found_values
from zerodip.visit.log import Log, Record, log_of
from zerodip.visit.slots import AIR_GAUGE_LOW, GAUGE_LOW, SWITCH_REPLACED, TRY, PhotoOf
from zerodip.visit.steps.switch_state import belief_of
from zerodip.visit.validation import check_record, known_slots

from .experience import keep_outcome
from .models import Entry, Photo, Visit
from .next_checks import past_of, refresh_next_checks
from .pictures import rewritten
from .selectors import document_of, learned_before, record_of, records_of, visit_for_actor

__all__ = ["add_entry", "add_photo", "cleaned", "close_visit", "open_visit"]

MOST_PHOTOS = 40
LEAST_YEARS = 0.02  # a week: nothing of a loss can be told sooner
# What changes what was found, as the system's file holds it: the readings themselves, and what
# their gauges are off by.
_FOUND = {*FILE_FIELDS, GAUGE_LOW.name, AIR_GAUGE_LOW.name}


@write
def open_visit(actor: Actor, system_id: UUID, visit_id: UUID) -> Visit:
    """Opens a visit under the id given, or gives the one already open on the system: two people
    walk the same visit. Raises NotFound, Forbidden."""
    system = system_for_actor(actor, system_id, lock=True)
    require(actor, "visits.change", system.site.workspace_id)
    known = stored_already(Visit.objects.filter(pk=visit_id), system_id=system.pk)
    running = known or Visit.objects.filter(system=system, closed_at=None).first()
    if running is not None:
        return running
    visit = Visit.objects.create(id=visit_id, system=system, opened_by=actor.user)
    _remember(visit)
    log_event(actor.user, "visits.open", system.pk, visit=str(visit.pk))
    return visit


def _remember(visit: Visit) -> None:
    """Puts into the system's file what the last visit left and how long ago; what was found then is
    not found now."""
    past = past_of([visit.system_id]).get(visit.system_id)
    if not past:
        return
    left, years = past[-1].summary.left, (visit.opened_at.timestamp() - past[-1].at_s) / YEAR_S
    values: dict[str, float | None] = dict.fromkeys(FILE_FIELDS.values())
    if left.pre_charge_gauge_pa is not None and years >= LEAST_YEARS:
        values |= {"last_pre_charge_gauge_pa": left.pre_charge_gauge_pa, "last_years_ago": years}
    put_found(visit.system, values)


@write
def add_entry(
    actor: Actor, visit_id: UUID, entry_id: UUID, slot: str, value: Any, supersedes: UUID | None
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
    made = Entry.objects.create(
        id=entry_id, visit=visit, slot=slot, value=value, supersedes=supersedes, made_by=actor.user
    )
    records.append(record_of(made))
    _follow_up(visit, log_of(records), slot)
    log_event(actor.user, "visits.change", visit.system_id, visit=str(visit.pk), slot=slot)
    return visit, records


def _follow_up(visit: Visit, log: Log, slot: str) -> None:
    """What follows from a record: nuts teach, readings go into the system's file, corrections move
    the next check."""
    if slot in (TRY.name, SWITCH_REPLACED.name):
        _learn(visit, log)
    if visit.closed_at is not None:
        refresh_next_checks([visit.system])
    elif slot in _FOUND:
        put_found(visit.system, found_values(log))


def _no_overwriting(log: Log, name: str, value: Any, supersedes: UUID | None) -> None:
    """A slot with one value is changed only by who has seen what stands there; an entry of a series
    is corrected only by who has seen how it stands; turns of the nuts are recorded only by who has
    seen the look before. What a person confirms (and where the visit stands) is the last word of
    whoever said it."""
    slot = known_slots()[name]
    if slot.last_word:
        return
    if slot.series:
        current = _unseen(log, name, value, supersedes)
    else:
        current = log.values.get(name)
        if current is None or current.value == value or str(supersedes) == current.id:
            return
    if current is not None:
        stored = {"slot": name, "entry": current.id, "value": current.value, "by": current.by}
        raise Conflict("Somebody recorded another value meanwhile.", {**stored, "yours": value})


def _unseen(log: Log, name: str, value: Any, supersedes: UUID | None) -> Record | None:
    """The entry of a series that whoever writes now has not seen."""
    kept = log.series.get(name, ())
    if supersedes is not None:
        standing = log.standing(str(supersedes))
        if standing is None:
            says = "is no entry of this visit that could be corrected."
            fault = Fault(
                path="supersedes", code="not_known", title="The entry to correct", says=says
            )
            raise InvalidInput([fault])
        return None if standing.id == str(supersedes) else standing
    after = value.get("after") if isinstance(value, dict) else None
    return kept[-1] if after is not None and after < len(kept) else None


def _learn(visit: Visit, log: Log) -> None:
    """Keeps what the tries teach of the nuts, for the next visit; a switch that was only watched
    taught nothing."""
    turned = any(each.turned for each in log.all(TRY))
    belief = belief_of(document_of(visit).figures(), log, learned_before(visit)) if turned else None
    visit.learned = [] if belief is None else [plain(slope) for slope in learned_of(belief)]
    visit.save(update_fields=["learned"])


@write
def close_visit(actor: Actor, visit_id: UUID) -> Visit:
    """Closes a visit for good, with the system's file as it stands. Safe to repeat. Raises
    NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    if visit.closed_at is None:
        visit.closed_at, visit.document = timezone.now(), visit.system.document
        visit.save(update_fields=["closed_at", "document"])
        refresh_next_checks([visit.system])
        keep_outcome(visit, log_of(records_of(visit)))
        log_event(actor.user, "visits.close", visit.system_id, visit=str(visit.pk))
    return visit


@write
def add_photo(actor: Actor, visit_id: UUID, photo_id: UUID, plate: PhotoOf, data: bytes) -> Photo:
    """Adds a photo (JPEG or PNG) and what it is of. Raises InvalidInput, Conflict (closed),
    NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    known = stored_already(Photo.objects.filter(pk=photo_id), visit_id=visit.pk)
    if known is not None:
        same_again(
            {"plate": known.plate, "sha256": known.sent or _digest(known.data)},
            {"plate": plate, "sha256": _digest(data)},
        )
        return known
    if visit.closed_at is not None:
        raise Conflict("The visit is closed: no photo can be added.", {"closed": True})
    picture = rewritten(data)
    if picture is None or visit.photos.count() >= MOST_PHOTOS:
        says = (
            "must be a JPEG or PNG, of at most 50 million points."
            if picture is None
            else f"are {MOST_PHOTOS} already: enough for one visit."
        )
        raise InvalidInput([Fault(path="photo", code="not_a_photo", title="Photos", says=says)])
    kind, kept = picture
    photo = Photo.objects.create(
        id=photo_id, visit=visit, plate=plate, kind=kind, data=kept, sent=_digest(data)
    )
    log_event(actor.user, "visits.photo", visit.system_id, visit=str(visit.pk))
    return photo


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
