"""What the past visits of a system say: worked out when a visit is closed or the system changes, so that Rounds only reads."""

from collections.abc import Iterable
from datetime import UTC, datetime

from plants.models import System
from zerodip.document import read_document
from zerodip.errors import InvalidInput
from zerodip.trends.history import Past, Trends, drifting, trends
from zerodip.units import SYSTEMS
from zerodip.visit.records import Entry as Record
from zerodip.visit.summary import summary

from .models import Entry, Outlook, Visit
from .records import record_of
from .selectors import document_of

__all__ = ["past_of", "refresh_outlook", "trends_at", "trends_of"]


def past_of(system: System) -> list[Past]:
    """The closed visits in figures, oldest first; one query."""
    entries = Entry.objects.filter(visit__system=system, visit__closed_at__isnull=False)
    by_visit: dict[str, tuple[float, list[Entry]]] = {}
    for entry in entries.select_related("visit", "made_by").order_by("visit__opened_at", "number"):
        by_visit.setdefault(str(entry.visit_id), (entry.visit.opened_at.timestamp(), []))[1].append(entry)
    return [Past(visit=visit, at_s=at, figures=summary(map(record_of, kept))) for visit, (at, kept) in by_visit.items()]


def trends_of(system: System, units: str) -> Trends:
    """The trends of a system as it stands. Raises InvalidInput for a file that can no longer be read."""
    document = read_document(system.document)
    facts = document.facts()
    taught = system.visits.exclude(slopes=[]).first()
    return trends(facts, past_of(system), units, taught.slopes if taught else ())


def trends_at(visit: Visit, records: list[Record], units: str) -> Trends:
    """The trends as a visit with these records saw them, its own figures last, whatever came later. Raises InvalidInput for a
    file that can no longer be read."""
    document, at_s = document_of(visit), visit.opened_at.timestamp()
    past = [each for each in past_of(visit.system) if each.at_s < at_s]
    facts = document.facts()
    return trends(facts, [*past, Past(visit=str(visit.pk), at_s=at_s, figures=summary(records))], units)


def refresh_outlook(system: System) -> None:
    """Works the outlook out again; without a closed visit, or with a file that cannot be read, there is none."""
    past = past_of(system)
    if not past:
        Outlook.objects.filter(system=system).delete()
        return
    try:
        document = read_document(system.document)
    except InvalidInput:
        return
    facts = document.facts()
    told = trends(facts, past)
    likely = told.leaves_s[0] if told.leaves_s else None
    Outlook.objects.update_or_create(
        system=system,
        defaults={
            "last_at": datetime.fromtimestamp(past[-1].at_s, UTC),
            "due_at": _time(told.due_s),
            "leaves_at": _time(likely),
            "drifting": {units: list(drifting(facts, told.series, units)) for units in SYSTEMS},
        },
    )


def refresh_all(systems: Iterable[System]) -> None:
    """For `manage.py refresh_outlooks`."""
    for system in systems:
        refresh_outlook(system)


def _time(seconds: float | None) -> datetime | None:
    """A date that a calendar can hold: a loss of almost nothing would leave the band in ten thousand years."""
    far = datetime(2200, 1, 1, tzinfo=UTC).timestamp()
    return None if seconds is None or seconds > far else datetime.fromtimestamp(seconds, UTC)
