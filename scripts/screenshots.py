"""Takes the pictures in docs/screenshots from a running ./start with the demo as it was loaded:

.venv/bin/python scripts/screenshots.py [http://127.0.0.1:8200 [NAME …]]
"""

import re
import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

OUT = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
LAPTOP, PHONE = (1280, 800), (390, 844)


def decide(name: str, picture: str = "ribbon") -> Callable[[Page], None]:
    """Opens Decide for a system of the demo."""

    def steps(page: Page) -> None:
        page.get_by_role("link", name=f"Decide, {name}").click()
        page.get_by_test_id(picture).wait_for()

    return steps


def compare(name: str, tab: str, shown: str) -> Callable[[Page], None]:
    """Opens Decide and weighs other ways."""

    def steps(page: Page) -> None:
        decide(name)(page)
        page.get_by_role("group", name="Compare other ways").get_by_role("button", name=tab).click()
        page.get_by_test_id(shown).wait_for()

    return steps


def sheet(page: Page) -> None:
    """Opens a system's sheet."""
    page.get_by_role("link", name=re.compile("Potting-shed well All")).click()
    page.get_by_role("heading", name="Over the visits").scroll_into_view_if_needed()
    page.evaluate("scrollTo(0, 330)")


def visit(page: Page) -> None:
    """Starts a visit, or goes on with it."""
    page.get_by_role("button", name=re.compile("visit, Potting-shed well$", re.I)).click()
    page.get_by_role("navigation", name="Steps of the visit").wait_for()


def go(page: Page, step: str) -> None:
    """Goes to a step of the visit."""
    page.get_by_role("navigation", name="Steps of the visit").get_by_role(
        "button", name=step
    ).click()
    page.get_by_role("heading", name=step, exact=True).wait_for()


def put(page: Page, values: dict[str, str]) -> None:
    """Types figures into fields by their labels."""
    for label, text in values.items():
        field = page.get_by_label(label, exact=True)
        field.fill(text)
        field.press("Enter")


def confirm(page: Page, *steps: str) -> None:
    """Confirms steps by how they begin."""
    for step in steps:
        box = page.get_by_role("checkbox", name=re.compile(f"^{step}"))
        if box.get_attribute("aria-checked") == "false":
            box.click()


def watch(page: Page) -> None:
    """The first step: the complaint, and how one cycle is watched."""
    visit(page)
    page.get_by_role("button", name="Clicks often").click()


def job(page: Page) -> None:
    """A job that was suggested by what was found."""
    visit(page)
    go(page, "Read")
    missing = page.get_by_role("group", name="Earth wire missing")
    missing.get_by_role("button", name="Yes").click()
    page.get_by_role("button", name=re.compile("^Replace the switch")).click()
    page.get_by_test_id("job-replace_switch").scroll_into_view_if_needed()
    page.evaluate(
        "scrollTo(0, document.querySelector('[data-testid=job-replace_switch]')"
        ".getBoundingClientRect().top + scrollY - 70)"
    )


def trouble(page: Page) -> None:
    """A call comes in: what it does, the check that is next, what would explain it."""
    page.get_by_role("link", name=re.compile("Potting-shed well All")).click()
    page.get_by_role("link", name="Trouble").click()
    page.get_by_role("button", name="Clicks on and off").click()
    page.get_by_test_id("suspects").wait_for()


def make_safe(page: Page) -> None:
    """Half way through making safe."""
    visit(page)
    go(page, "Make safe")
    confirm(page, "Children", "A well pit", "Breaker off")


def set_switch(page: Page) -> None:
    """The second turn of the nuts."""
    visit(page)
    go(page, "Watch")
    page.get_by_text("How far the gauge may be off").click()
    put(page, {"Gauge reads to within": "0.5", "Cut-in as found": "29", "Cut-out as found": "48"})
    go(page, "Set")
    for again in (True, False):
        confirm(page, "Breaker off", "Prove it dead")
        page.get_by_role("button", name="Done turning").wait_for()
        if again:
            page.get_by_role("button", name="Done turning").click()
            confirm(page, "Cover back on")
            put(page, {"Cut-in seen on the gauge": "35", "Cut-out seen on the gauge": "54"})
            page.get_by_role("button", name="Log try 1").click()
            page.get_by_text("This switch moves about").wait_for()
    page.get_by_role("heading", name="Switch, to").scroll_into_view_if_needed()
    page.evaluate(
        "scrollTo(0, document.querySelector('#switch-title').getBoundingClientRect().top + scrollY"
        " - 70)"
    )


def prove(page: Page) -> None:
    """Two laps and a bucket that do not agree with what was predicted."""
    visit(page)
    go(page, "Prove")
    page.clock.install()
    for seconds in (41, 160, 43):
        page.get_by_test_id("stopwatch").click()
        page.clock.fast_forward(seconds * 1000)
    page.get_by_test_id("stopwatch").click()
    page.get_by_text("Bucket test").click()
    put(page, {"Water caught": "7"})
    page.get_by_role("button", name="Save what was caught").click()
    page.get_by_test_id("trouble").wait_for()
    page.get_by_text("Bucket test").click()
    page.get_by_test_id("measured").scroll_into_view_if_needed()
    page.evaluate(
        "scrollTo(0, document.querySelector('[data-testid=measured]').getBoundingClientRect().top"
        " + scrollY - 150)"
    )


def past(page: Page) -> None:
    """Hands over a visit of the past."""
    page.get_by_role("link", name=re.compile("Potting-shed well All")).click()
    page.get_by_test_id("timeline").get_by_role("link").last.click()
    go(page, "Hand over")


def hand_over(page: Page) -> None:
    """The documents of a visit of the past, with a link for the customer."""
    past(page)
    if not page.get_by_text("Stop sharing").count():
        page.get_by_role("button", name="Make a link for the customer").click()
    page.get_by_text("Stop sharing").first.wait_for()
    page.get_by_role("heading", name="Documents").scroll_into_view_if_needed()


def report(page: Page) -> None:
    """The report as its link shows it."""
    hand_over(page)
    page.goto(str(page.get_by_test_id("links").get_by_role("link").first.get_attribute("href")))


def recording(page: Page) -> None:
    """A week of a system that has lost air, a cycle of it chosen."""
    page.locator("li a", has_text="Millrace cottage").first.click()
    page.get_by_role("link", name="A week in March").click()
    page.get_by_text("Air has been lost").wait_for()
    page.locator("canvas").wait_for()
    for _ in range(3):
        page.get_by_role("button", name="Nearer").click()
    page.wait_for_timeout(800)
    page.locator("tbody button").nth(2).click()
    page.get_by_text("what the plates and settings predict").wait_for()
    page.evaluate("scrollTo(0, 0)")


def big_gauge(page: Page) -> None:
    """A gauge on the wire, seen through one cycle of its stand-in."""
    visit(page)
    page.get_by_role("link", name="Big gauge").click()
    page.get_by_role("button", name="Stand-in, Potting-shed well").click()
    hands = page.context.new_page()
    hands.goto(f"{page.url.split('/visits')[0]}/stand-ins")
    plant = hands.get_by_test_id("stand-in").filter(has_text="Potting-shed well")
    taps = plant.get_by_role("group", name="Taps open")
    taps.get_by_role("button", name="100 %").click()
    near = page.get_by_test_id("pressure").filter(has_text=re.compile(r"^4[0-4]"))
    near.wait_for(timeout=300_000)
    taps.get_by_role("button", name="10 %", exact=True).click()
    pump = page.get_by_test_id("pump")
    pump.get_by_text("Pump runs").wait_for(timeout=300_000)
    taps.get_by_role("button", name="Shut").click()
    pump.get_by_text("Pump rests").wait_for(timeout=300_000)
    page.wait_for_timeout(4000)


def workspace(page: Page) -> None:
    """What belongs to the crew."""
    page.get_by_role("link", name="Workspace").click()
    page.get_by_test_id("gauges").get_by_text("Tyre gauge").wait_for()


PICTURES: list[tuple[str, tuple[int, int], str, Callable[[Page], None]]] = [
    ("rounds", LAPTOP, "day", lambda page: None),
    ("system", LAPTOP, "day", sheet),
    ("workspace", LAPTOP, "day", workspace),
    ("visit-over", PHONE, "day", hand_over),
    ("report", LAPTOP, "day", report),
    ("decide-day", LAPTOP, "day", decide("Potting-shed well")),
    ("decide-cellar", LAPTOP, "cellar", decide("Millrace cottage")),
    ("decide-phone", PHONE, "cellar", decide("Potting-shed well")),
    ("kind-compressor", LAPTOP, "day", decide("Workshop compressor")),
    ("kind-tankless", LAPTOP, "day", decide("Galley pump", "window")),
    ("propose", LAPTOP, "day", compare("Orchard house well", "Propose", "ways")),
    ("recording", LAPTOP, "day", recording),
    ("trouble", PHONE, "day", trouble),
    ("visit-watch", PHONE, "day", watch),
    ("visit-safe", PHONE, "day", make_safe),
    ("visit-job", PHONE, "day", job),
    ("visit-set", PHONE, "cellar", set_switch),
    ("visit-prove", LAPTOP, "day", prove),
    ("big-gauge", LAPTOP, "cellar", big_gauge),
]


def main(address: str, *names: str) -> None:
    """Takes them all, or those named."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        for name, (width, height), theme, steps in PICTURES:
            if names and name not in names:
                continue
            phone = width < 600
            context = browser.new_context(
                viewport={"width": width, "height": height}, has_touch=phone, is_mobile=phone
            )
            context.add_init_script(f"localStorage.setItem('zerodip.theme', '{theme}')")
            page = context.new_page()
            page.goto(address)
            page.get_by_role("button", name="Open the demo").click()
            page.get_by_role("heading", name="Larkfield Nursery").wait_for()
            steps(page)
            page.wait_for_timeout(500)
            page.screenshot(path=OUT / f"{name}.png")
            context.close()
        browser.close()


if __name__ == "__main__":
    main(*(sys.argv[1:] or ["http://127.0.0.1:8200"]))
