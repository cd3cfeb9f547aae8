"""Session operations."""

from typing import Literal

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from django.views.decorators.csrf import csrf_protect
from ninja import Router, Status
from ninja.decorators import decorate_view

from common.errors import REFUSALS

from . import second_factor, services
from .limits import remember
from .models import User
from .schemas import CodeIn, SessionOut, SignIn

router = Router(tags=["session"])


def _session(request: HttpRequest) -> SessionOut:
    user = request.user
    if not isinstance(user, User):
        half = services.half_signed_in(request) is not None
        needs: Literal["", "code"] = "code" if half else ""
        return SessionOut(signed_in=False, name="", demo=settings.DEMO, needs=needs)
    asked = second_factor.missing(user, bool(request.session.get("verified")))
    return SessionOut(
        signed_in=True, name=user.shown, demo=settings.DEMO, needs="enrol" if asked else ""
    )


@router.get(
    "/session", auth=None, response=SessionOut, openapi_extra={"x-permission": "session.read"}
)
def read_session(request: HttpRequest) -> SessionOut:
    """Who is signed in. Also sets the page's token."""
    get_token(request)
    return _session(request)


ENTERED = {200: SessionOut, **REFUSALS}


@router.post(
    "/session", auth=None, response=ENTERED, openapi_extra={"x-permission": "session.open"}
)
@decorate_view(csrf_protect)
def open_session(request: HttpRequest, response: HttpResponse, body: SignIn) -> SessionOut:
    """Signs in with a name and a password; where there is a second factor, a code is asked for
    next."""
    user = services.open_session(request, body.username, body.password)
    if user:
        remember(response, user)
    return _session(request)


@router.post(
    "/session/code", auth=None, response=ENTERED, openapi_extra={"x-permission": "session.code"}
)
@decorate_view(csrf_protect)
def show_code(request: HttpRequest, response: HttpResponse, body: CodeIn) -> SessionOut:
    """The second step of signing in: a code of the app, or a recovery code."""
    remember(response, services.show_code(request, body.code))
    return _session(request)


@router.post(
    "/session/demo",
    auth=None,
    response={200: SessionOut, **REFUSALS},
    openapi_extra={"x-permission": "session.demo"},
)
@decorate_view(csrf_protect)
def open_demo(request: HttpRequest) -> SessionOut:
    """Signs in as the demo technician, while the demo is on."""
    services.open_demo(request)
    return _session(request)


@router.delete(
    "/session",
    response={204: None, **REFUSALS},
    openapi_extra={"x-permission": "session.close"},
)
def close_session(request: HttpRequest) -> Status[None]:
    """Signs out."""
    services.close_session(request)
    return Status(204, None)
