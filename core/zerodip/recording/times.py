"""How a recorder writes its times: found out from a few of them, then read a block at a time.

A pattern is strptime's, as the tables library has it (`%.f` a fraction that may be missing, `%#z`
an offset from UTC). Source: ISO 8601 and RFC 3339; the other orders are common practice."""

import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from itertools import product
from zoneinfo import ZoneInfo

import numpy as np
import polars as pl
from dateutil import parser

from zerodip.recording.arrays import Floats
from zerodip.recording.layout import TIME_STYLES, Layout

__all__ = ["Style", "seconds_of", "style_of"]

_DATES = (
    "%Y-%m-%d",
    "%Y/%m/%d",
    "%Y.%m.%d",
    "%d.%m.%Y",
    "%d.%m.%y",
    "%m/%d/%Y",
    "%d/%m/%Y",
    "%m/%d/%y",
    "%d/%m/%y",
    "%d-%m-%Y",
    "%m-%d-%Y",
    "%d-%b-%Y",
    "%d %b %Y",
    "%b %d %Y",
    "%b %d, %Y",
    "%Y%m%d",
)
_CLOCKS = (
    "%H:%M:%S",
    "%H:%M:%S%.f",
    "%H:%M",
    "%I:%M:%S %p",
    "%I:%M %p",
    "%H%M%S",
    "%I:%M:%S%.f %p",
)
_ZONES = ("", "%#z", " %#z")
_PATTERNS = tuple(
    f"{date}{between}{clock}{zone}"
    for date, between, clock, zone in product(_DATES, (" ", "T", ", "), _CLOCKS, _ZONES)
)


def _marks(text: str) -> str:
    """What stands between figures and words, without a fraction of a second and without an offset:
    few patterns share it."""
    bare = re.sub(r"(?<=:\d\d)[.,]\d+|(?<=\d)\s*(Z|[+-]\d\d:?\d*)$", "", text.strip())
    return re.sub(r"[^\W_]+", "", bare)


def _by_marks() -> dict[str, list[str]]:
    made: dict[str, list[str]] = {}
    for pattern in _PATTERNS:
        bare = pattern.removesuffix("%#z").rstrip().replace("%.f", "")
        made.setdefault(re.sub(r"%\w|[^\W_]+", "", bare), []).append(pattern)
    return made


_BY_MARKS = _by_marks()
_EXCEL_EPOCH_S = -2209161600.0  # 30 December 1899
_EARLIEST_S, _LATEST_S = 3e8, 7e9  # 1979 to 2191: what lies outside was read wrongly
_LONGEST_S = 3e8  # that is counted from a recording's start: ten years
_DAY_S = 86400.0
_LEAST_READ = 0.9  # share of the times that a pattern must read


@dataclass(frozen=True)
class Style:
    """A style of times as `Layout` has it, and what is doubtful about it."""

    style: str
    pattern: str = ""
    doubt: str = ""


def style_of(texts: Sequence[str], heading: str = "") -> Style | None:
    """The style of a column's first texts, with its heading for what numbers may stand for.

    Args:
        texts: The first texts of a column.
        heading: The name over it.

    Returns:
        The style; None where it holds no times.
    """
    numbers = [_number(text) for text in texts]
    if all(number is not None for number in numbers):
        return _of_numbers([n for n in numbers if n is not None], heading.lower())
    if len(texts) and all(_is_clock(text) for text in texts):
        return Style("clock")
    read = list(_patterns_of(texts))
    if not read:
        return Style("words") if _read_in_words(texts) else None
    pattern = min(read, key=lambda each: _unevenness(texts, each))
    return Style("pattern", pattern, _doubt(texts, read, pattern))


def _patterns_of(texts: Sequence[str]) -> Iterator[str]:
    least = _LEAST_READ * len(texts)
    column = pl.Series(list(texts), dtype=pl.String)
    for pattern in _BY_MARKS.get(_marks(texts[0]) if texts else "", ()):
        read = _by_pattern(column, pattern)
        if np.count_nonzero((read > _EARLIEST_S) & (read < _LATEST_S)) >= least:
            yield pattern


def _unevenness(texts: Sequence[str], pattern: str) -> float:
    """How unevenly the times come by a pattern: the right order of day and month makes them come
    as evenly as recorders write."""
    times = _by_pattern(pl.Series(list(texts), dtype=pl.String), pattern)
    steps = np.diff(times[np.isfinite(times)])
    if not len(steps):
        return 0.0
    backwards = float(np.count_nonzero(steps < 0)) * _DAY_S
    return round(backwards + float(np.abs(steps - np.median(steps)).mean()), 3)


def _doubt(texts: Sequence[str], read: Sequence[str], pattern: str) -> str:
    """Whether day and month may stand the other way round."""
    swapped = pattern.replace("%d", "%?").replace("%m", "%d").replace("%?", "%m")
    if swapped == pattern or swapped not in read:
        return ""
    return f"Day and month may be the other way round: read as {pattern[:8]}, from “{texts[0]}”."


def _number(text: str) -> float | None:
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        return None
    return value if math.isfinite(value) else None


def _of_numbers(numbers: Sequence[float], heading: str) -> Style | None:
    steps = np.diff(numbers)
    if not len(steps) or np.count_nonzero(steps > 0) < _LEAST_READ * len(steps):
        return None
    for style, least, most in (
        ("epoch_s", 6e8, 4e9),
        ("epoch_ms", 6e11, 4e12),
        ("epoch_us", 6e14, 4e15),
        ("excel_days", 30_000.0, 80_000.0),
    ):
        days = style != "excel_days" or float(np.median(steps)) < 1.0
        if least <= numbers[0] <= most and days:
            return Style(style)
    return _elapsed(float(np.median(steps)), heading)


def _elapsed(step: float, heading: str) -> Style:
    for style, signs in (
        ("elapsed_ms", ("ms", "milli")),
        ("elapsed_min", ("min",)),
        ("elapsed_h", ("hour", "[h]", "(h)", "/h")),
        ("elapsed_s", ("sec", "[s]", "(s)", "_s", "/s")),
    ):
        if any(sign in heading for sign in signs):
            return Style(style)
    doubt = f"Times are taken as seconds, {step:g} apart; the heading does not say."
    return Style("elapsed_s", doubt=doubt)


def _is_clock(text: str) -> bool:
    parts = text.strip().split(":")
    return 2 <= len(parts) <= 3 and all(_number(each) is not None for each in parts)


def _read_in_words(texts: Sequence[str]) -> bool:
    read = [_in_words(text) for text in texts]
    return sum(each is not None for each in read) >= _LEAST_READ * len(read)


def _in_words(text: str) -> float | None:
    try:
        read = parser.parse(text)
    except (ValueError, OverflowError):
        return None
    return _epoch(read)


def _epoch(read: datetime) -> float:
    return (read if read.tzinfo else read.replace(tzinfo=UTC)).timestamp()


def _by_pattern(column: pl.Series, pattern: str) -> Floats:
    read = column.str.to_datetime(pattern, strict=False, time_unit="us", cache=False)
    return _floats(read.dt.epoch("us")) / 1e6


def _floats(column: pl.Series) -> Floats:
    return column.cast(pl.Float64).fill_null(math.nan).to_numpy()


def _clock_s(column: pl.Series) -> Floats:
    parts = column.str.strip_chars().str.split_exact(":", 2).struct.unnest()
    hours, minutes, seconds = (
        _floats(parts.to_series(at).cast(pl.Float64, strict=False)) for at in range(3)
    )
    return hours * 3600 + minutes * 60 + np.nan_to_num(seconds)


def seconds_of(column: pl.Series, layout: Layout, last_s: float | None) -> Floats:
    """Times in seconds since 1970 (elapsed ones since their start), NaN where one cannot be read.
    Clock times without a date go on over midnight from `last_s`, the last time of the block before.

    Args:
        column: The texts, or numbers for the styles of numbers.
        layout: The layout, whose zone is applied to times without one.
        last_s: The last time of the block before; None at the start.

    Returns:
        Times, s, as many as the column has.
    """
    style = layout.style
    if style in TIME_STYLES:
        times = _floats(column.cast(pl.Float64, strict=False)) * TIME_STYLES[style]
        if style.startswith("elapsed"):
            return np.where(np.abs(times) <= _LONGEST_S, times, np.nan)
        return _possible(times + (_EXCEL_EPOCH_S if style == "excel_days" else 0.0))
    text = column.cast(pl.String)
    if style == "clock":
        return _over_midnights(_clock_s(text), last_s)
    if style == "words":
        read = [_in_words(each) if each else None for each in text]
        return _possible(_floats(pl.Series(read, dtype=pl.Float64)))
    times = _possible(_by_pattern(text, layout.pattern))
    return times if "%#z" in layout.pattern or not layout.zone else _from_zone(times, layout.zone)


def _possible(times: Floats) -> Floats:
    """Times at which a recorder may have written; NaN for the others."""
    return np.where((times > _EARLIEST_S) & (times < _LATEST_S), times, np.nan)


def _over_midnights(clock: Floats, last_s: float | None) -> Floats:
    before = clock[:1] if last_s is None else np.array([last_s % _DAY_S])
    first = 0.0 if last_s is None else last_s // _DAY_S * _DAY_S
    steps = np.diff(np.concatenate([before, clock]))
    return clock + first + np.cumsum(np.nan_to_num(steps) < -_DAY_S / 2) * _DAY_S


def _from_zone(times: Floats, zone: str) -> Floats:
    """Wall clock of a zone to UTC; in the hour that comes twice, the first."""
    wall = pl.Series(np.round(times * 1e6)).fill_nan(None).cast(pl.Int64).cast(pl.Datetime("us"))
    utc = wall.dt.replace_time_zone(ZoneInfo(zone).key, ambiguous="earliest", non_existent="null")
    return _floats(utc.dt.epoch("us")) / 1e6
