"""The what-if: what settings would do, which to take, how ways and sizes compare, what a trouble
may be. Each reads what is asked, all faults at once, and stores nothing."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.decide.compare import PracticeMatter, practice_matters
from zerodip.decide.judge import Decision, chart_of, decision
from zerodip.decide.propose import Proposal, propose
from zerodip.decide.simulation import Simulation, simulate_draw
from zerodip.decide.size import Sizing, Target, sizing
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.fields import Spec, check
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.window import Window

__all__ = [
    "DecideAnswer",
    "answer_chart",
    "answer_compare",
    "answer_decide",
    "answer_propose",
    "answer_sizes",
    "read_sizes",
]

_DRAW = Spec(
    kind="quantity", title="Draw", dimension="flow", least=0, most=0.1, optional=True, nullable=True
)
_WANTED = Spec(kind="choice", title="What is wanted", options=("run", "starts"))
_VALUES = {
    "run": Spec(kind="quantity", title="Run wanted", dimension="duration", least=1, most=3600),
    "starts": Spec(
        kind="quantity", title="Starts wanted", dimension="rate", least=0.1 / 3600, most=2
    ),
}
_SIZE = Spec(kind="quantity", title="Nominal size", dimension="volume", least=0.0005, most=20)
_MOST_SIZES = 60
_Asked = Mapping[str, Any]


@dataclass(frozen=True, kw_only=True)
class DecideAnswer:
    """The judgement, and the next minutes (none for a kind whose cycles are too fast to draw)."""

    decision: Decision
    simulation: Simulation | None


def answer_decide(asked: _Asked, units: str) -> DecideAnswer:
    """What settings would do.

    Args:
        asked: `document` (a system's file), `draw_m3_s` (m³/s, 0 to 0.1; the worst draw if None)
            and `sure` (whether to tell how sure the results are).
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The judgement and the next minutes.

    Raises:
        InvalidInput: With every fault of what is asked, by its path.
    """
    draw = asked.get("draw_m3_s")
    figures = _read(asked, check(_DRAW, draw, "draw_m3_s")).figures()
    return DecideAnswer(
        decision=decision(figures, units, bool(asked.get("sure"))),
        simulation=simulate_draw(figures, draw),
    )


def answer_chart(asked: _Asked, units: str) -> Ribbon | Window:
    """The picture alone, as `answer_decide` gives it: while a grip is being moved.

    Args:
        asked: `document` (a system's file).
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The ribbon, or the window of a tankless pump.

    Raises:
        InvalidInput: With every fault of the file, by its path.
    """
    return chart_of(_read(asked, []).figures(), units)


def answer_propose(asked: _Asked, units: str) -> Proposal:
    """Which settings to take, why, and what each other way would cost.

    Args:
        asked: `document` (a system's file), `stop_seen` (whether a stop was seen on site that is
            not put right).
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The proposal.

    Raises:
        InvalidInput: With every fault of the file, by its path.
    """
    document, seen = _read(asked, []), bool(asked.get("stop_seen"))
    return propose(document.system, document.settings, document.practice, units, seen)


def answer_compare(asked: _Asked, units: str) -> tuple[PracticeMatter, ...]:
    """The ways of practitioners against each other on one system.

    Args:
        asked: `document` (a system's file).
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What practitioners differ in, with each way's settings.

    Raises:
        InvalidInput: With every fault of the file, by its path.
    """
    document = _read(asked, [])
    return tuple(practice_matters(document.system, document.settings, document.practice, units))


def answer_sizes(asked: _Asked, units: str) -> Sizing | None:
    """The least tank for a wanted run or rate of starts, and the sizes around it.

    Args:
        asked: `document` (a system's file), `target` (`kind` "run" with a `value` in s, or
            "starts" in 1/s; what the practice wants if None), `sizes_m3` (nominal volumes, m³; the
            usual if None).
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The sizing; None for a kind without a tank to size.

    Raises:
        InvalidInput: With every fault of what is asked, by its path.
    """
    target, faults = _target(asked.get("target"))
    sizes, more = read_sizes(asked.get("sizes_m3"))
    document = _read(asked, [*faults, *more])
    return sizing(document.system, document.settings, document.practice, target, sizes, units)


def read_sizes(raw: Any, path: str = "sizes_m3") -> tuple[list[float] | None, list[Fault]]:
    """A list of nominal volumes (m³), rising, each once; None for the usual ones.

    Args:
        raw: The list as plain values: 1 to 60 volumes of 0.0005 to 20 m³, or None.
        path: Its place, for the faults.

    Returns:
        The volumes (None for the usual, or where there are faults), and the faults.
    """
    if raw is None:
        return None, []
    if not isinstance(raw, list) or not 0 < len(raw) <= _MOST_SIZES:
        says = f"must be a list of 1 to {_MOST_SIZES} volumes."
        return None, [Fault(path=path, code="not_a_list", title="Nominal sizes", says=says)]
    faults = [
        fault for at, value in enumerate(raw) for fault in check(_SIZE, value, f"{path}.{at}")
    ]
    return (None if faults else sorted({float(value) for value in raw})), faults


def _read(asked: _Asked, faults: list[Fault]) -> Document:
    try:
        document = read_document(asked.get("document"))
    except InvalidInput as error:
        raise InvalidInput([*error.faults, *faults]) from error
    if faults:
        raise InvalidInput(faults)
    return document


def _target(raw: Any) -> tuple[Target | None, list[Fault]]:
    if raw is None:
        return None, []
    given = raw if isinstance(raw, dict) else {}
    faults = check(_WANTED, given.get("kind"), "target.kind")
    if not faults:
        faults = check(_VALUES[given["kind"]], given.get("value"), "target.value")
    if faults:
        return None, faults
    return Target(kind=given["kind"], value=float(given["value"])), []
