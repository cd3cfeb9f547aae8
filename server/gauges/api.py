"""Gauges owned."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from accounts.auth import actor_of
from common.errors import REFUSALS, Problem
from common.schemas import Units

from . import selectors, services
from .serializers import GaugeIn, GaugeOut, gauge_out

router = Router(tags=["gauges"])


@router.get(
    "/gauges",
    response={200: list[GaugeOut], **REFUSALS},
    openapi_extra={"x-permission": "gauges.read"},
)
def read_gauges(request: HttpRequest) -> list[GaugeOut]:
    """The gauges of the actor's workspaces."""
    return [gauge_out(each) for each in selectors.gauges_for_actor(actor_of(request))]


@router.put(
    "/workspaces/{workspace_id}/gauges/{gauge_id}",
    response={200: GaugeOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "gauges.change"},
)
def put_gauge(
    request: HttpRequest, workspace_id: UUID, gauge_id: UUID, body: GaugeIn, units: Units = "us"
) -> GaugeOut:
    """Adds a gauge under the id given, or changes it. Safe to repeat."""
    actor = actor_of(request)
    return gauge_out(
        services.put_gauge(
            actor,
            workspace_id,
            gauge_id,
            body.version,
            body.gauge,
            body.wire,
            body.checked_on,
            body.retired,
        )
    )
