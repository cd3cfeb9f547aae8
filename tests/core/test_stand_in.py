"""The stand-in for a plant: however often it is asked, whatever hands do, it is the plant of the
file."""

import random
from dataclasses import replace
from typing import Any

import pytest

from tests.core.systems import air_settings, compressor, file
from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.registry import kind_of
from zerodip.stand_in import Hands, StandIn, can_stand_in
from zerodip.units import PSI

WELL = read_document(file())
AIR = replace(WELL, system=compressor(), settings=air_settings())


@pytest.mark.parametrize("document", [WELL, AIR], ids=["well", "compressor"])
def test_asked_often_or_seldom_it_shows_the_same(document: Document) -> None:
    rng = random.Random(3)
    moves = [(rng.uniform(0, 900), replace(Hands(), tap=rng.choice([0, 0.2, 0.5]))) for _ in "1234"]
    often, seldom = StandIn(document, Hands(), 0.0), StandIn(document, Hands(), 0.0)
    for at_s, hands in sorted(moves, key=lambda each: each[0]):
        often.move(hands, at_s)
        seldom.move(hands, at_s)
        for k in range(40):
            often.gauge_pa(at_s + k * 0.5)
        assert often.gauge_pa(at_s + 20) == pytest.approx(seldom.gauge_pa(at_s + 20), abs=1.0)


@pytest.mark.parametrize("document", [WELL, AIR], ids=["well", "compressor"])
def test_it_turns_between_its_points_and_never_over_them(document: Document) -> None:
    assert can_stand_in(document)
    plant = StandIn(document, Hands(tap=0.4), 0.0)
    low, high = plant.points()
    shown = [plant.gauge_pa(at_s * 0.5) for at_s in range(4000)]
    assert max(shown) == pytest.approx(high, abs=0.02 * high)
    assert max(shown) <= high + 1.0
    assert min(shown) >= 0.0
    ran = [plant.runs(2000 + at_s * 0.5) for at_s in range(4000)]
    assert {True, False} == set(ran)
    assert min(shown) == pytest.approx(low, abs=0.1 * low)


def test_without_power_nothing_runs_and_the_tank_empties_from_its_pre_charge() -> None:
    plant = StandIn(WELL, Hands(), 0.0)
    plant.move(Hands(power="off", drain=1.0), 10.0)
    shown = [plant.gauge_pa(10 + at_s * 0.1) for at_s in range(4000)]
    assert not plant.runs(400.0)
    assert shown[-1] == 0.0
    last = min(pressure for pressure in shown if pressure > 0)
    assert last == pytest.approx(WELL.settings.pre_charge_gauge_pa or 0, abs=0.5 * PSI)
    plant.move(Hands(), 420.0)
    lag_s = kind_of(WELL.figures()).simulating.store(WELL.figures()).start_lag_s  # type: ignore[union-attr]
    assert plant.runs(420.0 + lag_s + 1)
    assert plant.gauge_pa(900.0) == pytest.approx(plant.points()[1], abs=1.0)


@pytest.mark.parametrize("turns", [(1, 0), (0, 1), (-1, 0.5), (8, 8), (-8, -8)])
def test_nuts_move_the_points(turns: tuple[float, float]) -> None:
    plant = StandIn(WELL, Hands(), 0.0)
    low, high = plant.points()
    plant.move(Hands(first=turns[0], second=turns[1]), 5.0)
    moved: Any = plant.points()
    assert moved[0] + 4 * PSI < moved[1]
    assert moved[0] >= 4 * PSI
    if abs(turns[0]) < 8:
        assert (moved[0] > low) == (turns[0] > 0)
        assert (moved[1] - moved[0] > high - low) == (turns[1] > 0)
    assert plant.gauge_pa(600.0) >= 0
