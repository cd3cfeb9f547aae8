"""All pages: order of the list, phone, Cellar, accessibility, signing in and out."""

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.serving import Served

from .conftest import Opener, decide

pytestmark = pytest.mark.django_db(transaction=True)


def no_serious_fault(page: Page) -> None:
    found = Axe().run(page).response["violations"]
    serious = [
        f"{v['id']}: {v['nodes'][0]['html'][:160]}"
        for v in found
        if v["impact"] in ("serious", "critical")
    ]
    assert serious == []


@pytest.mark.parametrize("theme", ["day", "cellar"])
def test_no_page_has_a_serious_accessibility_fault(open_page: Opener, theme: str) -> None:
    page = open_page(theme=theme)
    page.emulate_media(
        reduced_motion="reduce"
    )  # contrast is judged at rest, not while a sheet fades in
    no_serious_fault(page)
    page.get_by_role("link", name="Orchard house well Pre-charge").click()
    expect(page.get_by_role("heading", name="Orchard house well")).to_be_visible()
    no_serious_fault(page)
    page.get_by_role("link", name="Decide").click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    no_serious_fault(page)
    for plate in ("tank", "switch", "pump", "practice"):
        page.locator(f"[data-plate={plate}]").click()
        expect(page.get_by_role("dialog")).to_be_visible()
        no_serious_fault(page)
        page.keyboard.press("Escape")
    for tab, shown in (("Propose", "ways"), ("Ways", "ways-compared"), ("Sizes", "sized")):
        page.get_by_role("group", name="Compare other ways").get_by_role("button", name=tab).click()
        expect(page.get_by_test_id(shown)).to_be_visible()
        no_serious_fault(page)
        page.keyboard.press("Escape")
    page.get_by_role("link", name="Practice").click()
    expect(page.get_by_role("button", name="Save this practice")).to_be_visible()
    no_serious_fault(page)


def test_rounds_list_first_what_needs_a_person_and_find_by_name(open_page: Opener) -> None:
    page = open_page()
    names = page.locator("li a:first-child .text-lg.font-bold").all_text_contents()
    assert names == [
        "Top-floor booster",
        "Millrace cottage",
        "Orchard house well",
        "Glasshouse rainwater",
        "Potting-shed well",
        "Byre well",
        "Workshop compressor",
        "Twin-tank well",
        "Camper van pump",
        "Galley pump",
    ]
    page.get_by_placeholder("Find a site or a system").fill("quill")
    expect(page.get_by_text("Potting-shed well")).to_be_hidden()
    expect(page.get_by_text("Millrace cottage")).to_be_visible()


def test_on_a_phone_nothing_is_cut_off_and_targets_are_large(open_page: Opener) -> None:
    page = open_page(390, 844, touch=True, theme="cellar")
    for step in (lambda: None, lambda: decide(page)):
        step()
        assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
        small = page.evaluate(
            """() => [...document.querySelectorAll('button, summary, a, [role=slider]')]
              .filter((e) => e.offsetParent !== null || e instanceof SVGElement)
              .filter((e) => !e.closest('dialog:not([open])'))
              .map((e) => [e.textContent.trim().slice(0, 30), e.getBoundingClientRect()])
              .filter(([, box]) => box.height > 0 && box.height < 47.5 && box.width > 0)
              .map(([text, { width, height }]) => `${text}: ${Math.round(width)} × ${height}`)"""
        )
        assert [entry for entry in small if not entry.startswith("Potting-shed")] == []
    before = page.locator("[data-result=drawdown]").text_content()
    page.evaluate("""() => {
          const pill = document.querySelector('[data-grip=cut_out]')
          const box = pill.querySelectorAll('rect')[1].getBoundingClientRect()
          pill.setPointerCapture = () => {}
          const at = (y) => ({
            pointerId: 1, pointerType: "touch", bubbles: true,
            clientX: box.x + 20, clientY: box.y + y,
          })
          pill.dispatchEvent(new PointerEvent('pointerdown', at(20)))
          pill.dispatchEvent(new PointerEvent('pointermove', at(60)))
          pill.dispatchEvent(new PointerEvent('pointerup', at(60)))
        }""")
    expect(page.locator("[data-result=drawdown]")).not_to_have_text(before or "")
    expect(page.get_by_role("button", name="Save", exact=True)).to_be_in_viewport()
    expect(page.get_by_test_id("sum")).to_contain_text("caution")


def test_light_and_units_are_one_key_away_and_stay(open_page: Opener) -> None:
    page = open_page()
    page.keyboard.press("l")
    expect(page.locator("html")).to_have_attribute("data-theme", "cellar")
    page.keyboard.press("u")
    expect(page.get_by_role("button", name="bar · L")).to_have_attribute("aria-pressed", "true")
    page.reload()
    expect(page.locator("html")).to_have_attribute("data-theme", "cellar")
    expect(page.get_by_role("button", name="bar · L")).to_have_attribute("aria-pressed", "true")


def test_signing_in_by_name_and_out_again(open_page: Opener, server: Served) -> None:
    page = open_page()
    page.get_by_role("button", name="Sign out").click()
    page.get_by_label("Name").fill("demo")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_have_text("Name and password do not match.")
    page.get_by_label("Password").fill("for tests only")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("heading", name="Rounds")).to_be_visible()
    page.goto(f"{server.url}/nowhere")
    expect(page.get_by_role("heading", name="Nothing is at this address")).to_be_visible()
    page.goto(f"{server.url}/systems/00000000-0000-4000-8000-000000000000")
    expect(page.get_by_role("heading", name="No such system")).to_be_visible()


def test_a_phone_may_keep_it_as_an_application(open_page: Opener) -> None:
    """By Chromium's own reader of manifests, and what it asks of what is installed."""
    page = open_page()
    chromium = page.context.new_cdp_session(page)
    manifest = chromium.send("Page.getAppManifest")
    assert manifest["url"].endswith("/static/app.webmanifest")
    assert manifest["errors"] == []
    missing = chromium.send("Page.getInstallabilityErrors")["installabilityErrors"]
    assert [each for each in missing if each["errorId"] != "in-incognito"] == []
