"""Gauges on the wire: read by Modbus against the library's own simulator, watched on a visit, kept
as a recording."""

import asyncio
import threading
import uuid
from collections.abc import Iterator
from typing import Any

import numpy as np
import pytest
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector
from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from accounts.models import Workspace
from gauges.models import Gauge
from live import keeping
from live.models import StandIn, Stretch, Watch
from recordings.models import Chunk, Recording
from recordings.store import samples_of
from tests.lines import GPM, Plant, line_of
from tests.serving import free_port
from visits.models import Entry, Visit
from zerodip.units import PSI

from .conftest import World

NOW_S = 1_790_000_000.0


@pytest.fixture(autouse=True)
def _no_jobs_of_their_own() -> Any:
    with app.replace_connector(InMemoryConnector()):
        yield


@pytest.fixture(scope="module")
def device() -> Iterator[int]:
    """A device of the library's own simulator; its port. Register 0 counts up with each reading, 4
    and 5 hold a float."""
    port, loop, opened = free_port(), asyncio.new_event_loop(), threading.Event()
    made: list[Any] = []

    async def counts(
        function: int, start: int, address: int, count: int, registers: list[int], values: Any
    ) -> None:
        registers[-start] += 1

    async def serve() -> None:
        blocks = [
            SimData(0, values=[4000, 7, 7, 7], datatype=DataType.REGISTERS),
            SimData(4, values=[42.5], datatype=DataType.FLOAT32),
        ]
        devices = [SimDevice(id=1, simdata=blocks, action=counts)]
        made.append(ModbusTcpServer(devices, address=("127.0.0.1", port)))
        task = asyncio.create_task(made[0].serve_forever(background=True))
        await task
        opened.set()

    def run() -> None:
        asyncio.set_event_loop(loop)
        loop.create_task(serve())
        loop.run_forever()

    thread = threading.Thread(target=run, daemon=True)
    thread.start()
    assert opened.wait(10)
    yield port
    asyncio.run_coroutine_threadsafe(made[0].shutdown(), loop).result(10)
    loop.call_soon_threadsafe(loop.stop)
    thread.join(10)


def look(world: World, wire: dict[str, Any], who: str = "technician") -> Any:
    return world[who].send(
        "POST", f"/api/workspaces/{world.workspace.pk}/wires/look", {"wire": wire}
    )


def wire(port: int, **changes: Any) -> dict[str, Any]:
    return {"host": "127.0.0.1", "port": port, "raw_high": 10000, "at_high": 10, **changes}


FLOAT = {"register": 4, "number": "float32", "raw_high": 100, "at_high": 100}


@pytest.mark.parametrize(
    ("changes", "problem", "pascal"),
    [
        ({}, None, 4.0e5),
        ({**FLOAT, "pressure_unit": "psi"}, "frozen", 42.5 * PSI),
        ({"register": 300}, "wrong_register", None),
        ({"register": 1, "raw_low": 100, "raw_high": 200}, "no_pressure", None),
        ({"unit": 9}, "device", None),
        ({"contact": "discrete", "contact_register": 2}, None, 4.0e5),
        ({"contact": "coil", "contact_register": 2}, None, 4.0e5),
        ({"contact": "discrete", "contact_register": 9999}, "no_contact", None),
        ({"host": "nowhere.invalid"}, "unknown_host", None),
    ],
)
def test_a_first_look_says_what_is_wrong(
    world: World, device: int, settings: Any, changes: Any, problem: str | None, pascal: Any
) -> None:
    settings.STAND_IN_PORT = device
    told = look(world, wire(device, **changes)).json()
    assert told["problem"] == problem, told
    assert bool(told["says"]) == (problem is not None)
    if pascal:
        assert told["gauge_pa"] == pytest.approx(pascal, rel=0.02)


def test_a_port_that_refuses_and_a_field_that_is_wrong(world: World, settings: Any) -> None:
    settings.STAND_IN_PORT = free_port()
    assert look(world, wire(settings.STAND_IN_PORT)).json()["problem"] == "refused"
    refused = look(world, wire(1, raw_low=20000, host=""))
    assert refused.status_code == 422
    assert {fault["path"] for fault in refused.json()["faults"]} == {"wire.host", "wire.raw_high"}


@pytest.mark.parametrize("host", ["127.0.0.1", "::1", "0.0.0.0", "8.8.8.8", "169.254.169.254"])
def test_only_the_networks_named_are_gone_to(world: World, host: str) -> None:
    """Neither this machine's own services, nor others' addresses, nor a cloud's."""
    assert look(world, wire(5432, host=host)).json()["problem"] == "forbidden"


def wired(world: World, **changes: Any) -> Gauge:
    made = {"name": "Sender", "scale_gauge_pa": 1e6, "grade": "4A", "low_pa": 0.0}
    return Gauge.objects.create(
        id=uuid.uuid4(), workspace=world.workspace, data=made, wire=wire(502), **changes
    )


def begun(world: World, gauge: Gauge, visit: Visit | None = None, id: Any = None) -> Any:
    visit = visit or Visit.objects.create(system=world.system)
    at = f"/api/visits/{visit.pk}/watches/{id or uuid.uuid4()}"
    return world["technician"].send("PUT", at, {"gauge": str(gauge.pk)})


def test_one_watch_at_a_time_however_often_it_is_asked_for(world: World) -> None:
    gauge, other, visit = wired(world), wired(world), Visit.objects.create(system=world.system)
    first, again = begun(world, gauge, visit), begun(world, gauge, visit)
    assert first.json()["id"] == again.json()["id"]
    used = {each.slot: each.value for each in visit.entries.all()}
    assert used == {"gauge.used": "Sender", "gauge.error": pytest.approx(1000.0), "gauge.low": 0.0}
    third = begun(world, other, visit).json()
    assert third["open"]
    assert Watch.objects.get(pk=first.json()["id"]).until_s is not None
    rows = world["viewer"].send("GET", f"/api/visits/{visit.pk}/watches").json()
    assert [each["open"] for each in rows] == [True, False]


def test_what_was_said_of_the_visit_s_own_gauge_stands(world: World) -> None:
    visit = Visit.objects.create(system=world.system)
    Entry.objects.create(id=uuid.uuid4(), visit=visit, slot="gauge.error", value=3447.0)
    assert begun(world, wired(world), visit).status_code == 200
    assert [each.slot for each in visit.entries.all()] == ["gauge.error"]


def test_what_cannot_be_watched_is_refused_by_field(world: World) -> None:
    plain = Gauge.objects.create(
        id=uuid.uuid4(), workspace=world.workspace, data={"name": "Dial", "scale_gauge_pa": 1e6}
    )
    answer = begun(world, plain)
    assert answer.status_code == 422
    assert answer.json()["faults"][0]["path"] == "gauge"
    assert begun(world, wired(world, retired=True)).status_code == 422
    foreign = wired(world)
    Gauge.objects.filter(pk=foreign.pk).update(workspace=Workspace.objects.get(name="theirs"))
    assert begun(world, foreign).status_code == 422


def test_a_closed_visit_is_watched_no_more(world: World) -> None:
    visit = Visit.objects.create(system=world.system)
    watch = begun(world, wired(world), visit).json()
    closed = world["technician"].send("PUT", f"/api/visits/{visit.pk}/closed")
    assert closed.status_code == 200
    assert [str(each) for each in keeping.ended_by_closing()] == [watch["id"]]
    assert keeping.ended_by_closing() == []
    assert begun(world, wired(world), visit).status_code == 409


def watched(world: World) -> tuple[Watch, np.ndarray, np.ndarray]:
    """A watch that ended, with a cycle of samples before, within and after it."""
    line = line_of(Plant(), [(10, 0.0), (200, 5 * GPM), (120, 0.0)], 0.05, 0.05, 4)
    times, gauge = NOW_S + np.round(line.time_s, 3), np.round(line.gauge_pa, 1)
    of = wired(world)
    for first in range(0, len(times), 40):
        part = slice(first, first + 40)
        keeping.keep_samples(of.pk, list(zip(times[part], gauge[part], strict=True)))
    watch = Watch.objects.create(
        id=uuid.uuid4(),
        visit=Visit.objects.create(system=world.system),
        gauge=of,
        from_s=float(times[100]),
        until_s=float(times[-200]),
    )
    within = (times >= watch.from_s) & (times <= float(times[-200]))
    return watch, times[within], gauge[within]


def test_what_was_watched_is_a_recording_once(world: World) -> None:
    watch, times, gauge = watched(world)
    made = keeping.keep_watch(watch.pk)
    assert made is not None
    assert keeping.keep_watch(watch.pk) is None
    assert Recording.objects.count() == 1
    parts = list(samples_of(Recording.objects.get()))
    assert np.array_equal(np.concatenate([part.time_s for part in parts]), times)
    assert np.array_equal(np.concatenate([part.gauge_pa for part in parts]), gauge)
    told = world["viewer"].send("GET", f"/api/recordings/{made.pk}").json()
    assert told["state"] == "read"
    assert told["told"]["points"]["cut_out"]["usual"] == pytest.approx(60 * PSI, abs=0.2 * PSI)
    line = world["viewer"].send("GET", f"/api/watches/{watch.pk}/line?seconds=60").json()
    assert 1000 <= len(line["time_s"]) <= 1300


def test_nobody_s_samples_go_and_a_watch_that_saw_nothing_makes_nothing(world: World) -> None:
    watch, _, _ = watched(world)
    keeping.clear_stretches()
    assert not Stretch.objects.exists()  # of 2026: older than any watch that could still need them
    assert keeping.keep_watch(watch.pk) is None
    assert not Chunk.objects.exists()


def test_a_reading_taken_is_marked_as_the_gauge_s(world: World) -> None:
    watch, _, _ = watched(world)
    body = {"slot": "found.cut_out", "value": 60 * PSI, "supersedes": None}
    at = f"/api/watches/{watch.pk}/taken/{uuid.uuid4()}"
    first, again = (world["technician"].send("PUT", at, body) for _ in range(2))
    assert first.status_code == again.status_code == 200
    entry = Entry.objects.get(slot="found.cut_out")
    assert entry.by_gauge == "Sender"
    fields = {each["slot"]: each for each in first.json()["view"]["watch"]["read"]}
    assert fields["found.cut_out"]["by_gauge"] == "Sender"
    assert fields["found.cut_in"]["by_gauge"] == ""
    other = world["technician"].send("PUT", at.rsplit("/", 1)[0] + f"/{uuid.uuid4()}", body)
    assert other.status_code == 200  # the same value again changes nothing
    remark = {"slot": "signed", "value": "Somebody"}
    refused = world["technician"].send("PUT", at.rsplit("/", 1)[0] + f"/{uuid.uuid4()}", remark)
    assert refused.json()["faults"][0]["path"] == "slot"
    wrong = {"slot": "found.cut_out", "value": 1e9, "supersedes": str(entry.id)}
    refused = world["technician"].send("PUT", at.rsplit("/", 1)[0] + f"/{uuid.uuid4()}", wrong)
    assert refused.status_code == 422


def test_hands_at_a_stand_in_are_checked_by_field(world: World) -> None:
    StandIn.objects.create(system=world.system, unit=7)
    at = f"/api/stand-ins/{world.system.pk}"
    assert (
        world["technician"].send("PUT", at, {"hands": {"tap": 0.3}}).json()["hands"]["tap"] == 0.3
    )
    refused = world["technician"].send("PUT", at, {"hands": {"tap": 3, "power": "half"}})
    assert {each["path"] for each in refused.json()["faults"]} == {"hands.tap", "hands.power"}
    assert StandIn.objects.get().hands["tap"] == 0.3
    assert world["outsider"].send("GET", "/api/stand-ins").json() == []
