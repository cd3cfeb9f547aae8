"""Every advice is the result of a trial: what a finding's remedies do is worked out by applying
each on the model and judging again. Told is the cheapest that ends the finding without a new stop
or caution; else the one that helps most, and how far; else that nothing tried does."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import groupby
from math import isfinite
from typing import Any, TypeGuard

from zerodip.errors import InvalidInput
from zerodip.kinds.figures import Figures
from zerodip.kinds.limits import limits_to_read, may_raise
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.remedies import Remedy
from zerodip.rules.engine import SEVERITY, Finding, Rule, Verdict, WordedFinding, is_broken, run
from zerodip.text.figure import OP
from zerodip.text.within import within
from zerodip.text.writer import Writer
from zerodip.units import number, text

__all__ = ["Advice", "Trials", "advised"]

_HELPS = 0.2  # of what is missing: less is no help worth telling
_RUN_CHANGED = 0.03


@dataclass(frozen=True, kw_only=True)
class Advice:
    """What helps against one finding. `removes` tells that the finding ends; otherwise `share` is
    how much of what was missing it makes up (0 where nothing tried helps). `remedy` is None where
    none is told; `first` names what must be read before it."""

    rule: str
    says: str
    removes: bool
    share: float
    remedy: Remedy[Any] | None


class Trials:
    """The remedies of one system, each applied once."""

    def __init__(self, figures: Figures, units: str) -> None:
        self.figures, self.units, self.kind = figures, units, kind_of(figures)
        self._after: dict[int, Tried | None] = {}

    @cached_property
    def now(self) -> "Tried":
        """The system as it is."""
        return Tried(self.figures, run(self.kind.rules, self.figures))

    @cached_property
    def _catalogue(self) -> list[Remedy[Any]]:
        """Everything that may be changed, cheapest first; made once, so that each is tried once."""
        listed = self.kind.remedies(self.figures, self.units)
        return sorted(listed, key=lambda each: (each.cost, each.effort))

    @cached_property
    def remedies(self) -> tuple[Remedy[Any], ...]:
        """The catalogue, cheapest first; nothing that raises what may not be raised."""
        return tuple(each for each in self._catalogue if self._allowed(each))

    @cached_property
    def barred(self) -> tuple[Remedy[Any], ...]:
        """Those that are not told before a limit is read, cheapest first."""
        if not limits_to_read(self.kind.limits, self.figures):
            return ()
        return tuple(each for each in self._catalogue if not self._allowed(each))

    def _allowed(self, remedy: Remedy[Any]) -> bool:
        to = remedy.settings.cut_out_gauge_pa
        return may_raise(self.kind.limits, self.figures, to)

    def after(self, remedy: Remedy[Any]) -> "Tried | None":
        """The system with the remedy applied; None where no such system can be entered."""
        if id(remedy) not in self._after:
            self._after[id(remedy)] = self._tried(remedy)
        return self._after[id(remedy)]

    def _tried(self, remedy: Remedy[Any]) -> "Tried | None":
        try:
            at = figures_for(remedy.system, remedy.settings, self.figures.practice)
        except InvalidInput:
            return None
        return Tried(at, run(self.kind.rules, at))

    def breaks(self, tried: "Tried") -> bool:
        """Whether it brings a stop or caution that is not there now, or that was only a caution."""
        return any(
            SEVERITY[found.verdict] < SEVERITY[self.now.verdict(rule)]
            for rule, found in tried.broken.items()
        )

    def _lowers(self, remedy: Remedy[Any], finding: Finding) -> bool:
        """Whether it takes pressure from the taps that is wanted there; only for a stop."""
        low = remedy.settings.cut_in_gauge_pa
        floor = self.kind.proposing.floor_pa(self.figures)
        lowers = low < min(floor, self.figures.cut_in_pa) - 1.0
        return lowers and finding.verdict is not Verdict.STOP

    def advice(self, finding: Finding) -> Advice:
        """What to tell against one finding: of the cheapest that end it the one that leaves least
        broken."""
        best: tuple[float, Remedy[Any], Tried] | None = None
        for _, equal in groupby(self._of(self.remedies, finding.rule), lambda each: each.cost):
            ends: list[tuple[tuple[int, int], float, int, Remedy[Any], Tried]] = []
            for remedy in equal:
                tried = self.after(remedy)
                if tried is None or self.breaks(tried) or self._lowers(remedy, finding):
                    continue
                share = self.share(finding.rule, tried)
                if share >= 1.0:
                    ends.append((tried.left, remedy.effort, len(ends), remedy, tried))
                elif share >= _HELPS and (best is None or share > best[0] + 0.01):
                    best = share, remedy, tried
            if ends:
                *_, remedy, tried = min(ends, key=lambda each: each[:3])
                return self._told(finding, remedy, tried, 1.0)
        return self._unread(finding) or self._at_best(finding, best)

    @staticmethod
    def _of(remedies: Iterable[Remedy[Any]], rule: Rule[Any]) -> Iterator[Remedy[Any]]:
        """Those that belong to a rule: what belongs to any moves only what settings can keep."""
        for each in remedies:
            if rule.id in each.of or (rule.settable and not each.of):
                yield each

    def share(self, rule: Rule[Any], tried: "Tried") -> float:
        """How much of what is missing of a rule is made up: 1 where it is no longer broken."""
        verdict = tried.verdict(rule.id)
        if verdict in (Verdict.PASS, Verdict.NOT_APPLICABLE):
            return 1.0
        before, after = (_missing(rule, at.figures) for at in (self.now, tried))
        if verdict is Verdict.CANNOT_TELL or before is None or after is None or before <= 0:
            return 0.0
        return min(max(1 - after / before, 0.0), 0.99)

    def _told(self, finding: Finding, remedy: Remedy[Any], tried: "Tried", share: float) -> Advice:
        gives = ", ".join(self._gives(finding.rule, tried, share >= 1.0))
        says = f"{remedy.does}: {gives}." if gives else f"{remedy.does}."
        return Advice(
            rule=finding.rule.id, says=says, removes=share >= 1.0, share=share, remedy=remedy
        )

    def _gives(self, rule: Rule[Any], tried: "Tried", removes: bool) -> Iterator[str]:
        """What it gives, in words."""
        kind, now, at = self.kind, self.figures, tried.figures
        before, after = (kind.diagnosis.run_s(each) for each in (now, at))
        if _is_told(before) and _is_told(after) and abs(after - before) > _RUN_CHANGED * before:
            ran = number(before, "duration", self.units)
            yield f"run {ran} → {text(after, 'duration', self.units)}"
        if now.dips and not at.dips:
            yield "no dip"
        if OP in rule.figure and not (before != after and rule.measure.name == "run_s"):
            yield Writer(at, self.units).fill(rule.figure, rule.sign(broken=not removes))

    def _unread(self, finding: Finding) -> Advice | None:
        """What would end it once the limits are read that it comes nearer to."""
        for remedy in self._of(self.barred, finding.rule):
            tried = self.after(remedy)
            if tried is None or self.breaks(tried) or self.share(finding.rule, tried) < 1.0:
                continue
            names = " and ".join(
                each.title for each in limits_to_read(self.kind.limits, self.figures)
            )
            does = within(remedy.does)
            says = f"Read {names} first. If they allow it, {does}."
            return Advice(rule=finding.rule.id, says=says, removes=False, share=0.0, remedy=remedy)
        return None

    def _at_best(self, finding: Finding, best: "tuple[float, Remedy[Any], Tried] | None") -> Advice:
        calls_for = Writer(self.figures, self.units).fill(finding.rule.calls_for)
        if best is None:
            nothing = "No setting fixes this." if finding.rule.settable else ""
            says = f"{nothing} {calls_for}".strip()
            return Advice(rule=finding.rule.id, says=says, removes=False, share=0.0, remedy=None)
        told = self._told(finding, best[1], best[2], best[0])
        says = f"Not enough by itself, but it helps: {told.says} {calls_for}".strip()
        return replace(told, says=says)


@dataclass(frozen=True)
class Tried:
    """A system with its findings, by rule."""

    figures: Figures
    findings: tuple[Finding, ...]

    @cached_property
    def by_rule(self) -> Mapping[str, Finding]:
        """Every finding by its rule's id."""
        return {finding.rule.id: finding for finding in self.findings}

    @cached_property
    def broken(self) -> Mapping[str, Finding]:
        """Stops and cautions by their rule's id."""
        return {id: each for id, each in self.by_rule.items() if is_broken(each)}

    @cached_property
    def left(self) -> tuple[int, int]:
        """How many stops and how many cautions there are."""
        stops = sum(each.verdict is Verdict.STOP for each in self.broken.values())
        return stops, len(self.broken) - stops

    def verdict(self, rule: str) -> Verdict:
        """What a rule says here."""
        return self.by_rule[rule].verdict


def _is_told(value: float | None) -> TypeGuard[float]:
    return value is not None and isfinite(value)


def _missing(rule: Rule[Any], figures: Figures) -> float | None:
    """By how much a rule is broken, in what its measure is in; None where that is no amount."""
    if rule.limit is None:
        return None
    measure, limit = (getattr(figures, each.name) for each in (rule.measure, rule.limit))
    if measure is None or limit is None or not isfinite(measure) or not isfinite(limit):
        return None
    return float(measure - limit if rule.sense in ("at_most", "below") else limit - measure)


def advised(
    findings: Iterable[Finding], worded: Iterable[WordedFinding], figures: Figures, units: str
) -> tuple[WordedFinding, ...]:
    """Findings in words with what was tried and helps against those that are broken.

    Args:
        findings: The findings.
        worded: The same in words, in the same order.
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The same, each broken one with its remedy. What a usual value decides is read first, and
        nothing else is told of it.
    """
    trials, told = Trials(figures, units), []
    for finding, said in zip(findings, worded, strict=True):
        if is_broken(finding) and not finding.usual:
            said.remedy = trials.advice(finding).says
        told.append(said)
    return tuple(told)
