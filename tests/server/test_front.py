"""Served for real, on two hosts with one database: slow and greedy senders, what each host answers
of what the other wrote, and a host that is killed."""

import json
import os
import re
import signal
import socket
import time
import uuid
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from http.client import HTTPConnection, HTTPException, HTTPResponse
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from django.db import connection

from config.api import api
from sites.models import Site
from tests.emptying import patient_emptying
from tests.lines import GPM, Plant, line_of
from tests.serving import Served, serving

served = pytest.mark.django_db(transaction=True)
CONF = Path(__file__).parents[2] / "server/config/front.conf"
SLOW = 120


@pytest.fixture(scope="module")
def hosts(django_db_setup: None, django_db_blocker: Any) -> Iterator[tuple[Served, Served]]:
    with django_db_blocker.unblock():
        name = str(connection.settings_dict["NAME"])
    one = {"ZERODIP_WORKERS": "1", "ZERODIP_DEMO": "1"}
    with patient_emptying(), serving(name, **one) as first, serving(name, **one) as second:
        yield first, second


class Browser:
    """Keeps its cookies over several hosts, which stand for one address."""

    def __init__(self, *hosts: Served, source: str = "127.0.0.1") -> None:
        self.hosts, self.source, self.cookies = hosts, source, dict[str, str]()
        self.send("GET", "/")

    def send(
        self, method: str, path: str, body: Any = None, host: int = 0, **headers: str
    ) -> tuple[int, Any]:
        """Status and body of one request, on a connection of its own."""
        to = HTTPConnection("127.0.0.1", self.hosts[host].port, 20, (self.source, 0))
        jar = "; ".join(f"{name}={value}" for name, value in self.cookies.items())
        sent = {"Cookie": jar, "X-CSRFToken": self.cookies.get("csrftoken", ""), **headers}
        data = body if body is None or isinstance(body, bytes) else json.dumps(body)
        to.request(method, path, data, {"Content-Type": "application/json", **sent})
        got = to.getresponse()
        for each in got.headers.get_all("Set-Cookie", []):
            name, _, rest = each.partition("=")
            self.cookies[name] = rest.split(";")[0]
        read = got.read()
        json_out = "json" in got.headers.get("Content-Type", "")
        return got.status, json.loads(read) if json_out and read else read


def dripping(host: Served, source: str, head: bytes) -> socket.socket:
    """A connection on which something begins and does not go on."""
    to = socket.create_connection(("127.0.0.1", host.port), 5, (source, 0))
    to.sendall(head)
    return to


@pytest.fixture
def demo(transactional_db: None, settings: Any, hosts: tuple[Served, Served]) -> Browser:
    """Signed in to the demo; what it asks goes to the first host, unless it says otherwise."""
    settings.DEMO_PASSWORD = "for tests only"
    call_command("load_demo")
    browser = Browser(*hosts)
    assert browser.send("POST", "/api/session/demo")[0] == 200
    return browser


def test_long_work_is_known_by_its_address() -> None:
    lines = re.findall(r'"~(\^\((?:GET|POST|PUT)\b.*)" long;', CONF.read_text())
    lines += re.findall(r'"~(\^PUT .*)" long;', CONF.read_text())
    assert len(lines) == 5
    long = {
        f"{method.upper()} {path}"
        for path, item in api.get_openapi_schema(path_prefix="/api/")["paths"].items()
        for method in item
        if any(
            re.search(line, f"{method.upper()} {re.sub(r'{[^}]*}', uuid.uuid4().hex, path)}")
            for line in lines
        )
    }
    assert long == {
        "GET /api/visits/{visit_id}/report.pdf",
        "GET /api/labels.pdf",
        "GET /api/calibrations/{calibration_id}/certificate.pdf",
        "GET /api/devices/{device_id}/label.pdf",
        "GET /api/archive/{scope}/{id}.json",
        "GET /api/tables/{scope}/{id}.zip",
        "PUT /api/workspaces/{workspace_id}/imports/{import_id}",
        "POST /api/imports/{import_id}/step",
        "PUT /api/imports/{import_id}/taken",
        "PUT /api/visits/{visit_id}/photos/{photo_id}",
    }
    assert any(re.search(line, "GET /papers/abc.def.pdf") for line in lines)
    assert not any(re.search(line, "GET /papers/due/abc.ics") for line in lines)


@served
def test_slow_and_silent_senders_stop_nobody_else(demo: Browser) -> None:
    host = demo.hosts[0]
    post = b"POST /api/decide HTTP/1.1\r\nHost: localhost\r\nContent-Length: 90000\r\n\r\n{"
    begun = [b"", b"GET /api/rounds HTTP/1.1\r\nHo", post]
    open_ = [dripping(host, f"127.0.0.{2 + k % 6}", begun[k % 3]) for k in range(SLOW)]
    for path in ("/", "/api/rounds", "/health/ready"):
        assert demo.send("GET", path)[0] == 200
    for each in open_:
        each.close()


@served
def test_one_address_holds_no_more_than_its_share(demo: Browser) -> None:
    host = demo.hosts[0]
    post = b"POST /api/decide HTTP/1.1\r\nHost: localhost\r\nContent-Length: 90000\r\n\r\n{"
    open_ = [dripping(host, "127.0.0.9", post) for _ in range(64)]
    greedy = Browser(host, source="127.0.0.9")
    status, said = greedy.send("POST", "/api/session", {"username": "a", "password": "b"})
    assert (status, said["title"]) == (429, "Too much at once")
    assert greedy.send("GET", "/api/session")[0] == 200
    assert demo.send("POST", "/api/session", {"username": "a", "password": "b"})[0] == 401
    for each in open_:
        each.close()


@served
@pytest.mark.parametrize(
    ("head", "status"),
    [
        (b"PUT /api/decide HTTP/1.1\r\nHost: localhost\r\nContent-Length: 99000000\r\n\r\n", 413),
        (b"GET /api/session HTTP/1.1\r\nHost: localhost\r\nX: " + b"x" * 20000 + b"\r\n\r\n", 400),
        (b"GET /api/session HTTP/1.1\r\nHost: elsewhere.invalid\r\n\r\n", 400),
        (b"GET /api/session HTTP/1.1\r\n\r\n", 400),
        (b"GET /api/% HTTP/1.1\r\nHost: localhost\r\n\r\n", 400),
        (b"GET /api/%00 HTTP/1.1\r\nHost: localhost\r\n\r\n", 400),
    ],
)
def test_what_the_web_server_refuses_it_refuses_as_a_problem(
    demo: Browser, head: bytes, status: int
) -> None:
    to = dripping(demo.hosts[0], "127.0.0.1", head)
    got = HTTPResponse(to)
    got.begin()
    assert got.status == status
    assert got.headers["Content-Type"] == "application/problem+json"
    assert json.loads(got.read())["status"] == status
    to.close()


@served
def test_an_address_of_one_s_own_making_is_not_believed(demo: Browser) -> None:
    wrong = {"username": "nobody here", "password": "wrong"}
    lies = [{"X-Real-IP": f"10.0.0.{k}", "X-Forwarded-For": f"10.0.0.{k}"} for k in range(12)]
    answers = [
        demo.send("POST", "/api/session", wrong, k % 2, **lie)[0] for k, lie in enumerate(lies)
    ]
    assert answers.count(429) >= 3  # counted by both hosts together
    other = Browser(demo.hosts[1], source="127.0.0.77")
    assert other.send("POST", "/api/session", wrong)[0] == 401


@served
def test_two_hosts_are_one_application(demo: Browser) -> None:
    workspace = demo.send("GET", "/api/workspaces", host=1)[1][0]["id"]
    archive = f"/api/archive/workspaces/{workspace}.json"
    status, everything = demo.send("GET", archive, host=1)
    assert status == 200
    path = f"/api/workspaces/{workspace}/imports/{uuid.uuid4()}"
    with ThreadPoolExecutor(8) as pool:  # the same to both hosts at once
        both = list(pool.map(lambda k: demo.send("PUT", path, everything, k % 2), range(8)))
    assert {status for status, _ in both} == {200}
    of, step = both[0][1], 0
    while of["state"] == "checking":
        status, of = demo.send("POST", f"/api/imports/{of['id']}/step", host=step % 2)
        assert status == 200
        step += 1
    assert demo.send("PUT", f"/api/imports/{of['id']}/taken", host=1)[0] == 200
    assert demo.send("GET", f"/api/imports/{of['id']}")[1]["counts"]["refused"] == 0
    assert demo.send("DELETE", "/api/session", host=1)[0] == 204
    assert demo.send("GET", "/api/rounds")[0] == 401


@served
def test_a_killed_worker_loses_nothing_that_was_confirmed(demo: Browser) -> None:
    workspace = demo.send("GET", "/api/workspaces")[1][0]["id"]
    ids = [str(uuid.uuid4()) for _ in range(60)]

    def put(k: int) -> bool:
        if k % 15 == 7:
            os.kill(max(_working(demo.hosts[0], "/short")), signal.SIGKILL)
        path = f"/api/workspaces/{workspace}/sites/{ids[k]}"
        until = time.monotonic() + 30  # a new worker is there long before
        while time.monotonic() < until:
            # An answer cut off in the middle confirms nothing: it is sent again.
            with suppress(HTTPException, OSError):
                status = demo.send("PUT", path, {"name": f"Site {k}"})[0]
                if status == 200:
                    return True
                assert status in (429, 503), status
        return False

    with ThreadPoolExecutor(4) as pool:
        assert all(pool.map(put, range(60)))
    assert Site.objects.filter(name__startswith="Site ").count() == 60


def _working(host: Served, part: str = "") -> set[int]:
    """The processes of a host, known by the folder they work in."""
    found = set()
    for each in Path("/proc").glob("[0-9]*"):
        with suppress(OSError):
            if os.readlink(each / "cwd").startswith(f"{host.run}{part}"):
                found.add(int(each.name))
    return found


def test_one_that_was_killed_is_taken_over_and_nothing_of_it_stays(
    hosts: tuple[Served, Served],
) -> None:
    first = hosts[0]
    before = _working(first)
    first.process.kill()  # the one that watches over the others
    first.process.wait()
    assert len(before & _working(first)) >= 5
    first.start()
    until = time.monotonic() + 20
    while before & _working(first) and time.monotonic() < until:
        time.sleep(0.05)
    assert not before & _working(first)
    first.stop()
    assert not _working(first)
    first.start()


@served
def test_a_recording_is_read_behind_the_page_by_either_host(demo: Browser) -> None:
    """Its job waits in PostgreSQL. Sent by one host, told by the other."""
    _, rounds = demo.send("GET", "/api/rounds")
    system = rounds["sites"][0]["systems"][0]["id"]
    line = line_of(Plant(), [(20, 0), (2000, 3 * GPM), (600, 0.0)])
    rows = [f"{t:.0f},{g / 1e5:.3f}" for t, g in zip(line.time_s, line.gauge_pa, strict=True)]
    data = ("seconds,bar\n" + "\n".join(rows) + "\n").encode()
    at = f"/api/recordings/{(id := uuid.uuid4())}"
    put = f"/api/systems/{system}/recordings/{id}"
    assert demo.send("PUT", put, {"name": "day", "size": len(data)})[0] == 200
    assert demo.send("PUT", f"{at}/parts/0", data, host=1)[0] == 200
    layout = demo.send("GET", f"{at}/guess")[1]["layout"]
    assert demo.send("POST", f"{at}/read", {"layout": layout})[0] == 200
    until = time.monotonic() + 60
    while (told := demo.send("GET", at, host=1)[1])["state"] == "reading":
        assert time.monotonic() < until
        time.sleep(0.1)
    assert told["state"] == "read"
    assert told["samples"] == len(rows)
    assert demo.send("DELETE", at)[0] == 204
