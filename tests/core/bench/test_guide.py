"""The run from permission to seal: made-up switches led through by what is said to be next."""

import random
from dataclasses import replace
from datetime import date
from typing import Any

import pytest

from bench.set_points import DualSwitch
from tests.core.bench.made import KPA, calibration
from zerodip.bench.calibrate import calibrate
from zerodip.bench.course import AFTER, BEFORE, LEFT, preparations
from zerodip.bench.device import VACUUM_PA, BenchDevice, Reference, SetPoint
from zerodip.bench.guide import Next, calibration_of, next_of
from zerodip.bench.log import Confirmed, Entry, Read, Turned, Voided, progress_of, read_value

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
        return next_of(self.device, self.reference, progress_of(self.entries), "us")

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
    progress = progress_of(bench.entries)
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
    progress = progress_of(bench.entries)
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
    progress = progress_of(bench.entries)
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
    made = calibration_of(bench.device, bench.reference, progress_of(bench.entries), TODAY)
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
    made = calibration_of(device, bench.reference, progress_of(bench.entries), TODAY)
    assert made is not None
    assert calibrate(made).left_verdict == "pass"


def walked() -> Bench:
    switch = DualSwitch(random.Random(77))
    bench = Bench(switch, switch.device)
    bench.walks()
    return bench


def test_a_wrong_reading_corrected_is_as_if_it_had_been_right() -> None:
    bench = walked()
    right = progress_of(bench.entries)
    at = next(k for k, each in enumerate(bench.entries) if isinstance(each.value, Read))
    true = bench.entries[at]
    assert isinstance(true.value, Read)
    wrong = replace(true, value=replace(true.value, gauge_pa=true.value.gauge_pa + 5 * KPA))
    entries = [*bench.entries[:at], wrong, *bench.entries[at + 1 :]]
    assert progress_of(entries) != right
    entries.append(Entry("later", true.value, supersedes=true.id))
    assert progress_of(entries) == right
    entries += [entries[3], entries[-1]]  # sent twice
    assert progress_of(entries) == right
    entries.append(Entry("void", Voided(), supersedes="later"))
    assert len(progress_of(entries).found) < len(right.found)


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
