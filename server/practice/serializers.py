"""Practices as the API shows them."""

from typing import Any
from uuid import UUID

from ninja import Schema
from pydantic import Field

from accounts.permissions import Actor
from common.schemas import PracticeFile

from .models import WorkspacePractice

__all__ = ["VOLUMES", "PracticeIn", "PracticeOut", "practice_out"]

VOLUMES: dict[str, Any] = {
    "anyOf": [{"type": "array", "items": {"type": "number"}, "maxItems": 60}, {"type": "null"}]
}


class PracticeIn(Schema):
    """A workspace's practice and nominal sizes (m³; the usual if null), over the version they were
    read at."""

    version: int
    practice: PracticeFile
    sizes_m3: Any = Field(None, json_schema_extra=VOLUMES)


class PracticeOut(Schema):
    """A workspace's practice and nominal sizes (m³). `may_change` tells whether this person may
    change them."""

    workspace: UUID
    name: str
    version: int
    practice: PracticeFile
    sizes_m3: list[float] | None
    may_change: bool


def practice_out(actor: Actor, stored: WorkspacePractice) -> PracticeOut:
    """A workspace's practice, and whether the actor may change it."""
    return PracticeOut(
        workspace=stored.workspace_id,
        name=stored.workspace.name,
        version=stored.version,
        practice=PracticeFile(stored.practice),
        sizes_m3=stored.sizes_m3,
        may_change=actor.may("practice.change", stored.workspace_id),
    )
