"""The use case of the visit: everything the six steps show, worked out from the system's file and the visit's entries."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..document import Document
from ..facts import Facts
from ..units import text
from .air import AirView, air_view
from .over import OverView, over_view
from .proving import ProveView, prove_view
from .reading import Question, ReadField, questions, read_fields
from .records import Entry, Log, log_of
from .safe import DrainView, SafeStep, drain_view, power_up, safe_steps, standing
from .setting import SetView, set_view
from .summary import figures

__all__ = ["Progress", "VisitView", "visit_view"]


@dataclass(frozen=True, kw_only=True)
class Progress:
    """One step of the rail: how far it is ("open", "begun", "done") and in a few words."""

    step: str
    title: str
    state: str
    says: str


@dataclass(frozen=True, kw_only=True)
class VisitView:
    """What all steps show. `power` is unknown, off or on; work that needs power off stays shut until it is off and proved dead.
    `place` is where the visit stood last; `found` are the as-found figures and `slopes` the learned ones, for the next visit."""

    place: str
    power: str
    rail: tuple[Progress, ...]
    safe: tuple[SafeStep, ...]
    power_up: SafeStep
    drain: DrainView | None
    read: tuple[ReadField, ...]
    questions: tuple[Question, ...]
    air: AirView | None
    set: SetView
    prove: ProveView
    over: OverView
    cautions: Mapping[str, str]


_CAUTIONS = {
    "safe": "Line terminals stay live when the machine's own switch is off. Read the diagram under the cover.",
    "read": "A missing earth wire is a finding. Breaking a factory seal can end a warranty.",
    "set": "Power off for every change. Stay at the gauge with a hand on the switch during the first fill after any increase.",
    "prove": "Cover on whenever power is on.",
    "hand_over": "Local codes and the maker’s instructions come first; electrical and gas-pressure work may need a "
    "licensed person.",
}


def visit_view(
    document: Document,
    entries: Iterable[Entry],
    units: str = "us",
    last: Mapping[str, Any] | None = None,
    slopes: Sequence[float] = (),
    order: str = "together",
    eager: bool = False,
) -> VisitView:
    """The visit as it stands. `last` are the values that the visit before left, by slot; `slopes` what it learned of the
    nuts; `order` is both nuts in one power-off ("together") or one at a time ("first"), `eager` turning rather than watching."""
    facts, log = document.facts(), log_of(entries)
    gauge = log.value("found.gauge")
    steps, proof = safe_steps(facts.kind, log, facts.nuts), prove_view(facts, log, units)
    setting, air = set_view(facts, log, units, slopes, order, eager), air_view(facts, log, units)
    over = over_view(facts, log, figures(log), air, setting, units)
    fields = read_fields(facts, log, last or {}, units)
    return VisitView(
        place=str(log.value("place") or "safe"),
        power=standing(log),
        rail=_rail(facts, steps, fields, setting, proof, over, log, units),
        safe=steps,
        power_up=power_up(log),
        drain=drain_view(facts, float(gauge) if gauge is not None else _likely_gauge(facts), units),
        read=fields,
        questions=questions(facts, log, units),
        air=air,
        set=setting,
        prove=proof,
        over=over,
        cautions=_CAUTIONS,
    )


def _likely_gauge(facts: Facts) -> float:
    """Before the gauge is read: at most cut-out."""
    return facts.cut_out_pa


def _rail(
    facts: Facts,
    steps: tuple[SafeStep, ...],
    fields: tuple[ReadField, ...],
    setting: SetView,
    proof: ProveView,
    over: OverView,
    log: Log,
    units: str,
) -> tuple[Progress, ...]:
    confirmed, entered = (
        sum(bool(log.value(f"safe.{step.id}")) for step in steps),
        sum(field.value is not None for field in fields),
    )
    return (
        _progress("safe", "Make safe", confirmed, len(steps), f"{confirmed} of {len(steps)}"),
        _progress("read", "Read", entered, len(fields), f"{entered} of {len(fields)}"),
        _progress("decide", "Decide", int(bool(log.value("decided"))), 1, _decided(facts, log, units)),
        _progress("set", "Set", _set_count(setting), 2, _tries(setting)),
        _progress("prove", "Prove", len(proof.measured), 1, f"{len(proof.measured)} measured"),
        _progress("hand_over", "Hand over", sum(check.done for check in over.checks), len(over.checks), over.signed),
    )


def _decided(facts: Facts, log: Log, units: str) -> str:
    low, high = (text(point, "pressure", units) for point in (facts.cut_in_pa, facts.cut_out_pa))
    return f"{low.split(' ')[0]}/{high}" if log.value("decided") else ""


def _set_count(setting: SetView) -> int:
    return 2 if setting.do == "done" else 1 if setting.tries else 0


def _tries(setting: SetView) -> str:
    count = sum(1 for each in setting.tries if any(each.turns))
    return "set" if setting.do == "done" else f"{count} tr{'y' if count == 1 else 'ies'}" if count else ""


def _progress(step: str, title: str, count: int, of: int, says: str) -> Progress:
    state = "done" if count >= of else "begun" if count else "open"
    return Progress(step=step, title=title, state=state, says=says)
