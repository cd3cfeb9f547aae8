"""A recorder's file as a stream of samples: a block at a time, so that any size is read in little
memory."""

import io
import re
import shutil
import tempfile
import zlib
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path
from typing import IO

import numpy as np
import polars as pl

from zerodip.errors import UnreadableFile
from zerodip.recording.arrays import Floats
from zerodip.recording.clocks import OneClock
from zerodip.recording.guess import HEAD_BYTES, Guess, guess, named
from zerodip.recording.layout import TIME_STYLES, Column, Layout
from zerodip.recording.samples import Samples
from zerodip.recording.times import seconds_of

__all__ = ["MOST_BYTES", "guess_file", "samples_of", "unpacked"]

_BLOCK = 16 << 20
_SAMPLE_ROWS = 60
MOST_BYTES = 8 << 30  # unpacked; what is more is no recording but a bomb
_GZIP = b"\x1f\x8b"
_FIGURE = r"([-+]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][-+]?\d+)?)"
_LONGEST_LINE = 1 << 20


class _Unpacked(io.RawIOBase):
    """A gzip stream unpacked as it is read, up to `MOST_BYTES`; other streams as they are."""

    def __init__(self, packed: IO[bytes], first: bytes) -> None:
        self._packed, self._waiting, self._told = packed, first, 0
        self._unpack = zlib.decompressobj(zlib.MAX_WBITS | 16)

    def readable(self) -> bool:
        return True

    def readinto(self, into: "memoryview | bytearray") -> int:  # type: ignore[override]
        made = b""
        while not made:
            fed = self._waiting or self._packed.read(1 << 16)
            if not fed:
                if not self._unpack.eof:
                    raise UnreadableFile("The packed file ends too early: it was cut off.")
                return 0
            if self._unpack.eof:  # several packed files in one
                self._unpack = zlib.decompressobj(zlib.MAX_WBITS | 16)
            try:
                made = self._unpack.decompress(fed, len(into))
            except zlib.error:
                raise UnreadableFile("The packed file is broken.") from None
            self._waiting = self._unpack.unconsumed_tail or self._unpack.unused_data
        self._told += len(made)
        if self._told > MOST_BYTES:
            raise UnreadableFile("Unpacked, the file is larger than 8 GB.")
        into[: len(made)] = made
        return len(made)


def unpacked(stream: IO[bytes]) -> IO[bytes]:
    """The stream, unpacked where it is gzip.

    Args:
        stream: A file from its beginning.

    Returns:
        A stream to be read once.
    """
    first = stream.read(2)
    if first == _GZIP:
        return io.BufferedReader(_Unpacked(stream, first), 1 << 18)
    return io.BufferedReader(_Prefixed(first, stream), 1 << 18)


class _Prefixed(io.RawIOBase):
    """What was read already, and then the rest."""

    def __init__(self, first: bytes, rest: IO[bytes]) -> None:
        self._first, self._rest = first, rest

    def readable(self) -> bool:
        return True

    def readinto(self, into: "memoryview | bytearray") -> int:  # type: ignore[override]
        made = self._first[: len(into)] or self._rest.read(len(into))
        self._first = self._first[len(into) :]
        into[: len(made)] = made
        return len(made)


def guess_file(stream: IO[bytes]) -> Guess:
    """The layout of a file from its beginning.

    Args:
        stream: The file, seekable.

    Returns:
        The guess.

    Raises:
        UnreadableFile: Where it is no recording.
    """
    text = unpacked(stream)
    head = text.read(HEAD_BYTES)
    if not head.startswith(b"PAR1"):
        return guess(head)
    stream.seek(0)
    with _on_disk(stream) as path:
        rows = _rows(path, 0, _SAMPLE_ROWS)
    made = guess(rows.cast(pl.String).fill_null("").write_csv().encode())
    layout = {**made.layout.__dict__, "packing": "parquet", "names": named(rows.columns)}
    return Guess(Layout(**layout), made.lines, made.doubts)


@contextmanager
def _on_disk(stream: IO[bytes]) -> Iterator[Path]:
    """A Parquet file as one on disk, of which a piece can be read without all of it in memory."""
    with tempfile.NamedTemporaryFile(suffix=".parquet") as file:
        shutil.copyfileobj(stream, file, _BLOCK)
        file.flush()
        yield Path(file.name)


def _rows(path: Path, first: int, count: int) -> pl.DataFrame:
    try:
        return pl.scan_parquet(path).slice(first, count).collect()
    except (pl.exceptions.PolarsError, OSError):
        raise UnreadableFile("The Parquet file is broken.") from None


def samples_of(stream: IO[bytes], layout: Layout) -> Iterator[Samples]:
    """The samples of a file, a block at a time, as they stand in it: nothing is put in order or
    left out but rows without a time and a pressure. A clock that was changed meanwhile is undone.

    Args:
        stream: The file from its beginning.
        layout: How it is written.

    Yields:
        Blocks of samples.

    Raises:
        UnreadableFile: Where it is broken.
    """
    if layout.packing == "parquet":
        tables = _tables_of_parquet(stream)
    else:
        blocks = _blocks(unpacked(stream), layout)
        tables = (_table(block, layout) for block in blocks)
    last: float | None = None
    rows, clock = 0, _clock_of(layout)
    for table in tables:
        made = _samples(table, layout, last, rows)
        rows += len(table)
        known = made.time_s[np.isfinite(made.time_s)]
        last = float(known[-1]) if len(known) else last
        if len(made) and clock:
            times, back, forward = clock.undone(made.time_s)
            made = replace(made, time_s=times, put_back=back, put_forward=forward)
        if len(made):
            yield made


def _clock_of(layout: Layout) -> OneClock | None:
    """The recorder's clock; None where its times do not go by one that is changed."""
    if layout.style not in ("pattern", "words", "excel_days") or "%#z" in layout.pattern:
        return None
    return OneClock(local=not layout.zone)


def _tables_of_parquet(stream: IO[bytes], rows: int = 1 << 20) -> Iterator[pl.DataFrame]:
    at = 0
    with _on_disk(stream) as path:
        while len(table := _rows(path, at, rows)):
            at += len(table)
            yield table


def _blocks(stream: IO[bytes], layout: Layout) -> Iterator[bytes]:
    """Whole lines as UTF-8, some 16 MB at a time, from the first row of numbers on."""
    if layout.encoding != "utf-8":
        stream = _as_utf8(stream, layout.encoding)
    for _ in range(int(layout.skipped)):
        if not stream.readline(_LONGEST_LINE):
            return
    rest = b""
    while read := stream.read(_BLOCK):
        whole, newline, rest_of = read.rpartition(b"\n")
        if not newline and len(rest) + len(read) > _LONGEST_LINE + _BLOCK:
            raise UnreadableFile("A line of the file has no end: this is no recording.")
        if newline:
            yield rest + whole + newline
            rest = rest_of
        else:
            rest += read
    if rest.strip():
        yield rest


def _as_utf8(stream: IO[bytes], encoding: str) -> IO[bytes]:
    class Again(io.RawIOBase):
        text = io.TextIOWrapper(stream, encoding=encoding, errors="replace", newline="")

        def readable(self) -> bool:
            return True

        def readinto(self, into: "memoryview | bytearray") -> int:  # type: ignore[override]
            made = self.text.read(max(len(into) // 4, 1)).encode()
            into[: len(made)] = made
            return len(made)

    return io.BufferedReader(Again(), 1 << 18)


def _table(block: bytes, layout: Layout) -> pl.DataFrame:
    if layout.packing == "jsonl":
        return _objects(block)
    block = block.removeprefix(b"\xef\xbb\xbf").replace(b"\0", b"")
    if layout.separator == " ":
        block = re.sub(rb"[ \t]+", b" ", re.sub(rb"(?m)^[ \t]+", b"", block))
    last = _last_column(layout)
    first = block.split(b"\n", 1)[0]
    width = max(first.count(layout.separator.encode()) + 1, last + 1)
    numbers = {column.at for column in layout.columns if not _is_worded(first, layout)}
    numbers |= {int(layout.time_at)} if layout.style in TIME_STYLES else set()
    schema = {str(n): pl.Float64 if n in numbers else pl.String for n in range(width)}
    try:
        return pl.read_csv(
            block,
            has_header=False,
            separator=layout.separator,
            schema=schema,
            columns=sorted({*_columns_used(layout)}),
            decimal_comma=layout.decimal == ",",
            ignore_errors=True,
            truncate_ragged_lines=True,
            raise_if_empty=False,
            quote_char='"' if b'"' in block else None,
        )
    except pl.exceptions.PolarsError:
        raise UnreadableFile("The table breaks off: a row cannot be read as the others.") from None


def _columns_used(layout: Layout) -> list[int]:
    places = [int(layout.time_at)] if layout.style != "none" else []
    places += [] if layout.clock_at is None else [int(layout.clock_at)]
    return [*places, *(int(column.at) for column in layout.columns)]


def _last_column(layout: Layout) -> int:
    return max(_columns_used(layout))


def _is_worded(line: bytes, layout: Layout) -> bool:
    """Whether figures stand with their unit, or in quotes."""
    fields = line.decode(errors="replace").strip().split(layout.separator)
    figures = [fields[int(c.at)] for c in layout.columns if int(c.at) < len(fields)]
    return any(re.match(rf'^"|^\s|^{_FIGURE}\s*[^\d\s.,eE+-]', each) for each in figures)


def _objects(block: bytes) -> pl.DataFrame:
    try:
        return pl.read_ndjson(block, infer_schema_length=1000, ignore_errors=True)
    except pl.exceptions.PolarsError:
        raise UnreadableFile("A line is no JSON object.") from None


def _samples(table: pl.DataFrame, layout: Layout, last_s: float | None, rows: int) -> Samples:
    held = {column.holds: _figures(table, column, layout) for column in layout.columns}
    time_s: Floats
    if layout.style == "none":
        time_s = (np.arange(len(table), dtype=np.float64) + rows) * (layout.every_s or 1.0)
    else:
        time_s = seconds_of(_time_column(table, layout), layout, last_s)
    made = Samples(time_s, held["gauge"], held.get("current"), held.get("flow"))
    return made.taken(np.isfinite(made.time_s) | np.isfinite(made.gauge_pa))


def _column(table: pl.DataFrame, at: float, layout: Layout) -> pl.Series:
    """A column by its place; of a table of text only those that are used were read."""
    if layout.packing == "text":
        return table[str(int(at))]
    if at >= len(table.columns):
        return pl.Series([None] * len(table), dtype=pl.String)
    return table.to_series(int(at))


def _time_column(table: pl.DataFrame, layout: Layout) -> pl.Series:
    day = _column(table, layout.time_at, layout)
    if isinstance(day.dtype, pl.Datetime):
        return day.dt.replace_time_zone(None).dt.strftime(layout.pattern)
    if day.dtype.is_numeric():
        return day
    day = day.cast(pl.String).str.strip_chars()
    if layout.clock_at is not None:
        clock = _column(table, layout.clock_at, layout).cast(pl.String).str.strip_chars()
        return day + " " + clock
    if layout.style in TIME_STYLES and layout.decimal == ",":
        return day.str.replace(",", ".", literal=True)
    return day


def _figures(table: pl.DataFrame, column: Column, layout: Layout) -> Floats:
    """A column in SI; NaN where it holds no figure."""
    read = _column(table, column.at, layout)
    if read.dtype == pl.String:
        read = read.str.extract(_FIGURE).str.replace(",", ".", literal=True)
    figures = read.cast(pl.Float64, strict=False).fill_null(np.nan).to_numpy()
    factor, offset = column.line
    si = figures * factor + offset if offset else figures * factor
    return np.where(np.isfinite(si), si, np.nan)
