"""What is said at the switch: the next step, how far to turn, what was learned of the nuts."""

from zerodip.switch.belief import CLASSES
from zerodip.switch.learned import Learned, slopes_of
from zerodip.switch.planner import Goal, Step
from zerodip.units import PSI, text

__all__ = ["expected_says", "learned_says", "step_says", "turn_words", "unresolved_says"]

_PARTS = ("", "1/8", "1/4", "3/8", "1/2", "5/8", "3/4", "7/8")
_FIRST = "Power up and watch the gauge through one whole cycle: where it starts, where it stops."
_STOP = (
    "Stop turning: this switch does not answer. Find out why first; then watch it through one more"
    " cycle."
)


def turn_words(turns: float) -> str:
    """Turns, to the eighth, as a person says them: 1 1/4 turns clockwise.

    Args:
        turns: Turns, clockwise positive.

    Returns:
        The words.
    """
    size = round(abs(turns) * 8)
    said = f"{size // 8 or ''} {_PARTS[size % 8]}".strip() or "0"
    return f"{said} turn{'s' if size > 8 else ''} {'clockwise' if turns > 0 else 'anticlockwise'}"


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
                said.append(f"{nut.title} {mean} a turn (give or take {spread})")
    return f"Learned of this switch: {', '.join(said)}." if said else ""


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


def step_says(step: Step | None, goal: Goal, may_turn: bool, units: str) -> str:
    """The next step in words; None is the first look.

    Args:
        step: The step; None is the first look.
        goal: Where the points must come to, and how near.
        may_turn: Whether turning at once is another way.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    if step is None:
        return _FIRST
    if step.do == "done":
        near = text(goal.tolerance_pa, "pressure", units)
        return f"Set: {step.sure:.0%} sure that both points lie within {near}."
    if step.do == "stop":
        return _STOP
    if step.do == "watch":
        return _watch_says(step, may_turn)
    low, high = (
        f"{text(mean, 'pressure', units)} ± {text(2 * spread, 'pressure', units)}"
        for mean, spread in (step.cut_in_pa, step.cut_out_pa)
    )
    if step.do == "see":
        said = f"Turned. Now watch where it starts and stops: {low} and {high} are expected."
        limit = text(goal.highest_pa, "pressure", units)
        past = f" Cut-out may pass {limit}, a limit: switch off by hand before it does."
        return said + (past if step.held else "")
    held = " Shorter than the target asks: a limit comes first." if step.held else ""
    return f"Both points should come to {low} and {high}.{held}"


def _watch_says(step: Step, may_turn: bool) -> str:
    held = " A limit keeps the next turn back." if step.held else ""
    if may_turn:
        return (
            "Watch one more cycle before the next turn: the better it is known, the fewer turns it"
            " takes." + held
        )
    return (
        f"Do not turn: watch the gauge through one more cycle. It is {step.sure:.0%} sure"
        f" now.{held}"
    )
