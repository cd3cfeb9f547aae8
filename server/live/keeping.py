"""What the reader asks of the database and keeps there; how a watch becomes a recording."""

import time
from collections.abc import Iterable, Iterator
from contextlib import suppress
from dataclasses import asdict, dataclass
from typing import Any
from uuid import UUID, uuid5

import numpy as np
from django.db import IntegrityError, transaction
from django.db.models import Min

from recordings.models import Recording, State
from recordings.store import as_read, stored
from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.fields import read
from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.recording.layout import Column, Heading, Layout
from zerodip.recording.packing import pack, pack_times, unpack, unpack_times
from zerodip.recording.reading import read_recording
from zerodip.recording.samples import Samples
from zerodip.wire import WireSpec

from .models import Stretch, Watch

__all__ = [
    "Asked",
    "asked",
    "clear_stretches",
    "end_watch",
    "ended_by_closing",
    "keep_samples",
    "keep_seen",
    "keep_watch",
    "line_of",
    "one_of",
]

LONGEST_S = 24 * 3600.0  # that a watch goes on unless it is ended
_STALE_S, _FRESH_S = 48 * 3600.0, 3600.0
_LAST_KEPT_S = 4  # in which the reader has kept what came last
_USUAL_LAG_S = 1.0
LAYOUT = Layout(
    style="epoch_s",
    names=(Heading(name="time"), Heading(name="pressure")),
    columns=(Column(at=1, holds="gauge", unit="Pa"),),
)


@dataclass(frozen=True)
class Asked:
    """A watch under way: its gauge's wire, since when (s), and what its line is read by."""

    id: UUID
    gauge: UUID
    spec: WireSpec
    from_s: float
    atmosphere_pa: float
    lag_s: float


def asked() -> list[Asked]:
    """The watches under way."""
    found = Watch.objects.filter(until_s=None, gauge__wire__isnull=False)
    return [
        each
        for watch in found.select_related("gauge", "visit__system")
        if (each := _asked(watch)) is not None
    ]


def _asked(watch: Watch) -> Asked | None:
    spec, _ = read(WireSpec, watch.gauge.wire)
    if spec is None:
        return None
    document = read_document(watch.visit.system.document)
    air = pressure_abs_pa(document.system.site.altitude_m)
    return Asked(watch.pk, watch.gauge_id, spec, watch.from_s, air, _lag_s(document))


def _lag_s(document: Document) -> float:
    """The start lag of the system's pump, where it was read."""
    lag = getattr(document.figures(), "start_lag_s", None)
    return _USUAL_LAG_S if lag is None else float(lag)


def ended_by_closing() -> list[UUID]:
    """Ends the watches whose visit was closed, and those that nobody ended for a day."""
    running = Watch.objects.filter(until_s=None)
    closed = running.filter(visit__closed_at__isnull=False)
    old = running.filter(from_s__lt=time.time() - LONGEST_S)
    return [end_watch(watch).pk for watch in (*closed, *old)]


def end_watch(watch: Watch) -> Watch:
    """Ends a watch; what it saw becomes a recording, behind the page."""
    from .tasks import keep_as_recording  # which needs what stands here

    watch.until_s = time.time()
    watch.save(update_fields=["until_s"])
    later = keep_as_recording.configure(schedule_in={"seconds": _LAST_KEPT_S})
    transaction.on_commit(lambda: later.defer(watch=str(watch.pk)))
    return watch


def keep_samples(gauge: UUID, samples: list[tuple[float, float]]) -> None:
    """Keeps some seconds of a gauge's samples: time (s) and pressure (Pa gauge); nothing of a gauge
    that was taken away meanwhile."""
    times, pressures = np.array(samples).T
    with suppress(IntegrityError), transaction.atomic():
        Stretch.objects.create(
            gauge_id=gauge,
            first_s=float(times[0]),
            last_s=float(times[-1]),
            count=len(times),
            time=pack_times(times),
            pressure=pack(np.round(pressures, 1)),
        )


def keep_seen(watch: UUID, seen: dict[str, Any]) -> None:
    """Keeps what a watch shows by now."""
    Watch.objects.filter(pk=watch).update(seen=seen)


def line_of(gauge: UUID, from_s: float, until_s: float) -> Iterator[Samples]:
    """The samples of a gauge within a time, a stretch at a time."""
    found = Stretch.objects.filter(gauge=gauge, last_s__gte=from_s, first_s__lte=until_s)
    for each in found.iterator(chunk_size=200):
        times = unpack_times(bytes(each.time))
        within = (times >= from_s) & (times <= until_s)
        yield Samples(times[within], unpack(bytes(each.pressure))[within])


@transaction.atomic
def keep_watch(watch_id: UUID) -> Recording | None:
    """Makes a recording of a watch that ended; once only, however often it is asked."""
    watch = Watch.objects.select_for_update(of=("self",)).filter(pk=watch_id).first()
    if watch is None or watch.until_s is None or watch.recording_id:
        return None
    system = watch.visit.system
    count = sum(map(len, line_of(watch.gauge_id, watch.from_s, watch.until_s)))
    if not count:
        return None
    recording = Recording.objects.create(
        id=uuid5(watch.pk, "recording"),
        system=system,
        name=f"{watch.gauge}, live",
        size=count * 16,
        state=State.READING,
        layout=asdict(LAYOUT),
        made_by=watch.made_by,
    )
    blocks = line_of(watch.gauge_id, watch.from_s, watch.until_s)
    altitude_m = read_document(system.document).system.site.altitude_m
    made = read_recording(stored(recording, LAYOUT, _joined(blocks)), altitude_m)
    Recording.objects.filter(pk=recording.pk).update(**as_read(made))
    watch.recording = recording
    watch.save(update_fields=["recording"])
    return recording


def _joined(blocks: Iterator[Samples], least: int = 30_000) -> Iterator[Samples]:
    """The same in blocks of a fair size."""
    held: list[Samples] = []
    for block in blocks:
        held.append(block)
        if sum(map(len, held)) >= least:
            yield one_of(held)
            held = []
    if held:
        yield one_of(held)


def one_of(parts: Iterable[Samples]) -> Samples:
    """Stretches as one; none makes an empty one."""
    held = [Samples(np.zeros(0), np.zeros(0)), *parts]
    return Samples(
        np.concatenate([each.time_s for each in held]),
        np.concatenate([each.gauge_pa for each in held]),
    )


def clear_stretches() -> None:
    """Takes away samples that no watch needs any more: none that is under way, or waits to be kept
    as a recording."""
    now = time.time()
    needed = Watch.objects.filter(recording=None, from_s__gt=now - _STALE_S).aggregate(
        first=Min("from_s")
    )["first"]
    Stretch.objects.filter(last_s__lt=min(needed or now, now - _FRESH_S)).delete()
