"""What a visit leaves: everything that was seen, measured, judged, assumed or not read, and not put
right. Page, report and Rounds show the same."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from zerodip.kinds.figures import Figures
from zerodip.kinds.findings import findings_of, usual_values
from zerodip.kinds.registry import kind_of
from zerodip.kinds.steps import WATCHED
from zerodip.kinds.trials import Trials
from zerodip.kinds.visit_parts import Remaining
from zerodip.rules.engine import Verdict, is_broken, worded
from zerodip.text.within import within
from zerodip.text.writer import Writer
from zerodip.units import text
from zerodip.visit.figures_at import figures_stood
from zerodip.visit.log import Log
from zerodip.visit.slots import (
    BRIDGED,
    CONTACTS_BURNT,
    CORROSION,
    DIP_SEEN,
    EARTH_MISSING,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_PRE_CHARGE,
    FOUND_RUN,
    GAUGE_STUCK,
    LAP,
    LEAKS_SEEN,
    NIPPLE_CLOGGED,
    RATING_LOW,
    SWAPPED,
    Slot,
)
from zerodip.visit.steps.jobs import added_jobs, closed_slots
from zerodip.visit.steps.make_safe import power_state
from zerodip.visit.steps.prove import ProveView
from zerodip.visit.steps.set_switch import SetView
from zerodip.visit.summary import summarize_log

__all__ = ["remaining", "seen"]

_SHORTER = 0.7  # of what is worked out; taps that were open make a run longer, never shorter
_LONGEST_S = 1e6  # a run worked out to be longer is none
_ORDER = ("stop", "caution", "cannot_tell")
_CAUTION: Literal["caution"] = "caution"
_STOP: Literal["stop"] = "stop"
# Seen and answered with yes: how bad it is, what it is called, and what is advised.
_SEEN: tuple[tuple[Slot[bool], Literal["stop", "caution"], str, str], ...] = (
    (
        EARTH_MISSING,
        _STOP,
        "No earth wire at the switch",
        "A fault would make the case and the pipes live. Have it earthed by a licensed person.",
    ),
    (
        SWAPPED,
        _STOP,
        "Line and load swapped at the switch",
        "The motor side stays live with the switch open. Have it wired by its diagram.",
    ),
    (
        BRIDGED,
        _STOP,
        "Terminals bridged at the switch",
        "The pump can no longer be stopped by the switch. Have the bridge taken out.",
    ),
    (
        RATING_LOW,
        _STOP,
        "The switch is rated for less than the motor draws",
        "Its contacts will weld shut, and the pump will not stop. Have it replaced.",
    ),
    (
        CONTACTS_BURNT,
        _CAUTION,
        "Contacts of the switch burnt or dirty",
        "They stick or do not close. Have them cleaned, or the switch replaced.",
    ),
    (
        NIPPLE_CLOGGED,
        _CAUTION,
        "The pipe to the switch is closing up",
        "The switch feels pressure late and may never stop. Have a brass nipple put in.",
    ),
    (
        GAUGE_STUCK,
        _CAUTION,
        "The gauge sticks",
        "It shows pressure that is not there, or hides it. Have it replaced.",
    ),
    (
        LEAKS_SEEN,
        _CAUTION,
        "Leaks seen",
        "Every leak empties the tank and starts the pump. Have it found and mended.",
    ),
    (
        CORROSION,
        _CAUTION,
        "Corrosion seen",
        "Rusted terminals and nipples fail without a warning. Have these parts replaced.",
    ),
    (
        DIP_SEEN,
        _CAUTION,
        "A dip felt at the taps",
        "The taps feel each start of the pump. Pre-charge or start of the pump is not right.",
    ),
)


def remaining(
    wanted: Figures, left: Figures, log: Log, setting: SetView, proof: ProveView, units: str
) -> tuple[Remaining, ...]:
    """All that remains, the worst first.

    Args:
        wanted: The system's figures as decided.
        left: The same with what was left.
        log: The visit's log.
        setting: The step of setting the switch.
        proof: The step of proving.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What remains.
    """
    found = seen(wanted, log, setting, proof, units)
    replaced = {rule for each in found for rule in each.replaces}
    spoiled = any(each.spoils for each in found)
    limits = [each for each in _limits(left, units, spoiled) if each.id not in replaced]
    # What was seen with one's own eyes before what was worked out.
    return tuple(sorted([*found, *limits], key=lambda each: _ORDER.index(each.verdict)))


def seen(
    figures: Figures, log: Log, setting: SetView, proof: ProveView, units: str
) -> tuple[Remaining, ...]:
    """The same without the limits, which go by the system's settings and not by what was seen.

    Args:
        figures: The system's figures as decided.
        log: The visit's log.
        setting: The step of setting the switch.
        proof: The step of proving.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What was seen, measured, begun, assumed or not read.
    """
    with_own_eyes = (
        *_run_found(figures, log, units),
        *kind_of(figures).visit.noticed(figures, log, units),
        *_said_yes(figures, log),
        *_not_as_worked_out(proof, units),
    )
    return (
        *(replace(each, seen=True) for each in with_own_eyes),
        *_begun(figures, log, setting),
        *_not_read(figures, log),
    )


def _limits(figures: Figures, units: str, spoiled: bool) -> Iterator[Remaining]:
    """What the rules say of it; where something spoils the figures, nothing is tried on them."""
    write, trials = Writer(figures, units), Trials(figures, units)
    for each in filter(is_broken, findings_of(figures)):
        said, stops = worded(each, write), each.verdict == Verdict.STOP
        remedy = "" if each.usual or spoiled else trials.advice(each).says
        yield Remaining(
            id=said.rule,
            verdict="stop" if stops else "caution",
            title=said.title,
            figure=said.figure,
            advice=f"{said.advice} {remedy}".strip(),
            urgent="now" if stops else "soon",
        )


def _said_yes(figures: Figures, log: Log) -> Iterator[Remaining]:
    """What was seen, and put right by no job."""
    closed = closed_slots(kind_of(figures).visit.jobs, log)
    for slot, verdict, title, advice in _SEEN:
        if log.value(slot) and slot.name not in closed:
            yield Remaining(
                id=slot.name,
                verdict=verdict,
                title=title,
                advice=advice,
                urgent="now" if verdict == _STOP else "soon",
                replaces=("earth",) if slot is EARTH_MISSING else (),
            )


def _run_found(figures: Figures, log: Log, units: str) -> Iterator[Remaining]:
    """A run as found that is short cycling, or far shorter than its plates and readings tell, where
    none was timed since."""
    run, wanted = log.value(FOUND_RUN), kind_of(figures).diagnosis.wanted_run_s(figures)
    if run is None or log.records_in(LAP):
        return
    short, told = wanted is not None and run < wanted, _told_run_s(figures, log)
    apart = told is not None and run < _SHORTER * told
    if short or apart:
        says = ["Time a run as it is left."]
        if wanted is not None and short:
            says.insert(0, f"At least {text(wanted, 'duration', units)} is wanted.")
        if told is not None and apart:
            says.insert(0, _would_run(figures, log, text(told, "duration", units)))
        yield Remaining(
            id="run_found",
            verdict="caution",
            title="Short cycling as found" if short else "Pump run as found not as worked out",
            figure=text(run, "duration", units),
            advice=" ".join(says),
            urgent="soon",
        )


def _would_run(figures: Figures, log: Log, run: str) -> str:
    charged = figures.settings.pre_charge_gauge_pa is not None
    if charged and log.value(FOUND_PRE_CHARGE) is None:
        return f"By its plates, with the air as set, it would run {run}: read the air."
    return f"By its plates and readings it would run {run}: one of them is not so."


def _told_run_s(figures: Figures, log: Log) -> float | None:
    """How long a run without draw was by all that was read, s; None where something was not."""
    stood = figures_stood(figures, summarize_log(log).found)
    run = None if stood is None else kind_of(figures).diagnosis.run_s(stood)
    return run if run is not None and run <= _LONGEST_S else None


def _not_as_worked_out(proof: ProveView, units: str) -> Iterator[Remaining]:
    for each in proof.measured:
        if each.agrees is False:
            shown = "" if each.measured is None else text(each.measured, each.dimension, units)
            yield Remaining(
                id=f"measured.{each.id}",
                verdict="caution",
                title=f"{each.title} not as worked out",
                figure=shown,
                advice=f"{each.says}. Something here is not as its plate or the readings say.",
                urgent="soon",
            )


def _begun(figures: Figures, log: Log, setting: SetView) -> Iterator[Remaining]:
    """What was begun and not ended."""
    for job in added_jobs(figures, log):
        if not job.done:
            missing = [each.does for each in (*job.steps, *job.checks) if not each.done]
            yield Remaining(
                id=f"job.{job.id}",
                verdict="caution",
                title=f"Not finished: {within(job.title)}",
                advice=f"Left to do: {' '.join(missing[:3])}",
                urgent="now",
            )
    if power_state(log) == "off":
        yield Remaining(
            id="power",
            verdict="caution",
            title="Power is still off",
            advice="Cover on, then power on, and see one whole run.",
            urgent="now",
        )
    if setting.do == "see":
        yield Remaining(
            id="not_watched",
            verdict="caution",
            title="Nuts were turned and the points not watched since",
            advice="See where the pump starts and stops before anybody relies on it.",
            urgent="now",
        )
    elif setting.tries and setting.do != "done":
        yield Remaining(
            id="not_set",
            verdict="caution",
            title=f"The switch is not called set: {setting.sure:.0%} sure",
            advice="Watch it start and stop again, and go on with the next turn.",
            urgent="soon",
        )


def _not_read(figures: Figures, log: Log) -> Iterator[Remaining]:
    """Readings of this visit that are missing, and values that nobody ever read."""
    asked = (*WATCHED, *kind_of(figures).visit.read)
    slots = (FOUND_CUT_IN, FOUND_CUT_OUT, FOUND_PRE_CHARGE)
    missing = [slot.title for slot in slots if slot.name in asked and log.value(slot) is None]
    if missing:
        yield Remaining(
            id="not_read",
            verdict="cannot_tell",
            title="Missing on this visit",
            advice=f"{_listed(missing)}.",
            urgent="next visit",
        )
    usual = list(dict.fromkeys(each.title for each in usual_values(figures)))
    if usual:
        yield Remaining(
            id="usual",
            verdict="cannot_tell",
            title="Never read; usual values stand for these",
            advice=f"{_listed(usual)}. The figures go by them.",
            urgent="next visit",
        )


def _listed(names: list[str]) -> str:
    said = ", ".join([names[0], *(within(name) for name in names[1:])])
    return said[:1].upper() + said[1:]
