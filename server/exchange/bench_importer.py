"""Taking references and set-point switches: what checking made ready is stored. Called inside a
transaction."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from accounts.models import User
from calibrations.models import Calibration, CalibrationEntry, Device, Reference
from gauges.models import Gauge
from sites.models import Site

from .archive import CalibrationItem, SwitchItem
from .ids import Ids, ids_for
from .models import Piece
from .owned import changed_meanwhile, not_here, own

__all__ = ["take_reference", "take_switch"]

Gauges = Mapping[str, Gauge | None]  # by the ids that they have in the file


def take_reference(workspace_id: UUID, ready: Mapping[str, Any]) -> None:
    """A reference gauge, after the gauges on the wire. Raises Conflict."""
    known = own(Reference, [ready["id"]], "workspace_id", workspace_id)
    made = Reference(id=ready["id"], workspace_id=workspace_id, version=0)
    reference = known.get(UUID(ready["id"])) or made
    reference.data, reference.retired = ready["data"], ready["retired"]
    gauges = own(Gauge, [ready["gauge"]] if ready["gauge"] else [], "workspace_id", workspace_id)
    reference.gauge = next(iter(gauges.values()), None)
    reference.version += 1
    reference.save()


def take_switch(workspace_id: UUID, piece: Piece, people: Mapping[str, User]) -> None:
    """A switch with the calibrations and entries that are not on record yet. Nothing on record is
    touched, but a calibration that was open here and is closed there. Raises Conflict."""
    ready = piece.prepared or {}
    id, site = UUID(ready["id"]), UUID(ready["site"])
    known = own(Device, [ready["id"]], "site__workspace_id", workspace_id).get(id)
    if not own(Site, [ready["site"]], "workspace_id", workspace_id):
        raise changed_meanwhile()  # a site of the file is gone again
    if (known.version if known else 0) != ready["version"]:
        raise changed_meanwhile(f"“{piece.name}”")
    device = known or Device(id=id, version=0)
    device.site_id, device.data = site, ready["data"]
    device.retired_at = datetime.fromisoformat(ready["retired"]) if ready["retired"] else None
    device.version += 1
    device.save()
    item = SwitchItem.model_validate(piece.raw)
    own_ids = ids_for(workspace_id, bool(ready["moved"]))
    wired = ready.get("gauges", {})
    here = own(Gauge, wired.values(), "workspace_id", workspace_id)
    gauges = {there: here.get(UUID(id)) for there, id in wired.items()}
    _take_calibrations(device, item, own_ids, people, gauges)


def _take_calibrations(
    device: Device, item: SwitchItem, ids: Ids, people: Mapping[str, User], gauges: Gauges
) -> None:
    made = [_calibration(each, ids, device, people, gauges) for each in item.calibrations]
    entries = [entry for each in item.calibrations for entry in _entries(each, ids, people)]
    fresh = not_here(made, "device_id")
    for each in made:
        if each.closed_at is not None:
            device.calibrations.filter(pk=each.pk, closed_at=None).update(
                closed_at=each.closed_at, signed_by=each.signed_by, remark=each.remark
            )
    Calibration.objects.bulk_create(fresh)
    CalibrationEntry.objects.bulk_create(not_here(entries, "calibration_id"), batch_size=2000)


def _calibration(
    each: CalibrationItem, ids: Ids, device: Device, people: Mapping[str, User], gauges: Gauges
) -> Calibration:
    return Calibration(
        id=ids(each.id),
        device=device,
        switch=each.switch,
        reference=each.reference,
        gauge=gauges.get(str(each.gauge)),
        on=each.on,
        opened_at=each.opened_at,
        opened_by=people.get(each.by),
        by=each.by,
        closed_at=each.closed_at,
        signed_by=each.signed_by,
        remark=each.remark,
    )


def _entries(of: CalibrationItem, ids: Ids, people: Mapping[str, User]) -> list[CalibrationEntry]:
    return [
        CalibrationEntry(
            id=ids(each.id),
            calibration_id=ids(of.id),
            value=each.value,
            supersedes=ids(each.supersedes) if each.supersedes else None,
            made_by=people.get(each.by),
            by=each.by,
            made_at=each.at,
        )
        for each in of.entries
    ]
