"""Recordings that an actor may see."""

from uuid import UUID

from django.db.models import QuerySet

from accounts.permissions import Actor
from common.errors import NotFound

from .models import Recording

__all__ = ["recording_for_actor", "recordings_for_actor"]


def recordings_for_actor(actor: Actor) -> QuerySet[Recording]:
    """The recordings of the actor's workspaces, without their cycles."""
    return (
        Recording.objects.filter(system__site__workspace__in=actor.workspaces("recordings.read"))
        .select_related("system__site")
        .defer("cycles")
    )


def recording_for_actor(actor: Actor, recording_id: UUID, lock: bool = False) -> Recording:
    """One recording, or NotFound; locked until the transaction ends if asked."""
    found = recordings_for_actor(actor).filter(pk=recording_id)
    recording = (found.select_for_update(of=("self",)) if lock else found).first()
    if recording is None:
        raise NotFound
    return recording
