"""One's own account: password, second factor, sessions."""

from django.http import HttpRequest
from ninja import Router, Status
from ninja.errors import HttpError

from common.errors import REFUSALS, Problem

from . import members, second_factor
from .auth import actor_of
from .limits import of_person, tried
from .models import User
from .schemas import AccountOut, CodeIn, CodesOut, OldPassword, PasswordIn, SecondFactorOffer
from .sessions import end_others, sessions_of

router = Router(tags=["account"])
OWN = {"x-permission": "account.own"}
ANSWERS = {409: Problem, **REFUSALS}


def _shown(user: User, password: str) -> None:
    """Raises HttpError 403 for a wrong password, 429 after too many."""
    with tried(of_person("password", user)):
        if not user.check_password(password):
            raise HttpError(403, "The password is not right.")


@router.get("/account", response={200: AccountOut, **REFUSALS}, openapi_extra=OWN)
def read_account(request: HttpRequest) -> AccountOut:
    """The account, with its sessions."""
    user = actor_of(request).user
    return AccountOut(
        username=user.username,
        second_factor=second_factor.has_one(user),
        recovery_left=second_factor.recovery_left(user),
        sessions=sessions_of(request, user),
    )


@router.put(
    "/password", response={204: None, **ANSWERS}, openapi_extra={"x-permission": "password.own"}
)
def change_password(request: HttpRequest, body: PasswordIn) -> Status[None]:
    """The actor's own password; other sessions end."""
    actor = actor_of(request)
    with tried(of_person("password", actor.user)):
        members.change_password(request, actor, body.old, body.new)
    end_others(request, actor.user)
    return Status(204, None)


@router.post(
    "/account/second-factor", response={200: SecondFactorOffer, **ANSWERS}, openapi_extra=OWN
)
def begin_second_factor(request: HttpRequest, body: OldPassword) -> SecondFactorOffer:
    """A secret for an authenticator app."""
    actor = actor_of(request)
    _shown(actor.user, body.password)
    return second_factor.begin(actor)


@router.put("/account/second-factor", response={200: CodesOut, **ANSWERS}, openapi_extra=OWN)
def confirm_second_factor(request: HttpRequest, body: CodeIn) -> CodesOut:
    """Switches it on by a first code of the app; gives the recovery codes."""
    return CodesOut(codes=second_factor.confirm(request, actor_of(request), body.code))


@router.post("/account/second-factor/end", response={204: None, **ANSWERS}, openapi_extra=OWN)
def end_second_factor(request: HttpRequest, body: OldPassword) -> Status[None]:
    """Switches it off."""
    actor = actor_of(request)
    _shown(actor.user, body.password)
    second_factor.end(request, actor)
    return Status(204, None)


@router.delete("/account/sessions", response={204: None, **REFUSALS}, openapi_extra=OWN)
def end_other_sessions(request: HttpRequest) -> Status[None]:
    """Signs out everywhere else."""
    end_others(request, actor_of(request).user)
    return Status(204, None)


@router.delete(
    "/account/sessions/{session_id}", response={204: None, **REFUSALS}, openapi_extra=OWN
)
def end_session(request: HttpRequest, session_id: str) -> Status[None]:
    """Signs out there. Safe to repeat."""
    end_others(request, actor_of(request).user, session_id)
    return Status(204, None)
