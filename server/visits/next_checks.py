"""What the past visits of a system say: worked out when a visit is closed or the system changes, so
that Rounds only reads."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from datetime import UTC, datetime
from itertools import groupby, islice
from uuid import UUID

from django.utils import timezone

from sites.models import System
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.trends.history import Past, Trends, trends
from zerodip.trends.next_check import next_check
from zerodip.visit.log import Log, Record, log_of
from zerodip.visit.summary import summarize_log, summarize_visit

from .models import Entry, NextCheck, Visit
from .selectors import document_of, learned_on, record_of

__all__ = ["past_of", "refresh_next_checks", "trends_at", "trends_of"]

_AT_ONCE = 100


def past_of(systems: Iterable[UUID]) -> dict[UUID, list[Past]]:
    """The closed visits of systems in figures, oldest first, by system; one query."""
    return {system: [past for past, _ in told] for system, told in _past_of(systems).items()}


def _past_of(systems: Iterable[UUID]) -> dict[UUID, list[tuple[Past, Log]]]:
    """The same, each with its records."""
    entries = Entry.objects.filter(visit__system__in=systems, visit__closed_at__isnull=False)
    ordered = entries.select_related("visit", "made_by").order_by(
        "visit__opened_at", "visit_id", "made_at", "number"
    )
    found: dict[UUID, list[tuple[Past, Log]]] = defaultdict(list)
    for visit, kept in groupby(ordered, key=lambda entry: entry.visit):
        log = log_of(map(record_of, kept))
        at_s = visit.opened_at.timestamp()
        past = Past(visit=str(visit.pk), at_s=at_s, summary=summarize_log(log))
        found[visit.system_id].append((past, log))
    return found


def trends_of(system: System, units: str) -> Trends:
    """The trends of a system as it stands. Raises InvalidInput for a file that can no longer be
    read."""
    figures = read_document(system.document).figures()
    past = past_of([system.pk]).get(system.pk, [])
    learned, now_s = learned_on(system.visits.all()), timezone.now().timestamp()
    return trends(figures, past, units, learned, now_s)


def trends_at(visit: Visit, records: Sequence[Record], units: str) -> Trends:
    """The trends as a visit with these records saw them, its own figures last, whatever came later.
    Raises InvalidInput for a file that can no longer be read."""
    figures, at_s = document_of(visit).figures(), visit.opened_at.timestamp()
    past = [
        each for each in past_of([visit.system_id]).get(visit.system_id, []) if each.at_s < at_s
    ]
    this = Past(visit=str(visit.pk), at_s=at_s, summary=summarize_visit(records))
    now_s = timezone.now().timestamp() if visit.closed_at is None else None
    return trends(figures, [*past, this], units, now_s=now_s)


def refresh_next_checks(systems: Iterable[System]) -> None:
    """Works the next checks out again; without a closed visit there is none, and a file that cannot
    be read keeps the one it has. Four queries for each hundred systems."""
    remaining = iter(systems)
    while some := list(islice(remaining, _AT_ONCE)):
        past = _past_of([system.pk for system in some])
        NextCheck.objects.filter(
            system__in=[system.pk for system in some if system.pk not in past]
        ).delete()
        made = [_next_check(system, past[system.pk]) for system in some if system.pk in past]
        NextCheck.objects.bulk_create(
            [each for each in made if each is not None],
            update_conflicts=True,
            unique_fields=["system"],
            update_fields=["last_at", "due_at", "leaves_at", "drifting", "seen"],
        )


def _next_check(system: System, told: Sequence[tuple[Past, Log]]) -> NextCheck | None:
    try:
        figures = read_document(system.document).figures()
    except InvalidInput:
        return None
    made = next_check(figures, [past for past, _ in told], told[-1][1])
    return NextCheck(
        system=system,
        last_at=datetime.fromtimestamp(made.last_s, UTC),
        due_at=_time(made.due_s),
        leaves_at=_time(made.leaves_s),
        drifting=made.drifting,
        seen=made.seen,
    )


def _time(seconds: float | None) -> datetime | None:
    return None if seconds is None else datetime.fromtimestamp(seconds, UTC)
