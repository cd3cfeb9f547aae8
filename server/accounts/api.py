"""Session operations."""

from django.conf import settings
from django.http import HttpRequest
from django.middleware.csrf import get_token
from django.views.decorators.csrf import csrf_protect
from ninja import Router, Status
from ninja.decorators import decorate_view

from common.errors import Problem

from . import services
from .models import User
from .schemas import SessionOut, SignIn

router = Router(tags=["session"])
REFUSALS = {400: Problem, 403: Problem, 404: Problem, 422: Problem}


def _session(user: object) -> SessionOut:
    signed_in = isinstance(user, User) and user.is_authenticated
    name = user.shown if signed_in and isinstance(user, User) else ""
    return SessionOut(signed_in=signed_in, name=name, demo=settings.DEMO)


@router.get(
    "/session", auth=None, response=SessionOut, openapi_extra={"x-permission": "session.read"}
)
def read_session(request: HttpRequest) -> SessionOut:
    """Who is signed in. Also sets the page's token."""
    get_token(request)
    return _session(request.user)


@router.post(
    "/session",
    auth=None,
    response={200: SessionOut, 401: Problem, 429: Problem, **REFUSALS},
    openapi_extra={"x-permission": "session.open"},
)
@decorate_view(csrf_protect)
def open_session(request: HttpRequest, body: SignIn) -> SessionOut:
    """Signs in with a name and a password."""
    return _session(services.open_session(request, body.username, body.password))


@router.post(
    "/session/demo",
    auth=None,
    response={200: SessionOut, **REFUSALS},
    openapi_extra={"x-permission": "session.demo"},
)
@decorate_view(csrf_protect)
def open_demo(request: HttpRequest) -> SessionOut:
    """Signs in as the demo technician, while the demo is on."""
    return _session(services.open_demo(request))


@router.delete(
    "/session",
    response={204: None, 401: Problem, **REFUSALS},
    openapi_extra={"x-permission": "session.close"},
)
def close_session(request: HttpRequest) -> Status[None]:
    """Signs out."""
    services.close_session(request)
    return Status(204, None)
