"""One way to set a system, with what it gives and what it breaks, to stand beside others in a
table."""

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from math import isfinite

from zerodip.kinds.figures import Figures
from zerodip.kinds.findings import findings_of
from zerodip.kinds.parts import System
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.results import results_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.rules.engine import SEVERITY, Finding, Verdict, run, worst_verdict
from zerodip.text.writer import Writer

__all__ = ["Judged", "Option", "OptionFigure", "broken", "judged", "option_of"]


@dataclass(frozen=True, kw_only=True)
class OptionFigure:
    """One figure of an option, in words."""

    id: str
    title: str
    text: str


@dataclass(frozen=True, kw_only=True)
class Option:
    """One way to set a system: the settings (Pa gauge; whether a plain tank takes air anew, whether
    tanks with a pre-charge of their own are charged like the others), figures, the worst verdict of
    what could be judged and `says` with it how much that is, what is
    broken (in words), and what it costs against the way it stands beside."""

    id: str
    title: str
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    pre_charge_gauge_pa: float | None
    air_renewed: bool
    tanks_alike: bool
    verdict: str
    says: str
    stops: int
    cautions: int
    figures: tuple[OptionFigure, ...]
    broken: tuple[str, ...]
    cost: str = ""


@dataclass(frozen=True)
class Judged:
    """Settings with their figures and findings, before anything is put into words. `findings` go by
    the values that stand; `known` are the same with regard to which of those nobody read."""

    settings: Settings
    figures: Figures
    findings: tuple[Finding, ...]

    @property
    def system(self) -> System:
        """The system that it is set on: as it is, or with its tanks charged alike."""
        return self.figures.system

    @cached_property
    def known(self) -> tuple[Finding, ...]:
        """The findings, none surer than what was read."""
        return findings_of(self.figures)

    def settable(self, verdict: Verdict) -> int:
        """How many findings say `verdict` that settings can keep."""
        return sum(1 for each in self.findings if each.verdict is verdict and each.rule.settable)

    @cached_property
    def passed(self) -> frozenset[str]:
        """The limits that it passes, by their rules' ids: whatever is a stop, and what the list of
        limits holds."""
        held = {spec.allowed.name for spec in kind_of(self.figures).limits if spec.holds}
        return frozenset(
            each.rule.id
            for each in self.broken
            if each.verdict is Verdict.STOP or _limit_of(each) in held
        )

    @cached_property
    def never_stops(self) -> float:
        """The chance that the pump never reaches cut-out."""
        return kind_of(self.figures).proposing.never_stops(self.figures)

    @property
    def broken(self) -> tuple[Finding, ...]:
        """Stops and cautions, worst first."""
        return broken(self.findings)

    @property
    def run_s(self) -> float:
        """How long the pump runs; 0 where it never stops, or where a run is not what counts."""
        run_s = kind_of(self.figures).diagnosis.run_s(self.figures)
        return run_s if run_s is not None and isfinite(run_s) else 0.0


def _limit_of(finding: Finding) -> str:
    return "" if finding.rule.limit is None else finding.rule.limit.name


def broken(findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Stops and cautions, worst first.

    Args:
        findings: Findings, worst first.

    Returns:
        Those that are broken.
    """
    return tuple(f for f in findings if f.verdict in (Verdict.STOP, Verdict.CAUTION))


def judged(system: System, settings: Settings, practice: Practice) -> Judged:
    """One way to set the system, judged.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        practice: The practice followed.

    Returns:
        The way with its figures and findings.

    Raises:
        InvalidInput: For settings that lack what this kind needs.
    """
    figures = figures_for(system, settings, practice)
    return Judged(settings, figures, run(kind_of(figures).rules, figures))


def option_of(way: Judged, id: str, title: str, units: str, cost: str = "") -> Option:
    """The way in words, in the unit system asked for.

    Args:
        way: The way, judged.
        id: Its id.
        title: What it is called.
        units: Unit system of the texts: "us", "metric" or "kpa".
        cost: What it costs, in words; empty for nothing.

    Returns:
        The way in words.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    kind, write, known = kind_of(way.figures), Writer(way.figures, units), way.known
    count = Counter(finding.verdict for finding in known)
    return Option(
        id=id,
        title=title,
        cut_in_gauge_pa=way.settings.cut_in_gauge_pa,
        cut_out_gauge_pa=way.settings.cut_out_gauge_pa,
        pre_charge_gauge_pa=way.settings.pre_charge_gauge_pa,
        air_renewed=bool(way.settings.air_renewed),
        tanks_alike=kind.proposing.alike(way.figures) is None,
        verdict=_judged_verdict(known).value,
        says=_says(count),
        stops=count[Verdict.STOP],
        cautions=count[Verdict.CAUTION],
        figures=tuple(
            OptionFigure(id=result.id, title=result.title, text=result.text)
            for result in results_of(kind.results, way.figures, write)
            if result.id in kind.proposing.shown
        ),
        broken=tuple(write.fill(finding.rule.fails) for finding in broken(known)),
        cost=cost,
    )


def _judged_verdict(findings: tuple[Finding, ...]) -> Verdict:
    """The worst of what could be judged; open where nothing could, or where usual values decide."""
    told = [f for f in findings if f.usual or f.verdict is not Verdict.CANNOT_TELL]
    kept = any(f.verdict is Verdict.PASS for f in findings)
    return (
        worst_verdict(told)
        if kept
        else min(worst_verdict(told), Verdict.CANNOT_TELL, key=SEVERITY.__getitem__)
    )


def _says(count: Mapping[Verdict, int]) -> str:
    """How many there are of each, worst first: "1 stop, 12 kept; 10 not read"."""
    stops, cautions = count[Verdict.STOP], count[Verdict.CAUTION]
    said = [
        f"{stops} stop{'s' * (stops > 1)}" if stops else "",
        f"{cautions} caution{'s' * (cautions > 1)}" if cautions else "",
        f"{count[Verdict.PASS]} OK",
    ]
    unread = count[Verdict.CANNOT_TELL]
    return ", ".join(part for part in said if part) + (f"; {unread} missing" if unread else "")
