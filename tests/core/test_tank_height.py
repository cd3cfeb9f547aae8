"""Tanks at another height than switch and gauge: hydrostatics, p + ρgh = const.

The outside check is a change of the observer: with switch, gauge and every height and rating
carried to the tank, nothing may change but the readings of the gauge.
"""

import random
from dataclasses import replace
from typing import Any

import pytest

from tests.core.systems import CURVE, GPM, PSI, figures, settings, system
from zerodip.decide.judge import decide
from zerodip.decide.propose import propose
from zerodip.errors import InvalidInput
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.parts import Relief, Switch
from zerodip.kinds.registry import figures_for
from zerodip.kinds.water.model import Demand, Tank, WaterSystem

RHO_G = 999.1 * 9.80665  # of water at 15 °C, CRC Handbook, from memory


def _seen_from_the_tank(of: WaterSystem) -> WaterSystem:
    """The same plant with switch and gauge beside the tank."""
    up, head = of.tanks_above_m, of.tanks_above_m * RHO_G
    relief, switch, demand = of.relief, of.switch, of.demand
    return replace(
        of,
        tanks_above_m=0.0,
        pump=replace(of.pump, lift_m=of.pump.lift_m + up),  # type: ignore[union-attr,call-arg]
        relief=replace(relief, setting_gauge_pa=(relief.setting_gauge_pa or 0) - head),
        switch=replace(switch, most_cut_out_gauge_pa=(switch.most_cut_out_gauge_pa or 0) - head),
        demand=replace(
            demand,
            lowest_tap_m=demand.lowest_tap_m - up,
            highest_tap_m=(demand.highest_tap_m or 0) - up,
            pipe_max_gauge_pa=(demand.pipe_max_gauge_pa or 0) - head,
        ),
    )


def _cases() -> Any:
    rng = random.Random(12)
    for _ in range(60):
        up = rng.uniform(-12, 12)
        head, low = up * RHO_G, rng.uniform(28, 60) * PSI
        of = system(
            replace(CURVE, lift_m=rng.uniform(5, 20)),
            rng.uniform(20, 80),
            tanks=(
                Tank(volume_m3=rng.uniform(0.05, 0.4), max_gauge_pa=rng.uniform(60, 110) * PSI),
            ),
            tanks_above_m=up,
            relief=Relief(present=True, setting_gauge_pa=rng.uniform(70, 110) * PSI),
            switch=Switch(most_cut_out_gauge_pa=rng.uniform(60, 100) * PSI),
            demand=Demand(
                peak_draw_m3_s=rng.uniform(2, 14) * GPM,
                highest_tap_m=rng.uniform(-2, 8),
                pipe_max_gauge_pa=rng.uniform(70, 150) * PSI,
            ),
        )
        charge = max(low - head - rng.choice((-3, 1, 2, 6)) * PSI, 0.0)
        yield (
            of,
            replace(
                settings(),
                cut_in_gauge_pa=low,
                cut_out_gauge_pa=low + rng.uniform(12, 25) * PSI,
                pre_charge_gauge_pa=charge,
            ),
            head,
        )


def test_the_plant_is_the_same_wherever_switch_and_gauge_are_put() -> None:
    for of, at, head in _cases():
        there = replace(
            at,
            cut_in_gauge_pa=at.cut_in_gauge_pa - head,
            cut_out_gauge_pa=at.cut_out_gauge_pa - head,
        )
        here, beside = figures(of, at), figures(_seen_from_the_tank(of), there)
        for name in ("drawdown_m3", "run_s", "worst_starts_per_s", "reserve_m3", "target_pa"):
            assert getattr(here, name) == pytest.approx(getattr(beside, name), rel=2e-5, abs=1e-9)
        assert here.largest_pre_charge_pa == pytest.approx(beside.largest_pre_charge_pa, rel=1e-4)
        assert here.dips == beside.dips
        if not here.starts_empty:
            beside_pa = (beside.start_lowest_pa or 0) + head
            assert here.start_lowest_pa == pytest.approx(beside_pa, rel=1e-4)
        told, seen = (decide(o, s) for o, s in ((of, at), (_seen_from_the_tank(of), there)))
        assert {f.rule: f.verdict for f in told.findings} == {
            f.rule: f.verdict for f in seen.findings
        }


def test_by_hand_a_tank_in_the_attic() -> None:
    """8 m up, 78.4 kPa = 11.4 psi less: cut-in 40 is 28.6 there, and the pre-charge 26.6."""
    of = replace(system(), tanks_above_m=8.0)
    at = figures(of, settings(air=26.6))
    assert at.cut_in_there_pa / PSI == pytest.approx(28.63, abs=0.01)
    assert at.target_pa is not None
    assert at.target_pa / PSI == pytest.approx(26.63, abs=0.01)
    assert figures(of, settings(air=29)).dips
    assert not figures(of, settings(air=28)).dips
    chart = decide(of, settings(air=26)).chart
    assert isinstance(chart, Ribbon)
    assert chart.pre_charge is not None
    assert (chart.pre_charge.gauge_pa - chart.tank_head_pa) / PSI == pytest.approx(26)


def test_settings_at_which_no_water_reaches_the_tanks_are_refused_and_not_proposed() -> None:
    of = replace(system(), tanks_above_m=20.0)
    with pytest.raises(InvalidInput, match="no water reaches them"):
        figures_for(of, settings(20, 40, 0))
    made = propose(of, settings(30, 50, 0))
    assert all(way.cut_in_gauge_pa >= 20 * RHO_G for way in (*made.alternatives, made.proposed))
    assert {way.id for way in made.usual} == {"usual-30-50", "usual-40-60", "usual-50-70"}
