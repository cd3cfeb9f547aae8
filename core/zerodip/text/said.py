"""One thing said of what was read or measured, and the order in which such things are said."""

from collections.abc import Iterable
from dataclasses import dataclass

__all__ = ["Said", "gravest_first"]

_WEIGHTS = ("danger", "warning", "notice", "good")


@dataclass(frozen=True)
class Said:
    """One thing said: a name, its weight ("danger", "warning", "notice", "good"), title and
    text."""

    id: str
    weight: str
    title: str
    text: str = ""


def gravest_first(said: Iterable[Said]) -> list[Said]:
    """What is said in the order of its weight, else as it came.

    Args:
        said: What is said.

    Returns:
        The same, in order.
    """
    return sorted(said, key=lambda each: _WEIGHTS.index(each.weight))
