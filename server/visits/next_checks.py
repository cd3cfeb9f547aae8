"""What the past visits of a system say: worked out when a visit is closed or the system changes, so
that Rounds only reads."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from datetime import UTC, datetime
from itertools import groupby, islice
from uuid import UUID

from sites.models import System
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.trends.history import Past, Trends, drifting, trends
from zerodip.units import SYSTEMS
from zerodip.visit.log import Record
from zerodip.visit.summary import summarize_visit

from .models import Entry, NextCheck, Visit
from .selectors import document_of, learned_on, record_of

__all__ = ["past_of", "refresh_next_checks", "trends_at", "trends_of"]

_AT_ONCE = 100
_FAR = datetime(2200, 1, 1, tzinfo=UTC).timestamp()


def past_of(systems: Iterable[UUID]) -> dict[UUID, list[Past]]:
    """The closed visits of systems in figures, oldest first, by system; one query."""
    entries = Entry.objects.filter(visit__system__in=systems, visit__closed_at__isnull=False)
    ordered = entries.select_related("visit", "made_by").order_by(
        "visit__opened_at", "visit_id", "number"
    )
    found: dict[UUID, list[Past]] = defaultdict(list)
    for visit, kept in groupby(ordered, key=lambda entry: entry.visit):
        summary = summarize_visit(map(record_of, kept))
        past = Past(visit=str(visit.pk), at_s=visit.opened_at.timestamp(), summary=summary)
        found[visit.system_id].append(past)
    return found


def trends_of(system: System, units: str) -> Trends:
    """The trends of a system as it stands. Raises InvalidInput for a file that can no longer be
    read."""
    figures = read_document(system.document).figures()
    past = past_of([system.pk]).get(system.pk, [])
    return trends(figures, past, units, learned_on(system.visits.all()))


def trends_at(visit: Visit, records: Sequence[Record], units: str) -> Trends:
    """The trends as a visit with these records saw them, its own figures last, whatever came later.
    Raises InvalidInput for a file that can no longer be read."""
    figures, at_s = document_of(visit).figures(), visit.opened_at.timestamp()
    past = [
        each for each in past_of([visit.system_id]).get(visit.system_id, []) if each.at_s < at_s
    ]
    return trends(
        figures,
        [*past, Past(visit=str(visit.pk), at_s=at_s, summary=summarize_visit(records))],
        units,
    )


def refresh_next_checks(systems: Iterable[System]) -> None:
    """Works the next checks out again; without a closed visit there is none, and a file that cannot
    be read keeps the one it has. Four queries for each hundred systems."""
    remaining = iter(systems)
    while some := list(islice(remaining, _AT_ONCE)):
        past = past_of([system.pk for system in some])
        NextCheck.objects.filter(
            system__in=[system.pk for system in some if system.pk not in past]
        ).delete()
        made = [_next_check(system, past[system.pk]) for system in some if system.pk in past]
        NextCheck.objects.bulk_create(
            [each for each in made if each is not None],
            update_conflicts=True,
            unique_fields=["system"],
            update_fields=["last_at", "due_at", "leaves_at", "drifting"],
        )


def _next_check(system: System, past: Sequence[Past]) -> NextCheck | None:
    try:
        figures = read_document(system.document).figures()
    except InvalidInput:
        return None
    told = trends(figures, past)
    return NextCheck(
        system=system,
        last_at=datetime.fromtimestamp(past[-1].at_s, UTC),
        due_at=_time(told.due_s),
        leaves_at=_time(told.leaves.likely_s if told.leaves else None),
        drifting={units: list(drifting(figures, told.series, units)) for units in SYSTEMS},
    )


def _time(seconds: float | None) -> datetime | None:
    """A date that a calendar can hold: a loss of almost nothing would leave the band in ten
    thousand years."""
    return None if seconds is None or seconds > _FAR else datetime.fromtimestamp(seconds, UTC)
