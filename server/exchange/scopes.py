"""What an export is of: a workspace, a site, or a system that the actor may see."""

from dataclasses import dataclass
from typing import Literal
from uuid import UUID

from django.db.models import QuerySet

from accounts.permissions import Actor, require
from common.errors import NotFound
from sites.models import Site, System
from sites.selectors import sites_for_actor, systems_for_actor

__all__ = ["Scope", "ScopeName", "scope_for_actor"]

ScopeName = Literal["workspaces", "sites", "systems"]


@dataclass(frozen=True)
class Scope:
    """The sites and systems of an export, and the workspace that they are of."""

    name: ScopeName
    workspace_id: UUID
    sites: QuerySet[Site]
    systems: QuerySet[System]


def scope_for_actor(actor: Actor, name: ScopeName, id: UUID) -> Scope:
    """The scope of one thing. Raises NotFound, Forbidden."""
    sites, systems = sites_for_actor(actor), systems_for_actor(actor)
    if name == "workspaces":
        require(actor, "archive.read", id)
        return Scope(name, id, sites.filter(workspace_id=id), systems.filter(site__workspace_id=id))
    if name == "sites":
        site = sites.filter(pk=id).first()
        chosen = systems.filter(site_id=id)
    else:
        system = systems.filter(pk=id).first()
        site, chosen = (system.site if system else None), systems.filter(pk=id)
    if site is None:
        raise NotFound
    require(actor, "archive.read", site.workspace_id)
    return Scope(name, site.workspace_id, sites.filter(pk=site.pk), chosen)
