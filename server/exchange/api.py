"""Open files out and in."""

import tempfile
from uuid import UUID

from django.http import FileResponse, HttpRequest, HttpResponse
from django.utils.text import slugify
from ninja import Router, Status

from accounts.auth import actor_of
from common.errors import REFUSALS, Problem
from common.schemas import Units
from documents.api import origin

from . import services
from .calendar import calendar
from .exporter import archive
from .models import Change
from .parser import MOST_BYTES
from .schemas import ImportOut, PieceOut
from .scopes import ScopeName, scope_for_actor
from .serializers import import_out, piece_out
from .tables import write_tables

router = Router(tags=["exchange"])
READ, TAKE = {"x-permission": "archive.read"}, {"x-permission": "archive.take"}
UPLOAD = {
    **TAKE,
    "requestBody": {
        "content": {"application/json": {"schema": {"type": "object"}}},
        "required": True,
    },
}


@router.get("/archive/{scope}/{id}.json", response={200: dict, **REFUSALS}, openapi_extra=READ)
def read_archive(
    request: HttpRequest, scope: ScopeName, id: UUID, photos: bool = False
) -> FileResponse:
    """A whole workspace, site or system with all that is on record (docs/archive.schema.json)."""
    of = scope_for_actor(actor_of(request), scope, id)
    into = tempfile.TemporaryFile()  # noqa: SIM115 (closed by the response)
    # Written whole before it is sent: what cannot be finished is refused, not cut off.
    into.writelines(archive(of, photos))
    into.seek(0)
    return FileResponse(into, as_attachment=True, filename=f"zerodip-{scope}-{id}.json")


def as_calendar(data: bytes) -> HttpResponse:
    """An iCalendar file (RFC 5545)."""
    response = HttpResponse(data, content_type="text/calendar; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="zerodip-due.ics"'
    return response


@router.get(
    "/due.ics", response={200: bytes, **REFUSALS}, openapi_extra={"x-permission": "rounds.read"}
)
def read_due(request: HttpRequest) -> HttpResponse:
    """What is due on the actor's rounds and at their switches, as an iCalendar file."""
    return as_calendar(calendar(actor_of(request), origin(request)))


@router.get("/tables/{scope}/{id}.zip", response={200: bytes, **REFUSALS}, openapi_extra=READ)
def read_tables(request: HttpRequest, scope: ScopeName, id: UUID) -> FileResponse:
    """The same as CSV tables in a zip, described as a data package."""
    of = scope_for_actor(actor_of(request), scope, id)
    into = tempfile.TemporaryFile()  # noqa: SIM115 (closed by the response)
    write_tables(of, into)
    into.seek(0)
    return FileResponse(into, as_attachment=True, filename=f"zerodip-{slugify(scope)}-{id}.zip")


@router.put(
    "/workspaces/{workspace_id}/imports/{import_id}",
    response={200: ImportOut, **REFUSALS},
    openapi_extra=UPLOAD,
)
def begin_import(
    request: HttpRequest, workspace_id: UUID, import_id: UUID, name: str = ""
) -> ImportOut:
    """Begins an import with an archive (the body, JSON). Nothing is changed by it. Safe to
    repeat."""
    data = request.read(MOST_BYTES + 1)
    return import_out(services.begin(actor_of(request), workspace_id, import_id, name, data))


@router.get("/imports/{import_id}", response={200: ImportOut, **REFUSALS}, openapi_extra=TAKE)
def read_import(request: HttpRequest, import_id: UUID) -> ImportOut:
    """How far an import is."""
    return import_out(services.import_for_actor(actor_of(request), import_id))


@router.post("/imports/{import_id}/step", response={200: ImportOut, **REFUSALS}, openapi_extra=TAKE)
def go_on(request: HttpRequest, import_id: UUID) -> ImportOut:
    """The next second's work on it: checking, or finishing once it is taken."""
    return import_out(services.go_on(actor_of(request), import_id))


@router.get(
    "/imports/{import_id}/pieces", response={200: list[PieceOut], **REFUSALS}, openapi_extra=TAKE
)
def read_pieces(
    request: HttpRequest,
    import_id: UUID,
    change: Change | None = None,
    after: int = -1,
    units: Units = "us",
) -> list[PieceOut]:
    """What taking each piece would do, a hundred at a time."""
    of = services.import_for_actor(actor_of(request), import_id)
    found = services.pieces_of(of, change, max(-1, min(after, 10**9)))
    return [piece_out(piece, units) for piece in found]


@router.put(
    "/imports/{import_id}/taken",
    response={200: ImportOut, 409: Problem, **REFUSALS},
    openapi_extra=TAKE,
)
def take(request: HttpRequest, import_id: UUID) -> ImportOut:
    """Takes all of it in, or nothing. Safe to repeat."""
    return import_out(services.take(actor_of(request), import_id))


@router.delete("/imports/{import_id}", response={204: None, **REFUSALS}, openapi_extra=TAKE)
def cancel(request: HttpRequest, import_id: UUID) -> Status[None]:
    """Cancels an import; nothing of it stays, unless it was taken."""
    services.cancel(actor_of(request), import_id)
    return Status(204, None)
