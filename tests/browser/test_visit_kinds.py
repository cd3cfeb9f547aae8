"""Every kind of system visited on a phone: its own steps, large targets, the whole way with a
reload in the middle."""

from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from visits.models import Entry, Visit

from .conftest import Opener
from .test_pages import no_serious_fault
from .test_visit import checkbox, kept, step, visit

pytestmark = pytest.mark.django_db(transaction=True)

TARGETS = "main button, main summary, main [role=checkbox], nav[aria-label^=Steps] button"
SMALL = f"""() => [...document.querySelectorAll('{TARGETS}')]
  .filter(e => e.offsetParent !== null && e.getBoundingClientRect().height < 48)
  .map(e => e.outerHTML.slice(0, 120))"""


@pytest.mark.parametrize(
    ("system", "does", "tests"),
    [
        ("Workshop compressor", "Open the drain cock slowly", ["Leak watch"]),
        ("Camper van pump", "Pull the fuse", []),
        ("Byre well", "A well pit", ["Bucket test", "Drain series", "Leak watch"]),
    ],
)
def test_each_kind_has_its_own_steps_and_every_target_is_large(
    open_page: Opener, system: str, does: str, tests: list[str]
) -> None:
    page = visit(open_page(390, 844, touch=True, theme="cellar"), system)
    page.emulate_media(reduced_motion="reduce")
    step(page, "Make safe")
    expect(checkbox(page, does)).to_be_visible()
    for name in ("Watch", "Make safe", "Read", "Set", "Prove", "Hand over"):
        step(page, name)
        assert page.evaluate(SMALL) == [], name
        no_serious_fault(page)
        if name == "Prove":
            assert [
                text.split(":")[0] for text in page.locator("main summary").all_inner_texts()
            ] == tests
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")


def more(page: Page, title: str) -> None:
    """One press on the plus of a figure: its usual value."""
    page.get_by_role("button", name=f"{title}: more").click()
    expect(page.get_by_label(title, exact=True)).not_to_have_value("")


def confirm_all(page: Page) -> None:
    """Every step shown, in its order; what is confirmed may leave the page."""
    left = page.locator("main [role=checkbox][aria-checked=false]")
    while count := left.count():
        left.first.click()
        expect(left).not_to_have_count(count)


@pytest.mark.parametrize(
    "system",
    [
        "Byre well",
        "Twin-tank well",
        "Glasshouse rainwater",
        "Top-floor booster",
        "Workshop compressor",
        "Camper van pump",
    ],
)
def test_every_kind_is_walked_in_its_order_with_a_reload_in_the_middle(
    open_page: Opener, system: str
) -> None:
    page = visit(open_page(390, 844, touch=True), system)
    page.emulate_media(reduced_motion="reduce")
    expect(page.get_by_test_id("how").get_by_role("listitem")).to_have_count(4)
    more(page, "Cut-in as found")
    more(page, "Cut-out as found")
    page.get_by_role("button", name="Next: Make safe").click()
    confirm_all(page)
    expect(page.get_by_test_id("power")).to_contain_text("proved dead")
    page.reload()
    expect(page.get_by_test_id("power")).to_contain_text("proved dead")
    page.get_by_role("button", name="Next: Read").click()
    if page.get_by_label("Pre-charge found, tank drained", exact=True).count():
        more(page, "Pre-charge found, tank drained")
    good = page.get_by_role("button", name="All good")
    for left in reversed(range(good.count())):
        good.last.click()
        expect(good).to_have_count(left)
    expect(page.get_by_test_id("next")).to_contain_text("Decide on cut-in")
    page.get_by_role("button", name="Next: Decide").click()
    page.get_by_role("button", name="Save, then set").click()
    expect(page.get_by_role("heading", name="Set", exact=True)).to_be_visible()
    expect(page.get_by_test_id("instruction")).to_be_visible()
    assert kept(page, "decided") == [True]
    step(page, "Hand over")
    confirm_all(page)
    page.get_by_role("button", name="Close the visit").click()
    page.get_by_role("button", name="Close and lock").click()
    expect(page.get_by_text("This visit is closed.")).to_be_visible()


def test_all_good_leaves_open_what_was_wrong_last_time(open_page: Opener) -> None:
    page = open_page(390, 844, touch=True)
    last = Visit.objects.filter(system__name="Twin-tank well").latest("opened_at")
    seen = Entry(id=uuid4(), visit=last, slot="found.corrosion", value=True)
    seen.made_at = last.opened_at
    seen.save()
    step(visit(page, "Twin-tank well"), "Read")
    switch = page.get_by_role("region", name="At the switch")
    expect(switch).to_contain_text("Wrong last time, look by itself: Corrosion.")
    switch.get_by_role("button", name="The rest is good").click()
    expect(switch.get_by_role("button", name="The rest is good")).to_have_count(0)
    pressed = switch.get_by_role("button", name="No", pressed=True)
    expect(pressed).to_have_count(switch.get_by_role("group").count() - 1)
    assert kept(page, "found.contacts") == [False]
    assert kept(page, "found.corrosion") == []
    switch.get_by_role("group", name="Corrosion").get_by_role("button", name="No").click()
    expect(switch).not_to_contain_text("Wrong last time")
