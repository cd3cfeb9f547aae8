"""Visits as the API shows them."""

from dataclasses import asdict
from typing import Any

from config.answers import packed
from people.models import shown
from people.policies import Actor
from zerodip.trends.history import due_state
from zerodip.visit.guide import visit_view
from zerodip.visit.late import late_view
from zerodip.visit.records import log_of

from .models import Visit
from .selectors import before, document_of, records_of

__all__ = ["outlook_row", "visit_out", "visit_row"]


def visit_out(actor: Actor, visit: Visit, units: str, order: str = "together", eager: bool = False) -> dict[str, Any]:
    """One visit with what its steps show."""
    system = visit.system
    system.refresh_from_db()
    records = records_of(visit)
    last, slopes = before(visit)
    view = visit_view(document_of(visit), records, units, last, slopes, order, eager)
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
        "closed_at": visit.closed_at,
        "late": late_view(records, visit.closed_at.isoformat(), units) if visit.closed_at else None,
        "may_change": actor.may("visits.change", system.site.workspace_id),
        "view": view,
        "entries": [asdict(record) for record in records],
        "photos": [{"id": photo.pk, "plate": photo.plate} for photo in visit.photos.only("id", "plate")],
    }


def visit_row(visit: Visit) -> dict[str, Any]:
    """A visit in a list, with the step where it stands."""
    place = log_of(records_of(visit)).value("place") or "safe"
    return {
        "id": visit.pk,
        "system": visit.system_id,
        "opened_at": visit.opened_at,
        "opened_by": shown(visit.opened_by, visit.by),
        "open": visit.closed_at is None,
        "place": place,
    }


def outlook_row(row: dict[str, Any], now_s: float) -> dict[str, Any]:
    """What the past visits say of a system, and how its check stands at `now_s` (since 1970)."""
    return {
        "system": row["system_id"],
        "last_at": row["last"],
        "due_at": row["due"],
        "leaves_at": row["leaves"],
        "drifting": packed(row["told"]),
        "state": due_state(row["due_s"], now_s),
    }
