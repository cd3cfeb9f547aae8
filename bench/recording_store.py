"""A recording of 100 million samples in the database: how much memory taking it in needs, how many
bytes it takes, and how long any window of it takes to draw. `small`: two million.

Goals: memory under 500 MB, 3 bytes a sample, a window in 50 ms."""

import os
import random
import resource
import statistics
import sys
import time
import uuid
from collections.abc import Iterator

import django
import numpy as np

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "bench.settings")
django.setup()

from django.db import connection

from recordings.models import Recording
from recordings.serializers import line_out
from recordings.store import stored
from sites.models import System
from zerodip.recording.layout import Column, Layout
from zerodip.recording.reading import read_recording
from zerodip.recording.samples import Samples
from zerodip.units import PSI

BLOCK = 500_000
BEGIN_S = 1.6e9
PERIOD_S = 900.0


def _blocks(count: int) -> Iterator[Samples]:
    """A sample a second, 12 bits, a start every quarter of an hour."""
    rng = np.random.default_rng(7)
    for first in range(0, count, BLOCK):
        times = BEGIN_S + np.arange(first, min(first + BLOCK, count), dtype=float)
        phase = (times % PERIOD_S) / PERIOD_S
        gauge = np.where(phase < 0.9, 60 - 20 * phase / 0.9, 40 + 20 * (phase - 0.9) / 0.1)
        steps = np.round((gauge + rng.normal(0, 0.1, len(times))) / 150 * 4096)
        yield Samples(times, np.round(steps * 150 / 4096, 3) * PSI)


def main() -> None:
    """Takes it in, draws windows of it, takes it away again."""
    count = 2_000_000 if "small" in sys.argv else 100_000_000
    system = System.objects.first()
    assert system is not None
    layout = Layout(style="epoch_s", names=(), columns=(Column(at=1, holds="gauge", unit="psi"),))
    recording = Recording.objects.create(id=uuid.uuid4(), system=system, name="big", size=1)
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    begin = time.perf_counter()
    made = read_recording(stored(recording, layout, _blocks(count)))
    took = time.perf_counter() - begin
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    recording.samples, recording.first_s, recording.last_s = count, BEGIN_S, BEGIN_S + count - 1
    print(
        f"{count:,} samples taken in and read in {took:.0f} s ({count / took / 1e6:.1f} million a"
        f" second), {len(made.cycles)} cycles; memory {most:.0f} MB (goal 500), {before:.0f} before"
    )
    with connection.cursor() as cursor:
        size = 0
        for table, columns in (("chunk", ("time", "gauge")), ("level", ("time", "least", "most"))):
            lengths = " + ".join(f"octet_length({each})" for each in columns)
            cursor.execute(
                f"select sum({lengths}) from recordings_{table} where of_id = %s",
                [recording.pk],
            )
            size += int(cursor.fetchone()[0])
    print(f"{size / count:.2f} bytes a sample with its pyramid (goal 3)")
    rng = random.Random(3)
    for span in (60.0, 3600.0, 86400.0, 7 * 86400.0, 60 * 86400.0, float(count)):
        took_ms = []
        for _ in range(30):
            start = BEGIN_S + rng.uniform(0, max(count - span, 1))
            begin = time.perf_counter()
            line_out(recording, start, start + min(span, count), 1600)
            took_ms.append((time.perf_counter() - begin) * 1000)
        worst = max(took_ms)
        print(f"{span:12.0f} s: {statistics.median(took_ms):6.1f} ms, worst {worst:6.1f} (goal 50)")
    recording.delete()


if __name__ == "__main__":
    main()
