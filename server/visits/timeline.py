"""What happened to a system, newest first."""

from typing import Any

from django.db.models import Prefetch

from journal.models import Entry as Noted
from people.models import shown
from plants.models import Decision, System
from zerodip.visit.summary import Points, band, summary, told

from .models import Photo, Visit
from .records import record_of

__all__ = ["timeline"]

_MOST = 100
_NOTED = {"systems.add": "begun", "systems.retire": "retired", "systems.restore": "restored"}


def timeline(system: System, units: str) -> list[dict[str, Any]]:
    """Visits, decisions, and what the log says of beginning and retiring; at most a hundred of each. Five queries."""
    photos = Prefetch("photos", Photo.objects.only("id", "plate", "visit_id"))
    visits = system.visits.select_related("opened_by").prefetch_related("entries__made_by", photos)[:_MOST]
    decisions = system.decisions.select_related("made_by")[:_MOST]
    noted = Noted.objects.filter(about=str(system.pk), action__in=_NOTED).select_related("actor")[:_MOST]
    moments = [
        *(_visit(each, units) for each in visits),
        *(_decision(each, units) for each in decisions),
        *(_moment(each.at, _NOTED[each.action], "", shown(each.actor)) for each in noted),
    ]
    return sorted(moments, key=lambda each: each["at"], reverse=True)


def _moment(at: Any, kind: str, says: str, by: str) -> dict[str, Any]:
    return {"at": at, "kind": kind, "says": says, "by": by}


def _visit(visit: Visit, units: str) -> dict[str, Any]:
    says = told(summary(map(record_of, visit.entries.all())), units)
    return {
        **_moment(visit.opened_at, "visit", says, shown(visit.opened_by, visit.by)),
        "visit": visit.pk,
        "open": visit.closed_at is None,
        "photos": [{"id": photo.pk, "plate": photo.plate} for photo in visit.photos.all()],
    }


def _decision(each: Decision, units: str) -> dict[str, Any]:
    names = ("cut_in_gauge_pa", "cut_out_gauge_pa", "pre_charge_gauge_pa")
    says = band(Points(**{name: each.document["settings"].get(name) for name in names}), units)
    return _moment(each.made_at, "decision", says, shown(each.made_by, each.by))
