"""What a device holds of the systems of a person, as plain values: what the server said of each
when it was last reached (GET /api/device). Times are ISO 8601 with an offset."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any, NotRequired, TypedDict

from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.fields import read
from zerodip.kinds.settings import Practice
from zerodip.switch.learned import Learned, read_learned
from zerodip.trends.history import Past
from zerodip.visit.log import Log, Record, log_of
from zerodip.visit.slots import SWITCH_REPLACED
from zerodip.visit.summary import Points, Summary, summarize_log

__all__ = [
    "HeldEntry",
    "HeldSystem",
    "HeldVisit",
    "HeldWorkspace",
    "document_of",
    "followed",
    "learned_before",
    "log_in",
    "past_before",
    "records_of",
    "seconds",
]


class HeldEntry(TypedDict):
    """One record of a visit, as the API gives it."""

    id: str
    slot: str
    value: Any
    supersedes: str | None
    at: str
    by: str
    by_gauge: NotRequired[str]


class HeldVisit(TypedDict):
    """One visit: its entries and photos (`id`, `plate`), the file as it was when it was closed,
    what it taught of the nuts, and the outcomes that were confirmed by then (None while it is
    open)."""

    id: str
    opened_at: str
    opened_by: str
    closed_at: str | None
    document: Any
    learned: list[Any]
    met: dict[str, int] | None
    entries: list[HeldEntry]
    photos: list[dict[str, str]]


class HeldSystem(TypedDict):
    """One system: its file, latest decisions, what the log says of it (`moments`), its latest
    visits (newest first) and, of those before them, the figures (`earlier`, oldest first), what
    they taught of the nuts, and what the last of them left, by slot."""

    id: str
    stamp: str
    name: str
    site: dict[str, str]
    workspace: str
    version: int
    changed_at: str
    retired: bool
    may_change: bool
    may_visit: bool
    document: Any
    decisions: list[dict[str, Any]]
    moments: list[dict[str, Any]]
    earlier: list[dict[str, Any]]
    learned: list[Any]
    left: dict[str, Any]
    visits: list[HeldVisit]


class HeldWorkspace(TypedDict):
    """What a workspace's systems go by: its practice and gauges as the API gives them, the outcomes
    confirmed there by kind and cause, and what this person may do in it."""

    id: str
    name: str
    may_add: bool
    may_change: bool
    practice: dict[str, Any]
    gauges: list[dict[str, Any]]
    met: dict[str, dict[str, int]]


def seconds(at: str) -> float:
    """A time in seconds since 1970.

    Args:
        at: ISO 8601 with an offset.

    Returns:
        Seconds since 1970.
    """
    return datetime.fromisoformat(at).timestamp()


def records_of(visit: HeldVisit) -> list[Record]:
    """The records of a visit, oldest first.

    Args:
        visit: The visit.

    Returns:
        Its records as the core reads them.
    """
    return [Record(**each) for each in visit["entries"]]


def log_in(visit: HeldVisit) -> Log:
    """The records of a visit in force.

    Args:
        visit: The visit.

    Returns:
        Its log.
    """
    return log_of(records_of(visit))


def document_of(held: HeldSystem, visit: HeldVisit) -> Document:
    """The file that a visit goes by: as it stands, or as it was when the visit was closed.

    Args:
        held: The system.
        visit: One of its visits.

    Returns:
        The file.
    """
    return read_document(held["document"] if visit["document"] is None else visit["document"])


def followed(document: Document, workspace: HeldWorkspace) -> Document:
    """The document with its workspace's practice in it, where it follows that; what was typed of
    its own goes.

    Args:
        document: A system's file.
        workspace: Its workspace.

    Returns:
        The same, by the practice that holds.
    """
    practice, _ = read(Practice, workspace["practice"]["practice"])
    return document if practice is None else document.following(practice)


def past_before(held: HeldSystem, before_s: float) -> list[tuple[Past, Log | None]]:
    """The closed visits opened before a time, oldest first, with their logs as far as they are
    held.

    Args:
        held: The system.
        before_s: The time, s since 1970.

    Returns:
        Each in figures, with its log or None.
    """
    known: list[tuple[Past, Log | None]] = [
        (_earlier(each), None) for each in held["earlier"] if each["at_s"] < before_s
    ]
    for visit in reversed(held["visits"]):
        at_s = seconds(visit["opened_at"])
        if visit["closed_at"] is not None and visit["entries"] and at_s < before_s:
            log = log_in(visit)
            known.append((Past(visit=visit["id"], at_s=at_s, summary=summarize_log(log)), log))
    return known


def _earlier(raw: Mapping[str, Any]) -> Past:
    told = dict(raw["summary"])
    told |= {part: Points(**told[part]) for part in ("found", "left")}
    return Past(visit=raw["visit"], at_s=raw["at_s"], summary=Summary(**told))


def learned_before(held: HeldSystem, before_s: float) -> Learned:
    """What the visits opened before a time taught of the nuts of the switch that is there; nothing
    where it was replaced since.

    Args:
        held: The system.
        before_s: The time, s since 1970.

    Returns:
        What the latest of them that turned nuts learned.
    """
    for visit in held["visits"]:
        if seconds(visit["opened_at"]) >= before_s:
            continue
        replaced = log_in(visit).value(SWITCH_REPLACED)
        if visit["learned"] or replaced:
            return read_learned(visit["learned"])[0]
    return read_learned(held["learned"])[0]
