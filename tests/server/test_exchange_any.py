"""An archive that was tampered with anywhere: it is refused by field or taken whole, and never
breaks the server."""

import copy
import json
import random
import uuid
from typing import Any

import pytest

from calibrations.demo import make_demo
from calibrations.models import Calibration, CalibrationEntry, Device
from sites.models import Site, System
from visits.models import Entry, Visit

from .conftest import World
from .test_exchange import exported, recorded

ODD: tuple[Any, ...] = (
    None,
    True,
    False,
    0,
    -1,
    1e308,
    10**30,
    "",
    "x" * 300,
    "=1+1",
    "é\n",
    [],
    {},
    [[]],
    {"id": None},
    "2026-11-25",
    "0001-01-01T00:00:00Z",
    "9999-12-31T23:59:59+00:00",
    str(uuid.UUID(int=1)),
    "us",
)


def places(raw: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place in the values of a file."""
    inner = (
        raw.items() if isinstance(raw, dict) else enumerate(raw) if isinstance(raw, list) else ()
    )
    return [path, *(place for name, value in inner for place in places(value, (*path, name)))]


def tampered(raw: Any, chance: random.Random) -> Any:
    """The values with one to three places changed, doubled or left out."""
    raw = copy.deepcopy(raw)
    for _ in range(chance.randint(1, 3)):
        *steps, last = chance.choice(places(raw)[1:])
        part = raw
        for step in steps:
            part = part[step]
        way = chance.choice(("odd", "odd", "out", "twice"))
        if way == "out":
            del part[last]
        elif way == "twice" and isinstance(part, list):
            part.append(copy.deepcopy(part[last]))
        else:
            part[last] = copy.deepcopy(chance.choice(ODD))
    return raw


def counted() -> tuple[int, ...]:
    return (
        Site.objects.count(),
        System.objects.count(),
        Visit.objects.count(),
        Entry.objects.count(),
        Device.objects.count(),
        CalibrationEntry.objects.count(),
    )


@pytest.mark.parametrize("seed", range(6))
def test_a_tampered_archive_is_refused_by_field_or_taken_whole(world: World, seed: int) -> None:
    recorded(world)
    make_demo(world.site)
    good = exported(world)
    chance = random.Random(seed)
    for _ in range(12):
        before, id = counted(), uuid.uuid4()
        begun = f"/api/workspaces/{world.workspace.pk}/imports/{id}"
        sent = world["owner"].generic(
            "PUT", begun, json.dumps(tampered(good, chance)), content_type="application/json"
        )
        assert sent.status_code in (200, 422), sent.content
        if sent.status_code == 422:
            assert sent.json()["faults"]
            continue
        told = sent.json()
        while told["state"] == "checking":
            told = world["owner"].send("POST", f"/api/imports/{id}/step").json()
        assert counted() == before
        rows = world["owner"].get(f"/api/imports/{id}/pieces?change=refused").json()
        assert all(row["faults"] and row["line"] > 0 for row in rows)
        assert len(rows) == told["counts"]["refused"]
        end = world["owner"].send("PUT", f"/api/imports/{id}/taken")
        assert end.status_code == (409 if rows else 200), end.content
        assert all(after >= once for after, once in zip(counted(), before, strict=True))
        assert world["viewer"].get("/api/rounds").status_code == 200
        for visit in Visit.objects.values_list("pk", flat=True):
            assert world["viewer"].get(f"/api/visits/{visit}").status_code == 200
            assert world["viewer"].get(f"/api/visits/{visit}/trends").status_code == 200
        assert world["viewer"].get("/api/devices").status_code == 200
        for made in Calibration.objects.values_list("pk", flat=True):
            assert world["viewer"].get(f"/api/calibrations/{made}").status_code == 200
