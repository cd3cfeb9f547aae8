"""What belongs to the crew: gauges used on a visit, members, files out and in, the calendar."""

import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from accounts.models import Membership, User
from gauges.models import Gauge
from sites.models import Site, System
from visits.models import Visit
from zerodip.units import PSI

from .conftest import Opener
from .test_pages import no_serious_fault
from .test_visit import kept

pytestmark = pytest.mark.django_db(transaction=True)


def workspace(page: Page) -> Page:
    page.goto(page.url.split("/", 3)[0] + "//" + page.url.split("/")[2] + "/workspace")
    expect(page.get_by_test_id("members").get_by_role("listitem")).to_have_count(3)
    return page


@pytest.mark.parametrize(("width", "theme"), [(1280, "day"), (390, "cellar")])
def test_the_workspace_has_no_serious_accessibility_fault_and_fits(
    open_page: Opener, width: int, theme: str
) -> None:
    page = workspace(open_page(width, 844, theme=theme))
    page.emulate_media(reduced_motion="reduce")
    page.get_by_role("button", name="Add a gauge").click()
    no_serious_fault(page)
    assert page.evaluate("document.documentElement.scrollWidth") <= width


def test_a_gauge_is_added_with_its_faults_named_and_used_on_a_visit(open_page: Opener) -> None:
    page = workspace(open_page(390, 844, touch=True))
    page.get_by_role("button", name="Add a gauge").click()
    page.get_by_label("What it is called").fill("No. 9")
    page.get_by_label(re.compile("End of its scale")).fill("big")
    page.get_by_role("button", name="Save the gauge").click()
    expect(page.get_by_text("End of the scale is not a number.")).to_be_visible()
    expect(page.get_by_label("What it is called")).to_have_value("No. 9")
    page.get_by_label(re.compile("End of its scale")).fill("100")
    page.get_by_label(re.compile("too little by")).fill("1.5")
    page.get_by_role("button", name="Save the gauge").click()
    expect(page.get_by_test_id("gauges")).to_contain_text("No. 9")
    assert Gauge.objects.get(data__name="No. 9").data["scale_gauge_pa"] == pytest.approx(100 * PSI)
    page.get_by_role("link", name="Zero Dip", exact=True).click()
    page.get_by_role("button", name="Visit, Orchard house well").click()
    page.get_by_role("button", name=re.compile("^No. 9")).click()
    expect(page.get_by_label("Gauge shows too little by", exact=True)).to_have_value("1.5")
    expect(page.get_by_label("Gauge used", exact=True)).to_have_value("No. 9")
    assert kept(page, "gauge.error") == [
        pytest.approx(2 * PSI)
    ]  # grade B, 30 to 50 psi in the middle half of 100
    assert kept(page, "gauge.low") == [pytest.approx(1.5 * PSI)]


def test_somebody_is_let_in_and_out_with_two_presses(open_page: Opener) -> None:
    page = open_page()
    demo = Membership.objects.filter(user__username="demo")
    demo.update(role="owner")
    page = workspace(page)
    page.get_by_label("Sign-in name").fill("ada@elsewhere")
    page.get_by_role("button", name="Let somebody in").click()
    expect(page.get_by_text("Sign-in name needs no @")).to_be_visible()
    page.get_by_label("Sign-in name").fill("ada")
    page.get_by_role("textbox", name="Name", exact=True).fill("Ada")
    page.get_by_role("button", name="Let somebody in").click()
    joined = f"ada@{Membership.objects.get(user__username='demo').workspace.handle}"
    expect(page.get_by_text(f"Password for {joined}, shown this once")).to_be_visible()
    page.get_by_label("Role of Ada").select_option("viewer")
    expect(page.get_by_label("Role of Ada")).to_have_value("viewer")
    page.get_by_role("button", name="Take Ada out").click()
    assert Membership.objects.filter(user__username=joined).exists()
    page.get_by_role("button", name="Take Ada out: yes, do it").click()
    expect(page.get_by_test_id("members")).not_to_contain_text("Ada")
    assert not User.objects.get(username=joined).memberships.exists()
    page.get_by_label("Role of Demo technician").select_option("viewer")
    expect(page.get_by_role("alert")).to_contain_text("keeps at least one owner")


def test_what_was_taken_out_as_a_file_comes_in_again_after_a_look_at_it(
    open_page: Opener, tmp_path: Path
) -> None:
    page = workspace(open_page())
    with page.expect_download() as download:
        page.get_by_role("link", name="Everything (JSON)").click()
    file = tmp_path / "all.json"
    download.value.save_as(file)
    visits = Visit.objects.count()
    Site.objects.filter(name="Larkfield Nursery").delete()
    archive = json.loads(file.read_text())
    archive["sites"][1]["systems"][0]["file"]["settings"]["cut_in_gauge_pa"] = 9e9
    bad = tmp_path / "bad.json"
    bad.write_text(json.dumps(archive, indent=1))
    take = page.locator("input[type=file]")
    take.set_input_files(
        {"name": "cut.json", "mimeType": "application/json", "buffer": file.read_bytes()[:5000]}
    )
    expect(page.get_by_role("alert")).to_contain_text("was cut off")
    take.set_input_files(bad)
    expect(page.get_by_test_id("pieces")).to_contain_text(
        "sites.1.systems.0.file.settings.cut_in_gauge_pa"
    )
    expect(page.get_by_role("button", name="Import it")).to_have_count(0)
    page.get_by_role("button", name="Cancel", exact=True).click()
    take.set_input_files(file)
    expect(page.get_by_role("button", name=re.compile("added"))).to_contain_text("4")
    no_serious_fault(page)
    page.get_by_role("button", name="Import it").click()
    expect(page.get_by_text("Taken in.", exact=True)).to_be_visible()
    assert Visit.objects.count() == visits
    assert System.objects.filter(site__name="Larkfield Nursery").count() == 3


def test_a_site_is_renamed_and_the_calendar_has_an_address(open_page: Opener) -> None:
    page = workspace(open_page())
    page.get_by_text("Tarn Hill Farm").click()
    name = (
        page.get_by_role("region", name="Sites")
        .get_by_label("Name")
        .and_(page.locator("input:visible"))
    )
    name.fill("Quillbeck Lane")
    name.blur()
    expect(page.get_by_text("Name is taken already; choose another.")).to_be_visible()
    name.fill("Tarn Hill")
    name.blur()
    expect(page.get_by_text("Tarn Hill", exact=True)).to_be_visible()
    page.get_by_role("button", name="Retire the site").locator("visible=true").click()
    expect(page.get_by_role("button", name="Bring it back").locator("visible=true")).to_be_visible()
    assert not System.objects.filter(site__name="Tarn Hill", retired_at=None).exists()
    page.get_by_role("button", name="Make an address").click()
    address = page.get_by_text(re.compile(r"/papers/due/.*\.ics")).text_content()
    anyone = page.context.browser.new_context()  # type: ignore[union-attr]
    assert "SUMMARY:Check Potting-shed well" in anyone.request.get(str(address)).text()
    page.get_by_role("button", name="Stop sharing").click()
    expect(page.get_by_role("button", name="Make an address")).to_be_visible()
    assert anyone.request.get(str(address)).status == 404
