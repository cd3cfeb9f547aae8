"""Changing: one function per change, with its permission, transaction and log entry inside."""

from typing import Any
from uuid import UUID, uuid4

from django.db import transaction

from config.problems import Conflict
from config.repeats import stored_already
from journal.services import note
from people.policies import Actor, require
from zerodip.decide import decision as decide
from zerodip.document import Document, read_document
from zerodip.errors import Fault, InvalidInput

from .glancing import glance_of
from .habits import following
from .models import Decision, Site, System
from .selectors import system_for_actor

__all__ = ["create_system", "mirror", "save_decision", "save_system"]


def create_system(site: Site, document: Document, system_id: UUID | None = None) -> System:
    """Stores a new system on a site."""
    document = following(document, site.workspace_id)
    return System.objects.create(
        id=system_id or uuid4(),
        site=site,
        name=document.system.name,
        document=document.as_json(),
        glance=glance_of(document),
    )


@transaction.atomic
def save_system(actor: Actor, system_id: UUID, version: int, raw: Any) -> System:
    """Stores a system's file over `version`. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    system = system_for_actor(actor, system_id, lock=True)
    require(actor, "systems.change", system.site.workspace_id)
    _store(system, version, following(read_document(raw), system.site.workspace_id))
    note(actor.user, "systems.change", system.pk, version=system.version)
    return system


@transaction.atomic
def save_decision(actor: Actor, system_id: UUID, decision_id: UUID, version: int, raw: Any) -> Decision:
    """Keeps a decision under the id its maker gave it, and puts the system's file in force.
    The same call again gives the same decision and changes nothing.
    Raises InvalidInput, Conflict, NotFound, Forbidden."""
    system = system_for_actor(actor, system_id, lock=True)
    require(actor, "decisions.save", system.site.workspace_id)
    document = following(read_document(raw), system.site.workspace_id)
    known = stored_already(Decision.objects.filter(pk=decision_id), system_id=system.pk)
    if known is not None:
        return _repeated(known, document)
    _store(system, version, document)
    made = _new_decision(actor, system, decision_id, document)
    note(actor.user, "decisions.save", system.pk, decision=str(decision_id), version=system.version)
    return made


def _repeated(known: Decision, document: Document) -> Decision:
    if known.document != document.as_json():
        raise Conflict("This decision is already kept with other values.", known.document)
    return known


def _new_decision(actor: Actor, system: System, decision_id: UUID, document: Document) -> Decision:
    decided = decide(document.facts(), "us")
    return Decision.objects.create(
        id=decision_id,
        system=system,
        document=system.document,
        figures={answer.id: answer.value for answer in decided.answers},
        verdict=decided.verdict,
        made_by=actor.user,
    )


def _store(system: System, version: int, document: Document) -> None:
    if version != system.version:
        raise Conflict("The system was changed while you worked on it.", _current(system))
    name = document.system.name or system.name
    if name != system.name and System.objects.filter(site_id=system.site_id, name=name).exists():
        says = "is taken on this site already; choose another."
        raise InvalidInput([Fault(path="system.name", code="taken", title="Name", says=says)])
    system.document, system.glance, system.name = document.as_json(), glance_of(document), name
    system.version += 1
    system.save()


def mirror(system_id: UUID, **values: float | None) -> None:
    """Puts figures found on a visit into the system's file, where it has such figures and the file stays right with them.
    Called inside the transaction of the visit's own change."""
    system = System.objects.select_for_update().get(pk=system_id)
    raw = system.document
    if "found" not in raw["system"]:
        return
    found = {**raw["system"]["found"], **values}
    if found == raw["system"]["found"]:
        return
    gone = {f"system.found.{name}" for name in values}
    entered = {path: typed for path, typed in raw["entered"].items() if path not in gone}
    try:
        document = read_document({**raw, "system": {**raw["system"], "found": found}, "entered": entered})
    except InvalidInput:
        return
    _store(system, system.version, document)


def _current(system: System) -> dict[str, Any]:
    return {"version": system.version, "changed_at": system.changed_at.isoformat(), "document": system.document}
