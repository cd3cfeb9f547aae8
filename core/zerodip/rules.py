"""Rules as data, and the harness that runs them.

A rule compares one figure of `Facts` with another. A missing reading is never a silent pass: it is "cannot tell", and the
finding names the reading. The texts are templates over the same figures, filled in the unit system asked for.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from .facts import READINGS, Facts
from .sources import Source
from .system import WATER_KINDS
from .units import Shown

__all__ = ["Finding", "Reading", "Rule", "Verdict", "run", "worded", "worst_verdict"]


class Verdict(StrEnum):
    """What a rule says, worst first."""

    STOP = "stop"
    CAUTION = "caution"
    CANNOT_TELL = "cannot_tell"
    PASS = "pass"  # noqa: S105 - a verdict, not a password
    NOT_APPLICABLE = "not_applicable"


ORDER = {verdict: at for at, verdict in enumerate(Verdict)}
_SIGNS = {"at_most": ("≤", ">"), "at_least": ("≥", "<"), "below": ("<", "≥"), "is": ("", "")}
_GAUGE_SLACK = 1e-9  # relative: a value typed exactly at a limit keeps it


@dataclass(frozen=True, kw_only=True)
class Rule:
    """One rule. `measure` and `limit` name figures of Facts; `sense` is at_most, at_least, below or is (a yes).
    Broken, it gives `broken`; with `tolerable`, only beyond that second limit, and a caution before it.
    `needs` names further figures without which it cannot tell. `title` is said of a rule kept, `fails` of one broken.
    Templates see the figures as `f`, and `op` as the sign between measure and limit as it stands."""

    id: str
    title: str
    fails: str
    source: Source
    measure: str
    limit: str = ""
    sense: str = "at_most"
    broken: Verdict = Verdict.STOP
    tolerable: str = ""
    needs: tuple[str, ...] = ()
    kinds: tuple[str, ...] = WATER_KINDS
    applies: Callable[[Any], bool] = lambda facts: True
    not_applicable: str = "Does not apply here."
    figure: str = ""
    advice: str
    formula: str


@dataclass(frozen=True)
class Reading:
    """A reading that is missing: the field where it is entered and what it is called."""

    path: str
    title: str


@dataclass(frozen=True)
class Finding:
    """What a rule says of one system."""

    rule: Rule
    verdict: Verdict
    missing: tuple[Reading, ...] = ()


@dataclass(slots=True, kw_only=True)
class WordedFinding:
    """A finding in words, figures in one unit system. Not frozen: thirty are made at every move of a finger, and freezing
    would take longer than the words."""

    rule: str
    verdict: str
    title: str
    figure: str
    advice: str
    formula: str
    source: str
    missing: tuple[Reading, ...]


def run(rules: Iterable[Rule], facts: Facts) -> tuple[Finding, ...]:
    """Runs every rule that applies to the system's kind; findings with the worst first, rule order kept within."""
    findings = [judge(rule, facts) for rule in rules if facts.kind in rule.kinds]
    return tuple(sorted(findings, key=lambda finding: ORDER[finding.verdict]))


def judge(rule: Rule, facts: Facts) -> Finding:
    """One rule on one system."""
    if not rule.applies(facts):
        return Finding(rule, Verdict.NOT_APPLICABLE)
    missing = _missing(rule, facts)
    if missing:
        return Finding(rule, Verdict.CANNOT_TELL, missing)
    if _kept(rule, facts, rule.limit):
        return Finding(rule, Verdict.PASS)
    if rule.tolerable and _kept(rule, facts, rule.tolerable):
        return Finding(rule, Verdict.CAUTION)
    return Finding(rule, rule.broken)


def _missing(rule: Rule, facts: Facts) -> tuple[Reading, ...]:
    named = [name for name in rule.needs if getattr(facts, name) is None]
    if not named:
        named = [name for name in (rule.measure, rule.limit) if name and getattr(facts, name) is None]
    if not named:
        return ()
    return tuple(Reading(*READINGS.get(name, ("", name))) for name in dict.fromkeys(named))


def _kept(rule: Rule, facts: Facts, limit_name: str) -> bool:
    measure = getattr(facts, rule.measure)
    if rule.sense == "is":
        return bool(measure)
    limit = getattr(facts, limit_name)
    slack = abs(limit) * _GAUGE_SLACK
    if rule.sense == "below":
        return bool(measure < limit - slack)
    return bool(measure <= limit + slack if rule.sense == "at_most" else measure >= limit - slack)


def worst_verdict(findings: Iterable[Finding]) -> Verdict:
    """The worst verdict among the findings; pass when there are none."""
    return min((f.verdict for f in findings), key=lambda v: ORDER[v], default=Verdict.PASS)


def worded(finding: Finding, f: Shown) -> WordedFinding:
    """The finding in words, `f` its figures. What cannot be told is said by naming the reading; a pass needs no advice."""
    rule = finding.rule
    broken = finding.verdict in (Verdict.STOP, Verdict.CAUTION)
    told = finding.verdict not in (Verdict.CANNOT_TELL, Verdict.NOT_APPLICABLE)
    return WordedFinding(
        rule=rule.id,
        verdict=finding.verdict.value,
        title=f.fill(rule.fails if broken else rule.title),
        figure=f.fill(rule.figure, _SIGNS[rule.sense][broken]) if told else "",
        advice=_advice(finding, f),
        formula=f.fill(rule.formula) if told else "",
        source=rule.source.line,
        missing=finding.missing,
    )


def _advice(finding: Finding, f: Shown) -> str:
    if finding.verdict is Verdict.CANNOT_TELL:
        return "Cannot tell. Read " + " and ".join(reading.title for reading in finding.missing) + "."
    if finding.verdict is Verdict.NOT_APPLICABLE:
        return finding.rule.not_applicable
    return "" if finding.verdict is Verdict.PASS else f.fill(finding.rule.advice)
