"""What a recording says, taken into a visit as readings, on request."""

from uuid import UUID, uuid5

from django.db import transaction

from accounts.permissions import Actor, require
from common.errors import Conflict
from visits.selectors import visit_for_actor
from visits.services import add_entry
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.recording.offers import offers_of

from .selectors import recording_for_actor
from .store import reading_of

__all__ = ["take_readings"]


def take_readings(
    actor: Actor, recording_id: UUID, visit_id: UUID, units: str
) -> tuple[list[str], list[str]]:
    """Takes what a recording offers into a visit on its system; gives the titles taken, and those
    left because somebody recorded another value there, or the kind of system has no place for them.
    Safe to repeat. Raises Conflict (closed, or of another system), NotFound, Forbidden."""
    recording = recording_for_actor(actor, recording_id)
    require(actor, "visits.change", recording.system.site.workspace_id)
    visit = visit_for_actor(actor, visit_id)
    if visit.system_id != recording.system_id:
        raise Conflict("The visit is on another system.", {"system": str(visit.system_id)})
    if visit.closed_at is not None:
        raise Conflict("The visit is closed.", {"closed": True})
    taken, left = [], []
    reading = reading_of(recording)
    altitude_m = read_document(recording.system.document).system.site.altitude_m
    offers = offers_of(reading, recording.name, units, altitude_m) if reading else []
    for offer in offers:
        entry = uuid5(recording.pk, f"{visit.pk} {offer.slot} {offer.title}")
        try:
            with transaction.atomic():
                add_entry(actor, visit.pk, entry, offer.slot, offer.value, None)
            taken.append(offer.title)
        except (Conflict, InvalidInput):
            left.append(offer.title)
    return taken, left
