"""Reading watches and stand-ins, from the actor on."""

from uuid import UUID

from django.db.models import QuerySet

from accounts.permissions import Actor
from common.errors import NotFound
from sites.selectors import systems_for_actor
from visits.selectors import visit_for_actor

from .models import StandIn, Watch

__all__ = ["stand_in_for_actor", "stand_ins_for_actor", "watch_for_actor", "watches_of"]


def watch_for_actor(actor: Actor, watch_id: UUID) -> Watch:
    """One watch with its visit, gauge and system, or NotFound."""
    found = Watch.objects.filter(visit__system__in=systems_for_actor(actor))
    watch = found.select_related("visit__system__site", "gauge").filter(pk=watch_id).first()
    if watch is None:
        raise NotFound
    return watch


def watches_of(actor: Actor, visit_id: UUID) -> list[Watch]:
    """The watches of a visit, the latest first, or NotFound."""
    visit = visit_for_actor(actor, visit_id)
    return list(visit.watches.select_related("gauge", "visit__system__site").order_by("-from_s"))


def stand_ins_for_actor(actor: Actor) -> "QuerySet[StandIn]":
    """The stand-ins for the actor's systems."""
    found = StandIn.objects.filter(system__in=systems_for_actor(actor))
    return found.select_related("system__site").order_by("unit")


def stand_in_for_actor(actor: Actor, system_id: UUID) -> StandIn:
    """The stand-in for one system, or NotFound."""
    found = stand_ins_for_actor(actor).filter(pk=system_id).first()
    if found is None:
        raise NotFound
    return found
