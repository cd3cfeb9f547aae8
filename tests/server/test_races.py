"""Two at once: the same answer twice or a refusal in words, never a fault of ours."""

import json
import uuid
from collections import Counter
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from threading import Barrier
from typing import Any

import pytest
from django.db import connection

from accounts.models import User, Workspace
from exchange.models import Import
from gauges.models import Gauge
from sites.models import Site, System
from tests.core.systems import file
from visits.models import Visit

from .conftest import World
from .test_exchange import exported, imported
from .test_members_and_gauges import put_gauge

crowd = pytest.mark.django_db(transaction=True)
MANY = 12


def at_once(calls: Sequence[Callable[[], Any]]) -> list[Any]:
    """All calls begun in the same moment; their answers."""
    gate = Barrier(len(calls))

    def run(call: Callable[[], Any]) -> Any:
        try:
            gate.wait()
            return call()
        finally:
            connection.close()

    with ThreadPoolExecutor(len(calls)) as pool:
        return list(pool.map(run, calls))


def statuses(answers: Sequence[Any]) -> Counter[int]:
    return Counter(each.status_code for each in answers)


def _send(world: World, method: str, path: str, body: Any = None) -> Callable[[], Any]:
    client = world["owner"]

    def call() -> Any:
        again = type(client)()
        again.cookies = client.cookies
        return again.send(method, path, body)

    return call


def _gauge(name: str) -> dict[str, Any]:
    most = {"least_gauge_pa": 0.0, "most_gauge_pa": 690e3, "grade": "b"}
    return {"version": 0, "gauge": {"name": name, **most}, "checked_on": None, "retired": False}


@crowd
@pytest.mark.parametrize("what", ["site", "system", "feed", "import"])
def test_the_same_sent_many_times_at_once_is_one(what: str, world: World) -> None:
    new, workspace = uuid.uuid4(), world.workspace.pk
    method, path, body = {
        "site": ("PUT", f"/api/workspaces/{workspace}/sites/{new}", {"name": "South"}),
        "system": (
            "PUT",
            f"/api/sites/{world.site.pk}/systems/{new}",
            {"name": "Second", "kind": "cistern"},
        ),
        "feed": ("POST", "/api/feed", None),
        "import": (
            "PUT",
            f"/api/workspaces/{workspace}/imports/{new}?name=a.json",
            {"format": "zerodip-archive", "version": 1, "sites": []},
        ),
    }[what]
    answers = at_once([_send(world, method, path, body)] * MANY)
    assert set(statuses(answers)) <= {200}, [each.content for each in answers]
    if what != "feed":
        assert len({json.dumps(each.json(), sort_keys=True) for each in answers}) == 1


@crowd
@pytest.mark.parametrize("what", ["site", "system", "member"])
def test_one_name_taken_by_many_at_once_belongs_to_one(what: str, world: World) -> None:
    workspace = world.workspace.pk
    calls = [
        {
            "site": _send(
                world, "PUT", f"/api/workspaces/{workspace}/sites/{uuid.uuid4()}", {"name": "East"}
            ),
            "system": _send(
                world,
                "PUT",
                f"/api/sites/{world.site.pk}/systems/{uuid.uuid4()}",
                {"name": "Third", "kind": "compressor"},
            ),
            "member": _send(
                world,
                "POST",
                f"/api/workspaces/{workspace}/members",
                {"username": "Ida" if k % 2 else "ida", "name": "", "role": "viewer"},
            ),
        }[what]
        for k in range(MANY)
    ]
    answers = at_once(calls)
    assert statuses(answers) == {200: 1, 422: MANY - 1}, [each.content for each in answers]
    assert User.objects.filter(username__istartswith="ida@").count() == (what == "member")


@crowd
def test_practice_saves_and_retiring_at_once_do_not_wait_for_each_other(world: World) -> None:
    follows = file(practice={"follows": "workspace"})
    for k in range(6):
        follows["system"]["name"] = f"Number {k}"
        path = f"/api/sites/{world.site.pk}/systems/{uuid.uuid4()}"
        assert world["owner"].send("PUT", path, {"document": follows}).status_code == 200
    calls = [
        _send(world, "PUT", f"/api/sites/{world.site.pk}/retired", {"retired": bool(k % 2)})
        for k in range(4)
    ]
    practice = f"/api/practices/{world.workspace.pk}"
    for version in (1, 2, 3):
        body = {"version": version, "practice": {"gauge_error_pa": 5e3 + version}, "sizes_m3": None}
        calls.append(_send(world, "PUT", practice, body))
    for system in System.objects.all():
        body = {"version": system.version, "document": {**follows}}
        body["document"]["system"] = {**follows["system"], "name": system.name}
        calls.append(_send(world, "PUT", f"/api/systems/{system.pk}", body))
    for _ in range(3):
        assert set(statuses(at_once(calls))) <= {200, 409}


@crowd
def test_an_import_begun_anew_while_the_one_before_goes_on(world: World) -> None:
    archive = exported(world)
    of = imported(world, archive, "owner")
    path = f"/api/workspaces/{world.workspace.pk}/imports"
    calls = [_send(world, "POST", f"/api/imports/{of['id']}/step") for _ in range(5)]
    calls += [_send(world, "PUT", f"{path}/{uuid.uuid4()}?name=b.json", archive) for _ in range(5)]
    assert set(statuses(at_once(calls))) <= {200, 404, 409}
    assert Import.objects.count() >= 1


def test_other_content_under_the_same_id_is_refused_and_shows_both(world: World) -> None:
    new = f"/api/workspaces/{world.workspace.pk}/sites/{uuid.uuid4()}"
    assert world["owner"].send("PUT", new, {"name": "South"}).status_code == 200
    refused = world["owner"].send("PUT", new, {"name": "West"})
    assert refused.status_code == 409
    assert refused.json()["current"] == {
        "stored": {"name": "South", "units": "us"},
        "yours": {"name": "West", "units": "us"},
    }
    entry = f"/api/visits/{_visit(world)}/entries/{uuid.uuid4()}"
    said = {"slot": "safe.power_off", "value": True}
    assert [world["owner"].send("PUT", entry, said).status_code for _ in range(2)] == [200, 200]
    assert world["owner"].send("PUT", entry, {**said, "value": False}).status_code == 409


def _visit(world: World) -> uuid.UUID:
    return Visit.objects.create(system=world.system).pk


@pytest.mark.parametrize("what", ["site", "gauge", "visit", "system"])
def test_an_id_stored_by_others_between_checking_and_taking_is_not_theirs_to_lose(
    what: str, world: World
) -> None:
    """Ours is checked; then others store something under an id of it; taking leaves theirs."""
    put_gauge(world, uuid.uuid4())
    _visit(world)
    archive = exported(world)
    (site,), (gauge,) = archive["sites"], archive["gauges"]
    (system,) = site["systems"]
    system["visits"][0]["closed_at"] = "2026-11-26T00:00:00+00:00"
    Site.objects.all().delete()
    Gauge.objects.all().delete()
    of = imported(world, archive)
    theirs = Workspace.objects.get(name="theirs")
    place = Site.objects.create(
        id=site["id"] if what == "site" else uuid.uuid4(), workspace=theirs, name="Their place"
    )
    empty = {"site": place, "name": "Theirs", "document": {}, "summary": {}}
    owned = System.objects.create(
        id=system["id"] if what == "system" else uuid.uuid4(), version=0, **empty
    )
    if what == "gauge":
        Gauge.objects.create(id=gauge["id"], workspace=theirs, data={"name": "Theirs"})
    visit = Visit.objects.create(
        id=system["visits"][0]["id"] if what == "visit" else uuid.uuid4(), system=owned
    )
    taken = world["technician"].send("PUT", f"/api/imports/{of['id']}/taken")
    assert taken.status_code == 409, taken.content
    visit.refresh_from_db()
    assert visit.closed_at is None
    assert [s.name for s in Site.objects.all()] == ["Their place"]
    assert [g.data["name"] for g in Gauge.objects.all()] == ["Theirs"] * (what == "gauge")
    assert System.objects.get().name == "Theirs"
