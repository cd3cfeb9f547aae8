"""The demo's references on the wire: a stand-in's bench for each of its switches, and the gauge
that reads it."""

from django.conf import settings

from accounts.models import Workspace
from calibrations.models import Device, Reference
from calibrations.selectors import gauge_of, switch_of
from gauges.models import Gauge
from zerodip.bench.device import BenchDevice
from zerodip.gauges import GaugeSpec
from zerodip.wire import WireSpec

from .demo import stand_in_gauge
from .door import FULL, PRESSURE, bench_scale
from .models import BenchStandIn

__all__ = ["load_bench_stand_ins"]

_FIRST_UNIT = 200
_LEAST_SCALE_PA = 100e3


def load_bench_stand_ins(workspace: Workspace) -> int:
    """Stand-ins for a workspace's switches, each with its gauge, which is a reference that can
    measure it; those that are there stay, with the door's port as it is now. Gives how many there
    are."""
    switches = Device.objects.filter(site__workspace=workspace, retired_at=None)
    taken = set(BenchStandIn.objects.values_list("unit", flat=True))
    free = (unit for unit in range(_FIRST_UNIT, 248) if unit not in taken)
    for device in switches.order_by("data__name", "pk"):
        if not BenchStandIn.objects.filter(device=device).exists():
            BenchStandIn.objects.create(device=device, unit=next(free))
        _wire(workspace, device)
    return switches.count()


def _wire(workspace: Workspace, device: Device) -> None:
    switch = switch_of(device.data)
    gauge = _gauge(workspace, device, switch)
    if Reference.objects.filter(gauge=gauge).exists():
        return
    free = Reference.objects.filter(workspace=workspace, gauge=None, retired=False)
    for reference in free:
        low, high = switch.low_gauge_pa, switch.high_gauge_pa
        scale = gauge_of(reference.data)
        if scale.low_gauge_pa <= low and high <= scale.high_gauge_pa:
            reference.gauge = gauge
            reference.save(update_fields=["gauge"])
            return


def _gauge(workspace: Workspace, device: Device, switch: BenchDevice) -> Gauge:
    low, span = bench_scale(switch)
    name = f"Bench of {switch.name}"[:40]
    spec = GaugeSpec(name=name, scale_gauge_pa=max(low + span, _LEAST_SCALE_PA), grade="4A")
    wire = WireSpec(
        host="127.0.0.1",
        port=settings.STAND_IN_PORT,
        unit=device.stand_in.unit,
        register=PRESSURE,
        pressure_unit="kPa",
        raw_high=FULL,
        at_low=low / 1e3,
        at_high=(low + span) / 1e3,
        rate_hz=20,
        contact="discrete",
    )
    return stand_in_gauge(workspace, device.pk, spec, wire)
