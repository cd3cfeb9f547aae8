"""Open files: what goes out comes in again unchanged; what is wrong is named; all or nothing."""

import copy
import csv
import io
import json
import uuid
import zipfile
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import frictionless
import jsonschema
import pytest

from accounts.models import Membership, Role, User, Workspace
from calibrations.demo import make_demo
from exchange.models import Import
from exchange.tables import safe
from gauges.models import Gauge
from sites.models import Decision, Site, System
from sites.services import create_system
from tests.core.systems import file
from visits.models import Entry, Photo, Visit
from zerodip.fileformat.document import read_document
from zerodip.units import PSI

from .conftest import World, caller
from .test_documents import handed_over
from .test_members_and_gauges import put_gauge
from .test_visits import PNG, add, opened


def exported(
    world: World, who: str = "owner", scope: str = "workspaces", query: str = "?photos=true"
) -> Any:
    id = {"workspaces": world.workspace, "sites": world.site, "systems": world.system}[scope].pk
    answer = world[who].get(f"/api/archive/{scope}/{id}.json{query}")
    assert answer.status_code == 200
    return json.loads(b"".join(answer.streaming_content))


def imported(
    world: World, archive: Any, who: str = "technician", workspace: Any = None
) -> dict[str, Any]:
    """Uploads and checks to the end; how it stands then."""
    id = uuid.uuid4()
    raw = archive if isinstance(archive, bytes) else json.dumps(archive).encode()
    path = f"/api/workspaces/{(workspace or world.workspace).pk}/imports/{id}?name=old.json"
    answer = world[who].generic("PUT", path, raw, content_type="application/json")
    assert answer.status_code == 200, answer.content
    return stepped(world, str(id), who)


def stepped(world: World, id: str, who: str = "technician") -> dict[str, Any]:
    while True:
        told: dict[str, Any] = world[who].send("POST", f"/api/imports/{id}/step").json()
        if told["state"] in ("ready", "done"):
            return told


def taken(world: World, of: dict[str, Any], who: str = "technician") -> dict[str, Any]:
    answer = world[who].send("PUT", f"/api/imports/{of['id']}/taken")
    assert answer.status_code == 200, answer.content
    return stepped(world, of["id"], who)


def refusals(world: World, of: dict[str, Any]) -> list[tuple[int, str]]:
    rows = world["technician"].get(f"/api/imports/{of['id']}/pieces?change=refused").json()
    return [(row["line"], fault["path"]) for row in rows for fault in row["faults"]]


def recorded(world: World) -> dict[str, Any]:
    """A workspace with something of everything."""
    visit = handed_over(world)
    photo = f"/api/visits/{opened(world)}/photos/{uuid.uuid4()}"
    assert (
        world["technician"].generic("PUT", photo, PNG, content_type="image/png").status_code == 200
    )
    put_gauge(world, uuid.uuid4())
    world.system.refresh_from_db()
    body = {"version": world.system.version, "document": world.system.document}
    assert (
        world["owner"]
        .send("PUT", f"/api/systems/{world.system.pk}/decisions/{uuid.uuid4()}", body)
        .status_code
        == 200
    )
    return {"visit": visit}


def test_taking_one_s_own_archive_again_changes_nothing(world: World) -> None:
    recorded(world)
    before = exported(world)
    of = imported(world, before)
    assert of["counts"] == {"added": 0, "changed": 0, "same": 4, "refused": 0}
    taken(world, of)
    after = exported(world)
    assert {**after, "made_at": 0} == {**before, "made_at": 0}


def test_a_lost_workspace_comes_back_from_its_archive_whole(world: World) -> None:
    recorded(world)
    archive = exported(world)
    Site.objects.all().delete()
    Gauge.objects.all().delete()
    of = imported(world, archive)
    assert of["counts"] == {"added": 3, "changed": 0, "same": 1, "refused": 0}
    assert taken(world, of)["state"] == "done"
    assert {**exported(world), "made_at": 0} == {**archive, "made_at": 0}
    assert len(world["viewer"].get("/api/next-checks").json()) == 1


def test_an_archive_goes_into_another_workspace_under_ids_of_its_own_and_twice_is_once(
    world: World,
) -> None:
    recorded(world)
    archive = exported(world)
    theirs = Workspace.objects.get(name="theirs")
    of = imported(world, archive, "outsider", theirs)
    assert of["counts"]["added"] == 3
    taken(world, of, "outsider")
    assert (
        Site.objects.count(),
        System.objects.count(),
        Visit.objects.count(),
        Photo.objects.count(),
    ) == (2, 2, 4, 2)
    assert imported(world, archive, "outsider", theirs)["counts"]["same"] == 4
    theirs_system = System.objects.get(site__workspace=theirs)
    assert world["owner"].get(f"/api/systems/{theirs_system.pk}").status_code == 404
    corrected = Entry.objects.filter(visit__system=theirs_system, supersedes__isnull=False)
    assert all(
        Entry.objects.filter(id=each.supersedes, visit_id=each.visit_id).exists()
        for each in corrected
    )
    assert {e.by for e in Entry.objects.filter(visit__system=theirs_system)} == {
        "technician of ours"
    }


@pytest.mark.parametrize("scope", ["workspaces", "sites", "systems"])
def test_an_archive_keeps_to_its_published_schema(world: World, scope: str) -> None:
    recorded(world)
    make_demo(world.site)
    schema = json.loads((Path(__file__).parents[2] / "docs/archive.schema.json").read_text())
    jsonschema.Draft202012Validator(schema).validate(exported(world, scope=scope))


def test_a_system_file_of_an_archive_is_one_that_the_core_reads(world: World) -> None:
    (site,) = exported(world)["sites"]
    assert read_document(site["systems"][0]["file"]).system.name == world.system.name


def test_a_dry_run_tells_what_would_change_and_changes_nothing(world: World) -> None:
    recorded(world)
    archive = exported(world)
    (site,) = archive["sites"]
    site["units"] = "metric"
    system = site["systems"][0]
    system["file"]["settings"]["cut_out_gauge_pa"] += 5e3
    system["file"]["entered"] = {}
    more = copy.deepcopy(system["visits"][0])
    more["id"] = str(uuid.uuid4())
    for entry in more["entries"]:
        entry["id"] = str(uuid.uuid4())
    system["visits"].append(more)
    site["systems"].append({"id": str(uuid.uuid4()), "file": file(system__name="A second well")})
    of = imported(world, archive)
    rows = world["technician"].get(f"/api/imports/{of['id']}/pieces").json()
    assert [(row["kind"], row["name"], row["change"]) for row in rows] == [
        ("practice", "Practice", "same"),
        ("gauge", "No. 3", "same"),
        ("site", "North farm", "changed"),
        ("system", "A well", "changed"),
        ("system", "A second well", "added"),
    ]
    assert rows[3]["says"] == f"the file, 1 visits, {len(more['entries'])} records"
    assert System.objects.get().document["settings"]["cut_out_gauge_pa"] == pytest.approx(60 * PSI)
    version = System.objects.get().version
    taken(world, of)
    assert System.objects.get(pk=world.system.pk).version == version + 1
    assert Site.objects.get().units == "metric"
    assert Visit.objects.filter(system=world.system).count() == 3
    assert imported(world, archive)["counts"]["same"] == 5


def test_every_fault_names_its_line_and_field_and_all_or_nothing_is_taken(world: World) -> None:
    recorded(world)
    archive = exported(world)
    systems = archive["sites"][0]["systems"]
    systems[0]["visits"][0]["entries"][0]["value"] = "much"
    systems[0]["visits"][0]["slopes"] = [1.0]  # numbers that fit no switch: let go
    systems.append(
        {"id": str(uuid.uuid4()), "file": file(system__name="Bad", settings__cut_in_gauge_pa=9e5)}
    )
    systems.append({"id": "not an id", "file": {}, "colour": "red"})
    systems.append({"id": str(uuid.uuid4()), "file": file(system__name="A well")})
    text = json.dumps(archive, indent=1)
    of = imported(world, text.encode())
    assert of["counts"]["refused"] == 4
    found = refusals(world, of)
    lines = text.split("\n")
    base = "sites.0.systems"
    assert [path for _, path in found] == [
        f"{base}.0.visits.0.entries.0.value",
        f"{base}.1.file.settings.cut_in_gauge_pa",
        f"{base}.2.id",
        f"{base}.2.colour",
        f"{base}.3",
    ]
    assert all(lines[line - 1].strip() == "{" for line, _ in found)
    assert lines[found[2][0]].strip() == '"id": "not an id",'
    late = world["technician"].send("PUT", f"/api/imports/{of['id']}/taken")
    assert late.status_code == 409
    assert System.objects.count() == 1


def test_what_changed_since_it_was_checked_is_not_overwritten(world: World) -> None:
    archive = exported(world)
    archive["sites"][0]["systems"][0]["file"]["settings"]["cut_out_gauge_pa"] += 5e3
    archive["sites"].append({"id": str(uuid.uuid4()), "name": "South farm", "systems": []})
    of = imported(world, archive)
    body = {"version": world.system.version, "document": file(settings__cut_in_gauge_pa=39 * PSI)}
    assert world["owner"].send("PUT", f"/api/systems/{world.system.pk}", body).status_code == 200
    assert world["technician"].send("PUT", f"/api/imports/{of['id']}/taken").status_code == 409
    assert Site.objects.count() == 1
    assert System.objects.get().document["settings"]["cut_in_gauge_pa"] == pytest.approx(39 * PSI)


def test_an_import_is_cancelled_between_two_steps_and_leaves_nothing(world: World) -> None:
    archive = exported(world)
    archive["sites"][0]["systems"][0]["id"] = str(uuid.uuid4())
    of = imported(world, archive)
    assert world["technician"].send("DELETE", f"/api/imports/{of['id']}").status_code == 204
    assert world["technician"].send("POST", f"/api/imports/{of['id']}/step").status_code == 404
    assert not Import.objects.exists()
    assert System.objects.count() == 1


GOOD = {"format": "zerodip-archive", "version": 1, "sites": []}


@pytest.mark.parametrize(
    ("raw", "says"),
    [
        (b'{"format": "zerodip-archive",\n "version": 1,\n "sites": [', "line 3"),
        (b"", "line 1"),
        (b'{"a":\n"\xff"}', "line 2"),
        (b"\xff\xfe{\x00}\x00", "UTF-8"),
        (b"PK\x03\x04 not text", "not JSON"),
        (b'{"a": NaN}', "NaN"),
        (b'{"a": 1e999}', "number"),
        (b'{"a":\n"\\u0000"}', "line 2"),
        (b'{"a": "\\ud800"}', "half of a letter"),
        (b'{"a": ' + b"9" * 5000 + b"}", "number"),
        (b"[" * 100_000 + b"]" * 100_000, "nested too deep"),
        (b"[]", "object"),
        (json.dumps(file()).encode(), "Add a system"),
        (json.dumps({**GOOD, "version": 2}).encode(), "version 1"),
        (json.dumps({**GOOD, "version": True}).encode(), "version 1"),
        (json.dumps({**GOOD, "format": "other"}).encode(), "zerodip-archive"),
        (json.dumps({**GOOD, "sites": {}}).encode(), "list"),
        (json.dumps({**GOOD, "extra": 1}).encode(), "not a field"),
    ],
)
def test_a_file_that_is_no_archive_is_refused_with_a_reason(
    world: World, raw: bytes, says: str
) -> None:
    path = f"/api/workspaces/{world.workspace.pk}/imports/{uuid.uuid4()}"
    answer = world["owner"].generic("PUT", path, raw, content_type="application/json")
    assert answer.status_code == 422, answer.content
    assert says in " ".join(fault["message"] for fault in answer.json()["faults"])
    assert not Import.objects.exists()


@pytest.mark.parametrize("odd", [None, 3, "x", [], {"id": 1}, {"systems": 3}, [[]]])
def test_odd_pieces_are_refused_one_by_one(world: World, odd: Any) -> None:
    of = imported(world, {**GOOD, "sites": [odd], "gauges": [odd], "practice": odd})
    assert of["counts"]["refused"] == of["total"]


def test_times_out_of_living_memory_and_records_of_others_are_refused(world: World) -> None:
    visit = recorded(world)["visit"]
    archive = exported(world, scope="systems")
    system = archive["sites"][0]["systems"][0]
    future = (datetime.now(UTC) + timedelta(days=3)).isoformat()
    system["visits"][0]["opened_at"] = "0001-01-01T00:00:00+00:00"
    system["visits"][1]["opened_at"] = future
    assert [path[-9:] for _, path in refusals(world, imported(world, archive))] == ["opened_at"] * 2
    stolen = {"id": str(uuid.uuid4()), "file": file(system__name="Thief")}
    opened_at = datetime.now(UTC).isoformat()
    archive["sites"][0]["systems"] = [{**stolen, "visits": [{"id": visit, "opened_at": opened_at}]}]
    of = imported(world, archive)
    (row,) = world["technician"].get(f"/api/imports/{of['id']}/pieces?change=refused").json()
    assert "belongs to another" in row["faults"][0]["message"]


def test_the_tables_are_a_data_package_that_another_reader_finds_right(
    world: World, tmp_path: Path
) -> None:
    recorded(world)
    make_demo(world.site)
    answer = world["viewer"].get(f"/api/tables/workspaces/{world.workspace.pk}.zip")
    with zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content))) as made:
        made.extractall(tmp_path)
    report = frictionless.Package(str(tmp_path / "datapackage.json")).validate()
    assert report.valid, report.flatten(["type", "message"])
    rows = list(csv.DictReader((tmp_path / "visits.csv").open(encoding="utf-8")))
    assert len(rows) == 2
    assert float(rows[0]["left_cut_out_gauge_pa"]) == pytest.approx(60 * PSI)
    made_before = list(csv.DictReader((tmp_path / "calibrations.csv").open(encoding="utf-8")))
    assert float(made_before[1]["found_upper_pa"]) == pytest.approx(3600, abs=50)
    assert float(made_before[1]["left_upper_pa"]) == pytest.approx(400, abs=50)
    assert len((tmp_path / "entries.csv").read_text().splitlines()) == Entry.objects.count() + 1
    assert (
        len((tmp_path / "decisions.csv").read_text().splitlines()) == Decision.objects.count() + 1
    )


@pytest.mark.parametrize(
    ("cell", "written"),
    [
        ("=1+1", "'=1+1"),
        ("+cmd|' /C calc'!A0", "'+cmd|' /C calc'!A0"),
        ("-2+3", "'-2+3"),
        ("@SUM(A1)", "'@SUM(A1)"),
        ("\t=1", "'\t=1"),
        ("-5", "-5"),
        ("-1.5e3", "-1.5e3"),
        ("North farm", "North farm"),
        (-5.0, -5.0),
        (True, "true"),
        (None, None),
    ],
)
def test_a_cell_that_a_spreadsheet_would_run_is_defused(cell: Any, written: Any) -> None:
    assert safe(cell) == written


def test_people_of_the_workspace_keep_what_they_made(world: World) -> None:
    handed_over(world)
    archive = exported(world)
    Site.objects.all().delete()
    other = User.objects.create(username="third")
    Membership.objects.create(user=other, workspace=world.workspace, role=Role.OWNER)
    of = json.loads(json.dumps(archive).replace("technician of ours", "A. Stranger"))
    id = uuid.uuid4()
    session = caller(other)
    path = f"/api/workspaces/{world.workspace.pk}/imports/{id}"
    assert session.send("PUT", path, of).status_code == 200
    assert session.send("POST", f"/api/imports/{id}/step").json()["state"] == "ready"
    assert session.send("PUT", f"/api/imports/{id}/taken").status_code == 200
    entries = world["viewer"].get(f"/api/visits/{Visit.objects.get().pk}").json()["entries"]
    assert {entry["by"] for entry in entries} == {"A. Stranger"}


def test_a_practice_that_comes_in_is_carried_into_the_systems_that_follow_it(world: World) -> None:
    follower = create_system(
        world.site, read_document(file(system__name="Follower", practice={"follows": "workspace"}))
    )
    archive = exported(world)
    archive["practice"]["practice"]["check_school"] = "half_year"
    of = imported(world, archive)
    assert of["counts"] == {"added": 0, "changed": 2, "same": 2, "refused": 0}
    taken(world, of)
    follower.refresh_from_db()
    assert follower.document["practice"]["check_school"] == "half_year"
    world.system.refresh_from_db()
    assert world.system.document["practice"]["check_school"] == "yearly"
    assert imported(world, exported(world))["counts"]["same"] == 4


def test_two_sites_that_would_swap_their_names_are_refused_as_a_whole(world: World) -> None:
    Site.objects.create(workspace=world.workspace, name="South farm")
    archive = exported(world)
    first, second = archive["sites"]
    first["name"], second["name"] = second["name"], first["name"]
    of = imported(world, archive)
    assert of["counts"]["refused"] == 3  # both sites, and the system on one of them
    assert world["technician"].send("PUT", f"/api/imports/{of['id']}/taken").status_code == 409


def test_a_visit_left_open_here_and_closed_there_is_closed(world: World) -> None:
    visit = opened(world)
    add(world, visit, "found.cut_in", 33 * PSI)
    archive = exported(world)
    there = archive["sites"][0]["systems"][0]["visits"][0]
    there["closed_at"], there["file"] = datetime.now(UTC).isoformat(), file()
    of = imported(world, archive)
    rows = world["technician"].get(f"/api/imports/{of['id']}/pieces?change=changed").json()
    assert [row["says"] for row in rows] == ["1 closed"]
    taken(world, of)
    assert world["viewer"].get(f"/api/visits/{visit}").json()["open"] is False
    assert len(world["viewer"].get("/api/next-checks").json()) == 1
