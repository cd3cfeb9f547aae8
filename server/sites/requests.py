"""Reading what is asked: the file and what goes with it together, so that all faults come at
once."""

from typing import Any

from practice.services import read_sizes
from zerodip.decide.size import Target
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.fields import Spec, check

from .schemas import SizesWanted, WhatIf

__all__ = ["asked", "asked_sizes"]

DRAW = Spec(
    kind="quantity", title="Draw", dimension="flow", least=0, most=0.1, optional=True, nullable=True
)
KIND = Spec(kind="choice", title="What is wanted", options=("run", "starts"))
VALUES = {
    "run": Spec(kind="quantity", title="Run wanted", dimension="duration", least=1, most=3600),
    "starts": Spec(
        kind="quantity", title="Starts wanted", dimension="rate", least=0.1 / 3600, most=2
    ),
}


def asked(body: WhatIf) -> tuple[Document, float | None]:
    """The file to judge, and the draw to simulate. Raises InvalidInput with every fault."""
    return _read(body.document.root, check(DRAW, body.draw_m3_s, "draw_m3_s")), body.draw_m3_s


def asked_sizes(body: SizesWanted) -> tuple[Document, Target | None, list[float] | None]:
    """The file to size, the target and the nominal sizes (None: the usual). Raises InvalidInput
    with every fault."""
    target, faults = _target(body.target)
    sizes, more = read_sizes(body.sizes_m3)
    return _read(body.document.root, [*faults, *more]), target, sizes


def _read(raw: Any, faults: list[Fault]) -> Document:
    try:
        document = read_document(raw)
    except InvalidInput as error:
        raise InvalidInput([*error.faults, *faults]) from error
    if faults:
        raise InvalidInput(faults)
    return document


def _target(raw: Any) -> tuple[Target | None, list[Fault]]:
    if raw is None:
        return None, []
    given = raw if isinstance(raw, dict) else {}
    faults = check(KIND, given.get("kind"), "target.kind")
    if not faults:
        faults = check(VALUES[given["kind"]], given.get("value"), "target.value")
    return (
        (None, faults) if faults else (Target(kind=given["kind"], value=float(given["value"])), [])
    )
