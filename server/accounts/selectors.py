"""Reading workspaces, from the actor on."""

from .models import Workspace
from .permissions import Actor

__all__ = ["workspaces_with_members"]


def workspaces_with_members(actor: Actor) -> list[Workspace]:
    """The actor's workspaces with their members; two queries."""
    found = Workspace.objects.filter(pk__in=actor.workspaces("members.read")).order_by("name")
    return list(found.prefetch_related("memberships__user"))
