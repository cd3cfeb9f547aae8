"""Every refusal as problem+json (RFC 9457), mapped once per exception."""

import json
import sys
from typing import Any

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError
from psycopg.errors import DiskFull

from zerodip.answers.refusals import REFUSED
from zerodip.answers.refusals import fault_out as fault_in_words
from zerodip.errors import Fault, InvalidInput
from zerodip.units import TOLD

__all__ = [
    "REFUSALS",
    "Conflict",
    "FaultOut",
    "Forbidden",
    "NotFound",
    "Problem",
    "csrf_failure",
    "install",
]


class NotFound(Exception):
    """Not there, or not for this person: the two look alike from outside."""


class Forbidden(Exception):
    """There, but this role may not do it."""


class Conflict(Exception):
    """Somebody else was first. `current` holds what is stored now."""

    def __init__(self, detail: str, current: dict[str, Any]) -> None:
        super().__init__(detail)
        self.detail, self.current = detail, current


class FaultOut(Schema):
    """One fault: the field's path, a code, a sentence, the allowed range in words."""

    path: str
    code: str
    message: str
    allowed: str


class Problem(Schema):
    """A refusal. `faults` is filled when values are refused, `current` when somebody else was
    first."""

    title: str
    status: int
    detail: str
    faults: list[FaultOut]
    current: dict[str, Any] | None = None


# What any operation behind the sign-in may answer instead: each a Problem, which the description
# says (config.openapi). A type of its own for each would cost every process seconds at its start.
REFUSALS: dict[int, None] = dict.fromkeys((400, 401, 403, 404, 413, 415, 422, 429, 503))


def units_of(request: HttpRequest) -> str:
    """The unit system or scale a request asks its texts in; US units if it does not say."""
    asked = request.GET.get("units", "us")
    return asked if asked in TOLD else "us"


def fault_out(fault: Fault, units: str) -> FaultOut:
    """A fault in words."""
    return FaultOut(**fault_in_words(fault, units))


def problem(
    status: int,
    title: str,
    detail: str = "",
    faults: list[FaultOut] | None = None,
    current: dict[str, Any] | None = None,
) -> HttpResponse:
    """A problem+json response."""
    body = Problem(title=title, status=status, detail=detail, faults=faults or [], current=current)
    return HttpResponse(
        body.model_dump_json(), status=status, content_type="application/problem+json"
    )


def install(api: NinjaAPI) -> None:
    """Gives the API one handler per exception."""

    @api.exception_handler(InvalidInput)
    def _invalid(request: HttpRequest, error: InvalidInput) -> HttpResponse:
        units = units_of(request)
        return problem(422, REFUSED, faults=[fault_out(f, units) for f in error.faults])

    @api.exception_handler(ValidationError)
    def _unreadable(request: HttpRequest, error: ValidationError) -> HttpResponse:
        return problem(422, REFUSED, faults=[_from_ninja(e) for e in error.errors])

    @api.exception_handler(AuthenticationError)
    def _signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "Sign in first")

    @api.exception_handler(NotFound)
    def _missing(request: HttpRequest, error: NotFound) -> HttpResponse:
        return problem(404, "Not found")

    @api.exception_handler(Forbidden)
    def _forbidden(request: HttpRequest, error: Forbidden) -> HttpResponse:
        return problem(403, "Your role does not allow this", str(error))

    @api.exception_handler(Conflict)
    def _conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return problem(409, "Somebody else was first", error.detail, current=error.current)

    @api.exception_handler(HttpError)
    def _refused(request: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, "The request was refused", str(error))


def _from_ninja(error: dict[str, Any]) -> FaultOut:
    path = ".".join(str(step) for step in error.get("loc", ())[1:])
    return FaultOut(
        path=path, code=str(error.get("type")), message=str(error.get("msg")), allowed=""
    )


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """A request without the page's token."""
    return problem(403, "Reload the page and try again", "The page's token is missing or old.")


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """A request that Django itself refuses: another host's name, say."""
    return problem(400, "The request was refused", "Host, address or size are not allowed here.")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """An address that is not there."""
    return problem(404, "Not found")


def away(request: HttpRequest, title: str = "The database does not answer") -> HttpResponse:
    """The database does not answer, or cannot write: nothing is lost, and it is worth trying
    again."""
    says = "What was sent is not kept yet. Try again in a moment."
    if request.path.startswith("/api/"):
        response = problem(503, title, says)
    else:
        text = f"Zero Dip: {title[0].lower()}{title[1:]}. {says}\n"
        response = HttpResponse(text, status=503, content_type="text/plain; charset=utf-8")
    response["Retry-After"] = "5"
    return response


def broken(request: HttpRequest) -> HttpResponse:
    """A fault of ours; or the database is away."""
    error = sys.exc_info()[1]
    if isinstance(error, OperationalError) and isinstance(error.__cause__, DiskFull):
        return away(request, "The disk of the database is full")
    if isinstance(error, OperationalError | InterfaceError):
        return away(request)
    body = {
        "title": "Something broke on the server",
        "status": 500,
        "detail": "It has been logged.",
        "faults": [],
    }
    return HttpResponse(json.dumps(body), status=500, content_type="application/problem+json")
