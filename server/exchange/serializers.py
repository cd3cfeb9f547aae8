"""Imports as the API shows them."""

from common.errors import FaultOut
from common.schemas import Units

from .models import Change, Import, Piece, State
from .schemas import ImportOut, PieceOut, StoredFault
from .services import counts

__all__ = ["import_out", "piece_out"]


def import_out(of: Import) -> ImportOut:
    """How far an import is."""
    return ImportOut(
        id=of.pk,
        workspace=of.workspace_id,
        name=of.name,
        state=State(of.state),
        total=of.total,
        done=of.done,
        counts=counts(of),
    )


def piece_out(piece: Piece, units: Units) -> PieceOut:
    """What taking a piece would do, in words of a unit system."""
    return PieceOut(
        number=piece.number,
        kind=piece.kind,
        path=piece.path,
        line=piece.line,
        name=piece.name,
        change=Change(piece.change),
        says=piece.says,
        faults=[_fault_out(fault, units) for fault in piece.faults],
    )


def _fault_out(fault: StoredFault, units: Units) -> FaultOut:
    return FaultOut(path=fault["path"], code=fault["code"], message=fault[units], allowed="")
