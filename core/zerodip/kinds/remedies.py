"""Remedies as data: what is changed on a system and what that costs. Whether one helps is found by
applying it (`zerodip.kinds.trials`), never written beside a rule."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from enum import IntEnum
from typing import Any, Generic, TypeVar

from zerodip.kinds.figures import Figures
from zerodip.kinds.key_presses import down
from zerodip.kinds.limits import LimitSpec, lowest_limit
from zerodip.kinds.parts import Relief, System
from zerodip.kinds.settings import Settings
from zerodip.units import PSI, as_written, band, text

__all__ = [
    "Cost",
    "Remedy",
    "earthed",
    "lowered",
    "nuts",
    "other_switch",
    "put_in",
    "relieved",
    "steps_down",
]

S = TypeVar("S", bound=System)
_LEAST_VALVE_PA = 30e3
_NARROW_PA = 10 * PSI  # the least differential that is told where the switch says nothing


class Cost(IntEnum):
    """What a remedy costs, cheapest first: air; nuts to turn; how the system is used; a part; a
    tank, receiver or pump; a person with a licence."""

    AIR = 1
    NUTS = 2
    USE = 3
    PART = 4
    SIZE = 5
    PERSON = 6


@dataclass(frozen=True, kw_only=True)
class Remedy(Generic[S]):
    """One change. `does` tells it as it is to be done, rounded as told; `system` and `settings` are
    those after it. `effort` orders remedies of equal cost. `of` are the rules that it belongs to;
    none: any."""

    cost: Cost
    does: str
    system: S
    settings: Settings
    effort: float = 0.0
    of: frozenset[str] = frozenset()


def nuts(
    figures: Figures, settings: Iterable[Settings], units: str, aired: str = ""
) -> Iterator[Remedy[Any]]:
    """The switch set elsewhere, with the pre-charge that goes with it.

    Args:
        figures: The system's figures under its settings.
        settings: Settings worth trying.
        units: Unit system of the texts: "us", "metric" or "kpa".
        aired: What is done first where the air is renewed.

    Yields:
        A remedy for each that turns a nut.
    """
    now = figures.settings
    for to in dict.fromkeys(_as_written(each, units) for each in settings):
        moved = abs(to.cut_in_gauge_pa - now.cut_in_gauge_pa) + abs(
            to.cut_out_gauge_pa - now.cut_out_gauge_pa
        )
        if moved < 1.0:
            continue
        said = f"Set the switch to {band(to.cut_in_gauge_pa, to.cut_out_gauge_pa, units)}"
        air = abs((to.pre_charge_gauge_pa or 0.0) - (now.pre_charge_gauge_pa or 0.0))
        if air >= 1.0:
            said += f", pre-charge {text(to.pre_charge_gauge_pa, 'pressure', units)}"
        if to.air_renewed and not now.air_renewed:
            said += f"; {aired}"
        yield Remedy(
            cost=Cost.NUTS, does=said, system=figures.system, settings=to, effort=moved + air / 10
        )


def _as_written(settings: Settings, units: str) -> Settings:
    """Settings as they are told, to the digit."""
    low, high, air = (
        None if pa is None else as_written(pa, "pressure", units)
        for pa in (
            settings.cut_in_gauge_pa,
            settings.cut_out_gauge_pa,
            settings.pre_charge_gauge_pa,
        )
    )
    if low is None or high is None or low >= high:
        return settings
    return replace(settings, cut_in_gauge_pa=low, cut_out_gauge_pa=high, pre_charge_gauge_pa=air)


def lowered(
    figures: Figures,
    limits: Iterable[LimitSpec],
    units: str,
    charge_pa: Callable[[float], float | None],
) -> Iterator[Settings]:
    """Cut-out as high as every limit lets it be: cut-in as it is where a differential is left, and
    both points with the differential as it is.

    Args:
        figures: The system's figures under its settings.
        limits: The kind's limits.
        units: Whole steps of the pressure unit of this unit system.
        charge_pa: The pre-charge that goes with a cut-in, Pa gauge; None where there is none.

    Yields:
        Settings worth trying.
    """
    limit = lowest_limit(limits, figures)
    if limit is None or limit >= figures.cut_out_pa:
        return
    top, now = down(limit, units), figures.settings
    narrowest = max(figures.least_differential_pa or 0.0, _NARROW_PA)
    for cut_in in (figures.cut_in_pa, top - figures.differential_pa):
        if 1 * PSI <= cut_in <= top - narrowest + 1.0:
            same = cut_in == figures.cut_in_pa
            yield replace(
                now,
                cut_in_gauge_pa=cut_in,
                cut_out_gauge_pa=top,
                pre_charge_gauge_pa=now.pre_charge_gauge_pa if same else charge_pa(cut_in),
            )


def put_in(
    system: S,
    have_m3: float,
    volumes_m3: Iterable[float],
    resized: Callable[[S, float, bool], S | None],
) -> Iterator[tuple[float, bool, S]]:
    """One more tank or receiver of each volume, and one in place of what is there where that is
    larger.

    Args:
        system: Everything read off the system.
        have_m3: What is there, m³.
        volumes_m3: Volumes that are sold, m³.
        resized: The system with a volume in place of its own, or beside it; None where none fits.

    Yields:
        Volume (m³), whether it stands beside what is there, and the system with it.
    """
    for volume in volumes_m3:
        for beside in (True, False):
            made = resized(system, volume, beside) if beside or volume > have_m3 else None
            if made is not None:
                yield volume, beside, made


def steps_down(value: float, step: float, shares: Iterable[float]) -> Iterator[float]:
    """A value less and less, in whole steps.

    Args:
        value: The value, above 0.
        step: One step, above 0.
        shares: Shares of it.

    Yields:
        Values above 0, each once.
    """
    least = dict.fromkeys(int(value * share / step + 1e-6) for share in shares)
    yield from (count * step for count in least if 0 < count * step < value)


def earthed(system: S, settings: Settings) -> Iterator[Remedy[S]]:
    """An earth wire at the switch.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.

    Yields:
        The remedy, where it is missing.
    """
    if system.switch.earth_present is False:
        switch = replace(system.switch, earth_present=True)
        yield Remedy(
            cost=Cost.PERSON,
            does="Have a licensed person fit an earth wire",
            system=replace(system, switch=switch),
            settings=settings,
            of=frozenset({"earth"}),
        )


def other_switch(system: S, settings: Settings, units: str) -> Iterator[Remedy[S]]:
    """A switch whose range holds the points as they are set.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        The remedy.
    """
    low, high = settings.cut_in_gauge_pa, settings.cut_out_gauge_pa
    switch = replace(
        system.switch,
        least_cut_in_gauge_pa=0.5 * low,
        most_cut_out_gauge_pa=1.2 * high,
        least_differential_pa=0.5 * (high - low),
        most_differential_pa=high - low,
    )
    yield Remedy(
        cost=Cost.PART,
        does=f"Fit a switch whose range holds {band(low, high, units)}",
        system=replace(system, switch=switch),
        settings=settings,
        of=frozenset(
            {"switch-range-low", "switch-range-high", "differential-least", "differential-most"}
        ),
    )


def relieved(
    system: S,
    settings: Settings,
    most_pa: float | None,
    valve: str,
    of: Iterable[str],
    units: str,
) -> Iterator[Remedy[S]]:
    """A relief or safety valve set no higher than what it guards is made for.

    Args:
        system: Everything read off the system; has a `relief`.
        settings: What the technician sets.
        most_pa: The lowest maximum on the plates, Pa gauge; None while one is missing.
        valve: What the valve is called.
        of: The rules that it belongs to.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        The remedy; nothing while a plate is missing.
    """
    if most_pa is None:
        return
    setting = down(most_pa, units)
    if setting < _LEAST_VALVE_PA:
        return
    made: Any = system
    yield Remedy(
        cost=Cost.PART,
        does=f"Have a {valve} fitted, set to {text(setting, 'pressure', units)} at most",
        system=replace(made, relief=Relief(present=True, setting_gauge_pa=setting)),
        settings=settings,
        of=frozenset(of),
    )
