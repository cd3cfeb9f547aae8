"""The settings worth trying on a water system, and what speaks for them."""

from collections.abc import Iterable
from dataclasses import replace

from zerodip.kinds.key_presses import down, nearest, settings_at, up
from zerodip.kinds.limits import lowest_limit
from zerodip.kinds.settings import Settings
from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.kinds.water.limits import LIMITS
from zerodip.kinds.water.model import WaterSystem
from zerodip.practice.ways import DIFFERENTIAL_WAYS, way_of
from zerodip.units import PSI

__all__ = [
    "USUAL_PSI",
    "aired",
    "alike",
    "candidates",
    "finer",
    "floor_pa",
    "keeps",
    "usual_charge_pa",
]

USUAL_PSI = ((20, 40), (30, 50), (40, 60), (50, 70))
_LEAST_WANTED_PA, _LEAST_GAP_PA = 5 * PSI, 10 * PSI
_REACH_PSI = 30


def floor_pa(figures: W) -> float:
    """The cut-in that must be kept for the wanted pressure at the highest tap, and so that water
    reaches the tanks; today's where that cannot be told, which is then a wish and no floor.

    Args:
        figures: The system's figures under its settings.

    Returns:
        Cut-in, Pa gauge.
    """
    wanted = figures.cut_in_pa if figures.least_cut_in_pa is None else figures.least_cut_in_pa
    return max(wanted, figures.tank_head_pa)


def candidates(figures: W, units: str) -> Iterable[Settings]:
    """Today's cut-in, that which the highest tap asks for and the usual ones above it, with the
    differentials of the practice; and where a limit stands in the way, cut-out as high as the
    lowest limit lets it be.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        Settings worth trying.
    """
    floor = floor_pa(figures)
    least = _least_pa(figures)
    usual = (nearest(psi * PSI, units) for psi, _ in USUAL_PSI)
    way = way_of(DIFFERENTIAL_WAYS, figures.practice.differential_school)
    own = () if way.id == "leave" else (figures.usual_differential_pa,)
    gaps = dict.fromkeys((*way.offers_pa(figures.differential_pa), figures.differential_pa, *own))
    most = lowest_limit(LIMITS, figures)
    lower = figures.stands_pa < figures.cut_out_pa
    tops = () if most is None or way.id == "leave" else (down(most, units),)
    tops = (*tops, down(figures.stands_pa, units)) if lower else tops
    cut_ins = dict.fromkeys(
        (
            figures.cut_in_pa,
            up(max(floor, _LEAST_WANTED_PA), units),
            *(p for p in usual if p >= least - 1.0),
            *(top - gap for top in tops for gap in gaps if top - gap >= least - 1.0),
        )
    )
    for cut_in in cut_ins:
        outs = (nearest(cut_in + gap, units) for gap in gaps)
        allowed = (top for top in tops if top - cut_in >= _LEAST_GAP_PA)
        for cut_out in dict.fromkeys((*outs, *allowed)):
            for air in _airs(figures, cut_in, units):
                for renewed in _renewals(figures):
                    yield from settings_at(cut_in, cut_out, air, renewed)


def _least_pa(figures: W) -> float:
    """The least cut-in worth trying: where the highest tap is not known, below today's too."""
    if figures.least_cut_in_pa is not None:
        return floor_pa(figures)
    return max(figures.tank_head_pa, _LEAST_WANTED_PA)


def finer(figures: W, units: str) -> Iterable[Settings]:
    """Every cut-in within reach above the one to be kept, psi by psi, with the differentials that
    the practice still allows and its pre-charge.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        Settings worth trying.
    """
    way = way_of(DIFFERENTIAL_WAYS, figures.practice.differential_school)
    room = 0.0 if way.id == "leave" else figures.differential_tolerance_pa
    gaps = {gap + by for gap in way.offers_pa(figures.differential_pa) for by in (-room, 0.0, room)}
    floor = up(max(floor_pa(figures), _LEAST_WANTED_PA), units)
    for step in range(_REACH_PSI + 1):
        cut_in = nearest(floor + step * PSI, units)
        air = next(iter(_airs(figures, cut_in, units)), None)
        for gap in gaps:
            cut_out = (
                down(cut_in + gap, units)
                if gap > figures.usual_differential_pa
                else up(cut_in + gap, units)
            )
            yield from settings_at(cut_in, cut_out, air, figures.settings.air_renewed)


def _renewals(figures: W) -> tuple[bool | None, ...]:
    """Whether to drain and re-air: worth trying where the bucket test found a plain tank short of
    air."""
    now, left = figures.settings.air_renewed, figures.air_left
    short = figures.system.plain and left is not None and left < figures.least_air_left
    return (now, True) if short else (now,)


def _airs(figures: W, cut_in: float, units: str) -> Iterable[float]:
    """Pre-charges for one cut-in: the one that is to be set with it, and the wider one."""
    if figures.system.plain:
        yield figures.pre_charge_pa
        return
    there = cut_in - figures.tank_head_pa
    if cut_in >= figures.cut_out_pa:
        at = figures.varied({W.cut_in_pa: cut_in, W.cut_out_pa: cut_in + figures.differential_pa})
    else:
        at = figures.varied({W.cut_in_pa: cut_in})
    if at.target_pa is not None:
        thumb = at.target_pa == max(there - figures.psi_2, 0.0)
        yield at.target_pa if thumb else max(down(at.target_pa, units), 0.0)
    yield max(there - figures.psi_5, 0.0)


def alike(figures: W) -> WaterSystem | None:
    """The system with the pre-charge that is set in every tank.

    Args:
        figures: The system's figures under its settings.

    Returns:
        The system; None where all tanks are alike.
    """
    if all(tank.pre_charge_gauge_pa is None for tank in figures.system.tanks):
        return None
    tanks = tuple(replace(tank, pre_charge_gauge_pa=None) for tank in figures.system.tanks)
    return replace(figures.system, tanks=tanks)


def usual_charge_pa(figures: W, cut_in_pa: float) -> float | None:
    """The pre-charge by the practice for a usual cut-in (Pa gauge); a plain tank keeps its air.

    Args:
        figures: The system's figures under its settings.
        cut_in_pa: The usual cut-in, Pa gauge.

    Returns:
        Pressure, Pa gauge; None where it cannot be told.
    """
    if figures.system.plain:
        return figures.settings.pre_charge_gauge_pa
    offset = figures.pre_charge_way.offset_pa(figures.budget)
    there = cut_in_pa - figures.tank_head_pa
    return max(there - (2 * PSI if offset is None else offset), 0.0)


def keeps(figures: W, kept: bool, floor: str) -> str:
    """What the highest tap gets, as a template; `floor` is the cut-in that is not lowered, in
    words.

    Args:
        figures: The system's figures under its settings.
        kept: Whether the wanted pressure is kept.
        floor: The cut-in that is not lowered, in words.

    Returns:
        The text, a template; empty for nothing.
    """
    if figures.least_cut_in_pa is None:
        if kept:
            return f"Cut-in stays at {floor} or above, since the highest tap is not known."
        return (
            "Cut-in is lowered for a limit. The highest tap is not known: measure its height and"
            " see that it gets enough."
        )
    said = f"At the highest tap {W.tap_pa} before a start; {W.wanted_tap_pa} is wanted."
    return said if kept else f"{said} No setting within the limits keeps it."


def aired(figures: W) -> str:
    """What draining a plain tank and letting it take air gives back, as a template.

    Args:
        figures: The system's figures under its settings.

    Returns:
        The text, a template; empty for nothing.
    """
    return (
        "Drain the tank and let it take air first: that gives back the drawdown it lost, to"
        f" {W.drawdown_m3}."
    )
