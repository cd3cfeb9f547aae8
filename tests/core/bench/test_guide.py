"""The run from permission to seal: made-up switches led through by what is said to be next."""

import random
from dataclasses import replace
from datetime import date
from typing import Any

import pytest

from bench.set_points import DualSwitch
from tests.core.bench.made import KPA, calibration
from zerodip.bench.calibrate import calibrate
from zerodip.bench.corrections import correction_says
from zerodip.bench.course import AFTER, BEFORE, LEFT, next_run, preparations
from zerodip.bench.device import VACUUM_PA, BenchDevice, Reference, SetPoint
from zerodip.bench.file import POINTS, BenchRun
from zerodip.bench.guide import LastTime, Next, calibration_of, last_time, next_of
from zerodip.bench.log import (
    Confirmed,
    Entry,
    Read,
    Turned,
    Value,
    Voided,
    progress_of,
    read_value,
)

TODAY = date(2026, 11, 27)


class Bench:
    """Somebody who does as told at a made-up switch."""

    def __init__(self, switch: Any, device: BenchDevice) -> None:
        self.switch, self.device = switch, device
        fine = min(device.tolerance_pa(at) for at in range(len(device.points)))
        self.reference = Reference(
            name="any",
            low_gauge_pa=max(device.low_gauge_pa - 0.2 * device.span_pa, VACUUM_PA),
            high_gauge_pa=device.high_gauge_pa + 0.2 * device.span_pa,
            expanded_pa=fine / 5,
            resolution_pa=fine / 50,
            due="2027-01-01",
        )
        self.entries: list[Entry] = []

    def next(self) -> Next:
        return next_of(self.device, self.reference, progress_of(self.entries, self.device), "us")

    def add(self, value: Any, supersedes: str | None = None) -> str:
        entry = Entry(str(len(self.entries)), value, supersedes)
        self.entries.append(entry)
        return entry.id

    def does(self, asked: Next) -> None:
        told = asked.instruction
        assert told is not None
        if told.enters == "confirm":
            self.add(Confirmed(what=told.id))
        elif told.enters == "turn":
            turns = asked.step.turns if asked.step else {"upper": 0.7, "lower": -0.7}
            lower, upper = turns.get("lower", 0.0), turns.get("upper", 0.0)
            self.switch.turn(lower, upper)
            self.add(Turned(lower=lower, upper=upper))
        else:
            at = 1 if told.point == "upper" else 0
            acted = self.switch.look()[at]
            way = 1 if self.device.points[at].rises else -1
            off = 0.0 if told.enters == "set" else -way * 0.02 * self.device.span_pa
            self.add(
                Read(point=told.point, which=told.enters, gauge_pa=acted + off, seen_by="gauge")
            )

    def walks(self, most: int = 200) -> None:
        for _ in range(most):
            asked = self.next()
            if asked.instruction is None or asked.instruction.id == "stop":
                return
            self.does(asked)
        raise AssertionError("it never ends")


@pytest.mark.parametrize("seed", range(12))
def test_a_dual_switch_is_led_to_its_end(seed: int) -> None:
    switch = DualSwitch(random.Random(900 + seed))
    bench = Bench(switch, switch.device)
    bench.walks()
    progress = progress_of(bench.entries, bench.device)
    assert progress.confirmed == {*BEFORE, *AFTER}
    made = calibration_of(bench.device, bench.reference, progress, TODAY)
    assert made is not None
    judged = calibrate(made)
    assert judged.left_verdict in ("pass", "conditional_pass")
    assert switch.within
    assert switch.ranged
    assert len(progress.segments) <= 6
    assert len(bench.entries) <= 55


def test_a_switch_that_is_right_is_left_alone() -> None:
    switch = DualSwitch(random.Random(3))
    switch.points = [point.gauge_pa for point in switch.device.points]
    bench = Bench(switch, switch.device)
    bench.walks()
    progress = progress_of(bench.entries, bench.device)
    assert not progress.adjusted
    assert len(progress.found) == 6
    assert len(bench.entries) == len(BEFORE) + 12 + len(AFTER)


def test_points_the_wrong_way_round_are_first_set_apart() -> None:
    switch = DualSwitch(random.Random(8))
    lower, upper = (point.gauge_pa for point in switch.device.points)
    switch.points = [upper, lower]
    bench = Bench(switch, switch.device)
    while (
        (asked := bench.next()).step is None
        and asked.instruction
        and asked.instruction.enters != "turn"
    ):
        bench.does(asked)
    assert asked.instruction is not None
    assert asked.instruction.id == "set_apart"


def test_what_does_not_answer_is_stopped_at_and_may_be_left_as_it_is() -> None:
    """Screws that turn and move nothing."""
    switch = DualSwitch(random.Random(21))
    switch.points = [point.gauge_pa + 0.04 * switch.span for point in switch.device.points]
    switch.slopes = [0.0, 0.0]
    bench = Bench(switch, switch.device)
    bench.walks()
    told = bench.next().instruction
    assert told is not None
    assert told.id == "stop"
    bench.add(Confirmed(what=LEFT))
    bench.walks()
    progress = progress_of(bench.entries, bench.device)
    assert {*AFTER} <= progress.confirmed
    made = calibration_of(bench.device, bench.reference, progress, TODAY)
    assert made is not None
    assert calibrate(made).left_verdict == "fail"


@pytest.mark.parametrize("seed", range(6))
def test_points_as_near_as_they_may_be_are_led_to_their_end(seed: int) -> None:
    """Three parts in a hundred apart: nearer by chance is not set apart again and again."""
    switch = DualSwitch(random.Random(400 + seed))
    lower, upper = switch.device.points
    near = replace(upper, gauge_pa=lower.gauge_pa + 0.03 * switch.span)
    switch.device = replace(switch.device, points=(lower, near))
    switch.points = [lower.gauge_pa - 0.02 * switch.span, near.gauge_pa + 0.03 * switch.span]
    bench = Bench(switch, switch.device)
    bench.walks()
    made = calibration_of(
        bench.device, bench.reference, progress_of(bench.entries, bench.device), TODAY
    )
    assert made is not None
    assert calibrate(made).left_verdict in ("pass", "conditional_pass")


class Single:
    """One point that acts where it was turned to."""

    def __init__(self, at: float) -> None:
        self.at = at

    def turn(self, lower: float, upper: float) -> None:
        assert not upper
        self.at += lower * 50 * KPA

    def look(self) -> tuple[float, float]:
        return self.at, self.at


def test_a_single_point_is_led_to_its_end() -> None:
    point = SetPoint(gauge_pa=500 * KPA, acts="falling", tolerance_share=0.01)
    device = BenchDevice(name="one", high_gauge_pa=1000 * KPA, points=(point,), hazardous=True)
    bench = Bench(Single(430 * KPA), device)
    bench.walks()
    made = calibration_of(device, bench.reference, progress_of(bench.entries, bench.device), TODAY)
    assert made is not None
    assert calibrate(made).left_verdict == "pass"


def walked() -> Bench:
    switch = DualSwitch(random.Random(77))
    bench = Bench(switch, switch.device)
    bench.walks()
    return bench


def test_a_wrong_reading_corrected_is_as_if_it_had_been_right() -> None:
    bench = walked()
    right = progress_of(bench.entries, bench.device)
    at = next(k for k, each in enumerate(bench.entries) if isinstance(each.value, Read))
    true = bench.entries[at]
    assert isinstance(true.value, Read)
    wrong = replace(true, value=replace(true.value, gauge_pa=true.value.gauge_pa + 5 * KPA))
    entries = [*bench.entries[:at], wrong, *bench.entries[at + 1 :]]
    assert progress_of(entries, bench.device) != right
    entries.append(Entry("later", true.value, supersedes=true.id))
    assert progress_of(entries, bench.device) == right
    entries += [entries[3], entries[-1]]  # sent twice
    assert progress_of(entries, bench.device) == right
    entries.append(Entry("void", Voided(), supersedes="later"))
    assert len(progress_of(entries, bench.device).found) < len(right.found)


def test_what_was_left_last_time_is_expected_now_where_it_is_still_asked_for() -> None:
    device, before = calibration().device, calibration()
    told = last_time(device, before)
    assert told.acted == (pytest.approx(300.5 * KPA), pytest.approx(702.467 * KPA, abs=1))
    assert told.bands == (pytest.approx(40 * KPA), pytest.approx(41.533 * KPA, abs=1))
    ready = [Entry(each, Confirmed(what=each)) for each in BEFORE]
    first = next_of(device, before.reference, progress_of(ready, device), "us", told).instruction
    assert first is not None
    assert first.expected_pa == told.acted[1]
    acted = Entry("a", Read(point="upper", which="set", gauge_pa=710 * KPA))
    progress = progress_of([*ready, acted], device)
    resets = next_of(device, before.reference, progress, "us", told).instruction
    assert resets is not None
    assert resets.expected_pa == pytest.approx(710 * KPA - (told.bands[1] or 0))
    moved = replace(device, points=(device.points[0], replace(device.points[1], gauge_pa=6e5)))
    assert last_time(moved, before).acted == (told.acted[0], None)
    single = replace(device, points=device.points[:1])
    assert last_time(single, before) == LastTime()
    elsewhere = next_of(moved, before.reference, progress_of(ready, moved), "us").instruction
    assert elsewhere is not None
    assert elsewhere.expected_pa == 6e5


def approached(**timed: Any) -> Any:
    device = calibration().device
    value, faults = read_value({"kind": "read", "which": "set", **timed}, device)
    assert not faults
    (run,) = progress_of([Entry("one", value)], device).found  # type: ignore[arg-type]
    return run.rate_pa_s


@pytest.mark.parametrize(
    ("point", "begin", "acted", "rate"),
    [
        ("upper", 650, 700, 2000),
        ("lower", 350, 300, 2000),
        ("upper", 710, 700, None),  # it acted before the watch was started
        ("lower", 290, 300, None),
        ("upper", 700, 700, None),
    ],
)
def test_an_approach_is_timed_from_the_right_side_or_not_at_all(
    point: str, begin: float, acted: float, rate: float | None
) -> None:
    timed = {"from_gauge_pa": begin * KPA, "approach_s": 25, "gauge_pa": acted * KPA}
    assert approached(point=point, **timed) == rate
    assert approached(point=point, **timed, rate_pa_s=123.0) == 123.0
    assert approached(point=point, gauge_pa=acted * KPA, approach_s=25) is None


@pytest.mark.parametrize("lasts_s", [5.0, 500.0])
def test_a_slower_approach_is_surer_and_a_fast_one_is_told(lasts_s: float) -> None:
    bench = walked()
    progress = progress_of(bench.entries, bench.device)
    usual = calibration_of(bench.device, bench.reference, progress, TODAY)
    for at, each in enumerate(bench.entries):
        if isinstance(each.value, Read) and each.value.which == "set":
            way = 0.05 * bench.device.span_pa
            rises = bench.device.points[POINTS.index(each.value.point)].rises
            begin = each.value.gauge_pa - (way if rises else -way)
            timed = replace(each.value, from_gauge_pa=begin, approach_s=lasts_s)
            bench.entries[at] = replace(each, value=timed)
    progress = progress_of(bench.entries, bench.device)
    made = calibration_of(bench.device, bench.reference, progress, TODAY)
    assert made is not None
    assert usual is not None
    fast = lasts_s < 25.0  # in which five parts in a hundred of the range are passed as usual
    for now, before in zip(calibrate(made).left, calibrate(usual).left, strict=True):
        assert (now.budget.expanded_pa > before.budget.expanded_pa) == fast
    assert any(each.id == "fast" for each in calibrate(made).says) == fast


def test_an_approach_begins_before_the_point_within_the_range() -> None:
    device = calibration().device
    first = next_run(device, (), 1, "us")
    assert first is not None
    assert (first.from_pa, first.least_s) == (pytest.approx(650 * KPA), pytest.approx(25.0))
    runs = [
        BenchRun(point="upper", set_gauge_pa=20 * KPA, reset_gauge_pa=10 * KPA),
        BenchRun(point="lower", set_gauge_pa=300 * KPA, reset_gauge_pa=340 * KPA),
    ]
    again = next_run(device, runs, 3, "us")
    assert again is not None
    assert (again.from_pa, again.least_s) == (0.0, pytest.approx(10.0))
    none = next_run(device, [replace(runs[0], set_gauge_pa=-50.0), runs[1]], 3, "us")
    assert none is not None
    assert none.least_s is None


@pytest.mark.parametrize(
    ("before", "after", "says"),
    [
        (
            Read(point="upper", which="set", gauge_pa=702.44 * KPA),
            Read(point="upper", which="set", gauge_pa=701.96 * KPA),
            "Upper point acted at 702.0 kPa, was 702.4 kPa",
        ),
        (
            Read(point="upper", which="set", gauge_pa=302 * KPA),
            Read(point="lower", which="set", gauge_pa=302 * KPA),
            "Lower point acted at 302.0 kPa, was Upper point acted at 302.0 kPa",
        ),
        (
            Read(point="lower", which="reset", gauge_pa=340 * KPA),
            Voided(),
            "Lower point reset at 340.0 kPa: taken out",
        ),
        (
            Turned(upper=0.5, lower_deadband=-0.25),
            Turned(upper=0.25),
            "upper screw 1/4 turn clockwise, was upper screw 1/2 turn clockwise; "
            "lower deadband screw 1/4 turn anticlockwise",
        ),
    ],
)
def test_a_correction_says_what_it_was(before: Value, after: Value, says: str) -> None:
    assert correction_says(before, after, calibration().device, 100.0, "kpa") == says


@pytest.mark.parametrize(
    ("raw", "path"),
    [
        ({"kind": "soup"}, "kind"),
        ({}, "kind"),
        ([], "kind"),
        ({"kind": "turned"}, "lower"),
        ({"kind": "read", "point": "upper", "which": "set", "gauge_pa": 1.0}, "point"),
        ({"kind": "read", "point": "lower", "which": "set"}, "gauge_pa"),
        ({"kind": "turned", "upper": 1.0}, "upper"),
        ({"kind": "confirmed", "what": "nothing"}, "what"),
    ],
)
def test_entries_are_refused_by_field(raw: Any, path: str) -> None:
    point = SetPoint(gauge_pa=500 * KPA, acts="falling", tolerance_share=0.01)
    device = BenchDevice(name="one", high_gauge_pa=1000 * KPA, points=(point,))
    value, faults = read_value(raw, device)
    assert value is None
    assert path in {fault.path for fault in faults}


@pytest.mark.parametrize(
    ("device", "says"),
    [
        ({"hazardous": True}, "never open an energised enclosure"),
        ({}, "never open an energised enclosure"),  # nobody said that it is none
        ({"medium": "oxygen"}, "no oil"),
        ({"medium": "steam"}, "cool"),
    ],
)
def test_what_can_hurt_is_said_where_it_bites(device: dict[str, Any], says: str) -> None:
    made = preparations(replace(calibration().device, **device), "us")
    assert any(says in each.caution for each in made)
    assert any("Trapped pressure" in each.caution for each in made)
