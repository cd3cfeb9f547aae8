"""What a job is made of."""

from dataclasses import dataclass
from typing import Any

from zerodip.visit.slots import Slot, confirmation

__all__ = ["Job", "JobStep"]


@dataclass(frozen=True, kw_only=True)
class JobStep:
    """One step or one check of a job: what to do, the caution that bites here, and whether it needs
    power off and proved dead, or the tank drained too. `at` is the slot where it is recorded; one
    of its own if None."""

    id: str
    does: str
    caution: str = ""
    off: bool = False
    drained: bool = False
    at: Slot[bool] | None = None


@dataclass(frozen=True, kw_only=True)
class Job:
    """A job: about how long it takes (minutes), what to have, its steps in order, what is checked
    after, what is `records`-ed on the way, which findings it `closes` once it is done, and the
    complaints (ids of `zerodip.visit.slots.COMPLAINTS`) that suggest it. `source` of all of it:
    common practice, no source, unless told in the text."""

    id: str
    title: str
    minutes: int
    have: tuple[str, ...]
    steps: tuple[JobStep, ...]
    checks: tuple[JobStep, ...]
    records: tuple[Slot[Any], ...] = ()
    closes: tuple[Slot[bool], ...] = ()
    complaints: tuple[str, ...] = ()

    @property
    def added(self) -> Slot[bool]:
        """Where it is recorded that the job belongs to a visit."""
        return confirmation(f"job.{self.id}", "set")

    def slot_of(self, step: JobStep) -> Slot[bool]:
        """Where one of its steps or checks is recorded."""
        return step.at or confirmation(f"job.{self.id}.{step.id}", "set")

    def slots(self) -> tuple[Slot[bool], ...]:
        """Every slot of its own."""
        return (self.added, *(self.slot_of(each) for each in (*self.steps, *self.checks)))
