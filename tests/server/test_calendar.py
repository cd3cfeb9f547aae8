"""The calendar of what is due, read by a parser that shares no code with its maker."""

from typing import Any

import vobject

from accounts.models import Membership
from calibrations.demo import make_demo
from calibrations.models import Device
from sites.models import System
from visits.models import NextCheck

from .conftest import World
from .test_visits import _past


def events(data: bytes) -> list[Any]:
    return list(vobject.readOne(data.decode()).contents.get("vevent", []))


def test_another_parser_reads_when_each_system_is_due(world: World) -> None:
    _past(world, 731, 36.5, 38)
    _past(world, 365, 30, 38)
    name = "Well; deep, \\ and\nold 💧 " + "x" * 40
    System.objects.update(name=name)
    data = world["viewer"].get("/api/due.ics")
    assert data["Content-Type"].startswith("text/calendar")
    (event,) = events(data.content)
    due = NextCheck.objects.get().due_at
    assert due is not None
    assert event.dtstart.value == due.date()
    assert event.summary.value == f"Check {name}"
    assert event.location.value == "North farm"
    assert "of air a year" in event.description.value
    assert event.uid.value == f"{world.system.pk}@zerodip"
    assert event.url.value.endswith(f"/systems/{world.system.pk}")
    assert all(len(line) <= 75 for line in data.content.split(b"\r\n"))
    assert events(world["outsider"].get("/api/due.ics").content) == []
    world["owner"].send("PUT", f"/api/systems/{world.system.pk}/retired", {"retired": True})
    assert events(world["viewer"].get("/api/due.ics").content) == []


def test_a_feed_needs_no_sign_in_shows_what_its_person_sees_and_dies_with_the_next(
    world: World,
) -> None:
    _past(world, 365, 36.5, 38)
    assert world["viewer"].get("/api/feed").json() == {"address": ""}
    first = world["viewer"].send("POST", "/api/feed").json()["address"].split("testserver")[1]
    assert len(events(world["anonymous"].get(first).content)) == 1
    second = world["viewer"].send("POST", "/api/feed").json()["address"].split("testserver")[1]
    assert world["anonymous"].get(first).status_code == 404
    link_instead = second.replace("/due/", "/").removesuffix(".ics")
    assert world["anonymous"].get(link_instead).status_code == 404
    Membership.objects.filter(user__feed__isnull=False).delete()
    assert events(world["anonymous"].get(second).content) == []
    world["viewer"].send("DELETE", "/api/feed")
    assert world["anonymous"].get(second).status_code == 404


def test_a_switch_stands_in_it_on_the_day_it_is_due_and_says_why(world: World) -> None:
    make_demo(world.site)
    switch = Device.objects.exclude(due_on=None).get()
    (event,) = events(world["viewer"].get("/api/due.ics").content)
    assert event.dtstart.value == switch.due_on
    assert event.summary.value == "Calibrate Humidifier steam trip"
    assert event.location.value == "North farm, boiler room, wall panel"
    assert "Due by its drift." in event.description.value
    assert event.url.value.endswith(f"/switches/{switch.pk}")
    assert events(world["outsider"].get("/api/due.ics").content) == []
    Device.objects.filter(pk=switch.pk).update(due_by="failed")
    (event,) = events(world["viewer"].get("/api/due.ics").content)
    assert "Left out of tolerance" in event.description.value
    world["owner"].send("DELETE", f"/api/devices/{switch.pk}")
    assert events(world["viewer"].get("/api/due.ics").content) == []
