"""What happened to a system, newest first."""

from datetime import datetime

from django.db.models import Prefetch

from accounts.models import shown
from audit.models import AuditEvent
from sites.models import Decision, System
from zerodip.visit.summary import settings_say, summarize_visit, summary_says

from .models import Photo, Visit
from .schemas import MomentKind, MomentOut
from .selectors import record_of
from .serializers import photo_out

__all__ = ["logged_moments", "timeline"]

_MOST = 100
_LOGGED: dict[str, MomentKind] = {
    "systems.add": "added",
    "systems.retire": "retired",
    "systems.restore": "restored",
}


def timeline(system: System, units: str) -> list[MomentOut]:
    """Visits, decisions, and what the log says of adding and retiring; at most a hundred of each.
    Five queries."""
    photos = Prefetch("photos", Photo.objects.only("id", "plate", "visit_id"))
    visits = system.visits.select_related("opened_by").prefetch_related("entries__made_by", photos)[
        :_MOST
    ]
    decisions = system.decisions.select_related("made_by")[:_MOST]
    moments = [
        *(_visit(each, units) for each in visits),
        *(_decision(each, units) for each in decisions),
        *logged_moments(system),
    ]
    return sorted(moments, key=lambda each: each.at, reverse=True)


def logged_moments(system: System) -> list[MomentOut]:
    """What the log says of adding and retiring a system, newest first; one query."""
    logged = AuditEvent.objects.filter(about=str(system.pk), action__in=_LOGGED)
    return [
        _moment(each.at, _LOGGED[each.action], "", shown(each.actor))
        for each in logged.select_related("actor")[:_MOST]
    ]


def _moment(at: datetime, kind: MomentKind, says: str, by: str) -> MomentOut:
    return MomentOut(at=at, kind=kind, says=says, by=by)


def _visit(visit: Visit, units: str) -> MomentOut:
    says = summary_says(summarize_visit(map(record_of, visit.entries.all())), units)
    return MomentOut(
        at=visit.opened_at,
        kind="visit",
        says=says,
        by=shown(visit.opened_by, visit.by),
        visit=visit.pk,
        open=visit.closed_at is None,
        photos=[photo_out(photo) for photo in visit.photos.all()],
    )


def _decision(each: Decision, units: str) -> MomentOut:
    says = settings_say(each.document["settings"], units)
    return _moment(each.made_at, "decision", says, shown(each.made_by, each.by))
