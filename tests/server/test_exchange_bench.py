"""Set-point switches in an archive: out and in again unchanged, elsewhere under ids of their own;
what was signed here takes only corrections."""

import copy
import json
import uuid
from collections.abc import Callable
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone

from accounts.models import Workspace
from calibrations.demo import make_demo
from calibrations.models import Calibration, CalibrationEntry, Device, Reference
from gauges.models import Gauge
from sites.models import Site
from zerodip.fileformat.document import plain
from zerodip.gauges import GaugeSpec

from .conftest import World
from .test_calibrations import add, begun, device, walked
from .test_exchange import exported, imported, refusals, taken

__all__ = ["device"]


def switches(archive: dict[str, Any]) -> list[dict[str, Any]]:
    return list(archive["sites"][0]["switches"])


def certificate(world: World, made: Any, who: str = "viewer") -> dict[str, Any]:
    said = dict(world[who].get(f"/api/calibrations/{made}").json())
    return dict(said["judged"])


def told(**counts: int) -> dict[str, int]:
    return {"added": 0, "changed": 0, "same": 0, "refused": 0, **counts}


def test_a_lost_bench_comes_back_whole_with_its_judgements_and_due_dates(world: World) -> None:
    make_demo(world.site)
    archive = exported(world)
    due = list(Device.objects.order_by("pk").values_list("pk", "due_on", "due_by"))
    made = Calibration.objects.values_list("pk", flat=True)
    judged = {each: certificate(world, each) for each in made}
    assert imported(world, archive)["counts"] == told(same=7)
    Site.objects.all().delete()
    Reference.objects.all().delete()
    of = imported(world, archive)
    assert of["counts"] == told(added=6, same=1)
    assert taken(world, of)["state"] == "done"
    assert {**exported(world), "made_at": 0} == {**archive, "made_at": 0}
    assert list(Device.objects.order_by("pk").values_list("pk", "due_on", "due_by")) == due
    assert {each: certificate(world, each) for each in judged} == judged


def test_a_bench_goes_into_another_workspace_and_twice_is_once(world: World, device: str) -> None:
    made = walked(world, device)["id"]
    wrong = CalibrationEntry.objects.filter(calibration=made, value__kind="read").last()
    assert wrong is not None
    assert add(world, made, {**wrong.value}, str(wrong.id)).status_code == 200
    archive = exported(world)
    theirs = Workspace.objects.get(name="theirs")
    taken(world, imported(world, archive, "outsider", theirs), "outsider")
    assert imported(world, archive, "outsider", theirs)["counts"]["added"] == 0
    (moved,) = Calibration.objects.filter(device__site__workspace=theirs)
    assert str(moved.pk) != made
    assert certificate(world, moved.pk, "outsider") == certificate(world, made)
    assert world["owner"].get(f"/api/calibrations/{moved.pk}").status_code == 404
    corrected = moved.entries.get(supersedes__isnull=False)
    assert moved.entries.filter(id=corrected.supersedes).exists()
    assert corrected.by == "technician of ours"


def test_a_calibration_left_open_here_and_signed_there_is_closed(world: World, device: str) -> None:
    made = walked(world, device)["id"]
    archive = exported(world)
    there = switches(archive)[0]["calibrations"][0]
    there["closed_at"] = (timezone.now() + timedelta(minutes=1)).isoformat()
    assert [path for _, path in refusals(world, imported(world, archive))] == [
        "sites.0.switches.0.calibrations.0.signed_by"
    ]
    there["signed_by"] = "A. Technician"
    of = imported(world, archive)
    rows = world["technician"].get(f"/api/imports/{of['id']}/pieces?change=changed").json()
    assert [(row["kind"], row["says"]) for row in rows] == [("switch", "1 closed")]
    taken(world, of)
    assert world["viewer"].get(f"/api/calibrations/{made}").json()["signed_by"] == "A. Technician"
    assert Device.objects.get().due_on is not None


def test_the_gauge_on_the_wire_goes_along(world: World, device: str) -> None:
    made = begun(world, device).json()["id"]
    spec = plain(GaugeSpec(name="No. 9", scale_gauge_pa=7e5, grade="A"))
    gauge = Gauge.objects.create(id=uuid.uuid4(), workspace=world.workspace, data=spec)
    Calibration.objects.filter(pk=made).update(gauge=gauge)
    archive = exported(world)
    assert imported(world, archive)["counts"]["changed"] == 0
    Site.objects.all().delete()
    taken(world, imported(world, archive))
    assert Calibration.objects.get(pk=made).gauge == gauge
    theirs = Workspace.objects.get(name="theirs")
    taken(world, imported(world, archive, "outsider", theirs), "outsider")
    moved = Calibration.objects.get(device__site__workspace=theirs).gauge
    assert moved is not None
    assert (moved.workspace, moved.data["name"]) == (theirs, "No. 9")
    moved.delete()
    archive["gauges"] = []
    Site.objects.all().delete()
    taken(world, imported(world, archive, "outsider", theirs), "outsider")
    assert Calibration.objects.get(device__site__workspace=theirs).gauge is None


Change = Callable[[dict[str, Any]], Any]


def entry(**value: Any) -> dict[str, Any]:
    return {"id": str(uuid.uuid4()), "at": timezone.now().isoformat(), "value": value}


def _another_open(switch: dict[str, Any]) -> None:
    other = copy.deepcopy(switch["calibrations"][-1])
    other |= {"id": str(uuid.uuid4()), "closed_at": None, "entries": []}
    switch["calibrations"] += [other, {**other, "id": str(uuid.uuid4())}]


READ = {"kind": "read", "point": "upper", "which": "set", "gauge_pa": 6.2e5}


@pytest.mark.parametrize(
    ("change", "path", "says"),
    [
        (lambda s: s["switch"].pop("points"), "switch.points", ""),
        (lambda s: s["switch"]["points"][1].update(gauge_pa=9e6), "switch.points.1.gauge_pa", ""),
        (lambda s: s["calibrations"][0].update(on="2031-02-30"), "calibrations.0.on", ""),
        (lambda s: s["calibrations"][0].update(on="2190-02-03"), "calibrations.0.on", "tomorrow"),
        (
            lambda s: s["calibrations"][1]["reference"].update(resolution_pa=-1),
            "calibrations.1.reference.resolution_pa",
            "",
        ),
        (
            lambda s: s["calibrations"][1]["entries"][3]["value"].update(gauge_pa="much"),
            "calibrations.1.entries.3.value.gauge_pa",
            "",
        ),
        (
            lambda s: s["calibrations"][1]["entries"][0].update(supersedes=str(uuid.uuid4())),
            "calibrations.1.entries.0.supersedes",
            "earlier",
        ),
        (
            lambda s: s["calibrations"][0].update(closed_at="1999-01-01T00:00:00Z"),
            "calibrations.0.closed_at",
            "opening",
        ),
        (_another_open, "", "more than one calibration under way"),
        (lambda s: s["calibrations"][0]["entries"].append(entry(**READ)), "", "closed here"),
        (
            lambda s: s["calibrations"][0]["entries"].append(s["calibrations"][1]["entries"][0]),
            "",
            "id",
        ),
    ],
)
def test_what_is_wrong_with_a_switch_is_refused_by_field(
    world: World, change: Change, path: str, says: str
) -> None:
    make_demo(world.site)
    archive = exported(world)
    at = next(k for k, each in enumerate(switches(archive)) if each["calibrations"])
    change(switches(archive)[at])
    of = imported(world, json.dumps(archive, indent=1).encode())
    whole = f"sites.0.switches.{at}"
    (found,) = world["technician"].get(f"/api/imports/{of['id']}/pieces?change=refused").json()
    assert found["kind"] == "switch"
    assert found["name"] == "Humidifier steam trip"
    assert [fault["path"] for fault in found["faults"]] == [f"{whole}.{path}".rstrip(".")]
    assert says in found["faults"][0]["message"]


def test_a_correction_after_signing_comes_in_and_moves_the_due_date(world: World) -> None:
    make_demo(world.site)
    archive = exported(world)
    switch = next(each for each in switches(archive) if each["calibrations"])
    last = switch["calibrations"][-1]
    before = Device.objects.get(pk=switch["id"]).due_on
    for read in [e for e in last["entries"] if e["value"]["point"] == "upper"]:
        off = {**read["value"], "gauge_pa": read["value"]["gauge_pa"] + 20e3}
        last["entries"].append({**entry(**off), "supersedes": read["id"]})
    of = imported(world, archive)
    assert of["counts"]["changed"] == 1
    taken(world, of)
    assert certificate(world, last["id"])["left_verdict"] == "fail"
    assert Device.objects.get(pk=switch["id"]).due_on != before
    assert begun(world, switch["id"]).status_code == 200


def test_a_system_s_archive_has_no_switches_and_a_site_s_has(world: World) -> None:
    make_demo(world.site)
    assert "switches" not in exported(world, scope="systems")["sites"][0]
    assert len(switches(exported(world, scope="sites"))) == 2
