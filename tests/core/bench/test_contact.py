"""The contact beside the gauge: changes found on lines drawn at random, bounces, gaps, and what is
not asked for."""

import random

import pytest

from bench.contacts import changes, line
from tests.core.bench.made import KPA, calibration
from zerodip.bench.contact import Change, ContactLine, Sample, reading_of
from zerodip.bench.course import next_run
from zerodip.bench.file import BenchRun
from zerodip.bench.stand_in import BenchHands, BenchStandIn
from zerodip.errors import InvalidInput

DEVICE = calibration().device


@pytest.mark.parametrize("seed", range(60))
def test_where_it_changed_is_found_within_what_the_reading_says(seed: int) -> None:
    chance = random.Random(4100 + seed)
    rate = chance.choice((-1, 1)) * 10 ** chance.uniform(2, 4.5)
    hz, acts = chance.uniform(2, 20), chance.uniform(-50, 900) * KPA
    noise = chance.choice((0.0, 50.0))
    (made,) = changes(line(chance, rate, hz, acts, noise))
    assert abs(made.gauge_pa - acts) <= abs(rate) * made.delay_s + 3 * noise
    assert made.rate_pa_s == pytest.approx(rate, rel=0.02, abs=12 * noise / hz**0.5)
    assert made.delay_s >= 0.45 / hz
    assert made.closed


@pytest.mark.parametrize("flicks", [1, 2, 3])
def test_a_bounce_is_no_change_and_hides_none(flicks: int) -> None:
    steady = [Sample(k / 10, 1000.0 * k, False) for k in range(20)]
    bounced = [Sample(2 + k / 50, 20_000.0 + 200 * k, k % 2 == 0) for k in range(2 * flicks)]
    after = [Sample(2.2 + k / 10, 22_000.0 + 1000 * k, False) for k in range(10)]
    assert changes([*steady, *bounced, *after]) == []
    (made,) = changes([*steady, *bounced, *(Sample(s.at_s, s.gauge_pa, True) for s in after)])
    assert made.gauge_pa == pytest.approx(21_000, abs=1500)


def test_a_change_while_the_gauge_was_lost_is_not_told_and_the_next_one_is() -> None:
    before = [Sample(k / 10, 1000.0 * k, False) for k in range(20)]
    after = [Sample(5 + k / 10, 50_000.0 + 1000 * k, True) for k in range(20)]
    back = [Sample(7 + k / 10, 70_000.0 - 1000 * k, k < 15) for k in range(30)]
    (made,) = changes([*before, *after, *back])
    assert not made.closed
    assert made.rate_pa_s == pytest.approx(-10_000, rel=0.05)


@pytest.mark.parametrize("seed", range(20))
def test_a_turn_just_before_a_change_does_not_shift_it(seed: int) -> None:
    chance = random.Random(4300 + seed)
    rate, noise, hz = 10 ** chance.uniform(2.5, 4.5), chance.choice((0.0, 30.0)), 20.0
    turned, top = 1.5, 500 * KPA
    acts = top - rate * chance.uniform(0.2, 0.9)
    shown = [top - rate * abs(k / hz - turned) for k in range(60)]
    samples = [
        Sample(k / hz, pa + chance.gauss(0, noise), k / hz > turned and pa <= acts)
        for k, pa in enumerate(shown)
    ]
    (made,) = changes(samples)
    assert abs(made.gauge_pa - acts) <= rate * made.delay_s + 4 * noise
    if rate * 0.2 > 20 * noise:
        assert made.rate_pa_s < 0


def change(gauge_pa: float, rate: float) -> Change:
    return Change(at_s=0, gauge_pa=gauge_pa, rate_pa_s=rate, delay_s=0.1, closed=True)


def test_a_change_is_taken_on_the_way_that_is_asked_for_and_on_no_other() -> None:
    upper = next_run(DEVICE, (), 1, "us")
    read = reading_of(DEVICE, upper, change(702 * KPA, 800))
    assert (read.point, read.which, read.seen_by) == ("upper", "set", "gauge")
    assert (read.rate_pa_s, read.delay_s) == (800, 0.1)
    with pytest.raises(InvalidInput, match="while the pressure fell"):
        reading_of(DEVICE, upper, change(702 * KPA, -800))
    resets = next_run(DEVICE, [BenchRun(point="upper", set_gauge_pa=702 * KPA)], 1, "us")
    assert reading_of(DEVICE, resets, change(660 * KPA, -800)).which == "reset"
    with pytest.raises(InvalidInput, match="while the pressure rose"):
        reading_of(DEVICE, resets, change(660 * KPA, 800))
    whole = BenchRun(point="upper", set_gauge_pa=702 * KPA, reset_gauge_pa=660 * KPA)
    falls = next_run(DEVICE, [whole], 1, "us")
    assert reading_of(DEVICE, falls, change(299 * KPA, -800)).point == "lower"
    with pytest.raises(InvalidInput, match="while the pressure rose"):
        reading_of(DEVICE, falls, change(299 * KPA, 800))
    with pytest.raises(InvalidInput, match="no reading was asked for"):
        reading_of(DEVICE, None, change(702 * KPA, 800))


def test_a_lead_on_the_other_contact_is_noticed() -> None:
    whole = BenchRun(point="upper", set_gauge_pa=702 * KPA, reset_gauge_pa=560 * KPA)
    falls = next_run(DEVICE, [whole], 1, "us")
    with pytest.raises(InvalidInput, match="lead on its contact"):
        reading_of(DEVICE, falls, change(561 * KPA, -800), [whole])
    assert reading_of(DEVICE, falls, change(261 * KPA, -800), [whole]).point == "lower"
    assert reading_of(DEVICE, falls, change(400 * KPA, -800), [whole]).point == "lower"
    upper = next_run(DEVICE, (), 1, "us")
    with pytest.raises(InvalidInput, match="where the lower point changes"):
        reading_of(DEVICE, upper, change(330 * KPA, 800))


@pytest.mark.parametrize("lead", ["lower", "upper"])
def test_the_stand_in_acts_and_resets_where_its_points_are(lead: str) -> None:
    plant, told, at = BenchStandIn(DEVICE, BenchHands(lead=lead), 0.0), ContactLine(), 0.0
    found: list[Change] = []
    for pump, lasts in (("up", 52), ("hold", 2), ("down", 52), ("hold", 2)):
        plant.move(BenchHands(lead=lead, pump=pump), at)
        for k in range(lasts * 10):
            now = at + k / 10
            made = told.add(Sample(now, plant.gauge_pa(now), plant.closed(now)))
            found += [made] if made else []
        at += lasts
    way = 1 if lead == "upper" else -1
    acts = plant.points()[1 if lead == "upper" else 0]
    on_its_way = next(each for each in found if each.rate_pa_s * way > 0)
    back = next(each for each in found if each.rate_pa_s * way < 0)
    assert on_its_way.gauge_pa == pytest.approx(acts, abs=2.1 * KPA)
    assert back.gauge_pa == pytest.approx(acts - way * 40 * KPA, abs=2.1 * KPA)
    assert on_its_way.closed
    assert not back.closed


def test_its_screws_move_both_points() -> None:
    plant = BenchStandIn(DEVICE, BenchHands(), 0.0)
    lower, upper = plant.points()
    plant.move(BenchHands(upper=0.5), 1.0)
    assert plant.points()[1] == pytest.approx(upper + 27.5 * KPA)
    assert plant.points()[0] == pytest.approx(lower + 2.2 * KPA)
