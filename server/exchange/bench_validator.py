"""What taking a reference or a set-point switch out of an archive would do: nothing is changed
here."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any
from uuid import UUID

from calibrations.models import Calibration, CalibrationEntry, Device, Reference
from gauges.models import Gauge
from zerodip.bench.device import BenchDevice
from zerodip.bench.device import Reference as ReferenceGauge
from zerodip.bench.log import may_follow_closing, read_value
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import plain
from zerodip.fileformat.fields import read

from .archive import CalibrationItem, ReferenceItem, SwitchItem
from .checking import Context, Found, refuse, under
from .ids import Ids
from .kept import Brought, Kept, closed_there, new_records, taken
from .models import Change, Piece

__all__ = ["check_reference", "check_switch"]

_RECORDS = (
    Kept("calibrations", Calibration, "pk", "device_id"),
    Kept("entries", CalibrationEntry, "id", "calibration__device_id"),
)


def check_reference(context: Context, piece: Piece, item: ReferenceItem) -> Found:
    """A reference gauge. Raises InvalidInput with every fault."""
    gauge, faults = read(ReferenceGauge, item.reference)
    if gauge is None:
        raise InvalidInput(under(f"{piece.path}.reference", faults))
    ids, known = context.stored(Reference, item.id, "workspace_id")
    id = ids(item.id)
    says = context.twice(piece, id)
    if says:
        raise refuse("The reference", piece.path, says)
    gauge_id = _gauges(context, [item]).get(str(item.gauge))
    prepared = {
        "id": str(id),
        "data": dict(plain(gauge)),
        "gauge": gauge_id,
        "retired": item.retired,
    }
    if known is None:
        return Found(Change.ADDED, gauge.name, prepared=prepared)
    here = str(known.gauge_id) if known.gauge_id else None
    same = (known.data, here, known.retired) == (prepared["data"], gauge_id, item.retired)
    return Found(Change.SAME if same else Change.CHANGED, gauge.name, prepared=prepared)


def check_switch(context: Context, piece: Piece, item: SwitchItem) -> Found:
    """A switch with its calibrations. Raises InvalidInput with every fault."""
    device, wrong = read(BenchDevice, item.switch)
    faults = under(f"{piece.path}.switch", wrong)
    for at, each in enumerate(item.calibrations):
        faults += under(f"{piece.path}.calibrations.{at}", _calibration_faults(each))
    ids, known = context.stored(Device, item.id, "site__workspace_id")
    site = context.sites.get(piece.site or 0)
    says = "" if site else "stands on a site that is refused."
    says = says or context.twice(piece, ids(item.id)) or _clash(item, ids)
    if says:
        faults.append(Fault(path=piece.path, code="refused", title="The switch", says=says))
    if faults or device is None:
        raise InvalidInput(faults)
    found = _compared(known, item, ids, site, device)
    gauges = _gauges(context, item.calibrations)
    return replace(found, prepared={**(found.prepared or {}), "gauges": gauges})


def _gauges(context: Context, items: Sequence[ReferenceItem | CalibrationItem]) -> dict[str, str]:
    """The ids that gauges on the wire have here, by those that they have there."""
    there = {each.gauge for each in items if each.gauge is not None}
    return {str(id): str(context.stored(Gauge, id, "workspace_id")[0](id)) for id in there}


def _calibration_faults(item: CalibrationItem) -> list[Fault]:
    device, faults = read(BenchDevice, item.switch)
    faults = under("switch", faults)
    faults += under("reference", read(ReferenceGauge, item.reference)[1])
    if item.closed_at is not None and item.closed_at < item.opened_at:
        says = "must not lie before its opening."
        faults.append(Fault(path="closed_at", code="order", title="Closing", says=says))
    if item.closed_at is not None and not item.signed_by.strip():
        says = "is wanted of a calibration that is closed."
        faults.append(Fault(path="signed_by", code="missing", title="Who signed", says=says))
    return [*faults, *_entry_faults(item, device)]


def _entry_faults(item: CalibrationItem, device: BenchDevice | None) -> list[Fault]:
    faults: list[Fault] = []
    known: set[UUID] = set()
    corrected: set[UUID] = set()
    for at, entry in enumerate(item.entries):
        if device is not None:
            faults += under(f"entries.{at}.value", read_value(entry.value, device)[1])
        if entry.supersedes is not None and entry.supersedes not in known - corrected:
            says = "must be an earlier entry that nothing else corrects."
            path = f"entries.{at}.supersedes"
            faults.append(Fault(path=path, code="unknown", title="What it corrects", says=says))
        known.add(entry.id)
        corrected |= {entry.supersedes} if entry.supersedes else set()
    return faults


def _clash(item: SwitchItem, ids: Ids) -> str:
    """Why its calibrations cannot stand beside those that are here; "" where they can."""
    open_there = {ids(each.id) for each in item.calibrations if each.closed_at is None}
    closed_there = {ids(each.id) for each in item.calibrations} - open_there
    here = Calibration.objects.filter(device_id=ids(item.id))
    open_here = set(here.filter(closed_at=None).values_list("pk", flat=True)) - closed_there
    open_there -= set(here.filter(closed_at__isnull=False).values_list("pk", flat=True))
    if len(open_here | open_there) > 1:
        return "has more than one calibration under way."
    return taken(_RECORDS, ids(item.id), _brought(item, ids)) or _reopens(item, ids)


def _reopens(item: SwitchItem, ids: Ids) -> str:
    """A calibration that was signed here takes only corrections."""
    signed = Calibration.objects.filter(device_id=ids(item.id), closed_at__isnull=False)
    entries = CalibrationEntry.objects.filter(calibration__in=signed)
    stored = set(entries.values_list("id", flat=True))
    closed = set(signed.values_list("pk", flat=True))
    for each in item.calibrations:
        for entry in each.entries if ids(each.id) in closed else ():
            new = ids(entry.id) not in stored
            if new and not may_follow_closing(entry.value, entry.supersedes):
                return f"adds to the calibration of {each.on}, which is closed here."
    return ""


def _brought(item: SwitchItem, ids: Ids) -> Brought:
    return {
        "calibrations": [ids(each.id) for each in item.calibrations],
        "entries": [ids(e.id) for each in item.calibrations for e in each.entries],
    }


def _compared(
    known: Device | None, item: SwitchItem, ids: Ids, site: UUID | None, device: BenchDevice
) -> Found:
    retired = item.retired_at.isoformat() if item.retired_at else None
    prepared: dict[str, Any] = {
        "id": str(ids(item.id)),
        "site": str(site),
        "data": dict(plain(device)),
        "retired": retired,
        "moved": ids(item.id) != item.id,
        "version": known.version if known else 0,
    }
    if known is None:
        count = len(item.calibrations)
        says = f"{count} calibration{'' if count == 1 else 's'}"
        return Found(Change.ADDED, device.name, says, prepared=prepared)
    before = known.retired_at.isoformat() if known.retired_at else None
    stands = (str(known.site_id), known.data, before)
    differs = stands != (prepared["site"], prepared["data"], retired)
    said = [
        *(["its plates"] if differs else []),
        *new_records(_RECORDS, known.pk, _brought(item, ids)),
    ]
    said += closed_there(known.calibrations.filter(closed_at=None), item.calibrations, ids)
    change = Change.CHANGED if said else Change.SAME
    return Found(change, device.name, ", ".join(said), prepared=prepared)
