"""How sure the answers are: against Monte Carlo through the same model, and by hand."""

import math
import random
from dataclasses import replace
from typing import Any

import pytest

from tests.core.systems import (
    CURVE,
    GPM,
    RATED,
    air_settings,
    compressor,
    settings,
    system,
    tankless,
)
from zerodip.decide.judge import decide
from zerodip.kinds.compressor.model import AirUse, LeakTest
from zerodip.kinds.figures import Figures
from zerodip.kinds.parts import Relief, SiteConditions
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.spreads import spread_of, spread_words
from zerodip.kinds.water.model import Demand, Found, Tank
from zerodip.units import PSI

GAL = 3.785411784e-3
HOUSE = Demand(peak_draw_m3_s=6 * GPM, highest_tap_m=4.0)
SITE = SiteConditions(now_k=283, mean_k=288)
CAUGHT = Found(cut_in_gauge_pa=30 * PSI, cut_out_gauge_pa=50 * PSI, caught_m3=4 * GAL)
USED = {
    "use": AirUse(use_m3_s=2e-3),
    "leak_test": LeakTest(from_gauge_pa=120 * PSI, to_gauge_pa=112 * PSI, seconds=600),
}
FLEX = Settings(cut_in_gauge_pa=22 * PSI, cut_out_gauge_pa=32 * PSI, pre_charge_gauge_pa=20 * PSI)
CASES = {
    "constant": (system(demand=HOUSE, site=SITE), settings()),
    "curve": (system(CURVE, 80, demand=HOUSE), settings(30, 50, 26)),
    "rated": (system(RATED, 20, demand=HOUSE), settings(40, 60, 30)),
    "assumed curve": (
        system(replace(RATED, dead_head_gauge_pa=None), demand=HOUSE),
        settings(30, 50, 20),
    ),
    "plain": (system(kind="well_air", gallons=80, found=CAUGHT), settings(30, 50, 0)),
    "compressor": (compressor(((40, 11), (120, 9)), **USED), air_settings()),
    "tankless": (tankless(1.2, litres=1.0), FLEX),
}


def _figures(name: str) -> Figures:
    of, at = CASES[name]
    return figures_for(of, at, Practice())


def moved_figures(figures: Figures) -> list[Any]:
    """Every figure that an input of this kind moves."""
    kind = kind_of(figures)
    moved = {m.name: m for each in kind.inputs for m in each.moves}
    return list(moved.values())


@pytest.mark.parametrize("name", CASES)
def test_an_input_moves_nothing_but_what_it_says(name: str) -> None:
    figures = _figures(name)
    answers = moved_figures(figures)
    for each in kind_of(figures).inputs:
        for off in each.off(figures):
            at = each.moved(figures, off) if off else figures
            moved = {a.name for a in answers if getattr(at, a.name) != getattr(figures, a.name)}
            assert moved <= {m.name for m in each.moves}, each.reading


def drawn(figures: Figures, rng: random.Random) -> Figures:
    """The figures with every input off by chance: normal, each side as wide as it says."""
    for each in kind_of(figures).inputs:
        down, up = min(each.off(figures)), max(each.off(figures))
        by = rng.gauss(0, 1) / 1.96
        off = by * (up if by > 0 else -down)
        figures = each.moved(figures, off) if off else figures
    return figures


@pytest.mark.parametrize("name", CASES)
def test_the_spread_holds_what_chance_makes_of_the_inputs(name: str) -> None:
    """By Monte Carlo (JCGM 101:2008): between 89 and 99.8 of a hundred draws lie within."""
    rng, figures = random.Random(8), _figures(name)
    answers = moved_figures(figures)
    spreads = spread_of(figures, answers)
    assert len(spreads) >= 4
    made = [drawn(figures, rng) for _ in range(500)]
    for each in answers:
        spread = spreads.get(each.name)
        if spread is None or spread.least == spread.most or not spread.by:
            continue
        values = [getattr(at, each.name) for at in made]
        held = sum(v is not None and spread.least <= v <= spread.most for v in values)
        assert 0.89 <= held / len(values) <= 0.998, (each.name, held / len(values))


def test_run_and_starts_of_a_constant_pump_by_hand() -> None:
    """D = V c (1/in - 1/out), run D/Q: with a perfect gauge only the tank's 3 % and the bucket's
    5 % are left, together 5.8 %."""
    exact = replace(Practice(), gauge_error_pa=0.0)
    figures = figures_for(system(), settings(), exact)
    answers = {each.name: each for each in moved_figures(figures)}
    spreads = spread_of(figures, answers.values())
    run, drawdown = spreads["run_s"], spreads["drawdown_m3"]
    assert drawdown.most / drawdown.value - 1 == pytest.approx(0.03)
    assert 1 - run.least / run.value == pytest.approx(math.hypot(0.03, 1 - 1 / 1.05), rel=1e-6)
    assert run.most / run.value - 1 == pytest.approx(math.hypot(0.03, 1 / 0.95 - 1), rel=1e-6)
    assert run.narrow is not None
    assert run.narrow.path == "system.pump.flow_m3_s"
    assert spread_words(run, "duration", "us") == "64 to 72"


def test_it_says_what_to_read_and_where_a_run_may_have_no_end() -> None:
    near = system(replace(CURVE, lift_m=37), demand=HOUSE, relief=Relief(present=True))
    sure = decide(near, settings(), sure=True).certainty
    assert sure is not None
    run = next(each for each in sure.results if each.result == "run")
    assert run.most is None
    assert run.text.endswith("or more")
    assert run.narrow is not None
    assert "dead-head" in run.narrow.title
    assert [edge.point for edge in sure.edges] == ["cut_out", "cut_in"]
    assert sure.edges[0].upper.run_s is None
    assert sure.edges[0].lower.held_m3 < sure.edges[0].upper.held_m3


def test_a_usual_value_makes_the_spread_wide_and_is_what_to_read() -> None:
    of = system(assumed=("system.tanks.0.volume_m3",), tanks=(Tank(volume_m3=44 * GAL),))
    sure = decide(of, settings(), sure=True).certainty
    assert sure is not None
    drawdown = next(each for each in sure.results if each.result == "drawdown")
    assert drawdown.usual
    assert not next(each for each in sure.results if each.result == "pre_charge").usual
    assert drawdown.least < 0.6 * 11.5 * GAL
    assert drawdown.most is not None
    assert drawdown.most > 1.9 * 11.5 * GAL
    assert sure.narrow is not None
    assert sure.narrow.path == "system.tanks.0.volume_m3"


def test_without_being_asked_it_takes_no_time_for_it() -> None:
    assert decide(system(), settings()).certainty is None
