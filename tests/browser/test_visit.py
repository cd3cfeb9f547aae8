"""A whole visit on a phone, from watching to closing: reloads, no signal, a wrong reading, two
people."""

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Any
from urllib.parse import urljoin, urlparse

import pytest
from django.db.models import QuerySet
from playwright.sync_api import Locator, Page, expect

from sites.models import System
from tests.server.test_photos import images
from visits.models import Entry, Visit
from zerodip.units import PSI

from .conftest import Opener
from .test_pages import no_serious_fault

pytestmark = pytest.mark.django_db(transaction=True)

WELL = "Potting-shed well"


def visit(page: Page, system: str = WELL) -> Page:
    page.get_by_role("button", name=re.compile(f"^(Visit|Go on with the visit), {system}$")).click()
    expect(page.get_by_role("navigation", name="Steps of the visit")).to_be_visible()
    return page


def step(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Steps of the visit").get_by_role(
        "button", name=name
    ).click()
    expect(page.get_by_role("heading", name=name, exact=True)).to_be_visible()


def put(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def checkbox(page: Page, name: str) -> Locator:
    return page.get_by_role("checkbox", name=re.compile(f"^{name}"))


def confirm(page: Page, name: str) -> None:
    box = checkbox(page, name)
    box.click()
    expect(box).to_be_checked()


def kept(page: Page, slot: str) -> list[Any]:
    """What reached the server of a slot, once nothing waits any more."""
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    return list(entries(page).filter(slot=slot).values_list("value", flat=True))


def entries(page: Page) -> QuerySet[Entry]:
    """All that is on record of the visit that is open on a page."""
    return Entry.objects.filter(visit=urlparse(page.url).path.split("/")[2])


@dataclass
class Nuts:
    """A switch at the technician's hands: where its points stand, psi, and how it answers to
    turns."""

    cut_in: float = 32.0
    cut_out: float = 51.0

    def turn(self, said: str) -> None:
        first, second = (_turns(said, nut) for nut in ("range nut", "differential nut"))
        self.cut_in += 2.1 * first
        self.cut_out += 2.2 * first + 2.7 * second

    def seen(self) -> tuple[str, str]:
        return f"{round(2 * self.cut_in) / 2:g}", f"{round(2 * self.cut_out) / 2:g}"


def _turns(said: str, nut: str) -> float:
    found = re.search(nut + r": ([\d/ ]+) turns? (clock|anti)", said)
    if not found:
        return 0.0
    size = float(sum(Fraction(part) for part in found[1].split()))
    return size if found[2] == "clock" else -size


def make_safe(page: Page) -> None:
    expect(page.get_by_test_id("drain")).to_contain_text("through a hose")
    expect(checkbox(page, "Drain until")).to_be_disabled()
    for name in (
        "Children, pets",
        "A well pit",
        "Breaker off",
        "Prove it dead",
        "Shut the house",
        "Hose on",
        "Drain until",
    ):
        confirm(page, name)
    expect(page.get_by_test_id("power")).to_contain_text("proved dead")


def watch(page: Page) -> None:
    """The first step: the complaint, a run timed, both points; one misread and put right."""
    page.get_by_role("button", name="Clicks often").click()
    put(page, "Gauge now", "45")
    page.get_by_text("How far the gauge may be off").click()
    put(page, "Gauge reads to within", "0.5")
    put(page, "Cut-out as found", "51")
    put(page, "Cut-in as found", "52")
    expect(page.get_by_text("were they read the other way round?")).to_be_visible()
    page.reload()
    expect(page.get_by_label("Cut-in as found", exact=True)).to_have_value("52")
    put(page, "Cut-in as found", "32")
    expect(page.get_by_text("were they read the other way round?")).to_have_count(0)
    expect(page.get_by_role("button", name="Watch 32/51 psi")).to_be_visible()


def read(page: Page) -> None:
    put(page, "Pre-charge found, tank drained", "30")
    switch = page.get_by_role("region", name="At the switch")
    switch.get_by_role("group", name="Corrosion").get_by_role("button", name="Yes").click()
    switch.get_by_role("button", name="The rest is good").click()
    expect(page.get_by_role("button", name="Read 8 of 13")).to_be_visible()
    assert kept(page, "found.earth_missing") == [False]


def power(page: Page, on: bool) -> None:
    names = ["Cover back on"] if on else ["Breaker off", "Prove it dead"]
    for name in names:
        checkbox(page, name).click()
    expect(page.get_by_test_id("power")).to_contain_text("Power on" if on else "proved dead")


def looks(page: Page) -> int:
    """How many looks at the gauge the page has drawn; the first is that of the points as found."""
    drawn = page.get_by_role("img", name=re.compile(r"^\d+ looks "))
    return int((drawn.get_attribute("aria-label") or "1").split()[0]) if drawn.count() else 1


def look(page: Page, low: str, high: str) -> None:
    put(page, "Cut-in seen on the gauge", low)
    put(page, "Cut-out seen on the gauge", high)
    before = looks(page)
    page.get_by_role("button", name=re.compile("^Log|^Save the corr")).click()
    expect(
        page.get_by_label("Cut-in seen on the gauge", exact=True).or_(
            page.get_by_test_id("instruction")
        )
    ).not_to_have_count(0)
    expect(page.get_by_role("img", name=f"{before + 1} looks")).to_be_visible()


def set_switch(page: Page, nuts: Nuts) -> int:
    """By what the page says, until it says that it is set; gives how often the nuts were turned."""
    instruction, turned = page.get_by_test_id("instruction"), 0
    for _ in range(25):
        expect(instruction).to_be_visible()
        if "● Set" in instruction.inner_text():
            return turned
        proceed = page.get_by_role("button", name="Done turning")
        if proceed.count():
            if "proved dead" not in (page.get_by_test_id("power").all_inner_texts() or [""])[0]:
                expect(proceed).to_be_disabled()
                power(page, on=False)
            nuts.turn(instruction.get_attribute("aria-label") or "")
            proceed.click()
            turned += 1
            expect(instruction).to_contain_text("Turned.")
            if turned == 1:
                page.reload()
                expect(instruction).to_contain_text("Turned.")
            power(page, on=True)
        elif checkbox(page, "Cover back on").count():
            power(page, on=True)
        look(page, *nuts.seen())
    raise AssertionError("the switch was never called set")


def test_a_whole_visit_on_a_phone(open_page: Opener) -> None:
    page, nuts = visit(open_page(390, 844, touch=True)), Nuts()
    watch(page)
    page.get_by_role("button", name="Next: Make safe").click()
    make_safe(page)
    page.get_by_role("button", name="Next: Read").click()
    read(page)
    assert [round(value / PSI) for value in kept(page, "found.cut_in")] == [52, 32]
    page.get_by_role("button", name="Next: Decide").click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.get_by_role("button", name="Save, then set").click()
    expect(page.get_by_test_id("air")).to_contain_text("Add 7.1 psi")
    put(page, "Read again: pre-charge left", "37")
    confirm(page, "Valve cap back on")
    assert 1 <= set_switch(page, nuts) <= 4
    said = re.search(r"within ([\d.]+) psi", page.get_by_test_id("instruction").inner_text())
    assert said is not None
    promised = float(said.group(1))
    assert max(abs(nuts.cut_in - 40), abs(nuts.cut_out - 60)) <= promised
    page.get_by_role("button", name="Next: Prove").click()
    page.clock.install()
    for seconds in (68, 200, 69):
        page.keyboard.press("Space")
        page.clock.fast_forward(seconds * 1000)
    page.get_by_test_id("stopwatch").click()
    expect(page.get_by_test_id("laps").get_by_role("row")).to_have_count(3)
    expect(page.get_by_test_id("measured")).to_contain_text("wanted 60 s or more")
    for seconds in (12, 90, 601):
        page.keyboard.press("Space")
        page.clock.fast_forward(seconds * 1000)
        if seconds == 90:
            expect(page.get_by_role("alert")).to_contain_text("Short cycling")
    expect(page.get_by_role("alert")).to_contain_text("It does not stop.")
    page.get_by_role("button", name="Stop the watch").click()
    page.get_by_role("button", name="Next: Hand over").click()
    expect(page.get_by_role("row", name=re.compile("Pre-charge 30 psi 37 psi"))).to_be_visible()
    expect(page.get_by_test_id("next-check")).to_contain_text("(every year)")
    page.get_by_role("button", name="Close the visit").click()
    page.get_by_role("button", name="Close and lock").click()
    expect(page.get_by_text("This visit is closed.")).to_be_visible()
    page.get_by_role("button", name="Correct a reading").click()
    page.get_by_label("Reading", exact=True).select_option(label="Cut-in as found: 32 psi")
    put(page, "As the gauge showed", "35")
    page.get_by_role("button", name="Add the correction").click()
    expect(page.get_by_test_id("corrections")).to_contain_text("32 psi → 35 psi")
    page.get_by_role("button", name="Make a link for the customer").click()
    address = page.get_by_test_id("links").get_by_role("link").get_attribute("href")
    paper = page.context.browser.new_page()  # somebody else's: not signed in
    paper.goto(str(address))
    expect(paper.get_by_role("row", name=re.compile("Pre-charge 30 psi 37 psi"))).to_be_visible()
    no_serious_fault(paper)
    page.get_by_role("button", name="Stop sharing").click()
    expect(page.get_by_test_id("links")).to_contain_text("No longer shared")
    paper.reload()
    expect(paper.get_by_role("heading", name="This link is no longer good")).to_be_visible()
    paper.close()
    made = Visit.objects.latest("opened_at")
    assert made.closed_at is not None
    range_nut = next(s for s in made.learned if (s["nut"], s["point"]) == ("range", "cut_in"))
    assert range_nut["mean_pa"] / PSI == pytest.approx(2.1, abs=0.4)
    assert System.objects.get(name=WELL).document["system"]["found"][
        "pre_charge_gauge_pa"
    ] == pytest.approx(30 * PSI)


# Counts what a hand does, over reloads: presses of the screen, and figures typed.
COUNTING = """
for (const [what, seen] of [['click', 'taps'], ['change', 'figures']])
  addEventListener(what, event => {
    if (!event.isTrusted || (what === 'change' && event.target.inputMode !== 'decimal')) return
    sessionStorage.setItem(seen, Number(sessionStorage.getItem(seen)) + 1)
  }, true)
"""


def test_a_known_system_takes_thirty_taps_and_nine_figures(open_page: Opener) -> None:
    """From Rounds to the closed visit, and a reload in the middle."""
    page, nuts = open_page(390, 844, touch=True), Nuts(cut_in=37, cut_out=57)
    page.context.add_init_script(COUNTING)
    page.reload()
    visit(page)
    put(page, "Gauge now", "45")
    page.clock.install()
    page.get_by_test_id("stopwatch").click()
    page.clock.fast_forward(62_000)
    page.get_by_test_id("stopwatch").click()
    page.clock.resume()
    put(page, "Cut-in as found", "37")
    put(page, "Cut-out as found", "57")
    page.get_by_role("button", name="Next: Make safe").click()
    make_safe(page)
    page.reload()
    page.get_by_role("button", name="Next: Read").click()
    put(page, "Pre-charge found, tank drained", "34")
    page.get_by_role("button", name="Next: Decide").click()
    page.get_by_role("button", name="Save, then set").click()
    put(page, "Read again: pre-charge left", "37")
    confirm(page, "Valve cap back on")
    set_switch(page, nuts)
    page.get_by_role("button", name="Next: Prove").click()
    page.get_by_test_id("stopwatch").click()
    page.clock.fast_forward(68_000)
    page.get_by_test_id("stopwatch").click()
    expect(page.get_by_test_id("measured")).to_be_visible()
    page.get_by_role("button", name="Next: Hand over").click()
    for name in ("Drain shut", "House valve", "Label on", "Told what"):
        confirm(page, name)
    page.get_by_role("button", name="Close the visit").click()
    page.get_by_role("button", name="Close and lock").click()
    expect(page.get_by_text("This visit is closed.")).to_be_visible()
    taps, figures = (
        int(page.evaluate(f"sessionStorage.getItem('{what}')")) for what in ("taps", "figures")
    )
    assert taps <= 30, taps
    assert figures <= 9, figures


def test_a_wrong_look_is_corrected_and_both_stay_on_record(open_page: Opener) -> None:
    page = visit(open_page(390, 844, touch=True))
    step(page, "Set")
    power(page, on=True)
    put(page, "Cut-in seen on the gauge", "40")
    put(page, "Cut-out seen on the gauge", "95")
    page.get_by_role("button", name="Log this look").click()
    page.get_by_text("Correct a reading").click()
    page.get_by_role("button", name="Look 1").click()
    put(page, "Cut-out seen on the gauge", "59")
    page.get_by_role("button", name="Save the correction").click()
    expect(page.get_by_role("img", name="1 looks")).to_contain_text("59")
    assert [round(value["cut_out_gauge_pa"] / PSI) for value in kept(page, "try")] == [95, 59]


def test_without_signal_everything_is_kept_and_sent_later(open_page: Opener) -> None:
    page = visit(open_page(390, 844, touch=True))
    step(page, "Make safe")
    assert kept(page, "place") == ["safe"]
    page.context.set_offline(True)
    confirm(page, "Breaker off")
    confirm(page, "Prove it dead")
    expect(checkbox(page, "Drain until")).to_be_enabled()
    expect(page.get_by_text("2 not sent yet").or_(page.get_by_text("2 saved on"))).to_be_visible()
    assert not entries(page).exclude(slot="place").exists()
    page.context.set_offline(False)
    page.reload()
    expect(checkbox(page, "Prove it dead")).to_be_checked()
    expect(page.get_by_text("not sent yet").or_(page.get_by_text("saved on"))).to_have_count(0)
    page.reload()
    expect(checkbox(page, "Prove it dead")).to_be_checked()
    assert kept(page, "safe.power_off") == [True]


def test_the_second_of_two_people_sees_both_values(open_page: Opener) -> None:
    first, second = visit(open_page()), visit(open_page())
    put(first, "Cut-in as found", "33")
    expect(first.get_by_role("button", name="Watch 1 of 3")).to_be_visible()
    put(second, "Cut-in as found", "36")
    alert = second.get_by_role("alert")
    expect(alert).to_contain_text("Stored: 33 psi")
    expect(alert).to_contain_text("Yours: 36 psi")
    alert.get_by_role("button", name="Use mine").click()
    expect(second.get_by_label("Cut-in as found", exact=True)).to_have_value("36")
    expect(alert).to_have_count(0)
    assert [round(value / PSI) for value in kept(second, "found.cut_in")] == [33, 36]


def test_what_is_typed_wrong_stays_with_the_reason(open_page: Opener) -> None:
    page = visit(open_page())
    put(page, "Cut-in as found", "4o")
    expect(page.get_by_text("Cut-in as found is not a number")).to_be_visible()
    expect(page.get_by_label("Cut-in as found", exact=True)).to_have_value("4o")
    page.get_by_role("button", name="Cut-out as found: more").click(click_count=3)
    expect(page.get_by_role("button", name="Watch 1 of 3")).to_be_visible()
    assert len(kept(page, "found.cut_out")) == 1


def test_a_photo_stays_with_its_plate(open_page: Opener) -> None:
    page = visit(open_page(390, 844, touch=True))
    step(page, "Read")
    page.context.set_offline(True)
    picture = {"name": "plate.png", "mimeType": "image/png", "buffer": page.screenshot()}
    page.get_by_label("Photo, pump plate").set_input_files(picture)  # type: ignore[arg-type]
    expect(page.get_by_text("1 saved on this phone until there is signal.")).to_be_visible()
    page.context.set_offline(False)
    page.reload()
    shown = page.get_by_role("img", name="Photo of the pump plate")
    expect(shown).to_be_visible()
    page.reload()
    expect(shown).to_be_visible()
    assert shown.evaluate("picture => picture.decode().then(() => picture.naturalWidth)") > 100
    step(page, "Hand over")
    page.get_by_label("Photo 1, pump plate").check()
    assert len(kept(page, "photo")) == 1
    page.reload()
    expect(page.get_by_label("Photo 1, pump plate")).to_be_checked()
    report = page.get_by_role("link", name="Report (PDF)").get_attribute("href")
    assert len(images(page.request.get(urljoin(page.url, report)).body())) == 1
    page.get_by_role("button", name="Units, light and account").click()
    page.get_by_role("button", name="Sign out").click()
    expect(page.get_by_role("button", name="Open the demo")).to_be_visible()
    left = page.evaluate("indexedDB.databases().then(all => all.map(each => each.name))")
    assert [name for name in left if name.startswith("zerodip")] == []
