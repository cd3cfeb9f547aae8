"""Every operation of the API's own description, for every role, with every mixture of ids that are
ours, another workspace's, or nobody's: whatever is not all ours is refused and changes nothing."""

import itertools
import json
import re
import uuid
from hashlib import sha256
from typing import Any

import pytest
from django.apps import apps
from django.utils import timezone

from accounts.models import Membership, Role, User, Workspace
from calibrations.models import (
    Calibration,
    CalibrationEntry,
    CertificateLink,
    Device,
    Reference,
)
from documents.models import Link
from exchange.models import Import
from gauges.models import Gauge
from live.models import BenchStandIn, BenchWatch, StandIn, Watch
from recordings.models import Recording
from sites.models import Decision, Site, System
from sites.services import create_system
from tests.core.bench.made import dual
from tests.core.systems import file
from visits.models import Entry, Photo, Visit
from zerodip.fileformat.document import read_document

from .conftest import World
from .test_permissions import OPERATIONS, ROWS
from .test_visits import PNG

MARK = "Secret of theirs"
ROLES = ("owner", "technician", "viewer", "anonymous")
# What each id in an address names; those of things that are made under it name nothing yet.
IDS = re.compile(r"{(\w+)}")
OWN = ("session_id",)


def everything(workspace: Workspace, site: Site, system: System, name: str) -> dict[str, Any]:
    """One of each, by the name that addresses give its id."""
    user = User.objects.create(username=f"{name} one", first_name=name)
    Membership.objects.create(user=user, workspace=workspace, role=Role.TECHNICIAN)
    visit = Visit.objects.create(pk=uuid.uuid4(), system=system)
    ends = timezone.now() + timezone.timedelta(days=1)
    gauge = Gauge.objects.create(pk=uuid.uuid4(), workspace=workspace, data={"name": name})
    device = Device.objects.create(
        pk=uuid.uuid4(), site=site, data={**dual()["device"], "name": name}
    )
    raw = {"switch": device.data, "reference": dual()["reference"], "on": dual()["on"]}
    calibration = Calibration.objects.create(pk=uuid.uuid4(), device=device, **raw)
    StandIn.objects.create(system=system, unit=StandIn.objects.count() + 1)
    BenchStandIn.objects.create(device=device, unit=200 + BenchStandIn.objects.count())
    BenchWatch.objects.create(calibration=calibration, gauge=gauge, until_s=ends.timestamp())
    return {
        "workspace_id": workspace.pk,
        "site_id": site.pk,
        "system_id": system.pk,
        "user_id": user.pk,
        "visit_id": visit.pk,
        "decision_id": Decision.objects.create(
            pk=uuid.uuid4(), system=system, document=file(), figures={}, verdict="pass"
        ).pk,
        "entry_id": Entry.objects.create(
            id=uuid.uuid4(), visit=visit, slot="note", value={"text": name}
        ).id,
        "photo_id": Photo.objects.create(
            pk=uuid.uuid4(), visit=visit, plate="", kind="image/png", data=PNG
        ).pk,
        "link_id": Link.objects.create(visit=visit, units="us", expires_at=ends).pk,
        "gauge_id": gauge.pk,
        "watch_id": Watch.objects.create(
            pk=uuid.uuid4(), visit=visit, gauge=gauge, from_s=0, until_s=1
        ).pk,
        "recording_id": Recording.objects.create(
            pk=uuid.uuid4(), system=system, name=name, size=3, state="here"
        ).pk,
        "device_id": device.pk,
        "calibration_id": calibration.pk,
        "calibration_entry_id": CalibrationEntry.objects.create(
            id=uuid.uuid4(),
            calibration=calibration,
            value={"kind": "voided", "why": name},
        ).id,
        "certificate_link_id": CertificateLink.objects.create(
            calibration=calibration, units="us", expires_at=ends
        ).pk,
        "reference_id": Reference.objects.create(
            pk=uuid.uuid4(), workspace=workspace, data={**raw["reference"], "name": name}
        ).pk,
        "import_id": Import.objects.create(pk=uuid.uuid4(), workspace=workspace, name=name).pk,
    }


def unknown(of: dict[str, Any]) -> dict[str, Any]:
    """Ids that nobody has."""
    return {name: 10**9 if name == "user_id" else uuid.uuid4() for name in of}


def stored() -> str:
    """All that is on record, but who signed in."""
    models = [m for m in apps.get_models() if m._meta.app_label not in ("sessions", "audit")]
    rows = [
        list(model.objects.order_by("pk").values())
        for model in models
        if model._meta.label not in ("accounts.Session", "accounts.Attempt")
    ]
    return sha256(json.dumps(rows, default=str).encode()).hexdigest()


@pytest.mark.parametrize("scope", ["workspaces", "sites", "systems"])
def test_what_is_not_all_ours_is_refused_and_changes_nothing(world: World, scope: str) -> None:
    other = Workspace.objects.get(name="theirs")
    site = Site.objects.create(workspace=other, name=MARK)
    ours = everything(world.workspace, world.site, world.system, "Ours")
    theirs = everything(other, site, create_system(site, read_document(file())), MARK)
    nobody_s = unknown(ours)
    for each in (ours, theirs, nobody_s):
        each["id"] = each[f"{scope[:-1]}_id"]
    for _, body_of, _ in ROWS.values():
        body_of(world)  # some make what they name when it is first asked for
    before, asked = stored(), 0
    for method, path in OPERATIONS:
        names = [name for name in IDS.findall(path) if name not in (*OWN, "scope", "number")]
        if ("{scope}" in path) != (scope != "systems") and "{scope}" not in path:
            continue  # once is enough
        for mixture in itertools.product((ours, theirs, nobody_s), repeat=len(names)):
            if not names or all(each is ours for each in mixture):
                continue
            made = mixture[-1] is nobody_s and all(each is ours for each in mixture[:-1])
            if made and method == "PUT" and len(names) > 1:
                continue  # that is how something new is made
            values = dict(zip(names, mixture, strict=True))
            address = path.replace("{scope}", scope).replace("{number}", "0")
            address = IDS.sub(lambda m, v=values: str(v[m[1]][m[1]]), address)
            for role in ROLES:
                body = ROWS[method, path][1](world)
                answer = world[role].send(method, address, body)
                asked += 1
                assert answer.status_code in (401, 403, 404, 409, 422), (role, method, address)
                assert MARK not in answer.content.decode(), (role, method, address)
                if role == "owner":
                    assert answer.status_code != 403, (method, address)
    assert stored() == before
    assert asked > (600 if scope == "systems" else 15)
    for query in ("system", "site"):
        labels = f"/api/labels.pdf?{query}={theirs[f'{query}_id']}"
        assert world["owner"].get(labels).status_code == 404
