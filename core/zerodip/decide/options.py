"""One way to set a system, with what it gives and what it breaks, to stand beside others in a
table."""

from dataclasses import dataclass
from math import isfinite

from zerodip.kinds.figures import Figures
from zerodip.kinds.parts import System
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.results import results_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.rules.engine import Finding, Verdict, run, worst_verdict
from zerodip.text.writer import Writer

__all__ = ["Judged", "Option", "OptionFigure", "judged", "option_of"]


@dataclass(frozen=True, kw_only=True)
class OptionFigure:
    """One figure of an option, in words."""

    id: str
    title: str
    text: str


@dataclass(frozen=True, kw_only=True)
class Option:
    """One way to set a system: the settings (Pa gauge; whether a plain tank takes air anew),
    figures, the worst verdict, what is broken (in words), and what it costs against the way it
    stands beside."""

    id: str
    title: str
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    pre_charge_gauge_pa: float | None
    air_renewed: bool
    verdict: str
    stops: int
    cautions: int
    figures: tuple[OptionFigure, ...]
    broken: tuple[str, ...]
    cost: str = ""


@dataclass(frozen=True)
class Judged:
    """Settings with their figures and findings, before anything is put into words."""

    settings: Settings
    figures: Figures
    findings: tuple[Finding, ...]

    def count(self, verdict: Verdict) -> int:
        """How many findings say `verdict`."""
        return sum(1 for finding in self.findings if finding.verdict is verdict)

    @property
    def broken(self) -> tuple[Finding, ...]:
        """Stops and cautions, worst first."""
        return tuple(f for f in self.findings if f.verdict in (Verdict.STOP, Verdict.CAUTION))

    @property
    def run_s(self) -> float:
        """How long the pump runs; 0 where it never stops, or where a run is not what counts."""
        run_s = kind_of(self.figures).diagnosis.run_s(self.figures)
        return run_s if run_s is not None and isfinite(run_s) else 0.0


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
    kind, write = kind_of(way.figures), Writer(way.figures, units)
    return Option(
        id=id,
        title=title,
        cut_in_gauge_pa=way.settings.cut_in_gauge_pa,
        cut_out_gauge_pa=way.settings.cut_out_gauge_pa,
        pre_charge_gauge_pa=way.settings.pre_charge_gauge_pa,
        air_renewed=bool(way.settings.air_renewed),
        verdict=worst_verdict(way.findings).value,
        stops=way.count(Verdict.STOP),
        cautions=way.count(Verdict.CAUTION),
        figures=tuple(
            OptionFigure(id=result.id, title=result.title, text=result.text)
            for result in results_of(kind.results, way.figures, write)
            if result.id in kind.proposing.shown
        ),
        broken=tuple(write.fill(finding.rule.fails) for finding in way.broken),
        cost=cost,
    )
