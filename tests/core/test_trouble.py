"""Diagnosis of every kind: faulty plants against an independent solution of their equations, and
the trade's table of symptoms (common practice, no source)."""

import itertools
import math
import random
from typing import Any

import pytest
from scipy.integrate import quad
from scipy.optimize import brentq

from tests.core.systems import GAL, GPM, air_settings, compressor, tankless
from tests.core.test_visit import document, view
from zerodip.diagnosis.inference import believe
from zerodip.diagnosis.next_check import SURE, next_check, remedies
from zerodip.diagnosis.parts import Observation
from zerodip.kinds.registry import KINDS, figures_for, kind_of
from zerodip.kinds.settings import Practice
from zerodip.units import PSI
from zerodip.visit.suspects import share_of
from zerodip.visit.trouble import TroubleView, trouble_view
from zerodip.visit.validation import check_record

WELL = document().figures()
PLAIN = document(system__kind="well_air").figures()
MACHINE = figures_for(compressor(), air_settings(), Practice())
DEMAND = figures_for(tankless(), air_settings(30, 45), Practice())
Seen = tuple[str, bool | float]


def told(of: Any, *seen: Seen, condition: Any = "powered", **more: Any) -> TroubleView:
    return trouble_view(of, [Observation(*each) for each in seen], "us", condition, **more)


def asked_of(made: TroubleView) -> set[str]:
    return {each.item for each in made.check.items} if made.check else set()


def ranked(of: Any, *seen: Seen) -> list[str]:
    belief = believe(kind_of(of).troubles, of, [Observation(*each) for each in seen], PSI)
    return list(belief.by_cause)


def test_a_gauge_s_offset_is_shared_by_all_that_is_read_on_it() -> None:
    """Two readings off the same way are the gauge; off both ways they are not."""
    troubles = kind_of(WELL).troubles

    def astray(low: float, high: float) -> float:
        seen = [Observation("cut_in", low * PSI), Observation("cut_out", high * PSI)]
        belief = believe(troubles, WELL, seen, 2 * PSI)
        return 1 - belief.probability("healthy")

    assert astray(43, 63) < astray(37, 63)
    assert astray(43, 63) < astray(47, 67)


def test_points_low_by_as_much_are_the_switch_or_the_gauge_and_neither_is_sure() -> None:
    made = told(WELL, ("cut_in", 35 * PSI), ("cut_out", 54 * PSI))
    by = {each.id: each for each in made.suspects[:2]}
    assert set(by) == {"points", "gauge_off"}
    assert "low" in by["points"].size
    assert made.suspects[0].probability < 0.75
    other = told(WELL, ("cut_in", 40 * PSI), ("cut_out", 52 * PSI))
    assert other.suspects[0].id == "differential"


def test_points_on_their_way_to_new_ones_are_no_trouble() -> None:
    """Turned half-way, a run that fits where they stand now: nothing is said of gauge or points."""
    tried = (
        "try",
        {"first": 2, "second": 0, "cut_in_gauge_pa": 35 * PSI, "cut_out_gauge_pa": 54 * PSI},
    )
    made = view(
        ("found.cut_in", 29 * PSI), ("found.cut_out", 48 * PSI), tried, ("lap", {"run_s": 42.0})
    )
    assert made.trouble is not None
    assert made.trouble.suspects[0].id not in ("gauge_off", "points", "differential")


# Faulty plants, by their equations


def _faulty(of: Any, id: str, size: float) -> Any:
    troubles = kind_of(of).troubles
    cause = next(each for each in troubles.causes if each.id == id)
    return cause.on(troubles.plant(of, ()), size)


def test_a_burst_bladder_s_run_is_that_of_a_tank_full_of_water() -> None:
    """∫ dV/Q with the air's volume V = m/p solved by scipy: 44 gal, 10 gpm, 40/60 psi, a twentieth
    of the air at 38 psi left."""
    air = 0.05 * (38 * PSI + 101325) * 44 * GAL  # p·V of what is left
    low, high = 40 * PSI + 101325, 60 * PSI + 101325
    volume, _ = quad(lambda p: air / p**2, low, high)
    plant = _faulty(WELL, "burst", 0.05)
    assert plant.run_s == pytest.approx(volume / (10 * GPM), rel=0.02)
    assert plant.run_s < 5
    assert ranked(WELL, ("run", round(plant.run_s, 1)))[0] == "burst"


def test_a_waterlogged_tank_s_run_is_that_of_the_air_left() -> None:
    """A third of the air of a plain tank that began at the atmosphere."""
    of = document(system__kind="well_air", settings__pre_charge_gauge_pa=0.0).figures()
    air = 0.3 * 101325 * 44 * GAL
    low, high = 40 * PSI + 101325, 60 * PSI + 101325
    volume = air / low - air / high
    assert _faulty(of, "waterlogged", 0.3).run_s == pytest.approx(volume / (10 * GPM), rel=0.02)


def test_a_check_valve_that_passes_lets_the_gauge_fall_house_valve_shut_or_not() -> None:
    """Water left in the tank after five minutes, p from V·c/(V − W) by scipy's root finder."""
    plant = _faulty(WELL, "check_valve", 0.02)
    volume, charge = 44 * GAL, 38 * PSI + 101325
    first = 58 * PSI
    held = volume * (1 - charge / (first + 101325)) - 0.02 * 10 * GPM * 300
    later = brentq(lambda p: volume * (1 - charge / (p + 101325)) - held, 38.1 * PSI, first)
    for item in ("fall_open", "fall_shut"):
        # The air cools besides, by half a psi at the most some minutes after the stop.
        assert 0 <= later - plant.shows(item, (first, 300.0)).mean <= 0.5 * PSI
    house = _faulty(WELL, "house_leak", 0.02)
    assert 0 < first - house.shows("fall_shut", (first, 300.0)).mean <= 0.5 * PSI


def test_a_clogged_nipple_shows_cut_out_late() -> None:
    """Five seconds more at 10 gpm: the gauge by the gas law."""
    plant = _faulty(WELL, "nipple", 5.0)
    volume, charge = 44 * GAL, 38 * PSI + 101325
    held = volume * (1 - charge / (60 * PSI + 101325)) + 10 * GPM * 5
    over = charge * volume / (volume - held) - 101325
    assert plant.shows("cut_out", ()).mean == pytest.approx(over, rel=0.01)


def test_a_pump_against_an_open_outlet_comes_to_rest_where_it_delivers_as_much() -> None:
    """Where the pump's line meets the leak, by scipy's root finder."""
    points = [
        {"head_m": 60.0, "flow_m3_s": 0.0},
        {"head_m": 30.0, "flow_m3_s": 10 * GPM},
        {"head_m": 0.0, "flow_m3_s": 14 * GPM},
    ]
    of = document(system__pump={"model": "curve", "points": points}).figures()
    plant = _faulty(of, "house_leak", 1.2)
    rest = brentq(lambda p: plant.delivers(p) - plant.house_m3_s, 1.0, 79 * PSI)
    assert plant.shows("highest", ()).mean == pytest.approx(rest, rel=0.01)


def test_a_pump_of_unknown_dead_head_that_never_stops_is_not_blamed_on_the_setting() -> None:
    made = told(WELL, ("endless", True), ("highest", 52 * PSI))
    assert not made.clear
    by = {each.id: each.probability for each in made.suspects}
    assert by.get("dead_head", 0) < 0.75
    assert {"pump_worn", "house_leak", "broken_pipe"} & set(by)


# The trade's table

TABLE: list[tuple[Any, str, set[str], int]] = [
    (WELL, "clicks", {"burst", "air_low"}, 2),
    (PLAIN, "clicks", {"waterlogged"}, 1),
    (WELL, "breath", {"charge_high"}, 1),
    (WELL, "endless", {"dead_head", "house_leak", "nipple", "pump_worn", "welded"}, 2),
    (WELL, "silent", {"no_power", "tripped", "contacts", "nipple", "overload"}, 3),
    (WELL, "alone", {"house_leak", "check_valve"}, 2),
    (WELL, "trips", {"charge_high", "tripped", "broken_pipe", "well_low"}, 2),
    (WELL, "wander", {"diaphragm", "gauge_off", "nipple"}, 2),
    (MACHINE, "alone", {"leak"}, 1),
    (WELL, "relief_spits", {"points", "differential", "burst", "welded", "nipple"}, 2),
    (PLAIN, "relief_spits", {"points", "differential", "waterlogged", "welded"}, 2),
    (DEMAND, "chatter", {"outlet_small", "lines_air"}, 2),
    (DEMAND, "endless", {"dead_head", "volts_low", "pump_worn"}, 2),
]


@pytest.mark.parametrize(("of", "symptom", "likely", "count"), TABLE)
def test_what_a_symptom_points_to_comes_out_in_the_first_three(
    of: Any, symptom: str, likely: set[str], count: int
) -> None:
    """Common practice, no source."""
    first = [each for each in ranked(of, (symptom, True)) if each != "healthy"][:3]
    assert len(likely & set(first)) >= count, first


# What was said wrongly before


def test_runs_of_seconds_are_a_tank_that_holds_no_air_not_a_strong_pump() -> None:
    for run in (2.0, 3.0, 4.5):
        assert ranked(WELL, ("run", run))[0] == "burst"
        assert ranked(PLAIN, ("run", run))[0] in ("waterlogged", "renewer_failed", "tank_shut")


def test_a_healthy_plant_with_a_long_run_is_left_alone() -> None:
    slow = document(
        system__tanks=[{"volume_m3": 300 * GAL}],
        system__pump={"model": "constant", "flow_m3_s": 5 * GPM},
    ).figures()
    run = slow.run_s  # type: ignore[attr-defined]
    assert run > 900
    made = told(slow, ("run", run), ("cut_in", 40 * PSI), ("cut_out", 60 * PSI))
    assert made.suspects[0].id == "healthy"
    assert made.suspects[0].remedy_kind == "nothing"


def test_a_run_that_is_longer_is_no_lost_air() -> None:
    made = ranked(WELL, ("run", 900.0))
    assert made.index("house_leak") < 3
    belief = believe(kind_of(WELL).troubles, WELL, [Observation("run", 900.0)], PSI)
    assert belief.probability("air_low") < 0.08


def test_short_runs_of_a_narrow_differential_are_not_the_tank_s_fault() -> None:
    seen = [("clicks", True), ("cut_in", 40 * PSI), ("cut_out", 50 * PSI)]
    narrow = document(
        settings__cut_in_gauge_pa=40 * PSI,
        settings__cut_out_gauge_pa=50 * PSI,
        system__tanks=[{"volume_m3": 20 * GAL}],
    ).figures()
    made = told(narrow, *seen, ("run", narrow.run_s))  # type: ignore[attr-defined]
    assert made.suspects[0].id == "narrow"
    assert made.suspects[0].remedy == "set"
    wide = document(system__tanks=[{"volume_m3": 14 * GAL}]).figures()
    made = told(wide, *seen[:1], ("run", wide.run_s))  # type: ignore[attr-defined]
    assert "narrow" not in {each.id for each in made.suspects}


def test_what_is_answered_after_the_work_belongs_to_the_work() -> None:
    called = (("complaint", "clicks"), ("found.pre_charge", 8 * PSI))
    water = ("saw", {"item": "water_at_valve", "says": "yes"})
    before = view(*called, water, ("air.left", 38 * PSI)).trouble
    assert before is not None
    assert any("Water at the air valve" in each.says for each in before.evidence)
    after = view(*called, ("air.left", 38 * PSI), water).trouble
    assert after is not None
    assert not any("Water at the air valve" in each.says for each in after.evidence)


# What holds whatever is said

FIGURES = [WELL, PLAIN, MACHINE, DEMAND, document(system__kind="boosted").figures()]


def random_seen(of: Any, rng: random.Random) -> list[Observation]:
    items = rng.sample(kind_of(of).troubles.items, rng.randrange(1, 7))
    return [
        Observation(
            each.id,
            rng.choice((each.least, each.most, rng.uniform(each.least, each.most)))
            if each.is_figure
            else rng.random() < 0.5,
        )
        for each in items
    ]


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_order_does_not_matter_and_nonsense_raises_nothing(of: Any) -> None:
    rng = random.Random(11)
    ends = [(low, high) for low in (0.0, PSI) for high in (0.0, 2 * PSI, 200 * PSI)]
    for k in range(18):
        seen = random_seen(of, rng)
        low, high = ends[k % len(ends)]
        if k < 6:
            seen = [each for each in seen if each.item not in ("cut_in", "cut_out")]
            seen += [Observation("cut_in", low), Observation("cut_out", high)]
        made = trouble_view(of, seen, rng.choice(["us", "metric", "kpa"]))
        again = trouble_view(of, seen[::-1], "us")
        assert [each.id for each in again.suspects] == [each.id for each in made.suspects]
        assert all(math.isfinite(each.probability) for each in made.suspects)
        assert sum(map(share_of, made.suspects)) + made.rest >= 0.99
    assert not trouble_view(of, [Observation("nothing of the kind", True)], "us").suspects


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_danger_comes_before_any_question_and_nothing_is_run_then(of: Any) -> None:
    made = told(of, ("endless", True), ("runs_over", True))
    assert made.stop.startswith("Stop")
    needs = {each.id: each.needs for each in kind_of(of).troubles.items}
    assert all(needs[item] != "powered" for item in asked_of(made))


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_a_check_fits_the_condition_or_is_made_safer_first(of: Any) -> None:
    rng = random.Random(3)
    items = {each.id: each for each in kind_of(of).troubles.items}
    for condition, _ in itertools.product(("powered", "off", "drained"), range(5)):
        made = trouble_view(of, random_seen(of, rng), "us", condition)  # type: ignore[arg-type]
        needs = {items[item].needs for item in asked_of(made)} - {"any", condition}
        assert not needs or made.check.first or (condition, needs) == ("drained", {"off"})
        assert not (condition == "drained" and any(items[each].full for each in asked_of(made)))


def test_it_stops_when_two_causes_have_one_remedy() -> None:
    found = [("pre_charge", 10 * PSI), ("knee", 10 * PSI), ("water_at_valve", False)]
    belief = believe(kind_of(WELL).troubles, WELL, [Observation(*each) for each in found], PSI)
    assert max(belief.by_cause.values()) < SURE <= remedies(belief)["air"]
    assert next_check(belief, "powered") is None


def test_what_cannot_be_looked_at_here_is_not_asked_again() -> None:
    first = told(WELL, ("clicks", True)).check
    assert first is not None
    names = {each.item for each in first.items}
    other = told(WELL, ("clicks", True), impossible=names)
    assert other.check is not None
    assert not names & asked_of(other)


def test_every_remedy_that_is_a_job_is_a_job_of_the_kind() -> None:
    for kind in KINDS.values():
        jobs = {job.id for job in kind.visit.jobs}
        for cause in kind.troubles.causes:
            assert cause.remedy.kind != "job" or cause.remedy.id in jobs, (kind.id, cause.id)
            assert set(cause.seen) <= {each.id for each in kind.troubles.items} | _ELSEWHERE


_ELSEWHERE = {
    "hums",
    "breaker",
    "wander",
    "relief_spits",
    "trips",
    "runs_over",
    "gauge_differs",
    "weak",
    "muddy",
    "air_spits",
    "silent",
    "nipple",
    "pit_flooded",
}


def test_contradiction_is_said_and_lowers_everything() -> None:
    made = told(
        WELL,
        ("silent", True),
        ("clicks", True),
        ("water_at_valve", True),
        ("pre_charge", 38 * PSI),
        ("run", 68.0),
        ("caught", 11.4 * GAL),
    )
    assert made.odd.startswith("What was noted does not fit together")
    assert all(each.probability < 0.6 for each in made.suspects)


def test_a_size_is_told_with_its_range() -> None:
    (first, *_) = told(WELL, ("pre_charge", 47 * PSI)).suspects
    assert first.id == "charge_high"
    assert "above cut-in" in first.size
    assert "psi to" in first.size


@pytest.mark.parametrize(
    ("answer", "path"),
    [
        ({"item": "luck", "says": "yes"}, "value.item"),
        ({"item": "run", "says": "no"}, "value.says"),
        ({"item": "cut_in", "says": "yes"}, "value.says"),
        ({"item": "wet", "says": "figure", "value": 3.0}, "value.says"),
        ({"item": "run", "says": "figure", "value": -5.0}, "value.value"),
        ({"item": "run", "says": "figure"}, "value.value"),
    ],
)
def test_an_answer_that_cannot_be_is_refused_by_field(answer: dict[str, Any], path: str) -> None:
    assert [fault.path for fault in check_record("saw", answer)] == [path]
    assert check_record("saw", {"item": "run", "says": "cannot"}) == []


def test_a_complaint_is_judged_by_what_was_found_and_the_work_by_what_was_left() -> None:
    """Air set and a run timed after it: the complaint is answered, and contradicts nothing."""
    called = (("complaint", "clicks"), ("found.pre_charge", 8 * PSI), ("found.run", 21.0))
    before = view(*called)
    assert before.trouble is not None
    assert before.trouble.suspects[0].id == "air_low"
    mended = (*called, ("air.left", 38 * PSI), ("lap", {"run_s": 67.0}))
    assert view(*mended).trouble is None
    still = view(*called, ("air.left", 38 * PSI), ("lap", {"run_s": 9.0})).trouble
    assert still is not None
    assert still.odd == ""
    assert "Clicks" not in " ".join(each.says for each in still.evidence)


def test_a_check_that_makes_no_sense_is_not_asked() -> None:
    """A pump that will not start is not timed, one that never stops neither."""
    for of, symptom in itertools.product(FIGURES, ("silent", "endless")):
        banned = {each.id for each in kind_of(of).troubles.items if symptom in each.unless}
        assert banned
        asked: set[str] = set()
        while names := asked_of(told(of, (symptom, True), impossible=asked)):
            asked |= names
        assert not asked & banned


def test_a_cut_out_far_too_high_is_the_differential_or_the_points() -> None:
    made = told(WELL, ("relief_spits", True), ("cut_out", 90 * PSI))
    assert made.stop
    assert made.suspects[0].id in ("points", "differential")
