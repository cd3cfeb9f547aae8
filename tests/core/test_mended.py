"""What was wrong once, as it was seen, stays right."""

import random
from dataclasses import replace

import pytest

from zerodip.decide.judge import decide
from zerodip.decide.size import Target, sizing
from zerodip.decide.summary import summarize
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.fileformat.templates import template_file
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.parts import Relief, Switch
from zerodip.kinds.registry import KINDS, figures_for
from zerodip.kinds.settings import Settings
from zerodip.kinds.water.found import with_found
from zerodip.kinds.water.model import Found, Tank
from zerodip.rules.engine import run
from zerodip.switch.belief import prior
from zerodip.switch.classes import CLASSES, CUT_IN, CUT_OUT
from zerodip.switch.learned import learned_from, learned_of, slopes_of
from zerodip.units import PSI, from_si, to_si
from zerodip.visit.log import Log, log_of
from zerodip.visit.steps.set_switch import set_view
from zerodip.visit.steps.switch_state import belief_of

from .systems import GAL, entries, system
from .systems import settings as psi_settings

EIGHT = [3 * PSI, 0.3 * PSI, 3 * PSI, 0.3 * PSI, 0.0, 0.1 * PSI, 2 * PSI, 0.2 * PSI]


def found_log() -> Log:
    return log_of(entries(("found.cut_in", 30 * PSI), ("found.cut_out", 50 * PSI)))


@pytest.mark.parametrize("nuts", ["one", "two", "points"])
@pytest.mark.parametrize("written_for", ["one", "two", "points"])
def test_slopes_of_another_switch_are_never_taken_for_this_one_s(
    nuts: str, written_for: str
) -> None:
    count = 4 * len(CLASSES[written_for].nuts)
    learned = learned_from(EIGHT[:count], written_for)
    of = figures_for(system(switch=Switch(nuts=nuts)), psi_settings())
    view = set_view(of, found_log(), "us", learned)
    alone = set_view(of, found_log(), "us")
    assert (view.turns == alone.turns) == (nuts != written_for)
    assert bool(view.anew) == (nuts != written_for)


@pytest.mark.parametrize("count", range(17))
def test_a_list_of_numbers_that_fits_no_switch_is_let_go(count: int) -> None:
    for nuts, kind in CLASSES.items():
        learned = learned_from([1.0] * count, nuts)
        assert len(learned) == (count // 2 if count == 4 * len(kind.nuts) else 0)


def test_two_nuts_then_set_points_turn_one_turn_each() -> None:
    """Two nuts had taught 3 and 2 psi a turn: on a switch with set-points that once made turns of
    1½ and ¼."""
    points = figures_for(
        system(switch=Switch(nuts="points")), psi_settings(cut_in=32, cut_out=52, air=30)
    )
    turns = [
        turn.turns for turn in set_view(points, found_log(), "us", learned_from(EIGHT, "two")).turns
    ]
    assert turns == [turn.turns for turn in set_view(points, found_log(), "us").turns]


@pytest.mark.parametrize("nuts", ["one", "two", "points"])
def test_what_is_learned_comes_back_for_the_nut_and_point_it_was_learned_of(nuts: str) -> None:
    belief = belief_of(figures_for(system(switch=Switch(nuts=nuts)), psi_settings()), found_log())
    assert belief is not None
    slopes = slopes_of(learned_of(belief), nuts)
    again = prior(CLASSES[nuts], 30 * PSI, 50 * PSI, PSI, slopes)
    for at in range(len(CLASSES[nuts].nuts)):
        for point in (CUT_IN, CUT_OUT):
            assert again.slope(at, point)[0] == pytest.approx(belief.slope(at, point)[0])


def test_water_caught_between_old_points_goes_when_a_point_is_found_anew() -> None:
    old = Found(cut_in_gauge_pa=30 * PSI, cut_out_gauge_pa=50 * PSI, caught_m3=8 * GAL)
    plain = system(kind="well_air", found=old)
    same = with_found(plain, {"cut_in_gauge_pa": 30 * PSI})
    assert same.found.caught_m3 == old.caught_m3
    for name, value in (("cut_in_gauge_pa", 42 * PSI), ("cut_out_gauge_pa", 45 * PSI)):
        anew = with_found(plain, {name: value})
        assert (getattr(anew.found, name), anew.found.caught_m3) == (pytest.approx(value), None)
    crossed = with_found(plain, {"cut_in_gauge_pa": 55 * PSI})
    assert (crossed.found.cut_in_gauge_pa, crossed.found.cut_out_gauge_pa) == (None, None)
    shares = [
        next((r.value for r in decide(each, psi_settings()).results if r.id == "air_left"), None)
        for each in (plain, with_found(plain, {"cut_in_gauge_pa": 42 * PSI}))
    ]
    assert shares[1] is None or shares[1] == pytest.approx(shares[0])


def test_a_system_has_a_tank_and_a_twelfth_is_not_dropped() -> None:
    with pytest.raises(InvalidInput):
        system(tanks=())
    eleven = tuple(Tank(volume_m3=20 * GAL) for _ in range(11))
    long = Target(kind="run", value=600.0)
    told = sizing(system(tanks=eleven), psi_settings(), target=long)
    twelve = sizing(system(tanks=(*eleven, Tank(volume_m3=20 * GAL))), psi_settings(), target=long)
    assert told is not None
    assert twelve is not None
    assert told.beside
    assert (twelve.beside, twelve.added_m3) == ((), None)
    assert "Twelve" in twelve.says


def test_the_dip_at_equality_is_one_and_the_same_everywhere() -> None:
    for air in (38.0, 39.999, 40.0, 40.001, 41.0):
        at = psi_settings(air=air)
        decision, short = decide(system(), at), summarize(system(), at)
        stopped = any(
            f.rule == "pre-charge-below-cut-in" and f.verdict == "stop" for f in decision.findings
        )
        assert isinstance(decision.chart, Ribbon)
        assert decision.chart.dips == short.dips == stopped == (air >= 39.9999)


@pytest.mark.parametrize(
    ("found", "verdict"), [(10.0, "caution"), (10.2, "pass"), (9.0, "caution")]
)
def test_ten_psi_found_is_a_sign_of_a_leak(found: float, verdict: str) -> None:
    of = system(found=Found(pre_charge_gauge_pa=found * PSI))
    told = {f.rule: f.verdict for f in decide(of, psi_settings()).findings}
    assert told["pre-charge-found"] == verdict


def test_seventy_five_psi_is_the_same_however_it_was_written() -> None:
    """Against 80 psi less 5, typed, converted and imported."""
    of = system(relief=Relief(present=True, setting_gauge_pa=80 * PSI))
    base = template_file("well_bladder", "x")
    base["system"]["relief"] = {"present": True, "setting_gauge_pa": 80 * PSI}
    ways = [
        75 * PSI,
        to_si(from_si(75 * PSI, "bar"), "bar"),
        round(75 * PSI, 1),
        80 * PSI - 5 * PSI,
        to_si(round(from_si(75 * PSI, "kPa"), 3), "kPa"),
    ]
    told = set()
    for way in ways:
        at = Settings(cut_in_gauge_pa=55 * PSI, cut_out_gauge_pa=way, pre_charge_gauge_pa=53 * PSI)
        file = {
            **base,
            "settings": {
                "cut_in_gauge_pa": 55 * PSI,
                "cut_out_gauge_pa": way,
                "pre_charge_gauge_pa": 53 * PSI,
            },
        }
        imported = read_document(file)
        told.add(tuple((f.rule, f.verdict) for f in decide(of, at).findings))
        assert decide(imported.system, imported.settings, imported.practice).verdict
    assert len(told) == 1


def test_what_cannot_be_told_names_a_reading_or_says_why() -> None:
    """With figures missing at random: never a bare "cannot tell", never a name out of the code."""
    rng = random.Random(20261125)
    for kind in KINDS.values():
        file = template_file(kind.id, "x")
        document = read_document(file)
        for _ in range(40):
            gaps = {
                name: None
                for name in ("least_cut_in_gauge_pa", "most_cut_out_gauge_pa", "earth_present")
                if rng.random() < 0.5
            }
            of = replace(document.system, switch=replace(document.system.switch, **gaps))
            for finding in run(kind.rules, figures_for(of, document.settings)):
                if finding.verdict == "cannot_tell":
                    assert finding.missing or finding.rule.untold
            for worded in decide(of, document.settings).findings:
                words = f"{worded.title} {worded.figure} {worded.advice} {worded.formula}"
                assert "_pa" not in words
                assert "None" not in words
                assert "{" not in words
