"""One way to set a system, with what it gives and what it breaks, to stand beside others in a table."""

from dataclasses import dataclass
from math import isfinite

from ..answers import Answer, answers
from ..facts import Facts, ReceiverFacts, TanklessFacts, WaterFacts, facts_for
from ..rulebook import RULES
from ..rules import Finding, Verdict, run, worst_verdict
from ..system import Practice, Settings, System
from ..units import Shown

__all__ = ["Figure", "Option", "Weighed", "ease", "option", "weighed"]

_SHOWN = {
    "water": ("tap", "drawdown", "run", "starts", "reserve", "lowest"),
    "air": ("between", "run", "pump_up", "starts", "duty"),
    "tankless": ("running", "dead_head", "pulses", "drawdown"),
}


@dataclass(frozen=True, kw_only=True)
class Figure:
    """One figure of an option, in words."""

    id: str
    title: str
    text: str


@dataclass(frozen=True, kw_only=True)
class Option:
    """One way to set a system: the settings (Pa gauge; whether a plain tank takes air anew), figures, the worst
    verdict, what is broken (in words), and what it costs against the way it stands beside."""

    id: str
    title: str
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    pre_charge_gauge_pa: float | None
    air_renewed: bool
    verdict: str
    stops: int
    cautions: int
    figures: tuple[Figure, ...]
    broken: tuple[str, ...]
    cost: str = ""


@dataclass(frozen=True)
class Weighed:
    """Settings with their figures and findings, before anything is put into words."""

    settings: Settings
    facts: Facts
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
        run_s = getattr(self.facts, "run_s", 0.0)
        return run_s if isfinite(run_s) else 0.0


def weighed(system: System, settings: Settings, practice: Practice) -> Weighed:
    """One way to set the system, judged. Raises InvalidInput for settings that lack what this kind needs."""
    facts = facts_for(system, settings, practice)
    return Weighed(settings, facts, run(RULES, facts))


def option(of: Weighed, id: str, title: str, units: str, cost: str = "") -> Option:
    """The way in words, in the unit system asked for."""
    f = Shown(of.facts, units)
    return Option(
        id=id,
        title=title,
        cut_in_gauge_pa=of.settings.cut_in_gauge_pa,
        cut_out_gauge_pa=of.settings.cut_out_gauge_pa,
        pre_charge_gauge_pa=of.settings.pre_charge_gauge_pa,
        air_renewed=bool(of.settings.air_renewed),
        verdict=worst_verdict(of.findings).value,
        stops=of.count(Verdict.STOP),
        cautions=of.count(Verdict.CAUTION),
        figures=tuple(_figure(answer) for answer in answers(of.facts, f) if answer.id in _shown(of.facts)),
        broken=tuple(f.fill(finding.rule.fails) for finding in of.broken),
        cost=cost,
    )


def _shown(facts: Facts) -> tuple[str, ...]:
    if isinstance(facts, WaterFacts):
        return _SHOWN["water"]
    return _SHOWN["air" if isinstance(facts, ReceiverFacts) else "tankless"]


def _figure(answer: Answer) -> Figure:
    return Figure(id=answer.id, title=answer.title, text=answer.text)


def ease(facts: Facts) -> float:
    """What ranks settings where a run says nothing, more is better. For a tankless pump with a window: how far cut-out lies
    inside it (kPa); without one, how slowly it pulses (per minute, negative)."""
    if not isinstance(facts, TanklessFacts):
        return 0.0
    if not facts.has_window:
        return -round(60 * facts.pulses_per_s, 1)
    inside = min(facts.cut_out_pa - facts.window_low_pa, facts.window_high_pa - facts.cut_out_pa)
    return round(inside / 1e3)
