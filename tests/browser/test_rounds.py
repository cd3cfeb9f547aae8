"""Rounds and the system sheet: by date, systems added and retired, what past visits say."""

import json
import re

import pytest
from playwright.sync_api import Page, expect

from sites.models import Site, System
from visits.models import Photo

from .conftest import Opener
from .test_pages import no_serious_fault

pytestmark = pytest.mark.django_db(transaction=True)


def add(page: Page) -> None:
    page.get_by_role("button", name="Add a system").click()
    expect(page.get_by_role("dialog", name="Add a system")).to_be_visible()


def test_rounds_by_date_say_what_is_overdue_and_what_drifts(open_page: Opener) -> None:
    page = open_page()
    page.get_by_role("button", name="By date").click()
    overdue = page.get_by_role("region", name="Overdue")
    called = page.get_by_role("region", name="Visit left open")
    expect(called).to_contain_text("Millrace cottage")
    expect(called).to_contain_text("of air a year")
    expect(overdue).to_contain_text("Top-floor booster")
    expect(page.get_by_role("region", name="Never visited")).to_contain_text("Orchard house well")
    expect(overdue).to_contain_text("Its air may be out of its band now")
    expect(page.get_by_role("region", name="Due within a month")).to_contain_text(
        "Workshop compressor"
    )


def test_a_system_is_added_on_a_new_site_and_retired(open_page: Opener) -> None:
    page = open_page(390, 844, touch=True)
    page.emulate_media(reduced_motion="reduce")
    add(page)
    no_serious_fault(page)
    page.get_by_label("Name of the system").fill("Pond pump")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_text("Site is missing.")).to_be_visible()
    page.get_by_label(re.compile("^Site")).select_option(label="A new site")
    page.get_by_label("Name of the site").fill("Larkfield Nursery")
    page.get_by_label("Name of the system").fill("Pond pump")
    page.get_by_label(re.compile("^Kind")).select_option("cistern")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_text("Name is taken already")).to_be_visible()
    page.get_by_label("Name of the site").fill("Mill pond")
    page.get_by_role("button", name="Add it").click()
    page.get_by_role("button", name="Later").click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    made = System.objects.get(name="Pond pump")
    assert (made.site.name, made.document["system"]["kind"]) == ("Mill pond", "cistern")
    page.get_by_role("link", name="Pond pump").click()
    page.get_by_role("button", name="Retire it").click()
    expect(page.get_by_role("button", name="Bring it back")).to_be_visible()
    page.get_by_role("link", name="Rounds").click()
    expect(page.get_by_role("region", name="Retired")).to_contain_text("Pond pump")


def test_eight_presses_and_six_figures_lead_to_an_honest_proposal(open_page: Opener) -> None:
    page = open_page(390, 844, touch=True)
    page.emulate_media(reduced_motion="reduce")
    pressed = filled = 0

    def press(name: str) -> None:
        nonlocal pressed
        page.get_by_role("button", name=name, exact=True).click()
        pressed += 1

    def fill(label: str, text: str) -> None:
        nonlocal filled
        page.get_by_label(label, exact=True).fill(text)
        filled += 1

    press("Add a system")
    page.get_by_label(re.compile("^Site")).select_option(label="Larkfield Nursery")
    fill("Name of the system", "Paddock well")
    press("Add it")
    press("40/60 psi")
    no_serious_fault(page)
    press("Next plate")
    fill("Tank volume", "32")
    fill("Tank maximum pressure", "100")
    fill("Relief setting", "75")
    press("Next plate")
    fill("Pump flow", "8")
    press("Propose settings")
    shown = page.get_by_test_id("proposed")
    expect(shown).to_contain_text("By usual values only")
    expect(page.get_by_test_id("way-cards")).to_be_visible()
    expect(page.get_by_test_id("unread")).to_contain_text("pipe's rating")
    no_serious_fault(page)
    page.get_by_test_id("way-cards").get_by_role("button", name=re.compile("^Use")).first.click()
    expect(page.get_by_test_id("taken")).to_contain_text("Chosen")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_test_id("taken")).to_have_count(0)
    kept = System.objects.get(name="Paddock well").document["system"]
    assert kept["relief"]["present"]
    assert "system.tanks.0.volume_m3" not in kept["assumed"]
    assert (pressed <= 8, filled + 1 <= 6) == (True, True)


def test_usual_values_are_marked_until_read_and_lead_to_what_to_read(open_page: Opener) -> None:
    page = open_page(390, 844, touch=True)
    page.emulate_media(reduced_motion="reduce")
    add(page)
    page.get_by_label("Name of the system").fill("New well")
    page.get_by_label(re.compile("^Site")).select_option(label="Larkfield Nursery")
    page.get_by_role("button", name="Add it").click()
    picture = {"name": "cover.png", "mimeType": "image/png", "buffer": page.screenshot()}
    page.get_by_label("Photo, switch").set_input_files(picture)  # type: ignore[arg-type]
    expect(page.get_by_text("Photo saved with the visit.")).to_be_visible()
    assert Photo.objects.get().visit.system.name == "New well"
    page.get_by_role("button", name="Later").click()
    expect(page.get_by_test_id("soft-edge")).to_have_count(2)
    expect(page.locator("[data-within=drawdown]")).to_have_text("5.6 to 22.7usual")
    tank = page.locator("[data-plate=tank]")
    expect(tank).to_contain_text("usual value")
    page.get_by_role("button", name="Propose").click()
    expect(page.get_by_test_id("proposed")).to_contain_text("By usual values only")
    no_serious_fault(page)
    page.get_by_test_id("unread").get_by_role("button", name=re.compile("peak draw")).click()
    expect(page.get_by_label("Peak draw")).to_be_focused()
    page.get_by_role("button", name="Done").click()
    tank.click()
    page.get_by_role("button", name="It is so: Tank volume").click()
    page.get_by_role("button", name="Done").click()
    expect(tank).not_to_contain_text("usual, not read")
    expect(page.locator("[data-within=drawdown]")).to_have_text("10.7 to 12.1")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_test_id("kept")).to_be_visible()
    kept = System.objects.get(name="New well").document["system"]["assumed"]
    assert "system.tanks.0.volume_m3" not in kept
    assert "settings.cut_in_gauge_pa" not in kept
    assert "system.pump.flow_m3_s" in kept


def test_a_system_comes_out_of_a_file_and_a_bad_file_is_refused_by_field(open_page: Opener) -> None:
    page = open_page()
    given = System.objects.get(name="Byre well").document
    given["system"]["name"] = "Byre well, copied"
    add(page)
    page.get_by_label(re.compile("^Site")).select_option(label="Larkfield Nursery")
    for name, content in (
        ("notes.json", b"{ no"),
        ("odd.json", b'{"format": "zerodip-system", "version": 9}'),
    ):
        page.get_by_label(re.compile("file")).set_input_files(
            {"name": name, "mimeType": "application/json", "buffer": content}
        )
        if name == "notes.json":
            expect(page.get_by_role("alert")).to_contain_text("notes.json is no JSON file")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_text(re.compile("version", re.I)).first).to_be_visible()
    good = {
        "name": "byre.json",
        "mimeType": "application/json",
        "buffer": json.dumps(given).encode(),
    }
    page.get_by_label("Another file").set_input_files(good)  # type: ignore[arg-type]
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    assert (
        System.objects.get(name="Byre well, copied").document["system"]["tanks"]
        == given["system"]["tanks"]
    )
    assert Site.objects.count() == 5


def test_the_sheet_shows_what_past_visits_say_and_leads_to_them(open_page: Opener) -> None:
    page = open_page()
    page.get_by_role("link", name=re.compile("Potting-shed well All")).click()
    charge = page.locator("[data-series=pre_charge]")
    expect(charge).to_contain_text("1.4 psi lost a year")
    expect(page.get_by_text("Pre-charge leaves its band about")).to_be_visible()
    expect(page.get_by_text("This switch moves about")).to_be_visible()
    charge.get_by_text("As a table").click()
    expect(charge.get_by_role("row")).to_have_count(6)
    no_serious_fault(page)
    charge.get_by_role("link", name=re.compile("^38 psi")).last.click()
    expect(page.get_by_text("This visit is closed.")).to_be_visible()


def test_the_sheet_of_a_site_with_other_units_asks_in_them_from_the_start(
    open_page: Opener,
) -> None:
    page = open_page()
    asked: list[str] = []
    page.on(
        "request", lambda request: asked.append(request.url) if "units=us" in request.url else None
    )
    page.get_by_role("link", name=re.compile("Millrace cottage Short runs")).click()
    expect(page.get_by_test_id("timeline")).to_contain_text(
        "air 1.61 bar, left 1.97 bar / 2.96 bar, air 1.86 bar"
    )
    expect(page.locator("[data-series=pre_charge]")).to_contain_text("bar lost a year")
    expect(page.get_by_role("main")).not_to_contain_text("psi")
    page.get_by_role("button", name="psi · gal").click()
    expect(page.get_by_test_id("timeline")).to_contain_text("left 28.5 psi / 43 psi")
    assert len(asked) == 2  # the timeline and the trends, when other units were chosen
