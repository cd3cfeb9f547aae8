"""What is said at the switch: the next step, how far to turn, what was learned of the nuts."""

import math
from collections.abc import Sequence
from fractions import Fraction

from zerodip.switch.classes import CLASSES, SwitchClass
from zerodip.switch.goal import SURE, Goal, HowNear
from zerodip.switch.learned import Learned, slopes_of
from zerodip.switch.planner import Step
from zerodip.text.figure import Reading
from zerodip.units import PSI, text

__all__ = [
    "expected_says",
    "learned_says",
    "near_says",
    "step_says",
    "turn_words",
    "unresolved_says",
]

_SIXTEENTHS = 16
_FIRST = "Power up and watch the gauge through one whole cycle: where it starts, where it stops."
_HELD = " Shorter than the target asks: a limit comes first."
_DOWN_FIRST = " Down first: a limit is near, and this shows how far the nut moves."
_STOP = (
    "Stop turning: this switch does not answer. Find out why first; then watch it through one more"
    " cycle."
)
_TAPS = {
    "nothing": "Do not turn yet: tap the gauge and watch one more cycle. It showed nothing of the"
    " last turns, and what they did may still come.",
    "far": "It looks right: tap the gauge and watch one more cycle. After so long a move it may"
    " still be behind.",
}


def turn_words(turns: float) -> str:
    """Turns, to the sixteenth, as a person says them: 1 1/4 turns clockwise.

    Args:
        turns: Turns, clockwise positive.

    Returns:
        The words.
    """
    size = Fraction(round(abs(turns) * _SIXTEENTHS), _SIXTEENTHS)
    whole, part = divmod(size, 1)
    said = " ".join(str(each) for each in (whole, part) if each) or "0"
    return f"{said} turn{'s' if size > 1 else ''} {'clockwise' if turns > 0 else 'anticlockwise'}"


def learned_says(learned: Learned, units: str) -> str:
    """What a turn of each nut does, as learned, on the point that it is for; "" where nothing was
    learned.

    Args:
        learned: What earlier visits learned of the nuts.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words; empty for nothing.
    """
    said = []
    for switch in dict.fromkeys(slope.switch for slope in learned):
        slopes = slopes_of(learned, switch)
        for nut in CLASSES[switch].nuts:
            if (nut.id, nut.sets) in slopes:
                mean, spread = (
                    text(value, "pressure", units) for value in slopes[nut.id, nut.sets]
                )
                said.append(f"{mean} (± {spread}) a turn of the {nut.title}")
    return f"This switch moves about {', '.join(said)}." if said else ""


def expected_says(low_pa: float, cut_in_pa: float, cut_out_pa: float, units: str) -> str:
    """That targets are told as a gauge that is off shows them (Pa); "" for a gauge that is right.

    Args:
        low_pa: What the gauge shows too little by, Pa.
        cut_in_pa: Cut-in aimed at, Pa gauge.
        cut_out_pa: Cut-out aimed at, Pa gauge.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words; empty for nothing.
    """
    if abs(low_pa) < 0.05 * PSI:
        return ""
    wanted = " and ".join(text(point, "pressure", units) for point in (cut_in_pa, cut_out_pa))
    much = f"{text(abs(low_pa), 'pressure', units)} too {'little' if low_pa > 0 else 'much'}"
    return f"As this gauge shows them: it shows {much}, for {wanted}."


def near_says(near: HowNear, noise_pa: float, units: str) -> str:
    """How near is near enough, in words.

    Args:
        near: How near.
        noise_pa: Standard deviation of a reading, Pa, above 0.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    said = f"± {text(near.tolerance_pa(noise_pa), 'pressure', units)}"
    return f"as the gauge can tell, {said}" if near.near_pa is None else said


def unresolved_says(noise_pa: float, units: str) -> str:
    """That a gauge is too coarse for the tolerance asked for.

    Args:
        noise_pa: Standard deviation of a reading, Pa, above 0.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    near = text(2 * noise_pa, "pressure", units)
    return (
        f"This gauge cannot tell so close: a reading is sure only to about {near}. Take a better"
        " gauge, or watch more often."
    )


def step_says(
    step: Step | None,
    goal: Goal,
    of: SwitchClass,
    may_turn: bool,
    reads: Sequence[Reading],
    units: str,
) -> str:
    """The next step in words; None is the first look.

    Args:
        step: The step; None is the first look.
        goal: Where the points must come to, and how near.
        of: The class of switch.
        may_turn: Whether turning at once is another way.
        reads: The limits that are not known.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    if step is None:
        return _FIRST
    if step.do == "done":
        return _done_says(step, goal, _which(of, goal), units)
    if step.do == "read":
        return _read_says(reads)
    if step.do == "stop":
        return _held_says(goal, units) if step.held else _STOP
    if step.do == "watch":
        return _TAPS.get(step.tap) or _watch_says(step, may_turn)
    low, high = (
        f"{text(mean, 'pressure', units)} ± {text(2 * spread, 'pressure', units)}"
        for mean, spread in (step.cut_in_pa, step.cut_out_pa)
    )
    if step.do == "see":
        said = f"Turned. Now watch where it starts and stops: {low} and {high} are expected."
        limit = "" if goal.highest_pa is None else text(goal.highest_pa, "pressure", units)
        past = f" Cut-out may pass {limit}, a limit: switch off by hand before it does."
        return said + (past if step.held else "")
    held = _HELD if any(turn > 0 for turn in step.turns) else _DOWN_FIRST
    held = held if step.held else ""
    return f"Cut-in should come to {low}, cut-out to {high}.{held}"


def _which(of: SwitchClass, goal: Goal) -> str:
    """The points that are promised."""
    if of.follows:
        return "cut-out lies"
    left = any(nut.id in goal.leave for nut in of.nuts)
    return "cut-in lies" if left else "both points lie"


def _done_says(step: Step, goal: Goal, which: str, units: str) -> str:
    near, asked = (text(pa, "pressure", units) for pa in (step.near_pa, goal.tolerance_pa))
    if step.sure >= SURE:
        return f"Set: {_share(step.sure)} sure that {which} within {asked}."
    return (
        f"Set as near as is worth the time: {_share(SURE)} sure that {which} within {near},"
        f" {_share(step.sure)} within the {asked} asked for."
    )


def _share(sure: float) -> str:
    """A probability, never rounded up to certainty."""
    return f"{min(math.floor(100 * sure + 0.5), 99)} %"


def _read_says(reads: Sequence[Reading]) -> str:
    what = " or ".join(reading.title for reading in reads) or "what it may never pass"
    return f"Nothing is raised while no limit is known. Read first: {what}."


def _held_says(goal: Goal, units: str) -> str:
    limit = "" if goal.highest_pa is None else text(goal.highest_pa, "pressure", units)
    return (
        f"Stop turning: no turn, however small, is sure to keep cut-out below {limit}. Lower the"
        " target, or watch once more to know better where it stands."
    )


def _watch_says(step: Step, may_turn: bool) -> str:
    held = " A limit keeps the next turn back." if step.held else ""
    if may_turn:
        return (
            "Watch one more cycle before the next turn: the better it is known, the fewer turns it"
            " takes." + held
        )
    return (
        f"Do not turn: watch the gauge through one more cycle. It is {_share(step.sure)} sure"
        f" now.{held}"
    )
