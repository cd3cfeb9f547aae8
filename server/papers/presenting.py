"""What the papers' templates are filled with, and links as the API shows them."""

from datetime import UTC, datetime
from typing import Any
from urllib.parse import quote

import segno
from django.utils import timezone
from visits.models import Visit
from visits.outlook import trends_at
from visits.selectors import document_of, records_of, slopes_before

from people.models import shown
from plants.models import System
from zerodip.document import read_document
from zerodip.papers.label import label_of
from zerodip.papers.report import Report, report
from zerodip.rules import ORDER, Verdict

from .drawing import drawn
from .models import Feed, Link
from .signing import signed
from .window import drawn_window

__all__ = ["feed_out", "label_context", "link_out", "report_context"]

MARKS = {"stop": "■", "caution": "▲", "pass": "●"}


def report_context(visit: Visit, units: str) -> dict[str, Any]:
    """A visit's report with who, where and when. Raises InvalidInput for a file that can no longer be read."""
    records = records_of(visit)
    closed = visit.closed_at.isoformat() if visit.closed_at else None
    told = report(document_of(visit), records, units, closed, slopes_before(visit))
    due_s = trends_at(visit, records, units).due_s
    return {
        "site": visit.system.site.name,
        "system": visit.system.name,
        "day": visit.opened_at,
        "closed": visit.closed_at,
        "by": shown(visit.opened_by, visit.by),
        "due": None if due_s is None else datetime.fromtimestamp(due_s, UTC),
        "report": told,
        "verdict": _verdict(told),
        "remaining": [(MARKS.get(each.verdict, ""), each) for each in told.remaining],
        "corrections": [(datetime.fromisoformat(each.at), each) for each in told.corrections],
        "drawing": drawn(told.ribbon, units) if told.ribbon else None,
        "window": drawn_window(told.window, units) if told.window else None,
    }


def _verdict(told: Report) -> tuple[str, str]:
    """The mark and word at the head: the worst that remains."""
    if not told.remaining:
        return MARKS["pass"], "All limits kept with the settings left"
    worst = min((each.verdict for each in told.remaining), key=lambda verdict: ORDER[Verdict(verdict)])
    count = len(told.remaining)
    return MARKS[worst], f"{count} thing{'s' if count > 1 else ''} to see to"


def label_context(systems: list[System], origin: str, units: str | None) -> dict[str, Any]:
    """Labels for systems, `units` None for those of each site; `origin` is where this server is reached."""
    return {"labels": [_label(system, origin, units or system.site.units) for system in systems]}


def _label(system: System, origin: str, units: str) -> dict[str, Any]:
    outlook = getattr(system, "outlook", None)
    address = f"{origin}/systems/{quote(str(system.pk))}"
    return {
        "site": system.site.name,
        "system": system.name,
        "label": label_of(read_document(system.document).facts(), units),
        "set_on": system.changed_at if outlook is None else outlook.last_at,
        "due": None if outlook is None else outlook.due_at,
        "code": segno.make(address, error="m").svg_data_uri(border=0, dark="#16272c"),
    }


def feed_out(feed: Feed | None, origin: str) -> dict[str, Any]:
    """The address of a person's calendar; "" where there is none."""
    return {"address": f"{origin}/papers/due/{signed(feed.pk, 'feed')}.ics" if feed else ""}


def link_out(link: Link, origin: str) -> dict[str, Any]:
    """A link with its address, while it lives."""
    state = "revoked" if link.revoked_at else "expired" if link.expires_at <= timezone.now() else "alive"
    return {
        "id": link.pk,
        "address": f"{origin}/papers/{signed(link.pk, 'link')}" if state == "alive" else "",
        "state": state,
        "made_at": link.made_at,
        "made_by": shown(link.made_by),
        "expires_at": link.expires_at,
    }
