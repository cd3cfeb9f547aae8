"""Making safe: the steps for each kind of system, in order, each confirmed by the person; what
stays shut until then."""

from dataclasses import dataclass
from typing import Literal

from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.steps import AREA, ISOLATED, POWER_UP
from zerodip.kinds.visit_parts import StepSpec
from zerodip.visit.log import Log
from zerodip.visit.slots import CONFIRMED, confirmation

__all__ = [
    "MakeSafeStep",
    "make_safe_steps",
    "power_state",
    "power_up",
    "settling_step",
]

Power = Literal["unknown", "off", "on"]


@dataclass(frozen=True, kw_only=True)
class MakeSafeStep:
    """One step: the slot where it is confirmed, what to do, the caution that bites here, whether it
    is confirmed and still holds, the step that it needs first (empty: none), and why it is shut
    (empty: open). `while_off`: it holds only until power is on again."""

    id: str
    slot: str
    does: str
    caution: str
    done: bool
    after: str
    shut: str
    while_off: bool = False


def make_safe_steps(figures: Figures, log: Log) -> tuple[MakeSafeStep, ...]:
    """The steps for a kind of system at its place, with what is confirmed; a switch with two
    set-points has steps of its own on top. A step that needs another first says so.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.

    Returns:
        The steps, in order.
    """
    place = figures.site.place
    steps = tuple(
        each for each in kind_of(figures).visit.make_safe if not each.places or place in each.places
    )
    if figures.switch.nuts == "points":
        steps = (AREA, *steps, ISOLATED)
    return tuple(_step(each, steps, log) for each in steps)


def _step(each: StepSpec, steps: tuple[StepSpec, ...], log: Log) -> MakeSafeStep:
    before = next((other for other in steps if other.id == each.after), None)
    shut = before is not None and not log.confirmed(before.id)
    return MakeSafeStep(
        id=each.id,
        slot=confirmation(each.id).name,
        does=each.does,
        caution=each.caution,
        done=log.confirmed(each.id),
        after=before.id if before else "",
        shut=f"First: {before.does}" if before and shut else "",
        while_off=each.while_off,
    )


def power_up(log: Log) -> MakeSafeStep:
    """Powering up again, which undoes what holds only while power is off.

    Args:
        log: The visit's log.

    Returns:
        The step.
    """
    done = power_state(log) == "on"
    return MakeSafeStep(
        id=POWER_UP.id,
        slot=confirmation(POWER_UP.id).name,
        does=POWER_UP.does,
        caution=POWER_UP.caution,
        done=done,
        after="",
        shut="",
    )


def settling_step(step: StepSpec, log: Log) -> MakeSafeStep:
    """A step that settles something odd, wherever it was asked.

    Args:
        step: The step.
        log: The visit's log.

    Returns:
        The step, with whether it is confirmed.
    """
    return _step(step, (step,), log)


def power_state(log: Log) -> Power:
    """How power stands by what was confirmed last: "unknown", "off" (proved dead), or "on" again
    (cover on, bystanders away).

    Args:
        log: The visit's log.

    Returns:
        "unknown", "off" or "on".
    """
    if log.confirmed("power_off"):
        return "off" if log.confirmed("proved_dead") else "unknown"
    up = log.values.get(f"{CONFIRMED}{POWER_UP.id}")
    return "on" if up is not None and up.value else "unknown"
