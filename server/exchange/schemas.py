"""What the operations on open files give."""

from typing import TypedDict
from uuid import UUID

from ninja import Schema

from common.errors import FaultOut

from .models import Change, State


class ImportOut(Schema):
    """How far an import is: `done` of `total` pieces checked (or, once taken, finished), and what
    taking it would do."""

    id: UUID
    workspace: UUID
    name: str
    state: State
    total: int
    done: int
    counts: dict[str, int]


class PieceOut(Schema):
    """One piece: where it stands in the file, what taking it would do, and why it is refused."""

    number: int
    kind: str
    path: str
    line: int
    name: str
    change: Change
    says: str
    faults: list[FaultOut]


class StoredFault(TypedDict):
    """A fault as it is kept with its piece: its sentence in each unit system."""

    path: str
    code: str
    us: str
    metric: str
    kpa: str
