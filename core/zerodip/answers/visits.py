"""Visits from what a device holds, shaped as the API gives them."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from zerodip.answers.held import (
    HeldSystem,
    HeldVisit,
    HeldWorkspace,
    document_of,
    learned_before,
    log_in,
    records_of,
    seconds,
)
from zerodip.documents.report import Report, report
from zerodip.fileformat.document import read_document
from zerodip.fileformat.fields import read
from zerodip.gauges import GaugeSpec, check_state, error_pa
from zerodip.visit.additions import left_by_slot
from zerodip.visit.corrections import corrections_view
from zerodip.visit.view import VisitAsked, visit_view

__all__ = ["gauges_at", "report_answer", "visit_answer", "visit_in"]

_Row = dict[str, Any]


def visit_in(held: HeldSystem, visit_id: str) -> HeldVisit | None:
    """A visit of a system.

    Args:
        held: The system.
        visit_id: The visit's id.

    Returns:
        The visit; None where it is not held.
    """
    return next((each for each in held["visits"] if each["id"] == visit_id), None)


def visit_answer(
    held: HeldSystem,
    visit: HeldVisit,
    workspace: HeldWorkspace,
    units: str,
    order: str = "together",
    eager: bool = False,
) -> _Row:
    """One visit: what its steps show and every entry.

    Args:
        held: The system.
        visit: One of its visits.
        workspace: Its workspace.
        units: Unit system of the texts: "us", "metric" or "kpa".
        order: Both nuts in one power-off ("together") or one at a time ("first").
        eager: Whether to turn rather than watch.

    Returns:
        What GET /api/visits/{id} gives.

    Raises:
        InvalidInput: For a file that can no longer be read.
    """
    records, document = records_of(visit), document_of(held, visit)
    closed = visit["closed_at"]
    asked = VisitAsked(
        last=_left_before(held, visit),
        learned=learned_before(held, seconds(visit["opened_at"])),
        order="first" if order == "first" else "together",
        eager=eager,
        met=workspace["met"].get(document.system.kind, {})
        if visit["met"] is None
        else visit["met"],
    )
    system = {name: held[name] for name in ("id", "name", "site", "version", "document")}
    return {
        "id": visit["id"],
        "system": system,
        "open": closed is None,
        "opened_at": visit["opened_at"],
        "closed_at": closed,
        "corrections": corrections_view(records, closed, units) if closed else None,
        "may_change": held["may_visit"],
        "view": visit_view(document, records, units, asked),
        "entries": visit["entries"],
        "photos": visit["photos"],
    }


def _left_before(held: HeldSystem, visit: HeldVisit) -> dict[str, Any]:
    """What the visit before left, by slot."""
    at_s = seconds(visit["opened_at"])
    before = next((each for each in held["visits"] if seconds(each["opened_at"]) < at_s), None)
    if before is None:
        return held["left"]
    return left_by_slot(log_in(before))


def report_answer(held: HeldSystem, visit: HeldVisit, units: str) -> Report:
    """The report of a visit, in words.

    Args:
        held: The system.
        visit: One of its visits.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The report.

    Raises:
        InvalidInput: For a file that can no longer be read.
    """
    learned = learned_before(held, seconds(visit["opened_at"]))
    document = document_of(held, visit)
    return report(document, records_of(visit), units, visit["closed_at"], learned)


def gauges_at(held: HeldSystem, workspace: HeldWorkspace, now_s: float) -> list[_Row]:
    """The gauges in use, with what each may be off by at the system's set points.

    Args:
        held: The system.
        workspace: Its workspace.
        now_s: Now, s since 1970.

    Returns:
        What GET /api/visits/{id}/gauges gives.
    """
    settings = read_document(held["document"]).settings
    band = (settings.cut_in_gauge_pa, settings.cut_out_gauge_pa)
    rows = [each for each in workspace["gauges"] if not each["retired"]]
    return [_gauge(each, band, now_s) for each in rows]


def _gauge(row: Mapping[str, Any], band: tuple[float, float], now_s: float) -> _Row:
    spec, _ = read(GaugeSpec, row["gauge"])
    checked = row["checked_on"]
    since = None if checked is None else int((now_s - _day_s(checked)) // 86400)
    error = error_pa(spec, *band) if spec else 0.0
    return {**row, "error_pa": error, "state": check_state(since)}


def _day_s(day: str) -> float:
    return datetime.fromisoformat(f"{day}T00:00:00+00:00").timestamp()
