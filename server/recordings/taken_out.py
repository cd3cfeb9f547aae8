"""Recordings in open formats."""

import tempfile
from collections.abc import Iterator
from pathlib import Path

import polars as pl

from zerodip.recording.samples import Samples

from .models import Recording
from .store import samples_of

__all__ = ["as_csv", "as_parquet"]

_READ = 1 << 16


def _table(part: Samples) -> pl.DataFrame:
    columns = {"time_s": part.time_s, "gauge_pa": part.gauge_pa}
    if part.current_a is not None:
        columns["current_a"] = part.current_a
    if part.flow_m3_s is not None:
        columns["flow_m3_s"] = part.flow_m3_s
    return pl.DataFrame(columns).with_columns(pl.all().fill_nan(None))


def as_csv(recording: Recording) -> Iterator[bytes]:
    """A header, then a row per sample; empty where a figure is missing."""
    head = True
    for part in samples_of(recording):
        yield _table(part).write_csv(include_header=head).encode()
        head = False


def as_parquet(recording: Recording) -> Iterator[bytes]:
    """The same as Parquet, written to a file of its own first, chunk by chunk."""
    with tempfile.TemporaryDirectory() as folder:
        parts = Path(folder) / "parts"
        parts.mkdir()
        for number, part in enumerate(samples_of(recording)):
            _table(part).write_parquet(parts / f"{number:06}.parquet")
        whole = Path(folder) / "whole.parquet"
        pl.scan_parquet(parts / "*.parquet").sink_parquet(whole, compression="zstd")
        with whole.open("rb") as file:
            while block := file.read(_READ):
                yield block
