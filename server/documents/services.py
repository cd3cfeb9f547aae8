"""Addresses that work without signing in: giving and taking back."""

from datetime import timedelta
from uuid import UUID

from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.errors import NotFound
from common.idempotency import same_again, stored_already
from common.transactions import write
from visits.selectors import visit_for_actor
from zerodip.errors import Fault, InvalidInput

from .models import Feed, Link

__all__ = ["MOST_DAYS", "end_feed", "make_feed", "make_link", "revoke_link"]

MOST_DAYS = 366


@write
def make_link(actor: Actor, visit_id: UUID, link_id: UUID, days: int, units: str) -> Link:
    """A link under the id given, for so many days. Safe to repeat. Raises InvalidInput, NotFound,
    Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "documents.share", visit.system.site.workspace_id)
    known = stored_already(Link.objects.filter(pk=link_id), visit_id=visit.pk)
    if known is not None:
        lasts = (known.expires_at - known.made_at) / timedelta(days=1)
        same_again({"days": round(lasts), "units": known.units}, {"days": days, "units": units})
        return known
    if not 1 <= days <= MOST_DAYS:
        says = f"must be 1 to {MOST_DAYS}."
        raise InvalidInput([Fault(path="days", code="out_of_range", title="Days", says=says)])
    ends = timezone.now() + timedelta(days=days)
    link = Link.objects.create(
        id=link_id, visit=visit, units=units, made_by=actor.user, expires_at=ends
    )
    log_event(
        actor.user, "documents.share", visit.system_id, visit=str(visit.pk), link=str(link.pk)
    )
    return link


@write
def revoke_link(actor: Actor, visit_id: UUID, link_id: UUID) -> Link:
    """Kills a link at once. Safe to repeat. Raises NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id)
    require(actor, "documents.share", visit.system.site.workspace_id)
    link = Link.objects.select_for_update().filter(pk=link_id, visit=visit).first()
    if link is None:
        raise NotFound
    if link.revoked_at is None:
        link.revoked_at = timezone.now()
        link.save(update_fields=["revoked_at"])
        log_event(
            actor.user, "documents.revoke", visit.system_id, visit=str(visit.pk), link=str(link.pk)
        )
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
