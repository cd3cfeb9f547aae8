"""Gauges owned."""

from datetime import date
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema

from config.problems import Problem
from people.policies import Actor

from . import gauges
from .schemas import Units

router = Router(tags=["gauges"])
REFUSALS = {400: Problem, 401: Problem, 403: Problem, 404: Problem, 409: Problem, 422: Problem}


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


def _actor(request: HttpRequest) -> Actor:
    return request.auth  # type: ignore[attr-defined,no-any-return]


@router.get("/gauges", response={200: list[GaugeOut], 401: Problem}, openapi_extra={"x-permission": "gauges.read"})
def read_gauges(request: HttpRequest) -> Any:
    """The gauges of the actor's workspaces."""
    return [gauges.gauge_out(each) for each in gauges.gauges_for_actor(_actor(request))]


@router.put(
    "/workspaces/{workspace_id}/gauges/{gauge_id}",
    response={200: GaugeOut, **REFUSALS},
    openapi_extra={"x-permission": "gauges.change"},
)
def put_gauge(
    request: HttpRequest, workspace_id: UUID, gauge_id: UUID, body: GaugeIn, units: Units = "us"
) -> dict[str, Any]:
    """Adds a gauge under the id given, or changes it. Safe to repeat."""
    made = gauges.put_gauge(
        _actor(request), workspace_id, gauge_id, body.version, body.gauge, body.checked_on, body.retired
    )
    return gauges.gauge_out(made)
