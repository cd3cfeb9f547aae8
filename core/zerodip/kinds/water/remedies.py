"""What may be changed on a water system, each change as it would be told: air, nuts, use, parts,
tanks and pumps."""

from collections.abc import Iterator
from dataclasses import replace

from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.kinds.key_presses import down, settings_at, up
from zerodip.kinds.nominal_sizes import tank_sizes_m3
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
from zerodip.kinds.water.candidates import candidates, usual_charge_pa
from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.kinds.water.limits import LIMITS
from zerodip.kinds.water.model import WaterSystem
from zerodip.kinds.water.pumps import HeadCurve, Pump
from zerodip.kinds.water.sizing import charged, resized
from zerodip.units import PSI, as_written, text, unit_for

__all__ = ["catalogue"]

_RE_AIR = "Drain the tank and let it take air"
_FEWER = (0.85, 0.7, 0.55, 0.4, 0.25)
_STRONGER = (1.25, 1.5, 2.0, 3.0)
_MOST_FLOW_M3_S = 0.1
_OF_TANKS = frozenset(
    {
        "bladder-acceptance",
        "low-pressure-margin",
        "low-pressure-trip",
        "outlet-seal",
        "run-time",
        "start-dip",
        "starts-per-day",
        "starts-per-hour",
    }
)
_OF_USE = frozenset(
    {"keeps-up", "long-draw-trip", "low-pressure-margin", "low-pressure-trip", "start-dip"}
)


def catalogue(figures: W, units: str) -> Iterator[Remedy[WaterSystem]]:
    """Everything that may be changed.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        Remedies, none of them tried yet.
    """
    system, settings = figures.system, figures.settings
    yield from _plain_air(figures, units) if system.plain else _bladder_air(figures, units)
    yield from nuts(figures, _settings(figures, units), units, _RE_AIR.lower())
    yield from _use(figures, units)
    yield from _parts(figures, units)
    yield from _tanks(figures, units)
    yield from _pumps(figures, units)
    yield from earthed(system, settings)


def _bladder_air(figures: W, units: str) -> Iterator[Remedy[WaterSystem]]:
    """One pre-charge in every tank: the one to set first, then what each bound of it asks for."""
    system, settings = figures.system, figures.settings
    own = [k for k, tank in enumerate(system.tanks, 1) if tank.pre_charge_gauge_pa is not None]
    alike = replace(system, tanks=tuple(replace(t, pre_charge_gauge_pa=None) for t in system.tanks))
    if own and len(own) < len(system.tanks):
        which = " and ".join(str(k) for k in own)
        yield Remedy(
            cost=Cost.AIR,
            does=f"Set tank {which} to {_set_to(figures, figures.pre_charge_pa, units)}",
            system=alike,
            settings=settings,
        )
    for at, charge in enumerate(_charges(figures, units)):
        if own or abs(charge - figures.pre_charge_pa) >= 1.0:
            where = " in every tank" if len(system.tanks) > 1 else ""
            yield Remedy(
                cost=Cost.AIR,
                does=f"Set the pre-charge{where} to {_set_to(figures, charge, units)}",
                system=alike,
                settings=replace(settings, pre_charge_gauge_pa=charge),
                effort=1.0 + at,
            )


def _set_to(figures: W, charge: float, units: str) -> str:
    """A pre-charge with the temperature that it is meant at."""
    said, site = text(charge, "pressure", units), figures.system.site
    today = figures.charge_at_pa(site.now_k, site.mean_k, charge)
    if today is None or abs(today - charge) < 0.05 * PSI:
        return said
    mean, now = (text(each, "temperature", units) for each in (site.mean_k, site.now_k))
    return f"{said} at {mean}, {text(today, 'pressure', units)} today at {now}"


def _charges(figures: W, units: str) -> Iterator[float]:
    """Pre-charges worth trying, Pa gauge, the one to set first."""
    there = figures.cut_in_there_pa
    offsets = (figures.psi_2, figures.psi_3, figures.psi_5, 8 * PSI, 12 * PSI)
    bounds = (
        figures.target_pa,
        figures.trip_charge_pa,
        figures.dip_charge_pa,
        figures.largest_pre_charge_pa,
        figures.summer_pa,
        *(there - offset for offset in offsets),
    )
    told = (
        as_written(down(each, units), "pressure", units)
        for each in bounds
        if each is not None and each >= 0
    )
    yield from dict.fromkeys(each for each in told if 0 <= each <= MOST_GAUGE_PA)


def _plain_air(figures: W, units: str) -> Iterator[Remedy[WaterSystem]]:
    """A plain tank drained and filled with air, or a supercharge let off."""
    system, settings = figures.system, figures.settings
    if not settings.air_renewed:
        yield Remedy(
            cost=Cost.AIR,
            does=_RE_AIR,
            system=system,
            settings=replace(settings, air_renewed=True, pre_charge_gauge_pa=0.0),
        )
    charges = (figures.cut_in_there_pa - psi * PSI for psi in (5, 8, 12, 16, 20, 25))
    for at, charge in enumerate(dict.fromkeys(down(max(each, 0.0), units) for each in charges)):
        if charge < figures.pre_charge_pa - 1.0:
            yield Remedy(
                cost=Cost.AIR,
                does=f"Let air off to {text(charge, 'pressure', units)}",
                system=system,
                settings=replace(settings, pre_charge_gauge_pa=charge),
                effort=1.0 + at,
            )


def _settings(figures: W, units: str) -> Iterator[Settings]:
    """Switch settings worth trying: those of a proposal, those that every limit allows, and those
    that the switch's own range and the highest tap ask for."""
    yield from candidates(figures, units)
    yield from lowered(figures, LIMITS, units, lambda cut_in: usual_charge_pa(figures, cut_in))
    gap, low, high = figures.differential_pa, figures.cut_in_pa, figures.cut_out_pa
    now = figures.settings
    if figures.switch_least_in_pa is not None:
        least = up(figures.switch_least_in_pa, units)
        charge = usual_charge_pa(figures, least)
        yield from settings_at(least, least + gap, charge, now.air_renewed)
    gaps = (
        (up, figures.least_differential_pa),
        (down, figures.most_differential_pa),
        (up, figures.usual_differential_pa - figures.differential_tolerance_pa),
        (down, figures.usual_differential_pa + figures.differential_tolerance_pa),
    )
    for rounded, width in gaps:
        if width is not None:
            charge = now.pre_charge_gauge_pa
            yield from settings_at(low, low + rounded(width, units), charge, now.air_renewed)
    for psi in (3, 6, 10):
        yield from settings_at(low, high + psi * PSI, now.pre_charge_gauge_pa, now.air_renewed)


def _use(figures: W, units: str) -> Iterator[Remedy[WaterSystem]]:
    """Fewer taps open at a time."""
    draw, system = figures.peak_draw_m3_s, figures.system
    if draw is None:
        return
    unit = unit_for("flow", units)
    for at, less in enumerate(steps_down(draw, unit.step * unit.factor, _FEWER)):
        yield Remedy(
            cost=Cost.USE,
            does=f"Open fewer taps at a time, {text(less, 'flow', units)} at most",
            system=replace(system, demand=replace(system.demand, peak_draw_m3_s=less)),
            settings=figures.settings,
            effort=at,
            of=_OF_USE,
        )


def _parts(figures: W, units: str) -> Iterator[Remedy[WaterSystem]]:
    system, settings = figures.system, figures.settings
    most = figures.tank_max_here_pa
    of = ("relief-present", "relief-within-tank")
    yield from relieved(system, settings, most, "relief valve", of, units)
    yield from other_switch(system, settings, units)
    yield Remedy(
        cost=Cost.PART,
        does="Have a pressure-reducing valve fitted after the tank",
        system=replace(system, demand=replace(system.demand, pressure_reducer=True)),
        settings=settings,
        of=frozenset({"fixture-limit"}),
    )
    yield Remedy(
        cost=Cost.PART,
        does="Label tank, lines and taps “non-potable, do not drink” (purple is usual)",
        system=replace(system, supply=replace(system.supply, labelled=True)),
        settings=settings,
        of=frozenset({"non-potable-label"}),
    )
    yield from _cut_off(figures)


def _cut_off(figures: W) -> Iterator[Remedy[WaterSystem]]:
    """A switch with a low-pressure cut-off, or without one, as practice wants it."""
    fit = figures.practice.cut_off_school == "fit"
    if figures.cut_off_as_practised is not False:
        return
    switch = replace(figures.switch, low_pressure_cut_off=fit)
    yield Remedy(
        cost=Cost.PART,
        does=f"Fit a switch {'with' if fit else 'without'} a low-pressure cut-off",
        system=replace(figures.system, switch=switch),
        settings=figures.settings,
        of=frozenset({"low-pressure-fitted"}),
    )


def _tanks(figures: W, units: str) -> Iterator[Remedy[WaterSystem]]:
    """Tanks as they are sold, with the air that goes with them: one more, or one in place of what
    is there."""
    have = text(figures.nominal_m3, "volume", units)
    sold = tank_sizes_m3(units)
    for volume, beside, system in put_in(figures.system, figures.nominal_m3, sold, resized):
        said, settings = text(volume, "volume", units), _rounded(figures, system, units)
        does = f"Add a tank of {said}" if beside else f"Replace the {have} by a tank of {said}"
        yield Remedy(
            cost=Cost.SIZE,
            does=f"{does}{_with_air(figures, settings, units)}",
            system=system,
            settings=settings,
            effort=volume,
            of=_OF_TANKS,
        )


def _rounded(figures: W, system: WaterSystem, units: str) -> Settings:
    """The air that would be set on such tanks, in whole key presses."""
    settings = charged(figures, system)
    charge = down(settings.pre_charge_gauge_pa or 0.0, units)
    return replace(settings, pre_charge_gauge_pa=charge)


def _with_air(figures: W, settings: Settings, units: str) -> str:
    if figures.system.plain:
        return ", with all its air" if settings.air_renewed else ""
    return f", pre-charge {text(settings.pre_charge_gauge_pa, 'pressure', units)}"


def _pumps(figures: W, units: str) -> Iterator[Remedy[WaterSystem]]:
    """A pump that delivers more at the same head."""
    now = figures.cut_in_flow_m3_s
    for more in _STRONGER if now > 0 else ():
        share = as_written(now * more, "flow", units) / now
        pump = _stronger(figures.system.pump, share)
        if pump is not None and share > 1:
            flow = text(now * share, "flow", units)
            yield Remedy(
                cost=Cost.SIZE,
                does=f"Fit a pump that delivers {flow} at cut-in",
                system=replace(figures.system, pump=pump),
                settings=figures.settings,
                effort=share,
                of=frozenset({"keeps-up", "long-draw-trip"}),
            )


def _stronger(pump: Pump, share: float) -> Pump | None:
    if isinstance(pump, HeadCurve):
        if pump.points[-1].flow_m3_s * share > _MOST_FLOW_M3_S:
            return None
        points = tuple(replace(p, flow_m3_s=p.flow_m3_s * share) for p in pump.points)
        return replace(pump, points=points)
    if pump.flow_m3_s * share > _MOST_FLOW_M3_S:
        return None
    return replace(pump, flow_m3_s=pump.flow_m3_s * share)
