"""How sure a decision's answers are, in words and on the picture, and what to read to be surer."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from math import inf, isfinite
from typing import Any

from zerodip.kinds.charts import GripName, Level
from zerodip.kinds.figures import Figures
from zerodip.kinds.protocol import Edge as EdgeSpec
from zerodip.kinds.registry import kind_of
from zerodip.kinds.results import ResultSpec
from zerodip.kinds.spreads import Spread, spread_of, spread_words
from zerodip.text.figure import Reading

__all__ = ["Certainty", "Edge", "Within", "certainty_of"]


@dataclass(slots=True, kw_only=True)
class Within:
    """Within what a result lies, 95 times in a hundred: SI (`most` None where it may have no end),
    in words, and the reading that would narrow it most. `usual` tells that a usual value which
    nobody read is part of it."""

    result: str
    least: float
    most: float | None
    text: str
    narrow: Reading | None
    usual: bool


@dataclass(slots=True, kw_only=True)
class Edge:
    """A point's line on the ribbon as high and as low as it may lie."""

    point: GripName
    upper: Level
    lower: Level


@dataclass(slots=True, kw_only=True)
class Certainty:
    """How sure the results are, the edges of the ribbon (none for other pictures), and the one
    reading that would narrow the results most."""

    results: tuple[Within, ...]
    edges: tuple[Edge, ...]
    narrow: Reading | None


def certainty_of(figures: Figures, units: str) -> Certainty:
    """How sure the results of a system are.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Within what they lie.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    kind = kind_of(figures)
    shown = [spec for spec in kind.results if spec.shown(figures)]
    of = {each.name: each for each in (*(s.figure for s in shown), *_figures(kind.edges))}
    spreads = spread_of(figures, of.values())
    told = [(spec, spreads[spec.figure.name]) for spec in shown if spec.figure.name in spreads]
    usual = {f.name for each in kind.inputs if each.assumed(figures) for f in each.moves}
    return Certainty(
        results=tuple(
            _within(spec, spread, units, spec.figure.name in usual) for spec, spread in told
        ),
        edges=tuple(_edge(edge, figures, spreads) for edge in kind.edges),
        narrow=_narrows([spread for _, spread in told]),
    )


def _figures(edges: Iterable[EdgeSpec]) -> list[Any]:
    return [each for edge in edges for each in (edge.gauge, edge.held, edge.run) if each]


def _within(spec: ResultSpec[Any], spread: Spread, units: str, usual: bool) -> Within:
    return Within(
        result=spec.id,
        least=spread.least,
        most=spread.most if isfinite(spread.most) else None,
        text=spread_words(spread, spec.figure.dimension, units),
        narrow=spread.narrow,
        usual=usual,
    )


def _edge(edge: EdgeSpec, figures: Figures, spreads: Mapping[str, Spread]) -> Edge:
    return Edge(
        point=edge.point,
        upper=_level(edge, figures, {name: each.most for name, each in spreads.items()}),
        lower=_level(edge, figures, {name: each.least for name, each in spreads.items()}),
    )


def _level(edge: EdgeSpec, figures: Figures, ends: Mapping[str, float]) -> Level:
    """The line at these ends; a figure that nothing moves stays."""
    gauge, held = (ends.get(f.name, getattr(figures, f.name)) for f in (edge.gauge, edge.held))
    run = 0.0 if edge.run is None else ends.get(edge.run.name, getattr(figures, edge.run.name))
    return Level(gauge_pa=gauge, held_m3=held, run_s=run if run < inf else None)


def _narrows(spreads: Iterable[Spread]) -> Reading | None:
    """The reading with the largest share of all the results' variances."""
    shares: dict[Reading, float] = {}
    for spread in spreads:
        whole = math.fsum(spread.by.values())
        for reading, brings in spread.by.items():
            share = brings / whole if isfinite(whole) else 1.0
            shares[reading] = shares.get(reading, 0.0) + share
    return max(shares, key=lambda reading: shares[reading], default=None)
