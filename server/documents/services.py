"""Addresses that work without signing in: giving and taking back."""

from collections.abc import Mapping
from datetime import timedelta
from typing import TYPE_CHECKING, TypeVar
from uuid import UUID

from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.errors import NotFound
from common.idempotency import same_again, stored_already
from common.transactions import write
from visits.selectors import visit_for_actor
from zerodip.errors import Fault, InvalidInput

from .models import Feed, Link, SignedLink

if TYPE_CHECKING:
    from django.db.models.fields.related_descriptors import RelatedManager

__all__ = [
    "MOST_DAYS",
    "end_feed",
    "give_link",
    "make_feed",
    "make_link",
    "revoke_link",
    "take_link",
]

MOST_DAYS = 366
L = TypeVar("L", bound=SignedLink)


@write
def make_link(actor: Actor, visit_id: UUID, link_id: UUID, days: int, units: str) -> Link:
    """A link under the id given, for so many days. Safe to repeat. Raises InvalidInput, NotFound,
    Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "documents.share", visit.system.site.workspace_id)
    noted = {"visit": str(visit.pk)}
    return give_link(actor, visit.links, link_id, days, units, visit.system_id, noted)


@write
def revoke_link(actor: Actor, visit_id: UUID, link_id: UUID) -> Link:
    """Kills a link at once. Safe to repeat. Raises NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id)
    require(actor, "documents.share", visit.system.site.workspace_id)
    return take_link(actor, visit.links, link_id, visit.system_id, {"visit": str(visit.pk)})


def give_link(
    actor: Actor,
    links: "RelatedManager[L]",
    link_id: UUID,
    days: int,
    units: str,
    subject: UUID,
    noted: Mapping[str, str],
) -> L:
    """A link of what `links` are of, which is locked and which the actor may share; the log keeps
    it under `subject`. Safe to repeat. Raises InvalidInput, NotFound, Conflict."""
    of = {links.field.attname: links.instance.pk}  # type: ignore[attr-defined]
    known = stored_already(links.model._default_manager.filter(pk=link_id), **of)
    if known is not None:
        lasts = (known.expires_at - known.made_at) / timedelta(days=1)
        same_again({"days": round(lasts), "units": known.units}, {"days": days, "units": units})
        return known
    if not 1 <= days <= MOST_DAYS:
        says = f"must be 1 to {MOST_DAYS}."
        raise InvalidInput([Fault(path="days", code="out_of_range", title="Days", says=says)])
    ends = timezone.now() + timedelta(days=days)
    link = links.create(id=link_id, units=units, made_by=actor.user, expires_at=ends)
    log_event(actor.user, "documents.share", subject, link=str(link.pk), **noted)
    return link


def take_link(
    actor: Actor,
    links: "RelatedManager[L]",
    link_id: UUID,
    subject: UUID,
    noted: Mapping[str, str],
) -> L:
    """Kills a link of what `links` are of, which the actor may share. Safe to repeat. Raises
    NotFound."""
    link = links.select_for_update().filter(pk=link_id).first()
    if link is None:
        raise NotFound
    if link.revoked_at is None:
        link.revoked_at = timezone.now()
        link.save(update_fields=["revoked_at"])
        log_event(actor.user, "documents.revoke", subject, link=str(link.pk), **noted)
    return link


@write
def make_feed(actor: Actor) -> Feed:
    """A new address of the person's calendar; the one before is dead."""
    Feed.objects.filter(user=actor.user).delete()
    log_event(actor.user, "documents.feed")
    return Feed.objects.create(user=actor.user)


@write
def end_feed(actor: Actor) -> None:
    """Kills the person's calendar address. Safe to repeat."""
    if Feed.objects.filter(user=actor.user).delete()[0]:
        log_event(actor.user, "documents.unfeed")
