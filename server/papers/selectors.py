"""Reading links: by who may see the visit, or by the signed address alone."""

from uuid import UUID

from django.utils import timezone
from visits.selectors import visit_for_actor

from people.policies import Actor

from .models import Link
from .signing import unsigned

__all__ = ["link_by_address", "links_of"]


def links_of(actor: Actor, visit_id: UUID) -> list[Link]:
    """The links to a visit's report that were ever made, newest first. Raises NotFound."""
    return list(visit_for_actor(actor, visit_id).links.select_related("made_by"))


def link_by_address(text: str) -> Link | None:
    """The link, while it lives; None for one that expired, was revoked or never was."""
    found = Link.objects.filter(pk=unsigned(text), revoked_at=None, expires_at__gt=timezone.now())
    return found.select_related("visit__system__site").first()
