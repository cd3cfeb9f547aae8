"""The next step at a switch: turn, watch once more, or call it set. What each is worth is weighed
by the minutes that it takes, against those that a switch is worth that is not right."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import product
from typing import Literal, NamedTuple

from zerodip.switch.belief import Belief, Watch, predict
from zerodip.switch.classes import CUT_IN, CUT_OUT
from zerodip.switch.goal import SURE, Goal, Work, aimed_points, inside, radius_pa, within
from zerodip.switch.health import STOPPING, Complaint, complaints
from zerodip.switch.travel import highest_yet_pa
from zerodip.switch.turning import best_turns, lesson

__all__ = ["Step", "careful_step", "next_step", "told"]

_MORE_TURNS = 4
_DOUBTED = 0.5  # as sure as points are called that a sticking gauge shows
_RIGHT = 0.6  # of the tolerance
_FAR = 5.0  # tolerances off, at which coming back counts twice
_FAR_MOVE = 3.0  # tolerances: a gauge that answers slowly may still be one behind
_NODES = ((-2.857, 0.0113), (-1.3556, 0.2221), (0.0, 0.5333), (1.3556, 0.2221), (2.857, 0.0113))


@dataclass(frozen=True, kw_only=True)
class Step:
    """What to do next: "turn" the nuts by `turns`, "watch" the gauge once more, "read" a limit
    before anything is raised, "stop" because no turn, however small, is sure to stay below a limit,
    or it is "done"; "see" (turns made are to be watched) is for whoever plans with it. `cut_in_pa`
    and `cut_out_pa` are (mean, spread) expected after it; `sure` is the probability that the points
    lie within the tolerance, `near_pa` within how much of their targets they surely lie (`SURE`).
    `held` tells that a limit kept the step shorter than the target asks, `tap` why the gauge is
    tapped first: it showed "nothing" of the last turns and may stick, or went "far" and may be
    behind."""

    do: Literal["turn", "see", "watch", "read", "stop", "done"]
    turns: tuple[float, ...]
    cut_in_pa: tuple[float, float]
    cut_out_pa: tuple[float, float]
    sure: float
    near_pa: float
    held: bool = False
    tap: Literal["", "nothing", "far"] = ""


class Planned(NamedTuple):
    """A step, and the complaints."""

    step: Step
    wrong: tuple[Complaint, ...]


def next_step(belief: Belief, goal: Goal, work: Work) -> Step:
    """The next step: the one that costs least time in all, looking one step ahead.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to, and how near.
        work: What a look and a power-off take, and what a reading tells.

    Returns:
        What to do next.

    Source: Least expected loss under the belief (decision theory), one look ahead.
    """
    sure = within(belief, goal)
    if sure >= SURE:
        return told(belief, goal, "done")
    turning = best_turns(belief, goal)
    if turning.unread:
        return told(belief, goal, "read")
    if turning.held and not any(turning.turns) and not _looks_right(belief, goal):
        teaching = lesson(belief, goal)
        return told(belief, goal, "turn" if any(teaching) else "stop", teaching, held=True)
    do = _cheapest(belief, goal, work, turning.turns)
    return told(belief, goal, do, turning.turns if do == "turn" else (), turning.held)


def _looks_right(belief: Belief, goal: Goal) -> bool:
    """Whether the points are expected so near that looking once more may be all that is left."""
    off = (belief.mean[p] - goal.target_pa(p) for p in aimed_points(belief, goal))
    return all(abs(each) <= _RIGHT * goal.tolerance_pa for each in off)


def careful_step(belief: Belief, watches: Sequence[Watch], goal: Goal, work: Work) -> Planned:
    """The next step, and what is wrong beside the setting: that comes before any further turn,
    unless somebody wants to turn all the same, and leaves less sure what a look shows.

    Args:
        belief: What is believed of the switch.
        watches: The looks, oldest first.
        goal: Where the points must come to, and how near.
        work: What a look and a power-off take, and what a reading tells.

    Returns:
        The step and the complaints.

    Source: Common practice, no source.
    """
    step = next_step(belief, goal, work)
    hides = _hides(belief, goal, step)
    wrong = complaints(belief, watches, work.noise_pa, hides)
    ids, turned = {each.id for each in wrong}, any(watches[-1].turns)
    asked = step.do in ("turn", "watch") and turned and not goal.eager
    if asked and "no-answer" in ids and "other-way" not in ids:
        return Planned(_tapped(step, "nothing"), wrong)
    if ids & set(STOPPING) and not goal.eager:
        do: Literal["stop", "watch"] = "stop" if step.do == "turn" else "watch"
        halted = step if step.do in ("read", "stop") else replace(step, do=do, turns=(), held=False)
        return Planned(replace(halted, sure=min(step.sure, _DOUBTED)), wrong)
    if step.do != "done" or not turned:
        return Planned(step, wrong)
    if _hidden(belief):
        return Planned(_tapped(step, "nothing"), wrong)
    return Planned(_tapped(step, "far") if _went_far(belief, watches, goal) else step, wrong)


def _tapped(step: Step, why: Literal["nothing", "far"]) -> Step:
    """One more look instead, at a gauge that is tapped."""
    sure = min(step.sure, _DOUBTED)
    return replace(step, do="watch", turns=(), held=False, sure=sure, tap=why)


def _hidden(belief: Belief) -> bool:
    """Whether the gauge stood still after the last turns: it may stick."""
    return any(travel.hidden for travel in belief.travels)


def _went_far(belief: Belief, watches: Sequence[Watch], goal: Goal) -> bool:
    """Whether a gauge that answers slowly may still be a tolerance behind its last move."""
    before, last = watches[-2:]
    moved = (last.cut_in_pa - before.cut_in_pa, last.cut_out_pa - before.cut_out_pa)
    return any(abs(moved[p]) > _FAR_MOVE * goal.tolerance_pa for p in aimed_points(belief, goal))


def _hides(belief: Belief, goal: Goal, step: Step) -> bool:
    """Whether the step would pass a limit with what earlier turns may have done unseen."""
    if goal.highest_pa is None or step.do not in ("turn", "watch") or not belief.travels:
        return False
    turns = step.turns or (0.0,) * len(belief.of.nuts)
    return highest_yet_pa(belief, turns) > goal.highest_pa and not _lowers(belief, turns)


def _lowers(belief: Belief, turns: Sequence[float]) -> bool:
    """Whether nuts that are known to go that way are turned down."""
    return any(turns) and all(
        (turn < 0 and travel.engaged) or not turn
        for turn, travel in zip(turns, belief.travels, strict=True)
    )


def told(
    belief: Belief,
    goal: Goal,
    do: Literal["turn", "see", "watch", "read", "stop", "done"],
    turns: tuple[float, ...] = (),
    held: bool = False,
) -> Step:
    """A step with what is expected after it.

    Args:
        belief: What is believed of the switch.
        goal: Where the points must come to, and how near.
        do: What to do.
        turns: Turns of each nut.
        held: Whether a limit keeps it short.

    Returns:
        The step.
    """
    after = predict(belief, turns) if any(turns) else belief
    return Step(
        do=do,
        turns=turns,
        cut_in_pa=(after.mean[CUT_IN], after.sd(CUT_IN)),
        cut_out_pa=(after.mean[CUT_OUT], after.sd(CUT_OUT)),
        sure=within(after, goal),
        near_pa=radius_pa(after, goal),
        held=held,
    )


def _cheapest(
    belief: Belief, goal: Goal, work: Work, turns: tuple[float, ...]
) -> Literal["turn", "watch", "done"]:
    """Stopping, watching or turning: whichever costs least time in all."""
    ahead, none = _Ahead(belief, goal, work), (0.0,) * len(belief.of.nuts)
    stop, turn, harder = ahead.stopping(ahead.states(none)), float("inf"), 1.0
    if any(turns):
        turn = work.power_off_s + work.look_s + ahead.expected(turns)
        # What a limit or whole eighths make of the next turn, they make of it after a look too.
        harder = max(turn / ahead.by_turning(ahead.states(none)), 1.0)
    watch = work.look_s + ahead.expected(none, harder)
    if any(turns) and (goal.eager or turn <= min(stop, watch)):
        return "turn"
    return "done" if stop <= watch else "watch"


class _Ahead:
    """What is still to be paid after the next look, whatever it shows."""

    def __init__(self, belief: Belief, goal: Goal, work: Work) -> None:
        self.belief, self.goal, self.work = belief, goal, work
        self.points = aimed_points(belief, goal)
        self.adds = [self._adds(point) for point in self.points]

    def _adds(self, point: int) -> float:
        """What every turn adds to a point's error, Pa: drift, and that turns are made in
        eighths."""
        mean, _ = self.belief.slope(self._nut(point, ()), point)
        return math.hypot(
            self.belief.of.drift_pa, self.belief.of.finest * abs(mean) / math.sqrt(12)
        )

    def _nut(self, point: int, turns: Sequence[float]) -> int:
        """The nut that moves a point: the one that is turned, else the one that is there for it."""
        nuts = self.belief.of.nuts
        turned = [k for k, turn in enumerate(turns) if turn and nuts[k].moves[point]]
        return (
            turned[0] if turned else next((k for k, nut in enumerate(nuts) if nut.sets == point), 0)
        )

    def _share(self, point: int, turns: Sequence[float]) -> float:
        """What share of a further move of a point is not known once these turns were watched."""
        nut = self._nut(point, turns)
        mean, sd = self.belief.slope(nut, point)
        moved = abs(mean * turns[nut])
        learned = math.sqrt(2) * self.work.noise_pa / max(moved, 1e-9)
        return min(sd / max(abs(mean), 1e-9), 0.5, learned)

    def states(self, turns: Sequence[float]) -> list["_State"]:
        """How the points that are aimed at stand after these turns, before they are watched."""
        after = predict(self.belief, turns) if any(turns) else self.belief
        return [
            (after.mean[p] - self.goal.target_pa(p), after.sd(p), self._share(p, turns))
            for p in self.points
        ]

    def expected(self, turns: Sequence[float], harder: float = 1.0) -> float:
        """Expected seconds still to be paid after these turns and one look, by quadrature."""
        states, total = self.states(turns), 0.0
        for nodes in product(_NODES, repeat=len(states)):
            seen = [
                _watched(state, node[0], self.work.noise_pa)
                for state, node in zip(states, nodes, strict=True)
            ]
            turning = harder * self.by_turning(seen)
            total += math.prod(node[1] for node in nodes) * min(self.stopping(seen), turning)
        return total

    def stopping(self, states: Sequence["_State"]) -> float:
        """Coming back to points that are not within the tolerance; the more so the further off."""
        near = self.goal.tolerance_pa
        chance = math.prod(inside(off, sd, near) for off, sd, _ in states)
        far = math.fsum(off * off + sd * sd for off, sd, _ in states) / (_FAR * near) ** 2
        return self.work.missed_s * (1 - chance + far)

    def by_turning(self, states: Sequence["_State"]) -> float:
        """Seconds to be paid by turning once or more often: each further turn misses by what is
        not known of the one before."""
        least, spent = float("inf"), 0.0
        for _ in range(_MORE_TURNS):
            states = [
                _turned(each, more, self.work.noise_pa)
                for each, more in zip(states, self.adds, strict=True)
            ]
            spent += self.work.power_off_s + self.work.look_s
            missed = [(0.0, off, share) for off, _, share in states]
            least = min(least, spent + self.stopping(missed))
        return least


_State = tuple[float, float, float]
"""How far off a point is, how well that is known (Pa), and what share of a move is not known."""


def _turned(state: _State, adds: float, noise: float) -> _State:
    """A point after one more turn and a look: off by what was not known of it."""
    off, sd, share = state
    missed = math.hypot(sd, share * off, adds)
    learned = math.sqrt(2) * noise / max(abs(off), noise)
    return missed, missed * noise / math.hypot(missed, noise), min(share, learned)


def _watched(state: _State, node: float, noise: float) -> _State:
    """A point after a look that showed it `node` standard deviations from what was expected."""
    off, sd, share = state
    sharp = sd * noise / math.hypot(sd, noise)
    return off + node * math.sqrt(max(sd * sd - sharp * sharp, 0.0)), sharp, share
