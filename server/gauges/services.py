"""Adding and changing the gauges that a crew owns."""

from datetime import date
from typing import Any
from uuid import UUID

from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.errors import Conflict
from common.idempotency import stored_already
from common.transactions import write
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import plain
from zerodip.fileformat.fields import read
from zerodip.gauges import GaugeSpec
from zerodip.wire import WireSpec

from .models import Gauge
from .serializers import gauge_out

__all__ = ["put_gauge"]

MOST_GAUGES = 100


@write
def put_gauge(
    actor: Actor,
    workspace_id: UUID,
    gauge_id: UUID,
    version: int,
    raw: Any,
    wire: Any,
    checked_on: date | None,
    retired: bool,
) -> Gauge:
    """Adds a gauge under the id given (version 0), or changes it over the version read. The same
    again changes nothing. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    require(actor, "gauges.change", workspace_id)
    spec, on_wire = _read(raw, wire, checked_on)
    known = stored_already(
        Gauge.objects.select_for_update().filter(pk=gauge_id), workspace_id=workspace_id
    )
    gauge = known or _new(workspace_id, gauge_id)
    wanted = (plain(spec), None if on_wire is None else plain(on_wire), checked_on, retired)
    if (gauge.data, gauge.wire, gauge.checked_on, gauge.retired) == wanted:
        return gauge
    if version != gauge.version:
        raise Conflict(
            "The gauge was changed while you worked on it.",
            gauge_out(gauge).model_dump(mode="json"),
        )
    gauge.data, gauge.wire, gauge.checked_on, gauge.retired = wanted
    gauge.version += 1
    gauge.save()
    log_event(actor.user, "gauges.change", gauge.pk, name=spec.name)
    return gauge


def _read(raw: Any, wire: Any, checked_on: date | None) -> tuple[GaugeSpec, WireSpec | None]:
    spec, faults = read(GaugeSpec, raw, "gauge")
    on_wire, wrong = (None, []) if wire is None else read(WireSpec, wire, "wire")
    faults += wrong
    if checked_on is not None and checked_on > timezone.now().date():
        says = "must not lie in the future."
        faults.append(Fault(path="checked_on", code="future", title="Checked on", says=says))
    if faults or spec is None:
        raise InvalidInput(faults)
    return spec, on_wire


def _new(workspace_id: UUID, gauge_id: UUID) -> Gauge:
    if Gauge.objects.filter(workspace_id=workspace_id).count() >= MOST_GAUGES:
        says = f"are {MOST_GAUGES} already: enough for one workspace."
        raise InvalidInput([Fault(path="gauge", code="too_many", title="Gauges", says=says)])
    return Gauge(id=gauge_id, workspace_id=workspace_id, data={}, version=0)
