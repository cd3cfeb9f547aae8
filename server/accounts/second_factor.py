"""The second factor: codes of an authenticator app (TOTP, RFC 6238), and recovery codes for the day
the phone is lost. What is secret and how it is matched is django-otp's."""

import re
from base64 import b32encode
from collections.abc import Iterable
from secrets import token_bytes
from uuid import UUID

import segno
from django.http import HttpRequest
from django_otp import match_token
from django_otp.models import Device
from django_otp.plugins.otp_static.models import StaticDevice
from django_otp.plugins.otp_totp.models import TOTPDevice

from audit.services import log_event
from common.errors import Conflict, Forbidden
from common.transactions import write
from zerodip.errors import Fault, InvalidInput

from .limits import of_person, tried
from .models import Session, User, Workspace
from .permissions import Actor, require
from .schemas import SecondFactorOffer
from .sessions import end_others

__all__ = [
    "begin",
    "confirm",
    "drop",
    "end",
    "end_for",
    "has_one",
    "holders",
    "matches",
    "missing",
    "recovery_left",
    "require_of_members",
]

_NUMBER, _BYTES = 10, 10


def has_one(user: User) -> bool:
    """Whether signing in asks this person for a code."""
    return bool(TOTPDevice.objects.filter(user=user, confirmed=True).exists())


def holders(user_ids: Iterable[int]) -> set[int]:
    """Those of them that have one; one query."""
    found = TOTPDevice.objects.filter(user_id__in=user_ids, confirmed=True)
    return set(found.values_list("user_id", flat=True))


def recovery_left(user: User) -> int:
    """How many recovery codes have not been used."""
    return sum(each.token_set.count() for each in StaticDevice.objects.filter(user=user))


def matches(user: User, code: str) -> bool:
    """Whether a code is one of theirs; a code serves once."""
    found: Device | None = match_token(user, re.sub(r"[\W_]", "", code).lower())
    return found is not None


def missing(user: User, verified: bool) -> bool:
    """Whether a workspace of theirs asks for a second factor that this session has not shown."""
    return not verified and user.memberships.filter(workspace__second_factor=True).exists()


@write
def begin(actor: Actor) -> SecondFactorOffer:
    """A secret for the authenticator app, good once a code of it has been given. Raises Conflict
    where there is a second factor already, Forbidden for the demo."""
    user = _own(actor)
    if has_one(user):
        raise Conflict("You have a second factor already; end it first.", {})
    TOTPDevice.objects.filter(user=user).delete()
    device = TOTPDevice.objects.create(user=user, name="app", confirmed=False)
    picture = segno.make(device.config_url, error="m").svg_data_uri(scale=5, border=3, light="#fff")
    secret = b32encode(device.bin_key).decode()
    return SecondFactorOffer(secret=secret, address=device.config_url, picture=picture)


@write
def _confirmed(user: User, code: str) -> list[str] | None:
    device = TOTPDevice.objects.select_for_update().filter(user=user, confirmed=False).first()
    if device is None:
        raise Conflict("Begin with the secret for your app.", {})
    if not device.verify_token(re.sub(r"\D", "", code)):
        return None
    device.confirmed = True
    device.save(update_fields=["confirmed"])
    codes = [b32encode(token_bytes(_BYTES)).decode().lower() for _ in range(_NUMBER)]
    StaticDevice.objects.filter(user=user).delete()
    of = StaticDevice.objects.create(user=user, name="recovery")
    for each in codes:
        of.token_set.create(token=each)
    log_event(user, "second_factor.begin")
    return ["-".join(re.findall("....", each)) for each in codes]


def confirm(request: HttpRequest, actor: Actor, code: str) -> list[str]:
    """Switches it on by a first code; gives the recovery codes, shown this once. Other sessions
    end. Raises InvalidInput, Conflict, Forbidden, HttpError 429."""
    user = _own(actor)
    with tried(of_person("code", user)):
        codes = _confirmed(user, code)
        if codes is None:
            says = "is not right; wait for the next one, and look at the phone's clock."
            raise InvalidInput([Fault(path="code", code="wrong", title="The code", says=says)])
    request.session["verified"] = True
    end_others(request, user)
    return codes


@write
def end(request: HttpRequest, actor: Actor) -> None:
    """Switches one's own off; other sessions end. Safe to repeat. Raises Forbidden for the demo."""
    drop(_own(actor))
    end_others(request, actor.user)
    request.session["verified"] = False


@write
def end_for(actor: Actor, user: User, workspace_id: UUID) -> None:
    """Switches it off for a member who lost phone and recovery codes; their sessions end."""
    drop(user)
    Session.objects.filter(user=user).delete()
    log_event(actor.user, "members.second_factor", workspace_id, member=user.pk)


@write
def require_of_members(actor: Actor, workspace_id: UUID, required: bool) -> None:
    """Whether a workspace opens only by a second factor. Safe to repeat. Raises Conflict for an
    owner without one, who would lock themselves out; NotFound, Forbidden."""
    require(actor, "members.change", workspace_id)
    if required and not actor.verified:
        says = "Switch on your own second factor first, and sign in by it."
        raise Conflict(says, {})
    of = Workspace.objects.select_for_update().get(pk=workspace_id)
    if of.second_factor != required:
        of.second_factor = required
        of.save(update_fields=["second_factor"])
        log_event(actor.user, "members.second_factor_required", workspace_id, required=required)


def drop(user: User) -> None:
    """Without asking anybody. Safe to repeat."""
    gone = TOTPDevice.objects.filter(user=user).delete()[0]
    gone += StaticDevice.objects.filter(user=user).delete()[0]
    if gone:
        log_event(user, "second_factor.end")


def _own(actor: Actor) -> User:
    if actor.user.demo:
        raise Forbidden("The demo is everybody's: it has no second factor.")
    return actor.user
