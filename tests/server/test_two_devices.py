"""Two phones without a signal in one visit: however their writes arrive, the record is the same."""

import random
import uuid
from collections import defaultdict
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.db import transaction

from visits.models import Entry
from zerodip.units import PSI
from zerodip.visit.validation import known_slots

from .conftest import World
from .test_device import Device, put

Arrived = list[tuple[Device, dict[str, Any]]]


def a_value(slot: str, rng: random.Random) -> Any:
    """Something that may be recorded in a slot."""
    if slot == "lap":
        return {"run_s": rng.randint(20, 90), "rest_s": None}
    if slot == "note":
        return {"text": f"remark {rng.random():.6f}"}
    if slot == "place":
        return rng.choice(("watch", "safe", "read", "set"))
    if slot == "signed":
        return rng.choice(("Ash", "Birch"))
    return rng.random() < 0.7 if slot.startswith("safe.") else rng.randint(20, 60) * PSI


SLOTS = (
    "lap",
    "note",
    "place",
    "signed",
    "safe.hose",
    "safe.power_off",
    "found.cut_in",
    "air.left",
)


def offline_work(device: Device, visit: str, rng: random.Random, begin: datetime) -> None:
    """What one person records alone, seconds apart; sometimes put right again."""
    at = begin
    last: dict[str, str] = {}
    for _ in range(rng.randint(2, 7)):
        at += timedelta(seconds=rng.uniform(1, 40))
        slot, id = rng.choice(SLOTS), str(uuid.uuid4())
        corrects = None if known_slots()[slot].series else last.get(slot)
        body = put(slot, a_value(slot, rng), corrects)
        told = (at + device.clock).isoformat()
        write = {"id": id, "at": told, "by": device.by, "method": "PUT", "body": body}
        device.writes.append({**write, "path": f"/api/visits/{visit}/entries/{id}"})
        last[slot] = id


def arrivals(devices: list[Device], rng: random.Random) -> Arrived:
    """One order in which all of it may arrive: each phone's in its own order, some of it twice."""
    left = [(device, list(device.writes)) for device in devices]
    found: Arrived = []
    while any(writes for _, writes in left):
        device, writes = rng.choice([each for each in left if each[1]])
        found.append((device, writes.pop(0)))
        if rng.random() < 0.2:
            found.append(found[-1])
    return found


def record_after(arrived: Arrived, visit: str) -> dict[str, Any]:
    """What stands on record: series and last words in their order; of a slot with one value, all
    values that were given, in force or held as a clash."""
    clashed: dict[str, set[str]] = defaultdict(set)
    for device, write in arrived:
        answer = device.send(write)
        assert answer.status_code in (200, 409), answer.content
        if answer.status_code == 409:
            clashed[write["body"]["slot"]].add(repr(write["body"]["value"]))
    kept: dict[str, list[str]] = defaultdict(list)
    for slot, value in Entry.objects.filter(visit=visit).values_list("slot", "value"):
        kept[slot].append(repr(value))
    told: dict[str, Any] = {}
    for slot in {*kept, *clashed}:
        of = known_slots()[slot]
        told[slot] = kept[slot] if of.series or of.last_word else {*kept[slot], *clashed[slot]}
    return told


@pytest.mark.parametrize("seed", range(5))
def test_any_order_of_arrival_ends_in_the_same_record(world: World, seed: int) -> None:
    rng = random.Random(seed)
    visit = str(uuid.uuid4())
    opened = f"/api/systems/{world.system.pk}/visits/{visit}"
    assert world["owner"].send("PUT", opened).status_code == 200
    devices = [Device(world[who]) for who in ("owner", "technician")]
    begin = datetime.now(UTC) - timedelta(minutes=30)
    for device in devices:
        device.clock = timedelta(hours=rng.choice((0, 0, -30, 200)))
        offline_work(device, visit, rng, begin + timedelta(seconds=rng.uniform(0, 20)))
    records = []
    for _ in range(5):
        with transaction.atomic():
            records.append(record_after(arrivals(devices, rng), visit))
            transaction.set_rollback(True)
    assert all(each == records[0] for each in records[1:])
    ids = [write["id"] for device in devices for write in device.writes]
    assert len(set(ids)) == len(ids)
