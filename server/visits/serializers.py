"""Visits as the API shows them."""

from collections.abc import Sequence
from dataclasses import replace

from accounts.models import shown
from accounts.permissions import Actor
from common.json_responses import packed
from common.schemas import SystemFile
from sites.schemas import SiteOut
from zerodip.trends.history import due_state, may_be_out
from zerodip.visit.corrections import corrections_view
from zerodip.visit.log import Record
from zerodip.visit.view import visit_view

from .experience import met_in
from .models import Photo, Visit
from .schemas import EntryOut, PackedNextCheck, PhotoOut, VisitOut, VisitRow, VisitSystem
from .selectors import StoredCheck, asked_of, document_of, records_of

__all__ = ["next_check_row", "photo_out", "visit_out", "visit_row"]


def visit_out(
    actor: Actor,
    visit: Visit,
    units: str,
    order: str = "together",
    eager: bool = False,
    records: Sequence[Record] | None = None,
) -> VisitOut:
    """One visit with what its steps show. `records` are its records, where they are at hand."""
    system, records = visit.system, records_of(visit) if records is None else records
    closed = visit.closed_at.isoformat() if visit.closed_at else None
    document = document_of(visit)
    # As it was known when the visit was closed.
    met = met_in(system.site.workspace_id, document.system.kind, visit.closed_at)
    return VisitOut.model_construct(
        id=visit.pk,
        system=VisitSystem(
            id=system.pk,
            name=system.name,
            site=SiteOut.from_orm(system.site),
            version=system.version,
            document=SystemFile(system.document),
        ),
        open=closed is None,
        opened_at=visit.opened_at,
        closed_at=visit.closed_at,
        corrections=corrections_view(records, closed, units) if closed else None,
        may_change=actor.may("visits.change", system.site.workspace_id),
        view=visit_view(document, records, units, replace(asked_of(visit, order, eager), met=met)),
        entries=[EntryOut.model_validate(vars(record)) for record in records],
        photos=[photo_out(photo) for photo in visit.photos.only("id", "plate")],
    )


def photo_out(photo: Photo) -> PhotoOut:
    """A photo, to be fetched by its id."""
    return PhotoOut(id=photo.pk, plate=photo.of)


def visit_row(visit: Visit) -> VisitRow:
    """A visit in a list, with the step where it stands (annotated by `visits_of`)."""
    return VisitRow(
        id=visit.pk,
        system=visit.system_id,
        opened_at=visit.opened_at,
        opened_by=shown(visit.opened_by, visit.by),
        open=visit.closed_at is None,
        place=getattr(visit, "place", None) or "watch",
    )


def next_check_row(row: StoredCheck, now_s: float) -> PackedNextCheck:
    """What the past visits say of a system, and how its check stands at `now_s` (since 1970)."""
    return PackedNextCheck(
        system=row.system,
        last_at=row.last_at,
        due_at=row.due_at,
        leaves_at=row.leaves_at,
        drifting=packed(row.drifting),
        seen=packed(row.seen),
        state=due_state(row.due_s, now_s),
        may_be_out=may_be_out(row.leaves_s, now_s),
    )
