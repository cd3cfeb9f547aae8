"""The event simulation against scipy's ODE solver, and what no plant may do."""

import random
from collections.abc import Callable

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zerodip.kinds.water.pumps import Pump
from zerodip.physics.pump_delivery import flow_m3_s
from zerodip.physics.simulation import (
    OFF,
    RUNNING,
    STARTING,
    Draw,
    Phase,
    WaterStore,
    simulate,
    trail,
)
from zerodip.units import PSI

from .ode_plant import starts_by_ode
from .systems import CONSTANT, CURVE, GPM, PUMPS, RATED, plant


def day(seed: int, hours: float, most: float = 8.0) -> list[Draw]:
    """Taps opened and shut at random, the draw in gpm."""
    chance = random.Random(seed)
    draws: list[Draw] = []
    while sum(d.seconds for d in draws) < hours * 3600:
        draws.append(Draw(chance.uniform(20, 900), chance.choice([0, 0, 1.5, 3, 5, most]) * GPM))
    return draws


def exact_flow(pump: Pump, made: WaterStore) -> Callable[[float], float]:
    if pump is RATED:
        top, at = 85 * PSI, 50 * PSI
        return lambda gauge: 10 * GPM * max((top - gauge) / (top - at), 0) ** 0.5
    return lambda gauge: flow_m3_s(made.line, gauge)


def starts_and_stops(phases: tuple[Phase, ...]) -> tuple[list[float], list[float]]:
    starts = [
        phase.start_s
        for phase, before in zip(phases[1:], phases, strict=False)
        if before.pump == OFF != phase.pump
    ]
    stops = [
        phase.start_s
        for phase, before in zip(phases[1:], phases, strict=False)
        if before.pump != OFF == phase.pump
    ]
    return starts, stops


@pytest.mark.parametrize("pump", PUMPS.values(), ids=PUMPS)
def test_three_hours_of_draws_agree_with_the_ode_solver(pump: Pump) -> None:
    made, draws = plant(pump, gallons=20), day(7, 3)
    starts, stops = starts_and_stops(simulate(made, draws))
    ode_starts, ode_stops = starts_by_ode(made, draws, exact_flow(pump, made))
    assert len(starts) == len(ode_starts) > 10
    assert starts == pytest.approx(ode_starts, rel=1e-3)
    assert stops == pytest.approx(ode_stops[: len(stops)], rel=1e-3)


def test_a_pre_charge_above_cut_in_shows_the_dip() -> None:
    made = plant(air=45, lag=2.0)
    phases = simulate(made, [Draw(600, 5 * GPM)])
    line = trail(made, phases)
    dry = [phase for phase in phases if phase.dry]
    assert dry
    assert all(phase.pump == STARTING for phase in dry)
    assert line.dip_s == pytest.approx(2.0 * line.starts)
    assert min(line.gauges_pa) == 0


def test_a_draw_above_the_pump_empties_the_tank_and_holds_it_where_the_pump_balances() -> None:
    made = plant(CURVE)
    last = simulate(made, [Draw(3600, 14 * GPM)])[-1]
    assert last.dry
    assert last.pump == RUNNING
    assert 0 < last.dry_gauge_pa < 38 * PSI
    assert flow_m3_s(made.line, last.dry_gauge_pa) == pytest.approx(14 * GPM, rel=1e-6)


def test_cut_out_over_dead_head_runs_for_good() -> None:
    made = plant(RATED, cut_in=60, cut_out=90, air=58)
    phases = simulate(made, [Draw(60, 6 * GPM), Draw(7200, 0.0)], water=made.on_m3 * 1.05)
    assert phases[-1].pump == RUNNING
    assert phases[-1].end_s == pytest.approx(7260)
    assert made.gauge_at(phases[-1].water_end_m3) <= 85 * PSI + 1


@given(
    draws=st.lists(st.tuples(st.floats(1, 600), st.floats(0, 20)), min_size=1, max_size=8),
    air=st.floats(10, 55),
    pump=st.sampled_from([CONSTANT, RATED, CURVE]),
)
def test_phases_follow_without_gap_and_the_tank_is_never_under_or_overfilled(
    draws: list[tuple[float, float]], air: float, pump: Pump
) -> None:
    made = plant(pump, gallons=12, air=air)
    phases = simulate(made, [Draw(seconds, gpm * GPM) for seconds, gpm in draws])
    assert phases[0].start_s == 0
    assert phases[-1].end_s == pytest.approx(sum(seconds for seconds, _ in draws))
    for before, after in zip(phases, phases[1:], strict=False):
        assert after.start_s == before.end_s
        assert after.water_start_m3 == before.water_end_m3
    for phase in phases:
        assert -1e-12 <= phase.water_end_m3 <= made.off_m3 * (1 + 1e-9)
        if phase.pump != RUNNING and not phase.dry:
            drawn = phase.draw_m3_s * (phase.end_s - phase.start_s)
            assert phase.water_start_m3 - phase.water_end_m3 == pytest.approx(drawn, abs=1e-9)


def test_the_trail_is_drawn_forward_in_time() -> None:
    made = plant(CURVE, gallons=6)
    line = trail(made, simulate(made, day(3, 0.5)))
    assert list(line.times_s) == sorted(line.times_s)
    assert len(line.times_s) == len(line.gauges_pa)
    assert all(a < b for a, b in line.pump_spans_s)
