"""Systems and decisions: kept, found again, safe to repeat, never overwritten unseen, never harmed
by bad input."""

import json
import uuid
from typing import Any

import pytest
from django.core.management import call_command
from django.test import Client

from audit.models import AuditEvent
from sites.models import Decision, System
from sites.services import create_system
from tests.core.systems import file
from zerodip.cli import main
from zerodip.fileformat.document import read_document
from zerodip.kinds.registry import KINDS
from zerodip.units import PSI

from .conftest import World

CUT_IN = "settings.cut_in_gauge_pa"
TYPED = {"settings.cut_in_gauge_pa": {"text": "42", "unit": "psi"}}


def wanted(psi: float = 42) -> dict[str, Any]:
    return file(settings__cut_in_gauge_pa=psi * PSI, settings__cut_out_gauge_pa=62 * PSI)


def keep(
    world: World,
    document: Any,
    version: int = 1,
    id: str = "",
    who: str = "technician",
    query: str = "",
) -> Any:
    address = f"/api/systems/{world.system.pk}/decisions/{id or uuid.uuid4()}{query}"
    return world[who].send("PUT", address, {"version": version, "document": document})


def test_a_decision_is_kept_and_found_with_what_was_typed(world: World) -> None:
    made = keep(world, {**wanted(), "entered": TYPED})
    assert made.status_code == 200
    found = world["viewer"].get(f"/api/systems/{world.system.pk}").json()
    assert found["version"] == 2
    assert found["document"]["settings"]["cut_in_gauge_pa"] == pytest.approx(42 * PSI)
    assert found["document"]["entered"] == TYPED
    assert [d["id"] for d in found["decisions"]] == [made.json()["id"]]
    assert found["decisions"][0]["figures"]["drawdown"] == pytest.approx(0.0420, abs=0.002)
    assert found["decisions"][0]["made_by"] == "technician of ours"
    assert found["summary"]["cut_in_gauge_pa"] == pytest.approx(42 * PSI)
    assert found["may_change"] is False
    assert (
        AuditEvent.objects.filter(action="decisions.save", about=str(world.system.pk)).count() == 1
    )


def test_the_same_save_again_changes_nothing(world: World) -> None:
    id = str(uuid.uuid4())
    first, again = keep(world, wanted(), id=id), keep(world, wanted(), id=id)
    assert first.json() == again.json()
    assert Decision.objects.count() == 1
    assert System.objects.get(pk=world.system.pk).version == 2
    other = keep(world, wanted(43), id=id)
    assert other.status_code == 409
    assert Decision.objects.count() == 1


def test_the_second_of_two_people_is_told_both_values(world: World) -> None:
    assert keep(world, wanted(42), who="owner").status_code == 200
    late = keep(world, wanted(44), version=1)
    assert late.status_code == 409
    stored = late.json()["current"]
    assert stored["version"] == 2
    assert stored["document"]["settings"]["cut_in_gauge_pa"] == pytest.approx(42 * PSI)
    assert keep(world, wanted(44), version=2).status_code == 200


def test_plates_are_saved_without_a_decision(world: World) -> None:
    body = {
        "version": 1,
        "document": file(system__name="Renamed", system__relief={"present": True}),
    }
    saved = world["owner"].send("PUT", f"/api/systems/{world.system.pk}", body)
    assert saved.json()["name"] == "Renamed"
    assert saved.json()["version"] == 2
    assert saved.json()["decisions"] == []


BAD: list[tuple[Any, set[str]]] = [
    (
        file(settings__cut_in_gauge_pa=None, settings__cut_out_gauge_pa=1e9 * PSI),
        {CUT_IN, "settings.cut_out_gauge_pa"},
    ),
    (file(settings__cut_in_gauge_pa=float("nan")), {CUT_IN}),
    (file(settings__cut_in_gauge_pa=float("inf")), {CUT_IN}),
    (file(settings__cut_in_gauge_pa=70 * PSI), {CUT_IN}),
    (file(system__pump__flow_m3_s=-1), {"system.pump.flow_m3_s"}),
    (file(system__name="\u0000"), {"system.name"}),
    (file(system__name="\ud800"), {"system.name"}),
    ({}, {"format", "version", "system", "settings"}),
    ([], {""}),
    ("x", {""}),
    (None, {""}),
]


ASKS = ("decide", "propose", "compare", "sizes")


@pytest.mark.parametrize(("document", "paths"), BAD)
def test_bad_values_get_422_by_field_everywhere_and_the_store_keeps_what_it_had(
    world: World, document: Any, paths: set[str]
) -> None:
    before = System.objects.values().get(pk=world.system.pk)
    answers = [
        keep(world, document, query="?units=metric"),
        world["owner"].send(
            "PUT", f"/api/systems/{world.system.pk}", {"version": 1, "document": document}
        ),
        *(world["viewer"].send("POST", f"/api/{ask}", {"document": document}) for ask in ASKS),
    ]
    for answer in answers:
        assert answer.status_code == 422, answer.content
        assert {fault["path"] for fault in answer.json()["faults"]} == paths
        assert all(fault["message"] for fault in answer.json()["faults"])
    assert System.objects.values().get(pk=world.system.pk) == before
    assert not Decision.objects.exists()


def test_faults_are_worded_in_the_units_asked_for(world: World) -> None:
    refused = keep(world, file(settings__cut_out_gauge_pa=1e9), query="?units=metric").json()
    assert refused["faults"] == [
        {
            "path": "settings.cut_out_gauge_pa",
            "code": "too_large",
            "message": "Cut-out is 10,000 bar; allowed 0.14 bar to 20.68 bar.",
            "allowed": "0.14 bar to 20.68 bar",
        }
    ]


@pytest.mark.parametrize(
    "raw", ["{", "", "\xff", "[" * 5000, '{"document": ', "null", '{"version": 1e999}', "[1]"]
)
@pytest.mark.parametrize(
    "address",
    ["/api/decide", "/api/sizes", "/api/systems/{system}", "/api/systems/{system}/decisions/{new}"],
)
def test_what_is_not_json_is_refused_and_never_a_500(world: World, raw: str, address: str) -> None:
    method = "PUT" if "systems" in address else "POST"
    path = address.format(system=world.system.pk, new=uuid.uuid4())
    assert world["owner"].send(method, path, raw=raw).status_code in (400, 422)


def test_an_address_that_is_no_id_and_units_that_are_none_are_refused(world: World) -> None:
    assert world["owner"].get("/api/systems/7").status_code == 422
    assert (
        world["owner"].send("PATCH", f"/api/sites/{world.site.pk}", {"units": "cubits"}).status_code
        == 422
    )
    assert (
        world["owner"].send("POST", "/api/decide?units=cubits", {"document": file()}).status_code
        == 422
    )


def test_a_body_beyond_all_measure_is_refused(world: World) -> None:
    response = world["owner"].send(
        "POST", "/api/decide", raw='{"document": "' + "x" * 1_200_000 + '"}'
    )
    assert response.status_code in (400, 413)


def test_the_exported_file_is_what_the_command_line_reads(
    world: World, tmp_path: Any, capsys: Any
) -> None:
    exported = world["viewer"].get(f"/api/systems/{world.system.pk}/file")
    assert "attachment" in exported["Content-Disposition"]
    path = tmp_path / "system.json"
    path.write_bytes(exported.content)
    assert main(["decide", str(path)]) == 0
    told = json.loads(capsys.readouterr().out)
    asked = {"document": exported.json(), "sure": True}
    shown = world["viewer"].send("POST", "/api/decide", asked).json()
    assert shown["decision"] == told


@pytest.mark.parametrize("draw", [-1, "x", float("nan"), 1e9, [], True])
def test_an_odd_draw_is_a_fault_beside_the_others(world: World, draw: Any) -> None:
    body = {"document": file(settings__cut_in_gauge_pa=None), "draw_m3_s": draw}
    faults = world["viewer"].send("POST", "/api/decide", body).json()["faults"]
    assert [fault["path"] for fault in faults] == [CUT_IN, "draw_m3_s"]


def test_a_site_remembers_its_units(world: World) -> None:
    assert (
        world["technician"]
        .send("PATCH", f"/api/sites/{world.site.pk}", {"units": "metric"})
        .json()["units"]
        == "metric"
    )
    assert world["viewer"].get("/api/rounds").json()["sites"][0]["units"] == "metric"


def test_rounds_take_as_many_queries_for_twenty_systems_as_for_one(
    world: World, django_assert_num_queries: Any
) -> None:
    with django_assert_num_queries(6):
        world["viewer"].get("/api/rounds")
    for at in range(20):
        System.objects.create(
            site=world.site,
            name=f"No {at}",
            document=world.system.document,
            summary=world.system.summary,
        )
    with django_assert_num_queries(6):
        assert len(world["viewer"].get("/api/rounds").json()["sites"][0]["systems"]) == 21


def test_the_demo_shows_a_system_of_every_kind_and_loads_once(db: None, settings: Any) -> None:
    settings.DEMO, settings.DEMO_PASSWORD = True, "only here"
    for _ in range(2):
        call_command("load_demo")
    call_command("summarize_again")
    browser = Client()
    browser.post("/api/session/demo", content_type="application/json")
    sites = browser.get("/api/rounds").json()["sites"]
    seen = {row["name"]: row["summary"] for site in sites for row in site["systems"]}
    assert {name: (g["verdict"], g["headline"]["us"]) for name, g in seen.items()} == {
        "Potting-shed well": ("pass", "All limits OK"),
        "Orchard house well": ("stop", "Pre-charge at or above cut-in"),
        "Glasshouse rainwater": ("stop", "Untreated water without a label"),
        "Millrace cottage": ("stop", "Short runs"),
        "Top-floor booster": ("stop", "The pump draws the supply down too far"),
        "Byre well": ("stop", "Short runs"),
        "Twin-tank well": ("caution", "Tanks with different pre-charges"),
        "Workshop compressor": ("caution", "Cut-out too near the safety valve"),
        "Galley pump": ("cannot_tell", "Missing: the switch's lowest cut-in, under its cover"),
        "Camper van pump": ("caution", "No cut-out works at both voltages"),
    }
    assert {row["summary"]["kind"] for site in sites for row in site["systems"]} == set(KINDS)


def test_summaries_are_worked_out_again_after_the_rules_changed(world: World) -> None:
    System.objects.filter(pk=world.system.pk).update(summary={"verdict": "old"})
    call_command("summarize_again")
    world.system.refresh_from_db()
    assert world.system.summary["verdict"] == "cannot_tell"


def test_a_name_that_another_system_of_the_site_has_is_refused_by_field(world: World) -> None:
    create_system(world.site, read_document(file(system__name="Second well")))
    body = {"version": world.system.version, "document": file(system__name="Second well")}
    for path in (
        f"/api/systems/{world.system.pk}",
        f"/api/systems/{world.system.pk}/decisions/{uuid.uuid4()}",
    ):
        refused = world["owner"].send("PUT", path, body)
        assert refused.status_code == 422
        assert [fault["path"] for fault in refused.json()["faults"]] == ["system.name"]
    body["document"] = file(system__name="First well")
    assert (
        world["owner"].send("PUT", f"/api/systems/{world.system.pk}", body).json()["name"]
        == "First well"
    )
