"""Reading the practice of workspaces."""

from uuid import UUID

from accounts.permissions import Actor
from zerodip.fileformat.document import FOLLOWS, plain
from zerodip.fileformat.fields import read
from zerodip.kinds.settings import Practice

from .models import WorkspacePractice

__all__ = ["practice_of", "practices_for_actor", "stored_practice", "usual_practice"]


def stored_practice(workspace_id: UUID) -> WorkspacePractice:
    """What is stored for a workspace; the usual practice where nothing was chosen yet."""
    known = WorkspacePractice.objects.filter(workspace_id=workspace_id).first()
    return known or WorkspacePractice(workspace_id=workspace_id, practice=usual_practice())


def usual_practice() -> dict[str, object]:
    """The practice of a workspace that has chosen nothing, as plain values."""
    return plain(Practice(follows=FOLLOWS))


def practice_of(workspace_id: UUID) -> Practice:
    """The workspace's practice, as its systems follow it."""
    practice, _ = read(Practice, stored_practice(workspace_id).practice)
    return practice or Practice(follows=FOLLOWS)


def practices_for_actor(actor: Actor) -> list[WorkspacePractice]:
    """The practices of the actor's workspaces; two queries."""
    ids = actor.workspaces("practice.read")
    known = (
        WorkspacePractice.objects.filter(workspace_id__in=ids).select_related("workspace").in_bulk()
    )
    others = actor.named(set(ids) - set(known))
    usual = [WorkspacePractice(workspace=each, practice=usual_practice()) for each in others]
    return sorted([*known.values(), *usual], key=lambda each: each.workspace.name)
