"""What the ribbon is drawn from: levels across the three scales, limits as marks, and how far each grip may be dragged."""

from dataclasses import dataclass
from math import isfinite

from .atmosphere import head_pa
from .cycles.fill import fill_seconds
from .facts import Facts
from .tanks.bladder import water_m3
from .units import PSI, Shown

__all__ = ["Grip", "Level", "Mark", "Ribbon", "ribbon"]

_LEAST_GAP_PA = 1 * PSI


@dataclass(frozen=True, kw_only=True)
class Level:
    """One gauge pressure (Pa) across the scales: water held there (m³), and pump time from cut-in (s; negative below
    cut-in, None where the pump never gets there)."""

    gauge_pa: float
    water_m3: float
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
    """How far a grip may be dragged, Pa gauge, and why not further."""

    least_gauge_pa: float
    most_gauge_pa: float
    least_reason: str
    most_reason: str


@dataclass(frozen=True, kw_only=True)
class Ribbon:
    """Levels for cut-out, cut-in and pre-charge, threads between them, marks, grips and the span of the gauge scale."""

    cut_out: Level
    cut_in: Level
    pre_charge: Level
    threads: tuple[Level, ...]
    marks: tuple[Mark, ...]
    grips: dict[str, Grip]
    gauge_least_pa: float
    gauge_most_pa: float


def ribbon(facts: Facts, units: str) -> Ribbon:
    """The ribbon of one system under its settings; reasons worded in the unit system asked for."""
    marks = tuple(_marks(facts, units))
    held = [mark.gauge_pa for mark in marks if mark.holds]
    top = max(facts.cut_out_pa + 8 * PSI, min(held) + 5 * PSI if held else 0.0)
    bottom = min(facts.cut_in_pa, facts.pre_charge_pa) - 8 * PSI
    return Ribbon(
        cut_out=level(facts, facts.cut_out_pa),
        cut_in=level(facts, facts.cut_in_pa),
        pre_charge=level(facts, facts.pre_charge_pa),
        threads=_threads(facts),
        marks=marks,
        grips=_grips(facts, marks),
        gauge_least_pa=max(bottom, 0.0),
        gauge_most_pa=top,
    )


def level(facts: Facts, gauge_pa: float) -> Level:
    """One level. Above cut-out the water is what cut-out holds: the switch lets no more in."""
    plant = facts.plant
    water = min(water_m3(facts.bank, gauge_pa + facts.atmosphere_pa), plant.off_m3)
    if water >= facts.reserve_m3:
        run = fill_seconds(plant.fill, facts.reserve_m3, water)
    else:
        run = -fill_seconds(plant.fill, water, facts.reserve_m3)
    return Level(gauge_pa=gauge_pa, water_m3=water, run_s=round(run, 4) if isfinite(run) else None)


def _threads(facts: Facts) -> tuple[Level, ...]:
    """Evenly spaced pressures between the set points, so that the eye sees where the water lies."""
    steps = 4
    width = (facts.cut_out_pa - facts.cut_in_pa) / steps
    return tuple(level(facts, facts.cut_in_pa + width * k) for k in range(1, steps))


def _marks(facts: Facts, units: str) -> list[Mark]:
    f = Shown(facts, units)
    fixture = facts.fixture_limit_pa + head_pa(facts.system.demand.lowest_tap_m)
    reducer = facts.system.demand.pressure_reducer
    found = [
        ("relief", "relief", facts.relief_pa, "Held at the relief valve, {f.relief_pa:pressure}."),
        ("tank", "tank", facts.tank_max_pa, "Held at the tank plate, {f.tank_max_pa:pressure}."),
        (
            "dead-head",
            "dead-head",
            facts.dead_head_limit_pa,
            "Held {f.dead_head_margin_pa:pressure} under dead-head, at {f.dead_head_limit_pa:pressure}.",
        ),
        (
            "fixtures",
            "taps",
            None if reducer else fixture,
            "Held at {f.fixture_limit_pa:pressure} at the lowest tap.",
        ),
    ]
    marks = [
        Mark(id=id, title=title, gauge_pa=at, holds="cut_out", reason=why.format(f=f))
        for id, title, at, why in found
        if at is not None
    ]
    if facts.low_pressure_cut_off:
        marks.append(Mark(id="trip", title="trip", gauge_pa=facts.trip_pa, holds="", reason=""))
    return marks


def _grips(facts: Facts, marks: tuple[Mark, ...]) -> dict[str, Grip]:
    stops = [mark for mark in marks if mark.holds == "cut_out"]
    lowest = min(stops, key=lambda mark: mark.gauge_pa, default=None)
    most = max(lowest.gauge_pa, facts.cut_out_pa) if lowest else 300 * PSI
    return {
        "cut_out": Grip(
            least_gauge_pa=facts.cut_in_pa + _LEAST_GAP_PA,
            most_gauge_pa=most,
            least_reason="Cut-out stays above cut-in.",
            most_reason=lowest.reason if lowest else "No limit is known: read the plates.",
        ),
        "cut_in": Grip(
            least_gauge_pa=5 * PSI,
            most_gauge_pa=facts.cut_out_pa - _LEAST_GAP_PA,
            least_reason="As low as a switch goes.",
            most_reason="Cut-in stays below cut-out.",
        ),
        "pre_charge": Grip(
            least_gauge_pa=0.0,
            most_gauge_pa=facts.cut_out_pa - _LEAST_GAP_PA,
            least_reason="No air at all.",
            most_reason="Above cut-out the tank stores nothing.",
        ),
    }
