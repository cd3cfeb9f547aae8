"""Sites and systems begun, named and retired: safe to repeat, refused by field, nothing lost."""

import uuid
from typing import Any

import pytest

from sites.models import Site, System
from sites.services import create_system
from tests.core.systems import file
from zerodip.fileformat.document import read_document

from .conftest import World


def begin(
    world: World, body: dict[str, Any], who: str = "technician", site: Any = None, id: Any = None
) -> Any:
    address = f"/api/sites/{site or world.site.pk}/systems/{id or uuid.uuid4()}"
    return world[who].send("PUT", address, body)


def found(world: World, body: dict[str, Any], who: str = "technician", id: Any = None) -> Any:
    return world[who].send(
        "PUT", f"/api/workspaces/{world.workspace.pk}/sites/{id or uuid.uuid4()}", body
    )


def paths(answer: Any) -> list[str]:
    assert answer.status_code == 422, answer.content
    return [fault["path"] for fault in answer.json()["faults"]]


@pytest.mark.parametrize(
    "kind", ["well_bladder", "well_air", "cistern", "boosted", "compressor", "tankless"]
)
def test_a_system_of_any_kind_is_begun_with_usual_values(world: World, kind: str) -> None:
    made = begin(world, {"name": " Barn ", "kind": kind}).json()
    assert (made["name"], made["document"]["system"]["kind"], made["may_change"]) == (
        "Barn",
        kind,
        True,
    )
    names = [
        row["name"] for row in world["viewer"].get("/api/rounds").json()["sites"][0]["systems"]
    ]
    assert set(names) == {"A well", "Barn"}


def test_a_system_is_begun_from_the_file_that_another_gave(world: World) -> None:
    given = world["viewer"].get(f"/api/systems/{world.system.pk}/file").json()
    given["system"]["name"] = "Twin"
    made = begin(world, {"document": given}).json()
    assert made["document"]["system"] == given["system"]
    broken = begin(
        world, {"document": file(system__pump__flow_m3_s=-1, settings__cut_in_gauge_pa="x")}
    )
    assert paths(broken) == ["system.pump.flow_m3_s", "settings.cut_in_gauge_pa"]
    assert System.objects.count() == 2


def test_beginning_again_under_the_same_id_changes_nothing(world: World) -> None:
    id, site = uuid.uuid4(), uuid.uuid4()
    for _ in range(2):
        assert begin(world, {"name": "Barn", "kind": "cistern"}, id=id).status_code == 200
        assert (
            found(world, {"name": "South farm", "units": "metric"}, id=site).json()["units"]
            == "metric"
        )
    assert (System.objects.count(), Site.objects.count()) == (2, 2)
    assert begin(world, {"name": "Barn", "kind": "cistern"}, site=site, id=id).status_code == 404


@pytest.mark.parametrize(
    ("body", "expected"),
    [
        ({"name": "", "kind": "cistern"}, ["name"]),
        ({"name": "x" * 81, "kind": "geyser"}, ["name", "kind"]),
        ({"name": "A well", "kind": "cistern"}, ["name"]),
        ({"name": "Barn"}, ["kind"]),
    ],
)
def test_a_system_that_cannot_be_begun_is_refused_by_field(
    world: World, body: dict[str, Any], expected: list[str]
) -> None:
    assert paths(begin(world, body)) == expected
    assert System.objects.count() == 1


def test_a_site_has_a_name_of_its_own(world: World) -> None:
    assert paths(found(world, {"name": "North farm"})) == ["name"]
    assert paths(found(world, {"name": "  "})) == ["name"]
    other = found(world, {"name": "South farm"}).json()["id"]
    renamed = world["technician"].send("PATCH", f"/api/sites/{other}", {"name": "East farm"})
    assert renamed.json()["name"] == "East farm"
    assert paths(
        world["technician"].send("PATCH", f"/api/sites/{other}", {"name": "North farm"})
    ) == ["name"]
    assert Site.objects.get(pk=other).name == "East farm"


def test_a_retired_system_keeps_its_record_and_comes_back(world: World) -> None:
    address = f"/api/systems/{world.system.pk}/retired"
    assert world["technician"].send("PUT", address, {"retired": True}).json()["retired"] is True
    row = world["viewer"].get("/api/rounds").json()["sites"][0]["systems"][0]
    assert row["retired"] is True
    assert world["viewer"].get(f"/api/systems/{world.system.pk}").status_code == 200
    assert world["technician"].send("PUT", address, {"retired": False}).json()["retired"] is False


def test_rounds_say_where_one_may_add(world: World) -> None:
    assert [w["may_add"] for w in world["technician"].get("/api/rounds").json()["workspaces"]] == [
        True
    ]
    assert [w["may_add"] for w in world["viewer"].get("/api/rounds").json()["workspaces"]] == [
        False
    ]


def test_a_site_is_retired_with_all_its_systems_and_brought_back(world: World) -> None:
    second = create_system(world.site, read_document(file(system__name="Second well")))
    path = f"/api/sites/{world.site.pk}/retired"

    def shown() -> dict[str, bool]:
        (site,) = world["viewer"].get("/api/rounds").json()["sites"]
        return {system["id"]: system["retired"] for system in site["systems"]}

    both = (str(world.system.pk), str(second.pk))
    assert world["technician"].send("PUT", path, {"retired": True}).status_code == 200
    assert shown() == dict.fromkeys(both, True)
    assert world["technician"].send("PUT", path, {"retired": False}).status_code == 200
    assert shown() == dict.fromkeys(both, False)
