"""Samples in the database: packed as they come, drawn and taken out again."""

import json
import zlib
from collections.abc import Iterable, Iterator
from typing import Any

import numpy as np

from zerodip.recording.arrays import Floats, joined, taken
from zerodip.recording.cycles import Cycles
from zerodip.recording.kept import cycles_kept, cycles_restored, kept, restored
from zerodip.recording.layout import Layout
from zerodip.recording.packing import pack, pack_times, unpack, unpack_times
from zerodip.recording.pyramid import FACTORS, NOTHING, Drawn, PyramidMaker, reduced
from zerodip.recording.pyramid import Level as Height
from zerodip.recording.reading import Reading
from zerodip.recording.samples import Samples

from .models import Chunk, Level, Recording, State

__all__ = ["as_read", "cycles_of", "forget", "line", "reading_of", "samples_of", "stored"]

CHUNK = 65_536
_COLUMNS = (("gauge", "gauge_pa"), ("current", "current_a"), ("flow", "flow_m3_s"))


def forget(recording: Recording) -> None:
    """Takes away what was kept of samples."""
    Chunk.objects.filter(of=recording).delete()
    Level.objects.filter(of=recording).delete()


def stored(recording: Recording, layout: Layout, blocks: Iterable[Samples]) -> Iterator[Samples]:
    """Keeps the samples while they pass."""
    maker, number = PyramidMaker(), 0
    scale = next(column.line for column in layout.columns if column.holds == "gauge")
    for block in blocks:
        Level.objects.bulk_create(
            [_level(recording, scale, each) for each in maker.feed(block.time_s, block.gauge_pa)]
        )
        chunks = []
        for first in range(0, len(block), CHUNK):
            part = block.taken(slice(first, first + CHUNK))
            chunks.append(_chunk(recording, layout, number, part))
            number += 1
        Chunk.objects.bulk_create(chunks)
        yield block
    Level.objects.bulk_create([_level(recording, scale, each) for each in maker.end()])


def _ends(time_s: Floats) -> tuple[float, float]:
    known = time_s[np.isfinite(time_s)]
    return (float(known.min()), float(known.max())) if len(known) else (0.0, 0.0)


def _chunk(recording: Recording, layout: Layout, number: int, part: Samples) -> Chunk:
    lines = {column.holds: column.line for column in layout.columns}
    first, last = _ends(part.time_s)
    packed = {
        name: pack(values, *lines[name])
        for name, field in _COLUMNS
        if (values := getattr(part, field)) is not None
    }
    return Chunk(
        of=recording,
        number=number,
        count=len(part),
        first_s=first,
        last_s=last,
        time=pack_times(part.time_s),
        **packed,
    )


def _level(recording: Recording, scale: tuple[float, float], each: Height) -> Level:
    first, last = _ends(each.drawn.time_s)
    return Level(
        of=recording,
        factor=each.factor,
        number=each.part,
        first_s=first,
        last_s=last,
        time=pack_times(each.drawn.time_s),
        least=pack(each.drawn.least, *scale),
        most=pack(each.drawn.most, *scale),
    )


def samples_of(
    recording: Recording, from_s: float | None = None, until_s: float | None = None
) -> Iterator[Samples]:
    """The samples of a recording as they stand, a chunk at a time; those chunks that touch a
    window, if one is asked for."""
    chunks = Chunk.objects.filter(of=recording).order_by("number")
    if from_s is not None:
        chunks = chunks.filter(last_s__gte=from_s)
    if until_s is not None:
        chunks = chunks.filter(first_s__lte=until_s)
    for chunk in chunks.iterator(chunk_size=8):
        held = [None if (each := getattr(chunk, n)) is None else unpack(each) for n, _ in _COLUMNS]
        gauge = held[0] if held[0] is not None else np.zeros(chunk.count)
        yield Samples(unpack_times(bytes(chunk.time)), gauge, held[1], held[2])


def line(recording: Recording, from_s: float, until_s: float, points: int) -> Drawn:
    """A window of the line in about as many buckets as asked for, never more than twice that."""
    span = max(until_s - from_s, 1e-9)
    whole = max((recording.last_s or 0.0) - (recording.first_s or 0.0), 1e-9)
    inside = recording.samples * min(span / whole, 1.0)
    factor = next((f for f in reversed(FACTORS) if inside / f >= points), 1)
    drawn = _samples_drawn if factor == 1 else _level_drawn
    made = drawn(recording, factor, from_s, until_s)
    made = taken(made, (made.time_s >= from_s) & (made.time_s <= until_s))
    by = -(-len(made) // points)
    return reduced(made.time_s, made.least, made.most, by) if by > 1 else made


def _samples_drawn(recording: Recording, _: int, from_s: float, until_s: float) -> Drawn:
    parts = samples_of(recording, from_s, until_s)
    return joined([NOTHING, *(Drawn(p.time_s, p.gauge_pa, p.gauge_pa) for p in parts)])


def _level_drawn(recording: Recording, factor: int, from_s: float, until_s: float) -> Drawn:
    rows = Level.objects.filter(
        of=recording, factor=factor, last_s__gte=from_s, first_s__lte=until_s
    ).order_by("number")
    parts = (
        Drawn(unpack_times(bytes(r.time)), unpack(bytes(r.least)), unpack(bytes(r.most)))
        for r in rows
    )
    return joined([NOTHING, *parts])


def as_read(made: Reading) -> dict[str, Any]:
    """The fields of a recording that was read."""
    return {
        "state": State.READ,
        "reading": kept(made),
        "cycles": zlib.compress(json.dumps(cycles_kept(made.cycles)).encode()),
        "samples": made.quality.samples,
        "first_s": made.quality.first_s,
        "last_s": made.quality.last_s,
        "done": 1,
    }


def reading_of(recording: Recording) -> Reading | None:
    """What a recording says; None before it was read."""
    if recording.state != State.READ or recording.reading is None:
        return None
    return restored(recording.reading, cycles_of(recording))


def cycles_of(recording: Recording) -> Cycles:
    """The cycles of a recording that was read."""
    if not recording.cycles:
        return Cycles.none()
    return cycles_restored(json.loads(zlib.decompress(bytes(recording.cycles))))
