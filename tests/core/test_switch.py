"""The estimation of a switch against a plain numpy regression, and the planner's promises on
made-up switches."""

import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bench import turns as fleet
from zerodip.switch.belief import CLASSES, CUT_IN, CUT_OUT, Belief, predict, prior, update
from zerodip.switch.health import Watch, complaints, gauge_resolves
from zerodip.switch.planner import DONE_AT, Goal, next_step, within
from zerodip.switch.words import turn_words
from zerodip.units import PSI

TWO, ONE, DUAL = (CLASSES[name] for name in ("two", "one", "points"))
GOAL = Goal(cut_in_pa=40 * PSI, cut_out_pa=60 * PSI)
NOISE = 0.7 * PSI


def start(low: float = 33, high: float = 52, noise: float = NOISE) -> Belief:
    return prior(TWO, low * PSI, high * PSI, noise)


@pytest.mark.parametrize("seed", range(4))
def test_the_update_is_bayesian_linear_regression(seed: int) -> None:
    """All readings at once by numpy: posterior = (S0⁻¹ + HᵀH/σ²)⁻¹ (S0⁻¹ m0 + Hᵀy/σ²), with no
    drift between tries."""
    chance = np.random.default_rng(seed)
    steady = TWO.__class__(id="two", nuts=TWO.nuts, drift_pa=0.0)
    first = prior(steady, 30 * PSI, 50 * PSI, NOISE)
    belief, total, rows, seen = first, np.zeros(2), [], []
    for _ in range(5):
        turns = chance.integers(-8, 8, 2) / 4
        total = total + turns
        belief = predict(belief, tuple(turns))
        for point in (CUT_IN, CUT_OUT):
            gauge = float(chance.normal(40 + 15 * point, 5)) * PSI
            belief = update(belief, point, gauge, NOISE)
            row = np.zeros(6)
            row[point] = 1
            row[[2 + point, 4 + point]] = total
            rows.append(row)
            seen.append(gauge)
    matrix, inverse = np.array(rows), np.linalg.inv(np.array(first.spread))
    spread = np.linalg.inv(inverse + matrix.T @ matrix / NOISE**2)
    mean = spread @ (inverse @ np.array(first.mean) + matrix.T @ np.array(seen) / NOISE**2)
    # The belief's first two are the points now; the regression's are the points at the start.
    assert belief.mean[2:] == pytest.approx(mean[2:], rel=1e-6)
    assert np.array(belief.spread)[2:, 2:] == pytest.approx(spread[2:, 2:], rel=1e-6)
    now = mean[0] + mean[2] * total[0] + mean[4] * total[1]
    assert belief.mean[CUT_IN] == pytest.approx(now, rel=1e-9)


def test_a_small_fleet_is_set_in_few_tries_and_what_is_called_set_is_set() -> None:
    """The promise of `bench/turns`, on 250 of its switches at a fixed seed."""
    switches = [s for s, _ in zip(fleet.fleet(0.7, seed=11), range(250), strict=False)]
    tries = sorted(fleet.ours(switch)[0] for switch in switches)
    assert tries[125] <= 2
    assert sum(t <= 3 for t in tries) >= 0.88 * 250
    assert sum(switch.right for switch in switches) >= 0.93 * 250
    assert not any(switch.passed for switch in switches)


def test_far_off_it_turns_near_it_watches_and_sure_it_is_done() -> None:
    assert next_step(start(), GOAL).do == "turn"
    near = start(40.2, 59.7)
    step = next_step(near, GOAL)
    assert step.do == "watch"
    for _ in range(6):
        near = update(update(near, CUT_IN, 40.1 * PSI, NOISE), CUT_OUT, 59.9 * PSI, NOISE)
    assert next_step(near, GOAL).do == "done"
    assert within(near, GOAL) >= DONE_AT


@given(low=st.floats(20, 60), gap=st.floats(8, 35), limit=st.floats(0, 20))
def test_no_step_s_upper_bound_passes_the_limit(low: float, gap: float, limit: float) -> None:
    goal = Goal(cut_in_pa=40 * PSI, cut_out_pa=60 * PSI, highest_pa=(60 + limit) * PSI)
    belief = start(low, low + gap)
    step = next_step(belief, goal)
    if step.do == "turn":
        after = predict(belief, step.turns)
        assert after.mean[CUT_OUT] + 4 * after.sd(CUT_OUT) <= goal.highest_pa * (1 + 1e-9)
        assert all(abs(turn * 8 - round(turn * 8)) < 1e-9 for turn in step.turns)
        assert all(abs(turn) <= 1 or abs(turn * 4 - round(turn * 4)) < 1e-9 for turn in step.turns)


def test_range_first_turns_one_nut_at_a_time() -> None:
    goal = Goal(cut_in_pa=40 * PSI, cut_out_pa=60 * PSI, order="first")
    assert next_step(start(33, 52), goal).turns[1] == 0
    sharp = start(40, 52, 0.1 * PSI)
    assert next_step(sharp, goal).turns[0] == 0
    assert next_step(sharp, goal).turns[1] > 0


def test_one_screw_aims_at_cut_out_and_a_dual_switch_at_both() -> None:
    single = prior(ONE, 100 * PSI, 125 * PSI, NOISE)
    step = next_step(single, Goal(cut_in_pa=110 * PSI, cut_out_pa=135 * PSI))
    assert len(step.turns) == 1
    assert step.turns[0] > 0
    both = prior(DUAL, 30 * PSI, 50 * PSI, NOISE)
    turns = next_step(both, Goal(cut_in_pa=35 * PSI, cut_out_pa=45 * PSI)).turns
    assert turns[0] < 0 < turns[1]


def test_what_was_learned_makes_the_next_visit_s_first_turn_right() -> None:
    """A switch of 4 psi a turn, told so: from 30/50 to 40/60 in one try within half a psi."""
    sharp = 0.1 * PSI
    slopes = {
        ("range", CUT_IN): (4 * PSI, sharp),
        ("range", CUT_OUT): (4 * PSI, sharp),
        ("differential", CUT_IN): (0.0, sharp),
        ("differential", CUT_OUT): (3 * PSI, sharp),
    }
    known = prior(TWO, 30 * PSI, 50 * PSI, NOISE, slopes)
    step = next_step(known, GOAL)
    assert step.turns[0] == pytest.approx(2.5, abs=0.13)
    assert step.cut_in_pa[0] == pytest.approx(40 * PSI, abs=0.6 * PSI)


def test_a_nut_without_effect_a_drifting_gap_and_wandering_points_are_recognised() -> None:
    belief, looks = start(30, 50), [Watch(30 * PSI, 50 * PSI, (0.0, 0.0))]
    for _ in range(3):
        belief = predict(belief, (1.0, 0.0))
        belief = update(update(belief, CUT_IN, 30.1 * PSI, NOISE), CUT_OUT, 50 * PSI, NOISE)
        looks.append(Watch(30.1 * PSI, 50 * PSI, (1.0, 0.0)))
    assert [c.id for c in complaints(belief, looks, NOISE)] == ["no-answer"]
    drifting = [Watch(30 * PSI, 50 * PSI, ()), Watch(33 * PSI, 60 * PSI, (1.0, 0.0))]
    assert [c.id for c in complaints(start(), drifting, NOISE)] == ["differential-drifts"]
    wandering = [Watch(30 * PSI, 50 * PSI, (0.0, 0.0)), Watch(36 * PSI, 50 * PSI, (0.0, 0.0))]
    found = complaints(start(), wandering, NOISE)
    assert [c.id for c in found] == ["wanders"]
    assert "dirt under the diaphragm" in found[0].look
    assert (
        complaints(
            start(), [Watch(30 * PSI, 50 * PSI, ()), Watch(30.5 * PSI, 50 * PSI, (0.0, 0.0))], NOISE
        )
        == ()
    )


def test_a_coarse_gauge_is_warned_of() -> None:
    assert gauge_resolves(0.7 * PSI, GOAL)
    assert not gauge_resolves(2 * PSI, GOAL)


@pytest.mark.parametrize(
    ("turns", "words"),
    [
        (1.25, "1 1/4 turns clockwise"),
        (-0.125, "1/8 turn anticlockwise"),
        (2, "2 turns clockwise"),
        (0.5, "1/2 turn clockwise"),
        (1, "1 turn clockwise"),
        (-2.75, "2 3/4 turns anticlockwise"),
    ],
)
def test_turns_are_said_in_eighths(turns: float, words: str) -> None:
    assert turn_words(turns) == words


def test_random_readings_never_make_a_belief_surer_than_its_readings_allow() -> None:
    chance, belief = random.Random(3), start()
    for _ in range(20):
        belief = predict(belief, (chance.choice([-0.5, 0, 0.25]), chance.choice([0, 0.25])))
        before = belief.sd(CUT_IN)
        belief = update(belief, CUT_IN, chance.gauss(38, 2) * PSI, NOISE)
        assert 0 < belief.sd(CUT_IN) <= min(before, NOISE)
