"""Made-up plants with something wrong, at a small size (`bench/run trouble` for the full one), and
what holds of the items and causes that they are made of."""

import collections
import math
import random
from dataclasses import replace
from typing import Any

import pytest
from scipy.stats import norm

from bench.faulty import a_faulty
from bench.trouble import diagnosed, ours
from tests.core.test_trouble import FIGURES, MACHINE, WELL, random_seen
from zerodip.diagnosis.hypotheses import CALLED, ROUTINE, Hypothesis
from zerodip.diagnosis.inference import Belief, believe
from zerodip.diagnosis.likelihood import WRONG, never_ends
from zerodip.diagnosis.next_check import minutes_from, next_check, together
from zerodip.diagnosis.parts import Forecast, Needs, Observation
from zerodip.kinds.registry import KINDS, kind_of
from zerodip.units import PSI


@pytest.mark.parametrize("kind", KINDS)
def test_faulty_plants_are_led_to_their_remedy(kind: str) -> None:
    """Eleven of sixteen on top and fourteen among the first three; the full size gives 85 and 96 of
    a hundred. Of the healthy at most one is sent to a needless job."""
    made = [diagnosed(a_faulty(kind, f"small {k}"), ours) for k in range(16)]
    assert sum(each.place == 0 for each in made) >= 11
    assert sum(each.place < 3 for each in made) >= 14
    assert sum(each.harmful for each in made if "healthy" in each.causes) <= 1
    assert sorted(each.checks for each in made)[8] <= 7


@pytest.mark.parametrize("kind", KINDS)
def test_items_and_causes_fit_each_other(kind: str) -> None:
    troubles = KINDS[kind].troubles
    ids = [each.id for each in troubles.items]
    assert len(ids) == len(set(ids))
    for item in troubles.items:
        assert item.asks.endswith("?"), item.id
        assert bool(item.never) == bool(item.watch_s), item.id
        assert not item.never or (item.log and item.least < item.watch_s < item.most), item.id
        assert not item.stop or item.symptom or item.id in ("wet", "pit_flooded"), item.id
        assert set(item.unless) <= {each.id for each in troubles.items if each.symptom} | ELSEWHERE
    for place in together(troubles.items):
        assert {each.needs for each in place} <= {"off", "drained"} or (
            len({each.needs for each in place}) == 1
        ), place
        # A question of what a call begins with is asked beside others only where a yes stops all.
        assert len(place) == 1 or all(each.stop for each in place if each.symptom), place
    for cause in troubles.causes:
        told = set(cause.seen) & set(ids)
        assert told or cause.size or cause.change or cause.filed, cause.id
        assert list(cause.sizes) == sorted(cause.sizes), cause.id
    total = CALLED.healthy + CALLED.single + CALLED.pair + CALLED.unknown
    assert total == pytest.approx(1)


# Symptoms of other kinds, named for all.
ELSEWHERE = {"chatter", "slow", "breath", "clicks", "alone", "endless", "silent"}


@pytest.mark.parametrize(("mean", "sd"), [(120.0, 0.2), (500.0, 0.3), (9000.0, 0.5)])
def test_a_time_that_is_not_over_is_as_likely_as_by_the_normal_law(mean: float, sd: float) -> None:
    """By scipy's survival function on the logarithm, ten minutes watched."""
    rest = kind_of(WELL).troubles.item("rest")
    assert rest is not None
    longer = norm.sf((math.log(rest.watch_s) - math.log(mean)) / sd)
    made = never_ends(rest, Forecast(mean=mean, sd=sd))
    assert made == pytest.approx(WRONG + (1 - 2 * WRONG) * longer, rel=1e-6)
    assert never_ends(rest, Forecast(never=True)) == 1 - WRONG
    assert never_ends(rest, Forecast(absent=True)) == WRONG


def test_what_is_not_complained_of_counts_against_what_would_be() -> None:
    """A pump that starts by itself runs: causes of one that does not start sink."""
    troubles = kind_of(WELL).troubles
    before = believe(troubles, WELL, [], PSI)
    after = believe(troubles, WELL, [Observation("alone", True)], PSI)
    for cause in ("no_power", "tripped", "welded"):
        share = after.probability(cause) / before.probability(cause)
        assert share < 1, cause


def test_a_slip_on_a_routine_visit_sends_nobody_to_a_job() -> None:
    """Nothing complained of, points as set, and one run read as half of what it is."""
    troubles = kind_of(WELL).troubles
    nothing = [Observation(each.id, False) for each in troubles.items if each.symptom]
    seen = [
        *nothing,
        Observation("cut_in", 40 * PSI),
        Observation("cut_out", 60 * PSI),
        Observation("run", 34.0),
        Observation("run", 68.0, (), True),
    ]
    assert believe(troubles, WELL, seen, PSI).probability("healthy") > 0.6
    assert ROUTINE.healthy > CALLED.healthy


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_the_next_check_can_be_made_and_its_minutes_add_up(of: Any) -> None:
    rng = random.Random(8)
    troubles = kind_of(of).troubles
    conditions: tuple[Needs, ...] = ("powered", "off", "drained")
    for k in range(9):
        condition = conditions[k % 3]
        belief = believe(troubles, of, random_seen(of, rng), PSI)
        chosen = next_check(belief, condition, stopped=k % 2 == 1)
        if chosen is None:
            continue
        needs, minutes = minutes_from(condition, chosen.items)
        assert (chosen.needs, chosen.minutes) == (needs, minutes)
        assert minutes >= max(each.minutes for each in chosen.items)
        assert chosen.bits >= 0
        seen = {each.item for each in belief.observations}
        assert all((each.id in seen) == chosen.again for each in chosen.items)
        assert not (k % 2 == 1 and any(each.needs == "powered" for each in chosen.items))


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_probabilities_add_up_and_pairs_are_rarer_than_their_parts(of: Any) -> None:
    rng = random.Random(4)
    for _ in range(4):
        belief = believe(kind_of(of).troubles, of, random_seen(of, rng), PSI)
        assert sum(p for _, p in belief.weighed) == pytest.approx(1)
        works = [cause.id for work in belief.works for cause in work]
        assert sorted(works) == sorted(belief.by_cause)
        priors: dict[int, float] = {}
        for hypothesis, _ in belief.weighed:
            size = len(hypothesis.parts)
            priors[size] = priors.get(size, 0.0) + hypothesis.prior
        assert priors[0] <= 0.02 + 1e-9
        assert priors[2] < priors[1]


def test_two_faults_are_made_of_both_whatever_their_order() -> None:
    troubles = kind_of(WELL).troubles
    by = {each.id: each for each in troubles.causes}
    plant = troubles.plant(WELL, ())
    leak, burst = (by["house_leak"], 0.08), (by["burst"], 0.05)
    there = [Hypothesis(parts, 1.0, None, plant) for parts in ((leak, burst), (burst, leak))]
    runs = [
        parts[1][0].on(parts[0][0].on(plant, parts[0][1]), parts[1][1]).run_s
        for parts in ((leak, burst), (burst, leak))
    ]
    assert runs[0] == pytest.approx(runs[1])
    assert there[0].remedies == there[1].remedies == {"leak", "replace_tank"}
    assert there[0].has("burst")
    assert not there[0].has("other")


def _alone(belief: Belief) -> tuple[dict[str, float], float]:
    """How likely each fault is by itself, and that there is none."""
    made: dict[str, float] = collections.Counter()
    for hypothesis, p in belief.weighed:
        if len(hypothesis.parts) == 1:
            made[hypothesis.parts[0][0].id] += p
    return made, made.pop("healthy")


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_a_gauge_that_rests_at_cut_out_speaks_for_no_fault(of: Any) -> None:
    """All taps shut, a sound system stops: its gauge never comes to dead-head."""
    troubles = kind_of(of).troubles
    rests = Observation("highest", of.settings.cut_out_gauge_pa)
    before, sound = _alone(believe(troubles, of, [], PSI))
    after, still_sound = _alone(believe(troubles, of, [rests], PSI))
    assert all(after[id] / still_sound <= 1.01 * p / sound for id, p in before.items())


@pytest.mark.parametrize("share", [0.92, 0.97])
def test_a_machine_that_leaks_rests_where_as_much_leaks_as_it_delivers(share: float) -> None:
    """A leak goes with the absolute pressure (choked flow): it is full at that share of mid-way."""
    plant = kind_of(MACHINE).troubles.plant(MACHINE, ())
    middle = sum(plant.points) / 2 + MACHINE.atmosphere_pa
    leak = plant.mean_flow_m3_s / share
    rest = replace(plant, leak_m3_s=leak).shows("highest", ())
    assert rest.mean == pytest.approx(share * middle - MACHINE.atmosphere_pa)
    short = replace(plant, reaches=share).shows("highest", ())
    assert short.mean == pytest.approx(share * MACHINE.settings.cut_out_gauge_pa)
