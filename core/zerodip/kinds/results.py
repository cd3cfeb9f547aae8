"""One result with its words, and how a kind's table of them is filled."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from math import isfinite
from typing import Any, Generic, TypeVar

from zerodip.rules.sources import Source
from zerodip.text.figure import Figure
from zerodip.text.writer import Writer

__all__ = ["Column", "Result", "ResultSpec", "columns_of", "results_of"]

F = TypeVar("F", contravariant=True)


@dataclass(slots=True, kw_only=True)
class Result:
    """One figure in SI with its words; not frozen, as `WordedFinding`. `value` is None where it
    cannot be told or has no end; `text` says it."""

    id: str
    title: str
    value: float | None
    dimension: str
    text: str
    note: str
    formula: str
    source: str


@dataclass(frozen=True, kw_only=True)
class ResultSpec(Generic[F]):
    """A row of a kind's table of results: which figure, its words as templates, and when it is
    worth showing."""

    id: str
    title: str
    figure: Figure[Any]
    formula: str
    source: Source
    note: Callable[[F], str] = lambda figures: ""
    shown: Callable[[F], bool] = lambda figures: True


@dataclass(frozen=True, kw_only=True)
class Column:
    """A result as a column of a table: its id, title and dimension."""

    id: str
    title: str
    dimension: str


def columns_of(specs: Iterable[ResultSpec[Any]], ids: Iterable[str]) -> tuple[Column, ...]:
    """The columns for results by id, in that order; ids that the kind does not have are left out.

    Args:
        specs: The kind's table of results.
        ids: Ids of results.

    Returns:
        The columns, in order.
    """
    by = {spec.id: spec for spec in specs}
    return tuple(
        Column(id=id, title=by[id].title, dimension=by[id].figure.dimension)
        for id in ids
        if id in by
    )


def results_of(specs: Iterable[ResultSpec[F]], figures: F, write: Writer) -> tuple[Result, ...]:
    """The table filled with one system's figures, texts in the units of `write`.

    Args:
        specs: The kind's table of results.
        figures: The system's figures under its settings.
        write: Writes figures in the units asked for.

    Returns:
        The results, in order.
    """
    return tuple(_result(spec, figures, write) for spec in specs if spec.shown(figures))


def _result(spec: ResultSpec[F], figures: F, write: Writer) -> Result:
    value = getattr(figures, spec.figure.name)
    told = value is not None
    return Result(
        id=spec.id,
        title=spec.title,
        value=value if told and isfinite(value) else None,
        dimension=spec.figure.dimension,
        text=write.text(spec.figure),
        note=write.fill(spec.note(figures)),
        formula=write.fill(spec.formula) if told else "",
        source=spec.source.line,
    )
