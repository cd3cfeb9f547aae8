"""What all pictures share: levels, limits as marks, and how far a grip may be dragged."""

from dataclasses import dataclass

from ..facts import Facts
from ..units import PSI, Shown

__all__ = ["LEAST_GAP_PA", "Grip", "Level", "Mark", "Ribbon", "band_grips", "marks_of"]

LEAST_GAP_PA = 1 * PSI
_HIGHEST_PA, _LOWEST_PA = 300 * PSI, 1 * PSI


@dataclass(frozen=True, kw_only=True)
class Level:
    """One gauge pressure (Pa) across the scales: what is held there (m³ of water, or of free air), and pump time from cut-in
    (s; negative below cut-in, None where the pump never gets there)."""

    gauge_pa: float
    held_m3: float
    run_s: float | None


@dataclass(frozen=True, kw_only=True)
class Mark:
    """A limit on the pressure scale. `holds` names the grip that it stops; `reason` is said when it does."""

    id: str
    title: str
    gauge_pa: float
    holds: str
    reason: str


@dataclass(frozen=True, kw_only=True)
class Grip:
    """How far a grip may be dragged, Pa gauge, and why not further. `takes_along` names the setting that moves with it, by
    the same amount: with one screw both points do."""

    least_gauge_pa: float
    most_gauge_pa: float
    least_reason: str
    most_reason: str
    takes_along: str = ""


@dataclass(frozen=True, kw_only=True)
class Ribbon:
    """Levels for cut-out, cut-in and, where there is one, pre-charge (of water) or the settled pressure (of air), threads
    between the points, `ghost` as the band would be with the air renewed; marks, grips and the span of the gauge scale.
    `holds` is "water" or "air"."""

    holds: str
    held_title: str
    held_dimension: str
    flow_dimension: str
    cut_out: Level
    cut_in: Level
    pre_charge: Level | None
    settled: Level | None
    threads: tuple[Level, ...]
    ghost: tuple[Level, ...]
    marks: tuple[Mark, ...]
    grips: dict[str, Grip]
    gauge_least_pa: float
    gauge_most_pa: float


def marks_of(found: list[tuple[str, str, float | None, str]], f: Shown) -> list[Mark]:
    """Marks that hold cut-out, from (id, title, Pa or None, reason)."""
    return [
        Mark(id=id, title=title, gauge_pa=at, holds="cut_out", reason=f.fill(why))
        for id, title, at, why in found
        if at is not None
    ]


def band_grips(facts: Facts, marks: list[Mark]) -> dict[str, Grip]:
    """The grips of cut-out and cut-in: apart from each other, below every mark that holds cut-out."""
    lowest = min((m for m in marks if m.holds == "cut_out"), key=lambda mark: mark.gauge_pa, default=None)
    most = max(lowest.gauge_pa, facts.cut_out_pa) if lowest else _HIGHEST_PA
    why = lowest.reason if lowest else "No limit is known: read the plates."
    if facts.one_screw:
        return _one_screw(facts, most, why)
    return {
        "cut_out": Grip(
            least_gauge_pa=facts.cut_in_pa + LEAST_GAP_PA,
            most_gauge_pa=most,
            least_reason="Cut-out stays above cut-in.",
            most_reason=why,
        ),
        "cut_in": Grip(
            least_gauge_pa=_LOWEST_PA,
            most_gauge_pa=facts.cut_out_pa - LEAST_GAP_PA,
            least_reason="As low as a switch goes.",
            most_reason="Cut-in stays below cut-out.",
        ),
    }


def _one_screw(facts: Facts, most: float, why: str) -> dict[str, Grip]:
    """One screw moves both points; cut-in by itself only says what the switch's differential is."""
    lowest = "As low as a switch goes; one screw moves both points."
    return {
        "cut_out": Grip(
            least_gauge_pa=_LOWEST_PA + facts.differential_pa,
            most_gauge_pa=most,
            least_reason=lowest,
            most_reason=why,
            takes_along="cut_in",
        ),
        "cut_in": Grip(
            least_gauge_pa=_LOWEST_PA,
            most_gauge_pa=facts.cut_out_pa - LEAST_GAP_PA,
            least_reason=lowest,
            most_reason="Cut-in stays below cut-out.",
        ),
    }
