"""How the switch of a visit stands: what is believed of it, what it is to reach, and what a look
takes."""

import math
from collections.abc import Sequence
from dataclasses import replace

from zerodip.kinds.figures import Figures
from zerodip.kinds.limits import highest_allowed_pa, lowest_limit
from zerodip.kinds.registry import kind_of
from zerodip.switch.belief import Belief, Watch
from zerodip.switch.classes import SwitchClass, class_of
from zerodip.switch.goal import HOW_NEARS, Goal, HowNear, Work
from zerodip.switch.learned import Learned, slopes_of
from zerodip.switch.watching import believed
from zerodip.units import PSI
from zerodip.visit.log import Log
from zerodip.visit.records import Try, Turned
from zerodip.visit.slots import (
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    GAUGE_ERROR,
    HOW_NEAR,
    SWITCH_REPLACED,
    TRY,
)

__all__ = [
    "belief_of",
    "class_for",
    "found_points",
    "goal_of",
    "made_turns",
    "near_of",
    "noise_pa",
    "reading_noise_pa",
    "tries_of",
    "was_replaced",
    "watches_of",
    "work_of",
]

ROUNDING_PA = 1.0 * PSI / 12**0.5  # a gauge is read to the next psi
USUAL_ERROR_PA, _LEAST_NOISE_PA = 1.5 * PSI, 0.2 * PSI
_RUNS_A_LOOK = 3.0  # a run and its rest at the worst draw, half the pump's flow
_LEAST_LOOK_S, _MOST_LOOK_S = 45.0, 1800.0


def noise_pa(log: Log) -> float:
    """How far a reading with the gauge of this visit may be off by chance.

    Args:
        log: The visit's log.

    Returns:
        One standard deviation, Pa.
    """
    error = log.value(GAUGE_ERROR)
    return reading_noise_pa() if error is None else reading_noise_pa(float(error))


def reading_noise_pa(error_pa: float = USUAL_ERROR_PA) -> float:
    """How far a reading may be off by chance: a gauge's error is seldom all chance, so half of it,
    and the reading to the next psi.

    Args:
        error_pa: What the gauge reads to within, Pa, 0 or more.

    Returns:
        One standard deviation, Pa.

    Source: Common practice, no source.
    """
    return max(math.hypot(0.5 * error_pa, ROUNDING_PA), _LEAST_NOISE_PA)


def near_of(log: Log) -> HowNear:
    """How near was asked for; as near as the gauge can tell where nobody did.

    Args:
        log: The visit's log.

    Returns:
        How near.
    """
    return HOW_NEARS[log.value(HOW_NEAR) or "gauge"]


def class_for(figures: Figures) -> SwitchClass:
    """The class of a system's switch.

    Args:
        figures: The system's figures under its settings.

    Returns:
        The class, over the springs that its kind has.
    """
    return class_of(figures.switch.nuts, kind_of(figures).stiff_switch)


def was_replaced(log: Log) -> bool:
    """Whether a new switch was put in on this visit.

    Args:
        log: The visit's log.

    Returns:
        Whether it was.
    """
    return bool(log.value(SWITCH_REPLACED))


def found_points(log: Log) -> tuple[float, float] | None:
    """The points as found; those of a switch that was replaced since say nothing of the new one.

    Args:
        log: The visit's log.

    Returns:
        Cut-in and cut-out, Pa gauge; None where either was not read.
    """
    low, high = log.value(FOUND_CUT_IN), log.value(FOUND_CUT_OUT)
    return None if low is None or high is None or was_replaced(log) else (float(low), float(high))


def tries_of(log: Log) -> list[tuple[str, Try]]:
    """The tries with their entries: those at the switch that is there now.

    Args:
        log: The visit's log.

    Returns:
        Entry and try, oldest first.
    """
    pairs = zip(log.records_in(TRY), log.all(TRY), strict=True)
    replaced = log.record(SWITCH_REPLACED)
    since = replaced.at if replaced and replaced.value else ""
    return [(record.id, each) for record, each in pairs if not since or record.at > since]


def made_turns(of: Try | Turned, nuts: Sequence[object]) -> tuple[float, ...]:
    """The turns of a record, of as many nuts as there are.

    Args:
        of: The record.
        nuts: The switch's nuts.

    Returns:
        Turns of each nut, clockwise positive.
    """
    return (of.first, of.second)[: len(nuts)]


def watches_of(log: Log, nuts: Sequence[object]) -> list[Watch]:
    """What was seen of the switch that is there now: as found, and every look since.

    Args:
        log: The visit's log.
        nuts: The switch's nuts.

    Returns:
        The looks, oldest first; none before both points were read once.
    """
    found = found_points(log)
    first = [] if found is None else [Watch(*found, (0.0,) * len(nuts))]
    looks = (each for _, each in tries_of(log))
    return [
        *first,
        *(Watch(t.cut_in_gauge_pa, t.cut_out_gauge_pa, made_turns(t, nuts)) for t in looks),
    ]


def belief_of(figures: Figures, log: Log, learned: Learned = ()) -> Belief | None:
    """What is believed of this switch after the tries so far. What was learned of another class of
    switch, or of one that was replaced, does not count.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        learned: What earlier visits learned of the nuts.

    Returns:
        The belief; None before both points were read once.
    """
    kind = class_for(figures)
    watches = watches_of(log, kind.nuts)
    if not watches:
        return None
    slopes = {} if was_replaced(log) else slopes_of(learned, kind.id)
    return believed(kind, watches, noise_pa(log), slopes)


def goal_of(figures: Figures, log: Log, order: str, eager: bool) -> Goal:
    """The targets and limits as this gauge shows them, and how near is near enough.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        order: "together" or "first".
        eager: Turn rather than watch once more.

    Returns:
        The goal.
    """
    low, limits = log.low_by(TRY), kind_of(figures).limits
    most, highest = lowest_limit(limits, figures), highest_allowed_pa(limits, figures)
    found = found_points(log)
    alone = figures.practice.differential_school == "leave"
    return Goal(
        cut_in_pa=figures.cut_in_pa - low,
        cut_out_pa=figures.cut_out_pa - low,
        tolerance_pa=near_of(log).tolerance_pa(noise_pa(log)),
        highest_pa=None if highest is None else highest - low,
        stood_pa=None if found is None else found[1],
        most_pa=float("inf") if most is None else most - low,
        order=order,
        leave=frozenset({"differential"} if alone else ()),
        eager=eager,
    )


def work_of(figures: Figures, log: Log) -> Work:
    """What a look at this system takes: a run and its rest at the worst draw, as far as the run is
    known.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.

    Returns:
        The work.
    """
    asked = Work(noise_pa=noise_pa(log), missed_s=near_of(log).missed_s)
    run_s = kind_of(figures).diagnosis.run_s(figures)
    if run_s is None or not math.isfinite(run_s):
        return asked
    return replace(asked, look_s=min(max(_RUNS_A_LOOK * run_s, _LEAST_LOOK_S), _MOST_LOOK_S))
