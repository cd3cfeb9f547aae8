"""The estimation of a switch against a plain numpy regression, and the planner's promises on
made-up switches."""

import random
import statistics
from dataclasses import replace
from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import multivariate_normal, norm

from bench.fleet import fleet
from bench.turns import CLASSES as CLASSES_OF_THE_FLEET
from bench.turns import ours
from zerodip.switch.belief import Belief, predict, prior, update
from zerodip.switch.classes import CLASSES, CUT_IN, CUT_OUT, SwitchClass, class_of
from zerodip.switch.goal import SURE, Goal, Work, within
from zerodip.switch.health import Watch, complaints, gauge_resolves
from zerodip.switch.normal import chance_below
from zerodip.switch.planner import careful_step, next_step
from zerodip.switch.watching import believed, taken
from zerodip.switch.words import step_says, turn_words
from zerodip.units import PSI

TWO, ONE, DUAL = (CLASSES[name] for name in ("two", "one", "points"))
NOISE = 0.7 * PSI
WORK = Work(noise_pa=NOISE)
GOAL = Goal(cut_in_pa=40 * PSI, cut_out_pa=60 * PSI, highest_pa=95 * PSI)


def start(low: float = 33, high: float = 52, noise: float = NOISE) -> Belief:
    return prior(TWO, low * PSI, high * PSI, noise)


def seen(belief: Belief, low: float, high: float) -> Belief:
    return update(update(belief, CUT_IN, low * PSI, NOISE), CUT_OUT, high * PSI, NOISE)


def test_a_chance_is_the_normal_distribution_to_its_tail() -> None:
    for deviations in np.linspace(-7, 7, 1401):
        assert abs(chance_below(deviations) - norm.cdf(deviations)) < 6e-11


@pytest.mark.parametrize("seed", range(4))
def test_each_part_is_bayesian_linear_regression_and_weighed_by_its_likelihood(seed: int) -> None:
    """All readings at once by numpy and scipy: posterior = (S0⁻¹ + HᵀH/σ²)⁻¹ (S0⁻¹ m0 + Hᵀy/σ²),
    weights by the readings' joint normal density, with no drift and turns made exactly."""
    chance = np.random.default_rng(seed)
    first = prior(replace(TWO, drift_pa=0.0), 30 * PSI, 50 * PSI, NOISE)
    belief, total, rows, readings = first, np.zeros(2), [], []
    for _ in range(3):
        turns = chance.integers(-8, 8, 2) / 4
        total = total + turns
        belief = predict(belief, tuple(turns))
        for point in (CUT_IN, CUT_OUT):
            moved = 2.4 * total[0] + 3.1 * total[1] * point
            gauge = float(chance.normal(30 + 20 * point + moved, 0.7)) * PSI
            belief = update(belief, point, gauge, NOISE)
            row = np.zeros(6)
            row[[point, 2 + point, 4 + point]] = 1, *total
            rows.append(row)
            readings.append(gauge)
    matrix, y = np.array(rows), np.array(readings)
    scored = []
    for part in first.parts:
        spread, mean = np.array(part.spread), np.array(part.mean)
        within_ = matrix @ spread @ matrix.T + NOISE**2 * np.eye(len(y))
        density = multivariate_normal(matrix @ mean, within_).logpdf(y)
        gain = spread @ matrix.T @ np.linalg.inv(within_)
        scored.append((np.log(part.weight) + density, mean + gain @ (y - matrix @ mean)))
    weights = np.exp([score - max(s for s, _ in scored) for score, _ in scored])
    mean = sum(w * m for w, (_, m) in zip(weights / weights.sum(), scored, strict=True))
    assert belief.mean[2:] == pytest.approx(mean[2:], rel=1e-6)
    assert belief.mean[CUT_IN] == pytest.approx(mean[0] + mean[2:6:2] @ total, rel=1e-9)


@pytest.fixture(autouse=True)
def _exact_hands(request: pytest.FixtureRequest, monkeypatch: pytest.MonkeyPatch) -> None:
    if "regression" in request.node.name:
        monkeypatch.setattr("zerodip.switch.belief._HAND", 0.0)


@pytest.mark.parametrize(("of", "stiff"), CLASSES_OF_THE_FLEET)
def test_a_small_fleet_is_set_within_what_was_promised_and_no_limit_is_passed(
    of: str, stiff: bool
) -> None:
    """The promise of `bench/turns`, on some of its switches of each class at a fixed seed: 1 to 70
    psi a turn on compressors, 1 to 9 on water."""
    switches = list(fleet(of, stiff, 0.7, 60 if (of, stiff) == ("two", True) else 120, seed=11))
    made = [ours(switch) for switch in switches]
    assert not any(each.passed for each in made)
    assert sum(each.off <= each.promised for each in made) >= 0.91 * len(made)
    assert statistics.mean(each.minutes for each in made) < (
        48 if (of, stiff) == ("two", True) else 32
    )


@pytest.mark.parametrize(("of", "stiff"), CLASSES_OF_THE_FLEET)
def test_odd_switches_and_gauges_pass_no_limit(of: str, stiff: bool) -> None:
    """Dead travel, nuts turned the other way, a gauge that sticks or lags, slopes that bend: fewer
    here than in `bench/turns`."""
    odd = list(fleet(of, stiff, 0.7, 20 if stiff else 50, seed=12, odd=True))
    made = [ours(switch) for switch in odd]
    assert not any(each.passed for each in made)
    assert sum(each.off <= each.promised for each in made) >= 0.8 * len(made)


def test_after_a_long_move_the_gauge_is_tapped_and_read_again() -> None:
    looks = [Watch(40 * PSI, 54 * PSI, (0.0, 0.0)), Watch(40 * PSI, 60 * PSI, (0.0, 1.5))]
    step = careful_step(believed(TWO, looks, NOISE), looks, GOAL, WORK).step
    assert (step.do, step.tap) in [("watch", "far"), ("watch", "")]
    looks.append(Watch(40 * PSI, 60.5 * PSI, (0.0, 0.0)))
    assert careful_step(believed(TWO, looks, NOISE), looks, GOAL, WORK).step.do == "done"


def test_of_two_looks_after_a_turn_that_differ_the_later_counts() -> None:
    """A gauge that stuck, or is behind, is not averaged with what it shows once it was tapped."""
    looks = [Watch(44 * PSI, 64 * PSI, (0.0, 0.0)), Watch(44 * PSI, 64 * PSI, (-1.0, 0.0))]
    looks.append(Watch(39 * PSI, 59 * PSI, (0.0, 0.0)))
    belief = believed(TWO, looks, NOISE)
    assert belief.mean[CUT_IN] == pytest.approx(39 * PSI, abs=0.7 * PSI)
    assert taken(looks, NOISE)[-1] == replace(looks[-1], turns=(-1.0, 0.0))


@pytest.mark.parametrize("turns", [(3.0, 0.25, -1.0, 1.0), (4.0, 0.25), (4.0, -0.5)])
def test_a_gauge_that_stays_behind_its_moves_makes_less_sure(turns: tuple[float, ...]) -> None:
    """Every look shows three tenths of the way too little, against a gauge that answers at once."""
    stand, shown = np.array([30.0, 50.0]), np.array([30.0, 50.0])
    behind = [Watch(30 * PSI, 50 * PSI, (0.0, 0.0))]
    quick = list(behind)
    for turn in turns:
        stand = stand + 2.5 * turn
        shown = 0.3 * shown + 0.7 * stand
        behind.append(Watch(*(float(p) * PSI for p in shown), (turn, 0.0)))
        quick.append(Watch(*(float(p) * PSI for p in stand), (turn, 0.0)))
    slow, sharp = believed(TWO, behind, NOISE), believed(TWO, quick, NOISE)
    assert slow.sd(CUT_IN) > 1.3 * sharp.sd(CUT_IN)
    assert abs(slow.mean[CUT_IN] - stand[0] * PSI) < slow.sd(CUT_IN)


def test_a_nut_that_has_shown_nothing_goes_no_further_than_the_stiffest_would_allow() -> None:
    """Half a turn of nothing may be dead travel on a stiff screw; a gauge that stood still is
    tapped first, and what it may hide counts."""
    of = class_of("one", stiff=True)
    goal = replace(GOAL, cut_in_pa=100 * PSI, cut_out_pa=125 * PSI, highest_pa=137 * PSI)
    looks = [Watch(95 * PSI, 120 * PSI, (0.0,)), Watch(95 * PSI, 120 * PSI, (0.125,))]
    step = careful_step(believed(of, looks, NOISE), looks, goal, WORK).step
    assert (step.do, step.tap) == ("watch", "nothing")
    looks.append(Watch(95.2 * PSI, 120.1 * PSI, (0.0,)))
    again = careful_step(believed(of, looks, NOISE), looks, goal, WORK).step
    assert again.do == "turn"
    assert 0 < again.turns[0] * of.nuts[0].most_pa <= 17 * PSI
    near = replace(goal, highest_pa=124 * PSI, cut_out_pa=115 * PSI)
    down = careful_step(believed(of, looks[:1], NOISE), looks[:1], near, WORK).step
    assert down.turns == (-of.finest,)


@pytest.mark.parametrize("of", [TWO, ONE, DUAL], ids=lambda of: of.id)
def test_what_looks_right_beside_a_limit_is_watched_not_stopped(of: SwitchClass) -> None:
    none = (0.0,) * len(of.nuts)
    for off, room in product((-0.5, 0.0, 0.5), (0.5, 1.5, 4.0)):
        goal = replace(GOAL, highest_pa=(60 + room) * PSI)
        looks = [Watch((40 + off) * PSI, (60 + off) * PSI, none)]
        step = careful_step(believed(of, looks, NOISE), looks, goal, WORK).step
        assert step.do in ("watch", "done")


def test_far_off_it_turns_near_it_is_watched_and_sure_it_is_done() -> None:
    assert next_step(start(), GOAL, WORK).do == "turn"
    near = start(40.6, 59.4)
    assert next_step(near, GOAL, WORK).do == "watch"
    for _ in range(6):
        near = seen(near, 40.1, 59.9)
    assert next_step(near, GOAL, WORK).do == "done"
    assert within(near, GOAL) >= SURE


def test_a_look_that_takes_long_is_not_asked_for_and_what_is_promised_is_what_is_known() -> None:
    near = seen(start(40.2, 59.7), 40.1, 59.9)
    slow = Work(noise_pa=NOISE, look_s=1200)
    step = next_step(near, GOAL, slow)
    assert step.do == "done"
    assert step.sure < SURE
    assert step.near_pa > GOAL.tolerance_pa
    assert within(near, GOAL, step.near_pa) == pytest.approx(SURE, abs=0.01)


HISTORY = st.lists(
    st.tuples(st.integers(-8, 8), st.integers(-8, 8), st.floats(-6, 6), st.floats(-6, 6)),
    max_size=3,
)


@given(
    of=st.sampled_from(CLASSES_OF_THE_FLEET),
    low=st.floats(20, 120),
    gap=st.floats(8, 35),
    far=st.floats(-25, 25),
    room=st.floats(-5, 40) | st.none(),
    history=HISTORY,
)
@settings(max_examples=150, deadline=None)
def test_no_step_may_pass_a_limit_and_nothing_is_raised_while_none_is_known(
    of: tuple[str, bool],
    low: float,
    gap: float,
    far: float,
    room: float | None,
    history: list[tuple[int, int, float, float]],
) -> None:
    """Whatever was read, also what contradicts itself; the chance of passing taken from the parts
    by scipy's normal distribution."""
    belief = prior(class_of(*of), low * PSI, (low + gap) * PSI, NOISE)
    for first, second, a, b in history:
        belief = predict(belief, (first / 8, second / 8)[: len(belief.of.nuts)])
        belief = seen(belief, low + a, low + gap + b)
    target = low + gap + far
    highest = None if room is None else (target + room) * PSI
    stood = (low + gap) * PSI
    goal = Goal(
        cut_in_pa=(low + far) * PSI, cut_out_pa=target * PSI, highest_pa=highest, stood_pa=stood
    )
    step = next_step(belief, goal, WORK)
    raises = any(
        turn > 0 and nut.moves[CUT_OUT]
        for nut, turn in zip(belief.of.nuts, step.turns, strict=False)
    )
    if raises:  # where no limit is known, never above where it was found
        assert _chance(belief, step.turns, stood if highest is None else highest) <= 2e-7
    finest = belief.of.finest
    assert all(abs(turn / finest - round(turn / finest)) < 1e-9 for turn in step.turns)


def _chance(belief: Belief, turns: tuple[float, ...], limit: float | None) -> float:
    """By the parts' normals, or with no nut beyond the furthest of its class, whatever they say."""
    after = predict(belief, turns)
    furthest = sum(t * n.most_pa for n, t in zip(belief.of.nuts, turns, strict=True) if t > 0)
    normals = [norm(p.mean[CUT_OUT], p.spread[CUT_OUT][CUT_OUT] ** 0.5) for p in after.parts]
    ends = [
        norm(p.mean[CUT_OUT] + furthest, np.hypot(p.spread[1][1] ** 0.5, belief.of.drift_pa))
        for p in belief.parts
    ]
    return sum(
        p.weight * min(one.sf(limit), other.sf(limit))
        for p, one, other in zip(after.parts, normals, ends, strict=True)
    )


@given(stiff_slope=st.floats(6, 64), noise=st.integers(0, 1000))
@settings(max_examples=60, deadline=None)
def test_a_compressor_s_screw_begins_with_an_eighth_and_its_first_slope_is_trusted(
    stiff_slope: float, noise: int
) -> None:
    """92/120 to 105/135 on a 150 psi plate, a screw of 6 to 64 psi a turn (common practice, no
    source): after one eighth, the next turn goes about as far as that slope asks, never past."""
    goal = Goal(cut_in_pa=105 * PSI, cut_out_pa=135 * PSI, highest_pa=147 * PSI)
    belief = prior(class_of("one", True), 92 * PSI, 120 * PSI, NOISE)
    assert 0 < next_step(belief, goal, WORK).turns[0] <= 0.125
    off = random.Random(noise).gauss(0, 0.5)
    cut_out = 120 + stiff_slope / 8 + off
    belief = seen(predict(belief, (0.125,)), 92 + stiff_slope / 8 + off, cut_out)
    turns = next_step(belief, goal, WORK).turns
    assert cut_out + stiff_slope * sum(turns) < 147


def test_nuts_that_are_right_stay_untouched() -> None:
    """30/50 to 30/60 by the differential nut alone, to 40/60 by the range nut alone; with the
    practice that leaves the differential nut alone never that one."""
    only_gap = replace(GOAL, cut_in_pa=30 * PSI)
    turns = next_step(start(30, 50), only_gap, WORK).turns
    assert turns[0] == 0 < turns[1]
    turns = next_step(start(30, 50), GOAL, WORK).turns
    assert turns[1] == 0 < turns[0]
    alone = replace(GOAL, cut_out_pa=70 * PSI, leave=frozenset({"differential"}))
    turns = next_step(start(30, 50), alone, WORK).turns
    assert turns[1] == 0 < turns[0]
    right = seen(seen(start(40, 50), 40, 50), 40, 50)
    assert next_step(right, alone, WORK).do == "done"


def test_range_first_turns_one_nut_at_a_time() -> None:
    goal = replace(GOAL, order="first")
    assert next_step(start(33, 52), goal, WORK).turns[1] == 0
    sharp = start(40, 52, 0.1 * PSI)
    assert next_step(sharp, goal, WORK).turns[0] == 0
    assert next_step(sharp, goal, WORK).turns[1] > 0


def test_one_screw_aims_at_cut_out_and_a_dual_switch_at_both() -> None:
    single = prior(ONE, 30 * PSI, 50 * PSI, NOISE)
    step = next_step(single, GOAL, WORK)
    assert len(step.turns) == 1
    assert step.turns[0] > 0
    both = prior(DUAL, 30 * PSI, 50 * PSI, NOISE)
    target = replace(GOAL, cut_in_pa=35 * PSI, cut_out_pa=45 * PSI)
    turns = next_step(both, target, WORK).turns
    assert turns[0] < 0 < turns[1]


def test_a_cut_out_above_the_limit_is_lowered_whatever_the_limit_says() -> None:
    high = prior(class_of("one", True), 130 * PSI, 160 * PSI, NOISE)
    goal = Goal(cut_in_pa=105 * PSI, cut_out_pa=135 * PSI, highest_pa=147 * PSI)
    assert next_step(high, goal, WORK).turns[0] < 0
    assert next_step(high, replace(goal, highest_pa=None), WORK).turns[0] < 0


def test_where_no_turn_is_sure_it_stops_and_says_so() -> None:
    tight = prior(class_of("one", True), 116 * PSI, 144 * PSI, NOISE)
    goal = Goal(cut_in_pa=117 * PSI, cut_out_pa=146 * PSI, highest_pa=147 * PSI)
    first = next_step(tight, goal, WORK)
    assert (first.do, first.held) == ("turn", True)
    assert first.turns[0] < 0
    assert "Down first" in step_says(first, goal, tight.of, False, (), "us")
    tight = seen(predict(tight, first.turns), 116 + 20 * first.turns[0], 144 + 20 * first.turns[0])
    for _ in range(8):
        step = next_step(tight, goal, WORK)
        if step.do == "stop":
            break
        moved = 20 * step.turns[0] if step.do == "turn" else 0.0
        low, high = (pa / PSI + moved for pa in tight.mean[:2])
        tight = seen(predict(tight, step.turns) if step.turns else tight, low, high)
    assert (step.do, step.held) == ("stop", True)
    assert "no turn, however small" in step_says(step, goal, tight.of, False, (), "us")


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
    step = next_step(known, GOAL, WORK)
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
        (0.1875, "3/16 turn clockwise"),
    ],
)
def test_turns_are_said_in_whole_parts(turns: float, words: str) -> None:
    assert turn_words(turns) == words


def test_random_readings_never_make_a_belief_surer_than_its_readings_allow() -> None:
    chance, belief = random.Random(3), start()
    for _ in range(20):
        belief = predict(belief, (chance.choice([-0.5, 0, 0.25]), chance.choice([0, 0.25])))
        before = belief.sd(CUT_IN)
        belief = update(belief, CUT_IN, chance.gauss(38, 2) * PSI, NOISE)
        assert 0 < belief.sd(CUT_IN) <= min(before, NOISE)
