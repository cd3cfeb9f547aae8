"""What Rounds shows of a system, worked out when it is saved."""

from dataclasses import asdict
from typing import Any

from zerodip.decide.summary import summarize
from zerodip.fileformat.document import Document

__all__ = ["summary_of"]


def summary_of(document: Document) -> dict[str, Any]:
    """What Rounds shows of a system, as plain values."""
    return asdict(summarize(document.system, document.settings, document.practice))
