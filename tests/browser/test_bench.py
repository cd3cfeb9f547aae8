"""The set-point bench on a phone: a dual switch from permission to certificate, with one reload and
one wrong reading corrected."""

import io
from typing import Any

import pytest
from django.core.management import call_command
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from calibrations.models import Calibration, CalibrationEntry, Device
from tests.serving import Served
from zerodip.bench.course import BEFORE

from .conftest import Opener
from .test_pages import no_serious_fault

pytestmark = pytest.mark.django_db(transaction=True)
KPA = 1e3
INHG = 3386.389
A_TURN = 55 * KPA
CYCLE_MS = 90_000
SPEED = 12  # of the stand-ins


class Hands:
    """Somebody at the demo's dual switch, its upper point out of tolerance; counts their taps."""

    def __init__(self, page: Page) -> None:
        self.page, self.taps = page, 0
        self.points = {"lower": 281.2 * KPA, "upper": 635.4 * KPA}

    def tap(self, name: str) -> None:
        self.page.get_by_role("button", name=name, exact=True).first.click()
        self.taps += 1

    def entry(self) -> dict[str, Any]:
        """What stands there: the instruction's own words, and where it is expected."""
        of = self.page.url.rsplit("/", 1)[1]
        read = (
            "async (id) => (await (await fetch(`/api/calibrations/${id}?units=kpa`)).json()).next"
        )
        return dict(self.page.evaluate(read, of))

    def reads(self, told: dict[str, Any]) -> None:
        rises = told["point"] == "upper"
        pa = self.points[told["point"]]
        pa -= (38 if rises else -38) * KPA if told["enters"] == "reset" else 0
        title = told["title"]
        for size, word in enumerate(("much ", "")):
            if abs(count := self._steps(title, pa)[size]) > 3:
                self.hold(f"{title}: {word}{'more' if count > 0 else 'less'}", title, pa, size)
        for size, word in enumerate(("much ", "")):
            count = self._steps(title, pa)[size]
            for _ in range(abs(count)):
                self.tap(f"{title}: {word}{'more' if count > 0 else 'less'}")
        expect(self._figure(title)).to_have_value(f"{pa / KPA:.1f}")
        self.tap("Record")

    def _figure(self, title: str) -> Any:
        return self.page.get_by_role("textbox", name=title)

    def _steps(self, title: str, pa: float) -> tuple[int, int]:
        """How many steps of ten and of one it is off."""
        short = round((pa / KPA - float(self._figure(title).input_value())) * 10)
        much = round(short / 10)
        return much, short - 10 * much

    def hold(self, name: str, title: str, pa: float, size: int) -> None:
        """Holds a button until the figure is near."""
        button = self.page.get_by_role("button", name=name, exact=True).first
        button.scroll_into_view_if_needed()
        button.hover()
        self.page.mouse.down()
        for _ in range(2000):
            if abs(self._steps(title, pa)[size]) <= 1:
                break
        self.page.mouse.up()
        self.taps += 1

    def turned(self, step: dict[str, Any]) -> None:
        for screw, turns in step["turns"].items():
            self.points[screw] += turns * A_TURN
        self.tap("Turned")

    def turns_without_signal(self) -> None:
        """What was entered waits, nothing else can be, and it goes out by itself."""
        instruction = self.page.get_by_test_id("instruction")
        before, step = instruction.text_content() or "", self.entry()["step"]
        self.page.context.set_offline(True)
        self.turned(step)
        expect(self.page.get_by_test_id("unsent")).to_be_visible()
        expect(self.page.get_by_role("button", name="Turned")).to_be_disabled()
        no_serious_fault(self.page)
        self.page.context.set_offline(False)
        expect(instruction).not_to_have_text(before)
        expect(self.page.get_by_test_id("unsent")).to_have_count(0)

    def does(self) -> bool:
        """What is asked next; False once all is done."""
        expect(
            self.page.get_by_role("button", name="Done").or_(self._forms()).first
        ).to_be_enabled()
        asked = self.entry()
        told = asked["instruction"]
        if told is None:
            return False
        before = self.page.get_by_test_id("instruction").text_content()
        if told["enters"] == "turn":
            self.turned(asked["step"])
        elif told["enters"] == "confirm":
            self.tap("Done")
        else:
            self.reads(told)
        changed = self.page.get_by_test_id("instruction")
        closing = self.page.get_by_role("heading", name="Sign and close")
        if told["id"] == "sealed":
            expect(closing).to_be_visible()
        else:
            expect(changed).not_to_have_text(before or "")
        return True

    def _forms(self) -> Any:
        names = ("Record", "Turned", "Close it")
        first, *others = (self.page.get_by_role("button", name=name) for name in names)
        for other in others:
            first = first.or_(other)
        return first


def test_a_dual_switch_from_permission_to_certificate(open_page: Opener, server: Served) -> None:
    page = open_page(width=390, height=844, touch=True)
    call_command("load_demo_switches")
    page.reload()
    page.get_by_role("link", name="Humidifier steam trip").click()
    chosen = page.get_by_label("Reference").locator("option:checked")
    expect(chosen).to_have_text("Bench reference 1")  # that of last time
    page.get_by_role("button", name="Begin").click()
    page.wait_for_url("**/calibrations/*")
    page.evaluate("localStorage.setItem('zerodip.units', 'kpa')")
    page.reload()
    hands = Hands(page)
    hands.taps += 1  # begun
    no_serious_fault(page)
    for _ in range(9):  # the preparations, and both points once
        assert hands.does()
    page.reload()
    wrong = page.get_by_test_id("row").first
    wrong.get_by_role("button", name="Correct").click()
    title = "Lower point reset at, corrected"
    page.get_by_role("button", name=f"{title}: more").click()
    wrong.get_by_role("button", name="Record").click()
    expect(wrong).to_contain_text("319.3")
    page.get_by_test_id("row").first.get_by_role("button", name="Correct").click()
    page.get_by_role("button", name=f"{title}: less").click()
    page.get_by_test_id("row").first.get_by_role("button", name="Record").click()
    expect(page.get_by_test_id("row").first).to_contain_text("319.2")
    hands.turns_without_signal()
    while hands.does():
        pass
    hands.tap("Close it")
    assert hands.taps <= 40
    expect(page.get_by_text("signed Demo technician")).to_be_visible()
    expect(page.get_by_role("heading", name="Pass", exact=True)).to_be_visible()
    no_serious_fault(page)
    made = Calibration.objects.get(signed_by="Demo technician")
    answer = page.request.get(f"{server.url}/api/calibrations/{made.pk}/certificate.pdf?units=kpa")
    (sheet,) = PdfReader(io.BytesIO(answer.body())).pages
    assert "As left: Pass" in " ".join(sheet.extract_text().split())
    assert Device.objects.get(pk=made.device_id).due_on


def test_the_reference_on_the_wire_takes_the_reading_when_the_contact_changes(
    open_page: Opener, server: Served, settings: Any
) -> None:
    settings.STAND_IN_PORT = int(server.settings["ZERODIP_STAND_IN_PORT"])
    page = open_page(width=390, height=844, touch=True)
    call_command("load_demo_switches")
    call_command("load_demo_stand_ins")
    page.reload()
    page.get_by_role("link", name="Milk line vacuum alarm").click()
    page.get_by_label("Reference").select_option(label="Compound reference, on the wire")
    page.get_by_role("button", name="Begin").click()
    page.get_by_label("Use it all the same, because").fill("The finer one is away.")
    page.get_by_role("button", name="Begin").click()
    page.wait_for_url("**/calibrations/*")
    for _ in BEFORE:
        title = page.get_by_test_id("instruction").text_content() or ""
        page.get_by_role("button", name="Done").click()
        expect(page.get_by_test_id("instruction")).not_to_have_text(title)
    wire = page.get_by_test_id("wire")
    expect(wire).to_contain_text("closed")  # without vacuum it has acted
    hands = page.context.new_page()
    hands.goto(f"{server.url}/stand-ins")
    bench = hands.get_by_test_id("bench-stand-in").filter(has_text="Milk line")
    bench.get_by_role("button", name="Down", exact=True).click()
    expect(wire).to_contain_text("open", timeout=CYCLE_MS)
    refused = "asked is where it rises"  # it resets on the way down, which nobody asked for
    expect(page.get_by_text(refused)).to_be_visible(timeout=CYCLE_MS)
    no_serious_fault(page)
    cable = bench.get_by_role("group", name="Cable")
    cable.get_by_role("button", name="Off").click()
    expect(wire).to_contain_text("does not answer", timeout=CYCLE_MS)
    cable.get_by_role("button", name="On").click()
    expect(wire).to_contain_text("a second", timeout=CYCLE_MS)
    bench.get_by_role("button", name="Up", exact=True).click()
    acted = page.get_by_test_id("row").filter(has_text="Set point acted at")
    expect(acted).to_be_visible(timeout=CYCLE_MS)
    bench.get_by_role("button", name="Down", exact=True).click()
    reset = page.get_by_test_id("row").filter(has_text="Set point reset at")
    expect(reset).to_be_visible(timeout=CYCLE_MS)
    read = CalibrationEntry.objects.filter(value__kind="read").order_by("-number")[:2]
    back, there = (each.value for each in read)
    assert there["gauge_pa"] == pytest.approx(-12.5 * INHG + 3.2 * KPA, abs=2.5 * KPA)
    assert back["gauge_pa"] == pytest.approx(there["gauge_pa"] - 4 * KPA, abs=3 * KPA)
    assert there["seen_by"] == "gauge"
    assert there["rate_pa_s"] == pytest.approx(2 * KPA * SPEED, rel=0.25)
