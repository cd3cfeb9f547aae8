"""What the technician sets, and the practice followed in judging it."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, flag, quantity, words
from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.units import PSI

__all__ = ["Practice", "Settings"]


@dataclass(frozen=True, kw_only=True)
class Settings(Checked):
    """What the technician sets. The pre-charge is that of the drained tank, power off; for an
    air-over-water tank the air it is started with, 0 for plain atmospheric air. `air_renewed` tells
    that such a tank is drained and takes air anew."""

    cut_in_gauge_pa: float = quantity("Cut-in", "pressure", 1 * PSI, 250 * PSI)
    cut_out_gauge_pa: float = quantity("Cut-out", "pressure", 2 * PSI, MOST_GAUGE_PA)
    pre_charge_gauge_pa: float | None = quantity(
        "Pre-charge", "pressure", 0, MOST_GAUGE_PA, default=None
    )
    air_renewed: bool | None = flag("Drained and re-aired")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        cut_in, cut_out = values.get("cut_in_gauge_pa"), values.get("cut_out_gauge_pa")
        if cut_in is not None and cut_out is not None and cut_in >= cut_out:
            yield Fault(
                path="cut_in_gauge_pa", code="order", title="Cut-in", says="must lie below cut-out."
            )


@dataclass(frozen=True, kw_only=True)
class Practice(Checked):
    """The ways followed where practitioners differ, why, and what its sums assume. `follows` tells
    whether it is the workspace's practice or this system's own."""

    follows: str = choice("Practice", ("own", "workspace"), default="own")
    reason: str = words("Reason", 200, default="")
    pre_charge_school: str = choice(
        "Way of pre-charging",
        ("two_below", "two_to_three_below", "five_below", "computed"),
        default="two_below",
    )
    run_time_school: str = choice(
        "Shortest run", ("minute", "half_minute", "by_power"), default="minute"
    )
    differential_school: str = choice("Differential", ("keep", "leave", "widen"), default="keep")
    check_school: str = choice(
        "Check interval", ("half_year", "yearly", "five_years", "measured"), default="yearly"
    )
    cut_off_school: str = choice(
        "Low-pressure cut-off", ("either", "fit", "avoid"), default="either"
    )
    gas_exponent: float = quantity(
        "Gas exponent (1 slow, 1.4 fast)", "number", 1.0, 1.4, default=1.0
    )
    gauge_error_pa: float = quantity("Gauge error", "pressure", 0, 35e3, default=1 * PSI)
    loss_per_year_pa: float = quantity(
        "Air lost in a year", "pressure", 0, 140e3, default=1.5 * PSI
    )
    warming_k: float = quantity("Warming after setting", "temperature_step", 0, 60, default=11.0)
