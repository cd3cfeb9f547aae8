"""Entries as the core reads them."""

from people.models import shown
from zerodip.visit.records import Entry as Record

from .models import Entry

__all__ = ["record_of"]


def record_of(entry: Entry) -> Record:
    """One entry with who made it and when."""
    return Record(
        id=str(entry.id),
        slot=entry.slot,
        value=entry.value,
        supersedes=str(entry.supersedes) if entry.supersedes else None,
        at=entry.made_at.isoformat(),
        by=shown(entry.made_by, entry.by),
    )
