"""Trouble without a visit, and what a workspace has met."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from accounts.auth import actor_of
from common.errors import REFUSALS
from common.schemas import Units
from zerodip.visit.trouble import TroubleView
from zerodip.visit.trouble_asked import asked_trouble

from .experience import experience_out, met_in, set_back, workspace_asked
from .schemas import ExperienceOut, TroubleWanted

router = Router(tags=["trouble"])


@router.post(
    "/trouble",
    response={200: TroubleView, **REFUSALS},
    openapi_extra={"x-permission": "decide.ask"},
)
def ask_trouble(request: HttpRequest, body: TroubleWanted, units: Units = "us") -> TroubleView:
    """What may be wrong by what was seen and measured, and the next check, as often as the causes
    are met in the workspace: that of the system named, else the only one. Nothing is stored."""
    workspace = workspace_asked(actor_of(request), body.system)
    raw = body.model_dump(exclude_none=True, exclude={"system"})
    return asked_trouble(
        raw, units, lambda kind: met_in(workspace, kind) if workspace is not None else {}
    )


@router.get(
    "/workspaces/{workspace_id}/experience",
    response={200: ExperienceOut, **REFUSALS},
    openapi_extra={"x-permission": "experience.read"},
)
def read_experience(request: HttpRequest, workspace_id: UUID) -> ExperienceOut:
    """What a workspace's troubles were in the end, by kind of system, and how often that was
    expected."""
    return experience_out(actor_of(request), workspace_id)


@router.delete(
    "/workspaces/{workspace_id}/experience",
    response={200: ExperienceOut, **REFUSALS},
    openapi_extra={"x-permission": "experience.change"},
)
def set_experience_back(request: HttpRequest, workspace_id: UUID) -> ExperienceOut:
    """From now on causes are expected as usual again. The outcomes stay on record."""
    actor = actor_of(request)
    set_back(actor, workspace_id)
    return experience_out(actor, workspace_id)
