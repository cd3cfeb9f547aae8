"""Without a network: the server is stopped, the browser is restarted, work goes on; back online,
everything is on the server exactly once."""

import re
from collections import Counter
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from playwright.sync_api import BrowserContext, Error, Page, Playwright, expect

from accounts.models import Membership
from sites.models import Site, System
from tests.serving import ROOT, Served
from visits.models import Entry, Photo, Visit
from zerodip.units import PSI

from .conftest import FLAGS
from .test_trouble import add_its_job, burst_in_a_visit
from .test_visit import Nuts, confirm, kept, make_safe, put, set_switch, step, visit

pytestmark = pytest.mark.django_db(transaction=True)


# A browser that refuses to keep any more.
FULL = """() => {
  const add = IDBObjectStore.prototype.add
  IDBObjectStore.prototype.add = function (...given) {
    if (this.name !== 'writes') return add.apply(this, given)
    throw new DOMException('The disk is full.', 'QuotaExceededError')
  }
}"""


class Phone:
    """A browser with a profile that outlives it."""

    def __init__(self, playwright: Playwright, server: Served, profile: Path) -> None:
        self.playwright, self.server, self.profile = playwright, server, profile
        self.context: BrowserContext | None = None

    def open(self, path: str = "/") -> Page:
        self.context = self.playwright.chromium.launch_persistent_context(
            str(self.profile),
            executable_path="/usr/bin/chromium",
            args=FLAGS,
            viewport={"width": 390, "height": 844},
        )
        page = self.context.pages[0]
        page.goto(f"{self.server.url}{path}")
        return page

    def close(self) -> None:
        if self.context:
            self.context.close()
        self.context = None

    def install(self) -> Page:
        """Signs in and waits until the page, Python and the systems are on the device."""
        page = self.open()
        page.get_by_role("button", name="Open the demo").click()
        ready(page)
        return page


def ready(page: Page) -> None:
    page.locator("html[data-core=ready][data-held]").wait_for(timeout=60_000)
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")


def all_sent(page: Page) -> None:
    """Nothing waits any more."""
    for _ in range(60):
        if not page.get_by_text("not sent yet").count():
            return
        page.evaluate("dispatchEvent(new Event('online'))")
        page.wait_for_timeout(500)
    raise AssertionError(page.get_by_test_id("connection").inner_text())


@pytest.fixture
def demo(transactional_db: None, settings: Any) -> None:
    settings.DEMO_PASSWORD = "for tests only"
    call_command("load_demo")


@pytest.fixture
def phones(
    demo: None, server: Served, player: Playwright, tmp_path: Path
) -> Iterator[Callable[[], Phone]]:
    made: list[Phone] = []

    def another() -> Phone:
        made.append(Phone(player, server, tmp_path / f"phone {len(made)}"))
        return made[-1]

    yield another
    for phone in made:
        phone.close()
    if server.process.poll() is not None:
        server.start()


def test_a_whole_visit_without_a_server(phones: Callable[[], Phone], server: Served) -> None:
    phone, nuts = phones(), Nuts()
    phone.install()
    phone.close()
    server.stop()
    page = phone.open()
    expect(page.get_by_role("heading", name="Larkfield Nursery")).to_be_visible()
    expect(page.get_by_test_id("connection")).to_contain_text("No connection.")
    page.locator("html[data-core=ready]").wait_for(timeout=60_000)  # Python starts on the device
    visit(page)
    page.get_by_role("button", name="Clicks often").click()
    put(page, "Gauge now", "45")
    put(page, "Cut-in as found", "32")
    put(page, "Cut-out as found", "51")
    expect(page.get_by_role("button", name="Watch 32/51 psi")).to_be_visible()
    step(page, "Make safe")
    make_safe(page)
    step(page, "Read")
    put(page, "Pre-charge found, tank drained", "30")
    picture = {"name": "plate.png", "mimeType": "image/png", "buffer": page.screenshot()}
    page.get_by_label("Photo, pump plate").set_input_files(picture)  # type: ignore[arg-type]
    shown = page.get_by_role("img", name="Photo of the pump plate")
    expect(shown).to_be_visible()
    size = "picture => picture.decode().then(() => picture.naturalWidth)"
    assert shown.evaluate(size) > 100
    # The browser is closed in the middle, and nothing is forgotten.
    address = page.url
    phone.close()
    page = phone.open(address.removeprefix(server.url))
    expect(page.get_by_label("Pre-charge found, tank drained", exact=True)).to_have_value("30")
    page.get_by_role("button", name="Next: Decide").click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.get_by_role("button", name="Save, then set").click()
    put(page, "Read again: pre-charge left", "37")
    confirm(page, "Valve cap back on")
    assert 1 <= set_switch(page, nuts) <= 4
    step(page, "Hand over")
    expect(page.get_by_text("they need a connection")).to_be_visible()
    page.get_by_role("button", name="Show the report here").click()
    expect(page.get_by_test_id("report")).to_contain_text("Pre-charge")
    page.get_by_role("button", name="Close the visit").click()
    page.get_by_role("button", name="Close and lock").click()
    expect(page.get_by_text("This visit is closed.")).to_be_visible()
    page.get_by_role("link", name="Zero Dip").click()
    expect(page.get_by_role("button", name="Visit, Potting-shed well")).to_be_visible()
    server.start()
    all_sent(page)
    ends_once(max(abs(nuts.cut_in - 40), abs(nuts.cut_out - 60)))


def ends_once(off: float) -> None:
    """What was walked without a server is on it, each record once, in its order."""
    made = Visit.objects.latest("opened_at")
    assert made.system.name == "Potting-shed well"
    assert made.closed_at is not None
    assert off <= 2
    rows = list(made.entries.values_list("id", "slot", "value"))
    assert max(Counter(id for id, _, _ in rows).values()) == 1
    found = [value / PSI for _, slot, value in rows if slot == "found.pre_charge"]
    assert found == pytest.approx([30])
    assert [slot for _, slot, _ in rows].index("try") > [slot for _, slot, _ in rows].index(
        "decided"
    )
    assert Photo.objects.filter(visit=made).count() == 1
    assert made.system.decisions.count() >= 1
    assert Visit.objects.filter(system=made.system, closed_at=None).count() == 0


def test_the_tab_is_killed_while_it_sends(phones: Callable[[], Phone], server: Served) -> None:
    phone = phones()
    phone.install()
    server.stop()
    assert phone.context is not None
    page = phone.context.pages[0]
    visit(page)
    for label, text in (("Gauge now", "45"), ("Cut-in as found", "32"), ("Cut-out as found", "51")):
        put(page, label, text)
    expect(page.get_by_role("button", name="Watch 32/51 psi")).to_be_visible()

    def cut(route: Any) -> None:
        """The answer never arrives: the server has it, the page does not know."""
        try:
            route.fetch()
        except Error:  # sent by itself before the server was there
            route.abort()
        else:
            page.close()

    page.route("**/api/device/writes", cut)
    server.start()
    with page.expect_event("close", timeout=60_000):
        page.evaluate("dispatchEvent(new Event('online'))")
    phone.close()
    page = phone.open()
    ready(page)
    all_sent(page)
    rows = Entry.objects.values_list("id", flat=True)
    assert max(Counter(rows).values()) == 1
    latest = Visit.objects.latest("opened_at")
    points = latest.entries.filter(slot__startswith="found.").values_list("value", flat=True)
    assert [round(value / PSI) for value in points] == [45, 32, 51]


def test_the_worker_sends_what_waits_with_no_page_open(
    phones: Callable[[], Phone], server: Served
) -> None:
    """The browser's sign of a connection, given by hand: headless it never comes by itself."""
    phone = phones()
    page = visit(phone.install())
    put(page, "Gauge now", "45")
    assert len(kept(page, "found.gauge")) == 1
    server.stop()
    put(page, "Cut-in as found", "32")
    expect(page.get_by_test_id("connection")).to_contain_text("1 not sent yet")
    assert phone.context is not None
    blank = phone.context.new_page()
    page.close()
    server.start()
    found: list[Any] = []
    devtools = phone.context.new_cdp_session(blank)
    devtools.on(
        "ServiceWorker.workerRegistrationUpdated", lambda told: found.extend(told["registrations"])
    )
    devtools.send("ServiceWorker.enable")
    for _ in range(40):
        if found:
            break
        blank.wait_for_timeout(100)
    sign = {"origin": server.url, "registrationId": found[0]["registrationId"], "tag": "send"}
    devtools.send("ServiceWorker.dispatchSyncEvent", {**sign, "lastChance": True})
    points = Visit.objects.latest("opened_at").entries.filter(slot="found.cut_in")
    for _ in range(40):
        if points.exists():
            break
        blank.wait_for_timeout(250)
    assert [round(each.value / PSI) for each in points.all()] == [32]


def test_two_phones_offline_in_one_visit(phones: Callable[[], Phone], server: Served) -> None:
    first, second = phones(), phones()
    pages = [visit(phone.install()) for phone in (first, second)]
    assert pages[0].url == pages[1].url
    for page in pages:
        ready(page)
        page.wait_for_timeout(6000)  # what was just written is held too
    server.stop()
    put(pages[0], "Cut-in as found", "33")
    put(pages[1], "Cut-in as found", "36")
    put(pages[1], "Cut-out as found", "52")
    for page in pages:
        expect(page.get_by_test_id("connection")).to_contain_text("not sent yet")
    server.start()
    for page in pages:
        all_sent(page)
    # Whoever arrived second is shown both values.
    either = pages[0].get_by_role("alert"), pages[1].get_by_role("alert")
    for _ in range(40):
        late = next((at for at in (0, 1) if either[at].count()), None)
        if late is not None:
            break
        pages[0].wait_for_timeout(250)
    assert late is not None
    stored, yours = ("36", "33") if late == 0 else ("33", "36")
    expect(either[late]).to_contain_text(f"Stored: {stored} psi")
    expect(either[late]).to_contain_text(f"Yours: {yours} psi")
    either[late].get_by_role("button", name="Use mine").click()
    expect(either[late]).to_have_count(0)
    for page in pages:
        field = page.get_by_label("Cut-in as found", exact=True)
        expect(field).to_have_value(yours, timeout=20_000)
        expect(page.get_by_label("Cut-out as found", exact=True)).to_have_value("52")


def test_a_new_system_is_begun_without_a_server(
    phones: Callable[[], Phone], server: Served
) -> None:
    phone = phones()
    page = phone.install()
    server.stop()
    page.get_by_role("button", name="Add a system").click()
    page.get_by_label(re.compile("^Site")).select_option(label="A new site")
    page.get_by_label("Name of the site").fill("Far field")
    page.get_by_label("Name of the system").fill("Far well")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("heading", name=re.compile("Far well"))).to_be_visible()
    phone.close()
    page = phone.open()
    expect(page.get_by_role("heading", name="Far field")).to_be_visible()
    server.start()
    all_sent(page)
    assert Site.objects.filter(name="Far field").count() == 1
    assert System.objects.filter(name="Far well").count() == 1


def test_signing_out_wipes_and_a_lost_membership_too(
    phones: Callable[[], Phone], server: Served
) -> None:
    phone = phones()
    page = phone.install()
    Membership.objects.all().delete()
    page.reload()
    page.locator("html[data-held='0']").wait_for()
    kept = "indexedDB.databases().then(all => all.map(each => each.name))"
    assert any(name.startswith("zerodip-") for name in page.evaluate(kept))
    page.get_by_role("button", name="Units, light and account").click()
    page.get_by_role("button", name="Sign out").click()
    expect(page.get_by_role("button", name="Open the demo")).to_be_visible()
    assert not [name for name in page.evaluate(kept) if name.startswith("zerodip")]
    server.stop()
    phone.close()
    page = phone.open()
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    expect(page.get_by_text("No connection. Signing in")).to_be_visible()
    expect(page.get_by_role("heading", name="Larkfield Nursery")).to_have_count(0)


def test_a_full_device_says_so_before_anything_is_lost(
    phones: Callable[[], Phone], server: Served
) -> None:
    phone = phones()
    page = visit(phone.install())
    ready(page)
    put(page, "Gauge now", "45")
    server.stop()
    page.evaluate(FULL)
    put(page, "Cut-in as found", "32")
    expect(page.get_by_test_id("connection")).to_contain_text("This device has no room left")
    # Room is made: what was entered meanwhile is kept, and sent.
    page.reload()
    expect(page.get_by_label("Cut-in as found", exact=True)).to_have_value("32")
    server.start()
    all_sent(page)
    expect(page.locator("[aria-busy=true]")).to_have_count(0, timeout=30_000)
    latest = Visit.objects.latest("opened_at")
    points = latest.entries.filter(slot="found.cut_in").values_list("value", flat=True)
    assert [round(value / PSI) for value in points] == [32]


def test_a_new_version_waits_until_it_is_told(phones: Callable[[], Phone], server: Served) -> None:
    phone = phones()
    page = phone.install()
    visit(page)
    put(page, "Gauge now", "45")
    assert phone.context is not None
    # The server is of another version from now on, and so is the page that it has.
    another = f"{(ROOT / 'web/dist/sw.js').read_text()}\n// another"
    script = {"body": another, "content_type": "text/javascript"}
    phone.context.route("**/sw.js", lambda route: route.fulfill(**script))

    def older(route: Any) -> None:
        answer = route.fetch()
        route.fulfill(response=answer, headers={**answer.headers, "zerodip-version": "another"})

    page.route("**/api/visits/*", older)
    line = page.get_by_test_id("update")
    expect(line).to_contain_text("Another version is here.", timeout=30_000)
    put(page, "Cut-in as found", "32")
    expect(page.get_by_role("heading", name="Watch")).to_be_visible()
    page.unroute("**/api/visits/*")
    line.get_by_role("button", name="Change over").click()
    expect(line).to_have_count(0)
    expect(page.get_by_label("Cut-in as found", exact=True)).to_have_value("32")


def test_the_rest_of_the_trade_without_a_server(
    phones: Callable[[], Phone], server: Served
) -> None:
    phone = phones()
    phone.install()
    phone.close()
    server.stop()
    page = phone.open()
    page.get_by_role("link", name=re.compile("Potting-shed well All")).click()
    expect(page.get_by_role("heading", name="Potting-shed well")).to_be_visible(timeout=30_000)
    expect(page.get_by_text("Over the visits")).to_be_visible(timeout=30_000)
    expect(page.get_by_role("link", name="Label")).to_be_hidden()
    page.get_by_role("link", name="Trouble").click()
    page.get_by_role("button", name="Clicks on and off").click()
    expect(page.get_by_role("button", name=re.compile("^Take back"))).to_be_visible()
    page.get_by_role("link", name="Potting-shed well").click()
    page.get_by_role("link", name="Decide").click()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.get_by_role("button", name="Sizes").first.click()
    expect(page.get_by_role("dialog").get_by_text("gal").first).to_be_visible()


def test_a_trouble_becomes_a_job_without_a_server(
    phones: Callable[[], Phone], server: Served
) -> None:
    phone = phones()
    page = phone.install()
    server.stop()
    add_its_job(burst_in_a_visit(page))
    step(page, "Set")
    job = page.get_by_test_id("job-replace_tank")
    expect(job).to_be_visible()
    phone.close()
    page = phone.open(page.url.removeprefix(server.url))
    expect(page.get_by_test_id("job-replace_tank")).to_be_visible()
    server.start()
    all_sent(page)
    rows = list(Visit.objects.latest("opened_at").entries.values_list("slot", flat=True))
    assert rows.count("safe.job.replace_tank") == 1
    assert rows.count("saw") >= 2


def test_thirty_days_without_contact_wipe_the_device(
    phones: Callable[[], Phone], server: Served
) -> None:
    phone = phones()
    page = phone.install()
    server.stop()
    longago = """() => {
      const one = JSON.parse(localStorage.getItem('zerodip.person'))
      const contact = Date.now() - 31 * 86_400_000
      localStorage.setItem('zerodip.person', JSON.stringify({ ...one, contact }))
    }"""
    page.evaluate(longago)
    page.reload()
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    kept = "indexedDB.databases().then(all => all.map(each => each.name))"
    assert not [name for name in page.evaluate(kept) if name.startswith("zerodip-")]
