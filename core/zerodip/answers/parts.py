"""One figure with its words, and how the tables of them are filled."""

from collections.abc import Callable
from dataclasses import dataclass
from math import isfinite
from typing import Any

from ..facts import Facts
from ..sources import Source
from ..units import Shown

__all__ = ["Answer", "AnswerKind", "filled"]


@dataclass(slots=True, kw_only=True)
class Answer:
    """One figure in SI with its words; not frozen, as `WordedFinding`. `value` is None where it cannot be told or "
    "has no end; `text` says it."""

    id: str
    title: str
    value: float | None
    dimension: str
    text: str
    note: str
    formula: str
    source: str


@dataclass(frozen=True, kw_only=True)
class AnswerKind:
    """A row of a table of answers: which figure, its words as templates over the facts, and when it is worth showing."""

    id: str
    title: str
    figure: str
    dimension: str
    formula: str
    source: Source
    note: Callable[[Any, Shown], str] = lambda facts, f: ""
    shown: Callable[[Any], bool] = lambda facts: True


def filled(kinds: tuple[AnswerKind, ...], facts: Facts, f: Shown) -> tuple[Answer, ...]:
    """The table filled with one system's figures, texts in the units of `f`."""
    return tuple(_answer(kind, facts, f) for kind in kinds if kind.shown(facts))


def _answer(kind: AnswerKind, facts: Facts, f: Shown) -> Answer:
    value = getattr(facts, kind.figure)
    told = value is not None
    return Answer(
        id=kind.id,
        title=kind.title,
        value=value if told and isfinite(value) else None,
        dimension=kind.dimension,
        text=f.figure(kind.figure, kind.dimension),
        note=kind.note(facts, f),
        formula=f.fill(kind.formula) if told else "",
        source=kind.source.line,
    )
