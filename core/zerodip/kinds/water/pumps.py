"""Water pumps, by what is known of them: one flow, one rated point, or a curve."""

from abc import abstractmethod
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, part, parts, quantity
from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.kinds.parts import Pipe
from zerodip.physics.pump_delivery import (
    Delivery,
    PumpCurve,
    constant_delivery,
    curve_delivery,
    rated_delivery,
)

__all__ = ["PUMPS", "ConstantFlow", "CurvePoint", "HeadCurve", "Pump", "RatedPoint"]


@dataclass(frozen=True, kw_only=True)
class CurvePoint(Checked):
    """One point of a pump's published curve: flow and total head."""

    flow_m3_s: float = quantity("Flow", "flow", 0, 0.1)
    head_m: float = quantity("Head", "length", 0, 1000)


@dataclass(frozen=True, kw_only=True)
class _Motor(Checked):
    motor: str = choice("Motor", ("submersible", "surface"), default="submersible")
    power_w: float | None = quantity("Motor power", "power", 30, 50e3, default=None)
    start_lag_s: float = quantity("Start lag", "duration", 0, 60, default=1.5)
    ramp_s: float = quantity("Delivery ramps up over", "duration", 0, 60, default=1.0)
    max_gauge_pa: float | None = quantity(
        "Pump's maximum pressure", "pressure", 30e3, 4e6, default=None
    )

    @property
    def usual_inlet_gauge_pa(self) -> float:
        """The inlet pressure that its line was made with, Pa gauge; 0 where it has none."""
        return 0.0

    @abstractmethod
    def delivery(self) -> Delivery:
        """What it delivers against gauge pressure."""


@dataclass(frozen=True, kw_only=True)
class _Lifting(_Motor):
    """A pump whose heads are counted from its water level; `lift_m` is from there up to the
    gauge."""

    lift_m: float = quantity("Lift, water to gauge", "length", -50, 600, default=0.0)
    inlet_gauge_pa: float = quantity(
        "Inlet pressure, comes on top", "pressure", -90e3, 2e6, default=0.0
    )

    @property
    def usual_inlet_gauge_pa(self) -> float:
        """The inlet pressure that its line was made with, Pa gauge."""
        return self.inlet_gauge_pa


@dataclass(frozen=True, kw_only=True)
class ConstantFlow(_Motor):
    """A pump known by one flow only (a bucket and a watch). Its dead-head is known only if it was
    measured."""

    tag: ClassVar = ("model", "constant")
    flow_m3_s: float = quantity("Pump flow", "flow", 1e-6, 0.1)
    dead_head_gauge_pa: float | None = quantity(
        "Dead-head, measured", "pressure", 10e3, 4e6, default=None
    )

    def delivery(self) -> Delivery:
        """The same flow at any pressure."""
        return constant_delivery(self.flow_m3_s, self.dead_head_gauge_pa)


@dataclass(frozen=True, kw_only=True)
class RatedPoint(_Lifting):
    """A pump known by one flow at one gauge pressure (most plates). The rated pressure is without
    the inlet's, the dead-head as measured with it."""

    tag: ClassVar = ("model", "rated_point")
    flow_m3_s: float = quantity("Pump flow", "flow", 1e-6, 0.1)
    gauge_pa: float = quantity("at a gauge pressure of", "pressure", 10e3, MOST_GAUGE_PA)
    dead_head_gauge_pa: float | None = quantity(
        "Dead-head, measured", "pressure", 10e3, 4e6, default=None
    )

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        dead_head, gauge = values.get("dead_head_gauge_pa"), values.get("gauge_pa")
        if dead_head and gauge and dead_head <= gauge + values.get("inlet_gauge_pa", 0.0):
            yield Fault(
                path="dead_head_gauge_pa",
                code="order",
                title="Dead-head",
                says="must lie above the pressure of the rated point, inlet and all.",
            )

    def delivery(self) -> Delivery:
        """A parabola through the rated point."""
        return rated_delivery(
            self.flow_m3_s, self.gauge_pa, self.lift_m, self.inlet_gauge_pa, self.dead_head_gauge_pa
        )


@dataclass(frozen=True, kw_only=True)
class HeadCurve(_Lifting):
    """A pump known by its curve, from shut-off (zero flow) on; heads must fall as flows rise."""

    tag: ClassVar = ("model", "curve")
    points: tuple[CurvePoint, ...] = parts("Pump curve", CurvePoint, 2, 30)
    drop_pipe: Pipe | None = part("Drop pipe", Pipe, default=None)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        points = values.get("points", ())
        if points and points[0].flow_m3_s != 0:
            yield Fault(
                path="points.0.flow_m3_s",
                code="order",
                title="The first point's flow",
                says="must be 0: its head is the shut-off head.",
            )
        for at in range(1, len(points)):
            yield from _falls(points[at - 1], points[at], at)

    @property
    def curve(self) -> PumpCurve:
        """The curve with lift, inlet and drop pipe."""
        pipe = self.drop_pipe
        return PumpCurve(
            tuple(point.flow_m3_s for point in self.points),
            tuple(point.head_m for point in self.points),
            self.lift_m,
            self.inlet_gauge_pa,
            (pipe.length_m, pipe.diameter_m, pipe.c_factor) if pipe else None,
        )

    def delivery(self) -> Delivery:
        """The curve as a line of pressure."""
        return curve_delivery(self.curve)


def _falls(before: CurvePoint, point: CurvePoint, at: int) -> Iterable[Fault]:
    if point.flow_m3_s <= before.flow_m3_s:
        yield Fault(
            path=f"points.{at}.flow_m3_s",
            code="order",
            title=f"Flow of point {at + 1}",
            says="must be more than the point before it.",
        )
    if point.head_m >= before.head_m:
        yield Fault(
            path=f"points.{at}.head_m",
            code="order",
            title=f"Head of point {at + 1}",
            says="must be less than the point before it: head falls as flow rises.",
        )


Pump = ConstantFlow | RatedPoint | HeadCurve
PUMPS: dict[str, type[Checked]] = {
    "constant": ConstantFlow,
    "rated_point": RatedPoint,
    "curve": HeadCurve,
}
