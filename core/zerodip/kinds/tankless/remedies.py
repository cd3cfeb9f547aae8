"""What may be changed on a tankless pump, each change as it would be told."""

from collections.abc import Iterator
from dataclasses import replace

from zerodip.kinds.key_presses import down, settings_at, up
from zerodip.kinds.nominal_sizes import accumulator_sizes_m3
from zerodip.kinds.remedies import Cost, Remedy, lowered, nuts, other_switch
from zerodip.kinds.settings import Settings
from zerodip.kinds.tankless.candidates import candidates
from zerodip.kinds.tankless.figures import TanklessFigures as T
from zerodip.kinds.tankless.limits import LIMITS
from zerodip.kinds.tankless.model import TanklessSystem
from zerodip.kinds.tankless.sizing import resized
from zerodip.units import PSI, as_written, text

__all__ = ["catalogue"]

_BELOW_PSI = (2, 5, 8)  # an accumulator's air below cut-in
_LARGER = (1.25, 1.5, 2.0, 3.0)
_MOST_OUTLET_M3_S = 0.01
_OF_ACCUMULATORS = frozenset({"pulse-rate"})
_OF_OUTLETS = frozenset({"cut-out-steady", "pulse-rate", "window"})


def catalogue(figures: T, units: str) -> Iterator[Remedy[TanklessSystem]]:
    """Everything that may be changed.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        Remedies, none of them tried yet.
    """
    yield from _air(figures, units)
    yield from nuts(figures, _settings(figures, units), units)
    yield from _outlets(figures, units)
    yield from other_switch(figures.system, figures.settings, units)
    yield from _accumulators(figures, units)


def _air(figures: T, units: str) -> Iterator[Remedy[TanklessSystem]]:
    """The accumulator's air a little below cut-in."""
    if figures.bank is None:
        return
    for at, psi in enumerate(_BELOW_PSI):
        charge = max(down(figures.cut_in_pa - psi * PSI, units), 0.0)
        yield Remedy(
            cost=Cost.AIR,
            does=f"Set the accumulator's pre-charge to {text(charge, 'pressure', units)}",
            system=figures.system,
            settings=replace(figures.settings, pre_charge_gauge_pa=charge),
            effort=at,
        )


def _settings(figures: T, units: str) -> Iterator[Settings]:
    """Those of a proposal, those that every limit allows, and those that the window and the
    switch's own range ask for. One screw moves both points alike."""
    yield from candidates(figures, units)
    low, high, gap = figures.cut_in_pa, figures.cut_out_pa, figures.differential_pa
    air = figures.settings.pre_charge_gauge_pa
    tops = [up(figures.window_low_pa, units), down(figures.window_high_pa, units)]
    if figures.switch_least_in_pa is not None:
        tops.append(up(figures.switch_least_in_pa + gap, units))
    for top in tops:
        charge = None if air is None else max(down(top - gap - 2 * PSI, units), 0.0)
        yield from settings_at(top - gap, top, charge)
    for settings in lowered(figures, LIMITS, units, lambda cut_in: air):
        if not figures.one_screw or settings.cut_in_gauge_pa != low:
            yield settings
    if figures.one_screw:
        return
    widths = (
        (up, figures.least_differential_pa),
        (down, figures.most_differential_pa),
        (up, figures.small_differential_pa),
        (up, 2 * figures.small_differential_pa),
    )
    for rounded, width in widths:
        if width is not None and width < high:
            yield from settings_at(high - rounded(width, units), high, air)
            yield from settings_at(low, low + rounded(width, units), air)


def _outlets(figures: T, units: str) -> Iterator[Remedy[TanklessSystem]]:
    """The smallest outlet opened further, or two of them at a time."""
    small, system = figures.smallest, figures.system
    for share in _LARGER:
        flow = as_written(small.flow_m3_s * share, "flow", units)
        if flow > _MOST_OUTLET_M3_S:
            continue
        outlets = tuple(
            replace(each, flow_m3_s=max(each.flow_m3_s, flow)) for each in system.outlets
        )
        said, at = text(flow, "flow", units), text(small.gauge_pa, "pressure", units)
        yield Remedy(
            cost=Cost.USE,
            does=f"Open taps that pass {said} at {at} together, or fit such an outlet",
            system=replace(system, outlets=outlets),
            settings=figures.settings,
            effort=share,
            of=_OF_OUTLETS,
        )


def _accumulators(figures: T, units: str) -> Iterator[Remedy[TanklessSystem]]:
    """Accumulators as they are sold, with their air a little below cut-in."""
    have = figures.accumulator_m3 or 0.0
    charge = max(down(figures.cut_in_pa - _BELOW_PSI[0] * PSI, units), 0.0)
    for sold in accumulator_sizes_m3(units):
        volume = as_written(sold, "volume", units)
        system = resized(figures.system, volume, False)
        if volume <= have or system is None:
            continue
        said, air = text(volume, "volume", units), text(charge, "pressure", units)
        yield Remedy(
            cost=Cost.SIZE,
            does=f"Fit an accumulator of {said}, pre-charge {air}",
            system=system,
            settings=replace(figures.settings, pre_charge_gauge_pa=charge),
            effort=volume,
            of=_OF_ACCUMULATORS,
        )
