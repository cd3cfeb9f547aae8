"""Rules as data, and the engine that runs them.

A rule compares one figure with another. A missing reading is never a silent pass: it is "cannot
tell", and the finding names the reading. The texts are templates over the same figures, filled in
the unit system asked for.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any, Generic, TypeVar

from zerodip.rules.sources import Source
from zerodip.text.figure import Figure, Reading
from zerodip.text.writer import Writer

__all__ = [
    "SEVERITY",
    "Finding",
    "Rule",
    "Verdict",
    "WordedFinding",
    "by_weight",
    "exceeds",
    "is_broken",
    "judge",
    "on_usual",
    "run",
    "slack",
    "worded",
    "worst_verdict",
]

F = TypeVar("F", contravariant=True)


class Verdict(StrEnum):
    """What a rule says, worst first."""

    STOP = "stop"
    CAUTION = "caution"
    CANNOT_TELL = "cannot_tell"
    PASS = "pass"  # noqa: S105 - a verdict, not a password
    NOT_APPLICABLE = "not_applicable"


SEVERITY = {verdict: at for at, verdict in enumerate(Verdict)}
_SIGNS = {
    "at_most": ("≤", ">"),
    "at_least": ("≥", "<"),
    "below": ("<", "≥"),
    "above": (">", "≤"),
    "is": ("", ""),
}
# Two pressures nearer than this are one: 75 psi typed, converted or imported against 80 psi less 5.
# Other figures: relative.
_SAME_PA, _SAME = 1.0, 1e-9


@dataclass(frozen=True, kw_only=True)
class Rule(Generic[F]):
    """One rule. `sense` is how `measure` stands to `limit`: at_most, at_least, below, above, or is
    (a yes, without a limit). Broken, it gives `broken`; with `tolerable`, only beyond that second
    limit, and a caution before it. `needs` are figures without whose readings it cannot tell;
    `untold` says why, where all is read and it cannot tell all the same. `title` is said of a rule
    kept, `fails` of one broken. Texts are templates made of figures; `figure` may hold the sign
    between measure and limit as it stands (`OP`). `means` is what follows from a broken one, never
    what to do: remedies are tried on the model (`zerodip.kinds.trials`). `calls_for` is what it
    takes where nothing that can be tried helps. `assumes` tells that the measure rests on what was
    assumed and not read: then a stop is a caution. `settable` tells that settings can keep it: what
    lies in the plant alone moves no setting. `exact` tells that a pass is as sure as what was read:
    it compares what the gauge shows, or counts the gauge's error already."""

    id: str
    title: str
    fails: str
    source: Source
    measure: Figure[Any]
    limit: Figure[Any] | None = None
    sense: str = "at_most"
    broken: Verdict = Verdict.STOP
    tolerable: Figure[Any] | None = None
    needs: tuple[Figure[Any], ...] = ()
    untold: str = ""
    assumes: Callable[[F], bool] = lambda figures: False
    settable: bool = True
    exact: bool = False
    applies: Callable[[F], bool] = lambda figures: True
    not_applicable: str = "Does not apply here."
    figure: str = ""
    means: str
    calls_for: str = ""
    formula: str

    def __post_init__(self) -> None:
        """A rule that is put together wrongly is found when it is imported."""
        if (self.limit is None) != (self.sense == "is"):
            raise TypeError(f"{self.id}: a limit goes with every sense but “is”")
        unread = [need.name for need in self.needs if need.reading is None]
        if unread:
            raise TypeError(f"{self.id}: no reading is known for {', '.join(unread)}")

    def sign(self, broken: bool) -> str:
        """The sign between measure and limit, kept or broken."""
        return _SIGNS[self.sense][broken]

    @property
    def figures(self) -> tuple[Figure[Any], ...]:
        """Every figure that it compares or needs."""
        return tuple(
            each
            for each in (self.measure, self.limit, self.tolerable, *self.needs)
            if each is not None
        )


@dataclass(frozen=True)
class Finding:
    """What a rule says of one system. `usual` are the readings for which a usual value stands that
    decides the verdict: it would be another if they turned out differently. `doubt` is the chance
    of the opposite, where a pass is too near its limit for what its inputs may be off by."""

    rule: Rule[Any]
    verdict: Verdict
    missing: tuple[Reading, ...] = ()
    usual: tuple[Reading, ...] = ()
    doubt: float = 0.0


@dataclass(slots=True, kw_only=True)
class WordedFinding:
    """A finding in words, figures in one unit system; `remedy` is what was tried and helps, where
    that was asked for. Not frozen: thirty are made at every move of
    a finger, and freezing would take longer than the words."""

    rule: str
    verdict: str
    title: str
    figure: str
    advice: str
    formula: str
    source: str
    missing: tuple[Reading, ...]
    usual: tuple[Reading, ...]
    remedy: str = ""


def run(rules: Iterable[Rule[F]], figures: F) -> tuple[Finding, ...]:
    """Runs the rules of a kind on one system; findings with the worst first, rule order kept
    within."""
    return by_weight(judge(rule, figures) for rule in rules)


def by_weight(findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """The findings with the worst first, their order kept within."""
    return tuple(sorted(findings, key=lambda finding: SEVERITY[finding.verdict]))


def on_usual(finding: Finding, usual: tuple[Reading, ...]) -> Finding:
    """A finding whose verdict hangs on usual values that nobody read: not a pass but open, and no
    stop but a caution."""
    if finding.verdict is Verdict.PASS:
        return replace(finding, verdict=Verdict.CANNOT_TELL, missing=usual, usual=usual)
    if finding.verdict is Verdict.STOP:
        return replace(finding, verdict=Verdict.CAUTION, usual=usual)
    return replace(finding, usual=usual)


def judge(rule: Rule[F], figures: F) -> Finding:
    """One rule on one system."""
    if not rule.applies(figures):
        return Finding(rule, Verdict.NOT_APPLICABLE)
    missing = tuple(
        dict.fromkeys(n.reading for n in rule.needs if n.reading and _value(n, figures) is None)
    )
    if missing or _untold(rule, figures):
        return Finding(rule, Verdict.CANNOT_TELL, missing)
    if _kept(rule, figures, rule.limit):
        return Finding(rule, Verdict.PASS)
    if rule.tolerable is not None and _kept(rule, figures, rule.tolerable):
        return Finding(rule, Verdict.CAUTION)
    softer = rule.broken is Verdict.STOP and rule.assumes(figures)
    return Finding(rule, Verdict.CAUTION if softer else rule.broken)


def _value(of: Figure[Any], figures: Any) -> Any:
    return getattr(figures, of.name)


def _untold(rule: Rule[F], figures: F) -> bool:
    return any(
        _value(each, figures) is None for each in (rule.measure, rule.limit) if each is not None
    )


def slack(limit: float, dimension: str) -> float:
    """How near two figures of a dimension count as one: 1 Pa, or a relative 1e-9."""
    return _SAME_PA if dimension == "pressure" else abs(limit) * _SAME


def exceeds(value_pa: float, limit_pa: float) -> bool:
    """Whether a pressure lies above a limit, as the rules compare them (Pa)."""
    return value_pa > limit_pa + _SAME_PA


def _kept(rule: Rule[F], figures: F, against: Figure[Any] | None) -> bool:
    measure = _value(rule.measure, figures)
    if against is None:
        return bool(measure)
    limit = _value(against, figures)
    same = slack(limit, against.dimension)
    if rule.sense in ("below", "above"):
        return bool(measure < limit - same if rule.sense == "below" else measure > limit + same)
    return bool(measure <= limit + same if rule.sense == "at_most" else measure >= limit - same)


def is_broken(finding: Finding) -> bool:
    """Whether a finding is a stop or a caution."""
    return finding.verdict in (Verdict.STOP, Verdict.CAUTION)


def worst_verdict(findings: Iterable[Finding]) -> Verdict:
    """The worst verdict among the findings; pass when there are none."""
    return min((f.verdict for f in findings), key=lambda v: SEVERITY[v], default=Verdict.PASS)


def worded(finding: Finding, write: Writer) -> WordedFinding:
    """The finding in words. What cannot be told is said by naming the reading; a pass needs no
    advice."""
    rule = finding.rule
    broken = is_broken(finding)
    told = finding.verdict not in (Verdict.CANNOT_TELL, Verdict.NOT_APPLICABLE)
    return WordedFinding(
        rule=rule.id,
        verdict=finding.verdict.value,
        title=write.fill(rule.fails if broken else rule.title),
        figure=write.fill(rule.figure, rule.sign(broken)) if told else "",
        advice=_advice(finding, write),
        formula=write.fill(rule.formula) if told else "",
        source=rule.source.line,
        missing=finding.missing,
        usual=finding.usual,
    )


def _advice(finding: Finding, write: Writer) -> str:
    if finding.verdict is Verdict.CANNOT_TELL:
        return _open(finding, write)
    if finding.verdict is Verdict.NOT_APPLICABLE:
        return finding.rule.not_applicable
    if finding.verdict is Verdict.PASS:
        return ""
    means, usual = write.fill(finding.rule.means), _titles(finding.usual)
    return f"{means} A usual value decides this: read {usual} first." if usual else means


def _open(finding: Finding, write: Writer) -> str:
    """What would tell."""
    read = _titles(finding.missing)
    if finding.doubt:
        surer = f" Read {read} to be surer." if read else ""
        return f"OK by these figures, but {finding.doubt:.0%} likely the other way.{surer}"
    if finding.usual:
        return f"OK with the usual values only. Read {read}."
    if read:
        return f"Cannot tell. Read {read}."
    return write.fill(f"Cannot tell. {finding.rule.untold}")


def _titles(readings: Iterable[Reading]) -> str:
    return " and ".join(reading.title for reading in readings)
