"""Signing in: a session cookie, with the page's CSRF token on every change."""

from typing import Any

from django.http import HttpRequest
from ninja.security import APIKeyCookie

from .policies import Actor

__all__ = ["SignedIn"]


class SignedIn(APIKeyCookie):
    """Turns the session into an Actor; refuses everyone else."""

    param_name = "sessionid"

    def authenticate(self, request: HttpRequest, key: Any) -> Actor | None:
        """The actor behind the session, or None."""
        return Actor(request.user) if request.user.is_authenticated else None
