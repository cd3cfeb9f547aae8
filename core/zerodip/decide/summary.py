"""A system in a list."""

from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.findings import findings_of
from zerodip.kinds.limits import lowest_limit
from zerodip.kinds.parts import System
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.rules.engine import SEVERITY, Finding, Verdict, worst_verdict
from zerodip.text.writer import Writer
from zerodip.units import SYSTEMS

__all__ = ["SystemSummary", "Urgency", "summarize", "urgency"]


@dataclass(frozen=True, kw_only=True)
class SystemSummary:
    """A system in a list: its band to scale (Pa gauge) with the lowest limit that holds cut-out,
    whether it dips, the verdict, and the worst finding in a few words by unit system."""

    kind: str
    verdict: str
    headline: dict[str, str]
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    pre_charge_gauge_pa: float | None
    limit_gauge_pa: float | None
    dips: bool
    stops: int
    cautions: int
    unread: int


Urgency = tuple[bool, int, int, int, str]


def urgency(retired: bool, verdict: str, stops: int, cautions: int, name: str) -> Urgency:
    """The order of a list of systems, what needs a person first: the worst verdict, then how many
    of it, then the name; what is retired last.

    Args:
        retired: Whether it is off the rounds.
        verdict: Its verdict.
        stops: Findings that say stop.
        cautions: Findings that say caution.
        name: Its name.

    Returns:
        A key to sort by.
    """
    return retired, SEVERITY[Verdict(verdict)], -stops, -cautions, name


def summarize(
    system: System, settings: Settings, practice: Practice | None = None
) -> SystemSummary:
    """The system in short.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        practice: The practice followed; the usual if None.

    Returns:
        The system in short.

    Raises:
        InvalidInput: For settings that lack what this kind needs.
    """
    figures = figures_for(system, settings, practice)
    kind = kind_of(figures)
    findings = findings_of(figures)
    return SystemSummary(
        kind=system.kind,
        verdict=worst_verdict(findings).value,
        headline={units: _headline(findings[0], figures, units) for units in SYSTEMS},
        cut_in_gauge_pa=figures.cut_in_pa,
        cut_out_gauge_pa=figures.cut_out_pa,
        pre_charge_gauge_pa=settings.pre_charge_gauge_pa,
        limit_gauge_pa=lowest_limit(kind.limits, figures),
        dips=figures.dips,
        stops=_count(findings, Verdict.STOP),
        cautions=_count(findings, Verdict.CAUTION),
        unread=_count(findings, Verdict.CANNOT_TELL),
    )


def _headline(worst: Finding, figures: Figures, units: str) -> str:
    if worst.verdict is Verdict.PASS:
        return "All limits OK"
    if worst.doubt:
        return f"Not sure: {Writer(figures, units).fill(worst.rule.title)}"
    if worst.verdict is Verdict.CANNOT_TELL:
        return f"Missing: {worst.missing[0].title if worst.missing else worst.rule.title}"
    return Writer(figures, units).fill(worst.rule.fails)


def _count(findings: tuple[Finding, ...], verdict: Verdict) -> int:
    return sum(1 for finding in findings if finding.verdict is verdict)
