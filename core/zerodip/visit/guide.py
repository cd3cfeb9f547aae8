"""What is next on a visit, whatever was done so far: one thing, the step where it is done, and
where it is recorded."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from zerodip.kinds.visit_parts import AirCheck, AirView
from zerodip.visit.log import Log
from zerodip.visit.slots import (
    AIR_CAP,
    AIR_LEFT,
    DECIDED,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_PRE_CHARGE,
    FOUND_RUN,
    LAP,
    NEW_AIR,
    NO_LIMIT,
    SIGNED,
    TRY,
    TURNED,
    WATER_AT_VALVE,
    Slot,
    Step,
    confirmation,
)
from zerodip.visit.steps.handover import HandoverView
from zerodip.visit.steps.jobs import JobView
from zerodip.visit.steps.make_safe import MakeSafeStep, power_state
from zerodip.visit.steps.prove import ProveView
from zerodip.visit.steps.set_switch import SetView

__all__ = ["NextStep", "Stand", "next_of"]

NextDo = Literal[
    "confirm", "watch", "read", "decide", "air", "look", "turn", "limit", "time", "sign", "close"
]


_OFF = ("power_off", "proved_dead")


@dataclass(frozen=True, kw_only=True)
class NextStep:
    """What is next: the step of the rail, what to do there (confirm a step, watch a cycle, read,
    decide, set the air, look at both points, turn, read a limit, time a run, sign, close), the
    slots where that is recorded, and in words."""

    step: Step
    do: NextDo
    slots: tuple[str, ...]
    says: str


@dataclass(frozen=True, kw_only=True)
class Stand:
    """How a visit stands: its log and what its steps show."""

    log: Log
    jobs: Sequence[JobView]
    make_safe: Sequence[MakeSafeStep]
    power_up: MakeSafeStep
    gauge_at_zero: MakeSafeStep
    air: AirView | None
    air_check: AirCheck | None
    setting: SetView
    proof: ProveView
    handover: HandoverView


def next_of(at: Stand) -> NextStep:
    """The one thing that is next. There always is one: at the last, closing the visit.

    Args:
        at: How the visit stands.

    Returns:
        What is next.

    Source: The order of work is common practice, no source.
    """
    return next(_in_order(at))


def _in_order(at: Stand) -> Iterator[NextStep]:
    yield from _watched(at)
    yield from _dead(at)
    if _undecided(at):
        yield _step("decide", "decide", "Decide on cut-in, cut-out and pre-charge.", DECIDED)
    yield from _worked(at)
    yield from _aired(at)
    if not _burst(at):
        yield from _set(at)
    yield from _proved(at)
    yield from _left(at)


def _step(step: Step, do: NextDo, says: str, *slots: Slot[Any]) -> NextStep:
    return NextStep(step=step, do=do, slots=tuple(slot.name for slot in slots), says=says)


def _confirm(step: Step, what: MakeSafeStep) -> NextStep:
    return NextStep(step=step, do="confirm", slots=(what.slot,), says=what.does)


def _made_dead(log: Log) -> bool:
    """Whether power was ever taken off on this visit."""
    return any(confirmation(id).name in log.values for id in _OFF)


def _made_safe(at: Stand) -> Iterator[NextStep]:
    """What is still to be confirmed before anything is opened."""
    return (_confirm("safe", each) for each in at.make_safe if not each.done)


def _powered_off(at: Stand) -> Iterator[NextStep]:
    """What is still to be confirmed before a hand goes under the cover."""
    steps = (each for each in at.make_safe if each.id in _OFF)
    return (_confirm("set", each) for each in steps if not each.done)


def _undecided(at: Stand) -> bool:
    return at.log.value(DECIDED) is None or at.setting.do == "decide"


def _burst(at: Stand) -> bool:
    return at.air is not None and at.air.shut == "burst"


def _air_to_see_to(at: Stand) -> AirView | None:
    """The air, where it is to be read or set: not of a burst bladder, nor where nothing speaks for
    opening the valve and nobody did."""
    unneeded = at.air_check is not None and at.air_check.unneeded
    opened = any(at.log.record(slot) for slot in (FOUND_PRE_CHARGE, AIR_LEFT))
    return None if _burst(at) or (unneeded and not opened) else at.air


def _watched(at: Stand) -> Iterator[NextStep]:
    """One whole cycle as found; once it is off, that is past."""
    seen = [slot for slot in (FOUND_CUT_IN, FOUND_CUT_OUT) if at.log.value(slot) is not None]
    if len(seen) < 2 and not _made_dead(at.log) and not at.log.records_in(TRY):
        says = "Watch one whole cycle, cover on: cut-in, cut-out, and the run between."
        yield _step("watch", "watch", says, FOUND_CUT_IN, FOUND_CUT_OUT, FOUND_RUN)


def _dead(at: Stand) -> Iterator[NextStep]:
    """Making safe, while something is still to be done dead: reading, or setting the air."""
    air, log = _air_to_see_to(at), at.log
    to_read = air is not None and not air.new and log.value(FOUND_PRE_CHARGE) is None
    undrained = air is not None and air.shut == "undrained"
    to_air = air is not None and not air.right and not _undecided(at)
    if to_read or undrained or to_air or not _made_dead(log):
        yield from _made_safe(at)
    if to_read:
        says = "Read the air, tank drained; look for water at the air valve."
        yield _step("read", "read", says, FOUND_PRE_CHARGE, WATER_AT_VALVE)
    if undrained:
        yield _confirm("set", at.gauge_at_zero)


def _worked(at: Stand) -> Iterator[NextStep]:
    """The steps of the jobs on this visit, in the condition that each needs."""
    for job in at.jobs:
        for step in job.steps if job.added else ():
            if step.done:
                continue
            if step.shut:
                yield from _made_safe(at)
            yield NextStep(
                step="set", do="confirm", slots=(step.slot,), says=f"{job.title}: {step.does}"
            )
    if at.air is not None and at.air.new and at.air.found_gauge_pa is None:
        yield _step("set", "read", at.air.says, NEW_AIR)


def _checked(at: Stand) -> Iterator[NextStep]:
    """What is checked after the jobs on this visit."""
    for job in at.jobs:
        for check in job.checks if job.added else ():
            if check.done:
                continue
            if check.shut:
                yield from _powered_off(at)
            says = f"{job.title}, check: {check.does}"
            yield NextStep(step="set", do="confirm", slots=(check.slot,), says=says)


def _aired(at: Stand) -> Iterator[NextStep]:
    air = _air_to_see_to(at)
    if air is None:
        return
    if not air.right:
        yield _step("set", "air", air.says, AIR_LEFT)
    if not at.log.value(AIR_CAP):
        yield _step("set", "confirm", "Valve cap back on: the cap is the real seal.", AIR_CAP)


def _set(at: Stand) -> Iterator[NextStep]:
    """The switch, one instruction at a time; what cannot be gone on with is left for the papers."""
    setting, power = at.setting, power_state(at.log)
    if setting.do == "turn":
        if power != "off":
            yield from _powered_off(at)
        yield _step("set", "turn", "; ".join(turn.says for turn in setting.turns), TURNED)
    elif setting.do in ("first", "see", "watch"):
        if power != "on":
            yield _confirm("set", at.power_up)
        yield _step("set", "look", setting.says, TRY)
    elif setting.do == "read" and not at.log.value(NO_LIMIT):
        yield _step("set", "limit", setting.says, NO_LIMIT)


def _proved(at: Stand) -> Iterator[NextStep]:
    yield from _checked(at)
    if power_state(at.log) == "off":
        yield _confirm("prove", at.power_up)
    if at.proof.timed and not at.log.records_in(LAP):
        yield _step("prove", "time", "Time one run from click to click, all taps shut.", LAP)


def _left(at: Stand) -> Iterator[NextStep]:
    for check in at.handover.checks:
        if not check.done:
            yield NextStep(step="hand_over", do="confirm", slots=(check.slot,), says=check.does)
    if not at.handover.signed:
        yield _step("hand_over", "sign", "Sign the visit.", SIGNED)
    yield _step("hand_over", "close", "Close the visit.")
