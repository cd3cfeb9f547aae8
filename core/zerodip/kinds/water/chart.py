"""The ribbon of a water system: gauge pressure, water in the tank, pump time."""

from collections.abc import Sequence
from math import isfinite

from zerodip.kinds.charts import (
    LEAST_GAP_PA,
    Grip,
    Level,
    Mark,
    Ribbon,
    band_grips,
    marks_of,
    reach_pa,
    scales_of,
)
from zerodip.kinds.limits import Limit
from zerodip.kinds.water.figures import WaterFigures
from zerodip.physics.bladder_tank import water_m3
from zerodip.physics.fill import fill_seconds
from zerodip.text.writer import Writer
from zerodip.units import PSI

__all__ = ["water_ribbon"]

_STEPS = 4


def water_ribbon(figures: WaterFigures, limits: Sequence[Limit], write: Writer) -> Ribbon:
    """The ribbon of one system under its settings; reasons worded in the units of `write`.

    Args:
        figures: The system's figures under its settings.
        limits: The system's limits.
        write: Writes figures in the units asked for.

    Returns:
        The ribbon.
    """
    marks = _marks(figures, limits)
    shown = figures.pre_charge_pa + figures.tank_head_pa  # what the gauge shows of it
    bottom = max(min(figures.cut_in_pa, shown) - 8 * PSI, 0.0)
    out, on, air = (_level(figures, pa) for pa in (figures.cut_out_pa, figures.cut_in_pa, shown))
    ghost = _ghost(figures)
    return Ribbon(
        holds="water",
        held_title="Water in the tank",
        held_dimension="volume",
        flow_dimension="flow",
        cut_out=out,
        cut_in=on,
        pre_charge=air,
        settled=None,
        threads=_threads(figures),
        ghost=ghost,
        marks=marks,
        grips={**band_grips(figures, marks), "pre_charge": _air_grip(figures)},
        scales=scales_of(
            (out, *ghost, on, air), (bottom, reach_pa(figures, marks)), 0.0, "volume", write
        ),
        dips=figures.dips,
        tank_head_pa=figures.tank_head_pa,
    )


def _level(figures: WaterFigures, gauge_pa: float) -> Level:
    """One level. Above cut-out the water is what cut-out holds: the switch lets no more in."""
    store = figures.store
    water = min(water_m3(figures.bank, gauge_pa + figures.datum_pa), store.off_m3)
    if water >= figures.reserve_m3:
        run = fill_seconds(store.fill, figures.reserve_m3, water)
    else:
        run = -fill_seconds(store.fill, water, figures.reserve_m3)
    return Level(gauge_pa=gauge_pa, held_m3=water, run_s=round(run, 4) if isfinite(run) else None)


def _threads(figures: WaterFigures) -> tuple[Level, ...]:
    """Evenly spaced pressures between the set points, so that the eye sees where the water lies."""
    width = (figures.cut_out_pa - figures.cut_in_pa) / _STEPS
    return tuple(_level(figures, figures.cut_in_pa + width * k) for k in range(1, _STEPS))


def _ghost(figures: WaterFigures) -> tuple[Level, ...]:
    """Cut-out and cut-in of a plain tank as they would be once it is drained and re-aired."""
    if not figures.system.plain or figures.regained_m3 <= 0.01 * figures.renewed_m3:
        return ()
    fresh = figures.plain_bank(1.0)
    return tuple(
        Level(gauge_pa=gauge, held_m3=water_m3(fresh, gauge + figures.datum_pa), run_s=None)
        for gauge in (figures.cut_out_pa, figures.cut_in_pa)
    )


def _marks(figures: WaterFigures, limits: Sequence[Limit]) -> tuple[Mark, ...]:
    marks = marks_of(limits)
    if not figures.low_pressure_cut_off:
        return marks
    return (*marks, Mark(id="trip", title="trip", gauge_pa=figures.trip_pa, holds="", reason=""))


def _air_grip(figures: WaterFigures) -> Grip:
    if (
        figures.system.plain
        and figures.measured_charge_abs_pa is not None
        and not figures.settings.air_renewed
    ):
        why = "The air is as the bucket test found it: drain and re-air to set it."
        return Grip(
            least_gauge_pa=figures.pre_charge_pa,
            most_gauge_pa=figures.pre_charge_pa,
            least_reason=why,
            most_reason=why,
        )
    return Grip(
        least_gauge_pa=0.0,
        most_gauge_pa=max(figures.cut_out_pa - figures.tank_head_pa - LEAST_GAP_PA, 0.0),
        least_reason="No air but the atmosphere's.",
        most_reason="Above cut-out the tank stores nothing.",
    )
