"""The practice that a workspace follows, and the sizes of tank it buys; and carrying a change to the systems that follow."""

from dataclasses import replace
from typing import Any
from uuid import UUID

from django.db import transaction

from config.problems import Conflict, NotFound
from journal.services import note
from people.policies import Actor, require
from zerodip.document import Document, plain, read_document
from zerodip.errors import Fault, InvalidInput
from zerodip.fields import Spec, check, read
from zerodip.system import Practice

from .glancing import glance_of
from .models import Habits, System

__all__ = ["carry", "change_habits", "follow", "following", "habits_of", "practice_of", "read_sizes"]

SIZE = Spec(kind="quantity", title="Nominal size", dimension="volume", least=0.0005, most=20)
MOST_SIZES = 60


def habits_of(workspace_id: UUID) -> Habits:
    """The workspace's habits; the usual ones where nothing was chosen yet."""
    known = Habits.objects.filter(workspace_id=workspace_id).first()
    return known or Habits(workspace_id=workspace_id, practice=plain(Practice(follows="workspace")))


def practice_of(workspace_id: UUID) -> Practice:
    """The workspace's practice, as its systems follow it."""
    practice, _ = read(Practice, habits_of(workspace_id).practice)
    return practice or Practice(follows="workspace")


def following(document: Document, workspace_id: UUID) -> Document:
    """The document with the workspace's practice in it, where it follows that; what was typed of its own goes with it."""
    return follow(document, practice_of(workspace_id)) if document.practice.follows == "workspace" else document


def follow(document: Document, practice: Practice) -> Document:
    """The document with `practice` in it, where it follows the workspace's."""
    if document.practice.follows != "workspace":
        return document
    entered = {path: typed for path, typed in document.entered.items() if not path.startswith("practice.")}
    return replace(document, practice=practice, entered=entered)


def read_sizes(raw: Any, path: str = "sizes_m3") -> tuple[list[float] | None, list[Fault]]:
    """A list of nominal volumes (m³), rising, each once; None for the usual ones."""
    if raw is None:
        return None, []
    if not isinstance(raw, list) or not 0 < len(raw) <= MOST_SIZES:
        says = f"must be a list of 1 to {MOST_SIZES} volumes."
        return None, [Fault(path=path, code="not_a_list", title="Nominal sizes", says=says)]
    faults = [fault for at, value in enumerate(raw) for fault in check(SIZE, value, f"{path}.{at}")]
    return (None if faults else sorted({float(value) for value in raw})), faults


@transaction.atomic
def change_habits(actor: Actor, workspace_id: UUID, version: int, practice: Any, sizes: Any) -> Habits:
    """Stores a workspace's practice and sizes over `version`, and puts the practice into every system that follows it.
    Raises InvalidInput, Conflict, NotFound, Forbidden."""
    require(actor, "habits.change", workspace_id)
    habits = _locked(workspace_id)
    read_practice, faults = read(Practice, practice, "practice")
    read_list, more = read_sizes(sizes)
    if faults or more:
        raise InvalidInput([*faults, *more])
    if version != habits.version:
        raise Conflict("The practice was changed while you worked on it.", _current(habits))
    habits.practice, habits.sizes_m3 = plain(replace(read_practice, follows="workspace")), read_list
    habits.version += 1
    habits.save()
    count = carry(workspace_id)
    note(actor.user, "habits.change", workspace_id, version=habits.version, systems=count)
    return habits


def _locked(workspace_id: UUID) -> Habits:
    usual = plain(Practice(follows="workspace"))
    Habits.objects.get_or_create(workspace_id=workspace_id, defaults={"practice": usual})
    habits = Habits.objects.select_for_update().filter(workspace_id=workspace_id).first()
    if habits is None:
        raise NotFound
    return habits


def _current(habits: Habits) -> dict[str, Any]:
    return {"version": habits.version, "practice": habits.practice, "sizes_m3": habits.sizes_m3}


def carry(workspace_id: UUID) -> int:
    """Puts the practice into the systems that follow it; how many they were."""
    followers = System.objects.select_for_update().filter(
        site__workspace_id=workspace_id, document__practice__follows="workspace"
    )
    changed = [_followed(system, workspace_id) for system in followers]
    System.objects.bulk_update(changed, ["document", "glance", "version", "changed_at"], batch_size=200)
    return len(changed)


def _followed(system: System, workspace_id: UUID) -> System:
    document = following(read_document(system.document), workspace_id)
    system.document, system.glance = document.as_json(), glance_of(document)
    system.version += 1
    return system
