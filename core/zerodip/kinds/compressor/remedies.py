"""What may be changed on a compressor, each change as it would be told."""

from collections.abc import Iterator
from dataclasses import replace

from zerodip.kinds.compressor.candidates import candidates
from zerodip.kinds.compressor.figures import CompressorFigures as C
from zerodip.kinds.compressor.limits import LIMITS
from zerodip.kinds.compressor.model import CompressorSystem
from zerodip.kinds.compressor.sizing import resized
from zerodip.kinds.key_presses import down, settings_at, up
from zerodip.kinds.nominal_sizes import receiver_sizes_m3
from zerodip.kinds.remedies import (
    Cost,
    Remedy,
    earthed,
    lowered,
    nuts,
    other_switch,
    put_in,
    relieved,
    steps_down,
)
from zerodip.kinds.settings import Settings
from zerodip.units import as_written, text, unit_for

__all__ = ["catalogue"]

_LESS = (0.85, 0.7, 0.55, 0.4, 0.25)
_STRONGER = (1.25, 1.5, 2.0, 3.0)
_OF_RECEIVERS = frozenset({"air-starts-per-hour"})
_OF_USE = frozenset({"air-keeps-up", "duty"})


def catalogue(figures: C, units: str) -> Iterator[Remedy[CompressorSystem]]:
    """Everything that may be changed.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        Remedies, none of them tried yet.
    """
    system, settings = figures.system, figures.settings
    yield from nuts(figures, _settings(figures, units), units)
    yield from _use(figures, units)
    of = ("safety-valve-present", "safety-valve-within-plate")
    yield from relieved(system, settings, figures.receiver_max_pa, "safety valve", of, units)
    yield from other_switch(system, settings, units)
    yield from _receivers(figures, units)
    yield from _pumps(figures, units)
    yield from earthed(system, settings)


def _settings(figures: C, units: str) -> Iterator[Settings]:
    """Those of a proposal, those that every limit allows, and those that the switch's own range
    asks for. One screw moves both points alike."""
    yield from candidates(figures, units)
    low, gap = figures.cut_in_pa, figures.differential_pa
    if figures.switch_least_in_pa is not None:
        least = up(figures.switch_least_in_pa, units)
        yield from settings_at(least, least + gap, None)
    for settings in lowered(figures, LIMITS, units, lambda cut_in: None):
        if not figures.one_screw or settings.cut_in_gauge_pa != low:
            yield settings
    if figures.one_screw:
        return
    widths = (
        (up, figures.least_differential_pa),
        (down, figures.most_differential_pa),
        (up, figures.least_usual_differential_pa),
        (down, figures.most_usual_differential_pa),
    )
    for rounded, width in widths:
        if width is not None:
            yield from settings_at(low, low + rounded(width, units), None)


def _use(figures: C, units: str) -> Iterator[Remedy[CompressorSystem]]:
    """Less air used at a time."""
    use, system = figures.use_m3_s, figures.system
    if use is None:
        return
    unit = unit_for("air_flow", units)
    for at, less in enumerate(steps_down(use, unit.step * unit.factor, _LESS)):
        yield Remedy(
            cost=Cost.USE,
            does=f"Use less air at a time, {text(less, 'air_flow', units)} at most",
            system=replace(system, use=replace(system.use, use_m3_s=less)),
            settings=figures.settings,
            effort=at,
            of=_OF_USE,
        )


def _receivers(figures: C, units: str) -> Iterator[Remedy[CompressorSystem]]:
    """Receivers as they are sold, one more or in place of what is there."""
    have = text(figures.volume_m3, "volume", units)
    sold = receiver_sizes_m3(units)
    for volume, beside, system in put_in(figures.system, figures.volume_m3, sold, resized):
        said = text(volume, "volume", units)
        instead = f"Replace the {have} by a receiver of {said}"
        yield Remedy(
            cost=Cost.SIZE,
            does=f"Add a receiver of {said}" if beside else instead,
            system=system,
            settings=figures.settings,
            effort=volume,
            of=_OF_RECEIVERS,
        )


def _pumps(figures: C, units: str) -> Iterator[Remedy[CompressorSystem]]:
    """A compressor that delivers more."""
    pump, now = figures.system.pump, figures.cut_out_flow_m3_s
    for more in _STRONGER:
        share = as_written(now * more, "air_flow", units) / now
        if max(point.flow_m3_s for point in pump.points) * share > 1.0:
            continue
        points = tuple(replace(p, flow_m3_s=p.flow_m3_s * share) for p in pump.points)
        flow = text(now * share, "air_flow", units)
        yield Remedy(
            cost=Cost.SIZE,
            does=f"Fit a compressor that delivers {flow} at cut-out",
            system=replace(figures.system, pump=replace(pump, points=points)),
            settings=figures.settings,
            effort=share,
            of=_OF_USE,
        )
