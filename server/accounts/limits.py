"""How often somebody may be wrong: counted in the database, so that every host counts alike.

A sign-in is counted for its name at its address, for its address over all names, and for its name
over all addresses. The last would let a stranger lock a person out: a browser in which that person
has signed in before is known by a cookie, and is counted by itself instead.
"""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import timedelta

from django.conf import settings
from django.core.signing import BadSignature, TimestampSigner
from django.db.models import Count
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.utils.crypto import get_random_string, salted_hmac
from ninja.errors import HttpError

from common.addresses import network_of

from .models import Attempt, User

__all__ = ["Limit", "forget", "forget_name", "of_person", "of_sign_in", "remember", "tried"]

_WINDOW = timedelta(minutes=15)
_KNOWN, _KNOWN_FOR = "known", timedelta(days=180)
_PER_NAME_AND_ADDRESS, _PER_ADDRESS, _PER_NAME = 8, 60, 40


@dataclass(frozen=True)
class Limit:
    """What is counted, and how many wrong tries it has in a quarter of an hour."""

    of: str
    most: int

    @property
    def key(self) -> str:
        """What is stored: somebody may have typed a password where the name belongs."""
        return salted_hmac("attempt", self.of, algorithm="sha256").hexdigest()


def of_sign_in(request: HttpRequest, username: str, user: User | None) -> list[Limit]:
    """The limits on signing in by a name (`user`, where there is such a person)."""
    name, network = username.strip().casefold(), network_of(request)
    browser = _browser(request, user) if user else None
    if browser:
        return [Limit(f"browser {browser}", _PER_NAME_AND_ADDRESS)]
    found = [
        Limit(f"name at address {name} {network}", _PER_NAME_AND_ADDRESS),
        _of_name(username),
    ]
    return [*found, Limit(f"address {network}", _PER_ADDRESS)] if network else found


def of_person(what: str, user: User) -> list[Limit]:
    """The limit on something that only a person who is (half) signed in can try."""
    return [Limit(f"{what} {user.pk}", _PER_NAME_AND_ADDRESS)]


@contextmanager
def tried(limits: list[Limit]) -> Iterator[None]:
    """Counts one try, unless what is done within ends well. Raises HttpError 429 where one limit is
    reached; what is refused so is not counted, and the quarter of an hour begins no anew."""
    now = timezone.now()
    Attempt.objects.filter(at__lt=now - _WINDOW).delete()
    # Counted before it is tried: many at once see each other.
    own = [Attempt.objects.create(key=limit.key, at=now).pk for limit in limits]
    counts = dict(
        Attempt.objects.filter(key__in=[limit.key for limit in limits], at__gte=now - _WINDOW)
        .values_list("key")
        .annotate(Count("pk"))
    )
    if any(counts.get(limit.key, 0) > limit.most for limit in limits):
        Attempt.objects.filter(pk__in=own).delete()
        raise HttpError(429, "Too many tries. Wait a quarter of an hour.")
    yield
    Attempt.objects.filter(pk__in=own).delete()


def forget(limits: list[Limit]) -> None:
    """Ends the counting of those who have shown who they are."""
    Attempt.objects.filter(key__in=[limit.key for limit in limits[:1]]).delete()


def forget_name(username: str) -> None:
    """Ends the counting over all addresses: the owner has given this person a new password."""
    Attempt.objects.filter(key=_of_name(username).key).delete()


def remember(response: HttpResponse, user: User) -> None:
    """Lets the browser be known again as one of this person's, until the password changes."""
    response.set_cookie(
        _KNOWN,
        _signer(user).sign(get_random_string(20)),
        max_age=_KNOWN_FOR,
        path="/api/session",
        secure=settings.SESSION_COOKIE_SECURE,
        httponly=True,
        samesite="Strict",
    )


def _of_name(username: str) -> Limit:
    return Limit(f"name {username.strip().casefold()}", _PER_NAME)


def _browser(request: HttpRequest, user: User) -> str | None:
    try:
        return _signer(user).unsign(request.COOKIES.get(_KNOWN, ""), max_age=_KNOWN_FOR)
    except BadSignature:
        return None


def _signer(user: User) -> TimestampSigner:
    return TimestampSigner(salt=f"known.{user.pk}.{user.get_session_auth_hash()}")
