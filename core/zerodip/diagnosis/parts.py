"""What a diagnosis is made of: items of evidence, causes with what they change and what is seen of
them, remedies. Priors and the chance of what is seen or heard are judgement, no source; what can be
computed is forecast by the plant that a cause changes."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, Generic, Literal, Protocol, Self, TypeVar

__all__ = [
    "Cause",
    "Forecast",
    "Item",
    "Observation",
    "Plant",
    "Remedy",
    "Size",
    "Troubles",
]

P = TypeVar("P", bound="Plant")
Needs = Literal["any", "powered", "off", "drained"]
Sketch = Literal["", "sawtooth", "breath", "creep", "never", "flat", "still", "over", "wander"]


@dataclass(frozen=True, kw_only=True)
class Item:
    """Something that may be seen, heard or measured. `asks` is the question, `yes` and `no` what
    stands on the answers; `how` it is done, in `minutes`, in which condition, with which `tools`
    and `caution`. A figure has a dimension (SI) and a range; `log` where its error is a share of
    it, `gauge` where it is read on the system's gauge. A `symptom` is what a call begins with, with
    a small sketch of the pressure. `stop` is said before any question once it is answered yes.
    `base` is how often it is seen where nothing makes it so; it makes no sense to ask `unless`
    these were answered with no. A time that is given up after `watch_s` may be answered by
    `never`. `wrong` is how often the answer is wrong, where that is not as usual. Items of one
    place are looked at `together`, in one condition or on the way to it; those that need a `full`
    tank cannot be once it is drained. What is only `told` is never asked as a check."""

    id: str
    title: str
    asks: str
    yes: str = "Yes"
    no: str = "No"
    how: str = ""
    minutes: float = 1.0
    needs: Needs = "any"
    tools: str = ""
    caution: str = ""
    dimension: str = ""
    least: float = 0.0
    most: float = 0.0
    log: bool = False
    gauge: bool = False
    symptom: bool = False
    sketch: Sketch = ""
    stop: str = ""
    base: float = 0.02
    unless: tuple[str, ...] = ()
    never: str = ""
    watch_s: float = 0.0
    together: str = ""
    full: bool = False
    wrong: float | None = None
    told: bool = False

    @cached_property
    def span(self) -> float:
        """From the least to the most on its scale; 1 for an answer of yes or no."""
        if not self.is_figure:
            return 1.0
        return math.log(self.most / self.least) if self.log else self.most - self.least

    @property
    def is_figure(self) -> bool:
        """Whether it is measured, rather than answered yes or no."""
        return bool(self.dimension)

    def is_there(self, condition: Needs) -> bool:
        """Whether it can still be looked at: not in a drained tank what needs a full one."""
        return not (self.full and condition == "drained")


@dataclass(frozen=True, kw_only=True)
class Forecast:
    """A figure as a plant would show it: mean and standard deviation (SI); where the item is `log`,
    the deviation is a share of the mean. `never`: it would not come to an end; `absent`: there
    is nothing to measure, as it does not start."""

    mean: float = 0.0
    sd: float = 1.0
    never: bool = False
    absent: bool = False

    @property
    def is_figure(self) -> bool:
        """Whether there would be a figure."""
        return not (self.never or self.absent)


@dataclass(frozen=True)
class Observation:
    """An item's answer: yes or no, or a figure (SI), or True for a time that did not come to an
    end while it was watched; `context` are the figures that it was taken between, where it needs
    them; `again` where it was looked at once more, beside the first time."""

    item: str
    value: bool | float
    context: tuple[float, ...] = ()
    again: bool = False


class Plant(Protocol):
    """A system as it would be with some faults in it."""

    def seen(self, item: str) -> float | None:
        """How likely an item is answered yes; None where the plant has no say in it."""

    def shows(self, item: str, context: tuple[float, ...]) -> Forecast | None:
        """A figure; None where this plant cannot tell."""


@dataclass(frozen=True, kw_only=True)
class Remedy:
    """What puts a cause right: a job of the visit (its id), a setting, a person to call, nothing;
    in words, about how long it takes. Causes with the same `id` need not be told apart."""

    id: str
    kind: Literal["job", "air", "setting", "fix", "person", "nothing"]
    says: str
    minutes: int = 0


@dataclass(frozen=True, kw_only=True)
class Size(Generic[P]):
    """How large a fault is: values of like chance (SI), rising, told by `says` with the value
    filled in, by `says_below` where it is less than nothing."""

    values: tuple[float, ...]
    dimension: str
    says: str
    change: Callable[[P, float], P]
    says_below: str = ""


@dataclass(frozen=True, kw_only=True, eq=False)
class Cause(Generic[P]):
    """What may be wrong. `weight` is how often it is met against the others; `seen` how likely an
    item is answered yes by it alone; `size` what it changes in the plant. `if_left` is what comes
    of it, `danger` what is said first where it is likely. `breaks` are the rules of Decide that it
    shows in: what helps against them is tried there. Where one of them is broken as the system
    stands on file, and it is `filed` there, it takes the place of "nothing is wrong": the plant
    works as set and sized, and that is the trouble; `put_right` is the plant without that. `look`
    are items of which one settles it: none of them looked at, its remedy is not told as clear."""

    id: str
    title: str
    weight: float
    remedy: Remedy
    if_left: str
    seen: Mapping[str, float] = field(default_factory=dict)
    size: Size[P] | None = None
    change: Callable[[P], P] | None = None
    applies: Callable[[P], bool] = lambda plant: True
    danger: str = ""
    breaks: tuple[str, ...] = ()
    filed: Callable[[P], bool] | None = None
    put_right: Callable[[P], P] | None = None
    look: tuple[str, ...] = ()

    @property
    def sizes(self) -> tuple[float, ...]:
        """The sizes that are looked at; one without a size stands for itself."""
        return self.size.values if self.size else (1.0,)

    def on(self, plant: P, size: float) -> P:
        """The plant with this fault in it."""
        if self.size:
            return self.size.change(plant, size)
        return self.change(plant) if self.change else plant


@dataclass(frozen=True, kw_only=True, eq=False)
class Troubles(Generic[P]):
    """What can be asked of a kind of system and what may be wrong with it. `plant` makes the
    healthy one from its figures and the observations; `healthy` is the cause that is none;
    `needless` names the items that its figures answer already."""

    plant: Callable[[Any, tuple[Observation, ...]], P]
    items: tuple[Item, ...]
    causes: tuple[Cause[P], ...]
    healthy: Cause[P]
    needless: Callable[[Any], frozenset[str]] = lambda figures: frozenset()

    @property
    def every(self) -> dict[str, Cause[P]]:
        """All that it may have been in the end, by id: nothing wrong, and each cause."""
        return {each.id: each for each in (self.healthy, *self.causes)}

    def without(self, remedies: frozenset[str]) -> Self:
        """The same without the causes that some remedies put right."""
        left = tuple(each for each in self.causes if each.remedy.id not in remedies)
        return self if len(left) == len(self.causes) else replace(self, causes=left)

    def item(self, id: str) -> Item | None:
        """An item by its id."""
        return next((each for each in self.items if each.id == id), None)
