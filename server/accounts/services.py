"""Opening and closing a session."""

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest
from ninja.errors import HttpError

from audit.services import log_event

from .models import User

__all__ = ["DEMO_USER", "close_session", "open_demo", "open_session"]

DEMO_USER = "demo"


def open_session(request: HttpRequest, username: str, password: str) -> User:
    """Signs in. Raises HttpError 401 for a wrong pair, 429 after too many of them."""
    user = authenticate(request, username=username, password=password)
    if getattr(request, "axes_locked_out", False):
        raise HttpError(429, "Too many tries. Wait a quarter of an hour.")
    if not isinstance(user, User):
        raise HttpError(401, "Name and password do not match.")
    return _enter(request, user)


def open_demo(request: HttpRequest) -> User:
    """Signs in as the demo technician, while the demo is on. Raises HttpError 404 when it is
    off."""
    user = (
        User.objects.filter(username=DEMO_USER, demo=True, is_active=True).first()
        if settings.DEMO
        else None
    )
    if user is None:
        raise HttpError(404, "The demo is off.")
    user.backend = "django.contrib.auth.backends.ModelBackend"
    return _enter(request, user)


def _enter(request: HttpRequest, user: User) -> User:
    login(request, user)
    log_event(user, "session.open")
    return user


def close_session(request: HttpRequest) -> None:
    """Signs out."""
    logout(request)
