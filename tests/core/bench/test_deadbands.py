"""Adjustable deadbands: led to their width by the same planner, both ends read after each turn."""

import random
from dataclasses import replace
from datetime import date
from typing import Any

import pytest

from tests.core.bench.made import KPA
from zerodip.bench.calibrate import calibrate
from zerodip.bench.course import AFTER, BEFORE
from zerodip.bench.device import BenchDevice, Reference, SetPoint
from zerodip.bench.file import POINTS
from zerodip.bench.guide import Next, calibration_of, next_of
from zerodip.bench.log import Confirmed, Entry, Progress, Read, Turned, progress_of

TODAY = date(2026, 11, 27)
SPAN = 1000 * KPA
REFERENCE = Reference(
    name="any", high_gauge_pa=1600 * KPA, expanded_pa=500.0, resolution_pa=100.0, due="2027-01-01"
)


def asked(gauge_pa: float, acts: str, band: float) -> SetPoint:
    return SetPoint(
        gauge_pa=gauge_pa,
        acts=acts,
        tolerance_share=0.01,
        deadband="adjustable",
        deadband_pa=band,
    )


class Made:
    """A switch whose screws move its point, its deadband, and a little of each other's."""

    def __init__(self, chance: random.Random, points: int = 1) -> None:
        self.chance = chance
        of = [(300 * KPA, "falling"), (700 * KPA, "rising")][-points:]
        wanted = tuple(asked(*each, chance.uniform(0.04, 0.15) * SPAN) for each in of)
        self.device = BenchDevice(name="any", high_gauge_pa=SPAN, points=wanted)
        self.acts = [point.gauge_pa + chance.gauss(0, 15 * KPA) for point in wanted]
        self.bands = [(point.deadband_pa or 0) * chance.uniform(0.4, 1.9) for point in wanted]
        self.a_turn = [chance.uniform(0.02, 0.12) * SPAN for _ in wanted]
        self.widens = [chance.uniform(0.02, 0.12) * SPAN for _ in wanted]
        self.across = chance.uniform(-0.1, 0.1)

    def turn(self, made: Turned) -> None:
        for at, name in enumerate(POINTS[: len(self.acts)]):
            own, band = getattr(made, name), getattr(made, f"{name}_deadband")
            own += self.chance.gauss(0, 0.01) if own else 0.0
            band += self.chance.gauss(0, 0.01) if band else 0.0
            self.acts[at] += own * self.a_turn[at] + 0.3 * self.across * band * self.widens[at]
            self.bands[at] += band * self.widens[at] + self.across * own * self.a_turn[at]
            self.bands[at] = max(self.bands[at], 5 * KPA)

    def read(self, at: int, which: str) -> float:
        way = 1 if self.device.points[at].rises else -1
        acted = self.acts[at] + self.chance.gauss(0, 0.4 * KPA)
        return acted - (way * self.bands[at] if which == "reset" else 0)


def entry(switch: Made, end: Next) -> Any:
    """What somebody enters who does as told."""
    told = end.instruction
    assert told is not None
    if told.enters == "confirm":
        return Confirmed(what=told.id)
    if told.enters == "turn":
        value = Turned(**(end.step.turns if end.step else {}))
        switch.turn(value)
        return value
    gauge_pa = switch.read(min(POINTS.index(told.point), len(switch.acts) - 1), told.enters)
    return Read(point=told.point, which=told.enters, gauge_pa=gauge_pa, rate_pa_s=300.0)


def walked(switch: Made, most: int = 250) -> tuple[Progress, Next]:
    entries: list[Entry] = []
    for count in range(most):
        progress = progress_of(entries, switch.device)
        end = next_of(switch.device, REFERENCE, progress, "kpa")
        if end.instruction is None or end.instruction.id == "stop":
            return progress, end
        entries.append(Entry(str(count), entry(switch, end)))
    raise AssertionError("it never ends")


def turns(progress: Progress) -> int:
    return len(progress.segments) - 1


@pytest.mark.parametrize("points", [1, 2])
def test_points_and_deadbands_are_led_to_where_they_are_asked_for(points: int) -> None:
    made, taken = 16, []
    for seed in range(made):
        switch = Made(random.Random(5200 + seed), points)
        progress, end = walked(switch)
        if end.instruction is not None:
            continue
        taken.append(turns(progress))
        whole = calibration_of(switch.device, REFERENCE, progress, TODAY)
        assert whole is not None
        assert calibrate(whole).left_verdict in ("pass", "conditional_pass"), seed
        for band, point in zip(switch.bands, switch.device.points, strict=True):
            assert abs(band - (point.deadband_pa or 0)) <= 11 * KPA
    assert len(taken) >= 0.9 * made
    assert sorted(taken)[len(taken) // 2] <= 3 * points


@pytest.mark.parametrize(
    "changed",
    [
        {},
        {"deadband": "fixed", "deadband_pa": 80 * KPA},
        {"deadband": "fixed", "deadband_pa": None},
    ],
)
def test_one_that_is_right_or_fixed_or_not_asked_for_is_left_alone(
    changed: dict[str, Any],
) -> None:
    switch = Made(random.Random(1))
    point = replace(switch.device.points[0], **changed)
    switch.device = replace(switch.device, points=(point,))
    switch.acts, switch.bands = [point.gauge_pa], [point.deadband_pa or 40 * KPA]
    progress, end = walked(switch)
    assert end.instruction is None
    assert turns(progress) == 0
    assert progress.confirmed == {*BEFORE, *AFTER}


def test_ends_that_are_mixed_up_are_told_and_nothing_is_turned() -> None:
    switch = Made(random.Random(4))
    switch.acts = [point.gauge_pa for point in switch.device.points]
    switch.bands = [-30 * KPA]
    progress, end = walked(switch)
    assert end.instruction is None
    assert turns(progress) == 0
    whole = calibration_of(switch.device, REFERENCE, progress, TODAY)
    assert whole is not None
    assert any("mixed up" in each.text for each in calibrate(whole).says)


def test_a_deadband_screw_that_does_nothing_is_stopped_at() -> None:
    switch = Made(random.Random(3))
    switch.widens = [0.0]
    progress, end = walked(switch)
    assert end.instruction is not None
    assert end.instruction.id == "stop"
    assert turns(progress) <= 8
