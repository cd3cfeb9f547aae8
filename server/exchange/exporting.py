"""Out of the workspace: an archive written piece by piece, system by system, so that a large one never lies in memory whole."""

from base64 import b64encode
from collections.abc import Iterator
from typing import Any

import orjson
from django.db.models import Prefetch, QuerySet
from django.utils import timezone
from visits.models import Entry, Photo, Visit

from people.models import shown
from plants.habits import habits_of
from plants.models import Decision, Gauge, Site, System

from .archive import FORMAT, VERSION
from .scopes import Scope

__all__ = ["archive", "whole"]


def archive(scope: Scope, photos: bool) -> Iterator[bytes]:
    """The archive's text in pieces. Photos make it large, and are left out unless asked for."""
    head = {"format": FORMAT, "version": VERSION, "made_at": timezone.now().isoformat(), "scope": scope.name}
    yield orjson.dumps({**head, **_crew(scope)})[:-1] + b',"sites":['
    for number, site in enumerate(scope.sites.order_by("name", "pk")):
        start = {"id": site.pk, "name": site.name, "units": site.units}
        yield (b"," if number else b"") + b"\n" + orjson.dumps(start)[:-1] + b',"systems":['
        yield from _systems(scope, site, photos)
        yield b"]}"
    yield b"]}\n"


def _crew(scope: Scope) -> dict[str, Any]:
    """What belongs to the workspace as a whole: its practice and its gauges."""
    if scope.name != "workspaces":
        return {}
    habits = habits_of(scope.workspace_id)
    gauges = Gauge.objects.filter(workspace_id=scope.workspace_id)
    return {
        "practice": {"practice": habits.practice, "sizes_m3": habits.sizes_m3},
        "gauges": [
            {"id": g.pk, "gauge": g.data, "checked_on": g.checked_on, "retired": g.retired} for g in gauges
        ],
    }  # fmt: skip


def _systems(scope: Scope, site: Site, photos: bool) -> Iterator[bytes]:
    found = whole(scope.systems.filter(site=site), photos).order_by("name", "pk")
    for number, system in enumerate(found.iterator(chunk_size=2 if photos else 50)):  # photos are large
        yield (b"," if number else b"") + b"\n" + orjson.dumps(_system(system, photos))


def whole(systems: QuerySet[System], photos: bool) -> QuerySet[System]:
    """Systems with everything on record, in a bounded number of queries a chunk."""
    visits = Visit.objects.order_by("opened_at", "pk").select_related("opened_by")
    visits = visits.prefetch_related(Prefetch("entries", Entry.objects.select_related("made_by")))
    if photos:
        visits = visits.prefetch_related(Prefetch("photos", Photo.objects.order_by("made_at", "pk")))
    decisions = Decision.objects.order_by("made_at", "pk").select_related("made_by")
    return systems.prefetch_related(Prefetch("visits", visits), Prefetch("decisions", decisions))


def _system(system: System, photos: bool) -> dict[str, Any]:
    return {
        "id": system.pk,
        "file": system.document,
        "retired_at": system.retired_at,
        "decisions": [_decision(each) for each in system.decisions.all()],
        "visits": [_visit(each, photos) for each in system.visits.all()],
    }


def _decision(each: Decision) -> dict[str, Any]:
    return {
        "id": each.pk, "file": each.document, "figures": each.figures, "verdict": each.verdict,
        "made_at": each.made_at, "by": shown(each.made_by, each.by),
    }  # fmt: skip


def _visit(visit: Visit, photos: bool) -> dict[str, Any]:
    return {
        "id": visit.pk,
        "opened_at": visit.opened_at,
        "closed_at": visit.closed_at,
        "by": shown(visit.opened_by, visit.by),
        "file": visit.document,
        "slopes": visit.slopes,
        "entries": [
            {
                "id": e.id, "slot": e.slot, "value": e.value, "supersedes": e.supersedes,
                "at": e.made_at, "by": shown(e.made_by, e.by),
            }
            for e in visit.entries.all()
        ],
        "photos": [_photo(each) for each in visit.photos.all()] if photos else [],
    }  # fmt: skip


def _photo(each: Photo) -> dict[str, Any]:
    data = b64encode(bytes(each.data)).decode()
    return {"id": each.pk, "plate": each.plate, "kind": each.kind, "at": each.made_at, "data": data}
