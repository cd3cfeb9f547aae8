"""The practice that workspaces follow."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from accounts.auth import actor_of
from common.errors import REFUSALS, Problem
from common.schemas import Units

from . import selectors, services
from .serializers import PracticeIn, PracticeOut, practice_out

router = Router(tags=["practice"])


@router.get(
    "/practices",
    response={200: list[PracticeOut], **REFUSALS},
    openapi_extra={"x-permission": "practice.read"},
)
def read_practices(request: HttpRequest) -> list[PracticeOut]:
    """The practice and the nominal sizes of each of the actor's workspaces."""
    actor = actor_of(request)
    return [practice_out(actor, each) for each in selectors.practices_for_actor(actor)]


@router.put(
    "/practices/{workspace_id}",
    response={200: PracticeOut, 409: Problem, **REFUSALS},
    openapi_extra={"x-permission": "practice.change"},
)
def change_practice(
    request: HttpRequest, workspace_id: UUID, body: PracticeIn, units: Units = "us"
) -> PracticeOut:
    """Puts a workspace's practice and sizes in force, and the practice into every system that
    follows it."""
    actor = actor_of(request)
    changed = services.change_practice(
        actor, workspace_id, body.version, body.practice.root, body.sizes_m3
    )
    return practice_out(actor, changed)
