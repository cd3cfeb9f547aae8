"""Every request is looked at before anything else reads it, and every private answer says that it
is nobody else's to keep."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from ninja.parser import Parser

from zerodip.answers.refusals import REFUSED
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.json_values import faults_of, read_json

from .errors import fault_out, problem, units_of

__all__ = ["Checked", "Incoming"]

_MOST_VALUES = 60_000
_FORMS = ("multipart/form-data", "application/x-www-form-urlencoded")
_PRIVATE = ("/api/", "/papers/")


class Incoming:
    """Refuses what no operation could make sense of, by field, and marks answers as private."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self._refused(request) or self.get_response(request)
        if request.path.startswith(_PRIVATE):
            response.setdefault("Cache-Control", "no-store")
            response["Zerodip-Version"] = settings.VERSION
        return response

    def _refused(self, request: HttpRequest) -> HttpResponse | None:
        if request.content_type in _FORMS and request.path.startswith("/api/"):
            return problem(415, "Not as a form", "Send JSON, as application/json.")
        try:
            faults = [*_of_address(request)]
            if not faults and _holds_json(request):
                values = read_json(request.body, _MOST_VALUES)
                request.values_sent = values  # type: ignore[attr-defined]
        except RequestDataTooBig:
            return problem(413, "Too large", "A request holds at most 1 MB.")
        except InvalidInput as error:
            # A file's own fields are named as in the file, wherever it was sent along.
            faults = [replace(f, path=f.path.removeprefix("document.")) for f in error.faults]
        except OSError:  # the sender went, or was too slow
            return problem(400, "The request was cut off")
        if not faults:
            return None
        out = [fault_out(each, units_of(request)) for each in faults]
        return problem(422, REFUSED, faults=out)


def _of_address(request: HttpRequest) -> list[Fault]:
    """Letters in path and query that nothing here is named by."""
    sent = {"path": request.path, "query": dict(request.GET.lists())}
    return faults_of(sent, 1000)


def _holds_json(request: HttpRequest) -> bool:
    """Whether an operation reads the body as JSON, whatever it is said to be; an archive, a
    photo and a part of a recording are read in their own ways."""
    return (
        request.path.startswith("/api/")
        and "/imports/" not in request.path
        and "/photos/" not in request.path
        and "/parts/" not in request.path
        and bool(request.body)
    )


class Checked(Parser):
    """Gives the operations what `Incoming` has read already."""

    def parse_body(self, request: HttpRequest) -> Any:
        if hasattr(request, "values_sent"):
            return request.values_sent
        return super().parse_body(request)
