"""Stored things as the API shows them."""

from typing import Any

from people.models import Workspace, shown
from people.policies import PERMISSIONS, Actor
from zerodip.rules import ORDER, Verdict

from .models import Decision, Habits, Site, System
from .selectors import decisions_of, sites_for_actor, systems_for_actor, workspaces_for_actor

__all__ = ["decision_out", "habits_out", "rounds_out", "system_out"]


def _urgency(row: dict[str, Any]) -> tuple[bool, int, int, int, str]:
    """What needs a person first: the worst verdict, then how many of it, then the name; what is retired last."""
    seen = row["glance"]
    return row["retired"], ORDER[Verdict(seen["verdict"])], -seen["stops"], -seen["cautions"], row["name"]


def rounds_out(actor: Actor) -> dict[str, Any]:
    """The actor's sites with their systems, in order of urgency. Three queries and the actor's roles."""
    sites = {site.pk: _site_row(site) for site in sites_for_actor(actor)}
    for row in systems_for_actor(actor).values("id", "name", "glance", "changed_at", "retired_at", "site_id"):
        seen = {name: row[name] for name in ("id", "name", "glance", "changed_at")}
        if row["site_id"] in sites:  # one begun a moment ago, between the two queries, is there the next time
            sites[row["site_id"]]["systems"].append({**seen, "retired": row["retired_at"] is not None})
    for site in sites.values():
        site["systems"].sort(key=_urgency)
    by_urgency = sorted(sites.values(), key=lambda row: [_urgency(system) for system in row["systems"][:1]])
    return {
        "sites": by_urgency,
        "workspaces": [_workspace(actor, workspace) for workspace in workspaces_for_actor(actor)],
    }


def _workspace(actor: Actor, workspace: Workspace) -> dict[str, Any]:
    may_add = actor.roles.get(workspace.pk) in PERMISSIONS["systems.add"]
    return {"id": workspace.pk, "name": workspace.name, "may_add": may_add}


def _site_row(site: Site) -> dict[str, Any]:
    return {"id": site.pk, "name": site.name, "units": site.units, "workspace": site.workspace_id, "systems": []}


def _row(system: System) -> dict[str, Any]:
    return {
        "id": system.pk,
        "name": system.name,
        "glance": system.glance,
        "changed_at": system.changed_at,
        "retired": system.retired_at is not None,
    }


def system_out(actor: Actor, system: System) -> dict[str, Any]:
    """One system with its file, its latest decisions, and whether the actor may save."""
    role = actor.roles.get(system.site.workspace_id)
    return {
        **_row(system),
        "site": system.site,
        "workspace": system.site.workspace_id,
        "version": system.version,
        "may_change": role in PERMISSIONS["decisions.save"],
        "document": system.document,
        "decisions": [decision_out(decision) for decision in decisions_of(system)],
    }


def decision_out(decision: Decision) -> dict[str, Any]:
    """One kept decision."""
    return {
        "id": decision.pk,
        "document": decision.document,
        "figures": decision.figures,
        "verdict": decision.verdict,
        "made_by": shown(decision.made_by, decision.by),
        "made_at": decision.made_at,
    }


def habits_out(actor: Actor, habits: Habits) -> dict[str, Any]:
    """A workspace's habits, and whether the actor may change them."""
    return {
        "workspace": habits.workspace_id,
        "name": habits.workspace.name,
        "version": habits.version,
        "practice": habits.practice,
        "sizes_m3": habits.sizes_m3,
        "may_change": actor.roles.get(habits.workspace_id) in PERMISSIONS["habits.change"],
    }
