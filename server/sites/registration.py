"""Sites and systems are added, named and retired. Every write carries the id that the page gave it:
safe to repeat."""

from typing import Any
from uuid import UUID

from django.db.models import QuerySet
from django.utils import timezone

from accounts.models import Workspace
from accounts.permissions import Actor, require
from audit.services import log_event
from common.idempotency import same_again, stored_already
from common.transactions import write
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.fileformat.fields import Spec, check
from zerodip.fileformat.templates import template_file
from zerodip.kinds.registry import KINDS

from .models import Site, System
from .selectors import site_for_actor, system_for_actor
from .services import create_system, followed

__all__ = ["add_system", "change_site", "create_site", "retire_site", "retire_system"]

_NAME = Spec(kind="words", title="Name", most=80)


@write
def create_site(actor: Actor, workspace_id: UUID, site_id: UUID, name: str, units: str) -> Site:
    """A new site under the id given. Raises InvalidInput, NotFound, Forbidden."""
    require(actor, "sites.add", workspace_id)
    # One after the other: what comes at the same time must see this one by its id, not by its name.
    Workspace.objects.select_for_update().get(pk=workspace_id)
    known = stored_already(Site.objects.filter(pk=site_id), workspace_id=workspace_id)
    if known is not None:
        same_again(
            {"name": known.name, "units": known.units}, {"name": name.strip(), "units": units}
        )
        return known
    name = _named(name, Site.objects.filter(workspace_id=workspace_id), "name")
    site = Site.objects.create(id=site_id, workspace_id=workspace_id, name=name, units=units)
    log_event(actor.user, "sites.add", site.pk, name=name)
    return site


@write
def change_site(actor: Actor, site_id: UUID, units: str | None, name: str | None) -> Site:
    """Remembers the unit system used on a site, gives it another name; None leaves as it is. Raises
    InvalidInput, NotFound, Forbidden."""
    site = site_for_actor(actor, site_id)
    require(actor, "sites.change", site.workspace_id)
    others = Site.objects.filter(workspace_id=site.workspace_id).exclude(pk=site_id)
    wanted = (units or site.units, site.name if name is None else _named(name, others, "name"))
    if wanted != (site.units, site.name):
        site.units, site.name = wanted
        site.save(update_fields=["units", "name"])
        log_event(actor.user, "sites.change", site.pk, units=site.units, name=site.name)
    return site


@write
def add_system(
    actor: Actor, site_id: UUID, system_id: UUID, kind: str | None, name: str, raw: Any
) -> System:
    """A new system on a site, from a file or, without one, with the usual values of its kind.
    Raises InvalidInput, NotFound, Forbidden."""
    site = site_for_actor(actor, site_id)
    require(actor, "systems.add", site.workspace_id)
    known = stored_already(System.objects.filter(pk=system_id), site_id=site.pk)
    document = read_document(_from_template(kind, name) if raw is None else raw)
    if known is not None:
        same_again(known.document, followed(document, site.workspace_id).as_json())
        return known
    _named(
        document.system.name,
        System.objects.filter(site=site),
        "system.name" if raw is not None else "name",
    )
    system = create_system(site, document, system_id)
    log_event(actor.user, "systems.add", system.pk, name=system.name)
    return system


def _from_template(kind: str | None, name: str) -> dict[str, Any]:
    faults = check(_NAME, name, "name")
    if kind not in KINDS:
        faults.append(
            Fault(
                path="kind",
                code="not_a_choice",
                title="Kind",
                says=f"must be one of: {', '.join(KINDS)}.",
            )
        )
    if faults or not name.strip():
        raise InvalidInput(faults or [_missing("name")])
    return template_file(str(kind), name.strip())


def _named(name: str, others: QuerySet[Site] | QuerySet[System], path: str) -> str:
    """The name, trimmed; refused where it is empty, too long, or another's."""
    faults, name = check(_NAME, name, path), name.strip()
    if not faults and not name:
        faults = [_missing(path)]
    if not faults and others.filter(name=name).exists():
        faults = [
            Fault(path=path, code="taken", title="Name", says="is taken already; choose another.")
        ]
    if faults:
        raise InvalidInput(faults)
    return name


def _missing(path: str) -> Fault:
    return Fault(path=path, code="missing", title="Name", says="is missing.")


@write
def retire_system(actor: Actor, system_id: UUID, retired: bool) -> System:
    """Takes a system off the rounds, with all that is on record, or brings it back. Raises
    NotFound, Forbidden."""
    system = system_for_actor(actor, system_id, lock=True)
    require(actor, "systems.change", system.site.workspace_id)
    if retired != (system.retired_at is not None):
        system.retired_at = timezone.now() if retired else None
        system.save(update_fields=["retired_at"])
        log_event(actor.user, "systems.retire" if retired else "systems.restore", system.pk)
    return system


@write
def retire_site(actor: Actor, site_id: UUID, retired: bool) -> Site:
    """Takes every system of a site off the rounds, or brings them all back. Raises NotFound,
    Forbidden."""
    site = site_for_actor(actor, site_id)
    require(actor, "sites.change", site.workspace_id)
    changed = list(
        System.objects.select_for_update()
        .filter(site=site, retired_at__isnull=retired)
        .order_by("pk")
    )
    System.objects.filter(pk__in=[system.pk for system in changed]).update(
        retired_at=timezone.now() if retired else None
    )
    for system in changed:
        log_event(actor.user, "systems.retire" if retired else "systems.restore", system.pk)
    return site
