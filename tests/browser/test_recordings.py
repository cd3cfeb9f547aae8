"""A recorder's file from the sheet to the readings in the visit, in the browser."""

from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.lines import GPM, Plant, line_of
from zerodip.units import PSI

from .conftest import Opener
from .test_pages import no_serious_fault

pytestmark = pytest.mark.django_db(transaction=True)
EPOCH = 1772668800.0


def written(folder: Path, head: str) -> Path:
    line = line_of(Plant(pre_charge=22, volume_m3=0.03), [(20, 0), (2400, 3 * GPM), (1200, 0.0)])
    rows = [
        f"{EPOCH + t:.0f},{g / PSI:.2f}" for t, g in zip(line.time_s, line.gauge_pa, strict=True)
    ]
    file = folder / "cellar.csv"
    file.write_text(head + "\n" + "\n".join(rows) + "\n")
    return file


def sent(page: Page, file: Path) -> None:
    page.get_by_role("link", name="Orchard house well Pre-charge").click()
    expect(page.get_by_role("heading", name="Recordings")).to_be_visible()
    page.get_by_label("Add a recording").set_input_files(file)
    expect(page.get_by_role("button", name="Read it")).to_be_visible()


def test_from_the_file_to_readings_in_the_visit(open_page: Opener, tmp_path: Path) -> None:
    page = open_page()
    sent(page, written(tmp_path, "epoch,Value"))
    expect(page.get_by_text("No unit is named")).to_be_visible()
    no_serious_fault(page)
    page.locator("fieldset").get_by_label("Unit").select_option("psi")
    page.get_by_label("Time zone").fill("Nowhere/At all")
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_text("is not known")).to_be_visible()  # nothing typed is lost
    page.get_by_label("Time zone").fill("")
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_text("Short cycling")).to_be_visible(timeout=30_000)
    expect(page.locator("canvas")).to_be_visible()
    first = page.locator("tbody button").first
    expect(first).to_be_visible()
    before = page.locator("#line").text_content()
    page.get_by_role("button", name="Nearer").click()
    expect(page.locator("#line")).not_to_have_text(before or "")
    page.locator("[role=application]").press("Home")
    first.click()
    expect(page.get_by_text("what the plates and settings predict")).to_be_visible()
    no_serious_fault(page)
    page.reload()
    page.get_by_role("button", name="Take these as readings").click()
    expect(page.get_by_text("Taken into the visit")).to_be_visible()
    page.get_by_role("link", name="To the visit").click()
    page.wait_for_url("**/visits/*")
    expect(page.get_by_text("60").first).to_be_visible()


def test_what_is_no_recording_is_said_and_leaves_nothing(open_page: Opener, tmp_path: Path) -> None:
    page = open_page(width=390, height=844, touch=True)
    file = tmp_path / "picture.png"
    file.write_bytes(b"\x89PNG" + b"\0" * 400)
    page.get_by_role("link", name="Orchard house well Pre-charge").click()
    page.get_by_label("Add a recording").set_input_files(file)
    expect(page.get_by_text("This is a picture")).to_be_visible()
    page.get_by_role("link", name="Back to the system").click()
    expect(page.get_by_role("heading", name="Recordings")).to_be_visible()
    expect(page.get_by_text("picture.png")).to_have_count(0)
