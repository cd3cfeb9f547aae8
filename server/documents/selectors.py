"""Reading links: by who may see the visit, or by the signed address alone."""

from typing import TypeVar
from uuid import UUID

from django.db.models import QuerySet
from django.utils import timezone

from accounts.permissions import Actor
from visits.selectors import visit_for_actor

from .models import Feed, Link, SignedLink
from .signing import unsigned

__all__ = ["feed_of", "link_by_address", "links_of", "living", "reader_by_address"]

L = TypeVar("L", bound=SignedLink)


def links_of(actor: Actor, visit_id: UUID) -> list[Link]:
    """The links to a visit's report that were ever made, newest first. Raises NotFound."""
    return list(visit_for_actor(actor, visit_id).links.select_related("made_by"))


def link_by_address(text: str) -> Link | None:
    """The link, while it lives; None for one that expired, was revoked or never was."""
    return living(Link.objects.select_related("visit__system__site"), text, "link")


def living(links: QuerySet[L], text: str, use: str) -> L | None:
    """The link of an address that was signed for a use, while it lives; None for one that expired,
    was revoked or never was."""
    id = unsigned(text, use)
    if id is None:
        return None
    return links.filter(pk=id, revoked_at=None, expires_at__gt=timezone.now()).first()


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
