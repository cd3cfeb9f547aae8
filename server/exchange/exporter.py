"""Out of the workspace: an archive written piece by piece, system by system, so that a large one
never lies in memory whole."""

import json
from base64 import b64encode
from collections.abc import Iterable, Iterator, Mapping
from contextlib import suppress
from datetime import date
from typing import Any

import orjson
from django.db.models import Prefetch, QuerySet
from django.utils import timezone

from accounts.models import shown
from common.errors import NotFound
from gauges.models import Gauge
from practice.selectors import stored_practice
from sites.models import Decision, Site, System
from visits.models import Entry, Photo, Visit
from visits.services import cleaned

from .archive import FORMAT, VERSION
from .bench_exporter import reference_items, switch_items
from .scopes import Scope

__all__ = ["archive", "whole"]

Items = Iterable[Iterable[bytes]]


def archive(scope: Scope, photos: bool) -> Iterator[bytes]:
    """The archive's text in pieces. Photos make it large, and are left out unless asked for."""
    head = {
        "format": FORMAT,
        "version": VERSION,
        "made_at": timezone.now().isoformat(),
        "scope": scope.name,
    }
    sites = (_opened(_site_head(site), _on_site(scope, site, photos)) for site in _sites(scope))
    yield from _opened({**head, **_workspace(scope)}, {"sites": sites})
    yield b"\n"


def _json(value: Any) -> bytes:
    """JSON; by the slower library where a number is larger than the quick one writes."""
    try:
        return orjson.dumps(value)
    except TypeError:
        return json.dumps(value, default=_plain, ensure_ascii=False).encode()


def _plain(value: Any) -> str:
    return value.isoformat() if isinstance(value, date) else str(value)


def _opened(head: Mapping[str, Any], lists: Mapping[str, Items]) -> Iterator[bytes]:
    """A JSON object whose last members are lists, written item by item: `{…head, "name": [item,
    …], …}`."""
    yield from (b"{", *_members(head))
    for count, (name, items) in enumerate(lists.items()):
        yield from (b",\n" if count else b"", _json(name), b":[")
        for number, item in enumerate(items):
            yield b",\n" if number else b"\n"
            yield from item
        yield b"]"
    yield b"}"


def _members(of: Mapping[str, Any]) -> Iterator[bytes]:
    for name, value in of.items():
        yield from (_json(name), b":", _json(value), b",")


def _sites(scope: Scope) -> QuerySet[Site]:
    return scope.sites.order_by("name", "pk")


def _site_head(site: Site) -> dict[str, Any]:
    return {"id": site.pk, "name": site.name, "units": site.units}


def _workspace(scope: Scope) -> dict[str, Any]:
    """What belongs to the workspace as a whole: its practice and its gauges."""
    if scope.name != "workspaces":
        return {}
    stored = stored_practice(scope.workspace_id)
    gauges = Gauge.objects.filter(workspace_id=scope.workspace_id)
    return {
        "practice": {"practice": stored.practice, "sizes_m3": stored.sizes_m3},
        "gauges": [
            {
                "id": g.pk,
                "gauge": g.data,
                "wire": g.wire,
                "checked_on": g.checked_on,
                "retired": g.retired,
            }
            for g in gauges
        ],
        "references": reference_items(scope),
    }


def _on_site(scope: Scope, site: Site, photos: bool) -> dict[str, Items]:
    """What stands on a site. A system's own archive has no switches."""
    systems = _systems(scope, site, photos)
    if scope.name == "systems":
        return {"systems": systems}
    switches = ([_json(each)] for each in switch_items(site))
    return {"systems": systems, "switches": switches}


def _systems(scope: Scope, site: Site, photos: bool) -> Iterator[Iterable[bytes]]:
    found = whole(scope.systems.filter(site=site), photos).order_by("name", "pk")
    for system in found.iterator(chunk_size=2 if photos else 50):  # photos are large
        yield [_json(_system(system, photos))]


def whole(systems: QuerySet[System], photos: bool) -> QuerySet[System]:
    """Systems with everything on record, in a bounded number of queries a chunk."""
    visits = Visit.objects.order_by("opened_at", "pk").select_related("opened_by")
    visits = visits.prefetch_related(Prefetch("entries", Entry.objects.select_related("made_by")))
    if photos:
        visits = visits.prefetch_related(
            Prefetch("photos", Photo.objects.order_by("made_at", "pk"))
        )
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
        "id": each.pk,
        "file": each.document,
        "figures": each.figures,
        "verdict": each.verdict,
        "made_at": each.made_at,
        "by": shown(each.made_by, each.by),
    }


def _visit(visit: Visit, photos: bool) -> dict[str, Any]:
    return {
        "id": visit.pk,
        "opened_at": visit.opened_at,
        "closed_at": visit.closed_at,
        "by": shown(visit.opened_by, visit.by),
        "file": visit.document,
        "learned": visit.learned,
        "entries": [
            {
                "id": e.id,
                "slot": e.slot,
                "value": e.value,
                "supersedes": e.supersedes,
                "at": e.made_at,
                "by": shown(e.made_by, e.by),
                **({"by_gauge": e.by_gauge} if e.by_gauge else {}),
            }
            for e in visit.entries.all()
        ],
        "photos": [*_photos(visit)] if photos else [],
    }


def _photos(visit: Visit) -> Iterator[dict[str, Any]]:
    for each in visit.photos.all():
        with suppress(NotFound):  # no picture after all
            data = b64encode(bytes(cleaned(each).data)).decode()
            head = {"id": each.pk, "plate": each.plate, "kind": each.kind, "at": each.made_at}
            yield {**head, "data": data}
