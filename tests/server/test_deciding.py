"""Proposals, ways, sizes over the API; and the practice of a workspace, carried to the systems that
follow it."""

import json
import uuid
from pathlib import Path
from typing import Any

import pytest

from practice.selectors import stored_practice
from sites.demo import SITES
from sites.models import System
from sites.services import create_system
from tests.core.systems import file
from zerodip.cli import main
from zerodip.fileformat.document import read_document
from zerodip.units import PSI

from .conftest import World

DEMO = [file for _, _, files in SITES for file in files]
FOLLOWS = {"follows": "workspace"}


def put(
    world: World, practice: dict[str, Any], version: int = 1, who: str = "owner", **more: Any
) -> Any:
    body = {"version": version, "practice": practice, **more}
    return world[who].send("PUT", f"/api/practices/{world.workspace.pk}", body)


@pytest.mark.parametrize("raw", DEMO, ids=lambda raw: raw["system"]["name"])
def test_every_kind_is_decided_proposed_and_sized_in_any_units(
    world: World, raw: dict[str, Any]
) -> None:
    for units in ("us", "metric", "kpa"):
        for ask in ("decide", "propose", "compare", "sizes"):
            answer = world["viewer"].send("POST", f"/api/{ask}?units={units}", {"document": raw})
            assert answer.status_code == 200, answer.content


def test_what_is_proposed_can_be_kept(world: World) -> None:
    proposed = (
        world["viewer"].send("POST", "/api/propose", {"document": DEMO[1]}).json()["proposed"]
    )
    settings = {
        name: proposed[name]
        for name in ("cut_in_gauge_pa", "cut_out_gauge_pa", "pre_charge_gauge_pa")
    }
    decided = (
        world["viewer"]
        .send("POST", "/api/decide", {"document": {**DEMO[1], "settings": settings}})
        .json()
    )
    # Of a proposal what could be judged is told, and beside it how much is missing.
    judged = decided["decision"]["verdict"]
    assert ("pass" if judged == "cannot_tell" else judged) == proposed["verdict"]
    assert proposed["stops"] == 0


@pytest.mark.parametrize(
    ("target", "sizes", "paths"),
    [
        ({"kind": "run", "value": "x"}, None, {"target.value"}),
        (
            {"kind": "run", "value": -5},
            [0.1, "y", -1],
            {"target.value", "sizes_m3.1", "sizes_m3.2"},
        ),
        ({"kind": "sleep", "value": 5}, [], {"target.kind", "sizes_m3"}),
        ("soon", "big", {"target.kind", "sizes_m3"}),
    ],
)
def test_bad_targets_and_sizes_are_named_with_the_file_s_own_faults(
    world: World, target: Any, sizes: Any, paths: set[str]
) -> None:
    body = {"document": file(settings__cut_in_gauge_pa=None), "target": target, "sizes_m3": sizes}
    faults = world["viewer"].send("POST", "/api/sizes", body).json()["faults"]
    assert {fault["path"] for fault in faults} == paths | {"settings.cut_in_gauge_pa"}


def test_a_wanted_run_is_sized_from_the_list_given(world: World) -> None:
    body = {
        "document": file(),
        "target": {"kind": "run", "value": 120},
        "sizes_m3": [0.05, 0.3, 0.4],
    }
    sized = world["viewer"].send("POST", "/api/sizes", body).json()
    assert [size["volume_m3"] for size in sized["instead"]] == [0.05, 0.3, 0.4]
    assert [size["meets"] for size in sized["instead"]] == [False, True, True]


def test_a_practice_is_carried_to_the_systems_that_follow_it_and_to_no_other(world: World) -> None:
    follower = create_system(
        world.site, read_document(file(system__name="Follower", practice=FOLLOWS))
    )
    changed = put(
        world,
        {"pre_charge_school": "five_below", "reason": "Cut-offs everywhere"},
        sizes_m3=[0.1, 0.05],
    )
    assert changed.status_code == 200
    assert changed.json()["sizes_m3"] == [0.05, 0.1]
    assert world["viewer"].get("/api/practices").json() == [{**changed.json(), "may_change": False}]
    follower.refresh_from_db()
    world.system.refresh_from_db()
    assert follower.document["practice"]["pre_charge_school"] == "five_below"
    assert follower.document["practice"]["follows"] == "workspace"
    assert (follower.version, world.system.version) == (2, 1)
    assert world.system.document["practice"]["pre_charge_school"] == "two_below"
    assert "not right" in follower.summary["headline"]["us"]


def test_a_follower_is_saved_with_the_workspace_s_practice_whatever_was_sent(world: World) -> None:
    put(world, {"run_time_school": "half_minute"})
    typed = {"practice.gauge_error_pa": {"text": "3", "unit": "psi"}}
    sent = file(practice={**FOLLOWS, "gauge_error_pa": 3 * PSI})
    answer = world["owner"].send(
        "PUT",
        f"/api/systems/{world.system.pk}",
        {"version": 1, "document": {**sent, "entered": typed}},
    )
    kept = answer.json()["document"]
    assert kept["practice"]["run_time_school"] == "half_minute"
    assert kept["practice"]["gauge_error_pa"] == pytest.approx(PSI)
    assert kept["entered"] == {}


def test_two_who_change_the_practice_and_bad_values(world: World) -> None:
    assert put(world, {}).status_code == 200
    late = put(world, {"check_school": "measured"}, version=1)
    assert late.status_code == 409
    assert late.json()["current"]["version"] == 2
    bad = put(world, {"check_school": "never", "gauge_error_pa": "x"}, version=2, sizes_m3=["z"])
    assert {f["path"] for f in bad.json()["faults"]} == {
        "practice.check_school",
        "practice.gauge_error_pa",
        "sizes_m3.0",
    }
    assert stored_practice(world.workspace.pk).version == 2
    assert System.objects.get(pk=world.system.pk).version == 1


@pytest.mark.parametrize("raw", DEMO, ids=lambda raw: raw["system"]["name"])
def test_every_kind_is_kept_exported_and_decided_alike_on_the_command_line(
    world: World, raw: dict[str, Any], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    system = create_system(world.site, read_document(raw))
    address = f"/api/systems/{system.pk}"
    kept = world["technician"].send(
        "PUT", f"{address}/decisions/{uuid.uuid4()}", {"version": 1, "document": raw}
    )
    assert kept.status_code == 200, kept.content
    exported = world["viewer"].get(f"{address}/file")
    path = tmp_path / "system.json"
    path.write_bytes(exported.content)
    assert main(["decide", str(path)]) == 0
    told = json.loads(capsys.readouterr().out)
    asked = {"document": exported.json(), "sure": True}
    shown = world["viewer"].send("POST", "/api/decide", asked).json()
    assert shown["decision"] == told
    assert kept.json()["verdict"] == told["verdict"]
    assert kept.json()["figures"] == {answer["id"]: answer["value"] for answer in told["results"]}


def test_usual_values_are_marked_until_they_are_read_or_decided_on(world: World) -> None:
    """Through the interface: begun with usual values, kept, one plate confirmed, kept again."""
    new, technician = f"/api/sites/{world.site.pk}/systems/{uuid.uuid4()}", world["technician"]
    begun = technician.send("PUT", new, {"name": "Begun", "kind": "well_bladder"}).json()
    address, document = f"/api/systems/{begun['id']}", begun["document"]
    assert document["system"]["assumed"]["settings.cut_in_gauge_pa"] is True
    judged = technician.send("POST", "/api/decide", {"document": document}).json()["decision"]
    assert judged["verdict"] == "cannot_tell"
    assert {"settings.cut_in_gauge_pa", "system.pump.flow_m3_s"} <= {
        each["path"] for each in judged["usual"]
    }
    decision = f"{address}/decisions/{uuid.uuid4()}"
    for _ in range(2):  # the same again changes nothing
        kept = technician.send("PUT", decision, {"version": 1, "document": document})
        assert kept.status_code == 200, kept.content
    stored = world["viewer"].get(address).json()
    assert "settings.cut_in_gauge_pa" not in stored["document"]["system"]["assumed"]
    assert "system.pump.flow_m3_s" in stored["document"]["system"]["assumed"]
    stored["document"]["system"]["assumed"] = {}
    body = {"version": stored["version"], "document": stored["document"]}
    assert technician.send("PUT", address, body).status_code == 200
    assert world["viewer"].get(address).json()["document"]["system"]["assumed"] == {}


def test_a_system_s_practice_of_its_own_stays_when_the_workspace_changes_its_mind(
    world: World,
) -> None:
    own = create_system(
        world.site, read_document(file(system__name="Own", practice={"reason": "A big garden"}))
    )
    put(world, {"pre_charge_school": "computed"})
    own.refresh_from_db()
    assert own.document["practice"]["reason"] == "A big garden"
    assert own.document["practice"]["pre_charge_school"] == "two_below"
    body = {"version": 1, "document": {**own.document, "practice": FOLLOWS}}
    followed = (
        world["owner"].send("PUT", f"/api/systems/{own.pk}", body).json()["document"]["practice"]
    )
    assert followed["pre_charge_school"] == "computed"
    assert followed["reason"] == ""


def test_sizes_and_ways_of_another_workspace_are_never_seen(world: World) -> None:
    put(world, {"reason": "Ours alone"}, sizes_m3=[0.3])
    seen = world["outsider"].get("/api/practices").json()
    assert [practice["name"] for practice in seen] == ["theirs"]
    assert "Ours alone" not in str(seen)
    assert put(world, {}, version=2, who="outsider").status_code == 404
    assert put(world, {}, version=2, who="viewer").status_code == 403
