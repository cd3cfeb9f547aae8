"""Arrays of figures and of places, and records of arrays that are as long as each other."""

from collections.abc import Iterator, Sequence
from dataclasses import fields
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

__all__ = ["Floats", "Places", "blocks", "joined", "middles", "taken"]

Floats = NDArray[np.float64]
Places = NDArray[np.intp]
T = TypeVar("T")
_BLOCK = 65_536  # samples whose figures stay beside the processor


def blocks(values: Floats) -> Iterator[tuple[int, Floats]]:
    """A long line in short pieces, each from where the one before ended: figures worked out of a
    piece stay beside the processor, which is several times as fast as going to memory for them.

    Args:
        values: The line.

    Yields:
        Where each piece begins, and the piece; its last sample is the next one's first.
    """
    for first in range(0, max(len(values) - 1, 0), _BLOCK):
        yield first, values[first : first + _BLOCK + 1]


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


def middles(rows: Floats) -> Floats:
    """The middle of each three samples that lie beside each other: one alone may be a spike.

    Args:
        rows: Lines, one a row, three samples or more.

    Returns:
        Rows without their first and their last.
    """
    before, here, after = rows[:, :-2], rows[:, 1:-1], rows[:, 2:]
    least, most = np.minimum(before, here), np.maximum(before, here)
    middle: Floats = np.maximum(least, np.minimum(most, after))
    return middle
