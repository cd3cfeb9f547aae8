"""Changing systems and decisions: one function per change, with its permission, transaction and log
entry inside."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID, uuid4

from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.clock import Made
from common.errors import Conflict
from common.idempotency import stored_already
from common.transactions import write
from practice.selectors import practice_of
from zerodip.decide.judge import decision as decide
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import FOLLOWS, Document, read_document
from zerodip.visit.found import with_found

from .models import Decision, Site, System
from .selectors import system_for_actor
from .summaries import summary_of

__all__ = [
    "apply_practice",
    "create_system",
    "followed",
    "put_found",
    "save_decision",
    "save_system",
    "summarize_again",
]

_AT_ONCE = 200


def followed(document: Document, workspace_id: UUID) -> Document:
    """The document with its workspace's practice in it, where it follows that."""
    return (
        document.following(practice_of(workspace_id))
        if document.practice.follows == FOLLOWS
        else document
    )


def create_system(site: Site, document: Document, system_id: UUID | None = None) -> System:
    """Stores a new system on a site."""
    document = followed(document, site.workspace_id)
    return System.objects.create(
        id=system_id or uuid4(),
        site=site,
        name=document.system.name,
        document=document.as_json(),
        summary=summary_of(document),
    )


@write
def save_system(actor: Actor, system_id: UUID, version: int, raw: Any) -> System:
    """Stores a system's file over `version`. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    system = system_for_actor(actor, system_id, lock=True)
    require(actor, "systems.change", system.site.workspace_id)
    _store(system, version, followed(read_document(raw), system.site.workspace_id))
    log_event(actor.user, "systems.change", system.pk, version=system.version)
    return system


@write
def save_decision(
    actor: Actor,
    system_id: UUID,
    decision_id: UUID,
    version: int,
    raw: Any,
    made: Made | None = None,
) -> Decision:
    """Keeps a decision under the id its maker gave it, and puts the system's file in force.
    The same call again gives the same decision and changes nothing.
    Raises InvalidInput, Conflict, NotFound, Forbidden."""
    system = system_for_actor(actor, system_id, lock=True)
    require(actor, "decisions.save", system.site.workspace_id)
    document = followed(read_document(raw).decided(), system.site.workspace_id)
    known = stored_already(Decision.objects.filter(pk=decision_id), system_id=system.pk)
    if known is not None:
        return _repeated(known, document)
    _store(system, version, document)
    made = made or Made(timezone.now())
    kept = _new_decision(actor, system, decision_id, document, made)
    noted = {"decision": str(decision_id), "version": system.version, **made.noted}
    log_event(actor.user, "decisions.save", system.pk, **noted)
    return kept


def _repeated(known: Decision, document: Document) -> Decision:
    if known.document != document.as_json():
        raise Conflict("This decision is already kept with other values.", known.document)
    return known


def _new_decision(
    actor: Actor, system: System, decision_id: UUID, document: Document, made: Made
) -> Decision:
    decided = decide(document.figures(), "us")
    return Decision.objects.create(
        id=decision_id,
        system=system,
        document=system.document,
        figures={result.id: result.value for result in decided.results},
        verdict=decided.verdict,
        made_by=actor.user,
        made_at=made.at,
    )


def _store(system: System, version: int, document: Document) -> None:
    if version != system.version:
        current = {
            "version": system.version,
            "changed_at": system.changed_at.isoformat(),
            "document": system.document,
        }
        raise Conflict("The system was changed while you worked on it.", current)
    name = document.system.name or system.name
    if name != system.name and System.objects.filter(site_id=system.site_id, name=name).exists():
        says = "is taken on this site already; choose another."
        raise InvalidInput([Fault(path="system.name", code="taken", title="Name", says=says)])
    system.document, system.summary, system.name = document.as_json(), summary_of(document), name
    system.version += 1
    system.save()


def put_found(system: System, values: Mapping[str, float | None]) -> None:
    """Puts figures found on a visit into the system's file, where it has such figures. Called
    inside the transaction of the visit's own change, which holds the system's lock."""
    before = read_document(system.document)
    document = with_found(before, values)
    if document == before:
        return
    system.document, system.summary = document.as_json(), summary_of(document)
    system.version += 1
    system.changed_at = timezone.now()
    System.objects.filter(pk=system.pk).update(
        document=system.document,
        summary=system.summary,
        version=system.version,
        changed_at=system.changed_at,
    )


def apply_practice(workspace_id: UUID) -> int:
    """Puts a workspace's practice into the systems that follow it; how many they were. Queries grow
    with hundreds of systems, not with each."""
    practice = practice_of(workspace_id)
    followers = (
        System.objects.select_for_update(of=("self",))
        .filter(site__workspace_id=workspace_id, document__practice__follows=FOLLOWS)
        .order_by("pk")
    )  # as retiring locks them: nobody waits for each other
    changed = list(followers)
    for system in changed:
        document = read_document(system.document).following(practice)
        system.document, system.summary = document.as_json(), summary_of(document)
        system.version += 1
        system.changed_at = timezone.now()
    fields = ["document", "summary", "version", "changed_at"]
    System.objects.bulk_update(changed, fields, batch_size=_AT_ONCE)
    return len(changed)


def summarize_again() -> list[str]:
    """Works out again what Rounds shows of every system, after the rules have changed; what could
    not be read, in words."""
    unread: list[str] = []
    for system in System.objects.iterator():
        try:
            summary = summary_of(read_document(system.document))
        except InvalidInput as error:
            unread.append(f"{system.pk}: {error}")
            continue
        if summary != system.summary:
            System.objects.filter(pk=system.pk).update(summary=summary)
    return unread
