"""The use case of step 3: what these settings do on this system, whether every limit is kept, and what each school would set."""

from dataclasses import dataclass

from .answers import Answer, answers
from .cautions import cautions
from .facts import Facts, ReceiverFacts, TanklessFacts, WaterFacts, facts_for
from .pictures.air import air_ribbon
from .pictures.parts import Ribbon
from .pictures.water import water_ribbon
from .pictures.window import Window, window
from .rulebook import RULES
from .rules import WordedFinding, run, worded, worst_verdict
from .school_views import SchoolView, school_views
from .system import Practice, Settings, System
from .units import Shown, unit_for

__all__ = ["Decision", "decide", "decision"]


@dataclass(frozen=True, kw_only=True)
class Decision:
    """The answers, the findings (worst first), the schools, and the picture of this kind of system: a ribbon, or for a
    tankless pump its window; the usual cautions; `verdict` is the worst finding's."""

    verdict: str
    answers: tuple[Answer, ...]
    findings: tuple[WordedFinding, ...]
    schools: tuple[SchoolView, ...]
    ribbon: Ribbon | None
    window: Window | None
    cautions: tuple[str, ...]


def decide(system: System, settings: Settings, practice: Practice | None = None, units: str = "us") -> Decision:
    """What `settings` do on `system`. Figures are SI, texts in `units` ("us", "metric", "kpa").
    Valid wherever the dataclasses are; a missing reading gives None and "cannot tell", never a guess.
    Raises UnknownUnit for a unit system that is not known, InvalidInput for settings that lack what this kind needs."""
    return decision(facts_for(system, settings, practice), units)


def decision(facts: Facts, units: str) -> Decision:
    """`decide` on figures at hand."""
    unit_for("pressure", units)
    findings, f = run(RULES, facts), Shown(facts, units)
    return Decision(
        verdict=worst_verdict(findings).value,
        answers=answers(facts, f),
        findings=tuple(worded(finding, f) for finding in findings),
        schools=school_views(facts, f),
        ribbon=_ribbon(facts, f),
        window=window(facts, f) if isinstance(facts, TanklessFacts) else None,
        cautions=cautions(facts.kind),
    )


def _ribbon(facts: Facts, f: Shown) -> Ribbon | None:
    if isinstance(facts, WaterFacts):
        return water_ribbon(facts, f)
    return air_ribbon(facts, f) if isinstance(facts, ReceiverFacts) else None
