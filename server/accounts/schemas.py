"""What the operations of sessions and members take and give."""

from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

__all__ = [
    "MemberOut",
    "NewMember",
    "PasswordIn",
    "PasswordOut",
    "RoleIn",
    "SessionOut",
    "SignIn",
    "WorkspaceMembers",
]

RoleName = Literal["owner", "technician", "viewer"]


class SignIn(Schema):
    """A name and a password."""

    username: str = Field(min_length=1, max_length=150, pattern=r"^[^\x00-\x1f]+$")
    password: str = Field(min_length=1, max_length=200, pattern=r"^[^\x00-\x1f]+$")


class SessionOut(Schema):
    """Who is signed in, if anyone; and whether the demo may be entered."""

    signed_in: bool
    name: str
    demo: bool


class MemberOut(Schema):
    """A member, and whether it is who asks."""

    user: int
    username: str
    name: str
    role: RoleName
    you: bool


class WorkspaceMembers(Schema):
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
