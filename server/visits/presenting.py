"""Visits as the API shows them."""

from dataclasses import asdict
from typing import Any

from django.utils import timezone

from people.policies import PERMISSIONS, Actor
from zerodip.document import read_document
from zerodip.trends.history import due_state
from zerodip.visit.guide import visit_view
from zerodip.visit.records import log_of

from .models import Outlook, Visit
from .selectors import before, records_of

__all__ = ["open_row", "outlook_row", "visit_out", "visit_row"]


def visit_out(actor: Actor, visit: Visit, units: str, order: str = "together", eager: bool = False) -> dict[str, Any]:
    """One visit with what its steps show."""
    system = visit.system
    system.refresh_from_db()
    records = records_of(visit)
    last, slopes = before(visit)
    view = visit_view(read_document(system.document), records, units, last, slopes, order, eager)
    return {
        "id": visit.pk,
        "system": {
            "id": system.pk,
            "name": system.name,
            "site": system.site,
            "version": system.version,
            "document": system.document,
        },
        "open": visit.closed_at is None,
        "opened_at": visit.opened_at,
        "may_change": actor.roles.get(system.site.workspace_id) in PERMISSIONS["visits.change"],
        "view": view,
        "entries": [asdict(record) for record in records],
        "photos": [{"id": photo.pk, "plate": photo.plate} for photo in visit.photos.only("id", "plate")],
    }


def visit_row(visit: Visit) -> dict[str, Any]:
    """A visit in a list, with the step where it stands."""
    place = log_of(records_of(visit)).value("place") or "safe"
    return {**open_row(visit), "open": visit.closed_at is None, "place": place}


def open_row(visit: Visit) -> dict[str, Any]:
    """A visit left open, in a list over systems."""
    by = visit.opened_by
    name = (by.get_full_name() or by.username) if by else ""
    return {"id": visit.pk, "system": visit.system_id, "opened_at": visit.opened_at, "opened_by": name}


def outlook_row(outlook: Outlook) -> dict[str, Any]:
    """What the past visits say of a system, and how its check stands today."""
    due = outlook.due_at.timestamp() if outlook.due_at else None
    return {
        "system": outlook.system_id,
        "last_at": outlook.last_at,
        "due_at": outlook.due_at,
        "leaves_at": outlook.leaves_at,
        "drifting": outlook.drifting,
        "state": due_state(due, timezone.now().timestamp()),
    }
