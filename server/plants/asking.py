"""Reading a what-if: the file and the draw together, so that all faults come at once."""

from zerodip.document import read_document
from zerodip.errors import Fault, InvalidInput
from zerodip.facts import Facts
from zerodip.fields import Spec, check

from .schemas import WhatIf

__all__ = ["asked"]

DRAW = Spec(kind="quantity", title="Draw", dimension="flow", least=0, most=0.1, optional=True, nullable=True)


def asked(body: WhatIf) -> tuple[Facts, float | None]:
    """The figures to judge, and the draw for the strip. Raises InvalidInput with every fault."""
    faults: list[Fault] = check(DRAW, body.draw_m3_s, "draw_m3_s")
    try:
        document = read_document(body.document.root)
    except InvalidInput as error:
        raise InvalidInput([*error.faults, *faults]) from error
    if faults:
        raise InvalidInput(faults)
    return Facts(document.system, document.settings, document.practice), body.draw_m3_s
