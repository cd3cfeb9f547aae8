"""Watching gauges, taking what they show, and hands at the stand-ins."""

import asyncio
import time
from typing import Any
from uuid import UUID, uuid5

from accounts.permissions import Actor, require
from audit.services import log_event
from common.errors import Conflict
from common.idempotency import stored_already
from common.transactions import write
from gauges.models import Gauge
from visits.models import Visit
from visits.selectors import document_of, records_of, visit_for_actor
from visits.services import add_entry
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import plain
from zerodip.fileformat.fields import read
from zerodip.gauges import GaugeSpec, error_pa
from zerodip.recording.watched import OFFERED
from zerodip.stand_in import Hands
from zerodip.visit.log import Record, log_of
from zerodip.visit.slots import GAUGE_ERROR, GAUGE_LOW, GAUGE_USED
from zerodip.wire import WireSpec, first_look, gauge_pa

from .channel import tell
from .keeping import end_watch
from .models import StandIn, Watch
from .selectors import stand_in_for_actor, watch_for_actor
from .wires import WireProblem, first_figures

__all__ = [
    "begin_watch",
    "look_at_wire",
    "move_hands",
    "stop_watch",
    "take_seen",
]


def look_at_wire(actor: Actor, workspace_id: UUID, raw: Any) -> tuple[str | None, float | None]:
    """A first look at a gauge on the wire: what is wrong (the id of a problem), and what it reads
    (Pa gauge). Raises InvalidInput, NotFound, Forbidden."""
    require(actor, "gauges.change", workspace_id)
    spec, faults = read(WireSpec, raw, "wire")
    if faults or spec is None:
        raise InvalidInput(faults)
    try:
        figures = asyncio.run(first_figures(spec))
    except WireProblem as problem:
        return str(problem), None
    return first_look(spec, figures), gauge_pa(spec, figures[-1])


@write
def begin_watch(actor: Actor, visit_id: UUID, watch_id: UUID, gauge_id: UUID) -> Watch:
    """Begins to watch a gauge on a visit; one that is watched there already goes on. Raises
    InvalidInput (not on the wire), Conflict (the visit is closed), NotFound, Forbidden."""
    visit = visit_for_actor(actor, visit_id, lock=True)
    require(actor, "visits.change", visit.system.site.workspace_id)
    known = stored_already(Watch.objects.filter(pk=watch_id), visit_id=visit.pk, gauge_id=gauge_id)
    if known is not None:
        return known
    if visit.closed_at is not None:
        raise Conflict("The visit is closed.", {"closed": True})
    gauge = _on_wire(visit, gauge_id)
    running = visit.watches.filter(until_s=None)
    for other in running.exclude(gauge=gauge):
        end_watch(other)
    same = running.filter(gauge=gauge).first()
    if same is not None:
        return same
    log_event(actor.user, "live.watch", visit.system_id, visit=str(visit.pk), gauge=str(gauge.pk))
    _use(actor, visit, gauge, watch_id)
    return Watch.objects.create(
        id=watch_id, visit=visit, gauge=gauge, from_s=time.time(), made_by=actor.user
    )


def _use(actor: Actor, visit: Visit, gauge: Gauge, watch_id: UUID) -> None:
    """It is the gauge of the visit where nothing was said of one: by its error the switch is
    set."""
    spec, _ = read(GaugeSpec, gauge.data)
    log = log_of(records_of(visit))
    if spec is None or any(log.record(slot) for slot in (GAUGE_USED, GAUGE_ERROR, GAUGE_LOW)):
        return
    settings = document_of(visit).settings
    error = error_pa(spec, settings.cut_in_gauge_pa, settings.cut_out_gauge_pa)
    least, most = GAUGE_ERROR.spec.least, GAUGE_ERROR.spec.most  # type: ignore[union-attr]
    used = (
        (GAUGE_USED, spec.name),
        (GAUGE_ERROR, min(max(error, least or 0.0), most or error)),
        (GAUGE_LOW, spec.low_pa),
    )
    for slot, value in used:
        add_entry(actor, visit.pk, uuid5(watch_id, slot.name), slot.name, value, None)


def _on_wire(visit: Visit, gauge_id: UUID) -> Gauge:
    """A gauge of the visit's workspace that is on the wire and in use. Raises InvalidInput."""
    gauge = Gauge.objects.filter(
        pk=gauge_id, workspace_id=visit.system.site.workspace_id, retired=False
    ).first()
    if gauge is None or gauge.wire is None:
        says = "is not a gauge on the wire of this workspace."
        raise InvalidInput([Fault(path="gauge", code="not_on_wire", title="The gauge", says=says)])
    return gauge


@write
def stop_watch(actor: Actor, watch_id: UUID) -> Watch:
    """Ends a watch; safe to repeat. What it saw becomes a recording. Raises NotFound, Forbidden."""
    watch = watch_for_actor(actor, watch_id)
    require(actor, "visits.change", watch.visit.system.site.workspace_id)
    watch = Watch.objects.select_for_update().get(pk=watch.pk)
    if watch.until_s is not None:
        return watch
    log_event(actor.user, "live.stop", watch.visit.system_id, visit=str(watch.visit_id))
    ended = end_watch(watch)
    tell(w=str(ended.pk), ended=True)
    return ended


def take_seen(
    actor: Actor, watch_id: UUID, entry_id: UUID, slot: str, value: Any, supersedes: UUID | None
) -> tuple[Visit, list[Record]]:
    """Takes one reading that the gauge offered into the visit, marked with the gauge's name. Raises
    InvalidInput (nothing that a gauge gives), and what adding an entry does."""
    watch = watch_for_actor(actor, watch_id)
    if slot not in OFFERED:
        says = "is nothing that a gauge gives. Enter it by hand."
        raise InvalidInput([Fault(path="slot", code="not_offered", title="This", says=says)])
    name = str(watch.gauge)[:40]
    return add_entry(actor, watch.visit_id, entry_id, slot, value, supersedes, None, name)


@write
def move_hands(actor: Actor, system_id: UUID, raw: Any) -> StandIn:
    """Hands do something else at a stand-in. Raises InvalidInput, NotFound, Forbidden."""
    stand_in = stand_in_for_actor(actor, system_id)
    require(actor, "systems.change", stand_in.system.site.workspace_id)
    hands, faults = read(Hands, raw, "hands")
    if faults or hands is None:
        raise InvalidInput(faults)
    stand_in.hands = plain(hands)
    stand_in.save(update_fields=["hands"])
    tell(hands=stand_in.unit)
    return stand_in
