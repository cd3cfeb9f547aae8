"""Workspaces and their members."""

from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field

from config.problems import REFUSALS, Problem

from . import members
from .auth import actor_of

router = Router(tags=["members"])
ANSWERS = {409: Problem, **REFUSALS}
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


@router.get("/workspaces", response={200: list[CrewOut], 401: Problem}, openapi_extra={"x-permission": "members.read"})
def read_workspaces(request: HttpRequest) -> Any:
    """The actor's workspaces with their members."""
    return members.workspaces_out(actor_of(request))


@router.post("/workspaces/{workspace_id}/members", response={200: PasswordOut, **ANSWERS}, openapi_extra=CHANGE)
def add_member(request: HttpRequest, workspace_id: UUID, body: NewMember) -> Any:
    """A new person with a first password."""
    user, password = members.add_member(actor_of(request), workspace_id, body.username, body.name, body.role)
    return {"username": user.username, "password": password}


@router.put("/workspaces/{workspace_id}/members/{user_id}", response={204: None, **ANSWERS}, openapi_extra=CHANGE)
def change_role(request: HttpRequest, workspace_id: UUID, user_id: int, body: RoleIn) -> Any:
    """Another role for a member."""
    members.change_role(actor_of(request), workspace_id, user_id, body.role)
    return Status(204, None)


@router.delete("/workspaces/{workspace_id}/members/{user_id}", response={204: None, **ANSWERS}, openapi_extra=CHANGE)
def remove_member(request: HttpRequest, workspace_id: UUID, user_id: int) -> Any:
    """Takes a member out; what they recorded stays."""
    members.remove_member(actor_of(request), workspace_id, user_id)
    return Status(204, None)


@router.post(
    "/workspaces/{workspace_id}/members/{user_id}/password",
    response={200: PasswordOut, **ANSWERS},
    openapi_extra=CHANGE,
)
def new_password(request: HttpRequest, workspace_id: UUID, user_id: int) -> Any:
    """A new password for a member who lost theirs."""
    user, password = members.new_password(actor_of(request), workspace_id, user_id)
    return {"username": user.username, "password": password}


@router.put("/password", response={204: None, **ANSWERS}, openapi_extra={"x-permission": "password.own"})
def change_password(request: HttpRequest, body: PasswordIn) -> Any:
    """The actor's own password."""
    members.change_password(request, actor_of(request), body.old, body.new)
    return Status(204, None)
