"""How sure an answer is: what it may be off by, from what its inputs may be off by.

Each input quantity is moved to either end of its range, one at a time, through the plant's own
model; what an answer then moves by adds up as the root of the sum of squares, up and down apart.
Source: the Guide to the Expression of Uncertainty in Measurement, JCGM 100:2008 5.1.2 with finite
differences (from memory). Valid where inputs are independent and an answer turns no sharp corner
within their ranges; the Monte Carlo of the tests says how far that holds.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from zerodip.errors import InvalidInput
from zerodip.kinds.figures import Figures
from zerodip.kinds.inputs import Input
from zerodip.kinds.registry import kind_of
from zerodip.text.figure import Figure, Reading
from zerodip.units import number

__all__ = ["Spread", "spread_of", "spread_words"]


@dataclass(slots=True)
class Spread:
    """Within what an answer lies, 95 times in a hundred (SI; `most` is infinite where it may have
    no end), and how much each reading brings into that (variance, SI squared)."""

    value: float
    least: float
    most: float
    by: dict[Reading, float] = field(default_factory=dict)

    @property
    def narrow(self) -> Reading | None:
        """The reading that would narrow it most; None where nothing would."""
        return max(self.by, key=lambda reading: self.by[reading], default=None)


def spread_of(figures: Figures, of: Iterable[Figure[Any]]) -> Mapping[str, Spread]:
    """The spreads of figures that are known and that some input quantity moves.

    Args:
        figures: The system's figures under its settings.
        of: The figures asked for, each a number.

    Returns:
        Spreads by the figure's name.
    """
    wanted = {each.name: getattr(figures, each.name) for each in of}
    moves: dict[str, list[tuple[Input[Figures], float, float]]] = {}
    for each in kind_of(figures).inputs:
        names = [m.name for m in each.moves if _is_number(wanted.get(m.name))]
        for name, (down, up) in _moved(figures, each, names, wanted).items():
            moves.setdefault(name, []).append((each, down, up))
    most = kind_of(figures).bounds(figures)
    return {
        name: _spread(wanted[name], moved, most.get(name, math.inf))
        for name, moved in moves.items()
    }


def _is_number(value: Any) -> bool:
    return isinstance(value, float) and math.isfinite(value)


def _moved(
    figures: Figures, by: Input[Figures], names: Sequence[str], wanted: Mapping[str, float]
) -> dict[str, tuple[float, float]]:
    """How far one input takes each figure, down and up."""
    ends = {off for off in by.off(figures) if off}
    took: dict[str, tuple[float, float]] = {}
    for off in ends if names else ():
        try:
            at = by.moved(figures, off)
        except InvalidInput:  # no such system can be entered
            continue
        for name in names:
            value = getattr(at, name)
            step = (math.inf if value is None else value) - wanted[name]
            down, up = took.get(name, (0.0, 0.0))
            took[name] = (min(down, step), max(up, step))
    return took


def _spread(
    value: float, moved: Iterable[tuple[Input[Figures], float, float]], bound: float
) -> Spread:
    down = up = furthest = 0.0
    made = Spread(value, value, value)
    for each, lower, higher in moved:
        down, up = math.hypot(down, lower), math.hypot(up, higher)
        furthest = min(furthest, lower)
        share = max(lower**2, higher**2)
        if share > (1e-4 * value) ** 2:
            made.by[each.reading] = made.by.get(each.reading, 0.0) + share
    made.least, made.most = value - down, min(value + up, max(bound, value))
    if value >= 0:
        # What no input makes negative is not, by all of them; and one that empties a tank empties
        # it once: beyond such a corner moves do not add up.
        made.least = max(made.least, min(value + furthest, 0.0))
    return made


def spread_words(spread: Spread, dimension: str, system: str) -> str:
    """Within what an answer lies, as a person says it: "61 to 75"; empty where both ends are
    written alike.

    Args:
        spread: The spread.
        dimension: Dimension of the figure.
        system: Unit system of the text: "us", "metric" or "kpa".

    Returns:
        The words, without the unit.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    value, least = (number(each, dimension, system) for each in (spread.value, spread.least))
    least = _as_fine(least, value)
    if math.isinf(spread.most):
        return f"{least} or more"
    most = _as_fine(number(spread.most, dimension, system), value)
    return "" if most == least == value else f"{least} to {most}"


def _as_fine(shown: str, as_value: str) -> str:
    """A number written no finer than another, so that 1.6 lies within 0.4 to 2.8, not 0.42."""
    places = len(as_value.partition(".")[2])
    if len(shown.partition(".")[2]) <= places:
        return shown
    bare = f"{float(shown):.{places}f}"
    return bare.rstrip("0").rstrip(".") if places else bare
