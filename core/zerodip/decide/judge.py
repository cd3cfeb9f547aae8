"""The use case of Decide: what these settings do on this system, whether every limit is kept, and
what each way would set."""

from dataclasses import dataclass

from zerodip.decide.certainty import Certainty, certainty_of
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.figures import Figures
from zerodip.kinds.findings import findings_of, usual_values
from zerodip.kinds.limits import Limit, limits_of
from zerodip.kinds.parts import System
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.results import Result, results_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.trials import advised
from zerodip.kinds.window import Window
from zerodip.practice.matters import WayView
from zerodip.rules.engine import WordedFinding, worded, worst_verdict
from zerodip.text.figure import Reading
from zerodip.text.writer import Writer
from zerodip.units import unit_for

__all__ = ["Decision", "chart_of", "decide", "decision"]


@dataclass(frozen=True, kw_only=True)
class Decision:
    """The results (`leading` are the ids of those that decide), the findings (worst first), the
    limits, the ways of pre-charging, and the picture of this kind of system; the usual cautions;
    `verdict` is the worst finding's. `usual` is everything for which a usual value stands;
    `certainty` how sure the results are, where that was asked for; only then do findings tell their
    remedies."""

    verdict: str
    results: tuple[Result, ...]
    leading: tuple[str, ...]
    findings: tuple[WordedFinding, ...]
    limits: tuple[Limit, ...]
    ways: tuple[WayView, ...]
    chart: Ribbon | Window
    cautions: tuple[str, ...]
    usual: tuple[Reading, ...]
    certainty: Certainty | None


def decide(
    system: System,
    settings: Settings,
    practice: Practice | None = None,
    units: str = "us",
    sure: bool = False,
) -> Decision:
    """What `settings` do on `system`. Figures are SI, texts in `units` ("us", "metric", "kpa").
    Valid wherever the dataclasses are; a missing reading gives None and "cannot tell", never a
    guess.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        practice: The practice followed; the usual if None.
        units: Unit system of the texts: "us", "metric" or "kpa".
        sure: Whether to tell how sure the results are and what helps against what is broken, which
            takes several times as long.

    Returns:
        What they do: figures in SI, texts in `units`.

    Raises:
        UnknownUnit: For a unit system that is not known.
        InvalidInput: For settings that lack what this kind needs.
    """
    return decision(figures_for(system, settings, practice), units, sure)


def chart_of(figures: Figures, units: str) -> Ribbon | Window:
    """The picture of a decision alone.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The picture of this kind of system.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    kind, write = kind_of(figures), Writer(figures, units)
    return kind.chart(figures, limits_of(kind.limits, figures, write), write)


def decision(figures: Figures, units: str, sure: bool = False) -> Decision:
    """`decide` on figures at hand.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".
        sure: Whether to tell how sure the results are and what helps against what is broken, which
            takes several times as long.

    Returns:
        What they do: figures in SI, texts in `units`.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    unit_for("pressure", units)
    kind, write = kind_of(figures), Writer(figures, units)
    findings = findings_of(figures, sure)
    said = tuple(worded(finding, write) for finding in findings)
    limits = limits_of(kind.limits, figures, write)
    return Decision(
        verdict=worst_verdict(findings).value,
        results=results_of(kind.results, figures, write),
        leading=kind.report,
        findings=advised(findings, said, figures, units) if sure else said,
        limits=limits,
        ways=kind.ways(figures, write),
        chart=kind.chart(figures, limits, write),
        cautions=kind.cautions,
        usual=usual_values(figures),
        certainty=certainty_of(figures, units) if sure else None,
    )
