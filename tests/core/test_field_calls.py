"""Calls about houses of their own equations: the cause among the first three, nothing dear told as
clear that is wrong, nothing clear that nobody looked at; what stands wrong on file comes first."""

import random
import re
from typing import Any

import pytest

from bench.faulty import a_faulty
from tests.core.drawn import draw
from tests.core.systems import GAL, entries
from tests.core.test_trouble import WELL, random_seen, told
from tests.core.test_visit import document, view
from tests.field.calls import FAULTS, Call, a_call
from zerodip.diagnosis.parts import Observation
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.kinds.registry import KINDS, kind_of
from zerodip.kinds.trials import Trials
from zerodip.units import PSI
from zerodip.visit.evidence import impossible_here
from zerodip.visit.log import log_of
from zerodip.visit.trouble import TroubleView, trouble_view
from zerodip.visit.trouble_asked import asked_trouble

_BY = {"caught": GAL, "run": 1.0}


def asked(call: Call) -> TroubleView:
    """What is told of a call, by its plates and what was seen."""
    plates = {
        "cut_in_gauge_pa": call.plates.cut_in * PSI,
        "cut_out_gauge_pa": call.plates.cut_out * PSI,
        "volume_m3": call.plates.volume * GAL,
        "flow_m3_s": call.flow * GAL / 60,
    }
    evidence = [
        {
            "item": item,
            "value": value if isinstance(value, bool) else max(value, 0.0) * _BY.get(item, PSI),
            "context": [between[0] * PSI, between[1]] if between else [],
        }
        for item, value, between in call.seen
    ]
    return asked_trouble({"kind": "well_bladder", "plates": plates, "evidence": evidence}, "us")


def judged(call: Call) -> tuple[bool, bool, bool]:
    """Whether the cause stands on top, and among the first three; and whether a dear remedy is told
    as clear that puts none of it right."""
    made, every = asked(call), KINDS["well_bladder"].troubles.every
    works = [{each.id, *(one.id for one in each.same_work)} for each in made.suspects]
    right = {every[id].remedy.id for id in call.names}
    advised = [each for each in made.suspects if each.remedy_says in made.ends]
    dear = any(each.remedy_kind in ("job", "person", "setting") for each in advised)
    wrong = made.clear and dear and not right & {each.remedy for each in advised}
    return (
        bool(works and works[0] & call.names),
        any(work & call.names for work in works[:3]),
        wrong,
    )


def test_the_cause_of_a_call_is_among_the_first_three_and_nothing_dear_is_told_wrongly() -> None:
    """The goal is 58 of 60 at the first three for calls that can be told; these are not chosen."""
    made = [
        judged(a_call(fault, random.Random(f"{fault} called {k}")))
        for fault in FAULTS
        for k in range(4)
    ]
    assert not any(wrong for *_, wrong in made)
    assert sum(top for top, *_ in made) >= 0.7 * len(made)
    assert sum(three for _, three, _ in made) >= 0.85 * len(made)


@pytest.mark.parametrize("kind", KINDS)
def test_nothing_is_clear_before_what_settles_it_was_looked_at(kind: str) -> None:
    """Made-up plants, each asked to the end of its checks."""
    clear = 0
    for k in range(12):
        plant = a_faulty(kind, f"looked {k}")
        seen, asked_ = plant.complaint() or plant.nothing_told(), set[str]()
        made = trouble_view(plant.figures, seen, "us")
        while made.check is not None and len(asked_) < 40:
            items = {each.item for each in made.check.items}
            asked_ |= items
            answers = (
                plant.answer(item, made.check.again)
                for item in plant.troubles.items
                if item.id in items
            )
            seen = [*seen, *(each for each in answers if each)]
            cannot = asked_ - {each.item for each in seen}
            made = trouble_view(plant.figures, seen, "us", impossible=cannot)
        if made.clear:
            clear += 1
            look = plant.troubles.every[made.suspects[0].id].look
            assert not look or {each.item for each in seen}.intersection(look)
    assert clear > 4


@pytest.mark.parametrize("kind", KINDS)
def test_nothing_to_mend_is_not_said_where_decide_has_a_stop(kind: str) -> None:
    rng, met = random.Random(f"filed {kind}"), 0
    for _ in range(25):
        try:
            figures = read_document(draw(kind, rng)).figures()
        except InvalidInput:
            continue
        broken, every = Trials(figures, "us").now.broken, kind_of(figures).troubles.every
        made = trouble_view(figures, random_seen(figures, rng), "us")
        if broken and made.suspects:
            met += 1
            assert not any(row.remedy_says.startswith("Nothing to mend") for row in made.suspects)
            causes = [each for row in made.suspects for each in (row, *row.same_work)]
            rules = {rule for cause in causes for rule in every[cause.id].breaks}
            assert made.decides or rules & set(broken)
    assert met > 3


@pytest.mark.parametrize(
    ("settings", "seen", "cause", "says"),
    [
        ((30, 50, 38), [("breath", True)], "charge_high", "Set the pre-charge to 28 psi"),
        ((40, 60, 33), [("run", 62.0)], "air_low", "Set the pre-charge to 38 psi"),
    ],
)
def test_what_stands_wrong_on_file_comes_first_with_what_decide_would_set(
    settings: tuple[int, int, int], seen: Any, cause: str, says: str
) -> None:
    low, high, charge = (each * PSI for each in settings)
    of = document(
        settings__cut_in_gauge_pa=low,
        settings__cut_out_gauge_pa=high,
        settings__pre_charge_gauge_pa=charge,
    ).figures()
    first = told(of, *seen).suspects[0]
    assert first.id == cause
    assert says in first.remedy_says
    right = told(of, *seen, ("pre_charge", low - 2 * PSI)).suspects
    assert right[0].id != cause  # it was put right since


def test_a_gauge_at_the_pump_s_end_is_the_nipple_or_the_contacts_and_those_are_looked_at() -> None:
    of = document(system__pump__dead_head_gauge_pa=90 * PSI).figures()
    seen = [("runs_over", True), ("highest", 90 * PSI)]
    made = told(of, *seen)
    assert made.stop
    assert not made.clear
    assert {"welded", "nipple"} <= {each.id for each in made.suspects}
    sound = told(of, *seen, ("contacts", False)).suspects
    assert sound[0].id in ("nipple", "points", "differential")
    assert sum(each.probability for each in sound if each.id == "welded") < 0.1
    clogged = told(of, *seen, ("contacts", False), ("nipple", True))
    assert clogged.suspects[0].id == "nipple"


def test_a_tank_is_not_replaced_before_its_pin_was_pressed() -> None:
    made = told(WELL, ("clicks", True), ("run", 2.5), ("caught", 0.4 * GAL))
    assert made.suspects[0].id == "burst"
    assert not made.clear
    assert made.check is not None
    assert made.check.items[0].item == "water_at_valve"
    assert told(
        WELL, ("clicks", True), ("run", 2.5), ("caught", 0.4 * GAL), ("water_at_valve", True)
    ).clear


def test_a_gauge_that_sags_after_a_stop_is_no_check_valve() -> None:
    """The air that the run warmed cools: 4 psi in five minutes right after the click (common
    practice, no source), the same house valve open or shut."""
    fell = [Observation(id, 56 * PSI, (60 * PSI, 300.0)) for id in ("fall_open", "fall_shut")]
    made = trouble_view(WELL, fell, "us").suspects
    assert made[0].id == "healthy"
    later = [Observation(id, 48 * PSI, (56 * PSI, 300.0)) for id in ("fall_open", "fall_shut")]
    assert trouble_view(WELL, later, "us").suspects[0].id == "check_valve"


def test_two_causes_are_told_as_two() -> None:
    made = told(
        WELL,
        ("pre_charge", 12 * PSI),
        ("house_tap", True),
        ("alone", True),
        ("run", 44.0),
        ("water_at_valve", False),
    )
    assert {"air_low", "house_leak"} <= {each.id for each in made.suspects[:2]}
    assert made.together.startswith("Two things at once:")
    if not made.check:
        assert " And: " in made.ends


@pytest.mark.parametrize(("house_open", "item"), [(True, "open"), (False, "shut"), (None, "shut")])
def test_a_fall_that_says_how_the_house_valve_stood_is_taken_as_that(
    house_open: bool | None, item: str
) -> None:
    """An evening's fall off a recording is no test of the house valve, which was shut once."""
    fell = {"first_gauge_pa": 58 * PSI, "later_gauge_pa": 50 * PSI, "seconds": 600.0}
    made = view(
        ("safe.house_shut", True),
        ("complaint", "starts_alone"),
        ("leak", {**fell, "house_open": house_open}),
    ).trouble
    assert made is not None
    assert f"Gauge after five minutes, house valve {item} 50 psi" in {
        each.says for each in made.evidence
    }


def test_what_is_on_record_is_not_asked() -> None:
    """No lever where the file has none, nor the breaker that was put off on this visit."""
    bare = document(system__switch__low_pressure_cut_off=False).figures()
    asked_: set[str] = set()
    made = told(bare, ("silent", True))
    while made.check is not None:
        asked_ |= {each.item for each in made.check.items}
        made = told(bare, ("silent", True), impossible=asked_)
    assert "breaker" in asked_
    assert not {"lever", "reset_fails", "tank_apart"} & asked_
    off = entries(("complaint", "silent"), ("safe.power_off", True), ("safe.proved_dead", True))
    assert "breaker" in impossible_here(log_of(off))


def test_air_read_before_other_points_were_decided_on_is_judged_by_those_it_was_set_for() -> None:
    """28.5 psi was right at 30/50, whatever is set now."""
    now = document(
        settings__cut_in_gauge_pa=20 * PSI,
        settings__cut_out_gauge_pa=40 * PSI,
        settings__pre_charge_gauge_pa=18 * PSI,
    )
    found = (
        ("found.cut_in", 30 * PSI),
        ("found.cut_out", 50 * PSI),
        ("found.pre_charge", 28.5 * PSI),
        ("complaint", "starts_alone"),
        ("decided", True),
    )
    made = view(*found, of=now).trouble
    assert made is not None
    assert "charge_high" not in {each.id for each in made.suspects}


@pytest.mark.parametrize(
    ("kind", "foreign"),
    [
        ("compressor", r"\btaps\b|\bbreath\b|\bbladder\b|\bpump\b|\bwell\b(?! above)"),
        ("tankless", r"\b[Mm]ains\b|\b[Bb]reaker\b|\bbladder\b|\belectrician\b|\bpanel\b"),
    ],
)
def test_a_kind_speaks_its_own_words(kind: str, foreign: str) -> None:
    """No taps on a compressor, no mains on a battery's pump."""
    troubles = KINDS[kind].troubles
    texts = [
        text
        for item in troubles.items
        for text in (item.title, item.asks, item.how, item.caution, item.stop, item.tools)
    ]
    for cause in troubles.causes:
        texts += [cause.title, cause.danger, cause.if_left, cause.remedy.says]
    assert not [text for text in texts if re.search(foreign, text)]
