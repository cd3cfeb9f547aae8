"""The main job in the browser: drag, keys, plates, units, bad input, keeping, finding again."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from sites.models import Decision, System
from tests.serving import Served
from zerodip.decide.judge import decide as core_decide
from zerodip.fileformat.document import read_document
from zerodip.kinds.settings import Settings
from zerodip.units import PSI

from .conftest import Opener, decide

SYSTEM = re.compile(r"/api/systems/[^/]+$")
pytestmark = pytest.mark.django_db(transaction=True)


def grip(page: Page, name: str) -> Locator:
    return page.get_by_role("slider", name=name, exact=True)


def drag(page: Page, name: str, pixels: int) -> None:
    """Drags a grip down (up, if negative) by its pill."""
    box = grip(page, name).locator("rect").nth(1).bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(1, 9):
        page.mouse.move(x, y + pixels * step / 8)
    page.mouse.up()


def result(page: Page, name: str) -> Locator:
    return page.locator(f"[data-result={name}]")


def test_dragging_cut_out_shows_what_the_core_says(open_page: Opener) -> None:
    page = decide(open_page())
    expect(result(page, "drawdown")).to_have_text("11.5")
    drag(page, "Cut-out", 60)
    expect(result(page, "drawdown")).not_to_have_text("11.5")
    psi = float(re.sub(r"\D", "", grip(page, "Cut-out").text_content() or ""))
    assert 45 < psi < 58
    document = read_document(System.objects.get(name="Potting-shed well").document)
    at = Settings(
        cut_in_gauge_pa=40 * PSI, cut_out_gauge_pa=psi * PSI, pre_charge_gauge_pa=38 * PSI
    )
    told = {a.id: a.text for a in core_decide(document.system, at, document.practice).results}
    for name in ("drawdown", "run", "starts", "reserve"):
        expect(result(page, name)).to_have_text(re.split(r"[ /]", told[name])[0])
    expect(page.locator("[data-rule=differential]")).to_have_attribute("data-verdict", "caution")


def test_a_drag_stops_at_the_relief_valve_with_the_reason(open_page: Opener) -> None:
    page = decide(open_page())
    drag(page, "Cut-out", -300)
    expect(grip(page, "Cut-out")).to_contain_text("74")
    expect(page.get_by_text("Held at the relief valve, 75 psi")).to_be_visible()


def test_keys_move_a_grip_and_say_its_value(open_page: Opener) -> None:
    page = decide(open_page())
    air = grip(page, "Pre-charge")
    air.focus()
    for key, value in (
        ("ArrowUp", "39"),
        ("ArrowDown", "38"),
        ("PageDown", "33"),
        ("Home", "0"),
        ("PageUp", "5"),
    ):
        page.keyboard.press(key)
        expect(air).to_have_attribute("aria-valuetext", f"{value} psi")
    page.keyboard.press("End")
    expect(page.get_by_test_id("dip")).to_be_visible()
    expect(page.locator("[data-rule=pre-charge-below-cut-in]")).to_have_attribute(
        "data-verdict", "stop"
    )
    page.keyboard.press("Shift+?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()


def test_what_is_kept_is_found_after_reload_and_after_the_server_started_again(
    open_page: Opener, server: Served
) -> None:
    page = decide(open_page())
    grip(page, "Cut-in").focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Control+s")
    expect(page.get_by_test_id("kept")).to_contain_text("by Demo technician")
    assert Decision.objects.get().document["entered"]["settings.cut_in_gauge_pa"] == {
        "text": "39",
        "unit": "psi",
    }
    server.stop()
    server.start()
    page.reload()
    expect(grip(page, "Cut-in")).to_contain_text("39")
    expect(page.get_by_test_id("kept")).to_be_visible()
    page.get_by_role("link", name="Potting-shed well").click()
    expect(page.get_by_role("row", name=re.compile("Demo technician.*39 psi"))).to_be_visible()


def test_what_is_not_kept_yet_survives_a_reload_and_can_be_put_back(open_page: Opener) -> None:
    page = decide(open_page())
    grip(page, "Cut-out").focus()
    page.keyboard.press("ArrowDown")
    page.reload()
    expect(page.get_by_text("Your unsaved changes are back.")).to_be_visible()
    expect(grip(page, "Cut-out")).to_contain_text("59")
    page.get_by_role("button", name="Undo changes").click()
    expect(grip(page, "Cut-out")).to_contain_text("60")
    assert not Decision.objects.exists()


def test_bad_values_are_refused_beside_the_field_and_nothing_typed_is_lost(
    open_page: Opener,
) -> None:
    page = decide(open_page())
    before = System.objects.values().get(name="Potting-shed well")
    page.locator("[data-plate=switch]").click()
    page.get_by_role("textbox", name="Cut-in", exact=True).fill("4o")
    page.get_by_role("textbox", name="Cut-out", exact=True).fill("1000000000")
    expect(
        page.get_by_text("Cut-in is not a number. Allowed: 1 psi to 250 psi.", exact=True)
    ).to_be_visible()
    expect(
        page.get_by_text("Cut-out is 1,000,000,000 psi; allowed 2 psi to 300 psi.", exact=True)
    ).to_be_visible()
    page.get_by_role("button", name="Done").click()
    expect(page.locator("[data-plate=switch]")).to_contain_text("2 to correct")
    expect(page.get_by_role("button", name="Save", exact=True)).to_be_disabled()
    page.reload()
    expect(page.get_by_role("heading", name="values to correct")).to_be_visible()
    page.locator("[data-plate=switch]").click()
    expect(page.get_by_role("textbox", name="Cut-in", exact=True)).to_have_value("4o")
    page.get_by_role("textbox", name="Cut-in", exact=True).fill("41.5")
    page.get_by_role("textbox", name="Cut-out", exact=True).fill("61")
    page.get_by_role("button", name="Done").click()
    expect(grip(page, "Cut-in")).to_contain_text("41.5")
    assert System.objects.values().get(name="Potting-shed well") == before


def test_plates_edit_tanks_and_pump_and_the_results_follow(open_page: Opener) -> None:
    page = decide(open_page(), "Orchard house well")
    page.locator("[data-plate=tank]").click()
    page.get_by_role("button", name="Add a tank beside it").click()
    expect(page.get_by_role("group", name="Tank 2")).to_be_visible()
    page.get_by_role("button", name="Done").click()
    expect(result(page, "drawdown")).to_have_text("12.1")
    page.locator("[data-plate=pump]").click()
    page.get_by_label("What is known of the pump").select_option("curve")
    expect(page.get_by_text("Head is missing.").first).to_be_visible()
    page.get_by_label("What is known of the pump").select_option("constant")
    page.get_by_role("button", name="Done").click()
    expect(result(page, "dead_head")).to_have_text("not known")
    expect(page.locator("[data-rule=dead-head]")).to_have_attribute("data-verdict", "cannot_tell")


def test_what_cannot_be_told_leads_to_the_reading_that_is_missing(open_page: Opener) -> None:
    page = decide(open_page(), "Millrace cottage")
    page.locator("summary", has_text="missing").click()
    finding = page.locator("[data-rule=relief-present]")
    expect(page.locator("[data-remedy]").first).to_be_visible()  # judged anew meanwhile
    finding.locator("summary").click()
    finding.get_by_role("button", name="Enter it now").click()
    seen = page.get_by_role("group", name="Relief valve seen")
    expect(seen).to_be_focused()
    seen.get_by_role("button", name="No", exact=True).click()
    page.get_by_role("button", name="Done").click()
    expect(finding).to_have_attribute("data-verdict", "stop")
    expect(finding).to_contain_text("Never plug, remove or raise one.")


def test_units_switch_everywhere_and_the_site_remembers(open_page: Opener) -> None:
    page = decide(open_page())
    page.get_by_role("button", name="bar · L").click()
    expect(grip(page, "Cut-out")).to_contain_text("4.14")
    expect(result(page, "drawdown")).to_have_text("44")
    page.reload()
    expect(grip(page, "Cut-in")).to_contain_text("2.76")
    assert System.objects.get(name="Potting-shed well").site.units == "metric"


def test_the_dip_is_seen_in_ribbon_strip_and_verdict(open_page: Opener) -> None:
    page = decide(open_page(), "Orchard house well")
    expect(page.get_by_test_id("dip")).to_be_visible()
    expect(page.get_by_test_id("simulation-caption")).to_contain_text("taps dry")
    finding = page.locator("[data-rule=start-dip]")
    finding.locator("summary").click()
    expect(finding).to_contain_text("Q over the lag of 2 s")
    expect(finding).to_contain_text("0.34 gal > 0 gal")
    expect(finding).to_contain_text("Gas law")
    grip(page, "Pre-charge").focus()
    for _ in range(2):
        page.keyboard.press("PageDown")
    expect(page.get_by_test_id("simulation-caption")).to_contain_text("no dip")


def test_the_strip_follows_its_draw_and_goes_to_the_worst(open_page: Opener) -> None:
    page = decide(open_page(), "Millrace cottage")
    slider = page.get_by_role("slider", name="Draw")
    expect(page.get_by_test_id("simulation-caption")).to_contain_text("19 starts")
    slider.fill("4")
    expect(page.get_by_test_id("simulation-caption")).not_to_contain_text("19 starts")
    page.keyboard.press("w")
    expect(page.get_by_test_id("simulation-caption")).to_contain_text("19 starts")


def test_what_was_seen_on_the_last_visit_counts(open_page: Opener) -> None:
    page, loads = open_page(), list[str]()
    page.on("request", lambda r: loads.append(r.url) if SYSTEM.search(r.url) else None)
    decide(page, "Millrace cottage")
    seen = page.get_by_role("list", name=re.compile("^Seen on the visit of "))
    expect(seen.get_by_role("listitem").first).to_contain_text("Seen on the visit of")
    ruled = page.locator("[data-rule]:is([data-verdict=stop], [data-verdict=caution])").count()
    counts = page.get_by_test_id("counts").get_by_role("listitem").all_inner_texts()
    told = sum(int(re.sub(r"\D", "", text)) for text in counts[:2])
    assert told == ruled + seen.get_by_role("listitem").count()
    assert len(loads) == 1  # what comes later does not load the system over what is being changed
    page.get_by_role("button", name="Propose").click()
    expect(page.get_by_test_id("seen-too")).to_contain_text("Short cycling as found")


def test_two_people_do_not_overwrite_each_other_unseen(open_page: Opener) -> None:
    one, two = decide(open_page()), decide(open_page())
    for page, key in ((one, "ArrowUp"), (two, "ArrowDown")):
        grip(page, "Cut-out").focus()
        page.keyboard.press(key)
        page.get_by_role("button", name="Save", exact=True).click()
        if page is one:
            expect(page.get_by_test_id("kept")).to_be_visible()
    alert = two.get_by_role("alert")
    expect(alert).to_contain_text("Stored now: in 40 psi, out 61 psi")
    expect(alert).to_contain_text("Yours: in 40 psi, out 59 psi")
    two.get_by_role("button", name="Use mine").click()
    expect(two.get_by_test_id("kept")).to_be_visible()
    assert Decision.objects.count() == 2
