"""Writes that are safe to repeat: every one carries the id that its maker gave it."""

from collections.abc import Mapping
from typing import Any, TypeVar

from django.db.models import Model, QuerySet

from .errors import Conflict, NotFound

__all__ = ["same_again", "stored_already"]

M = TypeVar("M", bound=Model)


def stored_already(found: QuerySet[M], **owner: Any) -> M | None:
    """What stands under an id already, if anything. Raises NotFound where it belongs to something
    else than `owner`: an id is not a way to somebody else's things."""
    known = found.first()
    if known is not None and any(getattr(known, name) != value for name, value in owner.items()):
        raise NotFound
    return known


def same_again(stored: Mapping[str, Any], yours: Mapping[str, Any]) -> None:
    """A write that comes again under its id is the same write. Raises Conflict, which shows both,
    where it says something else than what is stored."""
    if stored != yours:
        says = "Something else is stored under this id already."
        raise Conflict(says, {"stored": dict(stored), "yours": dict(yours)})
