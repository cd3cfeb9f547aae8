"""Widening is advised only where every limit allows it, and no further than is needed."""

import random
from dataclasses import replace
from typing import Any

import pytest

from tests.core.systems import CURVE, GAL, settings, system
from zerodip.decide.judge import decide
from zerodip.kinds.parts import Relief, Switch
from zerodip.kinds.settings import Practice
from zerodip.kinds.water.figures import WaterFigures
from zerodip.kinds.water.limits import LIMITS
from zerodip.kinds.water.model import Tank
from zerodip.kinds.widening import Wider, wider
from zerodip.units import PSI

WIDEN = Practice(differential_school="widen")
READ: dict[str, Any] = {
    "relief": Relief(present=True, setting_gauge_pa=100 * PSI),
    "demand": {"pipe_max_gauge_pa": 150 * PSI},
    "switch": Switch(
        most_cut_out_gauge_pa=85 * PSI,
        least_differential_pa=15 * PSI,
        most_differential_pa=40 * PSI,
    ),
}


def _system(gallons: float, **parts: Any) -> Any:
    plates = {**READ, **parts}
    demand = plates.pop("demand")
    volume = gallons * GAL
    tank = Tank(volume_m3=volume, max_gauge_pa=100 * PSI, acceptance_m3=volume)
    plates = {"tanks": (tank,), **plates}
    made = system(replace(CURVE, max_gauge_pa=150 * PSI), **plates)
    return replace(made, demand=replace(made.demand, **demand))


def _advice(of: Any, at: Any, practice: Practice) -> str:
    (run,) = (f for f in decide(of, at, practice).findings if f.rule == "run-time")
    return run.advice


def test_it_says_how_far_and_what_that_gives() -> None:
    """Run by hand of the same plant with the points entered."""
    of, at = _system(40), settings(30, 50, 28)
    said = _advice(of, at, WIDEN)
    assert "Or widen the differential to " in said
    to = _widened(of, at, WIDEN)
    assert to is not None
    assert to.enough
    there = WaterFigures(of, replace(at, cut_out_gauge_pa=to.figures.cut_out_pa), WIDEN)
    assert there.run_s >= there.wanted_run_s
    less = WaterFigures(of, replace(at, cut_out_gauge_pa=to.figures.cut_out_pa - 2 * PSI), WIDEN)
    assert less.run_s < less.wanted_run_s
    assert f"a run of {there.run_s:.0f} s" in said


@pytest.mark.parametrize(
    ("parts", "practice"),
    [
        ({"relief": Relief(present=True)}, WIDEN),  # its setting is not read
        ({"relief": Relief(present=True, setting_gauge_pa=51 * PSI)}, WIDEN),
        ({"switch": Switch(nuts="one")}, WIDEN),
        ({"switch": replace(READ["switch"], most_cut_out_gauge_pa=None)}, WIDEN),
        ({"switch": replace(READ["switch"], most_differential_pa=20 * PSI)}, WIDEN),
        ({"switch": replace(READ["switch"], most_differential_pa=None)}, WIDEN),
        ({"tanks": (Tank(volume_m3=40 * GAL, max_gauge_pa=100 * PSI),)}, WIDEN),  # nor acceptance
        ({"tanks": (Tank(volume_m3=40 * GAL, max_gauge_pa=100 * PSI, acceptance_m3=0.05),)}, WIDEN),
        ({}, Practice(differential_school="leave")),
        ({}, Practice(differential_school="keep")),
    ],
)
def test_where_a_limit_or_the_practice_is_in_the_way_it_is_not_advised(
    parts: dict[str, Any], practice: Practice
) -> None:
    said = _advice(_system(40, **parts), settings(30, 50, 28), practice)
    assert said.startswith("Add a second tank or a bigger one. ")
    assert "differential" not in said


def _widened(of: Any, at: Any, practice: Practice) -> Wider[WaterFigures] | None:
    figures = WaterFigures(of, at, practice)
    return wider(figures, LIMITS, 30 * PSI, lambda f: f.wanted_run_s - f.run_s, "us")


def test_taken_the_advice_breaks_nothing_that_was_kept() -> None:
    rng, taken = random.Random(3), 0
    for _ in range(150):
        relief = Relief(present=True, setting_gauge_pa=rng.uniform(60, 110) * PSI)
        of = _system(rng.uniform(10, 60), relief=relief)
        low = rng.choice((20, 30, 40))
        at = settings(low, low + rng.choice((10, 15, 20)), low - 2)
        to = _widened(of, at, WIDEN)
        if to is None:
            continue
        taken += 1
        then = replace(at, cut_out_gauge_pa=to.figures.cut_out_pa)
        before = {f.rule for f in decide(of, at, WIDEN).findings if f.verdict in _BROKEN}
        after = {f.rule for f in decide(of, then, WIDEN).findings if f.verdict in _BROKEN}
        assert after <= before, (at, then, to.enough)
        assert not (to.enough and "run-time" in after)
    assert taken > 60


_BROKEN = ("stop", "caution")
