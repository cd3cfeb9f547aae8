"""What the operations of sessions and members take and give."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

__all__ = [
    "AccountOut",
    "CodeIn",
    "CodesOut",
    "MemberOut",
    "NewMember",
    "OldPassword",
    "PasswordIn",
    "PasswordOut",
    "RequiredIn",
    "RoleIn",
    "SecondFactorOffer",
    "SessionOut",
    "SessionSeen",
    "SignIn",
    "WorkspaceMembers",
]

RoleName = Literal["owner", "technician", "viewer"]


class SignIn(Schema):
    """A name and a password."""

    username: str = Field(min_length=1, max_length=150, pattern=r"^[^\x00-\x1f]+$")
    password: str = Field(min_length=1, max_length=200, pattern=r"^[^\x00-\x1f]+$")


class SessionOut(Schema):
    """Who is signed in, if anyone; whether the demo may be entered; and what is asked for before
    anything else: a code of the second factor, or (`enrol`) that there be one."""

    signed_in: bool
    name: str
    demo: bool
    needs: Literal["", "code", "enrol"] = ""


class CodeIn(Schema):
    """A code of the authenticator app, or a recovery code; spaces and dashes as one likes."""

    code: str = Field(min_length=1, max_length=40)


class CodesOut(Schema):
    """Recovery codes, shown this once."""

    codes: list[str]


class OldPassword(Schema):
    """The password, to show who asks."""

    password: str = Field(min_length=1, max_length=200)


class SecondFactorOffer(Schema):
    """What an authenticator app needs: a secret to type, or a picture of its address to scan."""

    secret: str
    address: str
    picture: str


class SessionSeen(Schema):
    """A session: on what, since when, last seen when (to the hour), and whether it is this one."""

    id: str
    on: str
    began: datetime | None
    seen: datetime | None
    here: bool


class AccountOut(Schema):
    """One's own account."""

    username: str
    second_factor: bool
    recovery_left: int
    sessions: list[SessionSeen]


class RequiredIn(Schema):
    """Whether it is required."""

    required: bool


class MemberOut(Schema):
    """A member, whether it is who asks, and (told to owners) whether they have a second factor."""

    user: int
    username: str
    name: str
    role: RoleName
    you: bool
    second_factor: bool


class WorkspaceMembers(Schema):
    """A workspace with its members. `handle` ends the sign-in names of those who join,
    `second_factor` tells whether it opens only by one."""

    id: UUID
    name: str
    handle: str
    second_factor: bool
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
    new: str = Field(max_length=128)
