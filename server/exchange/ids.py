"""Ids of what comes in. A file may come from another workspace of this very server, or be taken
into two: what is taken elsewhere gets an id of its own here, always the same one, so that taking
the file again changes nothing."""

from collections.abc import Callable
from uuid import UUID, uuid5

__all__ = ["Ids", "ids_for"]

Ids = Callable[[UUID], UUID]


def ids_for(workspace_id: UUID, moved: bool) -> Ids:
    """How the ids of a piece are taken over; `moved` tells that its own belongs to another
    workspace."""
    return (lambda each: uuid5(workspace_id, str(each))) if moved else (lambda each: each)
