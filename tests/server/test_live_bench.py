"""The reference on the wire: its contact read by Modbus at the stand-in's door, changes taken as
readings, who may look on."""

import asyncio
import time
import uuid
from collections import deque
from dataclasses import asdict
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone

from accounts.models import Workspace
from calibrations.demo import make_demo
from calibrations.models import Calibration, Device, Reference
from calibrations.services import checked
from gauges.models import Gauge
from live.bench_demo import load_bench_stand_ins
from live.benches import read_on_benches
from live.door import _Bench
from live.models import BenchStandIn, BenchWatch
from live.reader import Reader, _Line
from tests.core.bench.made import KPA
from zerodip.bench.contact import Change
from zerodip.bench.course import BEFORE
from zerodip.bench.device import Reference as ReferenceGauge
from zerodip.fileformat.fields import read
from zerodip.wire import WireSpec

from .conftest import World
from .test_calibrations import add, begun, device, reference

__all__ = ["device"]


def wired(world: World, workspace: Workspace | None = None) -> Gauge:
    wire = {"host": "gauge", "raw_high": 50_000, "at_high": 10, "contact": "discrete"}
    spec, faults = read(WireSpec, wire)
    assert spec is not None, faults
    return Gauge.objects.create(
        id=uuid.uuid4(),
        workspace=workspace or world.workspace,
        data={"name": "Bench", "scale_gauge_pa": 1e6},
        wire=asdict(spec),
    )


def on_wire(world: World, device: str) -> str:
    """A calibration that is ready for its first reading, its reference on the wire."""
    body = {"reference": reference(), "on": timezone.now().date().isoformat()}
    path = f"/api/devices/{device}/calibrations/{uuid.uuid4()}"
    body["gauge"] = str(wired(world).pk)
    made = world["technician"].send("PUT", path, body)
    assert made.json()["wire"] == "contact", made.content
    for what in BEFORE:
        add(world, made.json()["id"], {"kind": "confirmed", "what": what})
    return str(made.json()["id"])


def changed(gauge_pa: float, rate_pa_s: float) -> dict[str, Any]:
    rate = {"rate_pa_s": rate_pa_s, "delay_s": 0.15}
    return asdict(Change(at_s=1.0, gauge_pa=gauge_pa, closed=True, **rate))


def test_a_change_is_the_reading_that_is_asked_for_once(world: World, device: str) -> None:
    made = on_wire(world, device)
    path = f"/api/calibrations/{made}/changes/{uuid.uuid4()}"
    body = changed(701.3 * KPA, 1500)
    for _ in range(2):
        said = world["technician"].send("PUT", path, body).json()
    assert said["next"]["instruction"]["id"] == "upper.reset"
    (taken,) = [each for each in said["entries"] if each["value"]["kind"] == "read"]
    value = taken["value"]
    assert (value["seen_by"], value["point"], value["which"]) == ("gauge", "upper", "set")
    assert (value["gauge_pa"], value["rate_pa_s"], value["delay_s"]) == (701.3 * KPA, 1500, 0.15)
    other = f"/api/calibrations/{made}/changes/{uuid.uuid4()}"
    refused = world["technician"].send("PUT", other, changed(701.4 * KPA, 1500))
    assert [each["path"] for each in refused.json()["faults"]] == ["change"]
    assert "asked is where it falls" in refused.json()["faults"][0]["message"]
    assert world["technician"].send("PUT", other, {**body, "gauge_pa": "x"}).status_code == 422
    beyond = world["technician"].send("PUT", other, changed(5e9, -1500))
    assert beyond.status_code == 422
    back = world["technician"].send("PUT", other, changed(660 * KPA, -1500)).json()
    assert back["next"]["instruction"]["id"] == "lower.set"


def test_a_reference_is_looked_on_by_who_calibrates_for_as_long_as_it_is_under_way(
    world: World, device: str
) -> None:
    by_hand = begun(world, device).json()
    assert by_hand["wire"] == ""
    path = f"/api/calibrations/{by_hand['id']}/watch"
    refused = world["technician"].send("PUT", path)
    assert [each["path"] for each in refused.json()["faults"]] == ["gauge"]
    stream = f"/api/calibrations/{by_hand['id']}/stream"
    assert world["viewer"].get(stream).status_code == 404
    Calibration.objects.filter(pk=by_hand["id"]).delete()
    path = f"/api/calibrations/{on_wire(world, device)}/watch"
    told = world["technician"].send("PUT", path).json()
    assert told["gauge_name"] == "Bench"
    assert told["until_s"] > time.time() + 60
    (spec,) = read_on_benches().values()
    assert spec.contact == "discrete"
    BenchWatch.objects.update(until_s=time.time() - 1)
    assert read_on_benches() == {}
    world["technician"].send("PUT", path)
    Calibration.objects.update(closed_at=timezone.now())
    assert read_on_benches() == {}
    assert world["technician"].send("PUT", path).status_code == 409
    assert world["technician"].send("DELETE", path).status_code == 204
    assert not BenchWatch.objects.exists()


@pytest.mark.parametrize("whose", ["theirs", "nobody"])
def test_a_reference_is_no_gauge_of_others(world: World, device: str, whose: str) -> None:
    other = wired(world, Workspace.objects.get(name="theirs"))
    id = str(other.pk if whose == "theirs" else uuid.uuid4())
    path = f"/api/workspaces/{world.workspace.pk}/references/{uuid.uuid4()}"
    refused = world["owner"].send("PUT", path, {"reference": reference(), "gauge": id})
    assert [each["path"] for each in refused.json()["faults"]] == ["gauge"]
    both = {"reference": reference(high_gauge_pa=-5.0), "gauge": id}
    told = world["owner"].send("PUT", path, both).json()["faults"]
    assert {each["path"] for each in told} == {"gauge", "reference.high_gauge_pa"}
    body = {"reference": reference(), "on": timezone.now().date().isoformat(), "gauge": id}
    began = world["owner"].send("PUT", f"/api/devices/{device}/calibrations/{uuid.uuid4()}", body)
    assert [each["path"] for each in began.json()["faults"]] == ["gauge"]
    assert not Calibration.objects.exists()


class Told:
    """Keeps what the reader tells."""

    def __init__(self) -> None:
        self.said: list[str] = []

    async def execute(self, query: str, values: tuple[str, str]) -> None:
        self.said.append(values[1])


@pytest.mark.parametrize("contact", ["discrete", "none"])
def test_the_reader_tells_the_rate_the_contact_and_a_change_once(
    monkeypatch: pytest.MonkeyPatch, contact: str
) -> None:
    told, gauge, now = Told(), uuid.uuid4(), [0.0]
    monkeypatch.setattr("live.reader.time.time", lambda: now[0])
    spec, _ = read(WireSpec, {"host": "x", "raw_high": 1000, "at_high": 10, "contact": contact})
    assert spec is not None
    reader = Reader(told)  # type: ignore[arg-type]
    reader._benches = {gauge: spec}
    line = _Line(deque(), deque(), [])
    for k in range(40):
        now[0] = 100 + k / 10
        closed = None if contact == "none" else k >= 20
        asyncio.run(reader._sample(gauge, spec, line, 300.0 + k, closed))
    changes = [each for each in told.said if '"change"' in each]
    assert len(changes) == (1 if contact == "discrete" else 0)
    assert ('"c":true' in told.said[-1]) == (contact == "discrete")
    assert '"r":10000.0' in told.said[-1]
    if changes:
        assert '"gauge_pa":319500' in changes[0]
        assert '"closed":true' in changes[0]


def test_the_demo_s_switches_have_benches_behind_the_door(world: World, settings: Any) -> None:
    settings.STAND_IN_PORT = 5020
    make_demo(world.site)
    assert load_bench_stand_ins(world.workspace) == 2
    own = Reference.objects.create(
        id=uuid.uuid4(), workspace=world.workspace, data=checked(ReferenceGauge, reference(), "")
    )
    assert load_bench_stand_ins(world.workspace) == 2  # as the next start does
    own.refresh_from_db()
    assert own.gauge is None
    assert {each.unit for each in BenchStandIn.objects.all()} == {200, 201}
    pairs = {str(each): each.gauge for each in Reference.objects.all()}
    assert str(pairs["Bench reference 1"]) == "Bench of Humidifier steam trip"
    assert str(pairs["Compound reference"]) == "Bench of Milk line vacuum alarm"
    bench = _Bench(BenchStandIn.objects.get(device__data__tag_number="VS-3"))
    registers = [0] * 8
    asyncio.run(bench.answer(3, 0, 0, 1, registers, None))
    spec, _ = read(WireSpec, pairs["Compound reference"].wire)  # type: ignore[union-attr]
    assert spec is not None
    assert (registers[0], spec.at_low, spec.at_high) == (50_000, pytest.approx(-101.6, 1e-3), 0)
    asyncio.run(bench.answer(2, 0, 0, 1, registers, None))
    assert registers[0] == 1  # without vacuum its point, which acts on falling vacuum, has acted
    moved = world["technician"].send(
        "PUT",
        f"/api/bench-stand-ins/{Device.objects.get(data__tag_number='VS-3').pk}",
        {"hands": {"pump": "sideways", "lower": 20}},
    )
    assert {each["path"] for each in moved.json()["faults"]} == {"hands.pump", "hands.lower"}


def test_a_switch_s_reference_comes_back_with_its_gauge(world: World) -> None:
    from .test_exchange import exported, imported, taken

    gauge = wired(world)
    path = f"/api/workspaces/{world.workspace.pk}/references/{uuid.uuid4()}"
    due = (timezone.now().date() + timedelta(days=9)).isoformat()
    body = {"reference": reference(due=due), "gauge": str(gauge.pk)}
    assert world["owner"].send("PUT", path, body).json()["gauge"] == str(gauge.pk)
    archive = exported(world)
    theirs = Workspace.objects.get(name="theirs")
    taken(world, imported(world, archive, "outsider", theirs), "outsider")
    moved = Reference.objects.get(workspace=theirs)
    assert moved.gauge is not None
    assert (moved.gauge.workspace, moved.gauge.pk != gauge.pk) == (theirs, True)
    Reference.objects.all().delete()
    Gauge.objects.all().delete()
    taken(world, imported(world, archive))
    assert Reference.objects.get(workspace=world.workspace).gauge == gauge
