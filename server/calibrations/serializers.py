"""Switches, references and calibrations as the API shows them."""

from datetime import date, datetime
from typing import Annotated, Any, Literal, cast
from uuid import UUID

from django.utils import timezone
from ninja import Schema
from pydantic import Field

from accounts.models import shown
from accounts.permissions import Actor
from common.schemas import Told
from zerodip.bench.calibrate import Judgement, calibrate
from zerodip.bench.file import Calibration as Made
from zerodip.bench.guide import Next, past_row
from zerodip.bench.words import titles

from .models import Calibration, Device, Reference
from .selectors import corrected_after_closing, made_before, made_of, standing_of

__all__ = [
    "BeginIn",
    "CalibrationEntryIn",
    "CalibrationOut",
    "CalibrationRow",
    "ChangeIn",
    "CloseIn",
    "DeviceIn",
    "DeviceOut",
    "ReferenceIn",
    "ReferenceOut",
    "calibration_out",
    "calibration_row",
    "device_out",
    "reference_out",
]

SOON_DAYS = 30
Finite = Annotated[float, Field(allow_inf_nan=False)]
Wire = Literal["", "gauge", "contact"]
DueState = Literal["never", "overdue", "soon", "good"]


class DeviceIn(Schema):
    """A switch (zerodip.bench.device.BenchDevice) over the version read, 0 for a new one."""

    version: int = 0
    device: dict[str, Any]


class DeviceOut(Schema):
    """A switch, when it is next due and how that stands."""

    id: UUID
    workspace: UUID
    site: UUID
    site_name: str
    version: int
    device: dict[str, Any]
    due_on: date | None
    due_by: str
    state: DueState
    retired: bool
    may_change: bool


class ReferenceIn(Schema):
    """A reference (zerodip.bench.device.Reference) over the version read, 0 for a new one, and
    which gauge on the wire it is."""

    version: int = 0
    reference: dict[str, Any]
    gauge: UUID | None = None
    retired: bool = False


class ReferenceOut(Schema):
    """A reference of a workspace."""

    id: UUID
    workspace: UUID
    version: int
    reference: dict[str, Any]
    gauge: UUID | None
    retired: bool


class BeginIn(Schema):
    """The reference that is used, as it stands, which gauge on the wire it is, and the day."""

    reference: dict[str, Any]
    gauge: UUID | None = None
    on: date


class CalibrationEntryIn(Schema):
    """One entry (zerodip.bench.log) and the id of the one that it corrects."""

    value: dict[str, Any]
    supersedes: UUID | None = None


class ChangeIn(Schema):
    """A change of the contact as the reference saw it (zerodip.bench.contact.Change), SI."""

    at_s: Finite
    gauge_pa: Finite
    rate_pa_s: Finite
    delay_s: Annotated[float, Field(ge=0, le=60)]
    closed: bool


class CloseIn(Schema):
    """Who signs, and what else is to be said."""

    signed_by: str
    remark: str = ""


class CalibrationEntryOut(Schema):
    """One entry, and who made it when."""

    id: UUID
    value: dict[str, Any]
    supersedes: UUID | None
    at: datetime
    by: str


class PointShares(Schema):
    """By how much a point was off as found and as left, as shares of its tolerance."""

    found: float
    left: float


class CorrectionOut(Schema):
    """A correction after closing, in words, when and by whom."""

    says: str
    at: datetime
    by: str


class CalibrationRow(Schema):
    """A calibration in a list."""

    id: UUID
    on: date
    reference: str
    closed_at: datetime | None
    signed_by: str
    found_says: str
    left_says: str
    shares: list[PointShares]


class CalibrationOut(Schema):
    """A calibration: the switch and the reference as they were, what the points are called, what
    is next, the entries, and how it is judged (None before each point was read). `units` is what
    it is told in: what the reference is marked in, else the switch, else as asked. `may_change`
    tells whether this person may go on with it and share its certificate, `signs` what they are
    called, `wire` what is read off the reference on the wire: nothing (""), the gauge, or the
    contact with it."""

    id: UUID
    device: UUID
    switch: dict[str, Any]
    site_name: str
    reference: dict[str, Any]
    on: date
    titles: list[str]
    units: Told
    next: Next
    adjusted: bool
    entries: list[CalibrationEntryOut]
    corrections: list[CorrectionOut]
    judged: Judgement | None
    closed_at: datetime | None
    signed_by: str
    remark: str
    may_change: bool
    signs: str
    wire: Wire


def device_out(device: Device, actor: Actor) -> DeviceOut:
    """A switch, as the actor sees it."""
    return DeviceOut(
        id=device.pk,
        workspace=device.site.workspace_id,
        site=device.site_id,
        site_name=device.site.name,
        version=device.version,
        device=device.data,
        due_on=device.due_on,
        due_by=device.due_by,
        state="overdue" if device.due_by == "failed" else _state(device.due_on),
        retired=device.retired_at is not None,
        may_change=actor.may("calibrations.change", device.site.workspace_id),
    )


def reference_out(reference: Reference) -> ReferenceOut:
    """A reference."""
    return ReferenceOut(
        id=reference.pk,
        workspace=reference.workspace_id,
        version=reference.version,
        reference=reference.data,
        gauge=reference.gauge_id,
        retired=reference.retired,
    )


def calibration_row(calibration: Calibration) -> CalibrationRow:
    """A calibration in a list."""
    judged = _judged(made_of(calibration), "us")
    return CalibrationRow(
        id=calibration.pk,
        on=calibration.on,
        reference=calibration.reference["name"],
        closed_at=calibration.closed_at,
        signed_by=calibration.signed_by,
        found_says=judged.found_says if judged else "",
        left_says=judged.left_says if judged else "",
        shares=[
            PointShares(
                found=found.error_pa / found.tolerance_pa, left=left.error_pa / left.tolerance_pa
            )
            for found, left in zip(judged.found, judged.left, strict=True)
        ]
        if judged
        else [],
    )


def calibration_out(calibration: Calibration, asked: str, actor: Actor) -> CalibrationOut:
    """A calibration, with what is next, as the actor sees it, told in what the reference is marked
    in, else in what was asked."""
    entries = list(calibration.entries.select_related("made_by"))
    at = standing_of(calibration, entries)
    units = at.reference.told_in(at.switch, asked)
    before = made_before(calibration)
    return CalibrationOut(
        id=calibration.pk,
        device=calibration.device_id,
        switch=calibration.switch,
        site_name=calibration.device.site.name,
        reference=calibration.reference,
        on=calibration.on,
        titles=list(titles(at.switch)),
        units=cast(Told, units),
        next=at.next(before, units),
        adjusted=at.progress.adjusted,
        entries=[
            CalibrationEntryOut(
                id=each.id,
                value=each.value,
                supersedes=each.supersedes,
                at=each.made_at,
                by=shown(each.made_by, each.by),
            )
            for each in entries
        ],
        corrections=[
            CorrectionOut(**vars(each))
            for each in corrected_after_closing(calibration, entries, units)
        ],
        judged=_judged(at.made([past_row(each) for each in before]), units),
        closed_at=calibration.closed_at,
        signed_by=calibration.signed_by,
        remark=calibration.remark,
        may_change=actor.may("calibrations.change", calibration.device.site.workspace_id),
        signs=actor.user.shown,
        wire=_wire(calibration),
    )


def _wire(calibration: Calibration) -> Wire:
    wire = calibration.gauge.wire if calibration.gauge else None
    if not wire or calibration.closed_at is not None:
        return ""
    return "gauge" if wire.get("contact", "none") == "none" else "contact"


def _judged(made: Made | None, units: str) -> Judgement | None:
    return None if made is None else calibrate(made, units)


def _state(due: date | None) -> DueState:
    if due is None:
        return "never"
    days = (due - timezone.now().date()).days
    return "overdue" if days < 0 else "soon" if days <= SOON_DAYS else "good"
