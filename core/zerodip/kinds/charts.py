"""What all pictures share: levels, limits as marks, and how far a grip may be dragged."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

from zerodip.kinds.figures import Figures
from zerodip.kinds.limits import Limit
from zerodip.kinds.scales import Scales, scale_around
from zerodip.text.writer import Writer
from zerodip.units import PSI, unit_for

__all__ = [
    "LEAST_GAP_PA",
    "Grip",
    "Level",
    "Mark",
    "Ribbon",
    "band_grips",
    "marks_of",
    "reach_pa",
    "scales_of",
]

LEAST_GAP_PA = 1 * PSI
_LEAST_RUN_S, _NEVER_S = 20.0, 120.0  # the time scale at least, and where a run never ends
_HIGHEST_PA, _LOWEST_PA = 300 * PSI, 1 * PSI


@dataclass(frozen=True, kw_only=True)
class Level:
    """One gauge pressure (Pa) across the scales: what is held there (m³ of water, or of free air),
    and pump time from cut-in (s; negative below cut-in, None where the pump never gets there)."""

    gauge_pa: float
    held_m3: float
    run_s: float | None


@dataclass(frozen=True, kw_only=True)
class Mark:
    """A limit on the pressure scale. `holds` names the grip that it stops; `reason` is said when it
    does."""

    id: str
    title: str
    gauge_pa: float
    holds: str
    reason: str


GripName = Literal["cut_out", "cut_in", "pre_charge"]


@dataclass(frozen=True, kw_only=True)
class Grip:
    """How far a grip may be dragged, Pa gauge, and why not further. `takes_along` names the setting
    that moves with it, by the same amount: with one screw both points do."""

    least_gauge_pa: float
    most_gauge_pa: float
    least_reason: str
    most_reason: str
    takes_along: GripName | None = None


@dataclass(frozen=True, kw_only=True)
class Ribbon:
    """Levels for cut-out, cut-in and, where there is one, pre-charge (of water) or the settled
    pressure (of air), threads between the points, `ghost` as the band would be with the air
    renewed; marks, grips, and the scales in round numbers of the units. `holds` is "water" or
    "air"; `dips` tells that the pre-charge does not lie below cut-in, as the rules compare them.
    `tank_head_pa` is what the gauge shows more than there is in tanks that stand higher: the
    pre-charge, set at the tank, is drawn that much higher."""

    type: Literal["ribbon"] = "ribbon"
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
    scales: Scales
    dips: bool = False
    tank_head_pa: float = 0.0


def marks_of(limits: Iterable[Limit]) -> tuple[Mark, ...]:
    """The limits as marks: where the point that they bound must stop.

    Args:
        limits: The system's limits.

    Returns:
        The marks, in order.
    """
    return tuple(
        Mark(
            id=limit.id,
            title=limit.title,
            gauge_pa=limit.allowed_pa,
            holds=limit.bounds if limit.holds else "",
            reason=limit.reason,
        )
        for limit in limits
    )


def reach_pa(figures: Figures, marks: Iterable[Mark]) -> float:
    """The end of the gauge scale: above cut-out, and a little above the lowest mark that holds it.

    Args:
        figures: The system's figures under its settings.
        marks: The limits as marks.

    Returns:
        Gauge pressure, Pa.
    """
    held = [mark.gauge_pa for mark in marks if mark.holds == "cut_out"]
    return max(figures.cut_out_pa + 8 * PSI, min(held) + 5 * PSI if held else 0.0)


def scales_of(
    levels: Iterable[Level],
    gauges_pa: tuple[float, float],
    held_least_m3: float,
    dimension: str,
    write: Writer,
) -> Scales:
    """The scales for levels of which the first is cut-out and the last the lowest. Room is left
    above what is held and the run, so that a grip moved up stays on the scale.

    Args:
        levels: Levels, from cut-out down to the lowest.
        gauges_pa: Ends of the gauge scale, Pa.
        held_least_m3: Lower end of the scale of what is held, m³.
        dimension: Dimension of what is held.
        write: Writes figures in the units asked for.

    Returns:
        The three scales.
    """
    on = tuple(levels)
    pressure, held, time = (
        unit_for(each, write.system) for each in ("pressure", dimension, "duration")
    )
    top = held_least_m3 + 1.3 * (max(level.held_m3 for level in on) - held_least_m3)
    before, run = min(on[-1].run_s or 0.0, 0.0), on[0].run_s
    return Scales(
        gauge=scale_around(*gauges_pa, pressure, 6),
        held=scale_around(held_least_m3, max(top, held.factor), held, 4),
        run=scale_around(
            1.15 * before, max(1.25 * (_NEVER_S if run is None else run), _LEAST_RUN_S), time, 4
        ),
    )


def band_grips(figures: Figures, marks: Iterable[Mark]) -> dict[str, Grip]:
    """The grips of cut-out and cut-in: apart from each other, within every mark that holds them.
    With one screw both move together; cut-in by itself then only says what the switch's
    differential is.

    Args:
        figures: The system's figures under its settings.
        marks: The limits as marks.

    Returns:
        The grips by the point they move.
    """
    held = list(marks)
    highest = min(
        (m for m in held if m.holds == "cut_out"), key=lambda mark: mark.gauge_pa, default=None
    )
    lowest = max(
        (m for m in held if m.holds == "cut_in"), key=lambda mark: mark.gauge_pa, default=None
    )
    least = min(lowest.gauge_pa, figures.cut_in_pa) if lowest else _LOWEST_PA
    cut_out = Grip(
        least_gauge_pa=figures.cut_in_pa + LEAST_GAP_PA,
        most_gauge_pa=max(highest.gauge_pa, figures.cut_out_pa) if highest else _HIGHEST_PA,
        least_reason="Cut-out stays above cut-in.",
        most_reason=highest.reason if highest else "No limit is known: read the plates.",
    )
    cut_in = Grip(
        least_gauge_pa=least,
        most_gauge_pa=figures.cut_out_pa - LEAST_GAP_PA,
        least_reason=lowest.reason if lowest else "As low as a switch goes.",
        most_reason="Cut-in stays below cut-out.",
    )
    if figures.one_screw:
        cut_out = replace(
            cut_out,
            least_gauge_pa=least + figures.differential_pa,
            least_reason=f"{cut_in.least_reason} One screw moves both points.",
            takes_along="cut_in",
        )
    return {"cut_out": cut_out, "cut_in": cut_in}
