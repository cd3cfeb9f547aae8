"""Visits, their entries and photos."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from accounts.auth import actor_of
from common.clock import made_of
from common.errors import REFUSALS, Problem
from common.json_responses import json_response, model_response
from common.schemas import Units
from gauges.selectors import gauges_in_use
from gauges.serializers import GaugeOut, gauge_out
from sites.selectors import system_for_actor
from zerodip.trends.history import Trends
from zerodip.visit.slots import PhotoOf

from . import selectors, services
from .next_checks import trends_at, trends_of
from .schemas import (
    EntryIn,
    MomentOut,
    NextCheckOut,
    OpenVisit,
    Order,
    PhotoOut,
    VisitOut,
    VisitRow,
)
from .serializers import next_check_row, photo_out, visit_out, visit_row
from .timeline import timeline

router = Router(tags=["visits"])
CHANGES = {200: VisitOut, 409: Problem, **REFUSALS}
READ, CHANGE = {"x-permission": "visits.read"}, {"x-permission": "visits.change"}


@router.get(
    "/systems/{system_id}/visits", response={200: list[VisitRow], **REFUSALS}, openapi_extra=READ
)
def read_visits(request: HttpRequest, system_id: UUID) -> list[VisitRow]:
    """The latest visits of a system, newest first."""
    return [
        visit_row(visit)
        for visit in selectors.visits_of(system_for_actor(actor_of(request), system_id))
    ]


@router.get(
    "/systems/{system_id}/timeline", response={200: list[MomentOut], **REFUSALS}, openapi_extra=READ
)
def read_timeline(request: HttpRequest, system_id: UUID, units: Units = "us") -> list[MomentOut]:
    """What happened to a system, newest first: visits with their photos, decisions, retiring."""
    return timeline(system_for_actor(actor_of(request), system_id), units)


@router.get("/systems/{system_id}/trends", response={200: Trends, **REFUSALS}, openapi_extra=READ)
def read_trends(request: HttpRequest, system_id: UUID, units: Units = "us") -> Trends:
    """What the closed visits say of a system: series, loss per year, when it leaves its band, when
    it is due."""
    return trends_of(system_for_actor(actor_of(request), system_id), units)


@router.get("/next-checks", response={200: list[NextCheckOut], **REFUSALS}, openapi_extra=READ)
def read_next_checks(request: HttpRequest) -> HttpResponse:
    """When each system that was ever visited is due, and what is drifting."""
    now_s = timezone.now().timestamp()
    return json_response(
        [next_check_row(row, now_s) for row in selectors.next_checks(actor_of(request))]
    )


@router.put("/systems/{system_id}/visits/{visit_id}", response=CHANGES, openapi_extra=CHANGE)
def open_visit(
    request: HttpRequest, system_id: UUID, visit_id: UUID, units: Units = "us"
) -> HttpResponse:
    """Opens a visit under the id given, or gives the one already open. Safe to repeat."""
    visit = services.open_visit(actor_of(request), system_id, visit_id, made_of(request))
    return model_response(visit_out(actor_of(request), visit, units))


@router.get("/visits", response={200: list[OpenVisit], **REFUSALS}, openapi_extra=READ)
def read_open_visits(request: HttpRequest) -> HttpResponse:
    """The visits left open, oldest first."""
    return json_response(selectors.open_visits(actor_of(request)))


@router.get("/visits/{visit_id}", response={200: VisitOut, **REFUSALS}, openapi_extra=READ)
def read_visit(
    request: HttpRequest,
    visit_id: UUID,
    units: Units = "us",
    order: Order = "together",
    eager: bool = False,
) -> HttpResponse:
    """One visit: what its steps show and every entry."""
    actor = actor_of(request)
    visit = selectors.visit_for_actor(actor, visit_id)
    return model_response(visit_out(actor, visit, units, order, eager))


@router.get("/visits/{visit_id}/trends", response={200: Trends, **REFUSALS}, openapi_extra=READ)
def read_trends_at(request: HttpRequest, visit_id: UUID, units: Units = "us") -> Trends:
    """The trends as this visit sees them, its own figures last: when to come again."""
    visit = selectors.visit_for_actor(actor_of(request), visit_id)
    return trends_at(visit, selectors.records_of(visit), units)


@router.get(
    "/visits/{visit_id}/gauges", response={200: list[GaugeOut], **REFUSALS}, openapi_extra=READ
)
def read_gauges(request: HttpRequest, visit_id: UUID) -> list[GaugeOut]:
    """The gauges in use of the visit's workspace, with what each may be off by at this system's set
    points."""
    visit = selectors.visit_for_actor(actor_of(request), visit_id)
    settings = selectors.document_of(visit).settings
    band = (settings.cut_in_gauge_pa, settings.cut_out_gauge_pa)
    return [gauge_out(each, band) for each in gauges_in_use(visit.system.site.workspace_id)]


@router.put("/visits/{visit_id}/closed", response=CHANGES, openapi_extra=CHANGE)
def close_visit(request: HttpRequest, visit_id: UUID, units: Units = "us") -> HttpResponse:
    """Closes a visit for good. Safe to repeat; readings can still be corrected, with their date."""
    actor = actor_of(request)
    visit = services.close_visit(actor, visit_id, made_of(request))
    return model_response(visit_out(actor, visit, units))


@router.put(
    "/visits/{visit_id}/entries/{entry_id}",
    response={204: None, **CHANGES},
    openapi_extra=CHANGE,
)
def add_entry(
    request: HttpRequest,
    visit_id: UUID,
    entry_id: UUID,
    body: EntryIn,
    units: Units = "us",
    order: Order = "together",
    eager: bool = False,
    more: bool = False,
) -> HttpResponse:
    """Adds one record under the id given. Safe to repeat; a correction names what it supersedes.
    Where `more` follow, the visit is told with the last of them only."""
    actor = actor_of(request)
    visit, records = services.add_entry(
        actor, visit_id, entry_id, body.slot, body.value, body.supersedes, made_of(request)
    )
    if more:
        return HttpResponse(status=204)
    return model_response(visit_out(actor, visit, units, order, eager, records))


@router.put(
    "/visits/{visit_id}/photos/{photo_id}",
    response={200: PhotoOut, 409: Problem, **REFUSALS},
    openapi_extra={
        **CHANGE,
        "requestBody": {
            "content": {"image/jpeg": {"schema": {"type": "string", "format": "binary"}}}
        },
    },
)
def add_photo(
    request: HttpRequest,
    visit_id: UUID,
    photo_id: UUID,
    plate: PhotoOf = "other",
    draft: bool = False,
) -> PhotoOut:
    """Adds a photo (the body: JPEG or PNG), and what it is of. On a bad line a small one goes ahead
    as a draft; the photo itself follows under the same id."""
    photo = services.add_photo(actor_of(request), visit_id, photo_id, plate, request.body, draft)
    return photo_out(photo)


@router.get(
    "/visits/{visit_id}/photos/{photo_id}", response={200: bytes, **REFUSALS}, openapi_extra=READ
)
def read_photo(request: HttpRequest, visit_id: UUID, photo_id: UUID) -> HttpResponse:
    """A photo."""
    photo = services.cleaned(selectors.photo_for_actor(actor_of(request), visit_id, photo_id))
    response = HttpResponse(bytes(photo.data), content_type=photo.kind)
    response["Cache-Control"] = "no-store" if photo.draft else "private, max-age=86400"
    response["X-Content-Type-Options"] = "nosniff"
    return response
