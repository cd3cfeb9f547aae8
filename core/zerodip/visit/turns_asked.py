"""The next step at a switch without a visit: a file with the switch, where it is to come, what it
may not pass and the looks so far."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, flag, parts, quantity
from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.switch.belief import Watch
from zerodip.switch.classes import CLASSES, class_of
from zerodip.switch.goal import HOW_NEARS, Goal, Work, near_enough_pa
from zerodip.switch.health import Complaint
from zerodip.switch.planner import Step, careful_step
from zerodip.switch.watching import believed
from zerodip.switch.words import step_says, turn_words
from zerodip.visit.records import Try
from zerodip.visit.steps.switch_state import made_turns, reading_noise_pa

__all__ = ["NextTurns", "TurnsAsked", "next_turns"]


def _pressure(title: str, default: Any = None) -> Any:
    return quantity(title, "pressure", 0.0, MOST_GAUGE_PA, default=default)


@dataclass(frozen=True, kw_only=True)
class TurnsAsked(Checked):
    """A switch to be set. The first of `looks` is as it was found, turns of the later ones were
    made before they were seen. Without `highest_gauge_pa` nothing is raised; without a tolerance it
    is as near as the gauge can tell."""

    switch: str = choice("Class of switch", tuple(CLASSES))
    springs: str = choice("Springs", ("soft", "stiff"), default="soft")
    cut_in_gauge_pa: float = quantity("Cut-in wanted", "pressure", 0.0, MOST_GAUGE_PA)
    cut_out_gauge_pa: float = quantity("Cut-out wanted", "pressure", 0.0, MOST_GAUGE_PA)
    looks: tuple[Try, ...] = parts("Looks", Try, 1, 200)
    highest_gauge_pa: float | None = _pressure("Never above")
    most_gauge_pa: float | None = _pressure("Not set above")
    tolerance_pa: float | None = quantity("Tolerance", "pressure", 100.0, 1e5, default=None)
    noise_pa: float = quantity("Reading noise", "pressure", 100.0, 1e5, default=reading_noise_pa())
    look_s: float = quantity("A look takes", "duration", 1.0, 36000.0, default=150.0)
    power_off_s: float = quantity("A power-off takes", "duration", 1.0, 36000.0, default=120.0)
    one_by_one: bool | None = flag("One nut at a time")
    leave_differential: bool | None = flag("Leave the differential nut alone")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """Cut-in lies below cut-out."""
        low, high = values.get("cut_in_gauge_pa"), values.get("cut_out_gauge_pa")
        if low is not None and high is not None and low >= high:
            says = "must lie below cut-out wanted."
            yield Fault(path="cut_in_gauge_pa", code="order", title="Cut-in wanted", says=says)


@dataclass(frozen=True, kw_only=True)
class NextTurns:
    """The step, in words, its turns by nut (clockwise positive), in words too, and what is wrong
    beside the setting."""

    step: Step
    says: str
    turns: dict[str, float]
    turns_says: tuple[str, ...]
    complaints: tuple[Complaint, ...]


def next_turns(asked: TurnsAsked, units: str = "us") -> NextTurns:
    """The next step at a switch, as a visit would tell it.

    Args:
        asked: The switch, where it is to come, and the looks so far.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The step.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    watches, goal, work = _watches(asked), _goal(asked), _work(asked)
    kind = class_of(asked.switch, asked.springs == "stiff")
    belief = believed(kind, watches, asked.noise_pa)
    step, wrong = careful_step(belief, watches, goal, work)
    made = [(nut, turn) for nut, turn in zip(belief.of.nuts, step.turns, strict=False) if turn]
    return NextTurns(
        step=step,
        says=step_says(step, goal, belief.of, False, (), units),
        turns={nut.id: turn for nut, turn in made},
        turns_says=tuple(f"{nut.title}: {turn_words(turn)}" for nut, turn in made),
        complaints=wrong,
    )


def _watches(asked: TurnsAsked) -> list[Watch]:
    nuts = class_of(asked.switch, asked.springs == "stiff").nuts
    return [
        Watch(look.cut_in_gauge_pa, look.cut_out_gauge_pa, made_turns(look, nuts))
        for look in asked.looks
    ]


def _work(asked: TurnsAsked) -> Work:
    """As a visit weighs it: whoever asks for a figure means it."""
    near = HOW_NEARS["gauge" if asked.tolerance_pa is None else "one"]
    return Work(
        noise_pa=asked.noise_pa,
        look_s=asked.look_s,
        power_off_s=asked.power_off_s,
        missed_s=near.missed_s,
    )


def _goal(asked: TurnsAsked) -> Goal:
    near = asked.tolerance_pa
    return Goal(
        cut_in_pa=asked.cut_in_gauge_pa,
        cut_out_pa=asked.cut_out_gauge_pa,
        tolerance_pa=near_enough_pa(asked.noise_pa) if near is None else near,
        highest_pa=asked.highest_gauge_pa,
        most_pa=float("inf") if asked.most_gauge_pa is None else asked.most_gauge_pa,
        order="first" if asked.one_by_one else "together",
        leave=frozenset({"differential"} if asked.leave_differential else ()),
    )
