"""Changing switches, references and calibrations: permission, transaction and log entry inside."""

from datetime import date, timedelta
from typing import Any
from uuid import UUID

from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.clock import Made
from common.errors import Conflict
from common.idempotency import same_again, stored_already
from common.transactions import write
from gauges.models import Gauge
from sites.selectors import site_for_actor
from zerodip.bench.calibrate import calibrate
from zerodip.bench.contact import Change, reading_of
from zerodip.bench.device import BenchDevice, reading_faults
from zerodip.bench.device import Reference as ReferenceGauge
from zerodip.bench.log import Read, may_follow_closing, read_value
from zerodip.bench.reference import reference_faults
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import plain
from zerodip.fileformat.fields import Checked, read

from .models import Calibration, CalibrationEntry, Device, Reference
from .selectors import (
    calibration_for_actor,
    device_for_actor,
    entries_of,
    gauge_of,
    made_before,
    made_of,
    past_before,
    standing_of,
    switch_of,
)

__all__ = [
    "MOST_ENTRIES",
    "add_entry",
    "begin",
    "checked",
    "close",
    "put_device",
    "put_reference",
    "refresh_due",
    "retire_device",
    "take_change",
]

MOST_DEVICES, MOST_REFERENCES, MOST_ENTRIES = 2000, 100, 400


@write
def put_device(actor: Actor, site_id: UUID, device_id: UUID, version: int, raw: Any) -> Device:
    """Adds a switch under the id given (version 0), or changes it over the version read. The same
    again changes nothing. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    site = site_for_actor(actor, site_id)
    require(actor, "calibrations.change", site.workspace_id)
    wanted = checked(BenchDevice, raw, "device")
    known = stored_already(Device.objects.select_for_update().filter(pk=device_id), site_id=site.pk)
    if known is None:
        _room(Device.objects.filter(site=site).count(), MOST_DEVICES, "Switches")
    device = known or Device(id=device_id, site=site, data={}, version=0)
    if device.data == wanted:
        return device
    _unchanged_meanwhile(version, device)
    device.data, device.version = wanted, device.version + 1
    device.save()
    log_event(actor.user, "calibrations.change", device.pk, name=wanted["name"])
    return device


@write
def retire_device(actor: Actor, device_id: UUID) -> None:
    """Takes a switch out of use; its calibrations stay. Raises NotFound, Forbidden."""
    device = device_for_actor(actor, device_id, lock=True)
    require(actor, "calibrations.change", device.site.workspace_id)
    if device.retired_at is None:
        device.retired_at = timezone.now()
        device.save(update_fields=["retired_at"])
        log_event(actor.user, "calibrations.change", device.pk, retired=True)


@write
def put_reference(
    actor: Actor,
    workspace_id: UUID,
    reference_id: UUID,
    version: int,
    raw: Any,
    gauge_id: UUID | None,
    retired: bool,
) -> Reference:
    """Adds a reference under the id given (version 0), or changes it over the version read. The
    same again changes nothing. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    require(actor, "calibrations.change", workspace_id)
    made, faults = read(ReferenceGauge, raw, "reference")
    gauge, wrong = _on_wire(workspace_id, gauge_id)
    if made is None or wrong:
        raise InvalidInput([*faults, *wrong])
    wanted = dict(plain(made))
    known = stored_already(
        Reference.objects.select_for_update().filter(pk=reference_id), workspace_id=workspace_id
    )
    if known is None:
        count = Reference.objects.filter(workspace_id=workspace_id).count()
        _room(count, MOST_REFERENCES, "References")
    reference = known or Reference(id=reference_id, workspace_id=workspace_id, data={}, version=0)
    if (reference.data, reference.gauge, reference.retired) == (wanted, gauge, retired):
        return reference
    _unchanged_meanwhile(version, reference)
    reference.data, reference.gauge, reference.retired = wanted, gauge, retired
    reference.version += 1
    reference.save()
    log_event(actor.user, "calibrations.change", reference.pk, name=wanted["name"])
    return reference


@write
def begin(
    actor: Actor,
    device_id: UUID,
    calibration_id: UUID,
    raw: Any,
    gauge_id: UUID | None,
    on: date,
    made: Made,
) -> Calibration:
    """Begins a calibration under the id given, or gives the one already open on the switch: two
    people make the same one. A reference that may not be used is refused. Raises InvalidInput,
    NotFound, Forbidden."""
    device = device_for_actor(actor, device_id, lock=True)
    require(actor, "calibrations.change", device.site.workspace_id)
    known = stored_already(Calibration.objects.filter(pk=calibration_id), device_id=device.pk)
    running = known or device.calibrations.filter(closed_at=None).first()
    if running is not None:
        return running
    gauge, faults = read(ReferenceGauge, raw, "reference")
    if gauge is not None:
        faults = reference_faults(switch_of(device.data), gauge, on)
    wired, wrong = _on_wire(device.site.workspace_id, gauge_id)
    faults += wrong
    today = made.at.date()
    if abs(on - today) > timedelta(days=1):
        says = "must be today."
        faults.append(Fault(path="on", code="not_today", title="Day", says=says))
    if faults or gauge is None:
        raise InvalidInput(faults)
    calibration = Calibration.objects.create(
        id=calibration_id,
        device=device,
        switch=device.data,
        reference=plain(gauge),
        gauge=wired,
        on=on,
        opened_by=actor.user,
        opened_at=made.at,
    )
    log_event(
        actor.user, "calibrations.open", device.pk, calibration=str(calibration.pk), **made.noted
    )
    return calibration


@write
def add_entry(
    actor: Actor,
    calibration_id: UUID,
    entry_id: UUID,
    value: Any,
    supersedes: UUID | None,
    made: Made,
) -> Calibration:
    """Adds one entry. The same id again changes nothing; a closed calibration takes only what
    corrects it. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    calibration = calibration_for_actor(actor, calibration_id, lock=True)
    require(actor, "calibrations.change", calibration.device.site.workspace_id)
    entries = entries_of(calibration)
    known = next((each for each in entries if each.id == entry_id), None)
    if known is not None:
        yours = {"value": value, "supersedes": supersedes}
        same_again({"value": known.value, "supersedes": known.supersedes}, yours)
        return calibration
    stored_already(CalibrationEntry.objects.filter(id=entry_id), calibration_id=calibration.pk)
    _may_be_added(calibration, entries, value, supersedes)
    CalibrationEntry.objects.create(
        id=entry_id,
        calibration=calibration,
        value=value,
        supersedes=supersedes,
        made_by=actor.user,
        made_at=made.at,
    )
    noted = {"calibration": str(calibration.pk), "kind": value["kind"], **made.noted}
    log_event(actor.user, "calibrations.change", calibration.device_id, **noted)
    if calibration.closed_at is not None:
        refresh_due(calibration.device)
    return calibration


def take_change(
    actor: Actor, calibration_id: UUID, entry_id: UUID, change: Change, made: Made
) -> Calibration:
    """Takes the reading that a change of the contact makes, where one is asked for. The same id
    again changes nothing. Raises InvalidInput (nothing is asked, or the other way), and what adding
    an entry does."""
    calibration = calibration_for_actor(actor, calibration_id)
    require(actor, "calibrations.change", calibration.device.site.workspace_id)
    if calibration.entries.filter(id=entry_id).exists():
        return calibration
    at = standing_of(calibration)
    asked = at.next(made_before(calibration), "us").instruction
    runs = at.progress.segments[-1].runs
    value = plain(reading_of(at.switch, asked, change, runs))
    return add_entry(actor, calibration_id, entry_id, value, None, made)


@write
def close(
    actor: Actor, calibration_id: UUID, signed_by: str, remark: str, made: Made
) -> Calibration:
    """Closes a calibration that was read as left, signed. Closing again changes nothing. Raises
    InvalidInput, NotFound, Forbidden."""
    calibration = calibration_for_actor(actor, calibration_id, lock=True)
    require(actor, "calibrations.change", calibration.device.site.workspace_id)
    if calibration.closed_at is not None:
        return calibration
    faults = []
    if not signed_by.strip():
        says = "is wanted: who made it."
        faults.append(Fault(path="signed_by", code="missing", title="Name", says=says))
    read_so_far = made_of(calibration)
    if read_so_far is None or calibrate(read_so_far).left_verdict == "open":
        says = "are wanted three times of each point after the last turn."
        faults.append(Fault(path="runs", code="missing", title="Runs", says=says))
    if faults:
        raise InvalidInput(faults)
    calibration.closed_at = made.at
    calibration.signed_by, calibration.remark = signed_by.strip(), remark.strip()
    calibration.save(update_fields=["closed_at", "signed_by", "remark"])
    log_event(
        actor.user,
        "calibrations.close",
        calibration.device_id,
        calibration=str(calibration.pk),
        **made.noted,
    )
    refresh_due(calibration.device)
    return calibration


def refresh_due(device: Device) -> None:
    """When a switch is next due, by its latest closed calibration."""
    latest = device.calibrations.filter(closed_at__isnull=False).first()
    made = made_of(latest, past_before(latest)) if latest else None
    if made is None:
        return
    due = calibrate(made).next_due
    device.due_on, device.due_by = date.fromisoformat(due.on), due.by
    device.save(update_fields=["due_on", "due_by"])


def _may_be_added(
    calibration: Calibration,
    entries: list[CalibrationEntry],
    value: Any,
    supersedes: UUID | None,
) -> None:
    switch = switch_of(calibration.switch)
    made, faults = read_value(value, switch)
    if isinstance(made, Read):
        gauge = gauge_of(calibration.reference)
        faults += reading_faults(made.gauge_pa, switch, gauge, "gauge_pa", "Read")
    if supersedes is not None and all(each.id != supersedes for each in entries):
        says = "is not there: what is to be corrected."
        faults.append(Fault(path="supersedes", code="unknown", title="Entry", says=says))
    if any(each.supersedes == supersedes for each in entries if supersedes):
        raise Conflict("Somebody corrected this already.", {"superseded": str(supersedes)})
    if faults:
        raise InvalidInput(faults)
    _room(len(entries), MOST_ENTRIES, "Entries")
    if calibration.closed_at is not None and not may_follow_closing(value, supersedes):
        raise Conflict(
            "The calibration is closed. What was read can be corrected; nothing else.",
            {"closed": True},
        )


def checked(of: type[Checked], raw: Any, path: str) -> dict[str, Any]:
    """A part out of plain values as it is stored. Raises InvalidInput with every fault."""
    made, faults = read(of, raw, path)
    if made is None:
        raise InvalidInput(faults)
    return dict(plain(made))


def _on_wire(workspace_id: UUID, gauge_id: UUID | None) -> tuple[Gauge | None, list[Fault]]:
    """The gauge of the workspace that a reference is, or what is wrong with it."""
    if gauge_id is None:
        return None, []
    found = Gauge.objects.filter(pk=gauge_id, workspace_id=workspace_id, wire__isnull=False).first()
    if found is not None:
        return found, []
    says = "is not a gauge on the wire of this workspace."
    return None, [Fault(path="gauge", code="not_on_wire", title="The gauge", says=says)]


def _room(count: int, most: int, title: str) -> None:
    if count >= most:
        says = f"are {most} already: no more fit."
        raise InvalidInput([Fault(path="id", code="too_many", title=title, says=says)])


def _unchanged_meanwhile(version: int, stored: Device | Reference) -> None:
    if version != stored.version:
        raise Conflict(
            "It was changed while you worked on it.",
            {"version": stored.version, "data": stored.data},
        )
