"""Gauges as the API shows them."""

from datetime import date
from typing import Any, Literal
from uuid import UUID

from django.utils import timezone
from ninja import Schema

from zerodip.fileformat.fields import read
from zerodip.gauges import GaugeSpec, check_state, error_pa

from .models import Gauge

__all__ = ["GaugeIn", "GaugeOut", "gauge_out"]


class GaugeIn(Schema):
    """A gauge (zerodip.gauges.GaugeSpec) over the version read, 0 for a new one; where its figure
    is fetched if it is on the wire (zerodip.wire.WireSpec); the day of its last check."""

    version: int = 0
    gauge: dict[str, Any]
    wire: dict[str, Any] | None = None
    checked_on: date | None = None
    retired: bool = False


class GaugeOut(Schema):
    """A gauge; `error_pa` is what its grade lets it be off by."""

    id: UUID
    workspace: UUID
    version: int
    gauge: dict[str, Any]
    wire: dict[str, Any] | None
    error_pa: float
    checked_on: date | None
    state: Literal["never", "overdue", "soon", "good"]
    retired: bool


def gauge_out(gauge: Gauge, band: tuple[float, float] | None = None) -> GaugeOut:
    """A gauge: what it may be off by over the whole scale, or within a band (Pa gauge), and how its
    check stands."""
    spec, _ = read(GaugeSpec, gauge.data)
    least, most = band or (0.0, spec.scale_gauge_pa) if spec else (0.0, 0.0)
    since = None if gauge.checked_on is None else (timezone.now().date() - gauge.checked_on).days
    return GaugeOut(
        id=gauge.pk,
        workspace=gauge.workspace_id,
        version=gauge.version,
        gauge=gauge.data,
        wire=gauge.wire,
        error_pa=error_pa(spec, least, most) if spec else 0.0,
        checked_on=gauge.checked_on,
        state=check_state(since),
        retired=gauge.retired,
    )
