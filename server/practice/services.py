"""Changing the practice that a workspace follows. Whoever keeps systems that follow it hears of the
change (`practice_changed`)."""

from dataclasses import replace
from typing import Any
from uuid import UUID

from django.dispatch import Signal

from accounts.permissions import Actor, require
from audit.services import log_event
from common.errors import Conflict, NotFound
from common.transactions import write
from zerodip.answers.what_if import read_sizes
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import FOLLOWS, plain
from zerodip.fileformat.fields import read
from zerodip.kinds.settings import Practice

from .models import WorkspacePractice
from .selectors import usual_practice

__all__ = ["change_practice", "practice_changed", "store_practice"]

practice_changed = Signal()  # sent with `workspace_id`, inside the transaction of the change


@write
def change_practice(
    actor: Actor, workspace_id: UUID, version: int, raw_practice: Any, raw_sizes: Any
) -> WorkspacePractice:
    """Stores a workspace's practice and sizes over `version`; every system that follows it is
    judged by it from now on. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    require(actor, "practice.change", workspace_id)
    stored = _locked(workspace_id)
    practice, faults = read(Practice, raw_practice, "practice")
    sizes, more = read_sizes(raw_sizes)
    if practice is None or faults or more:
        raise InvalidInput([*faults, *more])
    if version != stored.version:
        current = {
            "version": stored.version,
            "practice": stored.practice,
            "sizes_m3": stored.sizes_m3,
        }
        raise Conflict("The practice was changed while you worked on it.", current)
    store_practice(stored, plain(replace(practice, follows=FOLLOWS)), sizes)
    log_event(actor.user, "practice.change", workspace_id, version=stored.version)
    return stored


def store_practice(
    stored: WorkspacePractice, practice: dict[str, Any], sizes: list[float] | None
) -> None:
    """Stores it, and tells those who keep systems. Called inside a transaction."""
    stored.practice, stored.sizes_m3 = practice, sizes
    stored.version += 1
    stored.save()
    practice_changed.send(sender=WorkspacePractice, workspace_id=stored.workspace_id)


def _locked(workspace_id: UUID) -> WorkspacePractice:
    WorkspacePractice.objects.get_or_create(
        workspace_id=workspace_id, defaults={"practice": usual_practice()}
    )
    stored = WorkspacePractice.objects.select_for_update().filter(workspace_id=workspace_id).first()
    if stored is None:
        raise NotFound
    return stored
