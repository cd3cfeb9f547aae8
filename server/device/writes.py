"""Writes that waited on a device, many in one request: each is put to its own operation, with its
own permission and its own transaction, as if it had come by itself."""

import json
import re
from collections.abc import Iterable, Mapping
from typing import Any

from django.http import HttpRequest
from django.urls import resolve

from zerodip.answers.writes import ID, MAY_WAIT
from zerodip.errors import Fault, InvalidInput

from .schemas import Answered, WriteIn

__all__ = ["put_all"]

# Photos come one by one, as they are.
_TOLD = [(method, pattern) for method, pattern in MAY_WAIT if "/photos/" not in pattern]
_OPENS = re.compile(rf"/api/systems/{ID}/visits/{ID}")


def put_all(request: HttpRequest, writes: Iterable[WriteIn], sent: str) -> list[Answered]:
    """Each write's answer, in order; none after one that the server itself could not do. Raises
    InvalidInput for an address that takes no such write."""
    given = list(writes)
    faults = [_fault(at) for at, each in enumerate(given) if not _may_wait(each)]
    if faults:
        raise InvalidInput(faults)
    answers: list[Answered] = []
    known: dict[str, str] = {}  # visits that were open already, under another id
    for write in given:
        path = _by_known(write.path, known)
        response = _answer(request, write, path, sent)
        made = json.loads(response.content)
        opened = _OPENS.fullmatch(path)
        if opened and response.status_code == 200:
            known[opened[2]] = made["id"]
        answers.append(Answered(status=response.status_code, body=_told(made)))
        if response.status_code >= 500 or response.status_code in (401, 429):
            break
    return answers


def _may_wait(write: WriteIn) -> bool:
    return any(
        method == write.method and re.fullmatch(pattern, write.path) for method, pattern in _TOLD
    )


def _fault(at: int) -> Fault:
    says = "is no address of a write that may wait."
    return Fault(path=f"writes.{at}.path", code="not_a_choice", title="Address", says=says)


def _by_known(path: str, known: Mapping[str, str]) -> str:
    for ours, theirs in known.items():
        path = path.replace(f"/visits/{ours}", f"/visits/{theirs}")
    return path


def _answer(request: HttpRequest, write: WriteIn, path: str, sent: str) -> Any:
    inner = HttpRequest()
    inner.method, inner.path, inner.path_info = write.method, path, path
    inner.META = {
        **request.META,
        "REQUEST_METHOD": write.method,
        "HTTP_ZERODIP_MADE": write.made,
        "HTTP_ZERODIP_SENT": sent,
    }
    inner.COOKIES, inner.session, inner.user = request.COOKIES, request.session, request.user
    inner.values_sent = write.body  # type: ignore[attr-defined]
    inner._body = json.dumps(write.body).encode()
    # The page's token was looked at as this request came.
    inner._dont_enforce_csrf_checks = True  # type: ignore[attr-defined]
    found = resolve(path)
    return found.func(inner, *found.args, **found.kwargs)


# What a device needs of an answer: what was made, or why not.
_NEEDED = ("id", "verdict", "figures", "title", "detail", "faults", "current")


def _told(made: Any) -> dict[str, Any]:
    return {name: made[name] for name in _NEEDED if name in made} if isinstance(made, dict) else {}
