"""What a device holds is enough to answer what the server would, and what is written without a
connection ends as if it had been written with one."""

import json
import re
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.core.management import call_command

from accounts.models import Membership, User
from audit.models import AuditEvent
from sites.models import Decision, Site, System
from tests.core.systems import file
from visits.models import Entry, Visit
from zerodip.answers.offline import answer_offline
from zerodip.units import PSI

from .conftest import Caller, World, caller

# Moments of asking differ by a moment, and lists are ordered by name where nothing else tells.
_TIMES = re.compile(r"\d{4}-\d\d-\d\dT[\d:.]+(Z|\+00:00)")


class Device:
    """A phone: what it took along from the server, and what it could not send since."""

    def __init__(self, client: Caller, units: str = "us") -> None:
        self.client, self.units = client, units
        self.writes: list[dict[str, Any]] = []
        self.clock = timedelta()
        self.take_along()

    def take_along(self) -> None:
        told = self.client.get("/api/device").json()
        ids = [each["id"] for each in told["systems"]]
        systems = self.client.send("POST", "/api/device/systems", {"ids": ids}).json()
        names = ("rounds", "visits", "next-checks")
        lists = {name.replace("-", "_"): self.client.get(f"/api/{name}").json() for name in names}
        self.held = {"systems": systems, "workspaces": told["workspaces"], **lists}
        self.by = told["name"]

    def now(self) -> str:
        return (datetime.now(UTC) + self.clock).isoformat()

    def question(self, method: str, path: str, body: Any = None, **query: str) -> dict[str, Any]:
        """What the core is asked where there is no signal; a write waits with those before it."""
        writes, at = list(self.writes), self.now()
        if method != "GET":
            told = {"id": uuid.uuid4().hex, "at": at, "by": self.by, "method": method}
            writes.append({**told, "path": path, "body": body})
        asked = {"method": method, "path": path, "query": {"units": self.units, **query}}
        return {**asked, "now": at, "writes": writes, "held": self.held}

    def offline(self, method: str, path: str, body: Any = None, **query: str) -> tuple[int, Any]:
        """Asked where there is no signal; a write waits."""
        asked = self.question(method, path, body, **query)
        status, _, text = answer_offline(json.dumps(asked)).partition("\n")
        if status == "200":
            self.writes = asked["writes"]
        return int(status), json.loads(text)

    def send(self, write: dict[str, Any]) -> Any:
        """One write, as it goes out when there is a connection again."""
        return self.client.generic(
            write["method"],
            write["path"],
            json.dumps(write["body"]),
            content_type="application/json",
            HTTP_ZERODIP_MADE=write["at"],
            HTTP_ZERODIP_SENT=self.now(),
        )

    def contact(self) -> list[int]:
        """Sends all that waits."""
        answers = [self.send(write).status_code for write in self.writes]
        self.writes = []
        self.take_along()
        return answers


def told(values: Any) -> Any:
    """An answer without what differs from one moment to the next."""
    return json.loads(_TIMES.sub("a time", json.dumps(values, sort_keys=True)))


def apart(here: Any, there: Any, path: str = "") -> list[str]:
    """The places where two answers differ."""
    if type(here) is type(there) and isinstance(here, dict):
        names = {*here, *there}
        return [
            line
            for name in sorted(names)
            for line in apart(here.get(name), there.get(name), f"{path}.{name}")
        ]
    if type(here) is type(there) and isinstance(here, list) and len(here) == len(there):
        pairs = enumerate(zip(here, there, strict=True))
        return [line for at, (a, b) in pairs for line in apart(a, b, f"{path}.{at}")]
    return [] if here == there else [f"{path}: {here!r:.80} and not {there!r:.80}"]


@pytest.fixture
def demo(db: None, settings: Any) -> Caller:
    settings.DEMO, settings.DEMO_PASSWORD = True, "for tests only"
    call_command("load_demo")
    return caller(User.objects.get(username="demo"))


def paths_of_all() -> list[str]:
    """All that a device is asked of systems and visits."""
    paths = ["/api/rounds", "/api/visits", "/api/next-checks", "/api/practices"]
    for system in System.objects.all():
        under = f"/api/systems/{system.pk}"
        paths += [under, f"{under}/visits", f"{under}/timeline", f"{under}/trends"]
    for visit in Visit.objects.all():
        under = f"/api/visits/{visit.pk}"
        paths += [under, f"{under}/trends", f"{under}/gauges", f"{under}/report"]
    return paths


@pytest.mark.parametrize("units", ["us", "metric"])
def test_the_demo_is_told_alike_without_a_connection(demo: Caller, units: str) -> None:
    device = Device(demo, units)
    for path in paths_of_all():
        status, answer = device.offline("GET", path)
        there = demo.get(path, {"units": units})
        if status == 404:  # an older visit than a device holds
            assert "/visits/" in path
            continue
        assert apart(told(answer), told(there.json()), path) == []


def put(slot: str, value: Any, supersedes: str | None = None) -> dict[str, Any]:
    return {"slot": slot, "value": value, "supersedes": supersedes}


READINGS = (
    ("found.cut_in", 31 * PSI),
    ("found.cut_out", 52 * PSI),
    ("found.run", 25),
    ("safe.customer_told", True),
    ("safe.power_off", True),
    ("safe.proved_dead", True),
    ("found.pre_charge", 22 * PSI),
    ("decided", True),
    ("saw", {"item": "clicks", "says": "yes", "value": None, "again": False}),
    ("note", {"text": "Ladder needed."}),
)


def walk(device: Device, system: Any) -> tuple[str, list[Any]]:
    """A visit walked without a connection; what each step answered."""
    visit = str(uuid.uuid4())
    said = [device.offline("PUT", f"/api/systems/{system}/visits/{visit}")]
    for slot, value in READINGS:
        path = f"/api/visits/{visit}/entries/{uuid.uuid4()}"
        said.append(device.offline("PUT", path, put(slot, value)))
    path = f"/api/visits/{visit}/entries/{uuid.uuid4()}"
    look = {"after": 0, "first": 0, "second": 0}
    points = {"cut_in_gauge_pa": 31 * PSI, "cut_out_gauge_pa": 52 * PSI}
    said.append(device.offline("PUT", path, put("try", {**look, **points})))
    turned = {"after": 1, "first": 1.0, "second": 0, "cut_in_gauge_pa": 34 * PSI}
    path = f"/api/visits/{visit}/entries/{uuid.uuid4()}"
    said.append(device.offline("PUT", path, put("try", {**turned, "cut_out_gauge_pa": 55 * PSI})))
    return visit, said


def test_a_visit_walked_without_a_connection_is_the_one_walked_with_it(world: World) -> None:
    device = Device(world["technician"])
    visit, said = walk(device, world.system.pk)
    statuses = [status for status, _ in said]
    assert statuses == [200] * len(said), said
    here = device.offline("GET", f"/api/visits/{visit}")[1]
    # Sent later, one after the other, the server answers what the phone had shown.
    for write, (_, shown) in zip(list(device.writes), said, strict=False):
        answer = device.send(write)
        assert answer.status_code == 200, answer.content
        assert apart(told(answer.json()), told(shown), write["path"]) == []
    there = world["technician"].get(f"/api/visits/{visit}").json()
    assert told(there) == told(here)
    assert world["technician"].get(f"/api/systems/{world.system.pk}").json()["version"] > 1


def test_closing_moves_rounds_and_the_next_check(world: World) -> None:
    device = Device(world["technician"])
    visit, _ = walk(device, world.system.pk)
    device.offline("PUT", f"/api/visits/{visit}/closed")
    paths = ("/api/next-checks", "/api/visits", "/api/rounds")
    here = {path: told(device.offline("GET", path)[1]) for path in paths}
    assert here["/api/next-checks"][0]["system"] == str(world.system.pk)
    assert set(device.contact()) == {200}
    for path in paths:
        assert told(world["technician"].get(path).json()) == here[path], path


def test_a_site_and_a_system_begun_without_a_connection(world: World) -> None:
    device = Device(world["technician"])
    site, system, visit = (str(uuid.uuid4()) for _ in range(3))
    workspace = world.workspace.pk
    steps = [
        (f"/api/workspaces/{workspace}/sites/{site}", {"name": "Far field", "units": "metric"}),
        (f"/api/sites/{site}/systems/{system}", {"kind": "well_bladder", "name": "Far well"}),
        (f"/api/systems/{system}/visits/{visit}", None),
    ]
    here = [device.offline("PUT", path, body) for path, body in steps]
    assert [status for status, _ in here] == [200] * 3
    rounds = told(device.offline("GET", "/api/rounds")[1])
    assert device.contact() == [200] * 3
    assert told(world["technician"].get("/api/rounds").json()) == rounds
    answer = world["technician"].get(f"/api/visits/{visit}").json()
    assert told(answer) == told(here[2][1])
    # A name that is taken is refused at once, by its field.
    path = f"/api/workspaces/{workspace}/sites/{uuid.uuid4()}"
    status, problem = device.offline("PUT", path, {"name": "Far field", "units": "us"})
    assert (status, problem["faults"][0]["path"]) == (422, "name")


def test_a_decision_is_kept_and_clashes_as_with_a_connection(world: World) -> None:
    device = Device(world["technician"])
    raw = file(settings__cut_in_gauge_pa=41 * PSI)
    path = f"/api/systems/{world.system.pk}/decisions/{uuid.uuid4()}"
    version = device.held["systems"][0]["version"]
    status, kept = device.offline("PUT", path, {"version": version, "document": raw})
    again = device.offline("PUT", path, {"version": version, "document": raw})
    assert (status, again[1]) == (200, kept)
    other = f"/api/systems/{world.system.pk}/decisions/{uuid.uuid4()}"
    status, clash = device.offline("PUT", other, {"version": version, "document": raw})
    assert (status, clash["current"]["version"]) == (409, version + 1)
    assert set(device.contact()) == {200}
    there = world["technician"].get(f"/api/systems/{world.system.pk}").json()
    assert told(there["decisions"][0]) == told(kept)
    assert Decision.objects.count() == 1


def test_a_wrong_clock_is_put_right_and_noted(world: World) -> None:
    device = Device(world["technician"])
    device.clock = timedelta(days=-400)
    visit, _ = walk(device, world.system.pk)
    before = datetime.now(UTC)
    device.contact()
    kept = Visit.objects.get(pk=visit)
    assert abs(kept.opened_at - before) < timedelta(minutes=1)
    noted = AuditEvent.objects.get(action="visits.open", about=str(world.system.pk))
    assert datetime.fromisoformat(noted.detail["told"]) < before - timedelta(days=399)


def test_what_a_person_may_not_see_is_not_held(world: World) -> None:
    ids = {"ids": [str(world.system.pk)]}
    assert world["outsider"].send("POST", "/api/device/systems", ids).json() == []
    assert world["outsider"].get("/api/device").json()["systems"] == []
    held = world["viewer"].send("POST", "/api/device/systems", ids).json()[0]
    assert (held["may_change"], held["may_visit"]) == (False, False)
    Membership.objects.filter(user__username__startswith="viewer").delete()
    assert world["viewer"].get("/api/device").json()["systems"] == []


def test_the_word_of_a_system_changes_with_everything_of_it(world: World) -> None:
    us, words = world["technician"], []

    def word() -> str:
        rows = us.get("/api/device").json()["systems"]
        return str(next(each["stamp"] for each in rows if each["id"] == str(world.system.pk)))

    visit = uuid.uuid4()
    steps: list[tuple[str, str, Any]] = [
        ("PUT", f"/api/systems/{world.system.pk}/visits/{visit}", None),
        ("PUT", f"/api/visits/{visit}/entries/{uuid.uuid4()}", put("found.cut_in", 3e5)),
        ("PUT", f"/api/visits/{visit}/closed", None),
        ("PATCH", f"/api/sites/{world.site.pk}", {"units": "kpa"}),
        ("PUT", f"/api/systems/{world.system.pk}/retired", {"retired": True}),
    ]
    words.append(word())
    for method, path, body in steps:
        assert us.send(method, path, body).status_code == 200
        words.append(word())
    assert len(set(words)) == len(words)
    assert word() == words[-1]
    assert Site.objects.count() == 1
    assert Entry.objects.count() == 1


def at_once(device: Device, writes: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Writes sent in one request."""
    told = [
        {"method": w["method"], "path": w["path"], "body": w["body"], "made": w["at"]}
        for w in writes
    ]
    body = {"writes": told, "sent": device.now()}
    answer = device.client.send("POST", "/api/device/writes", body)
    assert answer.status_code == 200, answer.content
    return list(answer.json())


def test_writes_sent_at_once_are_those_sent_one_by_one(world: World) -> None:
    device = Device(world["technician"])
    visit, said = walk(device, world.system.pk)
    shown = device.offline("GET", f"/api/visits/{visit}")[1]
    for _ in range(2):  # safe to repeat
        answers = at_once(device, device.writes)
        assert [each["status"] for each in answers] == [200] * len(said)
    assert answers[0]["body"]["id"] == visit
    assert told(world["technician"].get(f"/api/visits/{visit}").json()) == told(shown)


def test_each_of_many_writes_has_its_own_permission_and_refusal(world: World) -> None:
    device = Device(world["technician"])
    walk(device, world.system.pk)
    viewer = Device(world["viewer"])
    statuses = [each["status"] for each in at_once(viewer, device.writes)]
    assert statuses == [403, *[404] * (len(statuses) - 1)]
    assert Entry.objects.count() == 0
    wrong = {**device.writes[1], "body": put("found.cut_in", -1e9)}
    answers = at_once(device, [device.writes[0], wrong, *device.writes[1:3]])
    assert [each["status"] for each in answers] == [200, 422, 200, 200]
    assert answers[1]["body"]["faults"][0]["path"]
    body = {"writes": [{"method": "PUT", "path": "/api/session", "made": ""}], "sent": ""}
    answer = world["owner"].send("POST", "/api/device/writes", body)
    assert (answer.status_code, answer.json()["faults"][0]["path"]) == (422, "writes.0.path")


def test_a_visit_that_was_open_already_is_gone_on_with(world: World) -> None:
    device, theirs = Device(world["technician"]), str(uuid.uuid4())
    walk(device, world.system.pk)
    path = f"/api/systems/{world.system.pk}/visits/{theirs}"
    assert world["owner"].send("PUT", path).status_code == 200
    answers = at_once(device, device.writes)
    assert answers[0]["body"]["id"] == theirs
    assert {each["status"] for each in answers} == {200}
    assert Entry.objects.filter(visit=theirs).count() == len(answers) - 1


def test_a_viewer_is_refused_on_the_device_too(world: World) -> None:
    device = Device(world["viewer"])
    visit = f"/api/systems/{world.system.pk}/visits/{uuid.uuid4()}"
    decision = f"/api/systems/{world.system.pk}/decisions/{uuid.uuid4()}"
    site = f"/api/workspaces/{world.workspace.pk}/sites/{uuid.uuid4()}"
    body = {"version": 1, "document": file()}
    asked = [(visit, None), (decision, body), (site, {"name": "Far field"})]
    assert [device.offline("PUT", path, sent)[0] for path, sent in asked] == [403] * 3
    assert device.writes == []
