"""Reading links: by who may see the visit, or by the signed address alone."""

from uuid import UUID

from django.utils import timezone

from accounts.permissions import Actor
from visits.selectors import visit_for_actor

from .models import Feed, Link
from .signing import unsigned

__all__ = ["feed_of", "link_by_address", "links_of", "reader_by_address"]


def links_of(actor: Actor, visit_id: UUID) -> list[Link]:
    """The links to a visit's report that were ever made, newest first. Raises NotFound."""
    return list(visit_for_actor(actor, visit_id).links.select_related("made_by"))


def link_by_address(text: str) -> Link | None:
    """The link, while it lives; None for one that expired, was revoked or never was."""
    id = unsigned(text, "link")
    if id is None:
        return None
    found = Link.objects.filter(pk=id, revoked_at=None, expires_at__gt=timezone.now())
    return found.select_related("visit__system__site").first()


def feed_of(actor: Actor) -> Feed | None:
    """The person's calendar address, if there is one."""
    return Feed.objects.filter(user=actor.user).first()


def reader_by_address(text: str) -> Actor | None:
    """Whose calendar an address opens, with what they may see today; None for one that does not
    live."""
    id = unsigned(text, "feed")
    feed = (
        Feed.objects.filter(pk=id, user__is_active=True).select_related("user").first()
        if id
        else None
    )
    return Actor(feed.user, verified=True) if feed else None  # the address is secret enough
