"""What a recorder's file is, guessed from its first bytes, with what is doubtful about it."""

import csv
import json
import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import takewhile
from typing import Any

from zerodip.errors import UnreadableFile
from zerodip.recording.headings import columns_of
from zerodip.recording.layout import Heading, Layout
from zerodip.recording.times import Style, style_of

__all__ = ["HEAD_BYTES", "Guess", "guess", "named"]

HEAD_BYTES = 1 << 18
_SHOWN = 10
_SAMPLE = 60  # rows that a guess looks at
_SEPARATORS = ("\t", ";", "|", ",", " ")  # the rarer in numbers first
_OTHERS = (
    (b"PK\x03\x04", "a ZIP archive or a workbook"),
    (b"%PDF", "a PDF"),
    (b"\x89PNG", "a picture"),
    (b"\xff\xd8\xff", "a picture"),
    (b"\xd0\xcf\x11\xe0", "an old workbook"),
)
# A figure, perhaps with its unit.
_NUMBER = re.compile(r"^[-+]?(\d+([.,]\d*)?|[.,]\d+)([eE][-+]?\d+)?( ?[a-zA-Z/²³%°]{1,8})?$")
_MISSING = ("nan", "n/a", "na", "null", "none", "-", "--", "---", "err", "error", "over", "under")
_RANK = ("pattern", "epoch_s", "epoch_ms", "epoch_us", "excel_days", "clock", "words")


@dataclass(frozen=True)
class Guess:
    """A layout, the first rows it reads as they stand in the file, and what is not sure about
    it."""

    layout: Layout
    lines: tuple[str, ...]
    doubts: tuple[str, ...]


def guess(head: bytes) -> Guess:
    """The layout of a file by its first bytes, unpacked.

    Args:
        head: The first bytes, up to `HEAD_BYTES` of them.

    Returns:
        The guess.

    Raises:
        UnreadableFile: Where it is no recording; says what it looks like and what to do.
    """
    for magic, what in _OTHERS:
        if head.startswith(magic):
            raise UnreadableFile(f"This is {what}. Export the recording as CSV and send that.")
    if not head.strip():
        raise UnreadableFile("The file is empty.")
    text, encoding = _decoded(head)
    lines = text.splitlines()
    lines = lines[:-1] if len(head) >= HEAD_BYTES else lines  # the last one is cut off
    if text.lstrip()[:1] == "{":
        return _of_objects(lines, encoding)
    return _of_table(lines, encoding)


def _decoded(head: bytes) -> tuple[str, str]:
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        return head.decode("utf-16", errors="replace"), "utf-16"
    if b"\0" in head:
        raise UnreadableFile("This is no text: export the recording as CSV and send that.")
    body = head.removeprefix(b"\xef\xbb\xbf")
    try:
        return body.decode("utf-8"), "utf-8"
    except UnicodeDecodeError as error:
        if error.start >= len(body) - 3:  # a letter cut in two by the end
            return body[: error.start].decode("utf-8"), "utf-8"
        return body.decode("latin-1"), "latin-1"


def _rows_of(lines: Sequence[str], separator: str) -> list[list[str]]:
    """Lines as fields, quotes taken off; runs of spaces are one separator."""
    if separator == " ":
        return [line.split() for line in lines]
    return [[each.strip() for each in row] for row in csv.reader(lines, delimiter=separator)]


def _is_number(text: str) -> bool:
    """Whether a field is a number, with either decimal sign, perhaps with its unit."""
    return bool(_NUMBER.match(text))


def _of_table(lines: Sequence[str], encoding: str) -> Guess:
    found = [(_table(lines, each), each) for each in _SEPARATORS]
    (rows, skipped), separator = max(found, key=lambda each: len(each[0][0]))
    if len(rows) < 2:
        raise UnreadableFile(
            "No table of numbers was found: a recording has rows of times and pressures."
        )
    above = _rows_of(lines[:skipped], separator)[-3:]
    headings = _headings(above, len(rows[0]))
    chatter = "\n".join(lines[:skipped])
    decimal = "," if separator != "," and _has_comma(rows) else "."
    made = _layout(rows[:_SAMPLE], headings, chatter)
    layout = Layout(
        encoding=encoding,
        separator=separator,
        decimal=decimal,
        skipped=skipped,
        names=named(headings),
        **made.parts,
    )
    shown = [line for line in lines[skipped:] if line.strip()][:_SHOWN]
    return Guess(layout, tuple(shown), made.doubts)


def _table(lines: Sequence[str], separator: str) -> tuple[list[list[str]], int]:
    """The rows that are alike in fields and hold numbers, and how many lines come before them."""
    rows = _rows_of(lines, separator)
    numbered = [(at, row) for at, row in enumerate(rows) if any(map(_is_number, row))]
    counts = Counter(len(row) for _, row in numbered)
    if not counts:
        return [], 0
    width = max(counts, key=lambda each: (counts[each], each))
    if width == 1 and separator != ",":
        return [], 0
    alike = [(at, row) for at, row in numbered if len(row) == width]
    usual = Counter(_shape(row) for _, row in alike).most_common(1)[0][0]
    # "Interval;10 s" stands over the table and is no row of it.
    first = next(at for at, row in alike if _fits(row, usual))
    return [row for at, row in alike if at >= first], first


def _shape(row: Sequence[str]) -> tuple[str, ...]:
    """What each field is: a number, words with figures in them, words alone, or nothing."""
    return tuple(
        "number" if _is_number(each) else "figures" if re.search(r"\d", each) else each and "words"
        for each in row
    )


def _fits(row: Sequence[str], usual: Sequence[str]) -> bool:
    """Whether a row may be one of a table: where its rows have figures, it has some or nothing."""
    return all(
        is_ in (was, "") or was in ("words", "") or is_ != "words" or field.lower() in _MISSING
        for is_, was, field in zip(_shape(row), usual, row, strict=True)
    )


def named(headings: Sequence[str]) -> tuple[Heading, ...]:
    """Names as a layout keeps them: what cannot be printed left out.

    Args:
        headings: Names as they stand in the file.

    Returns:
        The names, 80 letters of each at most.
    """
    clean = ("".join(filter(str.isprintable, each)) for each in headings)
    return tuple(Heading(name=each[:80]) for each in clean)


def _headings(above: Sequence[Sequence[str]], width: int) -> list[str]:
    """The names over the columns; a second row of units goes with the names."""
    rows = list(takewhile(lambda row: len(row) == width, reversed(above)))[:2]
    return [" ".join(each for each in names if each) for names in zip(*reversed(rows), strict=True)]


def _has_comma(rows: Sequence[Sequence[str]]) -> bool:
    fields = [each for row in rows[:_SAMPLE] for each in row if _is_number(each)]
    return sum("," in each for each in fields) > sum("." in each for each in fields)


@dataclass(frozen=True)
class _Made:
    parts: dict[str, Any]
    doubts: tuple[str, ...]


def _layout(rows: Sequence[Sequence[str]], headings: Sequence[str], chatter: str) -> _Made:
    columns = [list(column) for column in zip(*rows, strict=True)]
    times, style = _times(columns, headings)
    doubts = [style.doubt] if style.doubt else []
    rest = {
        at: column
        for at, column in enumerate(columns)
        if at not in times and any(map(_is_number, column))
    }
    if not rest:
        raise UnreadableFile("No column of pressures was found beside the times.")
    held, more = columns_of(rest, headings, chatter)
    parts: dict[str, Any] = {"style": style.style, "pattern": style.pattern, "columns": held}
    if times:
        parts |= {"time_at": times[0], "clock_at": times[1] if len(times) > 1 else None}
    else:
        parts |= {"every_s": 1.0}
        doubts.append("No column of times: samples are taken as one a second.")
    return _Made(parts, (*doubts, *more))


def _times(
    columns: Sequence[Sequence[str]], headings: Sequence[str]
) -> tuple[tuple[int, ...], Style]:
    """The columns that tell the time, and how."""
    found: list[tuple[int, tuple[int, ...], Style]] = []
    for at, column in enumerate(columns):
        beside = columns[at + 1] if at + 1 < len(columns) else None
        if beside and all(":" in each for each in beside[:3]) and not _is_number(column[0]):
            both = style_of([f"{a} {b}" for a, b in zip(column, beside, strict=True)])
            if both and both.style == "pattern":
                return (at, at + 1), both
        heading = headings[at] if at < len(headings) else ""
        style = style_of(column, heading)
        if style is None:
            continue
        rank = _RANK.index(style.style) if style.style in _RANK else len(_RANK) + bool(style.doubt)
        found.append((rank, (at,), style))
    if not found:
        return (), Style("none")
    _, places, style = min(found, key=lambda each: each[:2])
    return places, style


def _of_objects(lines: Sequence[str], encoding: str) -> Guess:
    """JSON lines: one object a row."""
    try:
        objects = [json.loads(line) for line in lines[:_SAMPLE] if line.strip()]
    except ValueError:
        raise UnreadableFile(
            "The file begins as JSON, but is not JSON lines: one object a line, without commas."
        ) from None
    if not objects or not all(isinstance(each, dict) for each in objects):
        raise UnreadableFile("JSON lines of a recording are objects, each with a time.")
    names = list(objects[0])
    rows = [["" if each.get(n) is None else str(each.get(n)) for n in names] for each in objects]
    made = _layout(rows, names, "")
    layout = Layout(packing="jsonl", encoding=encoding, names=named(names), **made.parts)
    return Guess(layout, tuple(lines[:_SHOWN]), made.doubts)
