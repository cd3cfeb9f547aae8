"""A refusal in words, as a problem (RFC 9457)."""

from collections.abc import Sequence
from typing import Any

from zerodip.errors import Fault

__all__ = ["REFUSED", "fault_out", "refusal"]

REFUSED = "Some values cannot be right"


def fault_out(fault: Fault, units: str) -> dict[str, str]:
    """A fault in words.

    Args:
        fault: The fault.
        units: Unit system of the words: "us", "metric" or "kpa".

    Returns:
        `path`, `code`, `message` and `allowed`, fit to be sent.
    """
    return {
        "path": _sayable(fault.path),
        "code": fault.code,
        "message": _sayable(fault.sentence(units)),
        "allowed": fault.allowed(units),
    }


def _sayable(text: str) -> str:
    """A text that may hold what was sent: halves of letters cannot be sent back."""
    return text.encode("utf-8", "replace").decode()


def refusal(faults: Sequence[Fault], units: str) -> dict[str, Any]:
    """The problem that says what is wrong with values, all of it.

    Args:
        faults: What is wrong.
        units: Unit system of the words: "us", "metric" or "kpa".

    Returns:
        `title`, `status` 422, `detail`, `faults`, `current`.
    """
    said = [fault_out(each, units) for each in faults]
    return {"title": REFUSED, "status": 422, "detail": "", "faults": said, "current": None}
