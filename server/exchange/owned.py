"""What is stored under the ids of a file, looked at once more when it is taken: between checking
and taking others may have stored something there."""

from collections.abc import Iterable, Sequence
from typing import Any, TypeVar
from uuid import UUID

from django.db.models import F, Model

from common.errors import Conflict

__all__ = ["changed_meanwhile", "not_here", "own"]

M = TypeVar("M", bound=Model)


def changed_meanwhile(what: str = "Something here") -> Conflict:
    """The refusal of a file that was checked against what no longer stands."""
    return Conflict(f"{what} was changed since the file was checked. Check it again.", {})


def own(model: type[M], ids: Iterable[str], workspace: str, workspace_id: UUID) -> dict[UUID, M]:
    """What is stored under ids, locked. `workspace` is the lookup that leads to a workspace. Raises
    Conflict where one is another workspace's."""
    found = model._default_manager.select_for_update(of=("self",)).filter(pk__in=list(ids))
    rows: dict[UUID, M] = {}
    for row in found.annotate(owner=F(workspace)).order_by("pk"):
        if row.owner != workspace_id:  # type: ignore[attr-defined]
            raise changed_meanwhile()
        rows[row.pk] = row
    return rows


def not_here(made: Sequence[M], belongs_to: str) -> list[M]:
    """Those of one model that are not stored yet. `belongs_to` names the field of what they belong
    to. Raises Conflict where an id is stored that belongs to something else."""
    if not made:
        return []
    owners = {_id(each): getattr(each, belongs_to) for each in made}
    model: Any = type(made[0])._default_manager
    stored = dict(model.filter(id__in=owners).values_list("id", belongs_to))
    if any(owners[id] != owner for id, owner in stored.items()):
        raise changed_meanwhile()
    return [each for each in made if _id(each) not in stored]


def _id(each: Any) -> UUID:
    id: UUID = each.id
    return id
