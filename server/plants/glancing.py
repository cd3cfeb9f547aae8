"""What Rounds shows of a system, worked out when it is saved."""

from dataclasses import asdict
from typing import Any

from zerodip.document import Document
from zerodip.glance import glance

__all__ = ["glance_of"]


def glance_of(document: Document) -> dict[str, Any]:
    """What Rounds shows of a system, as plain values."""
    return asdict(glance(document.system, document.settings, document.practice))
