"""What taking a piece would do: nothing is changed here."""

from collections.abc import Callable
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from gauges.models import Gauge
from practice.selectors import stored_practice
from sites.models import Decision, Site, System
from sites.summaries import summary_of
from visits.models import Entry, Photo, Visit
from visits.pictures import is_picture
from zerodip.answers.what_if import read_sizes
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import Document, plain, read_document
from zerodip.fileformat.fields import read
from zerodip.gauges import GaugeSpec
from zerodip.kinds.settings import Practice
from zerodip.switch.learned import read_learned
from zerodip.visit.validation import check_record
from zerodip.wire import WireSpec

from .archive import (
    GaugeItem,
    Item,
    PracticeItem,
    ReferenceItem,
    SiteHead,
    SwitchItem,
    SystemItem,
)
from .bench_validator import check_reference, check_switch
from .checking import Context, Found, refuse, under
from .ids import Ids
from .kept import Brought, Kept, closed_there, new_records, taken
from .models import Change, Piece
from .parser import printable

__all__ = ["check_piece"]


def check_piece(context: Context, piece: Piece) -> Found:
    """One piece: what it would do, or everything that is wrong with it. Pieces come in the order of
    the file."""
    found = _checked(context, piece)
    context.remember(piece, found)
    return found


def _checked(context: Context, piece: Piece) -> Found:
    shape, check = _KINDS[piece.kind]
    try:
        return check(context, piece, shape.model_validate(piece.raw))
    except ValidationError as error:
        return Found(
            Change.REFUSED,
            _name(piece.raw),
            faults=[_fault(piece.path, each) for each in error.errors()],
        )
    except InvalidInput as error:
        return Found(Change.REFUSED, _name(piece.raw), faults=list(error.faults))


def _name(raw: Any) -> str:
    """What a piece calls itself, though it may be wrong."""
    parts = (_get(raw, each) for each in ("gauge", "reference", "switch"))
    for at in (raw, _get(_get(raw, "file"), "system"), *parts):
        name = _get(at, "name")
        if isinstance(name, str):
            return printable(name, 80)
    return ""


def _get(raw: Any, name: str) -> Any:
    return raw.get(name) if isinstance(raw, dict) else None


def _fault(path: str, error: Any) -> Fault:
    steps = ".".join(str(step)[:60] for step in error["loc"])
    says = f"is refused: {str(error['msg'])[:160]}."
    last = str(error["loc"][-1])[:60] if error["loc"] else "piece"
    return Fault(path=f"{path}.{steps}", code=str(error["type"])[:40], title=f"“{last}”", says=says)


def _practice(context: Context, piece: Piece, item: PracticeItem) -> Found:
    practice, faults = read(Practice, item.practice)
    sizes, more = read_sizes(item.sizes_m3)
    if faults or more or practice is None:
        raise InvalidInput([*under("practice.practice", faults), *under("practice", more)])
    prepared = {
        "id": "practice",
        "practice": {**plain(practice), "follows": "workspace"},
        "sizes_m3": sizes,
    }
    known = stored_practice(context.workspace_id)
    same = (known.practice, known.sizes_m3) == (prepared["practice"], sizes)
    return Found(Change.SAME if same else Change.CHANGED, "Practice", prepared=prepared)


def _gauge(context: Context, piece: Piece, item: GaugeItem) -> Found:
    described, faults = read(GaugeSpec, item.gauge)
    wire, wrong = (None, []) if item.wire is None else read(WireSpec, item.wire, "wire")
    if faults or wrong or described is None:
        faults = under(f"{piece.path}.gauge", faults) + under(piece.path, wrong)
        raise InvalidInput(faults)
    ids, known = context.stored(Gauge, item.id, "workspace_id")
    id = ids(item.id)
    says = context.twice(piece, id)
    if says:
        raise refuse("The gauge", piece.path, says)
    checked = item.checked_on.isoformat() if item.checked_on else None
    prepared = {
        "id": str(id),
        "data": plain(described),
        "wire": None if wire is None else plain(wire),
        "checked_on": checked,
        "retired": item.retired,
    }
    if known is None:
        return Found(Change.ADDED, described.name, prepared=prepared)
    same = (known.data, known.wire, known.checked_on, known.retired) == (
        prepared["data"],
        prepared["wire"],
        item.checked_on,
        item.retired,
    )
    return Found(Change.SAME if same else Change.CHANGED, described.name, prepared=prepared)


def _site(context: Context, piece: Piece, item: SiteHead) -> Found:
    ids, known = context.stored(Site, item.id, "workspace_id")
    id = ids(item.id)
    others = Site.objects.filter(workspace_id=context.workspace_id, name=item.name).exclude(pk=id)
    says = (
        "has the name of another site here."
        if others.exists()
        else context.twice(piece, id, item.name)
    )
    if says:
        raise refuse(f"The site “{item.name}”", f"{piece.path}.name", says)
    prepared = {"id": str(id), "name": item.name, "units": item.units}
    if known is None:
        return Found(Change.ADDED, item.name, prepared=prepared)
    same = (known.name, known.units) == (item.name, item.units)
    return Found(Change.SAME if same else Change.CHANGED, item.name, prepared=prepared)


def _system(context: Context, piece: Piece, item: SystemItem) -> Found:
    faults = _record_faults(item, piece.path)
    try:
        document = read_document(item.file).following(context.practice)
    except InvalidInput as error:
        raise InvalidInput([*under(f"{piece.path}.file", error.faults), *faults]) from None
    name, site = document.system.name, context.sites.get(piece.site or 0)
    if not name:
        faults.append(
            Fault(
                path=f"{piece.path}.file.system.name",
                code="missing",
                title="Name",
                says="is missing.",
            )
        )
    ids, known = context.stored(System, item.id, "site__workspace_id")
    id = ids(item.id)
    says = _clash(context, piece, id, site, name) if site else "stands on a site that is refused."
    says = says or taken(_RECORDS, id, _brought(item, ids))
    if says:
        faults.append(
            Fault(path=piece.path, code="refused", title=f"The system “{name}”", says=says)
        )
    if faults:
        raise InvalidInput(faults)
    return _compared(known, item, ids, site, document)


def _clash(context: Context, piece: Piece, id: UUID, site: UUID, name: str) -> str:
    if System.objects.filter(site_id=site, name=name).exclude(pk=id).exists():
        return "has the name of another system on this site."
    return context.twice(piece, id, name)


_RECORDS = (
    Kept("visits", Visit, "pk", "system_id"),
    Kept("decisions", Decision, "pk", "system_id"),
    Kept("records", Entry, "id", "visit__system_id"),
    Kept("photos", Photo, "pk", "visit__system_id"),
)


def _brought(item: SystemItem, ids: Ids) -> Brought:
    """The ids of what a piece brings, as they are or will be here."""
    found = {
        "visits": [v.id for v in item.visits],
        "decisions": [d.id for d in item.decisions],
        "records": [e.id for v in item.visits for e in v.entries],
        "photos": [p.id for v in item.visits for p in v.photos],
    }
    return {word: [ids(each) for each in brought] for word, brought in found.items()}


def _record_faults(item: SystemItem, path: str) -> list[Fault]:
    faults: list[Fault] = []
    for v, visit in enumerate(item.visits):
        if visit.closed_at is not None and visit.closed_at < visit.opened_at:
            says = "must not lie before its opening."
            faults.append(
                Fault(
                    path=f"{path}.visits.{v}.closed_at",
                    code="order",
                    title="Closing of a visit",
                    says=says,
                )
            )
        for e, entry in enumerate(visit.entries):
            faults += under(f"{path}.visits.{v}.entries.{e}", check_record(entry.slot, entry.value))
        for p, photo in enumerate(visit.photos):
            if not is_picture(photo.data):
                at = f"{path}.visits.{v}.photos.{p}.data"
                says = "must be a JPEG or PNG, of at most 50 million points."
                faults.append(Fault(path=at, code="not_a_photo", title="A photo", says=says))
        faults += _file_faults(visit.file, f"{path}.visits.{v}.file")
        faults += under(f"{path}.visits.{v}.learned", read_learned(visit.learned)[1])
    for d, decision in enumerate(item.decisions):
        faults += _file_faults(decision.file, f"{path}.decisions.{d}.file")
    return faults


def _file_faults(raw: Any, path: str) -> list[Fault]:
    try:
        if raw is not None:
            read_document(raw)
    except InvalidInput as error:
        return under(path, error.faults)
    return []


def _compared(
    known: System | None, item: SystemItem, ids: Ids, site: UUID | None, document: Document
) -> Found:
    id, name = ids(item.id), document.system.name
    prepared: dict[str, Any] = {
        "id": str(id),
        "site": str(site),
        "document": document.as_json(),
        "retired": item.retired_at.isoformat() if item.retired_at else None,
        "moved": ids(item.id) != item.id,
    }
    if known is None:
        return Found(
            Change.ADDED,
            name,
            _counted(item),
            prepared={**prepared, "summary": summary_of(document), "version": 0},
        )
    prepared["version"] = known.version
    differs, says = _differs(known, prepared), _new_records(known, item, ids)
    prepared["summary"] = summary_of(document) if differs else None
    change = Change.CHANGED if differs or says else Change.SAME
    return Found(
        change, name, ", ".join([*(["the file"] if differs else []), *says]), prepared=prepared
    )


def _counted(item: SystemItem) -> str:
    return f"{len(item.visits)} visit{'' if len(item.visits) == 1 else 's'}"


def _differs(known: System, prepared: dict[str, Any]) -> bool:
    retired = known.retired_at.isoformat() if known.retired_at else None
    stands = (str(known.site_id), known.document, retired)
    return stands != (prepared["site"], prepared["document"], prepared["retired"])


def _new_records(known: System, item: SystemItem, ids: Ids) -> list[str]:
    said = new_records(_RECORDS, known.pk, _brought(item, ids))
    return [*said, *closed_there(known.visits.filter(closed_at=None), item.visits, ids)]


_KINDS: dict[str, tuple[type[Item], Callable[[Context, Piece, Any], Found]]] = {
    "practice": (PracticeItem, _practice),
    "gauge": (GaugeItem, _gauge),
    "reference": (ReferenceItem, check_reference),
    "site": (SiteHead, _site),
    "system": (SystemItem, _system),
    "switch": (SwitchItem, check_switch),
}
