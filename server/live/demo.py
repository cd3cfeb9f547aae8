"""The demo's gauges on the wire: a stand-in for each plant that can be simulated, and a gauge that
reads it."""

from uuid import UUID, uuid5

from django.conf import settings
from django.db.models import QuerySet

from accounts.models import Workspace
from gauges.models import Gauge
from sites.models import System
from zerodip.fileformat.document import plain, read_document
from zerodip.gauges import GaugeSpec
from zerodip.stand_in import can_stand_in
from zerodip.units import PSI
from zerodip.wire import WireSpec

from .door import PRESSURE
from .models import StandIn

__all__ = ["load_stand_ins", "stand_in_gauge"]

MOST = 12
_SCALE_PA = 300 * PSI


def load_stand_ins(workspace: Workspace) -> int:
    """Stand-ins for a workspace's systems, each with its gauge; those that are there stay, with the
    door's port as it is now. Gives how many there are."""
    stand_ins = StandIn.objects.filter(system__site__workspace=workspace)
    if not stand_ins.exists():
        _stand_in(System.objects.filter(site__workspace=workspace, retired_at=None))
    for each in stand_ins.select_related("system"):
        _gauge(workspace, each)
    return stand_ins.count()


def _stand_in(systems: QuerySet[System]) -> None:
    taken = set(StandIn.objects.values_list("unit", flat=True))
    free = (unit for unit in range(1, 248) if unit not in taken)
    for system in systems.order_by("site__name", "name")[:MOST]:
        if can_stand_in(read_document(system.document)):
            StandIn.objects.create(system=system, unit=next(free))


def _gauge(workspace: Workspace, stand_in: StandIn) -> None:
    spec = GaugeSpec(
        name=f"Stand-in, {stand_in.system.name}"[:40], scale_gauge_pa=_SCALE_PA, grade="4A"
    )
    wire = WireSpec(
        host="127.0.0.1",
        port=settings.STAND_IN_PORT,
        unit=stand_in.unit,
        register=PRESSURE,
        pressure_unit="bar",
        raw_high=20_000,
        at_high=20,
        rate_hz=20,
    )
    stand_in_gauge(workspace, stand_in.system_id, spec, wire)


def stand_in_gauge(workspace: Workspace, of: UUID, spec: GaugeSpec, wire: WireSpec) -> Gauge:
    """The gauge that reads a stand-in for something; one that is there stays, with the door's port
    as it is now."""
    defaults = {"workspace": workspace, "data": plain(spec), "wire": plain(wire)}
    gauge, new = Gauge.objects.get_or_create(pk=uuid5(of, "stand-in gauge"), defaults=defaults)
    if not new and gauge.wire and gauge.wire["port"] != wire.port:
        gauge.wire = {**gauge.wire, "port": wire.port}
        gauge.version += 1
        gauge.save(update_fields=["wire", "version"])
    return gauge
