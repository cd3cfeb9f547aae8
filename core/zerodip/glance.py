"""A system in a list."""

from dataclasses import dataclass

from .facts import Facts, ReceiverFacts, TanklessFacts, WaterFacts, facts_for
from .rulebook import RULES
from .rules import Finding, Verdict, run, worst_verdict
from .system import Practice, Settings, System
from .units import SYSTEMS, Shown

__all__ = ["Glance", "glance"]


@dataclass(frozen=True, kw_only=True)
class Glance:
    """A system in a list: its band to scale (Pa gauge), the verdict, and the worst finding in a few words
    by unit system."""

    kind: str
    verdict: str
    headline: dict[str, str]
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    pre_charge_gauge_pa: float | None
    limit_gauge_pa: float | None
    stops: int
    cautions: int
    unread: int


def glance(system: System, settings: Settings, practice: Practice | None = None) -> Glance:
    """The system at a glance. `limit_gauge_pa` is the lowest of the limits that hold cut-out."""
    facts = facts_for(system, settings, practice)
    findings = run(RULES, facts)
    return Glance(
        kind=system.kind,
        verdict=worst_verdict(findings).value,
        headline={units: _headline(findings[0], Shown(facts, units)) for units in SYSTEMS},
        cut_in_gauge_pa=facts.cut_in_pa,
        cut_out_gauge_pa=facts.cut_out_pa,
        pre_charge_gauge_pa=settings.pre_charge_gauge_pa,
        limit_gauge_pa=_limit_pa(facts),
        stops=_count(findings, Verdict.STOP),
        cautions=_count(findings, Verdict.CAUTION),
        unread=_count(findings, Verdict.CANNOT_TELL),
    )


def _limit_pa(facts: Facts) -> float | None:
    if isinstance(facts, ReceiverFacts):
        return facts.known_limit_pa
    if isinstance(facts, TanklessFacts):
        return facts.window_high_pa
    if not isinstance(facts, WaterFacts):
        return None
    limits = [facts.relief_pa, facts.tank_max_pa, facts.dead_head_limit_pa, facts.pipe_max_pa, facts.pump_max_pa]
    return min((limit for limit in limits if limit is not None), default=None)


def _headline(worst: Finding, f: Shown) -> str:
    if worst.verdict is Verdict.PASS:
        return "All limits kept"
    if worst.verdict is Verdict.CANNOT_TELL:
        return "Not read: " + worst.missing[0].title
    return f.fill(worst.rule.fails)


def _count(findings: tuple[Finding, ...], verdict: Verdict) -> int:
    return sum(1 for finding in findings if finding.verdict is verdict)
