"""What is only known within something: readings by a gauge, a plate, an estimate, a usual value.

An input quantity (the words are those of the Guide to the Expression of Uncertainty in Measurement,
JCGM 100:2008, from memory) says how far it may be off and which figures move with it; what an
answer may be off by is worked out from that, by its own model.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from zerodip.kinds.figures import Figures
from zerodip.text.figure import Figure, Reading

__all__ = ["DOUBLED", "Input", "Off", "within"]

F = TypeVar("F", bound=Figures)
Off = tuple[float, ...]
# A usual value that nobody read: from half of it to twice. Common practice, no source.
DOUBLED: Off = (-0.5, 1.0)


@dataclass(frozen=True, kw_only=True)
class Input(Generic[F]):
    """One input quantity. `reading` is what would make it surer. `off` tells how far it may be off,
    down and up, 95 times in a hundred, in what `moved` takes: an amount, or a share of it
    (points between as well, where a figure turns on the way); 0 where it does not enter.
    `moved` gives the figures with it off by that, `moves` are the figures that then differ.
    `path` is the field of the file that it stands at, "" for none: there it may be a usual
    value."""

    reading: Reading
    off: Callable[[F], Off]
    moved: Callable[[F, float], F]
    moves: tuple[Figure[Any], ...]
    path: str = ""

    def assumed(self, figures: F) -> bool:
        """Whether a usual value stands for it."""
        return bool(self.path) and figures.is_assumed(self.path)


def within(path: str, share: float) -> Callable[[Figures], Off]:
    """How far what stands at a path of the file may be off: a share of it where it was read, from
    half to twice where it is a usual value.

    Args:
        path: The field of the file.
        share: Share, 95 times in a hundred.

    Returns:
        How far, down and up, as shares.
    """
    return lambda figures: DOUBLED if figures.is_assumed(path) else (-share, share)
