"""Jobs on a visit: those that belong to it, those that something found or complained of suggests,
and which findings they have closed."""

from dataclasses import dataclass
from typing import Any

from zerodip.jobs.parts import Job, JobStep
from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.visit.log import Log
from zerodip.visit.slots import COMPLAINT, COMPLAINTS, Slot
from zerodip.visit.steps.make_safe import MakeSafeStep, power_state

__all__ = ["JobView", "added_jobs", "closed_slots", "jobs_of"]

_OFF = "First: power off and proved dead."
_DRAINED = "First: drained, the gauge at zero."


@dataclass(frozen=True, kw_only=True)
class JobView:
    """One job: whether it was added to the visit (at `slot`), why it is suggested ("": it is not),
    about how long it takes, what to have, its steps and checks as they stand, what is recorded on
    the way, and whether all of it is done."""

    id: str
    title: str
    slot: str
    added: bool
    suggested: str
    minutes: int
    have: tuple[str, ...]
    steps: tuple[MakeSafeStep, ...]
    checks: tuple[MakeSafeStep, ...]
    records: tuple[str, ...]
    done: bool


def jobs_of(figures: Figures, log: Log) -> tuple[JobView, ...]:
    """Every job of this kind of system: those of the visit first, then those suggested, the
    shortest first: a cheap repair is tried before a dear one.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.

    Returns:
        The jobs.
    """
    made = [_view(job, log) for job in kind_of(figures).visit.jobs]
    return tuple(sorted(made, key=_place))


def _place(job: JobView) -> tuple[bool, bool, int]:
    hurry = bool(job.suggested) and not job.added
    return not job.added, not job.suggested, job.minutes if hurry else 0


def added_jobs(figures: Figures, log: Log) -> tuple[JobView, ...]:
    """The jobs that were added to the visit.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.

    Returns:
        The jobs.
    """
    return tuple(_view(job, log) for job in kind_of(figures).visit.jobs if _said(log, job.added))


def _view(job: Job, log: Log) -> JobView:
    added = _said(log, job.added)
    return JobView(
        id=job.id,
        title=job.title,
        slot=job.added.name,
        added=added,
        suggested=_suggested(job, log),
        minutes=job.minutes,
        have=job.have,
        steps=tuple(_step(job, each, log) for each in job.steps),
        checks=tuple(_step(job, each, log) for each in job.checks),
        records=tuple(slot.title for slot in job.records),
        done=added and _done(job, log),
    )


def _step(job: Job, step: JobStep, log: Log) -> MakeSafeStep:
    slot = job.slot_of(step)
    power, emptied = power_state(log), log.confirmed("drained") or log.confirmed("bled")
    shut = _OFF if step.off and power != "off" else _DRAINED if step.drained and not emptied else ""
    done = _said(log, slot)
    return MakeSafeStep(
        id=step.id,
        slot=slot.name,
        does=step.does,
        caution=step.caution,
        done=done,
        after="",
        shut="" if done else shut,
    )


def _said(log: Log, slot: Slot[Any]) -> bool:
    return bool(log.value(slot))


def _done(job: Job, log: Log) -> bool:
    return all(_said(log, job.slot_of(each)) for each in (*job.steps, *job.checks))


def _suggested(job: Job, log: Log) -> str:
    """What was found or complained of that this job would put right."""
    closed = closed_slots((job,), log)
    found = [slot.title for slot in job.closes if log.value(slot) and slot.name not in closed]
    complaint = log.value(COMPLAINT)
    if complaint in job.complaints:
        found.append(COMPLAINTS[str(complaint)])
    return "; ".join(found)


def closed_slots(jobs: tuple[Job, ...], log: Log) -> frozenset[str]:
    """The findings that jobs have put right: found before the job's last step was done.

    Args:
        jobs: The jobs of this kind of system.
        log: The visit's log.

    Returns:
        Names of slots.
    """
    closed = set()
    for job in jobs:
        if not (_said(log, job.added) and _done(job, log)):
            continue
        ended = max(log.values[slot.name].at for slot in job.slots()[1:])
        for slot in job.closes:
            found = log.record(slot)
            if found is not None and found.at <= ended:
                closed.add(slot.name)
    return frozenset(closed)
