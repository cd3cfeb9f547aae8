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

__all__ = ["DOUBLED", "Input", "Off", "gauge_off", "half_gauge_off", "point_inputs", "within"]

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


def gauge_off(figures: Figures) -> Off:
    """What the gauge may be off by, either way.

    Args:
        figures: The system's figures under its settings.

    Returns:
        How far, down and up, Pa.
    """
    return -figures.gauge_error_pa, figures.gauge_error_pa


def half_gauge_off(figures: Figures) -> Off:
    """Half of that: chance from reading to reading.

    Args:
        figures: The system's figures under its settings.

    Returns:
        How far, down and up, Pa.
    """
    return -figures.gauge_error_pa / 2, figures.gauge_error_pa / 2


def _points(figures: F, low: float, high: float) -> F:
    """Cut-in and cut-out elsewhere, and still apart."""
    cut_in = max(figures.cut_in_pa + low, 0.0)
    cut_out = max(figures.cut_out_pa + high, cut_in + 1.0)
    return figures.varied({Figures.cut_in_pa: cut_in, Figures.cut_out_pa: cut_out})


_FINER = Reading("practice.gauge_error_pa", "cut-in and cut-out on a finer gauge")
Moves = tuple[Figure[Any], ...]


def point_inputs(both: Moves, low: Moves, high: Moves) -> tuple[Input[Any], ...]:
    """Both points as the gauge shows them: off alike by the gauge, and each by chance.

    Args:
        both: The figures that move with both points.
        low: Those that move with cut-in.
        high: Those that move with cut-out.

    Returns:
        The three input quantities.
    """
    return (
        Input(
            reading=_FINER,
            off=gauge_off,
            moved=lambda figures, by: _points(figures, by, by),
            moves=both,
        ),
        Input(
            reading=_FINER,
            off=half_gauge_off,
            moved=lambda figures, by: _points(figures, by, 0.0),
            moves=low,
        ),
        Input(
            reading=_FINER,
            off=half_gauge_off,
            moved=lambda figures, by: _points(figures, 0.0, by),
            moves=high,
        ),
    )
