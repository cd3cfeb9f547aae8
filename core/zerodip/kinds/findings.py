"""What the rules of a kind say of one system, with what is known of it taken into account."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import product

from zerodip.errors import InvalidInput
from zerodip.fileformat.fields import title_at
from zerodip.kinds.doubts import doubted
from zerodip.kinds.figures import Figures
from zerodip.kinds.inputs import Input
from zerodip.kinds.registry import kind_of
from zerodip.rules.engine import Finding, Verdict, by_weight, judge, on_usual, run
from zerodip.text.figure import Reading

__all__ = ["Unread", "findings_of", "unread_of", "usual_values"]


@dataclass(frozen=True, kw_only=True)
class Unread:
    """A reading that is missing, or for which a usual value stands: how many rules wait for it, and
    how many of those may be a stop."""

    reading: Reading
    rules: int
    stops: int


def unread_of(findings: Iterable[Finding]) -> tuple[Unread, ...]:
    """What is not read, most decisive first: what may stop, then what most rules wait for.

    Args:
        findings: The findings of one system.

    Returns:
        The readings, each once.
    """
    waits: dict[Reading, list[bool]] = {}
    for finding in findings:
        for reading in dict.fromkeys((*finding.missing, *finding.usual)):
            waits.setdefault(reading, []).append(finding.rule.broken is Verdict.STOP)
    listed = [Unread(reading=r, rules=len(may), stops=sum(may)) for r, may in waits.items()]
    return tuple(sorted(listed, key=lambda each: (-each.stops, -each.rules)))


_MOST_TOGETHER = 5  # inputs whose ends are all tried together: 2^5 times a rule
_JUDGED = (Verdict.STOP, Verdict.CAUTION, Verdict.PASS)


def usual_values(figures: Figures) -> tuple[Reading, ...]:
    """Everything for which a usual value stands that nobody read or set, by path.

    Args:
        figures: The system's figures under its settings.

    Returns:
        Where it is read, and the field's title.
    """
    parts = {"system": figures.system, "settings": figures.settings}
    return tuple(
        Reading(path, title_at(parts[path.split(".")[0]], path.split(".")[1:]))
        for path in figures.system.assumed
    )


def findings_of(figures: Figures, sure: bool = True) -> tuple[Finding, ...]:
    """The findings, worst first. A verdict that would be another anywhere in the range of a usual
    value is not certain: a pass is open then, and a stop a caution. A pass is open, too, where by
    what its inputs may be off by the opposite is not unlikely.

    Args:
        figures: The system's figures under its settings.
        sure: Whether that is looked at, which takes longer: not while a grip moves.

    Returns:
        The findings.
    """
    kind = kind_of(figures)
    found = run(kind.rules, figures)
    if sure:
        found = by_weight(doubted(found, figures))
    if not figures.system.assumed:
        return found
    usual = tuple(each for each in kind.inputs if each.assumed(figures))
    elsewhere = _Elsewhere(figures, usual)
    return by_weight(elsewhere.known(finding) for finding in found)


Moved = tuple[Input[Figures], ...]


class _Elsewhere:
    """The figures with usual values at the ends of their ranges: one at a time, and where a rule
    looks at several of them, those together."""

    def __init__(self, figures: Figures, usual: Moved) -> None:
        self.figures, self.usual = figures, usual
        self._at: dict[Moved, list[Figures]] = {}

    def at(self, moved: Moved) -> list[Figures]:
        if moved not in self._at:
            offs = product(*(each.off(self.figures) for each in moved))
            self._at[moved] = [at for by in offs if (at := self._put(moved, by)) is not None]
        return self._at[moved]

    def _put(self, moved: Moved, by: Sequence[float]) -> Figures | None:
        at = self.figures
        try:
            for each, off in zip(moved, by, strict=True):
                at = each.moved(at, off)
        except InvalidInput:  # no such system can be entered
            return None
        return at

    def known(self, finding: Finding) -> Finding:
        """The finding, no surer than what was read."""
        if finding.verdict not in _JUDGED:
            return finding
        decide = [each for each in self.usual if self._decides(finding, (each,))]
        looks_at = tuple(each for each in self.usual if self._moves(finding, each))
        if not decide and 1 < len(looks_at) <= _MOST_TOGETHER and self._decides(finding, looks_at):
            decide = list(looks_at)
        if not decide:
            return finding
        return on_usual(finding, tuple(dict.fromkeys(each.reading for each in decide)))

    def _decides(self, finding: Finding, moved: Moved) -> bool:
        verdicts = (judge(finding.rule, at).verdict for at in self.at(moved))
        return any(verdict is not finding.verdict for verdict in verdicts)

    def _moves(self, finding: Finding, each: Input[Figures]) -> bool:
        """Whether the rule looks at anything that this moves."""
        return any(
            getattr(at, looked.name) != getattr(self.figures, looked.name)
            for at in self.at((each,))
            for looked in finding.rule.figures
        )
