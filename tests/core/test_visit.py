"""The visit: what is recorded, what stays shut, what is asked, what to do next, what a difference
points to."""

from dataclasses import replace
from typing import Any

import pytest

from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.registry import KINDS
from zerodip.units import PSI, to_si
from zerodip.visit.log import Record, log_of
from zerodip.visit.slots import FOUND_CUT_IN, TRY
from zerodip.visit.steps.make_safe import make_safe_steps, power_state
from zerodip.visit.validation import check_record
from zerodip.visit.view import VisitAsked, VisitView, visit_view

from .systems import GAL, GPM, SEA_LEVEL, air_settings, compressor, entries, file


def document(**changes: Any) -> Document:
    return read_document(file(**{"system__demand": {"peak_draw_m3_s": 9 * GPM}, **changes}))


def view(*pairs: tuple[str, Any], of: Document | None = None, **asked: Any) -> VisitView:
    return visit_view(of or document(), entries(*pairs), "us", VisitAsked(**asked))


def seen(low: float, high: float, first: float = 0.0, second: float = 0.0) -> dict[str, float]:
    return {
        "first": first,
        "second": second,
        "cut_in_gauge_pa": low * PSI,
        "cut_out_gauge_pa": high * PSI,
    }


FOUND = (("found.cut_in", 33 * PSI), ("found.cut_out", 51 * PSI))


def test_draining_stays_shut_until_it_is_off_and_proved_dead() -> None:
    shut = {step.id: step.shut for step in make_safe_steps(document().figures(), log_of(()))}
    assert shut["proved_dead"].startswith("First: Breaker off")
    assert shut["drained"].startswith("First: Prove it dead")
    open_ = make_safe_steps(
        document().figures(), log_of(entries(("safe.power_off", True), ("safe.proved_dead", True)))
    )
    assert not any(step.shut for step in open_)
    assert {step.id for step in open_ if step.done} == {"power_off", "proved_dead"}


@pytest.mark.parametrize(
    ("pairs", "power"),
    [
        ((), "unknown"),
        ((("safe.power_off", True),), "unknown"),
        ((("safe.power_off", True), ("safe.proved_dead", True)), "off"),
        ((("safe.power_off", True), ("safe.proved_dead", True), ("safe.power_up", True)), "on"),
        ((("safe.power_up", True), ("safe.power_off", True), ("safe.proved_dead", True)), "off"),
        (
            (
                ("safe.power_off", True),
                ("safe.proved_dead", True),
                ("safe.power_up", True),
                ("safe.power_off", True),
            ),
            "unknown",
        ),
        (
            (("safe.power_off", True), ("safe.proved_dead", True), ("safe.proved_dead", False)),
            "unknown",
        ),
    ],
)
def test_how_power_stands_follows_the_last_confirmation(
    pairs: tuple[tuple[str, Any], ...], power: str
) -> None:
    assert power_state(log_of(entries(*pairs))) == power


def test_powering_up_undoes_what_holds_only_while_power_is_off() -> None:
    done = (
        ("safe.bystanders", True),
        ("safe.power_off", True),
        ("safe.proved_dead", True),
        ("safe.drained", True),
    )
    made = view(*done, ("safe.power_up", True))
    assert [step.id for step in made.make_safe if step.done] == ["bystanders"]
    assert next(step for step in made.make_safe if step.id == "drained").shut
    assert made.power_up.done
    assert made.rail[1].says == "4 of 7"
    under = view(
        *done, ("safe.power_up", True), ("found.gauge", 38 * PSI), ("found.pre_charge", 38 * PSI)
    )
    assert "is the tank drained?" in under.questions[0].asks


def test_a_set_point_switch_is_taken_off_its_line_before_it_is_opened() -> None:
    steps = {
        step.id: step
        for step in make_safe_steps(
            document(system__switch={"nuts": "points"}).figures(), log_of(())
        )
    }
    assert "hazardous" in steps["area"].does
    assert steps["isolated"].after == "proved_dead"


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_its_steps_and_each_needed_step_comes_before(kind: str) -> None:
    steps = KINDS[kind].visit.make_safe
    ids = [step.id for step in steps]
    assert "power_off" in ids
    assert len(ids) == len(set(ids))
    assert ids.index("power_off") < ids.index("proved_dead")


def test_the_water_to_drain_is_that_of_the_gas_law() -> None:
    """44 gal at 60 psi with 38 psi of air: 44 (1 − 52.7/74.7) = 13.0 gal, three and a half minutes,
    four buckets."""
    told = view(("found.gauge", 60 * PSI)).drain
    assert told is not None
    assert told.volume_m3 == pytest.approx(
        44 * GAL * (1 - (38 * PSI + SEA_LEVEL) / (60 * PSI + SEA_LEVEL))
    )
    assert told.buckets == 4
    assert "13 gal" in told.says
    assert "house empty too" in told.says
    assert "house" not in view(("safe.house_shut", True)).drain.says  # type: ignore[union-attr]
    low = document(system__found={"pre_charge_gauge_pa": 26 * PSI})
    found = view(("found.gauge", 60 * PSI), of=low).drain
    assert found is not None
    assert found.volume_m3 == pytest.approx(
        44 * GAL * (1 - (26 * PSI + SEA_LEVEL) / (60 * PSI + SEA_LEVEL))
    )
    air = view(of=replace(document(), system=compressor(), settings=air_settings())).drain
    assert air is not None
    assert "free air" in air.says


def test_odd_readings_are_asked_about_not_refused() -> None:
    """Common practice, no source: a tank under pressure shows the system's pressure at its air
    valve."""
    asked = view(("found.gauge", 38 * PSI), ("found.pre_charge", 38 * PSI)).questions
    assert asked[0].slot == "found.pre_charge"
    assert "is the tank drained?" in asked[0].asks
    said_drained = (("found.gauge", 38 * PSI), ("safe.drained", True))
    assert view(*said_drained, ("found.pre_charge", 37 * PSI)).questions == ()
    same = (*said_drained, ("found.pre_charge", 38 * PSI))
    assert "is the tank drained?" in view(*same).questions[0].asks
    assert view(*same, ("safe.gauge_at_zero", True)).questions == ()
    assert "leaks" in view(("found.gauge", 0.0), ("found.pre_charge", 9 * PSI)).questions[0].asks
    assert "burst" in view(("found.water_at_valve", True)).questions[0].asks
    assert (
        "other way round"
        in view(("found.cut_in", 60 * PSI), ("found.cut_out", 40 * PSI)).questions[0].asks
    )


def test_points_entered_with_power_off_are_asked_about_once() -> None:
    off = (("safe.power_off", True), ("safe.proved_dead", True))
    assert view(*FOUND, *off).questions == ()  # watched, then made safe
    late = view(*off, *FOUND).questions
    assert [(each.slot, each.earlier) for each in late] == [("found.cut_in", True)]
    assert view(*off, *FOUND, ("safe.seen_earlier", True)).questions == ()
    assert view(*off, ("safe.power_up", True), *FOUND).questions == ()
    when = {field.slot: field.when for field in (*view().watch.read, *view().read)}
    assert when["found.cut_in"] == "Power on, water in the tank"
    assert when["found.pre_charge"] == "Power off, tank drained"


def test_the_last_visit_s_figures_stand_beside_with_the_drift() -> None:
    fields = view(("found.pre_charge", 36.5 * PSI), last={"found.pre_charge": 38 * PSI}).read
    charge = next(field for field in fields if field.slot == "found.pre_charge")
    assert charge.drift == "1.5 psi down"
    assert charge.last == 38 * PSI


def test_the_air_step_says_how_much_how_long_and_what_a_low_find_means() -> None:
    """27 found, 38 wanted, 44 gal: V·Δc/p_atm = 44·11/14.696 = 32.9 gal = 4.40 ft³; at 2 cfm 2.2
    min."""
    made = view(("found.pre_charge", 27 * PSI), ("air.inflator", to_si(2, "cfm"))).air
    assert made is not None
    assert made.minutes == pytest.approx(2.2, abs=0.02)
    assert "Add 11 psi: 4.4 ft³ of free air, about 2.2 min" in made.says
    low = view(("found.pre_charge", 27 * PSI), ("gauge.air_low", 1 * PSI)).air
    assert low is not None
    assert low.target_gauge_pa == pytest.approx(37 * PSI)
    assert view(("air.left", 38 * PSI)).air.right  # type: ignore[union-attr]
    lost = document(system__found={"last_pre_charge_gauge_pa": 38 * PSI, "last_years_ago": 2.0})
    for found, word in ((36, "usual"), (9, "leak")):
        air = view(("found.pre_charge", found * PSI), of=lost).air
        assert air is not None
        assert word in air.means


def test_a_gauge_that_reads_low_moves_the_targets_as_shown() -> None:
    told = view(*FOUND, ("gauge.low", 1 * PSI)).set
    assert told.target_in_gauge_pa == pytest.approx(39 * PSI)
    assert told.target_out_gauge_pa == pytest.approx(59 * PSI)
    assert (
        told.gauge_says
        == "As this gauge shows them: it shows 1 psi too little, for 40 psi and 60 psi."
    )
    assert log_of(entries(("found.cut_in", 39 * PSI), ("gauge.low", 1 * PSI))).true(
        FOUND_CUT_IN
    ) == pytest.approx(40 * PSI)


def test_a_compressor_s_run_points_to_the_machine_the_room_or_the_air_used() -> None:
    machine = replace(document(), system=compressor(), settings=air_settings())
    run = CompressorFigures(compressor(), air_settings(), machine.practice).run_s
    long = view(("lap", {"run_s": 1.5 * run}), of=machine)
    assert long.trouble is not None
    assert {each.id for each in long.trouble.suspects[:2]} == {"leak", "worn"}
    tight = {"first_gauge_pa": 100 * PSI, "later_gauge_pa": 100 * PSI, "seconds": 600.0}
    weak = view(("lap", {"run_s": 1.5 * run}), ("leak", tight), of=machine)
    assert weak.trouble is not None
    assert weak.trouble.suspects[0].id == "worn"
    short = view(("lap", {"run_s": 0.6 * run}), of=machine)
    assert short.trouble is not None
    assert short.trouble.suspects[0].id == "condensate"
    assert short.trouble.suspects[0].remedy == "bleed_condensate"


def test_setting_goes_from_the_first_look_to_turns_to_done() -> None:
    assert view().set.do == "first"
    first = view(*FOUND).set
    assert first.do == "turn"
    assert first.turns[0].nut == "range"
    assert "clockwise" in first.turns[0].says
    after = view(*FOUND, ("try", seen(39.5, 59, 2.75, 0.5))).set
    assert len(after.tries) == 1
    assert after.tries[0].off_in_pa == pytest.approx(-0.5 * PSI)
    looks = [("try", seen(40, 60)) for _ in range(8)]
    done = view(*FOUND, ("try", seen(40, 60, 2.75, 0.5)), *looks).set
    assert done.do == "done"
    assert done.sure > 0.9
    assert done.learned.startswith("This switch moves about 2.")
    again = view(*FOUND, learned=done.slopes).set
    assert again.turns


def made(first: float, second: float, after: int) -> tuple[str, Any]:
    return "set.turned", {"first": first, "second": second, "after": after}


def test_turns_made_are_kept_until_they_are_watched() -> None:
    """Whoever comes back to the visit after turning must not be told to turn again."""
    turned = view(*FOUND, made(2.5, -0.25, 0)).set
    assert turned.do == "see"
    assert [turn.says for turn in turned.turns] == [
        "range nut: 2 1/2 turns clockwise",
        "differential nut: 1/4 turn anticlockwise",
    ]
    assert turned.expect_in_pa is not None
    assert turned.expect_in_pa[0] == pytest.approx((33 + 2.6 * 2.5) * PSI, rel=2e-3)
    assert view(*FOUND, made(2.5, -0.25, 0), ("set.turned", None)).set.do == "turn"
    assert view(*FOUND, made(2.5, -0.25, 0), ("try", seen(39.5, 59, 2.5, -0.25))).set.do != "see"
    low_relief = document(system__relief={"present": True, "setting_gauge_pa": 66 * PSI})
    assert "switch off by hand" in view(*FOUND, made(6, 0, 0), of=low_relief).set.says


def test_a_switch_that_does_not_answer_is_not_turned_further() -> None:
    tries = [("try", seen(33, 51, 3, 1)), ("try", seen(33, 51, 3, 1))]
    asked = view(*FOUND, *tries).set
    assert (asked.do, asked.complaints[0].id) == ("watch", "no-answer")
    assert "tap the gauge" in asked.says
    told = view(*FOUND, *tries, ("try", seen(33.2, 51, 0, 0))).set
    assert told.do == "stop"
    assert told.complaints[0].id == "no-answer"
    assert told.may_turn
    anyway = view(*FOUND, *tries, eager=True).set
    assert anyway.do == "turn"
    assert max(abs(turn.turns) for turn in anyway.turns) <= 6


def test_one_may_turn_at_once_where_watching_first_would_save_turns() -> None:
    near = (*FOUND, ("set.near", "one"), ("try", seen(39.5, 60, 2, 0.25)))
    told = view(*near).set
    assert (told.do, told.may_turn) == ("watch", True)
    assert "fewer turns" in told.says
    assert view(*near, eager=True).set.do == "turn"


def test_two_set_points_are_set_the_higher_first_one_by_one() -> None:
    points = document(system__switch={"nuts": "points"})
    assert {turn.nut for turn in view(*FOUND, of=points).set.turns} == {"upper", "lower"}
    assert [turn.nut for turn in view(*FOUND, of=points, order="first").set.turns] == ["upper"]


def test_a_correction_stands_where_the_wrong_try_stood() -> None:
    wrong = Record("a", "try", seen(30, 90, 1), at="1")
    log = log_of(
        [
            wrong,
            Record("b", "try", seen(40, 60, 0.25), at="2"),
            Record("c", "try", seen(39, 59, 1), "a", "3"),
        ]
    )
    assert [round(t.cut_out_gauge_pa / PSI) for t in log.all(TRY)] == [59, 60]


def test_runs_and_buckets_stand_beside_what_was_predicted_and_causes_are_ranked() -> None:
    """44 gal at 40/60 with 38 psi and 10 gpm: 11.4 gal and 68 s by the gas law."""
    fine = view(("lap", {"run_s": 67.0}), ("lap", {"run_s": 70.0}))
    assert fine.prove.measured[0].agrees
    assert fine.trouble is None
    short = view(("lap", {"run_s": 40.0}))
    assert short.trouble is not None
    assert short.trouble.suspects[0].id in ("pump_strong", "air_low", "charge_high")
    assert short.trouble.check is not None
    caught = {"from_gauge_pa": 60 * PSI, "to_gauge_pa": 40 * PSI, "caught_m3": 7 * GAL}
    little = view(("lap", {"run_s": 42.0}), ("bucket", caught))
    assert little.trouble is not None
    assert little.trouble.suspects[0].id == "air_low"
    assert {each.id for each in little.trouble.suspects[0].same_work} >= {"air_valve"}
    assert "and one of" in little.prove.measured[1].says
    right = view(("lap", {"run_s": 40.0}), ("bucket", {**caught, "caught_m3": 11.4 * GAL}))
    assert right.trouble is not None
    assert "pump_strong" in [each.id for each in right.trouble.suspects[:2]]
    leak = view(
        ("leak", {"first_gauge_pa": 60 * PSI, "later_gauge_pa": 58 * PSI, "seconds": 600})
    ).prove
    assert "runs away" in leak.measured[0].says


@pytest.mark.parametrize(
    ("slot", "value", "paths"),
    [
        ("found.cut_in", 40 * PSI, []),
        ("found.cut_in", None, []),
        ("found.cut_in", "x", ["value"]),
        ("found.cut_in", 1e12, ["value"]),
        ("safe.power_off", True, []),
        ("safe.power_off", "yes", ["value"]),
        ("place", "set", []),
        ("place", "cellar", ["value"]),
        ("try", seen(40, 60), []),
        ("try", seen(60, 40), ["value.cut_in_gauge_pa"]),
        ("try", {**seen(40, 60), "first": 99}, ["value.first"]),
        ("set.turned", {"first": 1, "after": 0}, []),
        ("set.turned", None, []),
        ("set.turned", {"first": "much"}, ["value.first"]),
        ("lap", {"run_s": -1}, ["value.run_s"]),
        ("lap", 7, ["value"]),
        (
            "bucket",
            {"from_gauge_pa": 2e5, "to_gauge_pa": 3e5, "caught_m3": 0.01},
            ["value.to_gauge_pa"],
        ),
        (
            "leak",
            {"first_gauge_pa": 2e5, "later_gauge_pa": 3e5, "seconds": 60},
            ["value.later_gauge_pa"],
        ),
        ("drain", [[0, 4e5], [1, 3e5]], []),
        ("drain", [[1, 4e5], [0, 3e5]], ["value"]),
        ("drain", [[0, "x"], [1, 2]], ["value"]),
        ("note", {"text": "x" * 501}, ["value.text"]),
        ("weather", 1, ["slot"]),
        ("safe.weather", True, ["slot"]),
        ("safe.cover", True, []),
        ("safe.power_off", None, ["value"]),
    ],
)
def test_every_record_is_checked_by_field(slot: str, value: Any, paths: list[str]) -> None:
    assert [fault.path for fault in check_record(slot, value)] == paths


def test_a_run_is_judged_as_it_is_timed_and_beside_what_is_wanted() -> None:
    watch = view().prove.watch
    assert (watch.wanted_s, watch.alarm_s) == (60.0, 600.0)
    assert "60 s" in watch.short_says
    says = view(("lap", {"run_s": 24.0, "rest_s": None})).prove.measured[0].says
    assert "wanted 60 s or more" in says
    air = view(of=replace(document(), system=compressor(), settings=air_settings())).prove.watch
    assert (air.wanted_s, air.short_says) == (None, "")


def test_the_rail_says_how_far_each_step_is() -> None:
    rail = {
        step.step: step for step in view(*FOUND, ("safe.power_off", True), ("place", "set")).rail
    }
    assert rail["safe"].state == "begun"
    assert (rail["watch"].state, rail["watch"].says) == ("begun", "33/51 psi")
    assert rail["read"].says.startswith("0 of")
    assert view(("place", "prove")).place == "prove"
    decided = next(step for step in view(("decided", True)).rail if step.step == "decide")
    assert (decided.state, decided.says) == ("done", "40/60 psi")
