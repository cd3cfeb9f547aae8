"""The bench through its interface: a calibration from begin to signature, corrections after it, and
what is refused."""

import io
import json
import re
import uuid
from datetime import timedelta
from typing import Any, get_args

import pytest
from django.utils import timezone
from pypdf import PdfReader

from calibrations.demo import make_demo
from calibrations.models import Calibration, CalibrationEntry, Device
from common.schemas import Scale
from tests.core.bench.made import KPA, dual
from zerodip.units import SCALES

from .conftest import World
from .test_documents import words

TODAY = timezone.now().date()
INHG = 3386.389


@pytest.fixture
def device(world: World) -> str:
    made = str(uuid.uuid4())
    body = {"device": dual()["device"]}
    answer = world["owner"].send("PUT", f"/api/sites/{world.site.pk}/devices/{made}", body)
    assert answer.status_code == 200, answer.content
    assert answer.json()["state"] == "never"
    return made


def reference(**changed: Any) -> dict[str, Any]:
    due = (TODAY + timedelta(days=90)).isoformat()
    return {**dual()["reference"], "due": due, **changed}


def begun(world: World, device: str, **changed: Any) -> Any:
    body = {"reference": reference(**changed), "on": TODAY.isoformat()}
    path = f"/api/devices/{device}/calibrations/{uuid.uuid4()}"
    return world["technician"].send("PUT", path, body)


def add(world: World, made: str, value: Any, supersedes: str | None = None) -> Any:
    body = {"value": value, "supersedes": supersedes}
    path = f"/api/calibrations/{made}/entries/{uuid.uuid4()}"
    return world["technician"].send("PUT", path, body)


def walked(world: World, device: str) -> dict[str, Any]:
    """A calibration led to its end at a switch whose upper point stands 25 kPa high."""
    said = begun(world, device, expanded_pa=2 * KPA).json()
    points, off = [300 * KPA, 725 * KPA], [-1, 1]
    for _ in range(80):
        told = said["next"]["instruction"]
        if told is None:
            return dict(said)
        value: dict[str, Any] = {"kind": "confirmed", "what": told["id"]}
        if told["enters"] == "turn":
            turns = said["next"]["step"]["turns"]
            value = {"kind": "turned", **turns}
            points[0] += turns.get("lower", 0) * 60 * KPA
            points[1] += turns.get("upper", 0) * 50 * KPA
        elif told["enters"] != "confirm":
            at = 1 if told["point"] == "upper" else 0
            pa = points[at] - (off[at] * 40 * KPA if told["enters"] == "reset" else 0)
            value = {"kind": "read", "point": told["point"], "which": told["enters"]}
            value["gauge_pa"] = pa
        answer = add(world, said["id"], value)
        assert answer.status_code == 200, answer.content
        said = answer.json()
    raise AssertionError("it never ends")


def test_from_begin_to_signature_and_a_correction_after_it(world: World, device: str) -> None:
    said = walked(world, device)
    assert said["adjusted"]
    assert (said["judged"]["found_verdict"], said["judged"]["left_verdict"]) == ("fail", "pass")
    path = f"/api/calibrations/{said['id']}/closed"
    refused = world["technician"].send("PUT", path, {"signed_by": " "})
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["path"] == "signed_by"
    closed = world["technician"].send("PUT", path, {"signed_by": "A. Technician"})
    assert closed.json()["signed_by"] == "A. Technician"
    again = world["technician"].send("PUT", path, {"signed_by": "Somebody else"})
    assert again.json()["signed_by"] == "A. Technician"
    due = world["viewer"].get(f"/api/devices/{device}").json()
    assert due["due_by"] == "interval"
    assert due["state"] == "good"
    reads = [each for each in said["entries"] if each["value"]["kind"] == "read"]
    last = next(e for e in reversed(reads) if e["value"]["which"] == "set")
    far = {**last["value"], "gauge_pa": last["value"]["gauge_pa"] + 60 * KPA}
    assert add(world, said["id"], far).status_code == 409  # closed: nothing new
    corrected = add(world, said["id"], far, supersedes=last["id"]).json()
    (listed,) = corrected["corrections"]
    assert re.fullmatch(r"Lower point acted at [\d.]+ psi, was [\d.]+ psi", listed["says"])
    assert listed["by"] == "technician of ours"
    # One run of three that lies far off: the point does not repeat.
    assert corrected["judged"]["left_verdict"] == "fail"
    assert add(world, said["id"], far, supersedes=last["id"]).status_code == 409  # already
    (row,) = world["viewer"].get(f"/api/devices/{device}/calibrations").json()
    assert row["left_says"] == "Fail"
    due = world["viewer"].get(f"/api/devices/{device}").json()
    assert (due["state"], due["due_by"]) == ("overdue", "failed")
    sheet = world["viewer"].get(f"/api/calibrations/{said['id']}/certificate.pdf").content
    assert listed["says"] in words(sheet)
    label = world["viewer"].get(f"/api/devices/{device}/label.pdf").content
    assert "not for service" in words(label)


def vacuum(**changed: Any) -> dict[str, Any]:
    """A vacuum switch, 0 to 30 inHg, that alarms when the vacuum falls to 12.5 inHg."""
    point = {"gauge_pa": -12.5 * INHG, "acts": "rising", "tolerance_pa": 0.5 * INHG}
    range_ = {"low_gauge_pa": -30 * INHG, "high_gauge_pa": 0.0}
    return {"name": "Milk line", "guards": "The pump", "points": [point], **range_, **changed}


@pytest.mark.parametrize(
    ("marked", "reads", "told"),
    [(None, None, "psi"), ("inHg", None, "inHg"), ("inHg", "mbar", "mbar"), (None, "mbar", "mbar")],
)
def test_a_run_is_told_in_what_the_reference_is_marked_in_and_papers_in_what_the_switch_is(
    world: World, marked: str | None, reads: str | None, told: str
) -> None:
    device = str(uuid.uuid4())
    answer = world["owner"].send(
        "PUT",
        f"/api/sites/{world.site.pk}/devices/{device}?units=inHg",
        {"device": vacuum(unit=marked)},
    )
    assert answer.status_code == 200, answer.content
    scale = {"low_gauge_pa": -30 * INHG, "high_gauge_pa": 0.0, "resolution_pa": 0.02 * INHG}
    said = begun(world, device, unit=reads, expanded_pa=0.05 * INHG, **scale).json()
    assert said["units"] == (told if told != "psi" else "us")
    other = {"psi", "inHg", "mbar"} - {told}
    refused = add(world, said["id"], {"kind": "read", "point": "lower", "which": "set"})
    assert refused.status_code == 422
    bad = {"kind": "read", "point": "lower", "which": "set", "gauge_pa": -60 * INHG}
    path = f"/api/calibrations/{said['id']}/entries/{uuid.uuid4()}?units={said['units']}"
    (fault,) = world["technician"].send("PUT", path, {"value": bad}).json()["faults"]
    assert told in fault["allowed"]
    (fault,) = add(world, said["id"], bad | {"gauge_pa": 12.4 * INHG}).json()["faults"]
    assert (fault["path"], fault["code"]) in (("gauge_pa", "off_scale"), ("gauge_pa", "no_vacuum"))
    for _ in range(30):
        text = json.dumps([said["next"], said["judged"] and said["judged"]["says"]])
        assert not [each for each in other if each in text], text
        instruction = said["next"]["instruction"]
        if instruction is None:
            break
        value: dict[str, Any] = {"kind": "confirmed", "what": instruction["id"]}
        if instruction["enters"] != "confirm":
            pa = (-12.4 if instruction["enters"] == "set" else -14.0) * INHG
            value = {"kind": "read", "point": instruction["point"], "gauge_pa": pa}
            value["which"] = instruction["enters"]
        said = add(world, said["id"], value).json()
    assert said["judged"]["left_says"] == "Pass"
    assert told in json.dumps(said["judged"]["says"])
    answer = world["viewer"].get(f"/api/calibrations/{said['id']}/certificate.pdf?units=us")
    on_paper = words(answer.content)
    assert (marked or "psi") in on_paper
    assert "mbar" not in on_paper


def test_a_scale_is_one_of_the_core_s() -> None:
    assert {*get_args(Scale)} == set(SCALES)


def test_an_entry_sent_twice_counts_once_and_another_under_its_id_is_refused(
    world: World, device: str
) -> None:
    made = begun(world, device).json()["id"]
    path = f"/api/calibrations/{made}/entries/{uuid.uuid4()}"
    for _ in range(2):
        body: dict[str, Any] = {"value": {"kind": "confirmed", "what": "permit"}}
        assert world["technician"].send("PUT", path, body).status_code == 200
    assert CalibrationEntry.objects.count() == 1
    body["value"]["what"] = "tight"
    assert world["technician"].send("PUT", path, body).status_code == 409


def test_nothing_is_signed_before_it_is_judged(world: World, device: str) -> None:
    made = begun(world, device).json()["id"]
    for point, pa in (("upper", 700 * KPA), ("lower", 300 * KPA)):
        add(world, made, {"kind": "read", "point": point, "which": "set", "gauge_pa": pa})
    path = f"/api/calibrations/{made}/closed"
    refused = world["technician"].send("PUT", path, {"signed_by": "A. Technician"})
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["path"] == "runs"
    assert Calibration.objects.get().closed_at is None


def test_two_people_make_the_same_calibration(world: World, device: str) -> None:
    assert begun(world, device).json()["id"] == begun(world, device).json()["id"]
    assert Calibration.objects.count() == 1


@pytest.mark.parametrize(
    ("changed", "path"),
    [
        ({"due": "2020-01-01"}, "reference.due"),
        ({"expanded_pa": 9 * KPA}, "reference.grade"),
        ({"high_gauge_pa": 500 * KPA}, "reference.high_gauge_pa"),
        ({"resolution_pa": None}, "reference.resolution_pa"),
    ],
)
def test_a_reference_is_refused_by_field(
    world: World, device: str, changed: dict[str, Any], path: str
) -> None:
    refused = begun(world, device, **changed)
    assert refused.status_code == 422
    assert path in {fault["path"] for fault in refused.json()["faults"]}
    assert not Calibration.objects.exists()


@pytest.mark.parametrize(
    "value",
    [None, [], "x", {"kind": "read"}, {"kind": "turned"}, {"kind": "read", "gauge_pa": "NaN"}],
)
def test_what_is_no_entry_is_refused(world: World, device: str, value: Any) -> None:
    made = begun(world, device).json()["id"]
    assert add(world, made, value).status_code == 422
    assert not CalibrationEntry.objects.exists()


def test_a_switch_changed_meanwhile_keeps_what_the_other_wrote(world: World, device: str) -> None:
    path = f"/api/sites/{world.site.pk}/devices/{device}"
    changed = {**dual()["device"], "location": "shed"}
    assert world["owner"].send("PUT", path, {"version": 1, "device": changed}).status_code == 200
    late = {**dual()["device"], "location": "barn"}
    assert world["owner"].send("PUT", path, {"version": 1, "device": late}).status_code == 409
    assert Device.objects.get().data["location"] == "shed"
    assert world["owner"].send("DELETE", f"/api/devices/{device}").status_code == 204
    assert world["owner"].get("/api/devices").json() == []


def test_the_demo_s_switch_drifts_and_is_due_before_its_interval(world: World) -> None:
    make_demo(world.site)
    rows = {each["device"]["name"]: each for each in world["viewer"].get("/api/devices").json()}
    dual_one = rows["Humidifier steam trip"]
    assert dual_one["due_by"] == "drift"
    made = world["viewer"].get(f"/api/devices/{dual_one['id']}/calibrations").json()
    assert len(made) == 3
    last = world["viewer"].get(f"/api/calibrations/{made[0]['id']}?units=kpa").json()
    assert any(each["id"] == "drifts" for each in last["judged"]["says"])
    assert rows["Milk line vacuum alarm"]["state"] == "never"
    label = world["viewer"].get(f"/api/devices/{dual_one['id']}/label.pdf?units=kpa")
    assert all(each in words(label.content) for each in ("620", "PS-12", "M. Linden"))


def test_the_certificate_is_one_page_and_says_what_was_found(world: World, device: str) -> None:
    said = walked(world, device)
    path = f"/api/calibrations/{said['id']}/certificate.pdf?units=kpa"
    answer = world["viewer"].get(path)
    assert answer.status_code == 200
    assert len(PdfReader(io.BytesIO(answer.content)).pages) == 1
    told = words(answer.content)
    for each in ("Feed pump trip", "Bench 1", "As found: Fail", "As left: Pass", "Upper point"):
        assert each in told
    assert "Not closed yet" in told


def test_a_link_opens_the_certificate_to_anyone_until_it_is_taken_back(
    world: World, device: str
) -> None:
    made = walked(world, device)["id"]
    path = f"/api/calibrations/{made}/links/{uuid.uuid4()}"
    early = world["technician"].send("PUT", path, {"days": 7, "units": "kpa"})
    assert [fault["path"] for fault in early.json()["faults"]] == ["calibration"]
    closed = world["technician"].send(
        "PUT", f"/api/calibrations/{made}/closed", {"signed_by": "A. Technician"}
    )
    assert closed.status_code == 200
    told = world["technician"].send("PUT", path, {"days": 7, "units": "kpa"}).json()
    again = world["technician"].send("PUT", path, {"days": 7, "units": "kpa"}).json()
    assert again == told
    opened = "/" + told["address"].split("/", 3)[3]
    sheet = world["anonymous"].get(opened)
    assert sheet["X-Robots-Tag"] == "noindex, nofollow"
    assert "As left: Pass" in words(sheet.content)
    assert "kPa" in words(sheet.content)
    assert world["anonymous"].get(opened.replace("/certificates", "")).status_code == 404
    assert world["viewer"].send("DELETE", path).status_code == 403
    assert world["outsider"].send("DELETE", path).status_code == 404
    (row,) = world["viewer"].get(f"/api/calibrations/{made}/links").json()
    assert (row["state"], row["address"]) == ("alive", "")
    assert world["technician"].send("DELETE", path).json()["state"] == "revoked"
    assert world["anonymous"].get(opened).status_code == 404
