"""Any recorder's file: guessed, read, and refused in words where it is none."""

import gzip
import io
import math
import zlib
from contextlib import suppress
from datetime import UTC, datetime, timedelta

import numpy as np
import polars as pl
import pyarrow as pa
import pyarrow.parquet as pq
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from zerodip.errors import InvalidInput, UnreadableFile
from zerodip.fileformat.fields import read
from zerodip.recording import files
from zerodip.recording.files import guess_file, samples_of
from zerodip.recording.guess import Guess
from zerodip.recording.layout import Column, Layout
from zerodip.recording.samples import Samples
from zerodip.recording.times import seconds_of
from zerodip.units import PSI

COUNT = 50
BEGIN = datetime(2026, 3, 5, 13, 0, 0, tzinfo=UTC).replace(tzinfo=None)
TIMES = [BEGIN + timedelta(seconds=each) for each in range(COUNT)]
EPOCH = BEGIN.replace(tzinfo=UTC).timestamp()
PSIS = [round(50 + 5 * math.sin(each / 5), 2) for each in range(COUNT)]
BARS = [round(each * PSI / 1e5, 3) for each in PSIS]


def table(head: str, rows: "list[str]", end: str = "\n") -> bytes:
    return (head + end + end.join(rows) + end).encode()


def comma(figure: float) -> str:
    return str(figure).replace(".", ",")


US = [f"{t.month}/{t.day}/{t.year} {t:%I:%M:%S %p},{p}" for t, p in zip(TIMES, PSIS, strict=True)]
FILES = {
    "iso, chatter, current": table(
        "Recorder 7\nSerial: 0012\n\nTime,Pressure (psi),Pump current (A)",
        [f"{t},{p},7.5" for t, p in zip(TIMES, PSIS, strict=True)],
    ),
    "semicolons, decimal commas": table(
        "Zeit;Druck [bar];Durchfluss l/min",
        [
            f"{t:%d.%m.%Y %H:%M:%S};{comma(p)};{comma(2.5)}"
            for t, p in zip(TIMES, BARS, strict=True)
        ],
        "\r\n",
    ),
    "byte order mark, tabs, date and clock": b"\xef\xbb\xbf"
    + table(
        "Date\tTime\tPSI",
        [f"{t:%Y/%m/%d}\t{t:%H:%M:%S}\t{p}" for t, p in zip(TIMES, PSIS, strict=True)],
    ),
    "American dates": table("When,Gauge psi", US),
    "epoch": table("ts,bar", [f"{EPOCH + n:.0f},{p}" for n, p in enumerate(BARS)]),
    "epoch, thousandths": table(
        "ts,kPa", [f"{(EPOCH + n) * 1000:.0f},{p * 100:.1f}" for n, p in enumerate(BARS)]
    ),
    "workbook days": table(
        "When;p MPa",
        [
            f"{comma(round(EPOCH / 86400 + 25569 + n / 86400, 9))};{comma(round(p / 10, 4))}"
            for n, p in enumerate(BARS)
        ],
    ),
    "offset from UTC": table(
        "t,p (bar)",
        [
            f"{t + timedelta(hours=2):%Y-%m-%dT%H:%M:%S}+02:00,{p}"
            for t, p in zip(TIMES, BARS, strict=True)
        ],
    ),
    "Z": table(
        "t,p (bar)", [f"{t:%Y-%m-%dT%H:%M:%S}Z,{p}" for t, p in zip(TIMES, BARS, strict=True)]
    ),
    "in words": table(
        "t;psi",
        [f"{t:%B %d %Y at %H:%M:%S};{p}" for t, p in zip(TIMES, PSIS, strict=True)],
    ),
    "quoted": table(
        '"Time","Pressure, psi"', [f'"{t}","{p}"' for t, p in zip(TIMES, PSIS, strict=True)]
    ),
    "units beside figures": table(
        "Time,Pressure", [f"{t},{p} psi" for t, p in zip(TIMES, PSIS, strict=True)]
    ),
    "counted rows": table(
        "No,Time,Pressure psi", [f"{n},{t},{PSIS[n]}" for n, t in enumerate(TIMES)]
    ),
    "Latin-1": table(
        "Zeit;Druck in bar;Temp °C",
        [f"{t:%d.%m.%y %H:%M:%S};{comma(p)};20,5" for t, p in zip(TIMES, BARS, strict=True)],
    )
    .decode()
    .encode("latin-1"),
    "UTF-16": table("Time\tbar", [f"{t}\t{p}" for t, p in zip(TIMES, BARS, strict=True)])
    .decode()
    .encode("utf-16"),
    "JSON lines": table(
        '{"t": "2026-03-05T13:00:00", "psi": 50.0}',
        [
            f'{{"t": "{t:%Y-%m-%dT%H:%M:%S}", "psi": {p}}}'
            for t, p in list(zip(TIMES, PSIS, strict=True))[1:]
        ],
    ),
}
FILES["gzip"] = gzip.compress(FILES["iso, chatter, current"], mtime=0)


def parquet() -> bytes:
    made = io.BytesIO()
    columns = {"time": pa.array(TIMES, pa.timestamp("ms")), "pressure_bar": BARS}
    pq.write_table(pa.table(columns), made)
    return made.getvalue()


FILES["Parquet"] = parquet()


def whole(data: bytes, layout: Layout) -> Samples:
    parts = list(samples_of(io.BytesIO(data), layout))
    current = [each.current_a for each in parts if each.current_a is not None]
    return Samples(
        np.concatenate([each.time_s for each in parts]),
        np.concatenate([each.gauge_pa for each in parts]),
        np.concatenate(current) if current else None,
    )


@pytest.mark.parametrize("name", FILES)
def test_a_file_is_guessed_and_read(name: str) -> None:
    made = guess_file(io.BytesIO(FILES[name]))
    samples = whole(FILES[name], made.layout)
    assert len(samples) == COUNT
    assert samples.time_s == pytest.approx(EPOCH + np.arange(COUNT), abs=1e-3)
    assert samples.gauge_pa == pytest.approx(np.array(PSIS) * PSI, abs=120)
    assert 0 < len(made.lines) <= 10
    assert read(Layout, as_file(made))[0] == made.layout  # a layout can be sent, and come back


def as_file(made: Guess) -> dict[str, object]:
    from dataclasses import asdict

    raw = asdict(made.layout)
    return {**raw, "names": list(raw["names"]), "columns": list(raw["columns"])}


def test_further_columns_and_doubts_are_told() -> None:
    held = [c.holds for c in guess_file(io.BytesIO(FILES["iso, chatter, current"])).layout.columns]
    assert held == ["gauge", "current"]
    doubts = guess_file(io.BytesIO(FILES["American dates"])).doubts
    assert any("Day and month" in each for each in doubts)
    bare = table("Time,Value", [f"{t},{p}" for t, p in zip(TIMES, PSIS, strict=True)])
    assert any("No unit" in each for each in guess_file(io.BytesIO(bare)).doubts)


def test_a_day_over_the_twelfth_tells_the_order() -> None:
    rows = [
        f"{t:%d/%m/%Y %H:%M:%S},{p}"
        for t, p in zip([each + timedelta(days=12) for each in TIMES], PSIS, strict=True)
    ]
    made = guess_file(io.BytesIO(table("t,psi", rows)))
    assert made.layout.pattern.startswith("%d/%m")
    assert not made.doubts


def test_a_signal_is_scaled_and_said_to_be_a_guess() -> None:
    rows = [f"{t},{4 + 1.6 * p}" for t, p in zip(TIMES, BARS, strict=True)]
    made = guess_file(io.BytesIO(table("t,Loop (mA)", rows)))
    assert any("sensor" in each for each in made.doubts)
    assert whole(table("t,Loop (mA)", rows), made.layout).gauge_pa == pytest.approx(
        np.array(BARS) * 1e5, abs=100
    )


def test_words_for_no_figure_are_missing_figures() -> None:
    rows = [f"{t},{p}" for t, p in zip(TIMES, PSIS, strict=True)]
    for at, word in ((5, "OVL"), (9, "NaN"), (20, "---"), (30, "")):
        rows[at] = f"{TIMES[at]},{word}"
    data = table("t,psi", rows)
    samples = whole(data, guess_file(io.BytesIO(data)).layout)
    assert np.flatnonzero(np.isnan(samples.gauge_pa)).tolist() == [5, 9, 20, 30]


def test_absolute_pressures_are_taken_over_the_atmosphere() -> None:
    data = table("t,p (psia)", [f"{t},{p + 14.6959}" for t, p in zip(TIMES, PSIS, strict=True)])
    samples = whole(data, guess_file(io.BytesIO(data)).layout)
    assert samples.gauge_pa == pytest.approx(np.array(PSIS) * PSI, abs=120)


def test_a_clock_goes_on_over_midnight_and_over_blocks(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(files, "_BLOCK", 200)
    start = BEGIN.replace(hour=23, minute=59, second=40)
    rows = [f"{start + timedelta(seconds=n):%H:%M:%S},{p}" for n, p in enumerate(PSIS)]
    data = table("clock,psi", rows)
    samples = whole(data, guess_file(io.BytesIO(data)).layout)
    assert len(samples) == COUNT
    assert np.diff(samples.time_s) == pytest.approx(1.0)


def test_local_times_are_read_by_their_zone() -> None:
    """The hour that a clock skips has no times; zones as in the tz database."""
    column = pl.Series(["2026-03-29 01:30:00", "2026-03-29 02:30:00", "2026-03-29 03:30:00"])
    layout = Layout(
        style="pattern",
        pattern="%Y-%m-%d %H:%M:%S",
        zone="Europe/Berlin",
        names=(),
        columns=(Column(at=1, holds="gauge", unit="bar"),),
    )
    made = seconds_of(column, layout, None)
    assert made[2] - made[0] == 3600
    assert np.isnan(made[1])


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "empty"),
        (b"PK\x03\x04" + b"x" * 99, "workbook"),
        (b"hello\nworld\n" * 50, "No table"),
        (bytes(range(256)) * 40, "no text"),
        (b'{"a": [1,2', "JSON lines"),
        (gzip.compress(FILES["epoch"], mtime=0)[:90], "cut off"),
        (gzip.compress(FILES["epoch"], mtime=0)[:60] + b"\xff" * 60, "broken"),
        (b"PAR1" + b"\0" * 200, "Parquet"),
        (b"a,b\n" + b"time,only\n" * 20, "No table"),
    ],
)
def test_what_is_no_recording_is_refused_in_words(data: bytes, says: str) -> None:
    with pytest.raises(UnreadableFile, match=says):
        whole(data, guess_file(io.BytesIO(data)).layout)


def test_a_bomb_is_not_unpacked_to_its_end(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(files, "MOST_BYTES", 1 << 20)
    pack = zlib.compressobj(9, zlib.DEFLATED, zlib.MAX_WBITS | 16)
    data = pack.compress(FILES["epoch"] + b"1772715650,3.4\n" * 500_000) + pack.flush()
    layout = guess_file(io.BytesIO(data)).layout
    with pytest.raises(UnreadableFile, match="larger"):
        whole(data, layout)


@settings(max_examples=150, deadline=None)
@given(
    st.sampled_from(sorted(FILES)),
    st.integers(0, 4000),
    st.binary(max_size=40),
    st.integers(0, 3000),
)
def test_a_spoilt_file_is_read_or_refused_and_nothing_else(
    name: str, at: int, put: bytes, cut: int
) -> None:
    good = FILES[name]
    data = (good[:at] + put + good[at + len(put) :])[: max(len(good) - cut, 0)]
    try:
        whole(data, guess_file(io.BytesIO(data)).layout)
    except (UnreadableFile, InvalidInput):
        pass
    except ValueError as error:  # nothing but a row: no samples to put together
        assert "at least one array" in str(error)


@settings(max_examples=100, deadline=None)
@given(st.binary(max_size=600))
def test_any_bytes_are_read_or_refused(data: bytes) -> None:
    with suppress(UnreadableFile, InvalidInput):
        list(samples_of(io.BytesIO(data), guess_file(io.BytesIO(data)).layout))


def test_a_layout_says_what_is_wrong_with_it() -> None:
    raw = {
        "style": "pattern",
        "decimal": ",",
        "separator": ",",
        "columns": [
            {"at": 1, "holds": "flow", "unit": "psi"},
            {"at": 2, "holds": "gauge", "unit": "mA"},
        ],
    }
    _, faults = read(Layout, raw)
    assert {fault.path for fault in faults} >= {"columns.0.unit", "columns.1.signal_least"}
