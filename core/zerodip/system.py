"""The things that are read off a site: tanks, pump, switch, relief, demand; the settings; the practice followed.

All pressures are gauge unless the name says `abs`; all numbers SI. Ranges are what a small water system can be at all,
wide enough never to refuse a true reading; what is *advisable* is the rules' business (`zerodip.rulebook`).
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

from .errors import Fault
from .fields import Checked, choice, flag, part, parts, quantity, variants, words
from .units import PSI

__all__ = [
    "ConstantFlow", "CurvePoint", "Demand", "DropPipe", "Found", "HeadCurve", "Practice", "Pump", "RatedPoint",
    "Relief", "Settings", "Site", "Switch", "System", "Tank",
]  # fmt: skip

GAUGE_MOST = 300 * PSI


@dataclass(frozen=True, kw_only=True)
class Site(Checked):
    """Where the gauge stands. Altitude range is that of the troposphere formula (`zerodip.atmosphere`)."""

    altitude_m: float = quantity("Altitude", "length", -500, 9000, default=0.0)


@dataclass(frozen=True, kw_only=True)
class Tank(Checked):
    """One bladder or diaphragm tank, off its plate. `acceptance_m3` is the most water its bladder may take.
    `pre_charge_gauge_pa` is given only where this tank's pre-charge differs from the setting (lost air, say)."""

    volume_m3: float = quantity("Tank volume", "volume", 0.0005, 20.0)
    max_gauge_pa: float | None = quantity("Tank maximum pressure", "pressure", 30e3, 4e6, default=None)
    acceptance_m3: float | None = quantity("Bladder acceptance", "volume", 0.0001, 20.0, default=None)
    pre_charge_gauge_pa: float | None = quantity("This tank's own pre-charge", "pressure", 0, GAUGE_MOST, default=None)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        volume, acceptance = values.get("volume_m3"), values.get("acceptance_m3")
        if volume and acceptance and acceptance > volume:
            yield Fault(path="acceptance_m3", code="order", title="Bladder acceptance", says="is more than the tank.")


@dataclass(frozen=True, kw_only=True)
class DropPipe(Checked):
    """The pipe from pump to gauge, for its friction. `c_factor` is Hazen–Williams' (plastic about 150, old steel 100)."""

    length_m: float = quantity("Drop pipe length", "length", 0, 1000)
    diameter_m: float = quantity("Drop pipe inside diameter", "diameter", 0.008, 0.3)
    c_factor: float = quantity("Hazen–Williams C", "number", 60, 160, default=140.0)


@dataclass(frozen=True, kw_only=True)
class CurvePoint(Checked):
    """One point of a pump's published curve: flow and total head."""

    flow_m3_s: float = quantity("Flow", "flow", 0, 0.1)
    head_m: float = quantity("Head", "length", 0, 1000)


@dataclass(frozen=True, kw_only=True)
class _Motor(Checked):
    power_w: float | None = quantity("Motor power", "power", 30, 50e3, default=None)
    start_lag_s: float = quantity("Start lag", "duration", 0, 60, default=1.5)


@dataclass(frozen=True, kw_only=True)
class ConstantFlow(_Motor):
    """A pump known by one flow only (a bucket and a watch). Its dead-head is known only if it was measured."""

    tag: ClassVar = ("model", "constant")
    flow_m3_s: float = quantity("Pump flow", "flow", 1e-6, 0.1)
    dead_head_gauge_pa: float | None = quantity("Dead-head, measured", "pressure", 10e3, 4e6, default=None)


@dataclass(frozen=True, kw_only=True)
class RatedPoint(_Motor):
    """A pump known by one flow at one gauge pressure (most plates). `lift_m` is from water level up to the gauge."""

    tag: ClassVar = ("model", "rated_point")
    flow_m3_s: float = quantity("Pump flow", "flow", 1e-6, 0.1)
    gauge_pa: float = quantity("at a gauge pressure of", "pressure", 10e3, GAUGE_MOST)
    lift_m: float = quantity("Lift, water to gauge", "length", -50, 600, default=0.0)
    dead_head_gauge_pa: float | None = quantity("Dead-head, measured", "pressure", 10e3, 4e6, default=None)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        dead_head, gauge = values.get("dead_head_gauge_pa"), values.get("gauge_pa")
        if dead_head and gauge and dead_head <= gauge:
            yield Fault(path="dead_head_gauge_pa", code="order", title="Dead-head",
                        says="must lie above the pressure of the rated point.")  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class HeadCurve(_Motor):
    """A pump known by its curve, from shut-off (zero flow) on; heads must fall as flows rise."""

    tag: ClassVar = ("model", "curve")
    points: tuple[CurvePoint, ...] = parts("Pump curve", CurvePoint, 2, 30)
    lift_m: float = quantity("Lift, water to gauge", "length", -50, 600, default=0.0)
    inlet_gauge_pa: float = quantity("Inlet pressure", "pressure", -90e3, 2e6, default=0.0)
    drop_pipe: DropPipe | None = part("Drop pipe", DropPipe, default=None)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        points = values.get("points", ())
        if points and points[0].flow_m3_s != 0:
            yield Fault(path="points.0.flow_m3_s", code="order", title="The first point's flow",
                        says="must be 0: its head is the shut-off head.")  # fmt: skip
        for at in range(1, len(points)):
            yield from _falls(points[at - 1], points[at], at)


def _falls(before: CurvePoint, point: CurvePoint, at: int) -> Iterable[Fault]:
    if point.flow_m3_s <= before.flow_m3_s:
        yield Fault(path=f"points.{at}.flow_m3_s", code="order", title=f"Flow of point {at + 1}",
                    says="must be more than the point before it.")  # fmt: skip
    if point.head_m >= before.head_m:
        yield Fault(path=f"points.{at}.head_m", code="order", title=f"Head of point {at + 1}",
                    says="must be less than the point before it: head falls as flow rises.")  # fmt: skip


Pump = ConstantFlow | RatedPoint | HeadCurve
PUMPS = {"constant": ConstantFlow, "rated_point": RatedPoint, "curve": HeadCurve}


@dataclass(frozen=True, kw_only=True)
class Switch(Checked):
    """The pressure switch: how it is adjusted, and whether it trips for good at low pressure."""

    nuts: str = choice("Adjusting nuts", ("two", "one"), default="two")
    low_pressure_cut_off: bool | None = flag("Low-pressure cut-off")
    trip_below_cut_in_pa: float = quantity("Trip below cut-in", "pressure", 10e3, 300e3, default=10 * PSI)
    earth_present: bool | None = flag("Earth wire at the switch")


@dataclass(frozen=True, kw_only=True)
class Relief(Checked):
    """The relief valve: seen or not, and what it is set to."""

    present: bool | None = flag("Relief valve seen")
    setting_gauge_pa: float | None = quantity("Relief setting", "pressure", 30e3, 4e6, default=None)


@dataclass(frozen=True, kw_only=True)
class Demand(Checked):
    """What the house asks for. `lowest_tap_m` is that of the lowest fixture against the gauge, below it negative."""

    peak_draw_m3_s: float | None = quantity("Peak draw", "flow", 1e-6, 0.1, default=None)
    daily_m3: float | None = quantity("Water used in a day", "volume", 0.001, 2000, default=None)
    lowest_tap_m: float = quantity("Lowest tap above the gauge", "length", -100, 100, default=0.0)
    pressure_reducer: bool | None = flag("Pressure-reducing valve after the tank")


@dataclass(frozen=True, kw_only=True)
class Found(Checked):
    """What was found before anything was changed, and the pre-charge left at the last visit."""

    pre_charge_gauge_pa: float | None = quantity("Pre-charge found, drained", "pressure", 0, GAUGE_MOST, default=None)
    last_pre_charge_gauge_pa: float | None = quantity(
        "Pre-charge left last time", "pressure", 0, GAUGE_MOST, default=None
    )
    last_years_ago: float | None = quantity("Years since then", "years", 0.02, 60, default=None)


@dataclass(frozen=True, kw_only=True)
class System(Checked):
    """Everything read off one system. `kind` is what the rules go by."""

    kind: str = choice("Kind of system", ("well_bladder",))
    name: str = words("Name", 80)
    site: Site = part("Site", Site, default=Site())
    tanks: tuple[Tank, ...] = parts("Tanks", Tank, 1, 12)
    pump: Pump = part("Pump", variants("model", PUMPS))
    switch: Switch = part("Switch", Switch, default=Switch())
    relief: Relief = part("Relief valve", Relief, default=Relief())
    demand: Demand = part("Demand", Demand, default=Demand())
    found: Found = part("As found", Found, default=Found())


@dataclass(frozen=True, kw_only=True)
class Settings(Checked):
    """What the technician sets. The pre-charge is that of the drained tank, power off."""

    cut_in_gauge_pa: float = quantity("Cut-in", "pressure", 5 * PSI, 250 * PSI)
    cut_out_gauge_pa: float = quantity("Cut-out", "pressure", 6 * PSI, GAUGE_MOST)
    pre_charge_gauge_pa: float = quantity("Pre-charge", "pressure", 0, GAUGE_MOST)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        cut_in, cut_out = values.get("cut_in_gauge_pa"), values.get("cut_out_gauge_pa")
        if cut_in is not None and cut_out is not None and cut_in >= cut_out:
            yield Fault(path="cut_in_gauge_pa", code="order", title="Cut-in", says="must lie below cut-out.")


@dataclass(frozen=True, kw_only=True)
class Practice(Checked):
    """The school followed where practitioners differ, and what its sums assume."""

    pre_charge_school: str = choice(
        "Pre-charge school",
        ("two_below", "two_to_three_below", "five_below", "computed"),
        default="two_below",
    )
    run_time_school: str = choice("Run-time school", ("minute", "half_minute", "by_power"), default="minute")
    gas_exponent: float = quantity("Gas exponent (1 slow, 1.4 fast)", "number", 1.0, 1.4, default=1.0)
    gauge_error_pa: float = quantity("Gauge error", "pressure", 0, 35e3, default=1 * PSI)
    loss_per_year_pa: float = quantity("Air lost in a year", "pressure", 0, 140e3, default=1.5 * PSI)
    check_interval_years: float = quantity("Years between checks", "years", 0.1, 20, default=1.0)
    warming_k: float = quantity("Warming after setting", "temperature_step", 0, 60, default=11.0)
