"""Records that a piece of an archive brings, beside those that are stored here. What is on record
stays as it is."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db.models import QuerySet

from .ids import Ids

__all__ = ["Brought", "Kept", "closed_there", "new_records", "taken"]

Brought = Mapping[str, list[UUID]]


@dataclass(frozen=True)
class Kept:
    """Records of one sort: in a word, where they are kept, under which key, and the lookup that
    leads to what they are of."""

    word: str
    model: Any
    key: str
    owner: str


def taken(sorts: Iterable[Kept], id: UUID, brought: Brought) -> str:
    """Why records cannot be those of `id`: their ids belong to something else here, or stand twice.
    Such a file was tampered with. "" where they can."""
    for each in sorts:
        stored = each.model.objects.filter(**{f"{each.key}__in": brought[each.word]})
        if stored.exclude(**{each.owner: id}).exists():
            return f"holds a {_singular(each.word)} whose id belongs to another one here."
    every = [each for found in brought.values() for each in found]
    return "holds an id twice." if len(set(every)) != len(every) else ""


def new_records(sorts: Iterable[Kept], id: UUID, brought: Brought) -> list[str]:
    """What is not on record of `id` yet, in words."""
    said = []
    for each in sorts:
        new = {*brought[each.word]}
        if new:
            stored = each.model.objects.filter(**{each.owner: id, f"{each.key}__in": new})
            new -= set(stored.values_list(each.key, flat=True))
        if new:
            said.append(f"{len(new)} {each.word}")
    return said


def closed_there(open_here: QuerySet[Any], brought: Iterable[Any], ids: Ids) -> list[str]:
    """How many of what is open here a file brings closed, in words."""
    closed = set(open_here.values_list("pk", flat=True))
    closed &= {ids(each.id) for each in brought if each.closed_at}
    return [f"{len(closed)} closed"] if closed else []


def _singular(word: str) -> str:
    return "entry" if word == "entries" else word[:-1]
