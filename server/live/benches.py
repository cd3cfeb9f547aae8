"""References read off the wire on the bench: who looks on, and the stand-ins' benches."""

import time
from typing import Any
from uuid import UUID

from accounts.permissions import Actor, require
from calibrations.models import Calibration
from calibrations.selectors import calibration_for_actor, devices_for_actor
from common.errors import Conflict, NotFound
from common.transactions import write
from zerodip.bench.stand_in import BenchHands
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import plain
from zerodip.fileformat.fields import read
from zerodip.wire import WireSpec

from .channel import tell
from .models import BenchStandIn, BenchWatch

__all__ = [
    "bench_stand_ins_for_actor",
    "end_watch",
    "move_bench_hands",
    "read_on_benches",
    "watch_of",
    "watch_reference",
]

LOOKED_ON_S = 600.0  # that a gauge is read after somebody last asked for it


@write
def watch_reference(actor: Actor, calibration_id: UUID) -> BenchWatch:
    """The reference of a calibration under way is read for some minutes more. Safe to repeat.
    Raises InvalidInput (it is not on the wire), Conflict (closed), NotFound, Forbidden."""
    made = calibration_for_actor(actor, calibration_id, lock=True)
    require(actor, "calibrations.change", made.device.site.workspace_id)
    if made.closed_at is not None:
        raise Conflict("The calibration is closed.", {"closed": True})
    gauge = made.gauge
    if gauge is None or gauge.wire is None or gauge.retired:
        says = "is not on the wire. Read it by hand."
        fault = Fault(path="gauge", code="not_on_wire", title="The reference", says=says)
        raise InvalidInput([fault])
    until = {"gauge": gauge, "until_s": time.time() + LOOKED_ON_S}
    return BenchWatch.objects.update_or_create(calibration=made, defaults=until)[0]


@write
def end_watch(actor: Actor, calibration_id: UUID) -> None:
    """It is not read any more. Safe to repeat. Raises NotFound, Forbidden."""
    made = calibration_for_actor(actor, calibration_id)
    require(actor, "calibrations.change", made.device.site.workspace_id)
    BenchWatch.objects.filter(calibration=made).delete()


def watch_of(actor: Actor, calibration_id: UUID) -> BenchWatch:
    """The watch of a calibration's reference. Raises NotFound."""
    made: Calibration = calibration_for_actor(actor, calibration_id)
    found = BenchWatch.objects.filter(calibration=made, until_s__gt=time.time()).first()
    if found is None:
        raise NotFound
    return found


def read_on_benches() -> dict[UUID, WireSpec]:
    """The gauges that are read on benches now."""
    found = BenchWatch.objects.filter(
        until_s__gt=time.time(), calibration__closed_at=None, gauge__wire__isnull=False
    ).select_related("gauge")
    specs = {each.gauge_id: read(WireSpec, each.gauge.wire)[0] for each in found}
    return {gauge: spec for gauge, spec in specs.items() if spec is not None}


def bench_stand_ins_for_actor(actor: Actor) -> list[BenchStandIn]:
    """The stand-ins for the actor's switches."""
    devices = [each.pk for each in devices_for_actor(actor)]
    found = BenchStandIn.objects.filter(device__in=devices)
    return list(found.select_related("device__site").order_by("unit"))


@write
def move_bench_hands(actor: Actor, device_id: UUID, raw: Any) -> BenchStandIn:
    """Hands do something else at a stand-in's bench. Raises InvalidInput, NotFound, Forbidden."""
    found = next((s for s in bench_stand_ins_for_actor(actor) if s.pk == device_id), None)
    if found is None:
        raise NotFound
    require(actor, "calibrations.change", found.device.site.workspace_id)
    hands, faults = read(BenchHands, raw, "hands")
    if faults or hands is None:
        raise InvalidInput(faults)
    found.hands = plain(hands)
    found.save(update_fields=["hands"])
    tell(hands=found.unit)
    return found
