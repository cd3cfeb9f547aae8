"""Workspaces and their members."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Status

from common.errors import REFUSALS, Problem

from . import members, second_factor, selectors
from .auth import actor_of
from .models import User
from .schemas import NewMember, PasswordOut, RequiredIn, RoleIn, WorkspaceMembers
from .serializers import workspace_members

router = Router(tags=["members"])
ANSWERS = {409: Problem, **REFUSALS}
CHANGE = {"x-permission": "members.change"}


def _password(made: tuple[User, str]) -> PasswordOut:
    user, password = made
    return PasswordOut(username=user.username, password=password)


@router.get(
    "/workspaces",
    response={200: list[WorkspaceMembers], **REFUSALS},
    openapi_extra={"x-permission": "members.read"},
)
def read_workspaces(request: HttpRequest) -> list[WorkspaceMembers]:
    """The actor's workspaces with their members."""
    actor = actor_of(request)
    found = selectors.workspaces_with_members(actor)
    users = (member.user_id for each in found for member in each.memberships.all())
    with_one = second_factor.holders(users)
    return [workspace_members(actor, each, with_one) for each in found]


@router.post(
    "/workspaces/{workspace_id}/members",
    response={200: PasswordOut, **ANSWERS},
    openapi_extra=CHANGE,
)
def add_member(request: HttpRequest, workspace_id: UUID, body: NewMember) -> PasswordOut:
    """A new person with a first password."""
    return _password(
        members.add_member(actor_of(request), workspace_id, body.username, body.name, body.role)
    )


@router.put(
    "/workspaces/{workspace_id}/members/{user_id}",
    response={204: None, **ANSWERS},
    openapi_extra=CHANGE,
)
def change_role(
    request: HttpRequest, workspace_id: UUID, user_id: int, body: RoleIn
) -> Status[None]:
    """Another role for a member."""
    members.change_role(actor_of(request), workspace_id, user_id, body.role)
    return Status(204, None)


@router.delete(
    "/workspaces/{workspace_id}/members/{user_id}",
    response={204: None, **ANSWERS},
    openapi_extra=CHANGE,
)
def remove_member(request: HttpRequest, workspace_id: UUID, user_id: int) -> Status[None]:
    """Takes a member out; what they recorded stays."""
    members.remove_member(actor_of(request), workspace_id, user_id)
    return Status(204, None)


@router.post(
    "/workspaces/{workspace_id}/members/{user_id}/password",
    response={200: PasswordOut, **ANSWERS},
    openapi_extra=CHANGE,
)
def new_password(request: HttpRequest, workspace_id: UUID, user_id: int) -> PasswordOut:
    """A new password for a member who lost theirs."""
    return _password(members.new_password(actor_of(request), workspace_id, user_id))


@router.put(
    "/workspaces/{workspace_id}/second-factor",
    response={204: None, **ANSWERS},
    openapi_extra=CHANGE,
)
def require_second_factor(
    request: HttpRequest, workspace_id: UUID, body: RequiredIn
) -> Status[None]:
    """Whether the workspace opens only by a second factor."""
    second_factor.require_of_members(actor_of(request), workspace_id, body.required)
    return Status(204, None)


@router.delete(
    "/workspaces/{workspace_id}/members/{user_id}/second-factor",
    response={204: None, **ANSWERS},
    openapi_extra=CHANGE,
)
def end_second_factor_of(request: HttpRequest, workspace_id: UUID, user_id: int) -> Status[None]:
    """For a member who lost phone and recovery codes."""
    members.end_second_factor(actor_of(request), workspace_id, user_id)
    return Status(204, None)
