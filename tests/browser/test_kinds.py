"""Every kind of system on Decide: its picture, its own readings, its main path; proposals, ways and
sizes."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from practice.models import WorkspacePractice
from sites.models import System
from zerodip.decide.judge import decide as core_decide
from zerodip.fileformat.document import read_document

from .conftest import Opener, decide
from .test_decide_page import drag, grip, result
from .test_pages import no_serious_fault

pytestmark = pytest.mark.django_db(transaction=True)

KINDS = [
    ("Byre well", "ribbon", ("drawdown", "run", "renewed", "air_left")),
    ("Twin-tank well", "ribbon", ("drawdown", "one_lost")),
    ("Glasshouse rainwater", "ribbon", ("drawdown", "trip_margin")),
    ("Top-floor booster", "ribbon", ("drawdown", "tap")),
    ("Workshop compressor", "ribbon", ("cut_out", "between", "pump_up", "duty", "leak")),
    ("Camper van pump", "window", ("running", "dead_head", "pulses", "drawdown")),
]


def verdict(page: Page, rule: str) -> Locator:
    return page.locator(f"[data-rule={rule}]")


def weigh(page: Page, tab: str) -> Locator:
    page.get_by_role("group", name="Compare other ways").get_by_role("button", name=tab).click()
    return page.get_by_role("dialog", name="Compare other ways")


def choose(page: Page, plate: str, label: str, word: str) -> None:
    """Opens a plate, answers one yes-or-no, and closes it."""
    page.locator(f"[data-plate={plate}]").click()
    page.get_by_role("group", name=label).get_by_role("button", name=word).click()
    page.get_by_role("button", name="Done").click()


@pytest.mark.parametrize(("name", "picture", "ids"), KINDS, ids=[kind[0] for kind in KINDS])
def test_each_kind_shows_what_the_core_says_in_its_own_picture(
    open_page: Opener, name: str, picture: str, ids: tuple[str, ...]
) -> None:
    page = decide(open_page(), name, picture)
    page.emulate_media(reduced_motion="reduce")
    document = read_document(System.objects.get(name=name).document)
    units = page.evaluate(
        "document.querySelector('[aria-label=Units] [aria-pressed=true]').textContent"
    )
    system = "metric" if "bar" in units else "us"
    told = core_decide(document.system, document.settings, document.practice, system)
    for figure in told.results:
        if figure.id in ids:
            expect(result(page, figure.id)).to_have_text(re.split(r"[ /]", figure.text)[0])
    assert set(ids) <= {figure.id for figure in told.results}
    no_serious_fault(page)
    before = grip(page, "Cut-out").get_attribute("aria-valuetext")
    drag(page, "Cut-out", 40)
    expect(grip(page, "Cut-out")).not_to_have_attribute("aria-valuetext", before or "")
    page.keyboard.press("Control+s")
    expect(page.get_by_test_id("kept")).to_be_visible()
    page.reload()
    expect(page.get_by_test_id(picture)).to_be_visible()
    assert grip(page, "Cut-out").get_attribute("aria-valuetext") != before


def test_a_waterlogged_tank_is_re_aired(open_page: Opener) -> None:
    page = decide(open_page(), "Byre well")
    expect(page.get_by_test_id("ghost").first).to_be_visible()
    expect(verdict(page, "air-left")).to_have_attribute("data-verdict", "caution")
    choose(page, "switch", "Drained and re-aired", "Yes")
    expect(result(page, "drawdown")).to_have_text("12")
    expect(page.get_by_test_id("ghost")).to_have_count(0)
    expect(verdict(page, "air-left")).to_have_attribute("data-verdict", "pass")


def test_untreated_water_wants_its_label(open_page: Opener) -> None:
    page = decide(open_page(), "Glasshouse rainwater")
    expect(verdict(page, "non-potable-label")).to_contain_text("Untreated water without a label")
    choose(page, "house", "Tank and lines labelled non-potable", "Yes")
    expect(verdict(page, "non-potable-label")).to_have_attribute("data-verdict", "pass")


def test_one_screw_moves_both_points_and_the_plate_holds_it(open_page: Opener) -> None:
    page = decide(open_page(), "Workshop compressor")
    expect(page.get_by_test_id("settled")).to_be_visible()
    grip(page, "Cut-out").focus()
    page.keyboard.press("ArrowDown")
    expect(grip(page, "Cut-out")).to_have_attribute("aria-valuetext", "139 psi")
    expect(grip(page, "Cut-in")).to_have_attribute("aria-valuetext", "114 psi")
    for key in ("PageDown", "PageDown", "End", "ArrowUp"):
        page.keyboard.press(key)
    expect(
        page.get_by_text("Held a tenth below the safety valve, 150 psi, less 1 psi for the gauge.")
    ).to_be_visible()


def test_a_tankless_cut_out_over_the_window_never_stops_and_under_it_chatters(
    open_page: Opener,
) -> None:
    page = decide(open_page(), "Galley pump", "window")
    expect(page.get_by_test_id("window-caption")).to_have_text(
        "Cut-out between 35.5 psi and 55.1 psi."
    )
    grip(page, "Cut-out").focus()
    page.keyboard.press("PageUp")
    page.keyboard.press("PageUp")
    expect(verdict(page, "cut-out-stops")).to_have_attribute("data-verdict", "stop")
    for _ in range(5):
        page.keyboard.press("PageDown")
    expect(verdict(page, "cut-out-steady")).to_have_attribute("data-verdict", "caution")
    expect(page.get_by_text("chatters as fast as the switch can")).to_be_visible()


def test_no_window_is_shown_and_an_accumulator_sized(open_page: Opener) -> None:
    page = decide(open_page(390, 844, touch=True), "Camper van pump", "window")
    expect(page.get_by_test_id("no-window")).to_be_visible()
    expect(page.get_by_test_id("window-caption")).to_contain_text("No cut-out works")
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    shown = weigh(page, "Sizes")
    expect(shown.get_by_test_id("sized")).to_contain_text("For at most 6/min pulses")
    expect(shown.get_by_role("row", name=re.compile("3 L.*enough"))).to_be_visible()


def test_one_press_proposes_and_what_is_taken_is_kept(open_page: Opener) -> None:
    page = decide(open_page(), "Orchard house well")
    page.keyboard.press("p")
    shown = page.get_by_role("dialog", name="Compare other ways")
    expect(shown.get_by_test_id("proposed")).to_contain_text("30/50")
    expect(shown.get_by_test_id("ways")).to_contain_text("Usual switch settings")
    expect(
        shown.get_by_test_id("ways").get_by_text(
            "Pre-charge at or above cut-in; Dips while the pump starts"
        )
    ).to_be_visible()
    shown.get_by_role("button", name="Use these settings").click()
    expect(shown).to_be_hidden()
    expect(grip(page, "Pre-charge")).to_have_attribute("aria-valuetext", "28 psi")
    expect(verdict(page, "start-dip")).to_have_attribute("data-verdict", "pass")
    # At rest: by what the peak draw may be off by, the opposite is not unlikely.
    expect(verdict(page, "keeps-up")).to_have_attribute("data-verdict", "cannot_tell")
    page.keyboard.press("Control+s")
    expect(page.get_by_test_id("kept")).to_be_visible()
    assert System.objects.get(name="Orchard house well").summary["stops"] == 0


def test_two_ways_stand_against_each_other_and_one_is_followed_here_only(open_page: Opener) -> None:
    page = decide(open_page())
    shown = weigh(page, "Ways")
    shown.get_by_label("Against").select_option("five_below")
    expect(shown.get_by_role("row", name="Pre-charge 38 psi 35 psi")).to_be_visible()
    shown.get_by_role("button", name="Follow").click()
    page.keyboard.press("Escape")
    expect(page.locator("[data-plate=practice]")).to_contain_text("of its own")
    expect(verdict(page, "pre-charge-practice")).to_have_attribute("data-verdict", "caution")


def test_a_wanted_run_is_sized_and_a_bad_one_refused_beside_the_field(open_page: Opener) -> None:
    page = decide(open_page())
    shown = weigh(page, "Sizes")
    shown.get_by_role("button", name="Run at least").click()
    shown.get_by_label("Run wanted").fill("2 min")
    expect(shown.get_by_text("Run wanted is not a number.")).to_be_visible()
    shown.get_by_label("Run wanted").fill("120")
    expect(shown.get_by_test_id("sized")).to_contain_text("For a run of 120 s")
    expect(shown.get_by_role("row", name=re.compile("too small")).first).to_be_visible()


def test_the_workspace_s_practice_and_sizes_reach_every_system_that_follows(
    open_page: Opener,
) -> None:
    page = open_page()
    page.get_by_role("link", name="Practice").click()
    page.get_by_label("Tank sizes that can be bought").fill("30 big 90")
    page.get_by_role("button", name="Save this practice").click()
    expect(page.get_by_text("Nominal size is not a number.")).to_be_visible()
    page.get_by_label("Tank sizes that can be bought").fill("30 75 90")
    page.get_by_label("Way of pre-charging").select_option("five_below")
    page.get_by_label("Reason").fill("Cut-offs on every round")
    page.get_by_role("button", name="Save this practice").click()
    expect(page.get_by_text("Saved; the systems that follow it are judged by it.")).to_be_visible()
    assert WorkspacePractice.objects.get().practice["reason"] == "Cut-offs on every round"
    page.get_by_role("link", name="Rounds").click()
    decide(page)
    expect(verdict(page, "pre-charge-practice")).to_have_attribute("data-verdict", "caution")
    shown = weigh(page, "Sizes")
    expect(shown.get_by_text("Sizes from the workspace’s own list.")).to_be_visible()
    expect(shown.get_by_role("row", name=re.compile("^75 gal"))).to_be_visible()


def test_a_curve_whose_head_rises_is_refused_by_point(open_page: Opener) -> None:
    page = decide(open_page())
    page.locator("[data-plate=pump]").click()
    page.get_by_label("Head", exact=True).nth(2).fill("300")
    fault = page.get_by_role("dialog").get_by_text(
        "Head of point 3 must be less than the point before it"
    )
    expect(fault).to_be_visible()
    page.get_by_role("button", name="Take point 5 out").click()
    expect(page.get_by_role("textbox", name="Head", exact=True)).to_have_count(4)
