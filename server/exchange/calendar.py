"""What is due, as a calendar that any program reads (RFC 5545)."""

from datetime import date, datetime, timedelta
from uuid import UUID

from icalendar import Calendar, Event

from accounts.permissions import Actor
from calibrations.models import Device
from calibrations.selectors import calibrated_for_actor
from sites.selectors import systems_for_actor
from visits.models import NextCheck

__all__ = ["calendar"]

_WHY = {"failed": "Left out of tolerance: due at once.", "drift": "Due by its drift."}


def calendar(actor: Actor, origin: str) -> bytes:
    """The next check of every system and the next calibration of every switch that the actor may
    see, one whole day each; what is retired is left out."""
    made = Calendar()
    made.add("prodid", "-//Zero Dip//due//EN")
    made.add("version", "2.0")
    made.add("method", "PUBLISH")
    made.add("name", "Zero Dip: due")
    made.add("x-wr-calname", "Zero Dip: due")
    made.add("refresh-interval", timedelta(hours=12), parameters={"value": "DURATION"})
    seen = systems_for_actor(actor).filter(retired_at=None).values("pk")
    due = NextCheck.objects.filter(system__in=seen, due_at__isnull=False).select_related(
        "system__site"
    )
    for check in due.order_by("due_at", "system__name"):
        made.add_component(_check(check, origin))
    for device, due_on, last_at in calibrated_for_actor(actor):
        made.add_component(_calibration(device, due_on, last_at, origin))
    return bytes(made.to_ical())


def _check(check: NextCheck, origin: str) -> Event:
    system, site = check.system, check.system.site
    event = _all_day(system.pk, check.due_at.date(), check.last_at)  # type: ignore[union-attr]
    event.add("summary", f"Check {system.name}")
    event.add("location", site.name)
    lines = [f"Last visit {check.last_at:%Y-%m-%d}.", *check.drifting.get(site.units, [])]
    event.add("description", "\n".join(lines))
    event.add("url", f"{origin}/systems/{system.pk}")
    return event


def _calibration(device: Device, due_on: date, last_at: datetime, origin: str) -> Event:
    event = _all_day(device.pk, due_on, last_at)
    event.add("summary", f"Calibrate {device}")
    places = (device.site.name, device.data.get("location"))
    event.add("location", ", ".join(place for place in places if place))
    lines = [f"Last calibrated {last_at:%Y-%m-%d}.", _WHY.get(device.due_by, "")]
    event.add("description", "\n".join(line for line in lines if line))
    event.add("url", f"{origin}/switches/{device.pk}")
    return event


def _all_day(id: UUID, day: date, stamp: datetime) -> Event:
    event = Event()
    event.add("uid", f"{id}@zerodip")
    event.add("dtstamp", stamp)
    event.add("dtstart", day)
    event.add("dtend", day + timedelta(days=1))
    event.add("transp", "TRANSPARENT")
    return event
