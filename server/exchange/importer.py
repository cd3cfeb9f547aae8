"""Taking an import: every piece of it, in one transaction, or none."""

from collections.abc import Iterable
from datetime import date, datetime
from typing import Any
from uuid import UUID

from django.utils import timezone

from accounts.models import Membership, User
from gauges.models import Gauge
from practice.selectors import stored_practice
from practice.services import store_practice
from sites.models import Decision, Site, System
from visits.models import Entry, Photo, Visit
from zerodip.fileformat.document import plain, read_document
from zerodip.switch.learned import learned_from

from .archive import DecisionItem, SystemItem, VisitItem
from .bench_importer import take_reference, take_switch
from .ids import Ids, ids_for
from .models import Change, Import, Piece
from .owned import changed_meanwhile, not_here, own

__all__ = ["take_pieces"]

_AT_ONCE = 200


def take_pieces(of: Import) -> None:
    """Stores what checking made ready. Called inside a transaction. Raises Conflict where something
    changed since."""
    people = _people(of.workspace_id)
    todo = of.pieces.filter(change__in=(Change.ADDED, Change.CHANGED))
    for piece in todo.filter(kind="gauge"):
        _gauge(of.workspace_id, _ready(piece))
    for piece in todo.filter(kind="reference"):
        take_reference(of.workspace_id, _ready(piece))
    for piece in todo.filter(kind="site"):
        _site(of.workspace_id, _ready(piece))
    last = -1
    while systems := list(todo.filter(kind="system", number__gt=last)[:_AT_ONCE]):
        _take_systems(of.workspace_id, systems, people)
        last = systems[-1].number
    for piece in todo.filter(kind="switch").iterator(chunk_size=10):
        take_switch(of.workspace_id, piece, people)
    # Last: it is carried into the systems that follow it.
    for piece in todo.filter(kind="practice"):
        _practice(of.workspace_id, _ready(piece))


def _ready(piece: Piece) -> dict[str, Any]:
    return dict(piece.prepared or {})


def _people(workspace_id: UUID) -> dict[str, User]:
    """Members by the name that others see: what they made elsewhere stays theirs."""
    members = Membership.objects.filter(workspace_id=workspace_id).select_related("user")
    return {each.user.shown: each.user for each in members}


def _practice(workspace_id: UUID, ready: dict[str, Any]) -> None:
    store_practice(stored_practice(workspace_id), ready["practice"], ready["sizes_m3"])


def _gauge(workspace_id: UUID, ready: dict[str, Any]) -> None:
    known = own(Gauge, [ready["id"]], "workspace_id", workspace_id)
    gauge = known.get(UUID(ready["id"])) or Gauge(
        id=ready["id"], workspace_id=workspace_id, version=0
    )
    gauge.data, gauge.wire = ready["data"], ready["wire"]
    gauge.retired = ready["retired"]
    gauge.checked_on = date.fromisoformat(ready["checked_on"]) if ready["checked_on"] else None
    gauge.version += 1
    gauge.save()


def _site(workspace_id: UUID, ready: dict[str, Any]) -> None:
    known = own(Site, [ready["id"]], "workspace_id", workspace_id)
    site = known.get(UUID(ready["id"])) or Site(id=ready["id"], workspace_id=workspace_id)
    site.name, site.units = ready["name"], ready["units"]
    site.save()


def _take_systems(workspace_id: UUID, pieces: list[Piece], people: dict[str, User]) -> None:
    whose = "site__workspace_id"
    stored = own(System, [_ready(piece)["id"] for piece in pieces], whose, workspace_id)
    sites = {_ready(piece)["site"] for piece in pieces}
    if len(own(Site, sites, "workspace_id", workspace_id)) != len(sites):
        raise changed_meanwhile()  # a site of the file is gone again
    new: list[System] = []
    changed: list[System] = []
    for piece in pieces:
        ready = _ready(piece)
        known = stored.get(UUID(ready["id"]))
        if (known.version if known else 0) != ready["version"]:
            raise changed_meanwhile(f"“{piece.name}”")
        if known is None or ready["summary"] is not None:
            (new if known is None else changed).append(_system(known, ready))
    System.objects.bulk_create(new)
    System.objects.bulk_update(
        changed, ["site", "name", "document", "summary", "retired_at", "version", "changed_at"]
    )
    _records(workspace_id, pieces, people)


def _system(known: System | None, ready: dict[str, Any]) -> System:
    system = known or System(id=ready["id"], version=0)
    system.site_id = UUID(ready["site"])
    system.document, system.summary = ready["document"], ready["summary"]
    system.name = ready["document"]["system"]["name"]
    system.retired_at = datetime.fromisoformat(ready["retired"]) if ready["retired"] else None
    system.version += 1
    system.changed_at = timezone.now()
    return system


def _records(workspace_id: UUID, pieces: list[Piece], people: dict[str, User]) -> None:
    """The visits, entries, photos and decisions that are not on record yet. Nothing on record is
    touched, but a visit that was open here and is closed there."""
    decisions: list[Decision] = []
    visits: list[Visit] = []
    entries: list[Entry] = []
    photos: list[Photo] = []
    for piece in pieces:
        item, ready = SystemItem.model_validate(piece.raw), _ready(piece)
        ids, system = ids_for(workspace_id, bool(ready["moved"])), UUID(ready["id"])
        decisions += (_decision(each, ids, system, people) for each in item.decisions)
        visits += (_visit(each, ids, system, people) for each in item.visits)
        entries += _entries(item.visits, ids, people)
        photos += _photos(item.visits, ids)
    Decision.objects.bulk_create(not_here(decisions, "system_id"), batch_size=2000)
    fresh = not_here(visits, "system_id")
    _close([visit for visit in visits if visit.closed_at is not None], workspace_id)
    Visit.objects.bulk_create(fresh, batch_size=2000)
    Entry.objects.bulk_create(not_here(entries, "visit_id"), batch_size=2000)
    Photo.objects.bulk_create(not_here(photos, "visit_id"), batch_size=200)


def _close(closed: list[Visit], workspace_id: UUID) -> None:
    """Closes what was left open here and is closed there."""
    open_here = Visit.objects.filter(
        pk__in=[visit.pk for visit in closed],
        closed_at=None,
        system__site__workspace_id=workspace_id,
    ).values_list("pk", flat=True)
    left_open = set(open_here)
    for visit in closed:
        if visit.pk in left_open:
            values = {
                "closed_at": visit.closed_at,
                "document": visit.document,
                "learned": visit.learned,
            }
            Visit.objects.filter(pk=visit.pk).update(**values)


def _by(field: str, name: str, people: dict[str, User]) -> dict[str, Any]:
    return {field: people.get(name), "by": name}


def _decision(each: DecisionItem, ids: Ids, system: UUID, people: dict[str, User]) -> Decision:
    return Decision(
        id=ids(each.id),
        system_id=system,
        document=each.file,
        figures=each.figures,
        verdict=each.verdict,
        made_at=each.made_at,
        **_by("made_by", each.by, people),
    )


def _visit(each: VisitItem, ids: Ids, system: UUID, people: dict[str, User]) -> Visit:
    return Visit(
        id=ids(each.id),
        system_id=system,
        opened_at=each.opened_at,
        closed_at=each.closed_at,
        document=each.file,
        learned=_learned(each),
        **_by("opened_by", each.by, people),
    )


def _learned(each: VisitItem) -> list[dict[str, Any]]:
    """What a visit learned, by nut; as it was written before, by the switch of the system's file
    then."""
    if each.learned or not each.slopes or each.file is None:
        return each.learned
    switch = read_document(each.file).system.switch.nuts
    return [plain(slope) for slope in learned_from(each.slopes, switch)]


def _entries(visits: Iterable[VisitItem], ids: Ids, people: dict[str, User]) -> list[Entry]:
    return [
        Entry(
            id=ids(e.id),
            visit_id=ids(visit.id),
            slot=e.slot,
            value=e.value,
            made_at=e.at,
            supersedes=ids(e.supersedes) if e.supersedes else None,
            by_gauge=e.by_gauge,
            **_by("made_by", e.by, people),
        )
        for visit in visits
        for e in visit.entries
    ]


def _photos(visits: Iterable[VisitItem], ids: Ids) -> list[Photo]:
    return [
        Photo(
            id=ids(p.id),
            visit_id=ids(visit.id),
            plate=p.plate,
            kind=p.kind,
            data=p.data,
            made_at=p.at,
        )
        for visit in visits
        for p in visit.photos
    ]
