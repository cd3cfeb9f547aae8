"""Rounds, systems, decisions and the what-if."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from config.problems import Problem
from people.policies import Actor
from zerodip.decide import decision as decide
from zerodip.decide import strip

from . import selectors, services
from .asking import asked
from .presenting import decision_out, rounds_out, system_out
from .schemas import (
    DecideOut,
    DecisionOut,
    RoundsOut,
    SaveSystem,
    SiteIn,
    SiteOut,
    SystemOut,
    Units,
    WhatIf,
)

router = Router(tags=["plants"])
REFUSALS = {400: Problem, 401: Problem, 403: Problem, 404: Problem, 422: Problem}


def _actor(request: HttpRequest) -> Actor:
    return request.auth  # type: ignore[attr-defined,no-any-return]


@router.get("/rounds", response={200: RoundsOut, 401: Problem}, openapi_extra={"x-permission": "rounds.read"})
def read_rounds(request: HttpRequest) -> Any:
    """The actor's sites and systems, what needs a person first."""
    return rounds_out(_actor(request))


@router.get(
    "/systems/{system_id}", response={200: SystemOut, **REFUSALS}, openapi_extra={"x-permission": "systems.read"}
)
def read_system(request: HttpRequest, system_id: UUID) -> dict[str, Any]:
    """One system with its file and latest decisions."""
    return system_out(_actor(request), selectors.system_for_actor(_actor(request), system_id))


@router.put(
    "/systems/{system_id}",
    response={200: SystemOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "systems.change"},
)
def save_system(request: HttpRequest, system_id: UUID, body: SaveSystem, units: Units = "us") -> dict[str, Any]:
    """Puts a system's file in force, over the version it was read at."""
    system = services.save_system(_actor(request), system_id, body.version, body.document.root)
    return system_out(_actor(request), system)


@router.put(
    "/systems/{system_id}/decisions/{decision_id}",
    response={200: DecisionOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "decisions.save"},
)
def save_decision(
    request: HttpRequest, system_id: UUID, decision_id: UUID, body: SaveSystem, units: Units = "us"
) -> dict[str, Any]:
    """Keeps a decision under the id given, and puts the file in force. Safe to repeat."""
    made = services.save_decision(_actor(request), system_id, decision_id, body.version, body.document.root)
    return decision_out(made)


@router.get(
    "/systems/{system_id}/file", response={200: dict, **REFUSALS}, openapi_extra={"x-permission": "systems.read"}
)
def read_file(request: HttpRequest, response: HttpResponse, system_id: UUID) -> Any:
    """The system's file, to keep or to give to `zerodip decide`."""
    system = selectors.system_for_actor(_actor(request), system_id)
    response["Content-Disposition"] = f'attachment; filename="zerodip-{system.pk}.json"'
    return system.document


@router.patch("/sites/{site_id}", response={200: SiteOut, **REFUSALS}, openapi_extra={"x-permission": "sites.change"})
def change_site(request: HttpRequest, site_id: UUID, body: SiteIn) -> Any:
    """Remembers the units used on a site."""
    return services.change_site(_actor(request), site_id, body.units)


@router.post("/decide", response={200: DecideOut, **REFUSALS}, openapi_extra={"x-permission": "decide.ask"})
def ask_decide(request: HttpRequest, body: WhatIf, units: Units = "us") -> Any:
    """What these settings would do. Nothing is stored."""
    facts, draw = asked(body)
    made = DecideOut.model_construct(decision=decide(facts, units), strip=strip(facts, draw))
    # Written out here: the general way would validate the core's own figures again, at every move of a finger.
    return HttpResponse(made.model_dump_json(), content_type="application/json")
