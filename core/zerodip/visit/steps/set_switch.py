"""Setting the switch, one instruction at a time."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from zerodip.kinds.figures import Figures
from zerodip.kinds.limits import highest_allowed_pa, lowest_limit
from zerodip.kinds.registry import kind_of
from zerodip.switch.belief import CLASSES, CUT_IN, CUT_OUT, Belief, predict, prior, update
from zerodip.switch.health import Complaint, Watch, complaints, gauge_resolves
from zerodip.switch.learned import Learned, by_class, learned_of, slopes_of
from zerodip.switch.planner import Goal, Step, bound_pa, next_step, within
from zerodip.switch.words import expected_says, learned_says, step_says, turn_words, unresolved_says
from zerodip.units import PSI
from zerodip.visit.log import Log
from zerodip.visit.records import Try, Turned
from zerodip.visit.slots import FOUND_CUT_IN, FOUND_CUT_OUT, GAUGE_ERROR, SWITCH_REPLACED, TRY

__all__ = ["NutView", "SetView", "TryView", "Turn", "belief_of", "set_view"]

ROUNDING_PA = 1.0 * PSI / 12**0.5  # a gauge is read to the next psi
TOLERANCE_PA = 1.0 * PSI
_USUAL_ERROR_PA, _LEAST_NOISE_PA = 1.5 * PSI, 0.2 * PSI
Do = Literal["first", "turn", "see", "watch", "stop", "done"]


@dataclass(frozen=True, kw_only=True)
class TryView:
    """One try as it stands in the bars: turns, points seen (Pa gauge), the entry, and how far each
    was off its target."""

    entry: str
    turns: tuple[float, ...]
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    off_in_pa: float
    off_out_pa: float


@dataclass(frozen=True, kw_only=True)
class Turn:
    """One nut's turn: which, how far (clockwise positive), in words."""

    nut: str
    turns: float
    says: str


@dataclass(frozen=True, kw_only=True)
class NutView:
    """A nut or screw of this switch, in order."""

    nut: str
    title: str


@dataclass(frozen=True, kw_only=True)
class SetView:
    """The next step at the switch. `do` is first (read both points once), turn, see (the turns made
    are still to be watched), watch, stop (it does not answer) or done; `expect` are the points
    after it with twice their spread (Pa gauge). `sure` is how sure it is that both lie within the
    tolerance; `may_turn` that one may also turn now; `looks` how many tries are on record;
    `found_pa` the points as found. All pressures are as this gauge shows them; `gauge_says` tells
    where that differs from the truth, `anew` why what was learned before does not count, `learned`
    what a turn of each nut does."""

    do: Do
    says: str
    turns: tuple[Turn, ...]
    nuts: tuple[NutView, ...]
    looks: int
    found_pa: tuple[float, float] | None
    target_in_gauge_pa: float
    target_out_gauge_pa: float
    expect_in_pa: tuple[float, float] | None
    expect_out_pa: tuple[float, float] | None
    sure: float
    may_turn: bool
    tolerance_pa: float
    tries: tuple[TryView, ...]
    complaints: tuple[Complaint, ...]
    warning: str
    slopes: Learned
    learned: str
    anew: str
    replaced: bool
    gauge_says: str


def noise_pa(log: Log) -> float:
    """How far a reading with this gauge may be off by chance, Pa: its error is seldom all chance,
    so half of it, and the reading to the next psi. Source: common practice, no source."""
    error = log.value(GAUGE_ERROR)
    half = 0.5 * (_USUAL_ERROR_PA if error is None else float(error))
    return max(math.hypot(half, ROUNDING_PA), _LEAST_NOISE_PA)


def _replaced(log: Log) -> bool:
    return bool(log.value(SWITCH_REPLACED))


def _found(log: Log) -> tuple[float, float] | None:
    """The points as found; those of a switch that was replaced since say nothing of the new one."""
    low, high = log.value(FOUND_CUT_IN), log.value(FOUND_CUT_OUT)
    return None if low is None or high is None or _replaced(log) else (float(low), float(high))


def _tries(log: Log) -> list[tuple[str, Try]]:
    """The tries with their entries: those at the switch that is there now."""
    pairs = zip(log.records_in(TRY), log.all(TRY), strict=True)
    replaced = log.record(SWITCH_REPLACED)
    since = replaced.at if replaced and replaced.value else ""
    return [(record.id, each) for record, each in pairs if not since or record.at > since]


def belief_of(figures: Figures, log: Log, learned: Learned = ()) -> Belief | None:
    """What is believed of this switch after the tries so far; None before both points were read
    once. What was learned of another class of switch, or of one that was replaced, does not count.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        learned: What earlier visits learned of the nuts.

    Returns:
        The belief; None before both points were read.
    """
    kind, noise, rest = (
        CLASSES[figures.switch.nuts],
        noise_pa(log),
        [each for _, each in _tries(log)],
    )
    found = _found(log)
    if found is None:
        if not rest:
            return None
        found, rest = (rest[0].cut_in_gauge_pa, rest[0].cut_out_gauge_pa), rest[1:]
    slopes = {} if _replaced(log) else slopes_of(learned, kind.id)
    belief = prior(kind, *found, noise, slopes)
    for each in rest:
        if each.turned:
            belief = predict(belief, _made(each, kind.nuts))
        belief = update(belief, CUT_IN, each.cut_in_gauge_pa, noise)
        belief = update(belief, CUT_OUT, each.cut_out_gauge_pa, noise)
    return belief


def _made(of: Try | Turned, nuts: Sequence[object]) -> tuple[float, ...]:
    return (of.first, of.second)[: len(nuts)]


def _goal(figures: Figures, log: Log, order: str, eager: bool) -> Goal:
    """The targets and limits as this gauge shows them."""
    low, limits = log.low_by(TRY), kind_of(figures).limits
    most = lowest_limit(limits, figures)
    return Goal(
        cut_in_pa=figures.cut_in_pa - low,
        cut_out_pa=figures.cut_out_pa - low,
        tolerance_pa=TOLERANCE_PA,
        highest_pa=highest_allowed_pa(limits, figures) - low,
        most_pa=float("inf") if most is None else most - low,
        order=order,
        eager=eager,
    )


def set_view(
    figures: Figures,
    log: Log,
    units: str,
    learned: Learned = (),
    order: str = "together",
    eager: bool = False,
) -> SetView:
    """The next turn of the next nut. `learned` is what earlier visits learned of the nuts; `order`
    and `eager` are the goal's.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".
        learned: What earlier visits learned of the nuts.
        order: "together" or "first".
        eager: Turn rather than watch once more.

    Returns:
        What the step shows.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    goal, noise = _goal(figures, log, order, eager), noise_pa(log)
    belief, kind = belief_of(figures, log, learned), CLASSES[figures.switch.nuts]
    wrong = () if belief is None else complaints(belief, _watches(log, belief), noise)
    step = None if belief is None else _step(belief, goal, log.turned(), wrong)
    may_turn = belief is not None and step is not None and _may_turn(belief, goal, step)
    tries = _tries(log)
    return SetView(
        do="first" if step is None else step.do,
        says=step_says(step, goal, may_turn, units),
        turns=() if step is None or belief is None else _turns(step, belief),
        nuts=tuple(NutView(nut=nut.id, title=nut.title) for nut in kind.nuts),
        looks=len(log.records_in(TRY)),
        found_pa=_found(log),
        target_in_gauge_pa=goal.cut_in_pa,
        target_out_gauge_pa=goal.cut_out_pa,
        expect_in_pa=None if step is None else (step.cut_in_pa[0], 2 * step.cut_in_pa[1]),
        expect_out_pa=None if step is None else (step.cut_out_pa[0], 2 * step.cut_out_pa[1]),
        sure=0.0 if step is None else step.sure,
        may_turn=may_turn,
        tolerance_pa=goal.tolerance_pa,
        tries=tuple(_try_view(entry, each, goal) for entry, each in tries),
        complaints=wrong,
        warning="" if gauge_resolves(noise, goal) else unresolved_says(noise, units),
        slopes=() if belief is None else learned_of(belief),
        learned=_learned_says(belief, learned, [each for _, each in tries], units),
        anew=_anew(figures, log, learned),
        replaced=_replaced(log),
        gauge_says=expected_says(log.low_by(TRY), figures.cut_in_pa, figures.cut_out_pa, units),
    )


def _anew(figures: Figures, log: Log, learned: Learned) -> str:
    """Why what was learned on an earlier visit is not used."""
    if not learned:
        return ""
    if _replaced(log):
        return "A new switch: what was learned of the one before does not count."
    if not by_class(learned, figures.switch.nuts):
        return (
            "Another kind of switch than was turned before: what was learned of that one does not"
            " count."
        )
    return ""


def _learned_says(belief: Belief | None, learned: Learned, tries: Sequence[Try], units: str) -> str:
    if belief is None or not (
        by_class(learned, belief.of.id) or any(each.turned for each in tries)
    ):
        return ""
    return learned_says(learned_of(belief), units)


def _step(belief: Belief, goal: Goal, made: Turned | None, wrong: Sequence[Complaint]) -> Step:
    """Turns that were made are watched first; a switch that does not answer is not turned further
    unless the person wants to."""
    if made is not None:
        return _awaited(belief, made, goal)
    step = next_step(belief, goal)
    silent = any(each.id == "no-answer" for each in wrong)
    return (
        replace(step, do="stop", turns=())
        if silent and step.do == "turn" and not goal.eager
        else step
    )


def _may_turn(belief: Belief, goal: Goal, step: Step) -> bool:
    return (
        step.do in ("watch", "stop") and next_step(belief, replace(goal, eager=True)).do == "turn"
    )


def _awaited(belief: Belief, made: Turned, goal: Goal) -> Step:
    """Turns that were made, and what to expect of them when power is on again."""
    turns = _made(made, belief.of.nuts)
    after = predict(belief, turns)
    low, high = ((after.mean[point], after.sd(point)) for point in (CUT_IN, CUT_OUT))
    held = bound_pa(after) > goal.highest_pa
    return Step(
        do="see", turns=turns, cut_in_pa=low, cut_out_pa=high, sure=within(after, goal), held=held
    )


def _watches(log: Log, belief: Belief) -> list[Watch]:
    nuts, found = belief.of.nuts, _found(log)
    first = [] if found is None else [Watch(*found, (0.0,) * len(nuts))]
    looks = [each for _, each in _tries(log)]
    return first + [Watch(t.cut_in_gauge_pa, t.cut_out_gauge_pa, _made(t, nuts)) for t in looks]


def _turns(step: Step, belief: Belief) -> tuple[Turn, ...]:
    pairs = zip(belief.of.nuts, step.turns, strict=False)
    return tuple(
        Turn(nut=nut.id, turns=t, says=f"{nut.title}: {turn_words(t)}") for nut, t in pairs if t
    )


def _try_view(entry: str, each: Try, goal: Goal) -> TryView:
    return TryView(
        entry=entry,
        turns=(each.first, each.second),
        cut_in_gauge_pa=each.cut_in_gauge_pa,
        cut_out_gauge_pa=each.cut_out_gauge_pa,
        off_in_pa=each.cut_in_gauge_pa - goal.cut_in_pa,
        off_out_pa=each.cut_out_gauge_pa - goal.cut_out_pa,
    )
