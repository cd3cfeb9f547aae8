"""Rounds, sites, systems and decisions."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from accounts.auth import actor_of
from common.clock import made_of
from common.errors import REFUSALS, Problem
from common.json_responses import json_response
from common.schemas import Units

from . import registration, selectors, services
from .models import Site
from .schemas import (
    DecisionOut,
    NewSite,
    NewSystem,
    Retired,
    RoundsOut,
    SaveSystem,
    SiteIn,
    SiteOut,
    SystemOut,
)
from .serializers import decision_out, rounds_out, system_out

router = Router(tags=["sites"])


@router.get(
    "/rounds",
    response={200: RoundsOut, **REFUSALS},
    openapi_extra={"x-permission": "rounds.read"},
)
def read_rounds(request: HttpRequest) -> HttpResponse:
    """The actor's sites and systems, what needs a person first."""
    return json_response(rounds_out(actor_of(request)))


@router.get(
    "/systems/{system_id}",
    response={200: SystemOut, **REFUSALS},
    openapi_extra={"x-permission": "systems.read"},
)
def read_system(request: HttpRequest, system_id: UUID) -> SystemOut:
    """One system with its file and latest decisions."""
    return system_out(actor_of(request), selectors.system_for_actor(actor_of(request), system_id))


@router.put(
    "/systems/{system_id}",
    response={200: SystemOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "systems.change"},
)
def save_system(
    request: HttpRequest, system_id: UUID, body: SaveSystem, units: Units = "us"
) -> SystemOut:
    """Puts a system's file in force, over the version it was read at."""
    system = services.save_system(actor_of(request), system_id, body.version, body.document.root)
    return system_out(actor_of(request), system)


@router.put(
    "/systems/{system_id}/decisions/{decision_id}",
    response={200: DecisionOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "decisions.save"},
)
def save_decision(
    request: HttpRequest, system_id: UUID, decision_id: UUID, body: SaveSystem, units: Units = "us"
) -> DecisionOut:
    """Keeps a decision under the id given, and puts the file in force. Safe to repeat."""
    kept = services.save_decision(
        actor_of(request),
        system_id,
        decision_id,
        body.version,
        body.document.root,
        made_of(request),
    )
    return decision_out(kept)


@router.get(
    "/systems/{system_id}/file",
    response={200: dict, **REFUSALS},
    openapi_extra={"x-permission": "systems.read"},
)
def read_file(request: HttpRequest, response: HttpResponse, system_id: UUID) -> Any:
    """The system's file, to keep or to give to `zerodip decide`."""
    system = selectors.system_for_actor(actor_of(request), system_id)
    response["Content-Disposition"] = f'attachment; filename="zerodip-{system.pk}.json"'
    return system.document


@router.patch(
    "/sites/{site_id}",
    response={200: SiteOut, **REFUSALS},
    openapi_extra={"x-permission": "sites.change"},
)
def change_site(request: HttpRequest, site_id: UUID, body: SiteIn) -> Site:
    """Remembers the units used on a site, gives it another name."""
    return registration.change_site(actor_of(request), site_id, body.units, body.name)


@router.put(
    "/workspaces/{workspace_id}/sites/{site_id}",
    response={200: SiteOut, **REFUSALS},
    openapi_extra={"x-permission": "sites.add"},
)
def create_site(request: HttpRequest, workspace_id: UUID, site_id: UUID, body: NewSite) -> Site:
    """Begins a site under the id given. Safe to repeat."""
    return registration.create_site(actor_of(request), workspace_id, site_id, body.name, body.units)


@router.put(
    "/sites/{site_id}/systems/{system_id}",
    response={200: SystemOut, **REFUSALS},
    openapi_extra={"x-permission": "systems.add"},
)
def add_system(
    request: HttpRequest, site_id: UUID, system_id: UUID, body: NewSystem, units: Units = "us"
) -> SystemOut:
    """Begins a system under the id given, from a file or with the usual values of its kind. Safe to
    repeat."""
    raw = None if body.document is None else body.document.root
    made = registration.add_system(actor_of(request), site_id, system_id, body.kind, body.name, raw)
    return system_out(actor_of(request), made)


@router.put(
    "/systems/{system_id}/retired",
    response={200: SystemOut, **REFUSALS},
    openapi_extra={"x-permission": "systems.change"},
)
def retire_system(request: HttpRequest, system_id: UUID, body: Retired) -> SystemOut:
    """Takes a system off the rounds, or brings it back; nothing on record is lost."""
    return system_out(
        actor_of(request), registration.retire_system(actor_of(request), system_id, body.retired)
    )


@router.put(
    "/sites/{site_id}/retired",
    response={200: SiteOut, **REFUSALS},
    openapi_extra={"x-permission": "sites.change"},
)
def retire_site(request: HttpRequest, site_id: UUID, body: Retired) -> Site:
    """Takes every system of a site off the rounds, or brings them back; nothing on record is
    lost."""
    return registration.retire_site(actor_of(request), site_id, body.retired)
