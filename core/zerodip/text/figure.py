"""Figures: what is worked out of a system, each declared once with its dimension and computed once,
when it is asked for.

A figure read from an object is its value; read from the class it is the `Figure` itself, which
rules, results and limits hold, and which an f-string turns into a place to be filled: `f"Cut-in
{WaterFigures.cut_in_pa}"`. So a figure that does not exist is found by the type check and at
import, never by whoever reads the sentence.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Generic, TypeVar, overload

__all__ = ["OP", "Figure", "Reading", "constant", "figure"]

T = TypeVar("T")
OP = "{op}"  # in a template: the sign between a measure and its limit, as it stands


@dataclass(frozen=True)
class Reading:
    """Something read on site: the field of the file where it is entered, and what a person calls
    it."""

    path: str
    title: str


class Figure(Generic[T]):
    """One figure of a class: how it is computed, its dimension (`zerodip.units`; "" for words and
    flags), and the reading that it needs where that may be missing. Kept in the object once
    computed."""

    name: str
    owner: type

    def __init__(
        self, compute: Callable[[Any], T], dimension: str, reading: Reading | None = None
    ) -> None:
        self.compute, self.dimension, self.reading = compute, dimension, reading
        self.__doc__ = compute.__doc__

    def __set_name__(self, owner: type, name: str) -> None:
        self.owner, self.name = owner, name

    @overload
    def __get__(self, of: None, owner: type) -> "Figure[T]": ...

    @overload
    def __get__(self, of: object, owner: type) -> T: ...

    def __get__(self, of: object | None, owner: type) -> "Figure[T] | T":
        if of is None:
            return self
        value = of.__dict__[self.name] = self.compute(of)
        return value

    def __format__(self, spec: str) -> str:
        return f"{{{self.name}:{self.dimension}}}"


def figure(
    dimension: str, reading: Reading | None = None
) -> Callable[[Callable[[Any], T]], Figure[T]]:
    """Declares a method as a figure."""
    return lambda compute: Figure(compute, dimension, reading)


def constant(value: T, dimension: str) -> Figure[T]:
    """Declares a figure that is the same for every system."""
    return Figure(lambda of: value, dimension)
