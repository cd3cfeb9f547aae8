"""Reading a recording behind the page: samples are kept as they pass, progress is told, and one
that was taken away or begun anew is given up."""

from collections.abc import Callable, Iterator
from contextlib import suppress
from typing import Any
from uuid import UUID

from django.db import InterfaceError, OperationalError, transaction

from zerodip.errors import UnreadableFile
from zerodip.fileformat.document import read_document
from zerodip.fileformat.fields import read
from zerodip.recording.files import samples_of
from zerodip.recording.layout import Layout
from zerodip.recording.reading import read_recording
from zerodip.recording.samples import Samples

from .models import Recording, State
from .services import file_of
from .store import as_read, forget, stored

__all__ = ["GivenUp", "read_now"]

_MOST_SAMPLES = 400_000_000


class GivenUp(Exception):
    """It was taken away meanwhile, or is being read anew."""


def read_now(recording_id: UUID, run: int) -> None:
    """Reads a recording from its beginning: what an earlier reading left is taken away first, so
    that it may be begun as often as need be. What is no recording leaves nothing but its
    problem."""
    recording = Recording.objects.filter(pk=recording_id, run=run, state=State.READING).first()
    if recording is None:
        return
    layout, _ = read(Layout, recording.layout)
    if layout is None:
        _refuse(recording, "Its layout is of another version. Send the file again.")
        return
    forget(recording)
    try:
        _read(recording, layout)
    except UnreadableFile as error:
        _refuse(recording, str(error))
    except GivenUp:
        if not Recording.objects.filter(pk=recording.pk).exists():
            forget(recording)
    except (OperationalError, InterfaceError):
        raise  # the database is away: it is tried again
    except Exception:
        _refuse(recording, "Something broke on the server while it was read. It has been logged.")
        raise


def _read(recording: Recording, layout: Layout) -> None:
    altitude_m = read_document(recording.system.document).system.site.altitude_m
    with file_of(recording) as stream:
        blocks = stored(recording, layout, samples_of(stream, layout))
        made = read_recording(_told(recording, blocks, stream.tell), altitude_m, layout.zone)
    if not made.quality.samples or made.quality.first_s is None:
        raise UnreadableFile("No row of it could be read as a time and a pressure.")
    with transaction.atomic():
        recording.parts.all().delete()
        _update(recording, **as_read(made))


def _told(
    recording: Recording, blocks: Iterator[Samples], at: Callable[[], int]
) -> Iterator[Samples]:
    """The blocks, with how far it is told after each."""
    count = 0
    for block in blocks:
        count += len(block)
        if count > _MOST_SAMPLES:
            raise UnreadableFile("It holds more than 400 million samples: cut it.")
        _update(recording, samples=count, done=min(at() / recording.size, 1.0))
        yield block


def _update(recording: Recording, **values: Any) -> None:
    """Raises GivenUp where it was taken away meanwhile, or is being read anew."""
    if not Recording.objects.filter(pk=recording.pk, run=recording.run).update(**values):
        raise GivenUp


def _refuse(recording: Recording, problem: str) -> None:
    """Leaves nothing but the problem; where it is being read anew, nothing is changed."""
    with suppress(GivenUp), transaction.atomic():
        _update(recording, state=State.REFUSED, problem=problem[:300], samples=0)
        forget(recording)
        recording.parts.all().delete()
