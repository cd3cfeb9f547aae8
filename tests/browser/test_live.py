"""A gauge on the wire from a visit: through one turn of the nut at a stand-in, its cable out and in
again, and what was watched as a recording."""

import re
from typing import Any

import numpy as np
import pytest
from django.core.management import call_command
from playwright.sync_api import Page, expect

from recordings.store import samples_of
from sites.models import System
from tests.serving import Served
from visits.models import Entry, Visit
from zerodip.units import PSI

from .conftest import Opener
from .test_pages import no_serious_fault

pytestmark = pytest.mark.django_db(transaction=True)
WELL = "Potting-shed well"
CYCLE_MS = 90_000
# Sends one change as the page does.
SEND = """async ([method, path, body]) => (await fetch(path, {
  method,
  headers: {'Content-Type': 'application/json',
            'X-CSRFToken': document.cookie.match(/csrftoken=([^;]+)/)[1]},
  body: JSON.stringify(body)})).json()"""


@pytest.fixture
def gauge(server: Served, open_page: Opener, settings: Any) -> tuple[Page, Page, Visit]:
    """The big gauge of a visit that stands at Set, and the hands at its stand-in."""
    settings.STAND_IN_PORT = int(server.settings["ZERODIP_STAND_IN_PORT"])
    page = open_page()
    call_command("load_demo_stand_ins")
    system = System.objects.get(name=WELL)
    hands = page.context.new_page()
    hands.goto(f"{server.url}/stand-ins")
    page.goto(f"{server.url}/systems/{system.pk}")
    page.get_by_role("button", name=re.compile("visit", re.IGNORECASE)).first.click()
    expect(page).to_have_url(re.compile("/visits/"))
    visit = Visit.objects.get(system=system, closed_at=None)
    page.get_by_role("link", name="Big gauge").click()
    page.get_by_role("button", name=f"Stand-in, {WELL}").click()
    return page, hands, visit


def plant(hands: Page) -> Any:
    return hands.get_by_test_id("stand-in").filter(has_text=WELL)


def cycle(page: Page, hands: Page) -> None:
    """Taps open, the less the nearer cut-in, until the pump runs; then shut until it rests. What
    runs through cut-in at full taps tells no cut-in: a late press must not come to that."""
    taps = plant(hands).get_by_role("group", name="Taps open")
    for share, near in (("100 %", r"^(4|5[0-4])"), ("30 %", r"^4[0-4]")):
        taps.get_by_role("button", name=share).click()
        expect(page.get_by_test_id("pressure")).to_have_text(re.compile(near), timeout=CYCLE_MS)
    taps.get_by_role("button", name="10 %", exact=True).click()
    expect(page.get_by_test_id("pump")).to_contain_text("Pump runs", timeout=CYCLE_MS)
    taps.get_by_role("button", name="Shut").click()
    expect(page.get_by_test_id("pump")).to_contain_text("Pump rests", timeout=CYCLE_MS)


def offer(page: Page, title: str) -> Any:
    return page.get_by_test_id("offered").filter(has_text=title)


def test_it_reads_the_cycle_found_and_the_look_after_a_turn(
    gauge: tuple[Page, Page, Visit], server: Served
) -> None:
    page, hands, visit = gauge
    expect(page.get_by_test_id("pressure")).to_have_text(re.compile(r"\d\d\.\d"))
    no_serious_fault(page)
    cycle(page, hands)
    for title in ("Cut-in", "Cut-out", "Run"):
        offer(page, title).get_by_role("button").click()
        expect(offer(page, title)).to_contain_text("On record")
    found = {each.slot: each for each in Entry.objects.filter(visit=visit)}
    low, high = (found[f"found.{name}"].value / PSI for name in ("cut_in", "cut_out"))
    settings = visit.system.document["settings"]
    assert low == pytest.approx(settings["cut_in_gauge_pa"] / PSI, abs=1.0)
    assert high == pytest.approx(settings["cut_out_gauge_pa"] / PSI, abs=0.5)
    assert found["found.run"].by_gauge.startswith("Stand-in")
    # One turn of the first nut, as the visit has it recorded and as it is made.
    turned = {"slot": "set.turned", "value": {"first": 0.5, "second": 0.0, "after": 0}}
    for entry in ({"slot": "decided", "value": True}, {"slot": "place", "value": "set"}, turned):
        path = f"/api/visits/{visit.pk}/entries/{crypto(page)}"
        page.evaluate(SEND, ["PUT", path, {**entry, "supersedes": None}])
    on = plant(hands).get_by_role("button", name=re.compile("First nut.* on"))
    for _ in range(4):
        on.click()
    page.reload()
    expect(page.get_by_text("let it run one whole cycle")).to_be_visible()  # nothing of before
    cycle(page, hands)
    offer(page, "Both points").get_by_role("button").click()
    expect(offer(page, "Both points")).to_contain_text("On record")
    look = Entry.objects.get(visit=visit, slot="try")
    assert (look.value["first"], look.value["second"]) == (0.5, 0.0)
    assert look.value["cut_out_gauge_pa"] / PSI == pytest.approx(high + 1.2, abs=0.5)
    page.get_by_role("link", name="Back to the visit").click()
    expect(page.get_by_role("heading", name="Set")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("looks against"))).to_be_visible()


def crypto(page: Page) -> str:
    return str(page.evaluate("crypto.randomUUID()"))


def test_lost_and_back_and_kept_as_a_recording(gauge: tuple[Page, Page, Visit]) -> None:
    page, hands, visit = gauge
    expect(page.get_by_test_id("needle")).to_be_attached()
    cable = plant(hands).get_by_role("group", name="Cable")
    cable.get_by_role("button", name="Off").click()
    expect(page.get_by_test_id("lost")).to_be_visible(timeout=2500)
    expect(page.get_by_test_id("needle")).to_have_count(0)
    cable.get_by_role("button", name="On").click()
    expect(page.get_by_test_id("lost")).to_have_count(0, timeout=5000)
    expect(page.get_by_test_id("needle")).to_be_attached()
    page.get_by_role("button", name="Stop watching").click()
    page.get_by_role("link", name="Open its recording").click(timeout=30_000)
    expect(page.get_by_role("heading", name=re.compile("live"))).to_be_visible()
    times = np.concatenate([part.time_s for part in samples_of(visit.system.recordings.get())])
    assert np.diff(times).max() > 1.0  # the gap stays one
    assert times[0] < times[-1] - np.diff(times).max() - 1.0
