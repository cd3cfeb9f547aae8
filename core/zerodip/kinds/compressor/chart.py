"""The ribbon of a receiver: gauge pressure, free air held, pump time; below cut-out the pressure it
settles to."""

from collections.abc import Sequence

from zerodip.kinds.charts import Level, Ribbon, band_grips, marks_of, reach_pa, scales_of
from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.limits import Limit
from zerodip.physics.fill import fill_seconds
from zerodip.text.writer import Writer
from zerodip.units import PSI

__all__ = ["air_ribbon"]

_STEPS = 4


def air_ribbon(figures: CompressorFigures, limits: Sequence[Limit], write: Writer) -> Ribbon:
    """The ribbon of one compressor under its settings; reasons worded in the units of `write`.

    Args:
        figures: The system's figures under its settings.
        limits: The system's limits.
        write: Writes figures in the units asked for.

    Returns:
        The ribbon.
    """
    marks = marks_of(limits)
    out, on = _level(figures, figures.cut_out_pa), _level(figures, figures.cut_in_pa)
    bottom = max(figures.cut_in_pa - 20 * PSI, 0.0)
    width = (figures.cut_out_pa - figures.cut_in_pa) / _STEPS
    return Ribbon(
        holds="air",
        held_title="Free air held",
        held_dimension="air_volume",
        flow_dimension="air_flow",
        cut_out=out,
        cut_in=on,
        pre_charge=None,
        settled=_level(figures, figures.settled_pa),
        threads=tuple(_level(figures, figures.cut_in_pa + width * k) for k in range(1, _STEPS)),
        ghost=(),
        marks=marks,
        grips=band_grips(figures, marks),
        # Of air, not far below cut-in: an empty receiver is of no interest.
        scales=scales_of(
            (out, on), (bottom, reach_pa(figures, marks)), 0.75 * on.held_m3, "air_volume", write
        ),
    )


def _level(figures: CompressorFigures, gauge_pa: float) -> Level:
    held = figures.store.held_m3(gauge_pa)
    if held >= figures.kept_m3:
        run = fill_seconds(figures.store.fill, figures.kept_m3, min(held, figures.full_m3))
    else:
        run = -fill_seconds(figures.store.fill, max(held, 0.0), figures.kept_m3)
    return Level(gauge_pa=gauge_pa, held_m3=max(held, 0.0), run_s=round(run, 4))
