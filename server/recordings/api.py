"""Recordings: sent in parts, guessed, read behind the page, drawn, and taken out again."""

from collections.abc import Iterator
from typing import Annotated
from uuid import UUID

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router
from pydantic import Field

from accounts.auth import actor_of
from common.errors import REFUSALS, Problem
from common.json_responses import model_response
from common.schemas import Units
from sites.selectors import system_for_actor

from . import readings, selectors, services
from .serializers import (
    CyclesOut,
    GuessOut,
    LineOut,
    PredictedOut,
    ReadIn,
    RecordingIn,
    RecordingOut,
    RecordingRow,
    TakenOut,
    cycles_out,
    guess_out,
    line_out,
    predicted_out,
    recording_out,
    recording_row,
)
from .taken_out import as_csv, as_parquet

router = Router(tags=["recordings"])
READ = {"x-permission": "recordings.read"}
CHANGE = {"x-permission": "recordings.change"}
BODY = {"content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}}


@router.get(
    "/systems/{system_id}/recordings",
    response={200: list[RecordingRow], **REFUSALS},
    openapi_extra=READ,
)
def read_recordings(request: HttpRequest, system_id: UUID) -> list[RecordingRow]:
    """The recordings of a system, the latest first."""
    system = system_for_actor(actor_of(request), system_id)
    found = selectors.recordings_for_actor(actor_of(request)).filter(system=system)
    return [recording_row(each) for each in found]


@router.put(
    "/systems/{system_id}/recordings/{recording_id}",
    response={200: RecordingRow, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def add_recording(
    request: HttpRequest, system_id: UUID, recording_id: UUID, body: RecordingIn
) -> RecordingRow:
    """Begins a recording under the id given, whose file comes in parts. Safe to repeat."""
    name = body.name.strip()[:120] or "Recording"
    return recording_row(
        services.add_recording(actor_of(request), system_id, recording_id, name, body.size)
    )


@router.put(
    "/recordings/{recording_id}/parts/{number}",
    response={200: RecordingRow, 409: Problem, **REFUSALS},
    openapi_extra={**CHANGE, "requestBody": BODY},
)
def add_part(request: HttpRequest, recording_id: UUID, number: int) -> RecordingRow:
    """Keeps one part of the file (the body), in any order. Safe to repeat."""
    return recording_row(services.add_part(actor_of(request), recording_id, number, request.body))


@router.get(
    "/recordings/{recording_id}/guess",
    response={200: GuessOut, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def read_guess(request: HttpRequest, recording_id: UUID) -> GuessOut:
    """How the file seems to be written, by its beginning."""
    return guess_out(services.guess_of(actor_of(request), recording_id))


@router.post(
    "/recordings/{recording_id}/read",
    response={200: RecordingRow, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def begin_reading(request: HttpRequest, recording_id: UUID, body: ReadIn) -> RecordingRow:
    """Begins to read the file by a layout; how far it is, the recording tells."""
    return recording_row(services.begin_reading(actor_of(request), recording_id, body.layout))


@router.get(
    "/recordings/{recording_id}",
    response={200: RecordingOut, **REFUSALS},
    openapi_extra=READ,
)
def read_recording(request: HttpRequest, recording_id: UUID, units: Units = "us") -> HttpResponse:
    """A recording and what it says."""
    actor = actor_of(request)
    recording = selectors.recording_for_actor(actor, recording_id)
    may = actor.may("recordings.change", recording.system.site.workspace_id)
    return model_response(recording_out(recording, may, units))


@router.put(
    "/recordings/{recording_id}/readings/{visit_id}",
    response={200: TakenOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "visits.change"},
)
def take_readings(
    request: HttpRequest, recording_id: UUID, visit_id: UUID, units: Units = "us"
) -> TakenOut:
    """Takes what the recording offers into a visit, as readings. Safe to repeat."""
    taken, left = readings.take_readings(actor_of(request), recording_id, visit_id, units)
    return TakenOut(taken=taken, left=left)


@router.delete("/recordings/{recording_id}", response={204: None, **REFUSALS}, openapi_extra=CHANGE)
def delete_recording(request: HttpRequest, recording_id: UUID) -> HttpResponse:
    """Takes a recording away with all that was kept of it; its reading is given up."""
    services.delete_recording(actor_of(request), recording_id)
    return HttpResponse(status=204)


@router.get(
    "/recordings/{recording_id}/line", response={200: LineOut, **REFUSALS}, openapi_extra=READ
)
def read_line(
    request: HttpRequest,
    recording_id: UUID,
    from_s: float,
    until_s: float,
    points: Annotated[int, Field(ge=10, le=4000)] = 1000,
) -> HttpResponse:
    """A window of the line, in about as many buckets as asked for."""
    recording = selectors.recording_for_actor(actor_of(request), recording_id)
    return model_response(line_out(recording, from_s, until_s, points))


@router.get(
    "/recordings/{recording_id}/cycles", response={200: CyclesOut, **REFUSALS}, openapi_extra=READ
)
def read_cycles(
    request: HttpRequest, recording_id: UUID, from_s: float, until_s: float
) -> HttpResponse:
    """The cycles that touch a window."""
    recording = selectors.recording_for_actor(actor_of(request), recording_id)
    return model_response(cycles_out(recording, from_s, until_s))


@router.get(
    "/recordings/{recording_id}/predicted",
    response={200: PredictedOut, **REFUSALS},
    openapi_extra=READ,
)
def read_predicted(request: HttpRequest, recording_id: UUID, start_s: float) -> HttpResponse:
    """The cycle that starts at a time, as the system's file predicts it under the same draw."""
    recording = selectors.recording_for_actor(actor_of(request), recording_id)
    return model_response(predicted_out(recording, start_s))


@router.get(
    "/recordings/{recording_id}/samples.csv",
    response={200: bytes, **REFUSALS},
    openapi_extra=READ,
)
def take_csv(request: HttpRequest, recording_id: UUID) -> StreamingHttpResponse:
    """All samples as CSV: time in seconds since 1970, SI."""
    recording = selectors.recording_for_actor(actor_of(request), recording_id)
    return _file(as_csv(recording), "text/csv; charset=utf-8", f"{recording.pk}.csv")


@router.get(
    "/recordings/{recording_id}/samples.parquet",
    response={200: bytes, **REFUSALS},
    openapi_extra=READ,
)
def take_parquet(request: HttpRequest, recording_id: UUID) -> StreamingHttpResponse:
    """All samples as Parquet: time in seconds since 1970, SI."""
    recording = selectors.recording_for_actor(actor_of(request), recording_id)
    kind = "application/vnd.apache.parquet"
    return _file(as_parquet(recording), kind, f"{recording.pk}.parquet")


def _file(blocks: Iterator[bytes], kind: str, name: str) -> StreamingHttpResponse:
    response = StreamingHttpResponse(blocks, content_type=kind)
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
