"""The use case of the visit: everything its steps show, worked out from the system's file and the
visit's records."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, Literal

from zerodip.fileformat.document import Document
from zerodip.kinds.figures import Figures
from zerodip.kinds.protocol import ProofTest
from zerodip.kinds.registry import kind_of
from zerodip.kinds.steps import GAUGE_AT_ZERO, SEEN_EARLIER
from zerodip.kinds.visit_parts import AirCheck, AirView, DrainView, PartSpec, Question
from zerodip.switch.learned import Learned
from zerodip.units import band
from zerodip.visit.evidence import condition_of, impossible_here, observations_of, proved
from zerodip.visit.figures_at import figures_at, settings_at
from zerodip.visit.guide import NextStep, Stand, next_of
from zerodip.visit.log import Log, Record, log_of
from zerodip.visit.slots import (
    DECIDED,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_GAUGE,
    KNEE,
    PLACE,
    Step,
)
from zerodip.visit.steps.handover import HandoverView, handover_view
from zerodip.visit.steps.jobs import JobView, jobs_of
from zerodip.visit.steps.make_safe import (
    MakeSafeStep,
    Power,
    make_safe_steps,
    power_state,
    power_up,
    settling_step,
)
from zerodip.visit.steps.prove import ProveView, prove_view
from zerodip.visit.steps.read import ReadField, questions, read_fields
from zerodip.visit.steps.set_switch import SetView, set_view
from zerodip.visit.steps.watch import WatchView, watch_view
from zerodip.visit.summary import summarize_log
from zerodip.visit.trouble import TroubleView, likely_causes, trouble_view

__all__ = ["Progress", "VisitAsked", "VisitView", "place_of", "visit_view"]


@dataclass(frozen=True, kw_only=True)
class Progress:
    """One step of the rail: how far it is and in a few words."""

    step: Step
    title: str
    state: Literal["open", "begun", "done"]
    says: str


_PROVE_IT = "Time a run: it tells whether that was it."


@dataclass(frozen=True, kw_only=True)
class Outcome:
    """A cause that may be confirmed at hand-over; the `likely` ones first."""

    id: str
    title: str
    likely: bool


@dataclass(frozen=True, kw_only=True)
class VisitView:
    """What all steps show; `trouble` where there is any, and what it may have been in the end (its
    `outcomes`). `power` is unknown, off or on; work that needs power off stays shut until it is off
    and proved dead. `place` is where the visit stood last, `next` the one thing that is next."""

    place: Step
    power: Power
    rail: tuple[Progress, ...]
    next: NextStep
    watch: WatchView
    make_safe: tuple[MakeSafeStep, ...]
    power_up: MakeSafeStep
    gauge_at_zero: MakeSafeStep
    seen_earlier: MakeSafeStep
    drain: DrainView | None
    knee: ReadField | None
    read: tuple[ReadField, ...]
    parts: tuple[PartSpec, ...]
    jobs: tuple[JobView, ...]
    questions: tuple[Question, ...]
    air: AirView | None
    air_check: AirCheck | None
    set: SetView
    prove: ProveView
    handover: HandoverView
    trouble: TroubleView | None
    outcomes: tuple[Outcome, ...]
    cautions: Mapping[Step, str]


@dataclass(frozen=True, kw_only=True)
class VisitAsked:
    """What goes with a visit when it is shown: the values that the visit before left, by slot; what
    was learned of the nuts; both nuts in one power-off ("together") or one at a time ("first");
    turning rather than watching (`eager`); the outcomes that the workspace confirmed on this kind
    of system, by cause (`met`)."""

    last: Mapping[str, Any] = field(default_factory=dict)
    learned: Learned = ()
    order: Literal["together", "first"] = "together"
    eager: bool = False
    met: Mapping[str, int] = field(default_factory=dict)


_CAUTIONS: dict[Step, str] = {
    "watch": "Cover on while power is on. Nothing is opened or turned yet.",
    "safe": (
        "Line terminals stay live when the machine's own switch is off. Read the diagram under the"
        " cover."
    ),
    "read": "A missing earth wire is a finding. Breaking a factory seal can end a warranty.",
    "set": (
        "Power off for every change. Stay at the gauge with a hand on the switch during the first"
        " fill after any increase."
    ),
    "prove": "Cover on whenever power is on.",
    "hand_over": (
        "Local codes and the maker’s instructions come first; electrical and gas-pressure work may"
        " need a licensed person."
    ),
}


def visit_view(
    document: Document,
    records: Iterable[Record],
    units: str = "us",
    asked: VisitAsked | None = None,
) -> VisitView:
    """The visit as it stands.

    Args:
        document: The system's file.
        records: The visit's records, oldest first.
        units: Unit system of the texts: "us", "metric" or "kpa".
        asked: What goes with the visit when it is shown; the usual if None.

    Returns:
        What all steps show.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    figures, log, asked = document.figures(), log_of(records), asked or VisitAsked()
    kind, gauge = kind_of(figures), log.value(FOUND_GAUGE)
    steps, proof = make_safe_steps(figures, log), prove_view(figures, log, units)
    done = summarize_log(log)
    setting = set_view(figures, log, units, asked.learned, asked.order, asked.eager)
    air = kind.visit.air(figures, log, units)
    fields = read_fields(kind.visit.read, log, asked.last, units)
    watch = watch_view(figures, log, asked.last, units)
    left = figures_at(document, done.left) or figures
    handover = handover_view(figures, left, log, done, setting, proof, units)
    jobs = jobs_of(figures, log)
    trouble = _trouble(figures, log, proof, jobs, units, asked.met)
    stand = Stand(
        log=log,
        jobs=jobs,
        make_safe=steps,
        power_up=power_up(log),
        gauge_at_zero=settling_step(GAUGE_AT_ZERO, log),
        air=air,
        air_check=kind.visit.air_check(figures, log, units),
        setting=setting,
        proof=proof,
        handover=handover,
    )
    return VisitView(
        place=place_of(log),
        power=power_state(log),
        rail=(
            _watch_progress(watch, units),
            _safe_progress(steps, log),
            _progress("read", "Read", sum(f.value is not None for f in fields), len(fields)),
            _decided(figures, log, units),
            _set_progress(setting),
            _progress("prove", "Prove", len(proof.measured), 1, f"{len(proof.measured)} measured"),
            _handover_progress(handover),
        ),
        next=next_of(stand),
        watch=watch,
        make_safe=steps,
        power_up=stand.power_up,
        gauge_at_zero=stand.gauge_at_zero,
        seen_earlier=settling_step(SEEN_EARLIER, log),
        # Before the gauge is read it stands at cut-out at most.
        drain=kind.visit.drain(
            figures, figures.cut_out_pa if gauge is None else float(gauge), log, units
        ),
        knee=_knee(kind.diagnosis.tests, log, units),
        read=fields,
        parts=kind.visit.parts,
        jobs=jobs,
        questions=questions(figures, log, units),
        air=air,
        air_check=stand.air_check,
        set=replace(setting, keep=settings_at(document, done.found)),
        prove=proof,
        handover=handover,
        trouble=trouble,
        outcomes=_outcomes(figures, log, trouble, asked.met),
        cautions=_CAUTIONS,
    )


def _trouble(
    figures: Figures,
    log: Log,
    proof: ProveView,
    jobs: Sequence[JobView],
    units: str,
    met: Mapping[str, int],
) -> TroubleView | None:
    """The diagnosis, where something was measured that does not agree, or seen or heard. A job that
    is done takes its cause out once a run was timed after it; before that it waits for the run."""
    mended = proved(figures, log)
    seen = observations_of(figures, log, mended)
    if not proof.apart and not any(each.value is True for each in seen):
        return None
    remedies = {each.remedy.id for each in kind_of(figures).troubles.causes}
    done = {job.id: job.title for job in jobs if job.done and job.id in remedies}
    waits = "" if mended or not done else f"Done: {', '.join(done.values())}. {_PROVE_IT}"
    here = condition_of(log), impossible_here(log)
    return trouble_view(figures, seen, units, *here, met, done if mended else (), waits)


def _outcomes(
    figures: Figures, log: Log, trouble: TroubleView | None, met: Mapping[str, int]
) -> tuple[Outcome, ...]:
    """What it may have been in the end: the suspects as found, then every other cause."""
    suspects = trouble.suspects if trouble else ()
    likely = tuple(
        id for each in suspects for id in (each.id, *(other.id for other in each.same_work))
    )
    if proved(figures, log):
        seen = observations_of(figures, log)
        called = any(each.value is True for each in seen)
        likely = likely_causes(figures, seen, met) if called else ()
    if not likely:
        return ()
    every = kind_of(figures).troubles.every
    others = [id for id in every if id not in likely]
    return tuple(
        Outcome(id=id, title=every[id].title, likely=id in likely) for id in (*likely, *others)
    )


def place_of(log: Log) -> Step:
    """Where a visit stood last; visits that were begun before there was anything to watch go on at
    making safe.

    Args:
        log: The visit's records.

    Returns:
        The step.
    """
    return log.value(PLACE) or ("safe" if log.has_confirmed() else "watch")


def _knee(tests: Sequence[ProofTest], log: Log, units: str) -> ReadField | None:
    """Where the gauge collapsed, asked where a drain can tell."""
    return read_fields((KNEE.name,), log, {}, units)[0] if "drain" in tests else None


def _watch_progress(watch: WatchView, units: str) -> Progress:
    """The points and the run make a whole cycle."""
    seen = {each.slot: each.value for each in watch.read}
    low, high = seen[FOUND_CUT_IN.name], seen[FOUND_CUT_OUT.name]
    count = sum(each is not None for each in (low, high, watch.run_s))
    says = band(low, high, units) if low is not None and high is not None else None
    return _progress("watch", "Watch", count, 3, says)


def _progress(step: Step, title: str, count: int, of: int, says: str | None = None) -> Progress:
    state: Literal["open", "begun", "done"] = (
        "done" if count >= of else "begun" if count else "open"
    )
    return Progress(
        step=step, title=title, state=state, says=f"{count} of {of}" if says is None else says
    )


def _safe_progress(steps: tuple[MakeSafeStep, ...], log: Log) -> Progress:
    """Counted as confirmed once, though powering up undid it since."""
    confirmed = sum(
        bool((record := log.values.get(f"safe.{step.id}")) and record.value) for step in steps
    )
    return _progress("safe", "Make safe", confirmed, len(steps))


def _decided(figures: Figures, log: Log, units: str) -> Progress:
    done = bool(log.value(DECIDED))
    says = band(figures.cut_in_pa, figures.cut_out_pa, units) if done else ""
    return _progress("decide", "Decide", int(done), 1, says)


def _set_progress(setting: SetView) -> Progress:
    count = sum(1 for each in setting.tries if any(each.turns))
    tries = f"{count} tr{'y' if count == 1 else 'ies'}" if count else ""
    done = setting.do == "done"
    return _progress(
        "set", "Set", 2 if done else int(bool(setting.tries)), 2, "set" if done else tries
    )


def _handover_progress(handover: HandoverView) -> Progress:
    done = sum(check.done for check in handover.checks)
    return _progress("hand_over", "Hand over", done, len(handover.checks), handover.signed)
