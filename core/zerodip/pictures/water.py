"""The ribbon of a water system: gauge pressure, water in the tank, pump time."""

from math import isfinite

from ..atmosphere import head_pa
from ..cycles.fill import fill_seconds
from ..facts import WaterFacts
from ..tanks.bladder import water_m3
from ..units import PSI, Shown
from .parts import LEAST_GAP_PA, Grip, Level, Mark, Ribbon, band_grips, marks_of

__all__ = ["water_ribbon"]

_STEPS = 4


def water_ribbon(facts: WaterFacts, f: Shown) -> Ribbon:
    """The ribbon of one system under its settings; reasons worded in the units of `f`."""
    marks = _marks(facts, f)
    held = [mark.gauge_pa for mark in marks if mark.holds]
    top = max(facts.cut_out_pa + 8 * PSI, min(held) + 5 * PSI if held else 0.0)
    bottom = min(facts.cut_in_pa, facts.pre_charge_pa) - 8 * PSI
    return Ribbon(
        holds="water",
        held_title="Water in the tank",
        held_dimension="volume",
        flow_dimension="flow",
        cut_out=_level(facts, facts.cut_out_pa),
        cut_in=_level(facts, facts.cut_in_pa),
        pre_charge=_level(facts, facts.pre_charge_pa),
        settled=None,
        threads=_threads(facts),
        ghost=_ghost(facts),
        marks=tuple(marks),
        grips={**band_grips(facts, marks), "pre_charge": _air_grip(facts)},
        gauge_least_pa=max(bottom, 0.0),
        gauge_most_pa=top,
    )


def _level(facts: WaterFacts, gauge_pa: float) -> Level:
    """One level. Above cut-out the water is what cut-out holds: the switch lets no more in."""
    plant = facts.plant
    water = min(water_m3(facts.bank, gauge_pa + facts.atmosphere_pa), plant.off_m3)
    if water >= facts.reserve_m3:
        run = fill_seconds(plant.fill, facts.reserve_m3, water)
    else:
        run = -fill_seconds(plant.fill, water, facts.reserve_m3)
    return Level(gauge_pa=gauge_pa, held_m3=water, run_s=round(run, 4) if isfinite(run) else None)


def _threads(facts: WaterFacts) -> tuple[Level, ...]:
    """Evenly spaced pressures between the set points, so that the eye sees where the water lies."""
    width = (facts.cut_out_pa - facts.cut_in_pa) / _STEPS
    return tuple(_level(facts, facts.cut_in_pa + width * k) for k in range(1, _STEPS))


def _ghost(facts: WaterFacts) -> tuple[Level, ...]:
    """Cut-out and cut-in of a plain tank as they would be once it is drained and re-aired."""
    if facts.kind != "well_air" or facts.regained_m3 <= 0.01 * facts.renewed_m3:
        return ()
    fresh = facts.plain_bank(1.0)
    return tuple(
        Level(gauge_pa=gauge, held_m3=water_m3(fresh, gauge + facts.atmosphere_pa), run_s=None)
        for gauge in (facts.cut_out_pa, facts.cut_in_pa)
    )


def _marks(facts: WaterFacts, f: Shown) -> list[Mark]:
    fixture = facts.fixture_limit_pa + head_pa(facts.system.demand.lowest_tap_m)
    reducer = facts.system.demand.pressure_reducer
    margin = "Held {f.dead_head_margin_pa:pressure} under dead-head, at {f.dead_head_limit_pa:pressure}."
    marks = marks_of(
        [
            ("relief", "relief", facts.relief_pa, "Held at the relief valve, {f.relief_pa:pressure}."),
            ("tank", "tank", facts.tank_max_pa, "Held at the tank plate, {f.tank_max_pa:pressure}."),
            ("pipe", "pipe", facts.pipe_max_pa, "Held at the pipe's rating, {f.pipe_max_pa:pressure}."),
            ("pump", "pump", facts.pump_max_pa, "Held at the pump's rating, {f.pump_max_pa:pressure}."),
            (
                "switch",
                "switch",
                facts.switch_most_out_pa,
                "Held at the switch's range, {f.switch_most_out_pa:pressure}.",
            ),
            ("dead-head", "dead-head", facts.dead_head_limit_pa, margin),
            (
                "fixtures",
                "taps",
                None if reducer else fixture,
                "Held at {f.fixture_limit_pa:pressure} at the lowest tap.",
            ),
        ],
        f,
    )
    if facts.low_pressure_cut_off:
        marks.append(Mark(id="trip", title="trip", gauge_pa=facts.trip_pa, holds="", reason=""))
    if facts.least_cut_in_pa is not None:
        marks.append(Mark(id="tap", title="top tap", gauge_pa=facts.least_cut_in_pa, holds="", reason=""))
    return marks


def _air_grip(facts: WaterFacts) -> Grip:
    if facts.kind == "well_air" and facts.measured_charge_abs_pa is not None and not facts.settings.air_renewed:
        why = "The air is as the bucket test found it: drain and re-air to set it."
        return Grip(
            least_gauge_pa=facts.pre_charge_pa, most_gauge_pa=facts.pre_charge_pa, least_reason=why, most_reason=why
        )
    return Grip(
        least_gauge_pa=0.0,
        most_gauge_pa=facts.cut_out_pa - LEAST_GAP_PA,
        least_reason="No air but the atmosphere's.",
        most_reason="Above cut-out the tank stores nothing.",
    )
