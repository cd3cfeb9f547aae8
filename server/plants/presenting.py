"""Stored things as the API shows them."""

from operator import itemgetter
from typing import Any
from uuid import UUID

from django.db.models import F, QuerySet
from django.db.models.fields.json import KT
from django.db.models.lookups import IsNull

from config.answers import as_iso, as_text, packed
from people.models import Workspace, shown
from people.policies import Actor
from zerodip.rules import ORDER, Verdict

from .models import Decision, Habits, Site, System
from .selectors import decisions_of, sites_for_actor, systems_for_actor, workspaces_for_actor

__all__ = ["decision_out", "habits_out", "rounds_out", "system_out"]


def rounds_out(actor: Actor) -> dict[str, Any]:
    """The actor's sites with their systems, in order of urgency. Three queries and the actor's roles."""
    sites = {site.pk: _site_row(site) for site in sites_for_actor(actor)}
    urgent: dict[UUID, dict[str, Any]] = {}  # sites in the order of their first system
    for site, row in _by_urgency(systems_for_actor(actor)):
        if site in sites:  # one begun a moment ago, between the two queries, is there the next time
            urgent.setdefault(site, sites[site])["systems"].append(row)
    empty = [row for site, row in sites.items() if site not in urgent]
    return {
        "sites": [*urgent.values(), *empty],
        "workspaces": [_workspace(actor, workspace) for workspace in workspaces_for_actor(actor)],
    }


def _by_urgency(systems: QuerySet[System]) -> list[tuple[UUID, dict[str, Any]]]:
    """Each system's site and row, what needs a person first: the worst verdict, then how many of it, then the name; what is
    retired last."""
    columns = {name: KT(f"glance__{name}") for name in ("verdict", "stops", "cautions")}
    asked = systems.annotate(
        **columns, seen=as_text("glance"), at=as_iso("changed_at"), off=IsNull(F("retired_at"), False)
    ).order_by()
    rows = []
    for site, id, name, seen, at, off, verdict, stops, cautions in asked.values_list(
        "site_id", "id", "name", "seen", "at", "off", "verdict", "stops", "cautions"
    ):
        row = {"id": id, "name": name, "glance": packed(seen), "changed_at": at, "retired": off}
        rows.append(((off, ORDER[Verdict(verdict)], -int(stops), -int(cautions), name), site, row))
    rows.sort(key=itemgetter(0))
    return [(site, row) for _, site, row in rows]


def _workspace(actor: Actor, workspace: Workspace) -> dict[str, Any]:
    return {"id": workspace.pk, "name": workspace.name, "may_add": actor.may("systems.add", workspace.pk)}


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
    return {
        **_row(system),
        "site": system.site,
        "workspace": system.site.workspace_id,
        "version": system.version,
        "may_change": actor.may("decisions.save", system.site.workspace_id),
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
        "may_change": actor.may("habits.change", habits.workspace_id),
    }
