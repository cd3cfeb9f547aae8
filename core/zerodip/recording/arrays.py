"""Arrays of figures and of places, and records of arrays that are as long as each other."""

from collections.abc import Sequence
from dataclasses import fields
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

__all__ = ["Floats", "Places", "joined", "taken"]

Floats = NDArray[np.float64]
Places = NDArray[np.intp]
T = TypeVar("T")


def joined(parts: Sequence[T]) -> T:
    """Records one after the other.

    Args:
        parts: One or more of a dataclass whose fields are arrays.

    Returns:
        One of them all.
    """
    of: Any = type(parts[0])
    made: T = of(*(np.concatenate([getattr(p, e.name) for p in parts]) for e in fields(of)))
    return made


def taken(of: T, which: "slice | NDArray[np.bool_] | Places") -> T:
    """Some of a record.

    Args:
        of: A dataclass whose fields are arrays.
        which: Those that are taken.

    Returns:
        A record of those.
    """
    record: Any = of
    return type(of)(*(getattr(of, each.name)[which] for each in fields(record)))
