"""Sessions in the database, each with the person it belongs to, so that they can be listed and
ended: Django's own store with one more column."""

import re
import time
from typing import Any, cast

from django.contrib.sessions.backends.base import SessionBase
from django.contrib.sessions.backends.db import SessionStore as InDatabase
from django.http import HttpRequest
from django.utils.crypto import salted_hmac

from .models import Session, User
from .schemas import SessionSeen

__all__ = ["SessionStore", "begin_session", "end_others", "sessions_of", "touch"]

_HOUR = 3600.0
_BROWSERS = (("Edg", "Edge"), ("OPR", "Opera"), ("Firefox", "Firefox"), ("Chrome", "Chrome"))
_SYSTEMS = ("Android", "iPhone", "iPad", "Windows", "Macintosh", "Linux")


class SessionStore(InDatabase):
    """What SESSION_ENGINE names."""

    @classmethod
    def get_model_class(cls) -> type[Session]:
        """The table that has the person beside the session."""
        return Session

    def create_model_instance(self, data: dict[str, Any]) -> Session:
        """A row for what the session holds now."""
        row = cast(Session, super().create_model_instance(data))
        whose = data.get("_auth_user_id")
        row.user_id = int(whose) if whose else None
        return row


def begin_session(request: HttpRequest, verified: bool) -> None:
    """Notes since when, from what, and whether by a second factor."""
    agent = request.META.get("HTTP_USER_AGENT", "")[:300]
    now = time.time()
    request.session.update({"began": now, "seen": now, "agent": agent, "verified": verified})


def touch(session: SessionBase) -> None:
    """Notes that it is in use; once an hour, for a write is dear."""
    if time.time() - session.get("seen", 0.0) > _HOUR:
        session["seen"] = time.time()


def sessions_of(request: HttpRequest, user: User) -> list[SessionSeen]:
    """A person's sessions that have not ended, the one asking first."""
    here = _here(request)
    rows = Session.objects.filter(user=user).select_related("user")
    found = [_seen(row, here) for row in rows if row.live]
    return sorted(
        found, key=lambda each: (not each.here, -each.seen.timestamp() if each.seen else 0)
    )


def end_others(request: HttpRequest, user: User, handle: str | None = None) -> int:
    """Ends a person's sessions but the one asking: all, or the one that a handle names. Gives how
    many ended."""
    keys = Session.objects.filter(user=user).exclude(session_key=_here(request))
    ended = [k for k in keys.values_list("pk", flat=True) if handle in (None, _handle(k))]
    return Session.objects.filter(pk__in=ended).delete()[0]


def _here(request: HttpRequest) -> str:
    """The key of the session asking."""
    return request.session.session_key or ""


def _seen(row: Session, here: str) -> SessionSeen:
    held = row.get_decoded()
    return SessionSeen(
        id=_handle(row.session_key),
        on=_words(held.get("agent", "")),
        began=held.get("began"),
        seen=held.get("seen"),
        here=row.session_key == here,
    )


def _handle(key: str) -> str:
    """Names a session without opening it."""
    return salted_hmac("session", key, algorithm="sha256").hexdigest()[:32]


def _words(agent: str) -> str:
    """What a person calls the device."""
    system = next((name for name in _SYSTEMS if name in agent), "")
    browser = next((name for mark, name in _BROWSERS if re.search(rf"\b{mark}", agent)), "")
    if not browser and "Safari" in agent:
        browser = "Safari"
    said = " on ".join(each for each in (browser, system.replace("Macintosh", "Mac")) if each)
    return said or "Unknown device"
