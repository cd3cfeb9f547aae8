"""A recorder on local time goes on while its clock is put back or forward."""

import io
from dataclasses import replace
from datetime import datetime, timedelta

import numpy as np
import pytest

from zerodip.recording.files import guess_file, samples_of
from zerodip.recording.quality import Quality
from zerodip.recording.words import faults_said

BACK, FORWARD = datetime(2025, 11, 2, 2, 0), datetime(2025, 3, 30, 2, 0)  # noqa: DTZ001


def stamped(change: datetime, hours: int, every_s: int) -> bytes:
    """Six hours by a clock that is changed in the middle."""
    rows = []
    for t in range(-3 * 3600, 3 * 3600, every_s):
        clock = change + timedelta(seconds=t + (3600 * hours if t >= 0 else 0))
        rows.append(f"{clock:%Y-%m-%d %H:%M:%S},{50 + t % 7}")
    return ("Time,Pressure [psi]\n" + "\n".join(rows) + "\n").encode()


@pytest.mark.parametrize("every_s", [1, 5, 10, 60])
@pytest.mark.parametrize(("change", "hours", "way"), [(BACK, -1, "back"), (FORWARD, 1, "forward")])
def test_a_change_of_the_clock_is_no_gap(
    change: datetime, hours: int, way: str, every_s: int
) -> None:
    data = stamped(change, hours, every_s)
    steps, quality = stepped(data)
    assert set(steps) == {every_s}
    assert [(each.weight, each.title) for each in faults_said(quality, "us")] == [
        ("notice", f"The clock was put {way} an hour")
    ]


def stepped(data: bytes, zone: str = "") -> tuple[list[float], Quality]:
    """Seconds from row to row of a file, and what is counted of it."""
    layout = replace(guess_file(io.BytesIO(data)).layout, zone=zone)
    blocks, quality = list(samples_of(io.BytesIO(data), layout)), Quality()
    for block in blocks:
        quality.feed(block)
    return np.diff(np.concatenate([each.time_s for each in blocks])).tolist(), quality


@pytest.mark.parametrize("every_s", [5, 60])
def test_in_a_known_zone_the_hour_that_comes_twice_is_two_hours(every_s: int) -> None:
    fall_back = datetime(2025, 10, 26, 3, 0)  # noqa: DTZ001 - Europe/Berlin, 03:00 is 02:00 again
    steps, quality = stepped(stamped(fall_back, -1, every_s), "Europe/Berlin")
    assert set(steps) == {every_s}
    assert faults_said(quality, "us") == []


@pytest.mark.parametrize("every_s", [1800, 3600, 7200])
def test_samples_an_hour_apart_are_no_clock_that_changes(every_s: int) -> None:
    begin = datetime(2025, 10, 24)  # noqa: DTZ001 - over a Sunday, one row missing
    at = [begin + timedelta(seconds=k * every_s) for k in range(60) if k != 31]
    rows = "".join(f"{t:%Y-%m-%d %H:%M:%S},{50 + k % 7}\n" for k, t in enumerate(at))
    steps, quality = stepped(f"Time,Pressure [psi]\n{rows}".encode())
    assert sorted(set(steps)) == [every_s, 2 * every_s]
    assert quality.clock_changes == quality.clock_forward == 0


def test_an_hour_without_samples_is_a_gap() -> None:
    data = stamped(datetime(2025, 3, 31, 2, 0), 1, 10)  # noqa: DTZ001 - a Monday
    assert max(stepped(data)[0]) == 3610


def test_an_impossible_date_is_no_time() -> None:
    rows = [f"2025-05-06 10:00:{s:02d},50" for s in range(40)]
    rows[7] = "0001-01-01 00:00:00,50"
    data = ("t,psi\n" + "\n".join(rows) + "\n").encode()
    blocks = list(samples_of(io.BytesIO(data), guess_file(io.BytesIO(data)).layout))
    times = np.concatenate([each.time_s for each in blocks])
    assert np.isnan(times[7])
    assert np.nanmax(times) - np.nanmin(times) == 39
