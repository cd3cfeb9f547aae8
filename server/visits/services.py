"""Changing visits: one function per change, with permission, transaction and log entry inside. Every write carries the id
that the page gave it, so that sending it again changes nothing."""

from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from config.problems import Conflict
from config.repeats import stored_already
from journal.services import note
from people.policies import Actor, require
from plants.models import System
from plants.selectors import system_for_actor
from plants.services import mirror
from zerodip.errors import Fault, InvalidInput
from zerodip.trends.history import YEAR_S
from zerodip.visit.late import may_come_late
from zerodip.visit.records import AIR_GAUGE, SERIES, SYSTEM_GAUGE, Log, check_record, log_of
from zerodip.visit.records import Entry as Record
from zerodip.visit.setting import set_view

from .models import Entry, Photo, Visit
from .outlook import past_of, refresh_outlook
from .records import record_of
from .selectors import document_of, records_of, slopes_before, visit_for_actor

__all__ = ["MIRRORED", "add_entry", "add_photo", "close_visit", "open_visit"]

# A reading of the visit that is also a figure of the system's file, so that Decide goes by it.
MIRRORED = {
    "found.pre_charge": "pre_charge_gauge_pa",
    "found.cut_in": "cut_in_gauge_pa",
    "found.cut_out": "cut_out_gauge_pa",
}
KINDS = {b"\xff\xd8\xff": "image/jpeg", b"\x89PNG": "image/png"}
MOST_PHOTOS = 40
LEAST_YEARS = 0.02  # a week: nothing of a loss can be told sooner


@transaction.atomic
def open_visit(actor: Actor, system_id: UUID, visit_id: UUID) -> Visit:
    """Opens a visit under the id given, or gives the one already open on the system: two people walk the same visit.
    Raises NotFound, Forbidden."""
    system: System = system_for_actor(actor, system_id, lock=True)
    require(actor, "visits.change", system.site.workspace_id)
    known = stored_already(Visit.objects.filter(pk=visit_id), system_id=system.pk)
    running = known or Visit.objects.filter(system=system, closed_at=None).first()
    if running is not None:
        return running
    visit = Visit.objects.create(id=visit_id, system=system, opened_by=actor.user)
    _remember(visit)
    note(actor.user, "visits.open", system.pk, visit=str(visit.pk))
    return visit


def _remember(visit: Visit) -> None:
    """Puts into the system's file what the last visit left and how long ago; what was found then is not found now."""
    past = past_of(visit.system)
    if not past:
        return
    left, years = past[-1].figures.left, (visit.opened_at.timestamp() - past[-1].at_s) / YEAR_S
    if left.pre_charge_gauge_pa is not None and years >= LEAST_YEARS:
        mirror(visit.system_id, last_pre_charge_gauge_pa=left.pre_charge_gauge_pa, last_years_ago=years)
    mirror(visit.system_id, **dict.fromkeys(MIRRORED.values()))


@transaction.atomic
def add_entry(actor: Actor, visit_id: UUID, entry_id: UUID, slot: str, value: Any, supersedes: UUID | None) -> Visit:
    """Adds one record. The same id again changes nothing; a closed visit takes only what puts its readings right. Raises
    InvalidInput, Conflict (with what stands there now, or when the visit is closed), NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    if stored_already(Entry.objects.filter(id=entry_id), visit_id=visit.pk) is not None:
        return visit
    faults = check_record(slot, value)
    if faults:
        raise InvalidInput(faults)
    if visit.closed_at is not None and not may_come_late(slot, supersedes is not None):
        raise Conflict("The visit is closed. Its readings can be corrected; nothing else.", {"closed": True})
    records = records_of(visit)
    _no_overwriting(log_of(records), slot, value, supersedes)
    made = Entry.objects.create(
        id=entry_id, visit=visit, slot=slot, value=value, supersedes=supersedes, made_by=actor.user
    )
    log = log_of([*records, record_of(made)])
    if slot == "try":
        _learn(visit, log)
    if visit.closed_at is not None:
        refresh_outlook(visit.system)
    elif slot in MIRRORED or slot in (SYSTEM_GAUGE, AIR_GAUGE):
        _mirror(visit, log, [slot] if slot in MIRRORED else list(MIRRORED))
    note(actor.user, "visits.change", visit.system_id, visit=str(visit.pk), slot=slot)
    return visit


def _mirror(visit: Visit, log: Log, slots: list[str]) -> None:
    """Puts what was found into the system's file, freed of what the gauge is known to read low by."""
    for slot in slots:
        if slot in log.values:
            mirror(visit.system_id, **{MIRRORED[slot]: log.true(slot)})


def _no_overwriting(log: Log, slot: str, value: Any, supersedes: UUID | None) -> None:
    """A slot with one value is changed only by who has seen what stands there; an entry of a series is corrected only by who
    has seen how it stands; turns of the nuts are recorded only by who has seen the look before. What a person confirms
    (and where the visit stands) is the last word of whoever said it."""
    if slot == "place" or slot.startswith("safe."):
        return
    if slot in SERIES:
        current = _unseen(log, slot, value, supersedes)
    else:
        current = log.values.get(slot)
        if current is None or current.value == value or str(supersedes) == current.id:
            return
    if current is not None:
        stored = {"slot": slot, "entry": current.id, "value": current.value, "by": current.by}
        raise Conflict("Somebody recorded another value meanwhile.", {**stored, "yours": value})


def _unseen(log: Log, slot: str, value: Any, supersedes: UUID | None) -> Record | None:
    """The entry of a series that whoever writes now has not seen."""
    kept = log.series.get(slot, ())
    if supersedes is not None:
        standing = log.standing(str(supersedes))
        if standing is None:
            says = "is no entry of this visit that could be corrected."
            raise InvalidInput([Fault(path="supersedes", code="not_known", title="The entry to correct", says=says)])
        return None if standing.id == str(supersedes) else standing
    after = value.get("after") if isinstance(value, dict) else None
    return kept[-1] if after is not None and after < len(kept) else None


def _learn(visit: Visit, log: Log) -> None:
    """Keeps what the tries teach of the nuts, for the next visit; a switch that was only watched taught nothing."""
    document = document_of(visit)
    facts = document.facts()
    slopes = slopes_before(visit)
    if not slopes and not any(each.first or each.second for each in log.records("try")):
        return
    visit.slopes = list(set_view(facts, log, "us", slopes).slopes)
    visit.save(update_fields=["slopes"])


@transaction.atomic
def close_visit(actor: Actor, visit_id: UUID) -> Visit:
    """Closes a visit for good, with the system's file as it stands. Safe to repeat. Raises NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    if visit.closed_at is None:
        visit.closed_at, visit.document = timezone.now(), visit.system.document
        visit.save(update_fields=["closed_at", "document"])
        refresh_outlook(visit.system)
        note(actor.user, "visits.close", visit.system_id, visit=str(visit.pk))
    return visit


@transaction.atomic
def add_photo(actor: Actor, visit_id: UUID, photo_id: UUID, plate: str, data: bytes) -> Photo:
    """Adds a photo (JPEG or PNG) to a plate. Raises InvalidInput, Conflict (closed), NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    known = stored_already(Photo.objects.filter(pk=photo_id), visit_id=visit.pk)
    if known is not None:
        return known
    if visit.closed_at is not None:
        raise Conflict("The visit is closed: no photo can be added.", {"closed": True})
    kind = next((kind for start, kind in KINDS.items() if data.startswith(start)), None)
    if kind is None or visit.photos.count() >= MOST_PHOTOS:
        says = "must be a JPEG or PNG." if kind is None else f"are {MOST_PHOTOS} already: enough for one visit."
        raise InvalidInput([Fault(path="photo", code="not_a_photo", title="Photos", says=says)])
    photo = Photo.objects.create(id=photo_id, visit=visit, plate=plate[:20], kind=kind, data=data)
    note(actor.user, "visits.photo", visit.system_id, visit=str(visit.pk))
    return photo
