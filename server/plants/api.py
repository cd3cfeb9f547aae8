"""Rounds, systems, decisions and the what-if."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from config.answers import written
from config.problems import REFUSALS, Problem
from people.auth import actor_of
from zerodip.decide import decision as decide
from zerodip.document import read_document
from zerodip.strip import strip
from zerodip.weigh.propose import Proposal, propose
from zerodip.weigh.schools import SchoolGroup, school_groups
from zerodip.weigh.sizes import Sizing, sizing

from . import founding, habits, selectors, services
from .asking import asked, asked_sizes
from .presenting import decision_out, habits_out, rounds_out, system_out
from .schemas import (
    DecideOut,
    DecisionOut,
    FileIn,
    HabitsIn,
    HabitsOut,
    NewSite,
    NewSystem,
    Retired,
    RoundsOut,
    SaveSystem,
    SiteIn,
    SiteOut,
    SizesWanted,
    SystemOut,
    Units,
    WhatIf,
)

router = Router(tags=["plants"])


@router.get("/rounds", response={200: RoundsOut, 401: Problem}, openapi_extra={"x-permission": "rounds.read"})
def read_rounds(request: HttpRequest) -> Any:
    """The actor's sites and systems, what needs a person first."""
    return written(rounds_out(actor_of(request)))


@router.get(
    "/systems/{system_id}", response={200: SystemOut, **REFUSALS}, openapi_extra={"x-permission": "systems.read"}
)
def read_system(request: HttpRequest, system_id: UUID) -> dict[str, Any]:
    """One system with its file and latest decisions."""
    return system_out(actor_of(request), selectors.system_for_actor(actor_of(request), system_id))


@router.put(
    "/systems/{system_id}",
    response={200: SystemOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "systems.change"},
)
def save_system(request: HttpRequest, system_id: UUID, body: SaveSystem, units: Units = "us") -> dict[str, Any]:
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
) -> dict[str, Any]:
    """Keeps a decision under the id given, and puts the file in force. Safe to repeat."""
    made = services.save_decision(actor_of(request), system_id, decision_id, body.version, body.document.root)
    return decision_out(made)


@router.get(
    "/systems/{system_id}/file", response={200: dict, **REFUSALS}, openapi_extra={"x-permission": "systems.read"}
)
def read_file(request: HttpRequest, response: HttpResponse, system_id: UUID) -> Any:
    """The system's file, to keep or to give to `zerodip decide`."""
    system = selectors.system_for_actor(actor_of(request), system_id)
    response["Content-Disposition"] = f'attachment; filename="zerodip-{system.pk}.json"'
    return system.document


@router.patch("/sites/{site_id}", response={200: SiteOut, **REFUSALS}, openapi_extra={"x-permission": "sites.change"})
def change_site(request: HttpRequest, site_id: UUID, body: SiteIn) -> Any:
    """Remembers the units used on a site, gives it another name."""
    return founding.change_site(actor_of(request), site_id, body.units, body.name)


@router.put(
    "/workspaces/{workspace_id}/sites/{site_id}",
    response={200: SiteOut, **REFUSALS},
    openapi_extra={"x-permission": "sites.add"},
)
def create_site(request: HttpRequest, workspace_id: UUID, site_id: UUID, body: NewSite) -> Any:
    """Begins a site under the id given. Safe to repeat."""
    return founding.create_site(actor_of(request), workspace_id, site_id, body.name, body.units)


@router.put(
    "/sites/{site_id}/systems/{system_id}",
    response={200: SystemOut, **REFUSALS},
    openapi_extra={"x-permission": "systems.add"},
)
def add_system(request: HttpRequest, site_id: UUID, system_id: UUID, body: NewSystem, units: Units = "us") -> Any:
    """Begins a system under the id given, from a file or with the usual values of its kind. Safe to repeat."""
    raw = None if body.document is None else body.document.root
    made = founding.add_system(actor_of(request), site_id, system_id, body.kind, body.name, raw)
    return system_out(actor_of(request), made)


@router.put(
    "/systems/{system_id}/retired",
    response={200: SystemOut, **REFUSALS},
    openapi_extra={"x-permission": "systems.change"},
)
def retire_system(request: HttpRequest, system_id: UUID, body: Retired) -> Any:
    """Takes a system off the rounds, or brings it back; nothing on record is lost."""
    return system_out(actor_of(request), founding.retire_system(actor_of(request), system_id, body.retired))


@router.put(
    "/sites/{site_id}/retired", response={200: SiteOut, **REFUSALS}, openapi_extra={"x-permission": "sites.change"}
)
def retire_site(request: HttpRequest, site_id: UUID, body: Retired) -> Any:
    """Takes every system of a site off the rounds, or brings them back; nothing on record is lost."""
    return founding.retire_site(actor_of(request), site_id, body.retired)


@router.post("/decide", response={200: DecideOut, **REFUSALS}, openapi_extra={"x-permission": "decide.ask"})
def ask_decide(request: HttpRequest, body: WhatIf, units: Units = "us") -> Any:
    """What these settings would do. Nothing is stored."""
    document, draw = asked(body)
    facts = document.facts()
    made = DecideOut.model_construct(decision=decide(facts, units), strip=strip(facts, draw))
    # Written out here: the general way would validate the core's own figures again, at every move of a finger.
    return HttpResponse(made.model_dump_json(), content_type="application/json")


@router.post("/propose", response={200: Proposal, **REFUSALS}, openapi_extra={"x-permission": "decide.ask"})
def ask_propose(request: HttpRequest, body: FileIn, units: Units = "us") -> Any:
    """Which settings to take, why, and what each other way would cost. Nothing is stored."""
    document = read_document(body.document.root)
    return propose(document.system, document.settings, document.practice, units)


@router.post("/schools", response={200: list[SchoolGroup], **REFUSALS}, openapi_extra={"x-permission": "decide.ask"})
def ask_schools(request: HttpRequest, body: FileIn, units: Units = "us") -> Any:
    """The schools against each other on one system. Nothing is stored."""
    document = read_document(body.document.root)
    return list(school_groups(document.system, document.settings, document.practice, units))


@router.post("/sizes", response={200: Sizing, **REFUSALS}, openapi_extra={"x-permission": "decide.ask"})
def ask_sizes(request: HttpRequest, body: SizesWanted, units: Units = "us") -> Any:
    """The least tank for a wanted run or rate of starts, and the sizes around it. Nothing is stored."""
    document, target, sizes = asked_sizes(body)
    return sizing(document.system, document.settings, document.practice, target, sizes, units)


@router.get("/habits", response={200: list[HabitsOut], 401: Problem}, openapi_extra={"x-permission": "habits.read"})
def read_habits(request: HttpRequest) -> Any:
    """The practice and the nominal sizes of each of the actor's workspaces."""
    actor = actor_of(request)
    return [habits_out(actor, each) for each in selectors.habits_for_actor(actor)]


@router.put(
    "/habits/{workspace_id}",
    response={200: HabitsOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "habits.change"},
)
def change_habits(request: HttpRequest, workspace_id: UUID, body: HabitsIn, units: Units = "us") -> Any:
    """Puts a workspace's practice and sizes in force, and the practice into every system that follows it."""
    actor = actor_of(request)
    changed = habits.change_habits(actor, workspace_id, body.version, body.practice.root, body.sizes_m3)
    return habits_out(actor, changed)
