"""Reading switches, references and calibrations, from the actor on."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, TypeVar
from uuid import UUID

from django.db.models import Max, Model, QuerySet

from accounts.models import shown
from accounts.permissions import Actor
from common.errors import NotFound
from documents.selectors import living
from zerodip.bench.corrections import correction_says
from zerodip.bench.device import BenchDevice
from zerodip.bench.device import Reference as ReferenceGauge
from zerodip.bench.file import Calibration as Made
from zerodip.bench.file import PastRow
from zerodip.bench.guide import Next, calibration_of, last_time, next_of, past_row
from zerodip.bench.log import Entry, Progress, progress_of, read_value
from zerodip.fileformat.fields import Checked, read

from .models import Calibration, CalibrationEntry, CertificateLink, Device, Reference

__all__ = [
    "calibrated_for_actor",
    "calibration_for_actor",
    "calibrations_of",
    "corrected_after_closing",
    "device_for_actor",
    "devices_for_actor",
    "entries_of",
    "gauge_of",
    "link_by_address",
    "made_before",
    "made_of",
    "past_before",
    "references_for_actor",
    "standing_of",
    "switch_of",
]

MOST_PAST = 20


def devices_for_actor(actor: Actor) -> list[Device]:
    """The switches in use of the actor's workspaces, the soonest due first."""
    return list(_in_use(actor))


def calibrated_for_actor(actor: Actor) -> list[tuple[Device, date, datetime]]:
    """The switches in use that were calibrated, the soonest due first, each with when it is due
    again and when its last calibration was closed."""
    found = _in_use(actor).filter(due_on__isnull=False)
    return [
        (each, each.due_on, each.last_at)
        for each in found.annotate(last_at=Max("calibrations__closed_at"))
        if each.due_on and each.last_at
    ]


def _in_use(actor: Actor) -> QuerySet[Device]:
    found = Device.objects.filter(
        site__workspace__in=actor.workspaces("calibrations.read"), retired_at=None
    )
    return found.select_related("site").order_by("due_on", "data__name", "pk")


def device_for_actor(actor: Actor, device_id: UUID, lock: bool = False) -> Device:
    """One switch, or NotFound; locked until the transaction ends if asked."""
    found = Device.objects.filter(site__workspace__in=actor.workspaces("calibrations.read"))
    found = found.select_related("site")
    return _one((found.select_for_update(of=("self",)) if lock else found).filter(pk=device_id))


def references_for_actor(actor: Actor) -> list[Reference]:
    """The references of the actor's workspaces, those out of use last."""
    found = Reference.objects.filter(workspace__in=actor.workspaces("calibrations.read"))
    return list(found.order_by("retired", "data__name", "pk"))


def calibration_for_actor(actor: Actor, calibration_id: UUID, lock: bool = False) -> Calibration:
    """One calibration, or NotFound; locked until the transaction ends if asked."""
    found = Calibration.objects.filter(
        device__site__workspace__in=actor.workspaces("calibrations.read")
    ).select_related("device__site", "gauge")
    locked = found.select_for_update(of=("self",)) if lock else found
    return _one(locked.filter(pk=calibration_id))


def calibrations_of(device: Device) -> list[Calibration]:
    """A switch's calibrations, the latest first, those of the past as many as count."""
    return list(device.calibrations.prefetch_related("entries")[: MOST_PAST + 1])


def link_by_address(text: str) -> CertificateLink | None:
    """The link, while it lives; None for one that expired, was revoked or never was."""
    links = CertificateLink.objects.select_related("calibration__device__site")
    return living(links, text, "certificate")


def entries_of(calibration: Calibration) -> list[CalibrationEntry]:
    """Its entries in order."""
    return list(calibration.entries.all())


def switch_of(raw: Any) -> BenchDevice:
    """A switch as it was stored."""
    return _as_stored(BenchDevice, raw)


def gauge_of(raw: Any) -> ReferenceGauge:
    """A reference as it was stored."""
    return _as_stored(ReferenceGauge, raw)


@dataclass(frozen=True)
class Standing:
    """How far a calibration is: the switch and the reference as they were when it was begun, and
    what its entries come to."""

    on: date
    switch: BenchDevice
    reference: ReferenceGauge
    progress: Progress

    def made(self, past: Sequence[PastRow] = ()) -> Made | None:
        """As a whole (zerodip.bench.file); None before each point was read."""
        return calibration_of(self.switch, self.reference, self.progress, self.on, past)

    def next(self, before: Sequence[Made], units: str) -> Next:
        """What is next, by the calibrations before, too."""
        last = last_time(self.switch, before[-1]) if before else None
        return next_of(self.switch, self.reference, self.progress, units, last)


def standing_of(
    calibration: Calibration, entries: Sequence[CalibrationEntry] | None = None
) -> Standing:
    """How far a calibration is, by its entries, read anew unless they are given."""
    switch = switch_of(calibration.switch)
    found = entries_of(calibration) if entries is None else entries
    progress = progress_of(_log(found, switch), switch)
    return Standing(calibration.on, switch, gauge_of(calibration.reference), progress)


@dataclass(frozen=True)
class Corrected:
    """A correction after a calibration was closed: in words, when and by whom."""

    says: str
    at: datetime
    by: str


def corrected_after_closing(
    calibration: Calibration, entries: Sequence[CalibrationEntry], units: str
) -> list[Corrected]:
    """What was corrected after a calibration was closed, oldest first."""
    closed = calibration.closed_at
    if closed is None:
        return []
    switch = switch_of(calibration.switch)
    grain = gauge_of(calibration.reference).resolution_pa
    values = {each.id: read_value(each.value, switch)[0] for each in entries}
    made = []
    for each in entries:
        after, before = values[each.id], values.get(each.supersedes) if each.supersedes else None
        if each.made_at > closed and before is not None and after is not None:
            says = correction_says(before, after, switch, grain, units)
            made.append(Corrected(says, each.made_at, shown(each.made_by, each.by)))
    return made


def made_of(calibration: Calibration, past: Sequence[PastRow] = ()) -> Made | None:
    """What a calibration's entries come to (zerodip.bench.file); None before each point was
    read."""
    return standing_of(calibration).made(past)


def _log(entries: Iterable[CalibrationEntry], switch: BenchDevice) -> list[Entry]:
    """Entries as the core takes them."""
    made = []
    for each in entries:
        value, _ = read_value(each.value, switch)
        if value is not None:
            supersedes = str(each.supersedes) if each.supersedes else None
            made.append(Entry(str(each.id), value, supersedes))
    return made


def past_before(calibration: Calibration) -> list[PastRow]:
    """The closed calibrations of the same switch before one, the oldest first. Points that were
    asked for otherwise then are told by their errors."""
    return [past_row(each) for each in made_before(calibration)]


def made_before(calibration: Calibration) -> list[Made]:
    """The closed calibrations of the same switch before one, whole, the oldest first."""
    closed = calibration.device.calibrations.filter(
        closed_at__isnull=False, on__lt=calibration.on
    ).exclude(pk=calibration.pk)
    points = len(calibration.switch["points"])
    rows = [
        made
        for each in closed.prefetch_related("entries")[:MOST_PAST]
        if len(each.switch["points"]) == points and (made := made_of(each)) is not None
    ]
    return rows[::-1]


M = TypeVar("M", bound=Model)
C = TypeVar("C", bound=Checked)


def _one(found: QuerySet[M]) -> M:
    made = found.first()
    if made is None:
        raise NotFound
    return made


def _as_stored(of: type[C], raw: Any) -> C:
    made, faults = read(of, raw)
    if made is None:
        raise ValueError(f"what is stored is no {of.__name__}: {faults}")
    return made
