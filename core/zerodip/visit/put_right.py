"""What puts a cause right on a system, by what Decide tried there, and what Decide has against the
system as it stands on file."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from zerodip.diagnosis.hypotheses import Broken
from zerodip.diagnosis.parts import Cause
from zerodip.kinds.findings import findings_of
from zerodip.kinds.trials import Trials
from zerodip.rules.engine import Finding, Verdict
from zerodip.text.figure import Reading
from zerodip.text.within import within
from zerodip.text.writer import Writer

__all__ = ["PutRight"]

_BY_FIGURES = ("setting", "nothing")  # nothing is to be done by hand but what is worked out


@dataclass(frozen=True)
class PutRight:
    """What puts causes right on a system, by what was tried on it."""

    trials: Trials

    @cached_property
    def usual(self) -> Mapping[str, tuple[Reading, ...]]:
        """By rule the usual values that decide it, that nobody read."""
        if not self.trials.figures.system.assumed:
            return {}
        return {f.rule.id: f.usual for f in findings_of(self.trials.figures, sure=False)}

    @cached_property
    def broken(self) -> Mapping[str, Finding]:
        """The stops and cautions of Decide that no usual value decides, the worst first."""
        found = self.trials.now.broken
        return {id: each for id, each in found.items() if not self.usual.get(id)}

    @property
    def worst(self) -> Finding | None:
        """The worst of them; None where Decide has nothing against the system."""
        return next(iter(self.broken.values()), None)

    @property
    def on_file(self) -> Broken:
        """The rules that are broken as the system stands on file: stops, then cautions."""
        by = [(each.verdict is Verdict.STOP, id) for id, each in self.broken.items()]
        return tuple(frozenset(id for stop, id in by if stop is worst) for worst in (True, False))

    def of(self, cause: Cause[Any]) -> tuple[str, int]:
        """What puts a cause right, with what was tried against what it breaks in Decide, and its
        minutes (0 where they are not told). What a usual value decides is read first."""
        says, minutes = cause.remedy.says, cause.remedy.minutes
        by_figures = cause.remedy.kind in _BY_FIGURES
        all_broken = self.trials.now.broken
        broken = next((all_broken[rule] for rule in cause.breaks if rule in all_broken), None)
        if broken is None and cause.remedy.kind == "nothing" and self.worst:
            return "Nothing is broken. What Decide has stands.", minutes
        if broken is None:
            return says, minutes
        if usual := self.usual.get(broken.rule.id):
            first = f"Read first: {'; '.join(each.title for each in usual)}."
            return (first, 0) if by_figures else (f"{says} {first}", minutes)
        tried = self.trials.advice(broken).says
        return (tried, 0) if by_figures else (f"{says} {tried}", minutes)

    def against(self, finding: Finding) -> str:
        """A stop or caution of Decide in words, with what was tried against it."""
        word = "stop" if finding.verdict is Verdict.STOP else "caution"
        title = Writer(self.trials.figures, self.trials.units).fill(finding.rule.fails)
        says = f"Decide has a {word} here: {within(title)}."
        return f"{says} {self.trials.advice(finding).says}".strip()
