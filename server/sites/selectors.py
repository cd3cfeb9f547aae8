"""Reading: everything starts from the actor, so that nothing is seen across workspaces."""

from uuid import UUID

from django.db.models import QuerySet

from accounts.models import Workspace
from accounts.permissions import Actor
from common.errors import NotFound

from .models import Decision, Site, System

__all__ = [
    "decisions_of",
    "site_for_actor",
    "sites_for_actor",
    "system_for_actor",
    "systems_for_actor",
    "workspaces_for_actor",
]


def workspaces_for_actor(actor: Actor) -> QuerySet[Workspace]:
    """The workspaces that the actor belongs to."""
    return Workspace.objects.filter(pk__in=actor.workspaces("rounds.read")).order_by("name")


def sites_for_actor(actor: Actor) -> QuerySet[Site]:
    """The sites that the actor may see."""
    return Site.objects.filter(workspace__in=actor.workspaces("rounds.read"))


def site_for_actor(actor: Actor, site_id: UUID) -> Site:
    """One site, locked until the transaction ends; or NotFound."""
    site = sites_for_actor(actor).select_for_update().filter(pk=site_id).first()
    if site is None:
        raise NotFound
    return site


def systems_for_actor(actor: Actor) -> QuerySet[System]:
    """The systems that the actor may see, with their sites."""
    return System.objects.filter(
        site__workspace__in=actor.workspaces("systems.read")
    ).select_related("site")


def system_for_actor(actor: Actor, system_id: UUID, lock: bool = False) -> System:
    """One system, or NotFound; locked until the transaction ends if asked."""
    systems = systems_for_actor(actor)
    system = (
        (systems.select_for_update(of=("self",)) if lock else systems).filter(pk=system_id).first()
    )
    if system is None:
        raise NotFound
    return system


def decisions_of(system: System, most: int = 20) -> list[Decision]:
    """The system's latest decisions, newest first."""
    return list(system.decisions.select_related("made_by")[:most])
