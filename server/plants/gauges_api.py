"""Gauges owned."""

from datetime import date
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema

from config.problems import REFUSALS, Problem
from people.auth import actor_of

from . import gauges
from .schemas import Units

router = Router(tags=["gauges"])
ANSWERS = {409: Problem, **REFUSALS}


class GaugeIn(Schema):
    """A gauge (zerodip.gauges.Gauge) over the version read, 0 for a new one; the day of its last check."""

    version: int = 0
    gauge: dict[str, Any]
    checked_on: date | None = None
    retired: bool = False


class GaugeOut(Schema):
    """A gauge; `error_pa` is what its grade lets it be off by."""

    id: UUID
    workspace: UUID
    version: int
    gauge: dict[str, Any]
    error_pa: float
    checked_on: date | None
    state: Literal["never", "overdue", "soon", "good"]
    retired: bool


@router.get("/gauges", response={200: list[GaugeOut], 401: Problem}, openapi_extra={"x-permission": "gauges.read"})
def read_gauges(request: HttpRequest) -> Any:
    """The gauges of the actor's workspaces."""
    return [gauges.gauge_out(each) for each in gauges.gauges_for_actor(actor_of(request))]


@router.put(
    "/workspaces/{workspace_id}/gauges/{gauge_id}",
    response={200: GaugeOut, **ANSWERS},
    openapi_extra={"x-permission": "gauges.change"},
)
def put_gauge(
    request: HttpRequest, workspace_id: UUID, gauge_id: UUID, body: GaugeIn, units: Units = "us"
) -> dict[str, Any]:
    """Adds a gauge under the id given, or changes it. Safe to repeat."""
    made = gauges.put_gauge(
        actor_of(request), workspace_id, gauge_id, body.version, body.gauge, body.checked_on, body.retired
    )
    return gauges.gauge_out(made)
