"""Signing in: a session cookie, with the page's CSRF token on every change."""

from typing import Any

from django.conf import settings
from django.http import HttpRequest
from ninja.security import APIKeyCookie

from .permissions import Actor
from .sessions import touch

__all__ = ["SignedIn", "actor_of"]


class SignedIn(APIKeyCookie):
    """Turns the session into an Actor; refuses everyone else."""

    param_name = settings.SESSION_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: Any) -> Actor | None:
        """The actor behind the session, or None."""
        if not request.user.is_authenticated:
            return None
        # A device sends what waited only as the person who entered it.
        meant = request.headers.get("Zerodip-Person", "")
        if meant and meant != str(request.user.pk):
            return None
        touch(request.session)
        return Actor(request.user, bool(request.session.get("verified")))


def actor_of(request: HttpRequest) -> Actor:
    """Whose request it is, once `SignedIn` let it in."""
    return request.auth  # type: ignore[attr-defined,no-any-return]
