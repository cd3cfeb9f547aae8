"""What a visit learned of a switch's nuts, kept by the class of switch and by nut, so that it is
never taken for another's."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, quantity, read, words
from zerodip.switch.belief import Belief
from zerodip.switch.classes import CLASSES, CUT_IN, CUT_OUT

__all__ = [
    "Learned",
    "LearnedSlope",
    "by_class",
    "learned_from",
    "learned_of",
    "read_learned",
    "slopes_of",
]

Point = Literal["cut_in", "cut_out"]
_POINTS: dict[int, Point] = {CUT_IN: "cut_in", CUT_OUT: "cut_out"}
_MOST_PA = 7e6  # Pa a turn: far beyond any screw
_MOST_SLOPES = 16


@dataclass(frozen=True, kw_only=True)
class LearnedSlope(Checked):
    """How far one nut of a class of switch moves one point: mean and spread, Pa a turn."""

    switch: str = choice("Class of switch", tuple(CLASSES))
    nut: str = words("Nut", 20)
    point: str = choice("Point", tuple(_POINTS.values()))
    mean_pa: float = quantity("Pressure a turn", "pressure", -_MOST_PA, _MOST_PA)
    spread_pa: float = quantity("Its spread", "pressure", 0, _MOST_PA)


Learned = tuple[LearnedSlope, ...]


def learned_of(belief: Belief) -> Learned:
    """The slopes as they are believed now, for the next visit.

    Args:
        belief: What is believed of the switch.

    Returns:
        The slopes, by nut and point.
    """
    return tuple(
        LearnedSlope(
            switch=belief.of.id, nut=nut.id, point=_POINTS[point], mean_pa=mean, spread_pa=spread
        )
        for at, nut in enumerate(belief.of.nuts)
        for point in (CUT_IN, CUT_OUT)
        for mean, spread in [belief.slope(at, point)]
    )


def slopes_of(learned: Learned, switch: str) -> dict[tuple[str, int], tuple[float, float]]:
    """What was learned of a class of switch: mean and spread (Pa a turn) by nut and point; empty
    where it was another class.

    Args:
        learned: What earlier visits learned of the nuts.
        switch: Id of the class of switch.

    Returns:
        Mean and spread, Pa a turn, by nut and point.
    """
    at: dict[str, int] = {name: point for point, name in _POINTS.items()}
    return {(s.nut, at[s.point]): (s.mean_pa, s.spread_pa) for s in learned if s.switch == switch}


def by_class(learned: Learned, switch: str) -> bool:
    """Whether anything was learned of this class of switch.

    Args:
        learned: What earlier visits learned of the nuts.
        switch: Id of the class of switch.

    Returns:
        Whether there is any.
    """
    return any(slope.switch == switch for slope in learned)


def read_learned(raw: Any) -> tuple[Learned, list[Fault]]:
    """Reads a list of plain values: the slopes, or every fault. Numbers alone, as written before
    slopes were kept by nut, are read by `learned_from`, which knows the switch.

    Args:
        raw: A list of plain values.

    Returns:
        The slopes, and every fault.
    """
    if not isinstance(raw, list) or len(raw) > _MOST_SLOPES:
        says = f"must be a list of at most {_MOST_SLOPES}."
        return (), [
            Fault(path="", code="not_a_list", title="What was learned of the nuts", says=says)
        ]
    outcomes = [read(LearnedSlope, item, str(at)) for at, item in enumerate(raw)]
    faults = [fault for _, found in outcomes for fault in found]
    return (() if faults else tuple(slope for slope, _ in outcomes if slope)), faults


def learned_from(numbers: Iterable[float], switch: str) -> Learned:
    """What was learned as it was written before it was kept by nut: mean and spread of each nut on
    cut-in and cut-out, in the order of the nuts of that class of switch. Nothing where the count
    does not fit the class: it was another switch then.

    Args:
        numbers: The numbers, Pa a turn.
        switch: Id of the class of switch.

    Returns:
        The slopes; none where the count does not fit.
    """
    values, nuts = list(numbers), CLASSES[switch].nuts
    if len(values) != 4 * len(nuts) or min(values[1::2], default=0.0) < 0:
        return ()
    return tuple(
        LearnedSlope(
            switch=switch,
            nut=nut.id,
            point=_POINTS[point],
            mean_pa=values[k],
            spread_pa=values[k + 1],
        )
        for at, nut in enumerate(nuts)
        for point in (CUT_IN, CUT_OUT)
        for k in [4 * at + 2 * point]
    )
