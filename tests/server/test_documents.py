"""Papers: the PDF's text beside the visit's figures, links that live and die, labels to a sheet."""

import io
import uuid
from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from pypdf import PdfReader

from documents.models import Link
from sites.models import System
from sites.services import create_system
from tests.core.systems import file
from zerodip.fileformat.document import read_document
from zerodip.fileformat.templates import template_file
from zerodip.kinds.registry import KINDS
from zerodip.units import PSI, text

from .conftest import World
from .test_visits import add, opened, seen


def words(data: bytes) -> str:
    """The text of a PDF on one line, read by an independent reader."""
    return " ".join(
        " ".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages).split()
    )


def handed_over(world: World) -> str:
    visit = opened(world)
    for slot, value in (
        ("found.cut_in", 33 * PSI),
        ("found.cut_out", 51 * PSI),
        ("found.pre_charge", 30 * PSI),
        ("air.left", 38 * PSI),
        ("try", seen(39, 58, 2, 0.5)),
        ("try", seen(40, 60, 0.25)),
        ("lap", {"run_s": 69.0, "rest_s": None}),
        ("safe.cover", True),
        ("note", {"text": "Wasps under the cover <b>of</b> the box"}),
        ("signed", "A. Technician"),
    ):
        assert add(world, visit, slot, value).status_code == 200, slot
    closed = world["technician"].send("PUT", f"/api/visits/{visit}/closed")
    assert closed.status_code == 200
    return visit


@pytest.mark.parametrize("units", ["us", "metric"])
def test_the_report_s_text_holds_the_visit_s_figures(world: World, units: str) -> None:
    visit = handed_over(world)
    response = world["viewer"].get(f"/api/visits/{visit}/report.pdf?units={units}")
    assert response["Content-Type"] == "application/pdf"
    told = words(response.content)
    for found, left in ((33, 40), (51, 60), (30, 38)):
        assert (
            f"{text(found * PSI, 'pressure', units)} {text(left * PSI, 'pressure', units)}" in told
        )
    decided = {a["id"]: a for a in _decided(world, units)}
    for id in ("drawdown", "starts", "reserve"):
        assert decided[id]["text"] in told, id
    for said in (
        "69 s",
        "Range nut 2 turns clockwise",
        "A. Technician",
        "North farm",
        "<b>of</b>",
        "licensed practice",
    ):
        assert said in told
    reader = PdfReader(io.BytesIO(response.content))
    assert 1 <= len(reader.pages) <= 2
    assert round(reader.pages[0].mediabox.width) == {"us": 612, "metric": 595}[units]
    fonts = {f["/BaseFont"].split("+")[-1] for f in _fonts(reader)}
    assert fonts
    assert all(name.startswith("Zero-Dip") for name in fonts)


def _decided(world: World, units: str) -> Any:
    document = file(
        settings={
            "cut_in_gauge_pa": 40 * PSI,
            "cut_out_gauge_pa": 60 * PSI,
            "pre_charge_gauge_pa": 38 * PSI,
        }
    )
    asked = world["viewer"].send("POST", f"/api/decide?units={units}", {"document": document})
    return asked.json()["decision"]["results"]


def _fonts(reader: PdfReader) -> list[Any]:
    return [
        font.get_object() for page in reader.pages for font in page["/Resources"]["/Font"].values()
    ]


def test_a_link_lives_until_it_is_revoked_or_expires(world: World) -> None:
    visit, link = handed_over(world), uuid.uuid4()
    address = f"/api/visits/{visit}/links/{link}"
    made = world["technician"].send("PUT", address, {"days": 7}).json()
    again = world["technician"].send("PUT", address, {"days": 7}).json()
    assert again["expires_at"] == made["expires_at"]
    other = world["technician"].send("PUT", address, {"days": 90})
    assert (other.status_code, other.json()["current"]["yours"]["days"]) == (409, 90)
    path = "/" + made["address"].split("/", 3)[3]
    rows = {
        who: world[who].get(f"/api/visits/{visit}/links").json()[0] for who in ("owner", "viewer")
    }
    assert [rows[who]["address"] for who in ("owner", "viewer")] == [made["address"], ""]
    assert rows["viewer"]["state"] == "alive"
    page = world["anonymous"].get(path)
    assert page.status_code == 200
    assert "39 psi" in page.content.decode()
    assert "&lt;b&gt;of" in page.content.decode()
    assert page["X-Robots-Tag"] == "noindex, nofollow"
    assert world["anonymous"].get(path + ".pdf").content.startswith(b"%PDF")
    forged = path[:-3] + ("aaa" if path[-3:] != "aaa" else "bbb")
    assert world["anonymous"].get(forged).status_code == 404
    assert world["anonymous"].get(f"/papers/{link.hex}").status_code == 404
    assert world["technician"].send("DELETE", address).json()["state"] == "revoked"
    assert world["anonymous"].get(path).status_code == 404
    assert world["anonymous"].get(path + ".pdf").status_code == 404
    Link.objects.filter(pk=link).update(
        revoked_at=None, expires_at=timezone.now() - timedelta(seconds=1)
    )
    assert world["anonymous"].get(path).status_code == 404
    listed = world["viewer"].get(f"/api/visits/{visit}/links").json()
    assert [(row["state"], row["address"]) for row in listed] == [("expired", "")]


def test_what_was_found_stands_on_page_link_paper_and_rounds_alike(world: World) -> None:
    visit = opened(world)
    for slot in ("found.water_at_valve", "found.leaks", "found.corrosion", "prove.dip"):
        assert add(world, visit, slot, True).status_code == 200
    page = world["technician"].get(f"/api/visits/{visit}").json()["view"]["handover"]["remaining"]
    found = [each["title"] for each in page]
    four = {"Water at the air valve", "Leaks seen", "Corrosion seen", "A dip felt at the taps"}
    assert four <= set(found)
    world["technician"].send("PUT", f"/api/visits/{visit}/closed")
    link = world["technician"].send("PUT", f"/api/visits/{visit}/links/{uuid.uuid4()}", {"days": 7})
    shown = world["anonymous"].get("/" + link.json()["address"].split("/", 3)[3]).content.decode()
    paper = words(world["viewer"].get(f"/api/visits/{visit}/report.pdf").content)
    (check,) = world["viewer"].get("/api/next-checks").json()
    on_rounds = [each["title"] for each in check["seen"]["us"]]
    for title in found:
        assert title in shown, title
        assert title in paper, title
    assert f"{len(found)} things to see to" in paper
    assert four <= set(on_rounds) <= set(found)
    assert "Add 1" not in paper  # nor is a burst bladder to be filled


@pytest.mark.parametrize("days", [0, -1, 367, 10**9])
def test_a_link_for_too_long_is_refused_by_name(world: World, days: int) -> None:
    answer = world["owner"].send(
        "PUT", f"/api/visits/{opened(world)}/links/{uuid.uuid4()}", {"days": days}
    )
    assert [fault["path"] for fault in answer.json()["faults"]] == ["days"]


def test_labels_stand_several_to_a_sheet_with_a_warning_where_water_is_not_for_drinking(
    world: World,
) -> None:
    raw = file()
    raw["system"] = {**raw["system"], "kind": "cistern", "name": "Roof water"}
    roof = create_system(world.site, read_document(raw))
    query = "&".join(f"system={each}" for each in (world.system.pk, roof.pk, uuid.uuid4()))
    told = words(world["viewer"].get(f"/api/labels.pdf?{query}&first=3&units=us").content)
    assert told.count("Cut-in") == 2
    assert told.count("Do not drink.") == 1
    assert world["viewer"].get("/api/labels.pdf?system=x").status_code == 422
    assert world["outsider"].get(f"/api/labels.pdf?{query}").status_code == 404


def test_labels_of_a_whole_site_need_no_list_of_its_systems(world: World) -> None:
    """Ninety-five, those off the rounds left out."""
    document = read_document(file())
    for k in range(95):
        system = replace(document.system, name=f"Number {k}")
        create_system(world.site, replace(document, system=system))
    System.objects.filter(pk=world.system.pk).update(retired_at=timezone.now())
    path = f"/api/labels.pdf?site={world.site.pk}"
    assert words(world["viewer"].get(path).content).count("Cut-in") == 95
    assert world["outsider"].get(path).status_code == 404
    assert world["viewer"].get("/api/labels.pdf").status_code == 404


def test_a_visit_just_begun_has_a_report_too(world: World) -> None:
    told = words(world["viewer"].get(f"/api/visits/{opened(world)}/report.pdf").content)
    assert "Not closed yet" in told
    assert told.count("missing") >= 5


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_is_printed_on_a_page_or_two(world: World, kind: str) -> None:
    system = create_system(world.site, read_document(template_file(kind, "Begun")))
    visit = (
        world["technician"]
        .send("PUT", f"/api/systems/{system.pk}/visits/{uuid.uuid4()}")
        .json()["id"]
    )
    told = words(world["viewer"].get(f"/api/visits/{visit}/report.pdf?units=kpa").content)
    assert ("Pump time" in told) != (kind == "tankless")
    assert ("dead-head" in told) == (kind == "tankless")
    assert "Begun" in words(world["viewer"].get(f"/api/labels.pdf?system={system.pk}").content)


def test_links_lead_to_the_address_that_others_know(world: World, settings: Any) -> None:
    settings.ADDRESS = "https://pumps.example"
    path = f"/api/visits/{opened(world)}/links/{uuid.uuid4()}"
    assert (
        world["owner"]
        .send("PUT", path, {})
        .json()["address"]
        .startswith("https://pumps.example/papers/")
    )
    assert (
        world["viewer"]
        .send("POST", "/api/feed")
        .json()["address"]
        .startswith("https://pumps.example/papers/due/")
    )
