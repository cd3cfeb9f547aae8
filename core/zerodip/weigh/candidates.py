"""The settings worth trying on each kind of system, in whole steps of the unit a person works in."""

import math
from collections.abc import Callable, Iterable

from ..facts import Facts, ReceiverFacts, TanklessFacts, WaterFacts
from ..switches.schools import DIFFERENTIAL_SCHOOLS
from ..system import Settings
from ..units import PSI, unit_for

__all__ = ["USUAL_AIR_PSI", "USUAL_WATER_PSI", "candidates", "floor_pa", "nearest", "steps"]

USUAL_WATER_PSI = ((20, 40), (30, 50), (40, 60), (50, 70))
USUAL_AIR_PSI = ((95, 120), (100, 135))
_AIR_GAPS_PA = tuple(psi * PSI for psi in (20, 25, 30, 35))
Snap = Callable[[float], float]


def steps(units: str) -> tuple[Snap, Snap]:
    """Rounding down and up to whole key presses of the pressure unit in `units`."""
    unit = unit_for("pressure", units)
    step = unit.step * unit.factor
    return lambda pa: math.floor(pa / step + 1e-6) * step, lambda pa: math.ceil(pa / step - 1e-6) * step


def nearest(pa: float, units: str) -> float:
    """The whole key press nearest to a pressure (Pa), in the pressure unit of `units`."""
    unit = unit_for("pressure", units)
    step = unit.step * unit.factor
    return round(pa / step) * step


def floor_pa(facts: Facts) -> float:
    """The cut-in that must be kept for the wanted pressure at tap or tool; today's where that cannot be told (on a
    compressor no higher than the limits leave room for)."""
    if isinstance(facts, WaterFacts):
        return facts.cut_in_pa if facts.least_cut_in_pa is None else facts.least_cut_in_pa
    if isinstance(facts, ReceiverFacts):
        room = (
            facts.cut_in_pa
            if facts.known_limit_pa is None
            else facts.known_limit_pa - facts.least_usual_differential_pa
        )
        return min(facts.cut_in_pa, room) if facts.wanted_air_pa is None else facts.wanted_air_pa
    return 0.0


def candidates(facts: Facts, units: str) -> list[Settings]:
    """Settings worth trying, today's among them, each once."""
    down, up = steps(units)
    if isinstance(facts, WaterFacts):
        found = _water(facts, units, down, up)
    elif isinstance(facts, ReceiverFacts):
        found = _air(facts, down, up)
    else:
        found = _tankless(facts, down, up) if isinstance(facts, TanklessFacts) else ()
    return list({_key(settings): settings for settings in (*found, facts.settings)}.values())


def _key(settings: Settings) -> tuple[float, ...]:
    air = settings.pre_charge_gauge_pa
    points = round(settings.cut_in_gauge_pa), round(settings.cut_out_gauge_pa), -1 if air is None else round(air)
    return (*points, bool(settings.air_renewed))


def _made(cut_in: float, cut_out: float, air: float | None, renewed: bool | None = None) -> Iterable[Settings]:
    if 1 * PSI <= cut_in < cut_out <= 300 * PSI and cut_in <= 250 * PSI:
        yield Settings(cut_in_gauge_pa=cut_in, cut_out_gauge_pa=cut_out, pre_charge_gauge_pa=air, air_renewed=renewed)


def _water(facts: WaterFacts, units: str, down: Snap, up: Snap) -> Iterable[Settings]:
    school = next(s for s in DIFFERENTIAL_SCHOOLS if s.id == facts.practice.differential_school)
    usual = [nearest(psi * PSI, units) for psi, _ in USUAL_WATER_PSI]
    wanted = up(max(floor_pa(facts), 5 * PSI))
    for cut_in in (facts.cut_in_pa, wanted, *(p for p in usual if p >= floor_pa(facts) - 1.0)):
        for gap in dict.fromkeys((*school.offers_pa(facts.differential_pa), facts.differential_pa)):
            for air in _airs(facts, cut_in, down):
                for renewed in _renewals(facts):
                    yield from _made(cut_in, nearest(cut_in + gap, units), air, renewed)


def _renewals(facts: WaterFacts) -> tuple[bool | None, ...]:
    """Whether to drain and re-air: worth trying where the bucket test found a plain tank short of air."""
    short = facts.kind == "well_air" and facts.air_left is not None and facts.air_left < facts.least_air_left
    return (facts.settings.air_renewed, True) if short else (facts.settings.air_renewed,)


def _airs(facts: WaterFacts, cut_in: float, down: Snap) -> Iterable[float]:
    """Pre-charges for one cut-in: the school's, and what a start without a dip or a trip asks for."""
    if facts.kind == "well_air":
        yield facts.pre_charge_pa
        return
    shift = cut_in - facts.cut_in_pa
    offset = facts.school.offset_pa(facts.budget)
    if offset is not None:
        yield max(down(cut_in - offset), 0.0) if facts.school.id == "computed" else max(cut_in - offset, 0.0)
    if facts.largest_pre_charge_pa is not None:
        yield max(down(facts.largest_pre_charge_pa + shift - facts.gauge_error_pa), 0.0)
    yield max(cut_in - facts.psi_5, 0.0)


def _air(facts: ReceiverFacts, down: Snap, up: Snap) -> Iterable[Settings]:
    tops = [facts.cut_out_pa, *(out * PSI for _, out in USUAL_AIR_PSI)]
    if facts.known_limit_pa is not None:
        tops += [down(facts.known_limit_pa), *(down(facts.known_limit_pa - k * 5 * PSI) for k in (1, 2, 3))]
    gaps = (facts.differential_pa,) if facts.one_screw else (*_AIR_GAPS_PA, facts.differential_pa)
    lows = [up(facts.wanted_air_pa)] if facts.wanted_air_pa is not None else []
    for top in tops:
        for gap in gaps:
            yield from _made(top - gap, top, None)
    for low in lows:
        for gap in gaps:
            yield from _made(low, low + gap, None)


def _tankless(facts: TanklessFacts, down: Snap, up: Snap) -> Iterable[Settings]:
    high = facts.window_high_pa
    tops = [down(high), *(down(high - k * 3 * PSI) for k in (1, 2, 3))]
    if facts.has_window:
        tops += [down(facts.window_mid_pa), up(facts.window_low_pa)]
    for top in tops:
        for gap in dict.fromkeys((facts.differential_pa, 10 * PSI)):
            air = None if facts.bank is None else max(down(top - gap - 2 * PSI), 0.0)
            yield from _made(top - gap, top, air if facts.bank else facts.settings.pre_charge_gauge_pa)
