"""Setting the switch, one instruction at a time."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from zerodip.kinds.figures import Figures
from zerodip.kinds.limits import limits_to_read
from zerodip.kinds.registry import kind_of
from zerodip.kinds.settings import Settings
from zerodip.switch.belief import Belief, chance_above
from zerodip.switch.classes import CUT_OUT
from zerodip.switch.goal import HOW_NEARS, SURE, Goal, Near
from zerodip.switch.health import Complaint, gauge_resolves
from zerodip.switch.learned import Learned, by_class, learned_of
from zerodip.switch.planner import Step, careful_step, told
from zerodip.switch.turning import PASSING, best_turns
from zerodip.switch.words import (
    expected_says,
    learned_says,
    near_says,
    step_says,
    turn_words,
    unresolved_says,
)
from zerodip.text.figure import Reading
from zerodip.visit.log import Log
from zerodip.visit.records import Try, Turned
from zerodip.visit.slots import TRY
from zerodip.visit.steps.switch_state import (
    belief_of,
    class_for,
    found_points,
    goal_of,
    made_turns,
    near_of,
    tries_of,
    was_replaced,
    watches_of,
    work_of,
)

__all__ = ["NearChoice", "NutView", "SetView", "TryView", "Turn", "set_view"]

_UNDECIDED = (
    "Nobody has decided on settings yet: these targets are usual values. Decide first, or keep what"
    " is there."
)
Do = Literal["decide", "first", "turn", "see", "watch", "read", "stop", "done"]


@dataclass(frozen=True, kw_only=True)
class TryView:
    """One try as it stands in the bars: turns, points seen (Pa gauge), the entry, and how far each
    was off its target, and the gauge on the wire that showed it."""

    entry: str
    turns: tuple[float, ...]
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    off_in_pa: float
    off_out_pa: float
    by_gauge: str


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
class NearChoice:
    """How near is near enough: a choice, in words."""

    id: Near
    title: str


@dataclass(frozen=True, kw_only=True)
class SetView:
    """The next step at the switch. `do` is decide (the targets are usual values that nobody decided
    on; `keep` are the settings that keep what was found, None before both points were read), first
    (read both points once), turn, see (the turns made are still to be watched), watch, read (a
    limit, `reads`, before anything is raised), stop (it does not answer, or no turn is sure to stay
    below a limit) or done; `expect` are the points after it with twice their spread (Pa gauge).
    `sure` is how sure it is that the points lie within the tolerance, `finest` the least part of a
    turn, `near` how near was asked for among `nears`; `may_turn` that one may also turn now,
    `may_watch` that one may watch on; `looks` how many tries are on record; `found_pa` the points
    as found. All pressures are as this gauge shows them; `gauge_says` tells where that differs from
    the truth, `anew` why what was learned before does not count, `learned` what a turn of each nut
    does."""

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
    finest: float
    near: Near
    nears: tuple[NearChoice, ...]
    reads: tuple[Reading, ...]
    may_turn: bool
    may_watch: bool
    tolerance_pa: float
    tries: tuple[TryView, ...]
    complaints: tuple[Complaint, ...]
    warning: str
    slopes: Learned
    learned: str
    anew: str
    replaced: bool
    gauge_says: str
    keep: Settings | None = None


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
    goal, work = goal_of(figures, log, order, eager), work_of(figures, log)
    belief, kind = belief_of(figures, log, learned), class_for(figures)
    made, watches = log.turned(), watches_of(log, kind.nuts)
    planned = None if belief is None else careful_step(belief, watches, goal, work)
    step, wrong = (None, ()) if planned is None else planned
    if belief is not None and made is not None:
        step = _awaited(belief, made, goal)
    may_turn = belief is not None and step is not None and _may_turn(belief, goal, step)
    reads = limits_to_read(kind_of(figures).limits, figures)
    tries, undecided = tries_of(log), figures.is_assumed("settings")
    by_gauge = {record.id: record.by_gauge for record in log.records_in(TRY)}
    return SetView(
        do="decide" if undecided else "first" if step is None else step.do,
        says=_UNDECIDED if undecided else step_says(step, goal, kind, may_turn, reads, units),
        turns=() if undecided or step is None or belief is None else _turns(step, belief),
        nuts=tuple(NutView(nut=nut.id, title=nut.title) for nut in kind.nuts),
        looks=len(log.records_in(TRY)),
        found_pa=found_points(log),
        target_in_gauge_pa=goal.cut_in_pa,
        target_out_gauge_pa=goal.cut_out_pa,
        expect_in_pa=None if step is None else (step.cut_in_pa[0], 2 * step.cut_in_pa[1]),
        expect_out_pa=None if step is None else (step.cut_out_pa[0], 2 * step.cut_out_pa[1]),
        sure=0.0 if step is None else step.sure,
        finest=kind.finest,
        near=near_of(log).id,
        nears=_nears(work.noise_pa, units),
        reads=reads if step is not None and step.do == "read" else (),
        may_turn=may_turn,
        may_watch=step is not None and step.do in ("read", "done"),
        tolerance_pa=goal.tolerance_pa,
        tries=tuple(_try_view(entry, each, goal, by_gauge.get(entry, "")) for entry, each in tries),
        complaints=wrong,
        warning=""
        if gauge_resolves(work.noise_pa, goal)
        else unresolved_says(work.noise_pa, units),
        slopes=() if belief is None else learned_of(belief),
        learned=_learned_says(belief, learned, [each for _, each in tries], units),
        anew=_anew(figures, log, learned),
        replaced=was_replaced(log),
        gauge_says=expected_says(log.low_by(TRY), figures.cut_in_pa, figures.cut_out_pa, units),
    )


def _nears(noise: float, units: str) -> tuple[NearChoice, ...]:
    return tuple(
        NearChoice(id=near.id, title=near_says(near, noise, units)) for near in HOW_NEARS.values()
    )


def _anew(figures: Figures, log: Log, learned: Learned) -> str:
    """Why what was learned on an earlier visit is not used."""
    if not learned:
        return ""
    if was_replaced(log):
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


def _may_turn(belief: Belief, goal: Goal, step: Step) -> bool:
    """Whether there is a turn to make although another step is advised."""
    unsure = step.do in ("watch", "stop", "done") and step.sure < SURE
    return unsure and any(best_turns(belief, goal).turns)


def _awaited(belief: Belief, made: Turned, goal: Goal) -> Step:
    """Turns that were made, and what to expect of them when power is on again."""
    turns = made_turns(made, belief.of.nuts)
    passing = goal.highest_pa is not None and (
        chance_above(belief, turns, CUT_OUT, goal.highest_pa) > PASSING
    )
    return told(belief, goal, "see", turns, passing)


def _turns(step: Step, belief: Belief) -> tuple[Turn, ...]:
    pairs = zip(belief.of.nuts, step.turns, strict=False)
    return tuple(
        Turn(nut=nut.id, turns=t, says=f"{nut.title}: {turn_words(t)}") for nut, t in pairs if t
    )


def _try_view(entry: str, each: Try, goal: Goal, by_gauge: str) -> TryView:
    return TryView(
        entry=entry,
        turns=(each.first, each.second),
        cut_in_gauge_pa=each.cut_in_gauge_pa,
        cut_out_gauge_pa=each.cut_out_gauge_pa,
        off_in_pa=each.cut_in_gauge_pa - goal.cut_in_pa,
        off_out_pa=each.cut_out_gauge_pa - goal.cut_out_pa,
        by_gauge=by_gauge,
    )
