"""Four calls on a phone, from what is said to the remedy; and a trouble within a visit."""

import re
from urllib.parse import urljoin

import pytest
from playwright.sync_api import Locator, Page, expect

from visits.models import Entry

from .conftest import Opener
from .test_pages import no_serious_fault
from .test_visit import kept, step, visit

pytestmark = pytest.mark.django_db(transaction=True)


def call(page: Page, kind: str, symptom: str) -> None:
    page.get_by_role("link", name="Trouble").click()
    page.get_by_label("Kind of system").select_option(label=kind)
    page.get_by_role("button", name=symptom).click()
    expect(page.get_by_test_id("next-check")).to_be_visible()


def answer(page: Page, wanted: str, given: str) -> None:
    """Answers the checks until the one wanted comes; what is asked before cannot be done here."""
    check = page.get_by_test_id("next-check")
    expect(check).to_be_visible()
    asked = check.get_by_role("group").filter(has_text=re.compile(wanted))
    for _ in range(12):
        if asked.count():
            break
        first = check.get_by_role("heading").first
        before = first.inner_text()
        check.get_by_role("button", name="Cannot be done here").click()
        expect(first).not_to_have_text(before)
    chosen = asked.get_by_role("button", name=given, exact=True)
    waits = chosen.get_attribute("aria-pressed") is not None  # else it is sent at once
    chosen.click()
    if waits:
        check.get_by_role("button", name="Save", exact=True).click()


@pytest.mark.parametrize(
    ("kind", "symptom", "wanted", "given", "cause"),
    [
        (
            "Well, bladder tank",
            "Clicks on and off",
            "pin of the air valve",
            "Water",
            "bladder is burst",
        ),
        ("Well, bladder tank", "A breath without", "", "", "Pre-charge above cut-in"),
        ("Well, bladder tank", "It never stops", "gauge stands well above", "Yes", "welded"),
        ("Air compressor", "Starts with no air used", "do bubbles come", "Yes", "air leak"),
    ],
)
def test_a_call_leads_to_its_cause_on_a_phone(
    kind: str, symptom: str, wanted: str, given: str, cause: str, open_page: Opener
) -> None:
    page = open_page(390, 844, touch=True)
    call(page, kind, symptom)
    no_serious_fault(page)
    if wanted:
        answer(page, wanted, given)
    expect(page.get_by_test_id("suspects").get_by_role("listitem").first).to_contain_text(cause)
    if cause == "welded":
        expect(page.get_by_role("alert")).to_contain_text("breaker off")
    back = page.get_by_role("button", name=re.compile("^Take back"))
    count = 2 if wanted else 1
    expect(back).to_have_count(count)
    back.first.click()
    expect(back).to_have_count(count - 1)


def test_what_nobody_asked_for_can_be_told(open_page: Opener) -> None:
    page = open_page(390, 844, touch=True)
    call(page, "Well, bladder tank", "Clicks on and off")
    page.get_by_test_id("other-seen").select_option(label="Pre-charge, drained")
    told = page.get_by_test_id("other-check")
    told.get_by_role("textbox").fill("20")
    told.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_test_id("evidence")).to_contain_text("Pre-charge, drained 20 psi")
    expect(told).to_have_count(0)
    expect(page.get_by_test_id("suspects").get_by_role("listitem").first).to_contain_text("air")


def burst_in_a_visit(page: Page) -> Locator:
    """A trouble on a system, answered until its cause stands, and gone on with in a visit."""
    page.get_by_role("link", name=re.compile("Potting-shed well All")).click()
    expect(page.get_by_role("heading", name="Potting-shed well")).to_be_visible()
    page.get_by_role("link", name="Trouble").click()
    page.get_by_role("button", name="Clicks on and off").click()
    answer(page, "pin of the air valve", "Water")
    page.get_by_role("button", name="Go on in a visit").click()
    trouble = page.get_by_test_id("trouble")
    expect(trouble).to_contain_text("The bladder is burst")
    return trouble


def add_its_job(trouble: Locator) -> None:
    trouble.get_by_role("button", name=re.compile("^Add the job: Replace the tank")).click()


def test_a_trouble_on_a_system_goes_on_in_its_visit_and_adds_its_job(open_page: Opener) -> None:
    page = open_page(390, 844, touch=True)
    trouble = burst_in_a_visit(page)
    page.reload()
    expect(trouble).to_contain_text("Water at the air valve: water")
    add_its_job(trouble)
    expect(
        trouble.get_by_role("button", name=re.compile("^Add the job: Replace the"))
    ).to_have_count(0)
    assert Entry.objects.filter(slot="safe.job.replace_tank", value=True).exists()
    assert Entry.objects.filter(slot="saw").count() >= 2


def test_a_complaint_on_a_visit_brings_up_the_trouble(open_page: Opener) -> None:
    page = visit(open_page(390, 844, touch=True))
    page.get_by_role("button", name="Starts with all taps shut").click()
    trouble = page.get_by_test_id("trouble")
    expect(trouble.get_by_test_id("suspects")).to_contain_text("check or foot valve")
    expect(trouble.get_by_test_id("next-check")).to_be_visible()
    no_serious_fault(page)


def test_what_is_known_of_the_plates_and_one_cycle_lead_on(open_page: Opener) -> None:
    """A call with rough plates: one card asks all of one cycle; a figure that cannot be is said and
    left out."""
    page = open_page(390, 844, touch=True)
    call(page, "Well, bladder tank", "Clicks on and off")
    page.get_by_text("What is known of its plates").click()
    page.get_by_label("Tank or receiver").fill("20")
    page.get_by_label("Tank or receiver").press("Tab")
    check = page.get_by_test_id("next-check")
    for _ in range(9):
        if check.get_by_text("How long does it run").count():
            break
        first = check.get_by_role("heading").first
        before = first.inner_text()
        check.get_by_role("button", name="Cannot be done here").click()
        expect(first).not_to_have_text(before)
    run = check.get_by_role("textbox", name=re.compile("How long does it run"))
    run.fill("9000000")
    check.get_by_role("button", name="Save", exact=True).click()
    expect(check.get_by_role("alert")).to_contain_text("Run is 9,000,000 s; allowed")
    expect(page.get_by_role("button", name=re.compile("^Take back"))).to_have_count(1)
    run.fill("2")
    check.get_by_role("textbox", name=re.compile("does it click in")).fill("40")
    check.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("^Take back"))).to_have_count(3)
    expect(page.get_by_test_id("evidence")).to_contain_text("Run 2 s")
    no_serious_fault(page)


def test_what_it_was_is_confirmed_counted_and_set_back(open_page: Opener) -> None:
    page = visit(open_page(390, 844, touch=True))
    page.get_by_role("button", name="Starts with all taps shut").click()
    step(page, "Hand over")
    page.get_by_label("It was something else").select_option(label="The sensing nipple is clogged")
    assert kept(page, "was") == ["nipple"]
    page.get_by_role("button", name="Close the visit").click()
    page.get_by_role("button", name="Close and lock").click()
    expect(page.get_by_text("Signed by nobody")).to_be_visible()
    page.goto(urljoin(page.url, "/workspace"))
    met = page.get_by_test_id("experience").first
    expect(met.get_by_role("row", name=re.compile("nipple is clogged 1"))).to_be_visible()
    no_serious_fault(page)
    met.get_by_role("button", name="Set back what was learned").click()
    met.get_by_role("button", name="Set back", exact=True).click()
    expect(met).to_contain_text("Set back on")
    expect(met.get_by_role("row", name=re.compile("nipple is clogged"))).to_have_count(0)
