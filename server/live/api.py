"""Gauges on the wire: a first look, watching one on a visit, its stream, and the stand-ins."""

from typing import Annotated
from uuid import UUID

from django.db import connections
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router
from pydantic import Field

from accounts.auth import actor_of
from common.errors import REFUSALS, Problem
from common.json_responses import model_response
from common.schemas import Units
from visits.schemas import VisitOut
from visits.serializers import visit_out

from . import selectors, services
from .hub import events
from .serializers import (
    LookIn,
    LookOut,
    StandInIn,
    StandInOut,
    TakenIn,
    WatchIn,
    WatchLine,
    WatchOut,
    look_out,
    stand_in_out,
    watch_line,
    watch_out,
)

router = Router(tags=["live"])
READ, CHANGE = {"x-permission": "visits.read"}, {"x-permission": "visits.change"}


@router.post(
    "/workspaces/{workspace_id}/wires/look",
    response={200: LookOut, **REFUSALS},
    openapi_extra={"x-permission": "gauges.change"},
)
def look_at_wire(request: HttpRequest, workspace_id: UUID, body: LookIn) -> LookOut:
    """A first look at a gauge on the wire: a second of its figures, and what is wrong."""
    return look_out(*services.look_at_wire(actor_of(request), workspace_id, body.wire))


@router.get(
    "/visits/{visit_id}/watches", response={200: list[WatchOut], **REFUSALS}, openapi_extra=READ
)
def read_watches(request: HttpRequest, visit_id: UUID, units: Units = "us") -> list[WatchOut]:
    """The gauges watched on a visit, the latest first."""
    return [watch_out(each, units) for each in selectors.watches_of(actor_of(request), visit_id)]


@router.put(
    "/visits/{visit_id}/watches/{watch_id}",
    response={200: WatchOut, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def begin_watch(
    request: HttpRequest, visit_id: UUID, watch_id: UUID, body: WatchIn, units: Units = "us"
) -> HttpResponse:
    """Begins to watch a gauge on a visit under the id given; gives the watch under way where it is
    watched already. Safe to repeat."""
    made = services.begin_watch(actor_of(request), visit_id, watch_id, body.gauge)
    return model_response(watch_out(made, units))


@router.put("/watches/{watch_id}/ended", response={200: WatchOut, **REFUSALS}, openapi_extra=CHANGE)
def stop_watch(request: HttpRequest, watch_id: UUID, units: Units = "us") -> HttpResponse:
    """Ends a watch; what it saw becomes a recording of the system. Safe to repeat."""
    return model_response(watch_out(services.stop_watch(actor_of(request), watch_id), units))


@router.get("/watches/{watch_id}", response={200: WatchOut, **REFUSALS}, openapi_extra=READ)
def read_watch(request: HttpRequest, watch_id: UUID, units: Units = "us") -> HttpResponse:
    """A watch, with what its gauge offers at the step where the visit stands."""
    watch = selectors.watch_for_actor(actor_of(request), watch_id)
    return model_response(watch_out(watch, units))


@router.get("/watches/{watch_id}/line", response={200: WatchLine, **REFUSALS}, openapi_extra=READ)
def read_line(
    request: HttpRequest,
    watch_id: UUID,
    seconds: Annotated[float, Field(ge=1, le=3600)] = 180.0,
) -> HttpResponse:
    """The last of a watch's line."""
    watch = selectors.watch_for_actor(actor_of(request), watch_id)
    return model_response(watch_line(watch, seconds))


@router.get("/watches/{watch_id}/stream", response={200: bytes, **REFUSALS}, openapi_extra=READ)
def read_stream(request: HttpRequest, watch_id: UUID) -> StreamingHttpResponse:
    """Samples as they come, as server-sent events: `t` (s since 1970) and `p` (Pa gauge); `lost`
    with the id of a problem; `seen` where the watch offers something new; `ended`."""
    watch = selectors.watch_for_actor(actor_of(request), watch_id)
    return as_stream(str(watch.gauge_id), str(watch.pk))


def as_stream(gauge: str, watch: str) -> StreamingHttpResponse:
    """What is told of a gauge and a watch, for as long as it is asked."""
    made = events(gauge, watch)
    response = StreamingHttpResponse(made, content_type="text/event-stream")
    response["X-Accel-Buffering"] = "no"
    if not connections["default"].in_atomic_block:
        connections.close_all()  # a stream holds nothing of the database while it lasts
    return response


@router.put(
    "/watches/{watch_id}/taken/{entry_id}",
    response={200: VisitOut, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def take_seen(
    request: HttpRequest, watch_id: UUID, entry_id: UUID, body: TakenIn, units: Units = "us"
) -> HttpResponse:
    """Takes a reading that the gauge offered into the visit, marked as the gauge's. Safe to
    repeat."""
    actor = actor_of(request)
    visit, records = services.take_seen(
        actor, watch_id, entry_id, body.slot, body.value, body.supersedes
    )
    return model_response(visit_out(actor, visit, units, records=records))


@router.get(
    "/stand-ins",
    response={200: list[StandInOut], **REFUSALS},
    openapi_extra={"x-permission": "systems.read"},
)
def read_stand_ins(request: HttpRequest) -> list[StandInOut]:
    """The made-up plants that stand in for systems of the demo."""
    return [stand_in_out(each) for each in selectors.stand_ins_for_actor(actor_of(request))]


@router.put(
    "/stand-ins/{system_id}",
    response={200: StandInOut, **REFUSALS},
    openapi_extra={"x-permission": "systems.change"},
)
def move_hands(request: HttpRequest, system_id: UUID, body: StandInIn) -> StandInOut:
    """Hands do something else at a stand-in: power, taps, drain, nuts, its line."""
    return stand_in_out(services.move_hands(actor_of(request), system_id, body.hands))
