"""A pass that may well be the opposite: how likely, by what its own inputs may be off by.

What measure and limit may be off by adds up as in `zerodip.kinds.spreads`; the chance is that of a
normal distribution beyond the limit.
"""

import math
from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from zerodip.errors import InvalidInput
from zerodip.kinds.figures import Figures
from zerodip.kinds.inputs import Input
from zerodip.kinds.registry import kind_of
from zerodip.rules.engine import Finding, Rule, Verdict
from zerodip.switch.normal import chance_below
from zerodip.text.figure import Reading

__all__ = ["doubted"]

_OPEN = 0.1  # the chance of the opposite that makes a pass open
_FAR = 0.4  # of the limit: no input takes a figure so far
_ENDS = 1.96  # standard deviations to the 95 % ends of an input


def doubted(findings: Iterable[Finding], figures: Figures) -> tuple[Finding, ...]:
    """The findings, with a pass that is likely to be the opposite open.

    Args:
        findings: The findings.
        figures: The system's figures under its settings.

    Returns:
        The findings, in their order.
    """
    doubts = _Doubts(figures)
    return tuple(doubts.known(finding) for finding in findings)


class _Doubts:
    """The figures with each input at its ends, worked out once."""

    def __init__(self, figures: Figures) -> None:
        self.figures, self.inputs = figures, kind_of(figures).inputs
        self._ends: dict[int, list[Figures]] = {}

    def known(self, finding: Finding) -> Finding:
        """The finding, open where its inputs leave it so."""
        rule = finding.rule
        if finding.verdict is not Verdict.PASS or rule.exact or rule.limit is None:
            return finding
        room = _room(rule, self.figures)
        scale = abs(getattr(self.figures, rule.limit.name))
        if room is None or room > _FAR * scale:
            return finding
        by = self._takes(rule, room)
        off = math.sqrt(math.fsum(each * each for each in by.values())) / _ENDS
        chance = chance_below(-room / off) if off > 0 else 0.0
        if chance <= _OPEN:
            return finding
        narrow = max(by, key=lambda reading: by[reading])
        return replace(finding, verdict=Verdict.CANNOT_TELL, missing=(narrow,), doubt=chance)

    def _takes(self, rule: Rule[Any], room: float) -> dict[Reading, float]:
        """How much of the room to the limit each reading may take."""
        names = {each.name for each in rule.figures}
        took: dict[Reading, float] = {}
        for at, each in enumerate(self.inputs):
            if names.isdisjoint(moved.name for moved in each.moves):
                continue
            rooms = (_room(rule, end) for end in self._at(at, each))
            most = max((room - left for left in rooms if left is not None), default=0.0)
            if most > 0:
                took[each.reading] = math.hypot(took.get(each.reading, 0.0), most)
        return took

    def _at(self, at: int, by: Input[Figures]) -> list[Figures]:
        if at not in self._ends:
            self._ends[at] = []
            for off in filter(None, dict.fromkeys(by.off(self.figures))):
                try:
                    self._ends[at].append(by.moved(self.figures, off))
                except InvalidInput:  # no such system can be entered
                    continue
        return self._ends[at]


def _room(rule: Rule[Any], figures: Figures) -> float | None:
    """How far a figure is from its limit, positive where it is kept; None where that is no
    amount."""
    if rule.limit is None:
        return None
    measure, limit = (getattr(figures, each.name) for each in (rule.measure, rule.limit))
    if not isinstance(measure, float) or not isinstance(limit, float):
        return None
    room = limit - measure if rule.sense in ("at_most", "below") else measure - limit
    return room if math.isfinite(room) else None
