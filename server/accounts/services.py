"""Opening and closing a session: by a password, and a code where there is a second factor."""

import logging
import time

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest
from ninja.errors import HttpError

from audit.services import log_event
from common.addresses import network_of

from . import second_factor
from .limits import forget, of_person, of_sign_in, tried
from .models import User
from .sessions import begin_session

__all__ = ["DEMO_USER", "close_session", "half_signed_in", "open_demo", "open_session", "show_code"]

DEMO_USER = "demo"
_HALF_S = 300.0
_log = logging.getLogger(__name__)  # never with what was typed: it may be a password
_BACKEND = "django.contrib.auth.backends.ModelBackend"


def open_session(request: HttpRequest, username: str, password: str) -> User | None:
    """Signs in; None where a code of the second factor is asked for now. Raises HttpError 401 for a
    wrong pair, 429 after too many of them."""
    named = User.objects.filter(username=username).first()
    limits = of_sign_in(request, username, named)
    with tried(limits):
        user = authenticate(request, username=username, password=password)
        if not isinstance(user, User):
            _log.warning("Sign-in refused at %s", network_of(request) or "an unknown address")
            raise HttpError(401, "Name and password do not match.")
    if second_factor.has_one(user):
        request.session.flush()
        half = {"user": user.pk, "at": time.time(), "hash": user.get_session_auth_hash()}
        request.session["half"] = half
        return None
    forget(limits)
    return _enter(request, user, verified=False)


def half_signed_in(request: HttpRequest) -> User | None:
    """Who has given the password a moment ago, and not the code yet."""
    half = request.session.get("half")
    if not half or time.time() - half["at"] > _HALF_S:
        return None
    user = User.objects.filter(pk=half["user"], is_active=True).first()
    return user if user and user.get_session_auth_hash() == half["hash"] else None


def show_code(request: HttpRequest, code: str) -> User:
    """The second step. Raises HttpError 401 for a wrong code, or where the first step is missing or
    too long ago; 429 after too many."""
    user = half_signed_in(request)
    if user is None:
        raise HttpError(401, "Give name and password again; that was too long ago.")
    with tried(of_person("code", user)):
        if not second_factor.matches(user, code):
            _log.warning("Code refused at %s", network_of(request) or "an unknown address")
            raise HttpError(401, "The code is not right. Each serves once; wait for the next.")
    forget(of_sign_in(request, user.username, user))
    return _enter(request, user, verified=True)


def open_demo(request: HttpRequest) -> User:
    """Signs in as the demo technician, while the demo is on. Raises HttpError 404 when it is
    off."""
    found = User.objects.filter(username=DEMO_USER, demo=True, is_active=True)
    user = found.first() if settings.DEMO else None
    if user is None:
        raise HttpError(404, "The demo is off.")
    return _enter(request, user, verified=False)


def _enter(request: HttpRequest, user: User, verified: bool) -> User:
    login(request, user, backend=_BACKEND)
    request.session.pop("half", None)
    begin_session(request, verified)
    log_event(user, "session.open")
    return user


def close_session(request: HttpRequest) -> None:
    """Signs out."""
    logout(request)
