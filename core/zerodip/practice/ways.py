"""The ways of setting pre-charge, run time, differential and check interval, where practitioners
differ.

A way of pre-charging answers one question: how far below cut-in the drained tank's air is set.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Protocol, TypeVar

from zerodip.physics.motors import ONE_HP_W
from zerodip.rules.sources import GAS_LAW, PRACTICE, Source
from zerodip.units import PSI, text

__all__ = [
    "CHECK_WAYS",
    "CUT_OFF_TITLES",
    "DIFFERENTIAL_WAYS",
    "PRE_CHARGE_WAYS",
    "RUN_TIME_WAYS",
    "Budget",
    "CheckWay",
    "DifferentialWay",
    "PreChargeWay",
    "RunTimeWay",
    "budget",
    "way_of",
    "way_titles",
]

CUT_OFF_TITLES = {"either": "Either way", "fit": "Fit it", "avoid": "Avoid it"}
SETTING_TEMPERATURE_K = 283.15  # about 10 °C, a cellar or a pit on the day of setting


class _Named(Protocol):
    @property
    def id(self) -> str: ...


W = TypeVar("W", bound=_Named)


def way_of(ways: Iterable[W], id: str) -> W:
    """The way of that id. Raises KeyError where there is none."""
    found = next((way for way in ways if way.id == id), None)
    if found is None:
        raise KeyError(id)
    return found


@dataclass(frozen=True, kw_only=True)
class Budget:
    """What the offset below cut-in has to cover, Pa each. `lost_pa` is shown but not counted: air
    lost until the next check lowers the pre-charge, which widens the offset and costs drawdown, not
    safety from the dip."""

    dip_pa: float | None
    gauge_pa: float
    warming_pa: float
    lost_pa: float

    @property
    def total_pa(self) -> float | None:
        """The offset to set below cut-in, Pa; None while the start dip cannot be told."""
        return None if self.dip_pa is None else self.dip_pa + self.gauge_pa + self.warming_pa


def budget(
    *,
    cut_in_abs_pa: float,
    largest_abs_pa: float | None,
    gauge_error_pa: float,
    warming_k: float,
    loss_per_year_pa: float,
    years: float,
) -> Budget:
    """The sum of the computed way. `largest_abs_pa` is the largest pre-charge without a dip (None:
    cannot tell). Warming is that of a closed charge of air from about 10 °C: Δp = p·ΔT/T, so 11 K
    eats about 2 psi at a 40 psi cut-in. Source: the gas law; the items are common practice."""
    return Budget(
        dip_pa=None if largest_abs_pa is None else cut_in_abs_pa - largest_abs_pa,
        gauge_pa=gauge_error_pa,
        warming_pa=cut_in_abs_pa
        * (1 - SETTING_TEMPERATURE_K / (SETTING_TEMPERATURE_K + warming_k)),
        lost_pa=loss_per_year_pa * years,
    )


@dataclass(frozen=True, kw_only=True)
class PreChargeWay:
    """How far below cut-in, from the budget (Pa; None: cannot tell), and how near to it counts as
    kept. `title` tells it in a unit system."""

    id: str
    title: Callable[[str], str]
    reason: str
    offset_pa: Callable[[Budget], float | None]
    tolerance_pa: float = PSI
    source: Source = PRACTICE


PRE_CHARGE_WAYS = (
    PreChargeWay(
        id="two_below",
        title=lambda units: f"{text(2 * PSI, 'pressure', units)} below cut-in",
        reason="The usual rule: it covers the start of an ordinary tank.",
        offset_pa=lambda budget: 2 * PSI,
    ),
    PreChargeWay(
        id="two_to_three_below",
        title=lambda units: (
            f"{text(2 * PSI, 'pressure', units)} to {text(3 * PSI, 'pressure', units)} below cut-in"
        ),
        reason="The same with a little more for the gauge.",
        offset_pa=lambda budget: 2.5 * PSI,
    ),
    PreChargeWay(
        id="five_below",
        title=lambda units: f"{text(5 * PSI, 'pressure', units)} below cut-in",
        reason="For a switch with a low-pressure cut-off, so that a start never trips it.",
        offset_pa=lambda budget: 5 * PSI,
    ),
    PreChargeWay(
        id="computed",
        title=lambda units: "Computed from draw, start lag and tank",
        reason="Adds up what the offset has to cover: the start dip, the gauge, warming.",
        offset_pa=lambda budget: budget.total_pa,
        source=GAS_LAW,
    ),
)


@dataclass(frozen=True, kw_only=True)
class RunTimeWay:
    """The shortest run wanted (s), by motor power (W, None if not known)."""

    id: str
    title: str
    reason: str
    wanted_s: Callable[[float | None], float]


RUN_TIME_WAYS = (
    RunTimeWay(
        id="minute",
        title="A minute or more",
        reason="A motor sheds the heat of a start in about a minute of running.",
        wanted_s=lambda power: 60.0,
    ),
    RunTimeWay(
        id="half_minute",
        title="Half a minute is tolerable",
        reason="Small motors bear it; under half a minute is short cycling for all.",
        wanted_s=lambda power: 30.0,
    ),
    RunTimeWay(
        id="by_power",
        title="A minute, two from 1 hp up",
        reason="Bigger motors heat more at each start.",
        wanted_s=lambda power: 120.0 if power is not None and power >= ONE_HP_W * 0.999 else 60.0,
    ),
)


@dataclass(frozen=True, kw_only=True)
class CheckWay:
    """Years to the next check of the pre-charge, from the measured loss (Pa a year, None if there
    is no history)."""

    id: str
    title: str
    years: Callable[[float | None], float]


def _from_loss(loss_pa_per_year: float | None) -> float:
    """Until 2 psi are lost, between a quarter and five years; a year without history."""
    if loss_pa_per_year is None:
        return 1.0
    return min(max(2 * PSI / max(loss_pa_per_year, 1.0), 0.25), 5.0)


CHECK_WAYS = (
    CheckWay(id="half_year", title="Every half year", years=lambda loss: 0.5),
    CheckWay(id="yearly", title="Every year", years=lambda loss: 1.0),
    CheckWay(id="five_years", title="Every five years", years=lambda loss: 5.0),
    CheckWay(id="measured", title="From the measured loss", years=_from_loss),
)


@dataclass(frozen=True, kw_only=True)
class DifferentialWay:
    """The differentials (Pa) worth proposing, from the one that is set now."""

    id: str
    title: Callable[[str], str]
    reason: str
    offers_pa: Callable[[float], tuple[float, ...]]


DIFFERENTIAL_WAYS = (
    DifferentialWay(
        id="keep",
        title=lambda units: f"Keep the usual {text(20 * PSI, 'pressure', units)}",
        reason="What tanks, bladders and tables are made for.",
        offers_pa=lambda now: (20 * PSI,),
    ),
    DifferentialWay(
        id="leave",
        title=lambda units: "Leave that nut alone",
        reason="Only the range nut is turned; both points move together.",
        offers_pa=lambda now: (now,),
    ),
    DifferentialWay(
        id="widen",
        title=lambda units: "Widen it",
        reason="Longer runs, at the price of bladder stretch and of a swing felt at the tap.",
        offers_pa=lambda now: (20 * PSI, 25 * PSI, 30 * PSI),
    ),
)


def way_titles(units: str) -> dict[str, dict[str, str]]:
    """What each option of a practice is called, in a unit system, by field and option."""
    return {
        "pre_charge_school": {way.id: way.title(units) for way in PRE_CHARGE_WAYS},
        "run_time_school": {way.id: way.title for way in RUN_TIME_WAYS},
        "differential_school": {way.id: way.title(units) for way in DIFFERENTIAL_WAYS},
        "check_school": {way.id: way.title for way in CHECK_WAYS},
        "cut_off_school": dict(CUT_OFF_TITLES),
    }
