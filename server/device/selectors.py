"""What a device may hold, from the actor on."""

from collections import defaultdict
from collections.abc import Sequence
from hashlib import sha256
from typing import Any
from uuid import UUID

from django.db.models import Count, Max, QuerySet

from accounts.permissions import Actor
from sites.models import System
from sites.selectors import systems_for_actor
from visits.models import Entry, Photo, Visit

__all__ = ["held_visits", "stamps", "wanted_systems"]

_CLOSED_HELD = 3


def stamps(actor: Actor) -> dict[UUID, str]:
    """A word for each system that the actor may see; it changes whenever anything of the system
    does, and with what the actor may do there. Four queries and the actor's roles."""
    systems = systems_for_actor(actor)
    own = systems.annotate(decided=Count("decisions")).values_list(
        "pk", "version", "retired_at", "site__name", "site__units", "site__workspace", "decided"
    )
    told: dict[UUID, list[Any]] = {row[0]: [*row[1:], actor.roles[row[5]]] for row in own}
    theirs = systems.values("pk")
    counted = (
        _by_system(Visit.objects.filter(system__in=theirs), "", Count("pk"), Count("closed_at")),
        _by_system(Entry.objects.filter(visit__system__in=theirs), "visit__", Max("number")),
        _by_system(Photo.objects.filter(visit__system__in=theirs), "visit__", Count("pk")),
    )
    for rows in counted:
        for system, values in rows.items():
            if system in told:  # one begun a moment ago is there the next time
                told[system] += values
    return {id: sha256(repr(values).encode()).hexdigest()[:16] for id, values in told.items()}


def _by_system(rows: QuerySet[Any], through: str, *figures: Any) -> dict[UUID, list[Any]]:
    named = {f"figure_{at}": figure for at, figure in enumerate(figures)}
    grouped = rows.order_by().values(f"{through}system").annotate(**named)
    return {
        row[f"{through}system"]: [f"{through}{name} {row[name]}" for name in named]
        for row in grouped
    }


def wanted_systems(actor: Actor, ids: Sequence[UUID]) -> list[System]:
    """Those of the systems that the actor may see."""
    return list(systems_for_actor(actor).filter(pk__in=ids))


def held_visits(systems: Sequence[System]) -> dict[UUID, list[Visit]]:
    """The visits of systems that a device holds, newest first, with their entries and photos: the
    one left open and the last three closed. Four queries."""
    visits = Visit.objects.filter(system__in=systems).order_by("-opened_at")
    latest: dict[UUID, list[UUID]] = defaultdict(list)
    for system, visit, closed in visits.values_list("system_id", "pk", "closed_at"):
        if closed is None or len(latest[system]) <= _CLOSED_HELD:
            latest[system].append(visit)
    chosen = [each for ids in latest.values() for each in ids]
    found = Visit.objects.filter(pk__in=chosen).select_related("opened_by").order_by("-opened_at")
    held: dict[UUID, list[Visit]] = defaultdict(list)
    for each in found.prefetch_related("entries__made_by"):
        held[each.system_id].append(each)
    return held
