"""Setting the switch, one instruction at a time."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..facts import Facts, ReceiverFacts, TanklessFacts, WaterFacts
from ..turns.belief import CLASSES, CUT_IN, CUT_OUT, Belief, believed, read, turned
from ..turns.health import Complaint, Watch, complaints, gauge_resolves
from ..turns.plan import Goal, Step, bound_pa, next_step, within
from ..units import PSI, text
from .records import SYSTEM_GAUGE, Log, Try, Turned

__all__ = ["SetView", "TryView", "belief_of", "highest_pa", "learned_says", "set_view"]

ROUNDING_PA = 1.0 * PSI / 12**0.5  # a gauge is read to the next psi


@dataclass(frozen=True, kw_only=True)
class TryView:
    """One try as it stands in the bars: turns, points seen (Pa gauge), the entry, and how far each was off its target."""

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
    """The next step at the switch. `do` is first (read both points once), turn, see (the turns made are still to be watched),
    watch, stop (it does not answer) or done; `expect` are the points after it with twice their spread (Pa gauge). `sure` is how
    sure it is that both lie within the tolerance; `may_turn` that one may also turn now; `looks` how many tries are on record;
    `found_pa` the points as found.
    All pressures are as this gauge shows them; `gauge_says` tells where that differs from the truth."""

    do: str
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
    slopes: tuple[float, ...]
    learned: str
    gauge_says: str


def noise_pa(log: Log) -> float:
    """How far a reading with this gauge may be off by chance, Pa: its error is seldom all chance, so half of it, and the reading to
    the next psi. Source: common practice, no source."""
    error = log.value("gauge.error")
    half = 0.5 * (float(error) if error is not None else 1.5 * PSI)
    return max(math.hypot(half, ROUNDING_PA), 0.2 * PSI)


def highest_pa(facts: Facts) -> float:
    """The lowest of the limits known that cut-out may never pass, Pa gauge."""
    if isinstance(facts, ReceiverFacts):
        known = [facts.receiver_max_pa, facts.compressor_max_pa, facts.relief_pa]
    elif isinstance(facts, WaterFacts):
        known = [facts.relief_pa, facts.tank_max_pa, facts.dead_head_limit_pa, facts.pipe_max_pa, facts.pump_max_pa]
    else:
        known = [facts.window_high_pa] if isinstance(facts, TanklessFacts) else []
    return min((limit for limit in known if limit is not None), default=float("inf"))


def _found(log: Log) -> tuple[float, float] | None:
    low, high = log.value("found.cut_in"), log.value("found.cut_out")
    return None if low is None or high is None else (float(low), float(high))


def belief_of(facts: Facts, log: Log, tries: Sequence[Try], slopes: Sequence[float] = ()) -> Belief | None:
    """What is believed of this switch after the tries so far; None before both points were read once."""
    kind = CLASSES[facts.nuts]
    noise = noise_pa(log)
    found, rest = _found(log), list(tries)
    if found is None:
        if not rest:
            return None
        found = rest[0].cut_in_gauge_pa, rest[0].cut_out_gauge_pa
        rest = rest[1:]
    belief = believed(kind, *found, noise, slopes)
    for each in rest:
        if each.first or each.second:
            belief = turned(belief, (each.first, each.second)[: len(kind.nuts)])
        belief = read(belief, CUT_IN, each.cut_in_gauge_pa, noise)
        belief = read(belief, CUT_OUT, each.cut_out_gauge_pa, noise)
    return belief


def set_view(
    facts: Facts, log: Log, units: str, slopes: Sequence[float] = (), order: str = "together", eager: bool = False
) -> SetView:
    """The next turn of the next nut. `slopes` are those learned on earlier visits (mean and spread of each, Pa per turn);
    `order` and `eager` are the goal's."""
    tries, made = log.records("try"), log.turned()
    belief, noise = belief_of(facts, log, tries, slopes), noise_pa(log)
    low = log.low_by(SYSTEM_GAUGE)
    goal = Goal(
        cut_in_pa=facts.cut_in_pa - low, cut_out_pa=facts.cut_out_pa - low, tolerance_pa=1.0 * PSI,
        highest_pa=highest_pa(facts) - low, order=order, eager=eager,
    )  # fmt: skip
    wrong = () if belief is None else complaints(belief, _watches(log, tries, belief), noise)
    step = None if belief is None else _step(belief, goal, made, wrong)
    may_turn = belief is not None and step is not None and step.do in ("watch", "stop") and _could_turn(belief, goal)
    return SetView(
        do="first" if step is None else step.do,
        says=_says(step, goal, may_turn, units),
        turns=() if step is None or belief is None else _turns(step, belief),
        nuts=tuple(NutView(nut=nut.id, title=nut.title) for nut in CLASSES[facts.nuts].nuts),
        looks=len(tries),
        found_pa=_found(log),
        target_in_gauge_pa=goal.cut_in_pa,
        target_out_gauge_pa=goal.cut_out_pa,
        expect_in_pa=None if step is None else (step.cut_in_pa[0], 2 * step.cut_in_pa[1]),
        expect_out_pa=None if step is None else (step.cut_out_pa[0], 2 * step.cut_out_pa[1]),
        sure=0.0 if step is None else step.sure,
        may_turn=may_turn,
        tolerance_pa=goal.tolerance_pa,
        tries=tuple(
            _try_view(entry.id, each, goal) for entry, each in zip(log.series.get("try", ()), tries, strict=True)
        ),
        complaints=wrong,
        warning="" if gauge_resolves(noise, goal) else _unresolved(noise, units),
        slopes=() if belief is None else learned(belief),
        gauge_says=_gauge_says(low, facts, units),
        learned=""
        if belief is None or not (slopes or any(t.first or t.second for t in tries))
        else learned_says(facts, learned(belief), units),
    )


def _gauge_says(low: float, facts: Facts, units: str) -> str:
    if abs(low) < 0.05 * PSI:
        return ""
    wanted = " and ".join(text(point, "pressure", units) for point in (facts.cut_in_pa, facts.cut_out_pa))
    return f"As this gauge shows them: it reads {text(abs(low), 'pressure', units)} {'low' if low > 0 else 'high'}, for {wanted}."


def _step(belief: Belief, goal: Goal, made: Turned | None, wrong: Sequence[Complaint]) -> Step:
    """Turns that were made are watched first; a switch that does not answer is not turned further unless the person wants to."""
    if made is not None:
        return _awaited(belief, made, goal)
    step = next_step(belief, goal)
    silent = any(each.id == "no-answer" for each in wrong)
    return replace(step, do="stop", turns=()) if silent and step.do == "turn" and not goal.eager else step


def _could_turn(belief: Belief, goal: Goal) -> bool:
    return next_step(belief, replace(goal, eager=True)).do == "turn"


def _awaited(belief: Belief, made: Turned, goal: Goal) -> Step:
    """Turns that were made, and what to expect of them when power is on again."""
    turns = (made.first, made.second)[: len(belief.of.nuts)]
    after = turned(belief, turns)
    points = [(after.mean[point], after.sd(point)) for point in (CUT_IN, CUT_OUT)]
    held = bound_pa(after) > goal.highest_pa
    return Step(do="see", turns=turns, cut_in_pa=points[0], cut_out_pa=points[1], sure=within(after, goal), held=held)


def _watches(log: Log, tries: Sequence[Try], belief: Belief) -> list[Watch]:
    nuts = len(belief.of.nuts)
    found = _found(log)
    first = [] if found is None else [Watch(*found, (0.0,) * nuts)]
    return first + [Watch(t.cut_in_gauge_pa, t.cut_out_gauge_pa, (t.first, t.second)[:nuts]) for t in tries]


def learned(belief: Belief) -> tuple[float, ...]:
    """The slopes as they are believed now: mean and spread of each nut on cut-in and cut-out, Pa per turn, for the next visit."""
    return tuple(
        v for nut in range(len(belief.of.nuts)) for point in (CUT_IN, CUT_OUT) for v in belief.slope(nut, point)
    )


def _turns(step: Step, belief: Belief) -> tuple[Turn, ...]:
    pairs = zip(belief.of.nuts, step.turns, strict=False)
    return tuple(Turn(nut=nut.id, turns=t, says=f"{nut.title}: {turn_words(t)}") for nut, t in pairs if t)


def learned_says(facts: Facts, slopes: Sequence[float], units: str) -> str:
    """What a turn of each nut does, as learned (mean and spread of each slope, Pa per turn), on the point that it is for."""
    said = []
    for k, nut in enumerate(CLASSES[facts.nuts].nuts):
        at = 4 * k + 2 * nut.sets
        if at + 1 < len(slopes):
            mean, spread = (text(value, "pressure", units) for value in slopes[at : at + 2])
            said.append(f"{nut.title} {mean} a turn (give or take {spread})")
    return f"Learned of this switch: {', '.join(said)}." if said else ""


_PARTS = ("", "1/8", "1/4", "3/8", "1/2", "5/8", "3/4", "7/8")


def turn_words(turns: float) -> str:
    """Turns, to the eighth, as a person says them: 1 1/4 turns clockwise."""
    size = round(abs(turns) * 8)
    said = f"{size // 8 or ''} {_PARTS[size % 8]}".strip() or "0"
    return f"{said} turn{'s' if size > 8 else ''} {'clockwise' if turns > 0 else 'anticlockwise'}"


def _says(step: Step | None, goal: Goal, may_turn: bool, units: str) -> str:
    if step is None:
        return "Power up and watch the gauge through one whole cycle: where it starts, where it stops."
    if step.do == "done":
        return f"Set: {step.sure:.0%} sure that both points lie within {text(goal.tolerance_pa, 'pressure', units)}."
    if step.do == "stop":
        return "Stop turning: this switch does not answer. Find out why first; then watch it through one more cycle."
    if step.do == "watch":
        held = " A limit keeps the next turn back." if step.held else ""
        if may_turn:
            return "Watch one more cycle before the next turn: the better it is known, the fewer turns it takes." + held
        return f"Do not turn: watch the gauge through one more cycle. It is {step.sure:.0%} sure now." + held
    low, high = (
        f"{text(m, 'pressure', units)} ± {text(2 * s, 'pressure', units)}" for m, s in (step.cut_in_pa, step.cut_out_pa)
    )
    if step.do == "see":
        limit = (
            f" Cut-out may pass {text(goal.highest_pa, 'pressure', units)}, a limit: switch off by hand before it does."
        )
        return f"Turned. Now watch where it starts and stops: {low} and {high} are expected." + (
            limit if step.held else ""
        )
    held = " Shorter than the target asks: a limit comes first." if step.held else ""
    return f"Both points should come to {low} and {high}." + held


def _try_view(entry: str, each: Try, goal: Goal) -> TryView:
    return TryView(
        entry=entry, turns=(each.first, each.second), cut_in_gauge_pa=each.cut_in_gauge_pa,
        cut_out_gauge_pa=each.cut_out_gauge_pa, off_in_pa=each.cut_in_gauge_pa - goal.cut_in_pa,
        off_out_pa=each.cut_out_gauge_pa - goal.cut_out_pa,
    )  # fmt: skip


def _unresolved(noise: float, units: str) -> str:
    near = text(2 * noise, "pressure", units)
    return f"This gauge cannot tell so close: a reading is sure only to about {near}. Take a better gauge, or watch more often."
