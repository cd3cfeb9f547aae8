"""Demand pumps without a tank, on 12 or 24 V."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, part, parts, quantity, words
from zerodip.kinds.parts import Switch, System
from zerodip.physics.demand_pump import intercept_v

__all__ = ["Accumulator", "Battery", "DemandPump", "Outlet", "PressurePoint", "TanklessSystem"]

TANKLESS = "tankless"


@dataclass(frozen=True, kw_only=True)
class PressurePoint(Checked):
    """One point of the pump's curve at its nominal voltage: flow and gauge pressure."""

    flow_m3_s: float = quantity("Flow", "flow", 0, 0.01)
    gauge_pa: float = quantity("Pressure", "pressure", 0, 2e6)


@dataclass(frozen=True, kw_only=True)
class DemandPump(Checked):
    """The pump, by its curve at the nominal voltage, from dead-head (zero flow) on; pressures fall
    as flows rise. How it follows the voltage: a diaphragm pump in step with it, less an intercept,
    which is entered or follows from the dead-head measured at a second voltage; a centrifugal one
    with its square."""

    works: str = choice("Works as", ("diaphragm", "centrifugal"), default="diaphragm")
    intercept_v: float | None = quantity("Voltage to turn it over", "voltage", 0, 12, default=None)
    second_v: float | None = quantity("A second voltage", "voltage", 5, 60, default=None)
    second_dead_head_gauge_pa: float | None = quantity(
        "Dead-head at it, measured", "pressure", 10e3, 2e6, default=None
    )
    nominal_v: float = quantity("Nominal voltage", "voltage", 5, 60, default=12.0)
    points: tuple[PressurePoint, ...] = parts("Pump curve", PressurePoint, 2, 20)
    power_w: float | None = quantity("Motor power", "power", 5, 5e3, default=None)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        yield from _second_faults(values)
        points = values.get("points", ())
        if points and points[0].flow_m3_s != 0:
            yield Fault(
                path="points.0.flow_m3_s",
                code="order",
                title="The first point's flow",
                says="must be 0: its pressure is the dead-head.",
            )
        for at in range(1, len(points)):
            before, point = points[at - 1], points[at]
            if point.flow_m3_s <= before.flow_m3_s:
                yield Fault(
                    path=f"points.{at}.flow_m3_s",
                    code="order",
                    title=f"Flow of point {at + 1}",
                    says="must be more than the point before it.",
                )
            if point.gauge_pa >= before.gauge_pa:
                yield Fault(
                    path=f"points.{at}.gauge_pa",
                    code="order",
                    title=f"Pressure of point {at + 1}",
                    says="must be less than the point before it: pressure falls as flow rises.",
                )


def _second_faults(values: Mapping[str, Any]) -> Iterable[Fault]:
    """A second point is whole, and lies on a line that rises with the voltage and meets nothing
    between no voltage and the lower of both."""
    volts, gauge = values.get("second_v"), values.get("second_dead_head_gauge_pa")
    nominal, points = values.get("nominal_v", 12.0), values.get("points", ())
    if (volts is None) != (gauge is None):
        missing = "second_v" if volts is None else "second_dead_head_gauge_pa"
        says = "belongs with the dead-head and its voltage: enter both or neither."
        yield Fault(path=missing, code="incomplete", title="The second point", says=says)
    elif volts is not None and gauge is not None and points:
        dead_head = points[0].gauge_pa
        rising = (gauge - dead_head) * (volts - nominal) > 0
        if not rising or not 0 <= intercept_v(nominal, dead_head, volts, gauge) < min(
            volts, nominal
        ):
            yield Fault(
                path="second_dead_head_gauge_pa",
                code="order",
                title="Dead-head at the second voltage",
                says="must rise with the voltage, in step with it or faster.",
            )
    if (values.get("intercept_v") or 0.0) >= nominal:
        yield Fault(
            path="intercept_v",
            code="order",
            title="Voltage to turn it over",
            says="must lie below the nominal voltage.",
        )


@dataclass(frozen=True, kw_only=True)
class Battery(Checked):
    """Voltage at the pump: the lowest that still counts as charged, the highest on the charger or
    shore power."""

    least_v: float = quantity("Lowest voltage", "voltage", 5, 60)
    most_v: float = quantity("Highest voltage", "voltage", 5, 60)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        least, most = values.get("least_v"), values.get("most_v")
        if least is not None and most is not None and least > most:
            yield Fault(
                path="least_v",
                code="order",
                title="Lowest voltage",
                says="must not lie above the highest.",
            )


@dataclass(frozen=True, kw_only=True)
class Outlet(Checked):
    """A tap or shower that is normally used, by its flow at one pressure; it passes K·√p."""

    name: str = words("Outlet", 40)
    flow_m3_s: float = quantity("Flow", "flow", 1e-7, 0.01)
    gauge_pa: float = quantity("at a gauge pressure of", "pressure", 5e3, 2e6)


@dataclass(frozen=True, kw_only=True)
class Accumulator(Checked):
    """A very small tank after the pump; its pre-charge is a setting."""

    volume_m3: float = quantity("Accumulator volume", "volume", 0.00005, 0.1)
    max_gauge_pa: float | None = quantity(
        "Accumulator maximum pressure", "pressure", 30e3, 4e6, default=None
    )


@dataclass(frozen=True, kw_only=True)
class TanklessSystem(System):
    """Everything read off one tankless demand pump. The smallest of the outlets decides."""

    kind: str = choice("Kind of system", (TANKLESS,))
    pump: DemandPump = part("Pump", DemandPump)
    battery: Battery = part("Voltage", Battery)
    outlets: tuple[Outlet, ...] = parts("Outlets", Outlet, 1, 12)
    accumulator: Accumulator | None = part("Accumulator", Accumulator, default=None)
    switch: Switch = part("Switch", Switch, default=Switch(nuts="one"))

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        pump, battery = values.get("pump"), values.get("battery")
        if pump and battery and not battery.least_v / 1.5 <= pump.nominal_v <= battery.most_v * 1.5:
            yield Fault(
                path="pump.nominal_v",
                code="order",
                title="Nominal voltage",
                says="does not go with the lowest and highest voltage: more than half apart.",
            )
