"""What checking a piece of an import needs: what was found, and what its pieces share."""

from dataclasses import dataclass, field
from functools import cached_property
from typing import Any
from uuid import UUID, uuid5

from django.db.models import F

from practice.selectors import practice_of
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.fields import read
from zerodip.kinds.settings import Practice

from .ids import Ids, ids_for
from .models import Change, Import, Piece

__all__ = ["Context", "Found", "refuse", "under"]


@dataclass
class Found:
    """What taking a piece would do, in a word and in a sentence; what is wrong with it; what is
    ready to be stored."""

    change: Change
    name: str = ""
    says: str = ""
    faults: list[Fault] = field(default_factory=list)
    prepared: dict[str, Any] | None = None

    @property
    def id(self) -> UUID | None:
        """The id that the piece has or will have here."""
        return (
            UUID(self.prepared["id"])
            if self.prepared and self.prepared["id"] != "practice"
            else None
        )


class Context:
    """What the pieces of one import share."""

    def __init__(self, of: Import) -> None:
        self.of, self.workspace_id = of, of.workspace_id

    @cached_property
    def practice(self) -> Practice:
        """The practice that followers will be judged by: the file's own where it brings one."""
        piece = self.of.pieces.filter(kind="practice", prepared__isnull=False).first()
        brought = (
            read(Practice, piece.prepared["practice"])[0] if piece and piece.prepared else None
        )
        return brought or practice_of(self.workspace_id)

    @cached_property
    def sites(self) -> dict[int, UUID]:
        """The ids that the sites have or will have here, by the number of their piece; without
        those that are refused."""
        found = self.of.pieces.filter(kind="site", prepared__isnull=False).values_list(
            "number", "item"
        )
        return {number: item for number, item in found if item is not None}

    @cached_property
    def before(self) -> set[tuple[Any, ...]]:
        """The ids, and the names within a site, of the pieces checked so far."""
        checked = self.of.pieces.exclude(change="").values_list("kind", "item", "site", "name")
        return {
            mark
            for kind, item, site, name in checked
            for mark in ((kind, item), (kind, site, name))
        }

    def remember(self, piece: Piece, found: Found) -> None:
        """A piece that is checked now, for those after it."""
        self.before.update(((piece.kind, found.id), (piece.kind, piece.site, found.name)))
        if piece.kind == "site" and found.id is not None:
            self.sites[piece.number] = found.id

    def stored(self, model: type[Any], id: UUID, workspace: str) -> tuple[Ids, Any]:
        """How the ids of a piece are taken over whose own id is `id`, and what is stored of it
        here, if anything; `workspace` is the lookup that leads to a workspace."""
        moved = uuid5(self.workspace_id, str(id))
        rows = {
            each.pk: each
            for each in model.objects.filter(pk__in=(id, moved)).annotate(owner=F(workspace))
        }
        ids = ids_for(self.workspace_id, id in rows and rows[id].owner != self.workspace_id)
        return ids, rows.get(ids(id))

    def twice(self, piece: Piece, id: UUID, name: str = "") -> str:
        """Why a piece cannot stand beside one before it in the same file; "" where it can."""
        if (piece.kind, id) in self.before:
            return "stands in this file twice."
        if name and (piece.kind, piece.site, name) in self.before:
            return f"has a name that stands in this file twice: “{name}”."
        return ""


def under(path: str, faults: tuple[Fault, ...] | list[Fault]) -> list[Fault]:
    """Faults of a part, their paths those of the whole file."""
    return [Fault(**{**vars(each), "path": f"{path}.{each.path}".rstrip(".")}) for each in faults]


def refuse(title: str, path: str, says: str) -> InvalidInput:
    """The refusal of a piece as a whole, in a sentence."""
    return InvalidInput([Fault(path=path, code="refused", title=title, says=says)])
