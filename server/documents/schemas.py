"""What the paper operations take and give."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from common.schemas import Units


class LabelsWanted(Schema):
    """Whose labels (of systems, or of every system of a site that is in use), in which units (None:
    those of each site), and the first place of the sheet that is still free."""

    system: list[UUID] = Field(default=[], max_length=20)
    site: UUID | None = None
    units: Units | None = None
    first: int = Field(default=1, ge=1, le=8)


class LinkIn(Schema):
    """For how many days, and in which units."""

    days: int = 30
    units: Units = "us"


class LinkOut(Schema):
    """A link to a report; `address` only while it is alive."""

    id: UUID
    address: str
    state: Literal["alive", "expired", "revoked"]
    made_at: datetime
    made_by: str
    expires_at: datetime


class FeedOut(Schema):
    """The address of a person's calendar of what is due; "" where there is none."""

    address: str
