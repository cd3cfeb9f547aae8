"""What the session operations take and give."""

from ninja import Schema
from pydantic import Field

__all__ = ["SessionOut", "SignIn"]


class SignIn(Schema):
    """A name and a password."""

    username: str = Field(min_length=1, max_length=150, pattern=r"^[^\x00-\x1f]+$")
    password: str = Field(min_length=1, max_length=200, pattern=r"^[^\x00-\x1f]+$")


class SessionOut(Schema):
    """Who is signed in, if anyone; and whether the demo may be entered."""

    signed_in: bool
    name: str
    demo: bool
