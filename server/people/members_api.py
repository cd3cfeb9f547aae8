"""Workspaces and their members."""

from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field

from config.problems import Problem

from . import members
from .policies import Actor

router = Router(tags=["members"])
REFUSALS = {400: Problem, 401: Problem, 403: Problem, 404: Problem, 409: Problem, 422: Problem}
CHANGE = {"x-permission": "members.change"}
RoleName = Literal["owner", "technician", "viewer"]


class MemberOut(Schema):
    """A member, and whether it is who asks."""

    user: int
    username: str
    name: str
    role: RoleName
    you: bool


class CrewOut(Schema):
    """A workspace with its members."""

    id: UUID
    name: str
    may_change: bool
    members: list[MemberOut]


class NewMember(Schema):
    """Who joins, in which role."""

    username: str = Field(max_length=200)
    name: str = Field(default="", max_length=200)
    role: RoleName = "technician"


class RoleIn(Schema):
    """A role."""

    role: RoleName


class PasswordOut(Schema):
    """A password made here, shown this once."""

    username: str
    password: str


class PasswordIn(Schema):
    """The old password and a new one."""

    old: str = Field(max_length=200)
    new: str = Field(max_length=200)


def _actor(request: HttpRequest) -> Actor:
    return request.auth  # type: ignore[attr-defined,no-any-return]


@router.get("/workspaces", response={200: list[CrewOut], 401: Problem}, openapi_extra={"x-permission": "members.read"})
def read_workspaces(request: HttpRequest) -> Any:
    """The actor's workspaces with their members."""
    return members.workspaces_out(_actor(request))


@router.post("/workspaces/{workspace_id}/members", response={200: PasswordOut, **REFUSALS}, openapi_extra=CHANGE)
def add_member(request: HttpRequest, workspace_id: UUID, body: NewMember) -> Any:
    """A new person with a first password."""
    user, password = members.add_member(_actor(request), workspace_id, body.username, body.name, body.role)
    return {"username": user.username, "password": password}


@router.put("/workspaces/{workspace_id}/members/{user_id}", response={204: None, **REFUSALS}, openapi_extra=CHANGE)
def change_role(request: HttpRequest, workspace_id: UUID, user_id: int, body: RoleIn) -> Any:
    """Another role for a member."""
    members.change_role(_actor(request), workspace_id, user_id, body.role)
    return Status(204, None)


@router.delete("/workspaces/{workspace_id}/members/{user_id}", response={204: None, **REFUSALS}, openapi_extra=CHANGE)
def remove_member(request: HttpRequest, workspace_id: UUID, user_id: int) -> Any:
    """Takes a member out; what they recorded stays."""
    members.remove_member(_actor(request), workspace_id, user_id)
    return Status(204, None)


@router.post(
    "/workspaces/{workspace_id}/members/{user_id}/password",
    response={200: PasswordOut, **REFUSALS},
    openapi_extra=CHANGE,
)
def new_password(request: HttpRequest, workspace_id: UUID, user_id: int) -> Any:
    """A new password for a member who lost theirs."""
    user, password = members.new_password(_actor(request), workspace_id, user_id)
    return {"username": user.username, "password": password}


@router.put("/password", response={204: None, **REFUSALS}, openapi_extra={"x-permission": "password.own"})
def change_password(request: HttpRequest, body: PasswordIn) -> Any:
    """The actor's own password."""
    members.change_password(request, _actor(request), body.old, body.new)
    return Status(204, None)
