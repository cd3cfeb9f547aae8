"""What is refused of a calibration, by field; the reference; drift and when the next is due."""

import json
import random
from datetime import date
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from tests.core.bench.made import KPA, calibration, dual
from zerodip.bench.calibrate import calibrate
from zerodip.bench.file import read_calibration
from zerodip.cli import main
from zerodip.errors import InvalidInput


def faults_of(raw: Any) -> dict[str, str]:
    with pytest.raises(InvalidInput) as refused:
        calibrate(read_calibration(raw))
    return {fault.path: fault.sentence("us") for fault in refused.value.faults}


def test_all_faults_at_once_by_field() -> None:
    raw = dual(on="tomorrow", found=[])
    raw["device"] |= {"high_gauge_pa": "much", "medium": "soup"}
    raw["device"]["points"][0] |= {"tolerance_pa": 5.0}
    raw["reference"].pop("expanded_pa")
    raw["reference"]["resolution_pa"] = 0
    made = faults_of(raw)
    assert set(made) == {
        "on",
        "found",
        "device.high_gauge_pa",
        "device.medium",
        "device.points.0.tolerance_pa",
        "reference.grade",
        "reference.resolution_pa",
    }
    assert "a day" in made["on"]


@pytest.mark.parametrize("day", ["9999-12-01", "0001-01-01", "2026-13-01", "20261127x"])
def test_a_day_that_cannot_be_is_refused_by_field(day: str) -> None:
    past = [{**PAST[0], "on": day}]
    assert set(faults_of(dual(on=day, past=past))) == {"on", "past.0.on"}


@pytest.mark.parametrize(
    ("device", "path", "word"),
    [
        ({"high_gauge_pa": -5.0}, "device.high_gauge_pa", "above"),
        ({"high_gauge_pa": 600 * KPA}, "device.points.1.gauge_pa", "Set point"),
        ({"high_gauge_pa": 20_000 * KPA}, "device.points.1.gauge_pa", "3%"),
    ],
)
def test_points_lie_in_the_range_and_clear_of_each_other(
    device: dict[str, Any], path: str, word: str
) -> None:
    raw = dual()
    raw["device"] |= device
    assert word in faults_of(raw)[path]


def test_three_parts_in_a_hundred_apart_is_enough() -> None:
    raw = dual()
    raw["device"]["points"][1]["gauge_pa"] = 330 * KPA
    assert read_calibration(raw).device.points[1].gauge_pa == 330 * KPA
    raw["device"]["points"][1]["gauge_pa"] = 329 * KPA
    assert "device.points.1.gauge_pa" in faults_of(raw)


@pytest.mark.parametrize(
    ("changed", "path"),
    [
        ({"due": "2026-11-26"}, "reference.due"),
        ({"due": ""}, "reference.due"),
        ({"expanded_pa": 2.6 * KPA}, "reference.grade"),
        ({"expanded_pa": None, "grade": "1A"}, "reference.grade"),
    ],
)
def test_a_reference_is_refused_unless_overruled(changed: dict[str, Any], path: str) -> None:
    raw = dual()
    raw["reference"] |= changed
    assert path in faults_of(raw)
    raw["reference"]["overruled"] = "the only one here; the plant agreed"
    judged = calibrate(read_calibration(raw))
    assert [each.text for each in judged.says if each.id == "reference.overruled"]


@pytest.mark.parametrize("changed", [{"due": "2026-11-27"}, {"expanded_pa": 2.5 * KPA}])
def test_limits_met_exactly_pass(changed: dict[str, Any]) -> None:
    """On its last day, and exactly four times as fine as the tolerance."""
    raw = dual()
    raw["reference"] |= changed
    assert calibrate(read_calibration(raw)).left_verdict in ("pass", "conditional_pass")


def test_a_scale_that_does_not_reach_cannot_be_overruled() -> None:
    raw = dual()
    raw["reference"] |= {"high_gauge_pa": 705 * KPA, "overruled": "why not"}
    assert "reference.high_gauge_pa" in faults_of(raw)


def test_a_reading_that_cannot_be_is_refused_by_field() -> None:
    raw = dual(left=dual()["found"])
    raw["found"][1]["reset_gauge_pa"] = 1761 * KPA  # of a scale to 1600 kPa, and a tenth
    raw["left"][5]["set_gauge_pa"] = 2e7
    assert set(faults_of(raw)) == {"found.1.reset_gauge_pa", "left.5.set_gauge_pa"}
    raw["found"][1]["reset_gauge_pa"] = 1759 * KPA
    assert set(faults_of(raw)) == {"left.5.set_gauge_pa"}


def test_a_vacuum_without_its_minus_is_refused() -> None:
    raw = dual()
    raw["device"] |= {"low_gauge_pa": -100 * KPA, "high_gauge_pa": 0.0}
    raw["device"]["points"] = [{"gauge_pa": -42 * KPA, "acts": "rising", "tolerance_pa": 4 * KPA}]
    raw["reference"] |= {"low_gauge_pa": -100 * KPA, "high_gauge_pa": 300 * KPA}
    raw["found"] = [{"point": "lower", "set_gauge_pa": pa * KPA} for pa in (-41.8, 41.9, 9.9)]
    assert "minus" in faults_of(raw)["found.1.set_gauge_pa"]
    assert len(faults_of(raw)) == 1


def test_any_spoilt_file_is_judged_or_refused_and_nothing_else() -> None:
    rng = random.Random(5)
    odd: tuple[Any, ...] = (None, -1, 0, 1e30, float("nan"), "x", [], {}, True, "2026-13-40")
    for _ in range(400):
        raw = json.loads(json.dumps(dual()))
        place = raw
        while isinstance(place, dict | list) and place:
            key = rng.choice(list(place)) if isinstance(place, dict) else rng.randrange(len(place))
            if rng.random() < 0.4 or not isinstance(place[key], dict | list):
                place[key] = rng.choice(odd)
                break
            place = place[key]
        try:
            calibrate(read_calibration(raw))
        except InvalidInput as refused:
            assert all(fault.sentence("metric") for fault in refused.faults)


PAST = [
    {"on": "2023-11-27", "found_upper_pa": 0.0, "left_upper_pa": 0.0},
    {"on": "2024-11-27", "found_upper_pa": 2000.0, "left_upper_pa": 500.0},
    {"on": "2025-11-27", "found_upper_pa": 2700.0, "left_upper_pa": 0.0},
]


def test_drift_is_what_changed_between_left_and_found() -> None:
    """Least squares through nothing lost in no time, recomputed by numpy."""
    judged = calibrate(calibration(past=PAST))
    drift = {each.at: each for each in judged.drifts}[1]
    days = np.diff(
        [date.fromisoformat(d).toordinal() for d in (*[p["on"] for p in PAST], "2026-11-27")]
    )
    moved = np.array([2000.0, 2200.0, judged.found[1].error_pa])
    years = days / 365.2425
    assert drift.per_year_pa == pytest.approx(np.linalg.lstsq(years[:, None], moved)[0][0])
    assert drift.spans == 3
    assert drift.likely is not None
    left = judged.left[1].error_pa
    expected = (10 * KPA - left) / drift.per_year_pa
    assert (date.fromisoformat(drift.likely) - date(2026, 11, 27)).days == pytest.approx(
        expected * 365.2425, abs=1.5
    )
    assert 0 not in {each.at for each in judged.drifts}  # never read before


def test_the_next_is_due_by_the_interval_or_before_drift_brings_it_out() -> None:
    regular = calibrate(calibration(past=PAST)).next_due
    assert (regular.on, regular.by) == ("2027-11-27", "interval")
    fast = [{**row, "found_upper_pa": 6.0 * KPA, "left_upper_pa": 0.0} for row in PAST]
    raw = dual(past=fast)
    for run in raw["found"][3:]:
        run["set_gauge_pa"] += 4.6 * KPA  # it drifted as far again, and was left so
    sooner = calibrate(read_calibration(raw)).next_due
    assert sooner.by == "drift"
    assert "2026-11-28" <= sooner.on < "2027-11-27"


@pytest.mark.parametrize(
    ("day", "months", "due"),
    [
        ("2027-03-01", 12, "2028-03-01"),  # over a leap day
        ("2027-08-31", 6, "2028-02-29"),
        ("2026-12-15", 1, "2027-01-15"),
        ("2028-02-29", 120, "2038-02-28"),
        ("2026-11-27", 1.5, "2027-01-11"),
    ],
)
def test_the_interval_ends_on_the_same_day_of_the_month(day: str, months: float, due: str) -> None:
    raw = dual(on=day)
    raw["device"]["interval_months"] = months
    raw["reference"]["due"] = "2039-01-01"
    assert calibrate(read_calibration(raw)).next_due.on == due


def test_what_is_left_out_of_tolerance_is_due_at_once() -> None:
    raw = dual()
    for run in raw["found"][3:]:
        run["set_gauge_pa"] += 40 * KPA
    judged = calibrate(read_calibration(raw))
    assert judged.left_verdict == "fail"
    assert (judged.next_due.on, judged.next_due.by) == ("2026-11-27", "failed")
    assert any("out of service" in each.text for each in judged.says)


def test_the_command_judges_a_file(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "trip.json"
    file.write_text(json.dumps(dual()))
    assert main(["calibrate", str(file), "--units", "kpa"]) == 0
    made = json.loads(capsys.readouterr().out)
    assert made["left_verdict"] == "pass"
    assert any("kPa" in each["text"] for each in made["says"])
    marked = dual()
    marked["device"]["unit"] = "kgf/cm2"
    file.write_text(json.dumps(marked))
    assert main(["calibrate", str(file), "--units", "kpa"]) == 0
    of_plate = json.loads(capsys.readouterr().out)
    assert any("kgf/cm²" in each["text"] for each in of_plate["says"])
    assert of_plate["left"] == made["left"]  # figures are SI, whatever the words are in
    file.write_text(json.dumps(dual(on="never")))
    assert main(["calibrate", str(file)]) == 1
    assert "on: Day" in capsys.readouterr().err
