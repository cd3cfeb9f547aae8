"""Three years of visits to the demo's systems, so that trends, due dates and drift have something
to show. All invented."""

import uuid
from collections.abc import Iterable
from datetime import timedelta
from typing import Any

from django.utils import timezone

from accounts.models import User, Workspace
from sites.models import System
from zerodip.fileformat.document import plain, read_document
from zerodip.switch.learned import learned_of
from zerodip.units import PSI
from zerodip.visit.log import log_of
from zerodip.visit.steps.switch_state import belief_of

from .experience import keep_outcome
from .models import Entry, Visit
from .next_checks import refresh_next_checks
from .selectors import records_of

__all__ = ["HISTORY", "load_history"]

# Days ago; pre-charge found and left; cut-in and cut-out found; turns of both nuts; cut-in and
# cut-out left (psi); pump run (s).
_Row = tuple[
    int, float | None, float | None, float, float, tuple[float, float] | None, float, float, float
]
HISTORY: dict[str, tuple[_Row, ...]] = {
    "Potting-shed well": (
        (1090, 36.4, 38, 37.5, 57, (1.0, 0.25), 40, 60, 69),
        (722, 36.6, 38, 39.5, 60, None, 39.5, 60, 68),
        (351, 36.5, 38, 39.5, 59.5, None, 39.5, 59.5, 68),
    ),
    "Glasshouse rainwater": (
        (1013, 26.5, 28, 30, 50, None, 30, 50, 74),
        (640, 26.2, 28, 30, 49.5, None, 30, 49.5, 74),
        (338, 26.9, 28, 30, 50, None, 30, 50, 73),
    ),
    "Millrace cottage": (
        (1101, 23.5, 27, 29, 43.5, None, 29, 43.5, 31),
        (733, 22.8, 27, 28.5, 43, None, 28.5, 43, 28),
        (420, 23.4, 27, 28.5, 43, None, 28.5, 43, 25),
    ),
    "Top-floor booster": (
        (700, 40, 41.3, 43, 63, None, 43, 63, 40),
        (330, 40.2, 41.3, 43.5, 63.5, None, 43.5, 63.5, 41),
    ),
    "Twin-tank well": (
        (1060, 37, 38, 41, 58, (-0.5, 1.0), 40, 60, 151),
        (705, 36.9, 38, 40, 60, None, 40, 60, 150),
        (349, 36.8, 38, 40, 60, None, 40, 60, 149),
    ),
    "Byre well": (
        (760, None, None, 30, 50, None, 30, 50, 58),
        (400, None, None, 30, 50, None, 30, 50, 41),
        (120, None, None, 30, 50, None, 30, 50, 30),
    ),
    "Workshop compressor": (
        (1050, None, None, 114, 140, None, 114, 140, 96),
        (690, None, None, 115, 140, None, 115, 140, 108),
        (340, None, None, 115, 141, None, 115, 141, 121),
    ),
    "Galley pump": ((410, None, None, 33, 44, (0.25, 0.0), 35, 46, 4),),
}

# What was complained of on a past visit and what it was in the end, by its days ago.
TROUBLES: dict[str, dict[int, tuple[str, str]]] = {
    "Potting-shed well": {1090: ("clicks", "points")},
    "Byre well": {400: ("clicks", "waterlogged"), 120: ("clicks", "waterlogged")},
    "Workshop compressor": {690: ("starts_alone", "leak"), 340: ("starts_alone", "check_valve")},
    "Galley pump": {410: ("clicks", "outlet_small")},
}
# Calls that nobody has come to the end of yet: what was noted so far.
OPEN: dict[str, tuple[tuple[str, Any], ...]] = {
    "Millrace cottage": (
        ("complaint", "clicks"),
        ("found.run", 11.0),
        ("saw", {"item": "trips", "says": "yes"}),
    ),
    "Galley pump": (
        ("complaint", "starts_alone"),
        ("saw", {"item": "drips", "says": "no"}),
    ),
}


def load_history(user: User, workspace: Workspace) -> None:
    """Past visits of the systems of the demo's workspace; those that were visited already keep what
    they have."""
    systems = list(System.objects.filter(site__workspace=workspace, name__in=HISTORY, visits=None))
    for system in systems:
        for row in HISTORY[system.name]:
            _visit(system, user, row)
        if system.name in OPEN:
            _call(system, user)
    refresh_next_checks(systems)


def _call(system: System, user: User) -> None:
    opened = timezone.now() - timedelta(hours=2)
    visit = Visit.objects.create(system=system, opened_by=user, opened_at=opened)
    _enter(visit, user, OPEN[system.name])


def _enter(visit: Visit, user: User, records: Iterable[tuple[str, Any]]) -> None:
    made = {"visit": visit, "made_by": user, "made_at": visit.opened_at + timedelta(minutes=20)}
    Entry.objects.bulk_create(
        Entry(id=uuid.uuid4(), slot=slot, value=value, **made) for slot, value in records
    )


def _visit(system: System, user: User, row: _Row) -> None:
    opened = timezone.now() - timedelta(days=row[0])
    closed = opened + timedelta(hours=1)
    visit = Visit.objects.create(
        system=system,
        opened_by=user,
        opened_at=opened,
        closed_at=closed,
        document=_then(system.document),
    )
    complaint, was = TROUBLES.get(system.name, {}).get(row[0], ("", ""))
    called = [("complaint", complaint), ("was", was)] if was else []
    _enter(visit, user, [*called, *_records(row)])
    keep_outcome(visit, log_of(records_of(visit)))
    if row[5]:
        visit.learned = _learned(system, visit)
        visit.save(update_fields=["learned"])


def _then(document: dict[str, Any]) -> dict[str, Any]:
    """The file as it was: without today's temperature, which asks for another pre-charge today."""
    system = document["system"]
    if not system.get("site"):
        return document
    entered = {
        path: typed for path, typed in document["entered"].items() if not path.endswith(".now_k")
    }
    return {
        **document,
        "system": {**system, "site": {**system["site"], "now_k": None}},
        "entered": entered,
    }


def _learned(system: System, visit: Visit) -> list[dict[str, Any]]:
    belief = belief_of(read_document(system.document).figures(), log_of(records_of(visit)))
    return [] if belief is None else [plain(slope) for slope in learned_of(belief)]


def _records(row: _Row) -> list[tuple[str, Any]]:
    _, air, left, low, high, turns, low_left, high_left, run = row
    made: list[tuple[str, Any]] = [
        ("gauge.used", "No. 3"),
        ("gauge.error", PSI),
        ("safe.power_off", True),
        ("safe.proved_dead", True),
        ("found.cut_in", low * PSI),
        ("found.cut_out", high * PSI),
    ]
    if air is not None and left is not None:
        made += [
            ("safe.drained", True),
            ("found.pre_charge", air * PSI),
            ("air.left", left * PSI),
            ("air.cap", True),
        ]
    if turns is not None:
        seen = {"cut_in_gauge_pa": low_left * PSI, "cut_out_gauge_pa": high_left * PSI}
        made.append(("try", {"first": turns[0], "second": turns[1], **seen}))
    made += [
        ("safe.power_up", True),
        ("lap", {"run_s": float(run), "rest_s": None}),
        ("prove.dip", False),
    ]
    return [
        *made,
        ("safe.cover", True),
        ("safe.house_open", True),
        ("signed", "Demo technician"),
        ("place", "hand_over"),
    ]
