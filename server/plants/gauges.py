"""The gauges that a crew owns."""

from datetime import date
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from config.problems import Conflict
from config.repeats import stored_already
from journal.services import note
from people.policies import Actor, require
from zerodip.document import plain
from zerodip.errors import Fault, InvalidInput
from zerodip.fields import read
from zerodip.gauges import Gauge as Described
from zerodip.gauges import check_state, error_pa

from .models import Gauge

__all__ = ["gauge_out", "gauges_for_actor", "gauges_of", "put_gauge"]

MOST_GAUGES = 100


def gauges_for_actor(actor: Actor) -> list[Gauge]:
    """The gauges of the actor's workspaces, those out of use last."""
    found = Gauge.objects.filter(workspace__in=actor.workspaces("gauges.read"))
    return list(found.order_by("retired", "data__name", "pk"))


def gauges_of(workspace_id: UUID) -> list[Gauge]:
    """The gauges in use of one workspace, whose reader was let in before."""
    return list(Gauge.objects.filter(workspace_id=workspace_id, retired=False))


@transaction.atomic
def put_gauge(
    actor: Actor, workspace_id: UUID, gauge_id: UUID, version: int, raw: Any, checked_on: date | None, retired: bool
) -> Gauge:
    """Adds a gauge under the id given (version 0), or changes it over the version read. The same again changes nothing.
    Raises InvalidInput, Conflict, NotFound, Forbidden."""
    require(actor, "gauges.change", workspace_id)
    described, faults = read(Described, raw, "gauge")
    if checked_on is not None and checked_on > timezone.now().date():
        faults.append(Fault(path="checked_on", code="future", title="Checked on", says="must not lie in the future."))
    if faults or described is None:
        raise InvalidInput(faults)
    known = stored_already(Gauge.objects.select_for_update().filter(pk=gauge_id), workspace_id=workspace_id)
    gauge = known or _new(workspace_id, gauge_id)
    wanted = (plain(described), checked_on, retired)
    if (gauge.data, gauge.checked_on, gauge.retired) == wanted:
        return gauge
    if version != gauge.version:
        raise Conflict("The gauge was changed while you worked on it.", gauge_out(gauge))
    gauge.data, gauge.checked_on, gauge.retired = wanted
    gauge.version += 1
    gauge.save()
    note(actor.user, "gauges.change", gauge.pk, name=described.name)
    return gauge


def _new(workspace_id: UUID, gauge_id: UUID) -> Gauge:
    if Gauge.objects.filter(workspace_id=workspace_id).count() >= MOST_GAUGES:
        says = f"are {MOST_GAUGES} already: enough for one workspace."
        raise InvalidInput([Fault(path="gauge", code="too_many", title="Gauges", says=says)])
    return Gauge(id=gauge_id, workspace_id=workspace_id, data={}, version=0)


def gauge_out(gauge: Gauge, band: tuple[float, float] | None = None) -> dict[str, Any]:
    """A gauge as shown: what it may be off by over the whole scale, or within a band (Pa gauge), and how its check stands."""
    described, _ = read(Described, gauge.data)
    least, most = band or (0.0, described.scale_gauge_pa) if described else (0.0, 0.0)
    since = None if gauge.checked_on is None else (timezone.now().date() - gauge.checked_on).days
    return {
        "id": str(gauge.pk),
        "workspace": str(gauge.workspace_id),
        "version": gauge.version,
        "gauge": gauge.data,
        "error_pa": error_pa(described, least, most) if described else 0.0,
        "checked_on": gauge.checked_on.isoformat() if gauge.checked_on else None,
        "state": check_state(since),
        "retired": gauge.retired,
    }
