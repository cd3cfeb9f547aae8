"""What the rules of a kind say of one system, with what is known of it taken into account."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import product

from zerodip.errors import InvalidInput
from zerodip.fileformat.fields import title_at
from zerodip.kinds.figures import Figures
from zerodip.kinds.inputs import Input
from zerodip.kinds.registry import kind_of
from zerodip.rules.engine import Finding, Verdict, by_weight, on_usual, run
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


_MOST_TOGETHER = 5  # inputs whose ends are all tried together: 2^5 times the rules
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


def findings_of(figures: Figures) -> tuple[Finding, ...]:
    """The findings, worst first. A verdict that would be another anywhere in the range of a usual
    value is not certain: a pass is open then, and a stop a caution.

    Args:
        figures: The system's figures under its settings.

    Returns:
        The findings.
    """
    kind = kind_of(figures)
    rules, usual = kind.rules, tuple(each for each in kind.inputs if each.assumed(figures))
    found = run(rules, figures)
    if not usual:
        return found
    elsewhere = [(moved, _verdicts(at)) for moved, at in _ends(figures, usual)]
    return by_weight(_known(finding, elsewhere) for finding in found)


def _verdicts(figures: Figures) -> dict[str, Verdict]:
    return {each.rule.id: each.verdict for each in run(kind_of(figures).rules, figures)}


Moved = tuple[Input[Figures], ...]


def _ends(figures: Figures, usual: Sequence[Input[Figures]]) -> Iterator[tuple[Moved, Figures]]:
    """The figures with each usual value at either end of its range, and all of them together."""
    sets: list[Moved] = [(each,) for each in usual]
    if 1 < len(usual) <= _MOST_TOGETHER:
        sets.append(tuple(usual))
    for moved in sets:
        for by in product(*(each.off(figures) for each in moved)):
            at = figures
            try:
                for each, off in zip(moved, by, strict=True):
                    at = each.moved(at, off)
            except InvalidInput:  # no such system can be entered
                continue
            yield moved, at


def _known(finding: Finding, elsewhere: list[tuple[Moved, dict[str, Verdict]]]) -> Finding:
    if finding.verdict not in _JUDGED:
        return finding
    id = finding.rule.id
    decide = [moved for moved, verdicts in elsewhere if verdicts[id] is not finding.verdict]
    if not decide:
        return finding
    fewest = min(len(moved) for moved in decide)
    readings = (each.reading for moved in decide if len(moved) == fewest for each in moved)
    return on_usual(finding, tuple(dict.fromkeys(readings)))
