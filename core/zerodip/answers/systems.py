"""Systems, the sheet of one and Rounds, from what a device holds: shaped as the API gives them."""

from collections.abc import Iterable, Mapping
from datetime import UTC, datetime
from typing import Any

from zerodip.answers.held import (
    HeldSystem,
    HeldVisit,
    document_of,
    learned_before,
    log_in,
    past_before,
    records_of,
    seconds,
)
from zerodip.decide.summary import SystemSummary, summarize, urgency
from zerodip.fileformat.document import read_document
from zerodip.kinds.registry import KINDS
from zerodip.kinds.results import columns_of
from zerodip.trends.history import Past, Trends, due_state, may_be_out, trends
from zerodip.trends.next_check import next_check
from zerodip.visit.slots import PLACE
from zerodip.visit.summary import settings_say, summarize_log, summarize_visit, summary_says

__all__ = [
    "next_check_row",
    "open_visits",
    "rounds_with",
    "row_of",
    "system_answer",
    "timeline",
    "trends_of",
    "visit_rows",
    "visit_trends",
]

_Row = dict[str, Any]


def row_of(held: HeldSystem) -> _Row:
    """A system in a list, as in Rounds.

    Args:
        held: The system.

    Returns:
        `id`, `name`, `summary`, `changed_at`, `retired`.
    """
    return {
        "id": held["id"],
        "name": held["name"],
        "summary": _summary(held),
        "changed_at": held["changed_at"],
        "retired": held["retired"],
    }


def _summary(held: HeldSystem) -> SystemSummary:
    document = read_document(held["document"])
    return summarize(document.system, document.settings, document.practice)


def system_answer(held: HeldSystem) -> _Row:
    """One system with its file and latest decisions.

    Args:
        held: The system.

    Returns:
        What GET /api/systems/{id} gives.
    """
    kind = KINDS[held["document"]["system"]["kind"]]
    return {
        **row_of(held),
        "site": held["site"],
        "workspace": held["workspace"],
        "version": held["version"],
        "may_change": held["may_change"],
        "document": held["document"],
        "columns": columns_of(kind.results, kind.report[:2]),
        "decisions": held["decisions"],
    }


def visit_rows(held: HeldSystem) -> list[_Row]:
    """The visits of a system that are held, newest first.

    Args:
        held: The system.

    Returns:
        What GET /api/systems/{id}/visits gives.
    """
    return [
        {
            **_opened(held, visit),
            "open": visit["closed_at"] is None,
            "place": log_in(visit).value(PLACE) or "watch",
        }
        for visit in held["visits"]
    ]


def _opened(held: HeldSystem, visit: HeldVisit) -> _Row:
    named = ("id", "opened_at", "opened_by")
    return {**{name: visit[name] for name in named}, "system": held["id"]}  # type: ignore[literal-required]


def open_visits(rows: Iterable[_Row], changed: Iterable[HeldSystem]) -> list[_Row]:
    """The visits left open, oldest first.

    Args:
        rows: Those of before.
        changed: The systems on which something was written since.

    Returns:
        What GET /api/visits gives.
    """
    systems = list(changed)
    ours = {held["id"] for held in systems}
    left = [row for row in rows if row["system"] not in ours]
    for held in systems:
        left += [_opened(held, each) for each in held["visits"] if each["closed_at"] is None]
    return sorted(left, key=lambda row: seconds(row["opened_at"]))


def timeline(held: HeldSystem, units: str) -> list[_Row]:
    """What happened to a system, newest first, as far as it is held.

    Args:
        held: The system.
        units: Unit system of the words: "us", "metric" or "kpa".

    Returns:
        What GET /api/systems/{id}/timeline gives.
    """
    moments = [_moment(**each) for each in held["moments"]]
    moments += [_visited(visit, units) for visit in held["visits"]]
    moments += [_decided(each, units) for each in held["decisions"]]
    return sorted(moments, key=lambda each: seconds(each["at"]), reverse=True)


def _moment(at: str, kind: str, says: str, by: str, **more: Any) -> _Row:
    told = {"at": at, "kind": kind, "says": says, "by": by}
    return {**told, "visit": None, "open": False, "photos": [], **more}


def _visited(visit: HeldVisit, units: str) -> _Row:
    says = summary_says(summarize_visit(records_of(visit)), units)
    return _moment(
        visit["opened_at"],
        "visit",
        says,
        visit["opened_by"],
        visit=visit["id"],
        open=visit["closed_at"] is None,
        photos=visit["photos"],
    )


def _decided(decision: Mapping[str, Any], units: str) -> _Row:
    says = settings_say(decision["document"]["settings"], units)
    return _moment(decision["made_at"], "decision", says, decision["made_by"])


def trends_of(held: HeldSystem, units: str, now_s: float) -> Trends:
    """What the closed visits say of a system as it stands.

    Args:
        held: The system.
        units: Unit system of the texts: "us", "metric" or "kpa".
        now_s: Now, s since 1970.

    Returns:
        Its trends.

    Raises:
        InvalidInput: For a file that can no longer be read.
    """
    figures = read_document(held["document"]).figures()
    past = [each for each, _ in past_before(held, now_s)]
    return trends(figures, past, units, learned_before(held, now_s), now_s)


def visit_trends(held: HeldSystem, visit: HeldVisit, units: str, now_s: float) -> Trends:
    """The trends as a visit saw them, its own figures last.

    Args:
        held: The system.
        visit: One of its visits.
        units: Unit system of the texts: "us", "metric" or "kpa".
        now_s: Now, s since 1970.

    Returns:
        Its trends.

    Raises:
        InvalidInput: For a file that can no longer be read.
    """
    at_s = seconds(visit["opened_at"])
    past = [each for each, _ in past_before(held, at_s)]
    this = Past(visit=visit["id"], at_s=at_s, summary=summarize_log(log_in(visit)))
    figures = document_of(held, visit).figures()
    return trends(
        figures, [*past, this], units, now_s=now_s if visit["closed_at"] is None else None
    )


def next_check_row(held: HeldSystem, now_s: float) -> _Row | None:
    """When a system is due, and what its last visit left.

    Args:
        held: The system.
        now_s: Now, s since 1970.

    Returns:
        A row of GET /api/next-checks; None without a closed visit.

    Raises:
        InvalidInput: For a file that can no longer be read.
    """
    told = past_before(held, now_s)
    last = told[-1][1] if told else None
    if last is None:
        return None
    made = next_check(read_document(held["document"]).figures(), [past for past, _ in told], last)
    return {
        "system": held["id"],
        "last_at": _iso(made.last_s),
        "due_at": _iso(made.due_s),
        "leaves_at": _iso(made.leaves_s),
        "drifting": made.drifting,
        "seen": made.seen,
        "state": due_state(made.due_s, now_s),
        "may_be_out": may_be_out(made.leaves_s, now_s),
    }


def _iso(at_s: float | None) -> str | None:
    if at_s is None:
        return None
    return datetime.fromtimestamp(int(at_s), UTC).isoformat().replace("+00:00", "Z")


def rounds_with(
    rounds: Mapping[str, Any], sites: Iterable[_Row], changed: Iterable[HeldSystem]
) -> _Row:
    """Rounds, with what was written since: what needs a person first.

    Args:
        rounds: What GET /api/rounds gave.
        sites: Sites begun or changed since (`id`, `name`, `units`, `workspace`).
        changed: The systems on which something was written since.

    Returns:
        What GET /api/rounds would give.
    """
    named = {each["id"]: {**each, "systems": []} for each in [*rounds["sites"], *sites]}
    rows = {row["id"]: (site["id"], row) for site in rounds["sites"] for row in site["systems"]} | {
        held["id"]: (held["site"]["id"], row_of(held)) for held in changed
    }
    ordered = sorted(rows.values(), key=lambda each: _urgency(each[1]))
    for site, row in ordered:
        named[site]["systems"].append(row)
    first = list(dict.fromkeys(site for site, _ in ordered))
    empty = [id for id in named if id not in first]
    return {"sites": [named[id] for id in [*first, *empty]], "workspaces": rounds["workspaces"]}


def _urgency(row: _Row) -> tuple[Any, ...]:
    told = row["summary"]
    of = told if isinstance(told, Mapping) else vars(told)
    return urgency(row["retired"], of["verdict"], of["stops"], of["cautions"], row["name"])
