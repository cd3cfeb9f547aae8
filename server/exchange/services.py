"""An import, step by step: begun with a file, checked a second's work at a time so that it shows
how far it is and can be cancelled between any two, taken in one transaction, then finished. Each
step is a request: nothing runs on its own."""

from hashlib import sha256
from time import monotonic
from uuid import UUID

from django.db import IntegrityError, OperationalError
from django.db.models import Count

from accounts.permissions import Actor, require
from audit.services import log_event
from calibrations.models import Device
from calibrations.services import refresh_due
from common.errors import Conflict, NotFound
from common.idempotency import same_again, stored_already
from common.transactions import CROSSED, serialisable, write
from sites.models import System
from visits.experience import keep_outcomes
from visits.next_checks import refresh_next_checks
from zerodip.errors import Fault, InvalidInput

from .checking import Context, Found
from .importer import take_pieces
from .line_numbers import lines_of
from .models import Change, Import, Piece, State
from .parser import MOST_BYTES, cut, parsed, printable
from .schemas import StoredFault
from .validator import check_piece

__all__ = ["begin", "cancel", "counts", "go_on", "import_for_actor", "pieces_of", "take"]

_STEP_S = 0.8
_MOST_FAULTS = 20
_FINISHED_AT_ONCE = 200


def import_for_actor(actor: Actor, import_id: UUID, lock: bool = False) -> Import:
    """An import of one of the actor's workspaces. Raises NotFound, Forbidden."""
    found = Import.objects.filter(workspace__in=actor.workspaces("archive.read"))
    of = (found.select_for_update() if lock else found).filter(pk=import_id).first()
    if of is None:
        raise NotFound
    require(actor, "archive.take", of.workspace_id)
    return of


@write
def begin(actor: Actor, workspace_id: UUID, import_id: UUID, name: str, data: bytes) -> Import:
    """An import under the id given, its file cut into pieces. Safe to repeat. Earlier ones of this
    person are let go. Raises InvalidInput, NotFound, Forbidden."""
    require(actor, "archive.take", workspace_id)
    known = stored_already(Import.objects.filter(pk=import_id), workspace_id=workspace_id)
    digest = sha256(data).hexdigest()
    if known is not None:
        stored = {"name": known.name, "sha256": known.digest}
        same_again(stored, {"name": printable(name, 120), "sha256": digest})
        return known
    if len(data) > MOST_BYTES:
        says = f"is larger than {MOST_BYTES // 1_000_000} MB; take it in parts, site by site."
        raise InvalidInput([Fault(path="file", code="too_large", title="The file", says=says)])
    pieces, lines = cut(parsed(data)), lines_of(data.decode("utf-8-sig"))
    earlier = Import.objects.filter(workspace_id=workspace_id, made_by=actor.user)
    list(earlier.select_for_update().order_by("pk"))  # their own step, if one runs, ends first
    earlier.delete()
    of = Import.objects.create(
        id=import_id,
        workspace_id=workspace_id,
        made_by=actor.user,
        name=printable(name, 120),
        digest=digest,
        total=len(pieces),
    )
    Piece.objects.bulk_create(
        (
            Piece(
                of=of,
                number=n,
                kind=p.kind,
                path=p.path,
                raw=p.raw,
                site=p.site,
                line=lines.get(p.path, 0),
            )
            for n, p in enumerate(pieces)
        ),
        batch_size=500,
    )
    return of


@write
def go_on(actor: Actor, import_id: UUID) -> Import:
    """A second's work: checks the next pieces, or, once taken, works out what Rounds shows of the
    next systems and switches. Raises NotFound, Forbidden."""
    of = import_for_actor(actor, import_id, lock=True)
    if of.state == State.CHECKING:
        _check_some(of)
    elif of.state == State.TAKEN:
        _finish_some(of)
    return of


def _check_some(of: Import) -> None:
    context, end = Context(of), monotonic() + _STEP_S
    # One at a time: a hundred large ones would lie in memory together.
    for piece in of.pieces.filter(number__gte=of.done)[:100].iterator(chunk_size=1):
        _keep(piece, check_piece(context, piece))
        of.done = piece.number + 1
        if monotonic() > end:
            break
    if of.done >= of.total:
        of.state = State.READY
    of.save(update_fields=["done", "state"])


def _keep(piece: Piece, found: Found) -> None:
    piece.change, piece.name, piece.prepared = found.change, found.name[:80], found.prepared
    piece.says = found.says[:200]
    piece.item = found.id
    piece.faults = [_stored(fault) for fault in found.faults[:_MOST_FAULTS]]
    piece.save(update_fields=["change", "name", "prepared", "says", "item", "faults"])


def _stored(fault: Fault) -> StoredFault:
    return StoredFault(
        path=fault.path[:200],
        code=fault.code,
        us=fault.sentence("us"),
        metric=fault.sentence("metric"),
        kpa=fault.sentence("kpa"),
    )


def counts(of: Import) -> dict[str, int]:
    """How many pieces would be added, changed, stay the same, or are refused."""
    counted = of.pieces.exclude(change="").values_list("change").annotate(Count("pk"))
    return {**dict.fromkeys(Change.values, 0), **dict(counted)}


def pieces_of(of: Import, change: str | None, after: int, most: int = 100) -> list[Piece]:
    """The pieces checked so far, in the order of the file, from `after` on."""
    found = of.pieces.exclude(change="").filter(number__gt=after).defer("raw", "prepared")
    return list((found.filter(change=change) if change else found)[:most])


def take(actor: Actor, import_id: UUID) -> Import:
    """Takes all of it in, or nothing. Safe to repeat. Raises Conflict (not checked to the end,
    something refused, or changed since), NotFound, Forbidden."""
    try:
        with serialisable():
            return _take(actor, import_id)
    except (IntegrityError, OperationalError) as error:
        if isinstance(error, OperationalError) and not isinstance(error.__cause__, CROSSED):
            raise
        raise Conflict(
            "Something here changed since the file was checked. Check it again.", {}
        ) from None


def _take(actor: Actor, import_id: UUID) -> Import:
    of = import_for_actor(actor, import_id, lock=True)
    if of.state in (State.TAKEN, State.DONE):
        return of
    counted = counts(of)
    if of.state != State.READY or counted[Change.REFUSED]:
        raise Conflict("Nothing is taken while a piece is refused or not checked yet.", {})
    take_pieces(of)
    of.state, of.done = State.TAKEN, 0
    of.save(update_fields=["state", "done"])
    log_event(actor.user, "archive.take", of.workspace_id, name=of.name, **counted)
    return of


def _finish_some(of: Import) -> None:
    end = monotonic() + _STEP_S
    while monotonic() < end and of.done < of.total:
        pieces = list(of.pieces.filter(number__gte=of.done).defer("raw")[:_FINISHED_AT_ONCE])
        moved = System.objects.filter(pk__in=_moved(pieces, "system"))
        refresh_next_checks(moved)
        keep_outcomes(moved)
        for device in Device.objects.filter(pk__in=_moved(pieces, "switch")):
            refresh_due(device)
        of.done = pieces[-1].number + 1 if pieces else of.total
    if of.done >= of.total:
        of.state = State.DONE
    of.save(update_fields=["done", "state"])


def _moved(pieces: list[Piece], kind: str) -> list[UUID]:
    changes = (Change.ADDED, Change.CHANGED)
    todo = [each for each in pieces if each.kind == kind and each.change in changes]
    return [each.item for each in todo if each.item is not None]


@write
def cancel(actor: Actor, import_id: UUID) -> None:
    """Lets an import go. What was taken stays taken. Raises NotFound, Forbidden."""
    import_for_actor(actor, import_id, lock=True).delete()
