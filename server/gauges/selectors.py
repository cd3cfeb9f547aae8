"""Reading gauges, from the actor on."""

from uuid import UUID

from accounts.permissions import Actor

from .models import Gauge

__all__ = ["gauges_for_actor", "gauges_in_use"]


def gauges_for_actor(actor: Actor) -> list[Gauge]:
    """The gauges of the actor's workspaces, those out of use last."""
    found = Gauge.objects.filter(workspace__in=actor.workspaces("gauges.read"))
    return list(found.order_by("retired", "data__name", "pk"))


def gauges_in_use(workspace_id: UUID) -> list[Gauge]:
    """The gauges in use of one workspace, whose reader was let in before."""
    return list(Gauge.objects.filter(workspace_id=workspace_id, retired=False))
