"""What is due, as a calendar that any program reads (RFC 5545)."""

from datetime import timedelta

from icalendar import Calendar, Event

from accounts.permissions import Actor
from sites.selectors import systems_for_actor
from visits.models import NextCheck

__all__ = ["calendar"]


def calendar(actor: Actor, origin: str) -> bytes:
    """The next check of every system that the actor may see, one whole day each; what is retired is
    left out."""
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
        made.add_component(_event(check, origin))
    return bytes(made.to_ical())


def _event(check: NextCheck, origin: str) -> Event:
    system, site = check.system, check.system.site
    day = check.due_at.date()  # type: ignore[union-attr]
    event = Event()
    event.add("uid", f"{system.pk}@zerodip")
    event.add("dtstamp", check.last_at)
    event.add("dtstart", day)
    event.add("dtend", day + timedelta(days=1))
    event.add("summary", f"Check {system.name}")
    event.add("location", site.name)
    lines = [f"Last visit {check.last_at:%Y-%m-%d}.", *check.drifting.get(site.units, [])]
    event.add("description", "\n".join(lines))
    event.add("url", f"{origin}/systems/{system.pk}")
    event.add("transp", "TRANSPARENT")
    return event
