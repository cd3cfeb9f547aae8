"""Suspects as they are shown: one work a row, their words, and what is said at the end."""

import random
from dataclasses import replace
from typing import Any

import pytest

from tests.core.drawn import KINDS, draw
from tests.core.test_trouble import FIGURES, PLAIN, WELL, random_seen, told
from zerodip.diagnosis.hypotheses import Hypothesis
from zerodip.diagnosis.likelihood import likelihood_of
from zerodip.diagnosis.parts import Observation
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.fileformat.templates import template_file
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.trials import Trials
from zerodip.units import PSI
from zerodip.visit.suspects import said, share_of
from zerodip.visit.trouble import place_of_cause, suspects_of, trouble_view


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_each_row_is_another_work_and_rows_fall(of: Any) -> None:
    rng = random.Random(21)
    for _ in range(6):
        seen = random_seen(of, rng)
        rows = suspects_of(of, seen, "us")
        assert rows == trouble_view(of, seen, "us").suspects
        assert len({row.remedy for row in rows}) == len(rows) <= 4
        leads = [row.probability for row in rows]
        assert leads == sorted(leads, reverse=True)
        for row in rows:
            assert all(each.probability <= row.probability for each in row.same_work)
            assert share_of(row) >= row.probability
        for place, row in enumerate(rows, 1):
            assert place_of_cause(of, seen, row.id) == place
            assert all(place_of_cause(of, seen, each.id) == place for each in row.same_work)


def test_a_cause_that_is_none_here_has_no_place() -> None:
    clicks = [Observation("clicks", True)]
    assert place_of_cause(WELL, clicks, "waterlogged") is None
    assert place_of_cause(PLAIN, clicks, "waterlogged") is not None
    assert place_of_cause(WELL, [], "burst") is None
    assert place_of_cause(WELL, clicks, "other") is None


@pytest.mark.parametrize(
    ("seen", "words"),
    [
        (Observation("clicks", True), "Clicks on and off at every tap"),
        (Observation("clicks", False), "Not: clicks on and off at every tap"),
        (Observation("water_at_valve", True), "Water at the air valve: water"),
        (Observation("hollow", False, (), True), "Sound of the tank: dull all over, once more"),
        (Observation("rest", True), "Rest: it does not start"),
        (Observation("run", 42.0, (), True), "Run 42 s, once more"),
        (Observation("cut_in", 40 * PSI), "Cut-in 40 psi"),
    ],
)
def test_an_observation_in_words(seen: Observation, words: str) -> None:
    item = kind_of(WELL).troubles.item(seen.item)
    assert item is not None
    assert said(item, seen, "us") == words


def test_the_end_is_told_as_sure_as_it_is() -> None:
    sure = told(WELL, ("pre_charge", 10 * PSI), ("knee", 10 * PSI), ("water_at_valve", False))
    assert sure.clear
    assert sure.ends.startswith("No further check is worth its minutes. Drain, set the pre-charge")
    everything = {each.id for each in kind_of(WELL).troubles.items}
    unsure = told(WELL, ("weak", True), impossible=everything)
    assert unsure.check is None
    assert not unsure.clear
    assert unsure.ends.startswith("It is not clear, and nothing to check here would make it so.")
    assert told(WELL, ("weak", True)).ends == ""


def test_a_second_look_is_worth_less_than_another_sign() -> None:
    """The sign may be missing for good: twice no is not the square of one no."""
    troubles = kind_of(WELL).troubles
    item = troubles.item("house_tap")
    assert item is not None
    cause = next(each for each in troubles.causes if each.id == "house_leak")
    leak = Hypothesis(((cause, 0.08),), 1.0, cause.on(troubles.plant(WELL, ()), 0.08))
    no = Observation("house_tap", False)
    once = likelihood_of(leak, item, (no,), 0.0)
    twice = likelihood_of(leak, item, (no, Observation("house_tap", False, (), True)), 0.0)
    assert once**2 < twice < once


@pytest.mark.parametrize("kind", KINDS)
def test_what_puts_a_cause_right_is_what_decide_tried(kind: str) -> None:
    """No tank is asked for where air or nuts do it, and no setting is told that was not tried."""
    rng, tried = random.Random(f"right {kind}"), 0
    for _ in range(40):
        try:
            figures = read_document(draw(kind, rng)).figures()
        except InvalidInput:
            continue
        trials, causes = Trials(figures, "us"), kind_of(figures).troubles.every
        for row in suspects_of(figures, random_seen(figures, rng), "us"):
            shows = [rule for rule in causes[row.id].breaks if rule in trials.now.broken]
            assert set(causes[row.id].breaks) <= set(trials.now.by_rule)
            if row.remedy_kind == "nothing" and trials.now.broken and not shows:
                assert row.remedy_says.startswith(("Nothing is broken.", "Draw", "Use"))
                continue
            if not shows:
                assert row.remedy_says == causes[row.id].remedy.says
                continue
            tried += 1
            assert row.remedy_says.endswith(trials.advice(trials.now.broken[shows[0]]).says)
            assert "see Sizes" not in row.remedy_says
    assert tried > 1


def test_what_a_usual_value_decides_is_read_before_a_tank_is_bought() -> None:
    seen = [Observation("clicks", True)]
    figures = read_document(template_file("well_air", "New one")).figures()
    says = {row.id: row.remedy_says for row in suspects_of(figures, seen, "us")}
    assert says["tank_small"].startswith("Read first: the tank's volume, on its plate; ")
    read = replace(figures.system, assumed=())
    so = figures_for(read, figures.settings, figures.practice)
    says = {row.id: row.remedy_says for row in suspects_of(so, seen, "us")}
    assert "Read first" not in says["tank_small"]
