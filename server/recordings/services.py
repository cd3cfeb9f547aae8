"""Taking recordings in: parts as they come, the guess, the reading; and taking them away."""

import io
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict
from hashlib import sha256
from typing import IO, Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max

from accounts.permissions import Actor, require
from audit.services import log_event
from common.errors import Conflict
from common.idempotency import same_again, stored_already
from common.transactions import write
from sites.selectors import system_for_actor
from zerodip.errors import Fault, InvalidInput, UnreadableFile
from zerodip.fileformat.fields import read
from zerodip.recording.files import guess_file
from zerodip.recording.guess import HEAD_BYTES, Guess
from zerodip.recording.layout import Layout

from .models import Part, Recorder, Recording, State
from .selectors import recording_for_actor

__all__ = [
    "MOST_SIZE",
    "PART_SIZE",
    "add_part",
    "add_recording",
    "begin_reading",
    "delete_recording",
    "file_of",
    "guess_of",
]

PART_SIZE = 900_000
MOST_SIZE = 2 << 30
MOST_RECORDINGS = 200  # of one system


@write
def add_recording(
    actor: Actor, system_id: UUID, recording_id: UUID, name: str, size: int
) -> Recording:
    """Begins a recording under the id given. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    system = system_for_actor(actor, system_id)
    require(actor, "recordings.change", system.site.workspace_id)
    known = stored_already(Recording.objects.filter(pk=recording_id), system_id=system.pk)
    if known is not None:
        same_again({"name": known.name, "size": known.size}, {"name": name, "size": size})
        return known
    faults = []
    if not 0 < size <= MOST_SIZE:
        says = "must hold something, and at most 2 GB. Pack it with gzip, or cut it."
        faults.append(Fault(path="size", code="size", title="The file", says=says))
    if system.recordings.count() >= MOST_RECORDINGS:
        says = f"are {MOST_RECORDINGS} already. Delete one first."
        faults.append(Fault(path="system", code="too_many", title="Recordings", says=says))
    if faults:
        raise InvalidInput(faults)
    log_event(actor.user, "recordings.add", system.pk, recording=str(recording_id))
    return Recording.objects.create(
        id=recording_id, system=system, name=name, size=size, made_by=actor.user
    )


def _to_change(actor: Actor, recording_id: UUID, lock: bool = False) -> Recording:
    """A recording that the actor may change. Raises NotFound, Forbidden."""
    recording = recording_for_actor(actor, recording_id, lock)
    require(actor, "recordings.change", recording.system.site.workspace_id)
    return recording


@write
def add_part(actor: Actor, recording_id: UUID, number: int, data: bytes) -> Recording:
    """Keeps one part of the file, in any order; the same again changes nothing. Raises
    InvalidInput, Conflict (another part under this number, or it was read already), NotFound,
    Forbidden."""
    recording = _to_change(actor, recording_id, lock=True)
    parts = -(-recording.size // PART_SIZE)
    expected = min(PART_SIZE, recording.size - number * PART_SIZE)
    if not 0 <= number < parts or len(data) != expected:
        says = f"{number + 1} of {parts} holds {len(data)} bytes; {max(expected, 0)} were expected."
        raise InvalidInput([Fault(path="part", code="size", title="Part", says=says)])
    known = Part.objects.filter(of=recording, number=number).first()
    if known is not None:
        sums = [sha256(bytes(each)).hexdigest() for each in (known.data, data)]
        same_again({"sha256": sums[0]}, {"sha256": sums[1]})
        return recording
    if recording.state != State.COMING:
        raise Conflict("The file is here already.", {"state": recording.state})
    Part.objects.create(of=recording, number=number, data=data)
    if recording.parts.count() == parts:
        recording.state = State.HERE
        recording.save(update_fields=["state"])
    return recording


def guess_of(actor: Actor, recording_id: UUID) -> Guess:
    """What the file is, by its first parts; a layout kept for the recorder goes before. Raises
    InvalidInput (no recording: it is taken away again), Conflict (not all here), NotFound,
    Forbidden."""
    recording = _to_change(actor, recording_id)
    if recording.state == State.COMING:
        raise Conflict("The file is not all here yet.", {"state": recording.state})
    try:
        with file_of(recording) as stream:
            made = guess_file(stream)
    except UnreadableFile as error:
        if recording.state == State.HERE:
            recording.delete()
        raise InvalidInput(
            [
                Fault(
                    path="file",
                    code="unreadable",
                    title=recording.name,
                    says=f"cannot be read. {error}",
                )
            ]
        ) from None
    kept = Recorder.objects.filter(
        workspace_id=recording.system.site.workspace_id, mark=_mark_of(made.layout)
    ).first()
    layout = read(Layout, kept.layout)[0] if kept else None
    if layout is None:
        return made
    return Guess(layout, made.lines, ("Read as this recorder’s file was read before.",))


def _mark_of(layout: Layout) -> str:
    """By what a recorder is known again: its columns' names and its separators."""
    names = "\n".join(each.name for each in layout.names)
    marks = (layout.packing, layout.separator, layout.decimal, names)
    return sha256("\0".join(marks).encode()).hexdigest()


@write
def begin_reading(actor: Actor, recording_id: UUID, raw: Any) -> Recording:
    """Begins to read the file by a layout, which is kept for the recorder. Raises InvalidInput,
    Conflict (not all here), NotFound, Forbidden."""
    recording = _to_change(actor, recording_id, lock=True)
    layout, faults = read(Layout, raw, "layout")
    if layout is None or faults:
        raise InvalidInput(faults)
    if recording.state == State.READ:
        raise Conflict("It was read already. Delete it and send it again.", {"state": "read"})
    if recording.state == State.COMING:
        raise Conflict("The file is not all here yet.", {"state": recording.state})
    plain = asdict(layout)
    Recorder.objects.update_or_create(
        workspace_id=recording.system.site.workspace_id,
        mark=_mark_of(layout),
        defaults={"layout": plain},
    )
    recording.layout, recording.state, recording.problem = plain, State.READING, ""
    recording.run, recording.done = recording.run + 1, 0
    recording.save()
    log_event(actor.user, "recordings.read", recording.system_id, recording=str(recording.pk))
    transaction.on_commit(lambda: _defer(recording))
    return recording


def _defer(recording: Recording) -> None:
    from .tasks import read_recording  # which needs the services of this module

    read_recording.defer(recording=str(recording.pk), run=recording.run)


@write
def delete_recording(actor: Actor, recording_id: UUID) -> None:
    """Takes a recording away with all that was kept of it; one that is being read gives way.
    Raises NotFound, Forbidden."""
    recording = _to_change(actor, recording_id)
    log_event(actor.user, "recordings.delete", recording.system_id, recording=str(recording.pk))
    recording.delete()


class _Parts(io.RawIOBase):
    """The parts as one file, each fetched when it is read."""

    def __init__(self, recording: Recording) -> None:
        count = recording.parts.aggregate(most=Max("number"))["most"]
        self._parts, self._at = recording.parts, 0
        self._count, self._size = 0 if count is None else count + 1, recording.size
        self._held: tuple[int, bytes] = (-1, b"")

    def readable(self) -> bool:
        return True

    def seekable(self) -> bool:
        return True

    def seek(self, offset: int, whence: int = io.SEEK_SET) -> int:
        base = {io.SEEK_SET: 0, io.SEEK_CUR: self._at, io.SEEK_END: self._size}[whence]
        self._at = max(base + offset, 0)
        return self._at

    def tell(self) -> int:
        return self._at

    def readinto(self, into: "memoryview | bytearray") -> int:  # type: ignore[override]
        number, first = divmod(self._at, PART_SIZE)
        if number >= self._count:
            return 0
        if self._held[0] != number:
            row = self._parts.filter(number=number).first()
            self._held = (number, bytes(row.data) if row else b"")
        made = self._held[1][first : first + len(into)]
        into[: len(made)] = made
        self._at += len(made)
        return len(made)


@contextmanager
def file_of(recording: Recording) -> Iterator[IO[bytes]]:
    """The file as it was sent."""
    with io.BufferedReader(_Parts(recording), HEAD_BYTES) as stream:
        yield stream
