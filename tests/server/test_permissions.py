"""Every operation of the API has its row here: who gets which status. A new operation without a row
fails."""

import uuid
from collections.abc import Callable
from datetime import timedelta
from hashlib import sha256
from typing import Any

import pytest
from django.utils import timezone

from accounts.models import Membership, Role, User, Workspace
from accounts.permissions import OPEN, PERMISSIONS, PERSONAL
from calibrations.models import Calibration, CalibrationEntry, CertificateLink, Device
from config.api import api
from documents.models import Link
from exchange.models import Import
from gauges.models import Gauge
from live.models import BenchStandIn, BenchWatch, StandIn, Watch
from practice.selectors import stored_practice
from recordings.models import Recording
from sites.models import Site
from sites.services import create_system
from tests.core.bench.made import dual
from tests.core.systems import file
from visits.models import Photo, Visit
from zerodip.fileformat.document import read_document

from .conftest import World

OPERATIONS = {
    (method.upper(), path): operation
    for path, item in api.get_openapi_schema(path_prefix="/api/")["paths"].items()
    for method, operation in item.items()
}
WHO = ("owner", "technician", "viewer", "outsider", "anonymous")
Row = tuple[Callable[[World], str], Callable[[World], Any], tuple[int, int, int, int, int]]


VISIT, PHOTO, LINK, IMPORT, RECORDING, GAUGE, WATCH = (uuid.uuid4() for _ in range(7))
DEVICE, CALIBRATION = (uuid.uuid4() for _ in range(2))
WIRE = {"host": "192.0.2.1", "raw_high": 10000, "at_high": 10}


def _visit(world: World) -> uuid.UUID:
    """A visit on our system, made when it is first asked for."""
    return Visit.objects.get_or_create(pk=VISIT, defaults={"system": world.system})[0].pk


def _photo(world: World) -> uuid.UUID:
    made = {
        "visit_id": _visit(world),
        "plate": "other",
        "kind": "image/png",
        "data": b"",
        "sent": sha256(b"").hexdigest(),
    }
    return Photo.objects.get_or_create(pk=PHOTO, defaults=made)[0].pk


def _link(world: World) -> uuid.UUID:
    ends = {
        "visit_id": _visit(world),
        "units": "us",
        "expires_at": timezone.now() + timedelta(days=1),
    }
    return Link.objects.get_or_create(pk=LINK, defaults=ends)[0].pk


def _import(world: World) -> uuid.UUID:
    return Import.objects.get_or_create(
        pk=IMPORT, defaults={"workspace": world.workspace, "state": "ready"}
    )[0].pk


def _recording(world: World) -> uuid.UUID:
    """One that was read, with nothing in it."""
    return Recording.objects.get_or_create(
        pk=RECORDING, defaults={"system": world.system, "name": "week", "size": 3, "state": "here"}
    )[0].pk


def _gauge(world: World) -> uuid.UUID:
    """One on the wire."""
    data = {"name": "Wired", "scale_gauge_pa": 1e6}
    made = {"workspace": world.workspace, "data": data, "wire": WIRE}
    return Gauge.objects.get_or_create(pk=GAUGE, defaults=made)[0].pk


def _watch(world: World) -> uuid.UUID:
    ends = {"visit_id": _visit(world), "gauge_id": _gauge(world), "from_s": 0, "until_s": 1}
    return Watch.objects.get_or_create(pk=WATCH, defaults=ends)[0].pk


def _stand_in(world: World) -> uuid.UUID:
    return StandIn.objects.get_or_create(pk=world.system.pk, defaults={"unit": 1})[0].pk


def _device(world: World) -> uuid.UUID:
    """A set-point switch at our site."""
    made = {"site": world.site, "data": dual()["device"]}
    return Device.objects.get_or_create(pk=DEVICE, defaults=made)[0].pk


def _calibration(world: World) -> uuid.UUID:
    """One that was read as left."""
    raw = dual()
    kept = {"switch": raw["device"], "reference": raw["reference"], "on": raw["on"]}
    kept["gauge_id"] = _gauge(world)
    found, new = Calibration.objects.get_or_create(
        pk=CALIBRATION, defaults={"device_id": _device(world), **kept}
    )
    for run in raw["found"] if new else ():
        for which in ("set", "reset"):
            value = {"kind": "read", "point": run["point"], "which": which}
            value["gauge_pa"] = run[f"{which}_gauge_pa"]
            CalibrationEntry.objects.create(id=uuid.uuid4(), calibration=found, value=value)
    return found.pk


def _looked_on(world: World) -> uuid.UUID:
    """One whose reference is read off the wire."""
    made = {"gauge_id": _gauge(world), "until_s": timezone.now().timestamp() + 60}
    return BenchWatch.objects.get_or_create(pk=_calibration(world), defaults=made)[0].pk


def _bench_stand_in(world: World) -> uuid.UUID:
    return BenchStandIn.objects.get_or_create(pk=_device(world), defaults={"unit": 201})[0].pk


def _certificate_link(world: World) -> uuid.UUID:
    ends = timezone.now() + timedelta(days=1)
    made = {"calibration_id": _calibration(world), "units": "us", "expires_at": ends}
    return CertificateLink.objects.get_or_create(pk=LINK, defaults=made)[0].pk


def _of_a_signed_one(world: World) -> str:
    """Where a link to a certificate is made: only what is signed is shared."""
    made = _calibration(world)
    Calibration.objects.filter(pk=made).update(closed_at=timezone.now(), signed_by="A. Technician")
    return f"/api/calibrations/{made}/links/{uuid.uuid4()}"


def _begins(world: World) -> dict[str, Any]:
    day = timezone.now().date().isoformat()
    return {"on": day, "reference": {**dual()["reference"], "due": "2999-01-01"}}


def _member(world: World) -> int:
    """Somebody else of our workspace."""
    user, new = User.objects.get_or_create(username="third of ours")
    if new:
        Membership.objects.create(user=user, workspace=world.workspace, role=Role.TECHNICIAN)
    return user.pk


def _path(name: str) -> Callable[[World], str]:
    return lambda w: name.format(
        system=w.system.pk,
        site=w.site.pk,
        workspace=w.workspace.pk,
        new=uuid.uuid4(),
        visit=_visit(w),
        photo=_photo(w),
        link=_link(w),
        member=_member(w),
        import_=_import(w),
        recording=_recording(w),
        watch=_watch(w),
        stand_in=_stand_in(w),
        device=_device(w),
        calibration=_calibration(w),
        certificate_link=_certificate_link(w),
        looked_on=_looked_on(w),
        bench_stand_in=_bench_stand_in(w),
    )


def _save(world: World) -> dict[str, Any]:
    world.system.refresh_from_db()
    return {"version": world.system.version, "document": file()}


def _practice(world: World) -> dict[str, Any]:
    return {"version": stored_practice(world.workspace.pk).version, "practice": {}}


def _row(path: str, *statuses: int) -> Row:
    """For an operation that is sent no body."""
    owner, technician, viewer, outsider, anonymous = statuses
    return _path(path), lambda w: None, (owner, technician, viewer, outsider, anonymous)


# operation: address, body, status for owner, technician, viewer, outsider, anonymous
ROWS: dict[tuple[str, str], Row] = {
    ("POST", "/api/workspaces/{workspace_id}/wires/look"): (
        _path("/api/workspaces/{workspace}/wires/look"),
        lambda w: {"wire": WIRE},
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/visits/{visit_id}/watches"): _row(
        "/api/visits/{visit}/watches", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/visits/{visit_id}/watches/{watch_id}"): (
        _path("/api/visits/{visit}/watches/{new}"),
        lambda w: {"gauge": str(_gauge(w))},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/watches/{watch_id}/ended"): _row(
        "/api/watches/{watch}/ended", 200, 200, 403, 404, 401
    ),
    ("PUT", "/api/watches/{watch_id}/taken/{entry_id}"): (
        _path("/api/watches/{watch}/taken/{new}"),
        lambda w: {"slot": "lap", "value": {"run_s": 60.0, "rest_s": None}},
        (200, 200, 403, 404, 401),
    ),
    **{
        ("GET", f"/api/watches/{{watch_id}}{what}"): _row(
            f"/api/watches/{{watch}}{what}", 200, 200, 200, 404, 401
        )
        for what in ("", "/line", "/stream")
    },
    ("GET", "/api/stand-ins"): _row("/api/stand-ins", 200, 200, 200, 200, 401),
    ("PUT", "/api/stand-ins/{system_id}"): (
        _path("/api/stand-ins/{stand_in}"),
        lambda w: {"hands": {"tap": 0.5}},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/calibrations/{calibration_id}/watch"): _row(
        "/api/calibrations/{calibration}/watch", 200, 200, 403, 404, 401
    ),
    ("DELETE", "/api/calibrations/{calibration_id}/watch"): _row(
        "/api/calibrations/{calibration}/watch", 204, 204, 403, 404, 401
    ),
    ("GET", "/api/calibrations/{calibration_id}/stream"): _row(
        "/api/calibrations/{looked_on}/stream", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/calibrations/{calibration_id}/changes/{calibration_entry_id}"): (
        _path("/api/calibrations/{calibration}/changes/{new}"),
        lambda w: {"at_s": 1, "gauge_pa": 7e5, "rate_pa_s": 9, "delay_s": 0.1, "closed": True},
        (422, 422, 403, 404, 401),  # no reading is asked for: preparations first
    ),
    ("GET", "/api/bench-stand-ins"): _row("/api/bench-stand-ins", 200, 200, 200, 200, 401),
    ("PUT", "/api/bench-stand-ins/{device_id}"): (
        _path("/api/bench-stand-ins/{bench_stand_in}"),
        lambda w: {"hands": {"pump": "up"}},
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/systems/{system_id}/recordings"): _row(
        "/api/systems/{system}/recordings", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/systems/{system_id}/recordings/{recording_id}"): (
        _path("/api/systems/{system}/recordings/{new}"),
        lambda w: {"name": "week.csv", "size": 900},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/recordings/{recording_id}/parts/{number}"): _row(
        "/api/recordings/{recording}/parts/0", 422, 422, 403, 404, 401
    ),
    ("GET", "/api/recordings/{recording_id}/guess"): _row(
        "/api/recordings/{recording}/guess", 422, 422, 403, 404, 401
    ),
    ("POST", "/api/recordings/{recording_id}/read"): (
        _path("/api/recordings/{recording}/read"),
        lambda w: {"layout": {}},
        (422, 422, 403, 404, 401),
    ),
    ("GET", "/api/recordings/{recording_id}"): _row(
        "/api/recordings/{recording}", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/recordings/{recording_id}/readings/{visit_id}"): _row(
        "/api/recordings/{recording}/readings/{visit}", 200, 200, 403, 404, 401
    ),
    ("DELETE", "/api/recordings/{recording_id}"): _row(
        "/api/recordings/{recording}", 204, 204, 403, 404, 401
    ),
    **{
        ("GET", f"/api/recordings/{{recording_id}}/{what}"): _row(
            f"/api/recordings/{{recording}}/{what}?from_s=0&until_s=9&start_s=0",
            200,
            200,
            200,
            404,
            401,
        )
        for what in ("line", "cycles", "predicted", "samples.csv", "samples.parquet")
    },
    ("GET", "/api/session"): _row("/api/session", 200, 200, 200, 200, 200),
    ("POST", "/api/session"): (
        _path("/api/session"),
        lambda w: {"username": "nobody", "password": "wrong"},
        (401, 401, 401, 401, 401),
    ),
    ("POST", "/api/session/demo"): _row("/api/session/demo", 404, 404, 404, 404, 404),
    ("POST", "/api/session/code"): (
        _path("/api/session/code"),
        lambda w: {"code": "123456"},
        (401, 401, 401, 401, 401),
    ),
    ("GET", "/api/account"): _row("/api/account", 200, 200, 200, 200, 401),
    ("POST", "/api/account/second-factor"): (
        _path("/api/account/second-factor"),
        lambda w: {"password": "wrong"},
        (403, 403, 403, 403, 401),
    ),
    ("PUT", "/api/account/second-factor"): (
        _path("/api/account/second-factor"),
        lambda w: {"code": "123456"},
        (409, 409, 409, 409, 401),
    ),
    ("POST", "/api/account/second-factor/end"): (
        _path("/api/account/second-factor/end"),
        lambda w: {"password": "wrong"},
        (403, 403, 403, 403, 401),
    ),
    ("DELETE", "/api/account/sessions"): _row("/api/account/sessions", 204, 204, 204, 204, 401),
    ("DELETE", "/api/account/sessions/{session_id}"): _row(
        "/api/account/sessions/none", 204, 204, 204, 204, 401
    ),
    ("PUT", "/api/workspaces/{workspace_id}/second-factor"): (
        _path("/api/workspaces/{workspace}/second-factor"),
        lambda w: {"required": False},
        (204, 403, 403, 404, 401),
    ),
    ("DELETE", "/api/workspaces/{workspace_id}/members/{user_id}/second-factor"): _row(
        "/api/workspaces/{workspace}/members/{member}/second-factor", 204, 403, 403, 404, 401
    ),
    ("DELETE", "/api/session"): _row("/api/session", 204, 204, 204, 204, 401),
    ("GET", "/api/device"): _row("/api/device", 200, 200, 200, 200, 401),
    ("POST", "/api/device/systems"): (
        _path("/api/device/systems"),
        lambda w: {"ids": [str(w.system.pk)]},
        (200, 200, 200, 200, 401),
    ),
    ("POST", "/api/device/writes"): (
        _path("/api/device/writes"),
        lambda w: {"writes": [], "sent": "2026-01-01T00:00:00Z"},
        (200, 200, 200, 200, 401),
    ),
    ("GET", "/api/visits/{visit_id}/report"): _row(
        "/api/visits/{visit}/report", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/rounds"): _row("/api/rounds", 200, 200, 200, 200, 401),
    ("GET", "/api/systems/{system_id}"): _row("/api/systems/{system}", 200, 200, 200, 404, 401),
    ("PUT", "/api/systems/{system_id}"): (
        _path("/api/systems/{system}"),
        _save,
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/systems/{system_id}/file"): _row(
        "/api/systems/{system}/file", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/systems/{system_id}/decisions/{decision_id}"): (
        _path("/api/systems/{system}/decisions/{new}"),
        _save,
        (200, 200, 403, 404, 401),
    ),
    ("PATCH", "/api/sites/{site_id}"): (
        _path("/api/sites/{site}"),
        lambda w: {"units": "kpa"},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/workspaces/{workspace_id}/sites/{site_id}"): (
        _path("/api/workspaces/{workspace}/sites/{new}"),
        lambda w: {"name": f"Another {uuid.uuid4()}"},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/sites/{site_id}/systems/{system_id}"): (
        _path("/api/sites/{site}/systems/{new}"),
        lambda w: {"name": f"Another {uuid.uuid4()}", "kind": "cistern"},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/sites/{site_id}/retired"): (
        _path("/api/sites/{site}/retired"),
        lambda w: {"retired": True},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/systems/{system_id}/retired"): (
        _path("/api/systems/{system}/retired"),
        lambda w: {"retired": True},
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/systems/{system_id}/visits"): _row(
        "/api/systems/{system}/visits", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/systems/{system_id}/visits/{visit_id}"): _row(
        "/api/systems/{system}/visits/{new}", 200, 200, 403, 404, 401
    ),
    ("GET", "/api/systems/{system_id}/timeline"): _row(
        "/api/systems/{system}/timeline", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/systems/{system_id}/trends"): _row(
        "/api/systems/{system}/trends", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/next-checks"): _row("/api/next-checks", 200, 200, 200, 200, 401),
    ("GET", "/api/visits"): _row("/api/visits", 200, 200, 200, 200, 401),
    ("GET", "/api/visits/{visit_id}"): _row("/api/visits/{visit}", 200, 200, 200, 404, 401),
    ("PUT", "/api/visits/{visit_id}/closed"): _row(
        "/api/visits/{visit}/closed", 200, 200, 403, 404, 401
    ),
    ("PUT", "/api/visits/{visit_id}/entries/{entry_id}"): (
        _path("/api/visits/{visit}/entries/{new}"),
        lambda w: {"slot": "safe.power_off", "value": True},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/visits/{visit_id}/photos/{photo_id}"): _row(
        "/api/visits/{visit}/photos/{photo}", 200, 200, 403, 404, 401
    ),
    ("GET", "/api/visits/{visit_id}/photos/{photo_id}"): _row(
        "/api/visits/{visit}/photos/{photo}", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/visits/{visit_id}/report.pdf"): _row(
        "/api/visits/{visit}/report.pdf", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/labels.pdf"): _row("/api/labels.pdf?system={system}", 200, 200, 200, 404, 401),
    ("GET", "/api/visits/{visit_id}/links"): _row(
        "/api/visits/{visit}/links", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/visits/{visit_id}/links/{link_id}"): (
        _path("/api/visits/{visit}/links/{new}"),
        lambda w: {"days": 7},
        (200, 200, 403, 404, 401),
    ),
    ("DELETE", "/api/visits/{visit_id}/links/{link_id}"): _row(
        "/api/visits/{visit}/links/{link}", 200, 200, 403, 404, 401
    ),
    ("GET", "/api/gauges"): _row("/api/gauges", 200, 200, 200, 200, 401),
    ("PUT", "/api/workspaces/{workspace_id}/gauges/{gauge_id}"): (
        _path("/api/workspaces/{workspace}/gauges/{new}"),
        lambda w: {"gauge": {"name": "No. 3", "scale_gauge_pa": 7e5}},
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/visits/{visit_id}/trends"): _row(
        "/api/visits/{visit}/trends", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/visits/{visit_id}/gauges"): _row(
        "/api/visits/{visit}/gauges", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/workspaces"): _row("/api/workspaces", 200, 200, 200, 200, 401),
    ("POST", "/api/workspaces/{workspace_id}/members"): (
        _path("/api/workspaces/{workspace}/members"),
        lambda w: {"username": f"new {uuid.uuid4()}"},
        (200, 403, 403, 404, 401),
    ),
    ("PUT", "/api/workspaces/{workspace_id}/members/{user_id}"): (
        _path("/api/workspaces/{workspace}/members/{member}"),
        lambda w: {"role": "viewer"},
        (204, 403, 403, 404, 401),
    ),
    ("POST", "/api/workspaces/{workspace_id}/members/{user_id}/password"): _row(
        "/api/workspaces/{workspace}/members/{member}/password", 200, 403, 403, 404, 401
    ),
    ("DELETE", "/api/workspaces/{workspace_id}/members/{user_id}"): _row(
        "/api/workspaces/{workspace}/members/{member}", 204, 403, 403, 404, 401
    ),
    ("PUT", "/api/password"): (
        _path("/api/password"),
        lambda w: {"old": "wrong", "new": "long enough to keep"},
        (422, 422, 422, 422, 401),
    ),
    ("GET", "/api/archive/{scope}/{id}.json"): _row(
        "/api/archive/workspaces/{workspace}.json", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/tables/{scope}/{id}.zip"): _row(
        "/api/tables/systems/{system}.zip", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/workspaces/{workspace_id}/imports/{import_id}"): (
        _path("/api/workspaces/{workspace}/imports/{new}"),
        lambda w: {"format": "zerodip-archive", "version": 1, "sites": []},
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/imports/{import_id}"): _row("/api/imports/{import_}", 200, 200, 403, 404, 401),
    ("POST", "/api/imports/{import_id}/step"): _row(
        "/api/imports/{import_}/step", 200, 200, 403, 404, 401
    ),
    ("GET", "/api/imports/{import_id}/pieces"): _row(
        "/api/imports/{import_}/pieces", 200, 200, 403, 404, 401
    ),
    ("PUT", "/api/imports/{import_id}/taken"): _row(
        "/api/imports/{import_}/taken", 200, 200, 403, 404, 401
    ),
    ("DELETE", "/api/imports/{import_id}"): _row("/api/imports/{import_}", 204, 204, 403, 404, 401),
    ("GET", "/api/due.ics"): _row("/api/due.ics", 200, 200, 200, 200, 401),
    ("GET", "/api/feed"): _row("/api/feed", 200, 200, 200, 200, 401),
    ("POST", "/api/feed"): _row("/api/feed", 200, 200, 200, 200, 401),
    ("DELETE", "/api/feed"): _row("/api/feed", 204, 204, 204, 204, 401),
    ("GET", "/api/practices"): _row("/api/practices", 200, 200, 200, 200, 401),
    ("PUT", "/api/practices/{workspace_id}"): (
        _path("/api/practices/{workspace}"),
        _practice,
        (200, 200, 403, 404, 401),
    ),
    ("POST", "/api/propose"): (
        _path("/api/propose"),
        lambda w: {"document": file()},
        (200, 200, 200, 200, 401),
    ),
    ("POST", "/api/compare"): (
        _path("/api/compare"),
        lambda w: {"document": file()},
        (200, 200, 200, 200, 401),
    ),
    ("POST", "/api/sizes"): (
        _path("/api/sizes"),
        lambda w: {"document": file()},
        (200, 200, 200, 200, 401),
    ),
    ("POST", "/api/trouble"): (
        _path("/api/trouble"),
        lambda w: {"kind": "cistern", "evidence": [{"item": "clicks", "value": True}]},
        (200, 200, 200, 200, 401),
    ),
    ("GET", "/api/workspaces/{workspace_id}/experience"): (
        _path("/api/workspaces/{workspace}/experience"),
        lambda w: None,
        (200, 200, 200, 404, 401),
    ),
    ("DELETE", "/api/workspaces/{workspace_id}/experience"): (
        _path("/api/workspaces/{workspace}/experience"),
        lambda w: None,
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/devices"): _row("/api/devices", 200, 200, 200, 200, 401),
    ("GET", "/api/devices/{device_id}"): _row("/api/devices/{device}", 200, 200, 200, 404, 401),
    ("PUT", "/api/sites/{site_id}/devices/{device_id}"): (
        _path("/api/sites/{site}/devices/{new}"),
        lambda w: {"device": dual()["device"]},
        (200, 200, 403, 404, 401),
    ),
    ("DELETE", "/api/devices/{device_id}"): _row("/api/devices/{device}", 204, 204, 403, 404, 401),
    ("GET", "/api/references"): _row("/api/references", 200, 200, 200, 200, 401),
    ("PUT", "/api/workspaces/{workspace_id}/references/{reference_id}"): (
        _path("/api/workspaces/{workspace}/references/{new}"),
        lambda w: {"reference": dual()["reference"]},
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/devices/{device_id}/label.pdf"): _row(
        "/api/devices/{device}/label.pdf", 404, 404, 404, 404, 401
    ),
    ("GET", "/api/devices/{device_id}/calibrations"): _row(
        "/api/devices/{device}/calibrations", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/devices/{device_id}/calibrations/{calibration_id}"): (
        _path("/api/devices/{device}/calibrations/{new}"),
        _begins,
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/calibrations/{calibration_id}"): _row(
        "/api/calibrations/{calibration}", 200, 200, 200, 404, 401
    ),
    ("GET", "/api/calibrations/{calibration_id}/certificate.pdf"): _row(
        "/api/calibrations/{calibration}/certificate.pdf", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/calibrations/{calibration_id}/entries/{calibration_entry_id}"): (
        _path("/api/calibrations/{calibration}/entries/{new}"),
        lambda w: {"value": {"kind": "confirmed", "what": "permit"}},
        (200, 200, 403, 404, 401),
    ),
    ("PUT", "/api/calibrations/{calibration_id}/closed"): (
        _path("/api/calibrations/{calibration}/closed"),
        lambda w: {"signed_by": "A. Technician"},
        (200, 200, 403, 404, 401),
    ),
    ("GET", "/api/calibrations/{calibration_id}/links"): _row(
        "/api/calibrations/{calibration}/links", 200, 200, 200, 404, 401
    ),
    ("PUT", "/api/calibrations/{calibration_id}/links/{certificate_link_id}"): (
        _of_a_signed_one,
        lambda w: {"days": 7},
        (200, 200, 403, 404, 401),
    ),
    ("DELETE", "/api/calibrations/{calibration_id}/links/{certificate_link_id}"): _row(
        "/api/calibrations/{calibration}/links/{certificate_link}", 200, 200, 403, 404, 401
    ),
    ("POST", "/api/decide"): (
        _path("/api/decide"),
        lambda w: {"document": file()},
        (200, 200, 200, 200, 401),
    ),
}


def test_every_operation_has_a_row_and_a_permission() -> None:
    assert set(ROWS) == set(OPERATIONS)
    named = {operation["x-permission"] for operation in OPERATIONS.values()}
    assert named == set(PERMISSIONS) | OPEN | PERSONAL


@pytest.mark.parametrize("operation", ROWS, ids=lambda o: f"{o[0]} {o[1]}")
def test_each_role_gets_what_its_row_says(operation: tuple[str, str], world: World) -> None:
    address, body, statuses = ROWS[operation]
    for who, status in zip(WHO, statuses, strict=True):
        response = world[who].send(operation[0], address(world), body(world))
        assert response.status_code == status, (who, response.content)
        if status >= 400:
            assert response["Content-Type"] == "application/problem+json"


def test_rounds_hold_nothing_of_another_workspace(world: World) -> None:
    assert [site["name"] for site in world["viewer"].get("/api/rounds").json()["sites"]] == [
        "North farm"
    ]
    assert world["outsider"].get("/api/rounds").json()["sites"] == []


def test_an_outsider_cannot_reach_a_decision_through_a_system_of_their_own(world: World) -> None:
    """The same id under another system is not found, and changes nothing."""
    made = uuid.uuid4()
    saved = world["owner"].send(
        "PUT", f"/api/systems/{world.system.pk}/decisions/{made}", _save(world)
    )
    assert saved.status_code == 200
    site = Site.objects.create(workspace=Workspace.objects.get(name="theirs"), name="South farm")
    theirs = create_system(site, read_document(file()))
    body = {"version": 1, "document": file()}
    response = world["outsider"].send("PUT", f"/api/systems/{theirs.pk}/decisions/{made}", body)
    assert response.status_code == 404
    theirs.refresh_from_db()
    assert theirs.version == 1
