"""Open files out and in."""

import tempfile
from typing import Any, Literal
from uuid import UUID

from django.http import FileResponse, HttpRequest, StreamingHttpResponse
from django.utils.text import slugify
from ninja import Router, Schema, Status

from accounts.auth import actor_of
from common.errors import REFUSALS, FaultOut, Problem
from common.schemas import Units

from . import services
from .exporter import archive
from .models import Import
from .parser import MOST_BYTES
from .scopes import ScopeName, scope_for_actor
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
ChangeName = Literal["added", "changed", "same", "refused"]


class ImportOut(Schema):
    """How far an import is: `done` of `total` pieces checked (or, once taken, finished), and what
    taking it would do."""

    id: UUID
    workspace: UUID
    name: str
    state: Literal["checking", "ready", "taken", "done"]
    total: int
    done: int
    counts: dict[str, int]


class PieceOut(Schema):
    """One piece: where it stands in the file, what taking it would do, and why it is refused."""

    number: int
    kind: str
    path: str
    line: int
    name: str
    change: ChangeName
    says: str
    faults: list[FaultOut]


def _out(of: Import) -> dict[str, Any]:
    return {
        "id": of.pk,
        "workspace": of.workspace_id,
        "name": of.name,
        "state": of.state,
        "total": of.total,
        "done": of.done,
        "counts": services.counts(of),
    }


@router.get("/archive/{scope}/{id}.json", response={200: dict, **REFUSALS}, openapi_extra=READ)
def read_archive(
    request: HttpRequest, scope: ScopeName, id: UUID, photos: bool = False
) -> StreamingHttpResponse:
    """A whole workspace, site or system with all that is on record (docs/archive.schema.json)."""
    of = scope_for_actor(actor_of(request), scope, id)
    response = StreamingHttpResponse(archive(of, photos), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="zerodip-{scope}-{id}.json"'
    return response


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
def begin_import(request: HttpRequest, workspace_id: UUID, import_id: UUID, name: str = "") -> Any:
    """Begins an import with an archive (the body, JSON). Nothing is changed by it. Safe to
    repeat."""
    data = request.read(MOST_BYTES + 1)
    return _out(services.begin(actor_of(request), workspace_id, import_id, name, data))


@router.get("/imports/{import_id}", response={200: ImportOut, **REFUSALS}, openapi_extra=TAKE)
def read_import(request: HttpRequest, import_id: UUID) -> Any:
    """How far an import is."""
    return _out(services.import_for_actor(actor_of(request), import_id))


@router.post("/imports/{import_id}/step", response={200: ImportOut, **REFUSALS}, openapi_extra=TAKE)
def go_on(request: HttpRequest, import_id: UUID) -> Any:
    """The next second's work on it: checking, or finishing once it is taken."""
    return _out(services.go_on(actor_of(request), import_id))


@router.get(
    "/imports/{import_id}/pieces", response={200: list[PieceOut], **REFUSALS}, openapi_extra=TAKE
)
def read_pieces(
    request: HttpRequest,
    import_id: UUID,
    change: ChangeName | None = None,
    after: int = -1,
    units: Units = "us",
) -> Any:
    """What taking each piece would do, a hundred at a time."""
    of = services.import_for_actor(actor_of(request), import_id)
    return [
        {
            "number": p.number,
            "kind": p.kind,
            "path": p.path,
            "line": p.line,
            "name": p.name,
            "change": p.change,
            "says": p.says,
            "faults": services.fault_rows(p, units),
        }
        for p in services.pieces_of(of, change, max(-1, min(after, 10**9)))
    ]


@router.put(
    "/imports/{import_id}/taken",
    response={200: ImportOut, 409: Problem, **REFUSALS},
    openapi_extra=TAKE,
)
def take(request: HttpRequest, import_id: UUID) -> Any:
    """Takes all of it in, or nothing. Safe to repeat."""
    return _out(services.take(actor_of(request), import_id))


@router.delete("/imports/{import_id}", response={204: None, **REFUSALS}, openapi_extra=TAKE)
def cancel(request: HttpRequest, import_id: UUID) -> Any:
    """Cancels an import; nothing of it stays, unless it was taken."""
    services.cancel(actor_of(request), import_id)
    return Status(204, None)
