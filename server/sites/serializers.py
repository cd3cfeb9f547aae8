"""Stored things as the API shows them."""

from collections.abc import Iterator
from operator import itemgetter
from uuid import UUID

from django.db.models import F, QuerySet
from django.db.models.fields.json import KT
from django.db.models.lookups import IsNull

from accounts.models import Workspace, shown
from accounts.permissions import Actor
from common.json_responses import as_iso, as_text, packed
from common.schemas import SystemFile
from zerodip.decide.summary import urgency
from zerodip.kinds.registry import KINDS
from zerodip.kinds.results import Column, columns_of

from .models import Decision, Site, System
from .schemas import (
    DecisionOut,
    PackedRounds,
    PackedSite,
    PackedSystem,
    PackedWorkspace,
    SiteOut,
    SystemOut,
)
from .selectors import decisions_of, sites_for_actor, systems_for_actor, workspaces_for_actor

__all__ = ["decision_out", "rounds_out", "system_out"]


def rounds_out(actor: Actor) -> PackedRounds:
    """The actor's sites with their systems, in order of urgency. Three queries and the actor's
    roles."""
    sites = {site.pk: _site_row(site) for site in sites_for_actor(actor)}
    urgent: dict[UUID, PackedSite] = {}  # sites in the order of their first system
    for site, row in _by_urgency(systems_for_actor(actor)):
        if site in sites:  # one begun a moment ago, between the two queries, is there the next time
            urgent.setdefault(site, sites[site])["systems"].append(row)
    empty = [row for site, row in sites.items() if site not in urgent]
    return {
        "sites": [*urgent.values(), *empty],
        "workspaces": [_workspace(actor, each) for each in workspaces_for_actor(actor)],
    }


def _by_urgency(systems: QuerySet[System]) -> Iterator[tuple[UUID, PackedSystem]]:
    """Each system's site and row, what needs a person first."""
    columns = {name: KT(f"summary__{name}") for name in ("verdict", "stops", "cautions")}
    asked = systems.annotate(
        **columns,
        text=as_text("summary"),
        at=as_iso("changed_at"),
        off=IsNull(F("retired_at"), False),
    ).order_by()
    names = ("site_id", "id", "name", "text", "at", "off", "verdict", "stops", "cautions")
    rows = []
    for site, id, name, text, at, off, verdict, stops, cautions in asked.values_list(*names):
        row = PackedSystem(id=id, name=name, summary=packed(text), changed_at=at, retired=off)
        rows.append((urgency(off, verdict, int(stops), int(cautions), name), site, row))
    rows.sort(key=itemgetter(0))
    return ((site, row) for _, site, row in rows)


def _workspace(actor: Actor, workspace: Workspace) -> PackedWorkspace:
    return PackedWorkspace(
        id=workspace.pk, name=workspace.name, may_add=actor.may("systems.add", workspace.pk)
    )


def _site_row(site: Site) -> PackedSite:
    return PackedSite(
        id=site.pk, name=site.name, units=site.units, workspace=site.workspace_id, systems=[]
    )


def system_out(actor: Actor, system: System) -> SystemOut:
    """One system with its file, its latest decisions, and whether the actor may save."""
    return SystemOut(
        id=system.pk,
        name=system.name,
        summary=system.summary,
        changed_at=system.changed_at,
        retired=system.retired_at is not None,
        site=SiteOut.from_orm(system.site),
        workspace=system.site.workspace_id,
        version=system.version,
        may_change=actor.may("decisions.save", system.site.workspace_id),
        document=SystemFile(system.document),
        columns=_columns(system.summary["kind"]),
        decisions=[decision_out(decision) for decision in decisions_of(system)],
    )


def _columns(kind: str) -> tuple[Column, ...]:
    """The figures that speak for a kind of system, without the settings themselves."""
    of = KINDS[kind]
    return columns_of(of.results, of.report[:2])


def decision_out(decision: Decision) -> DecisionOut:
    """One kept decision."""
    return DecisionOut(
        id=decision.pk,
        document=SystemFile(decision.document),
        figures=decision.figures,
        verdict=decision.verdict,
        made_by=shown(decision.made_by, decision.by),
        made_at=decision.made_at,
    )
