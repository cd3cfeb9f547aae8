"""Air compressors with receivers."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, part, parts, quantity
from zerodip.kinds.parts import Relief, Switch, System

__all__ = ["AirPump", "AirUse", "CompressorSystem", "FreeAirPoint", "LeakTest", "Receiver"]

COMPRESSOR = "compressor"
MOST_RECEIVERS = 6


@dataclass(frozen=True, kw_only=True)
class FreeAirPoint(Checked):
    """Free air delivered (volume at the site's atmosphere) at one gauge pressure."""

    gauge_pa: float = quantity("at a gauge pressure of", "pressure", 0, 4e6)
    flow_m3_s: float = quantity("Free air delivery", "air_flow", 1e-6, 1.0)


@dataclass(frozen=True, kw_only=True)
class AirPump(Checked):
    """The compressor: its free air delivery at one or more pressures (falling as pressure rises),
    its own maximum."""

    points: tuple[FreeAirPoint, ...] = parts("Free air delivery", FreeAirPoint, 1, 12)
    max_gauge_pa: float | None = quantity(
        "Compressor's maximum pressure", "pressure", 30e3, 4e6, default=None
    )
    power_w: float | None = quantity("Motor power", "power", 30, 50e3, default=None)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        points = values.get("points", ())
        for at in range(1, len(points)):
            before, point = points[at - 1], points[at]
            if point.gauge_pa <= before.gauge_pa:
                yield Fault(
                    path=f"points.{at}.gauge_pa",
                    code="order",
                    title=f"Pressure of point {at + 1}",
                    says="must be more than the point before it.",
                )
            if point.flow_m3_s > before.flow_m3_s:
                yield Fault(
                    path=f"points.{at}.flow_m3_s",
                    code="order",
                    title=f"Free air of point {at + 1}",
                    says="must not be more than the point before it: it falls as pressure rises.",
                )


@dataclass(frozen=True, kw_only=True)
class Receiver(Checked):
    """One receiver, off its plate. The plate's pressure is never exceeded."""

    volume_m3: float = quantity("Receiver volume", "volume", 0.0005, 20.0)
    max_gauge_pa: float | None = quantity(
        "Receiver plate, maximum", "pressure", 30e3, 4e6, default=None
    )


@dataclass(frozen=True, kw_only=True)
class AirUse(Checked):
    """What the tools take, as free air, and the pressure they need."""

    use_m3_s: float | None = quantity("Air used, free air", "air_flow", 1e-6, 1.0, default=None)
    wanted_gauge_pa: float | None = quantity(
        "Pressure the tools need", "pressure", 0, 2e6, default=None
    )


@dataclass(frozen=True, kw_only=True)
class LeakTest(Checked):
    """A leak-down: compressor off, nothing used, the gauge watched."""

    from_gauge_pa: float = quantity("Leak watch, pressure first", "pressure", 10e3, 4e6)
    to_gauge_pa: float = quantity("Leak watch, pressure later", "pressure", 0, 4e6)
    seconds: float = quantity("Leak watch, time", "duration", 5, 86400)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        first, later = values.get("from_gauge_pa"), values.get("to_gauge_pa")
        if first is not None and later is not None and later > first:
            yield Fault(
                path="to_gauge_pa",
                code="order",
                title="Pressure later",
                says="must not lie above the first.",
            )


@dataclass(frozen=True, kw_only=True)
class CompressorSystem(System):
    """Everything read off one compressor. `delivery_k` is how hot its air enters the receiver (55
    °C: common practice, no source). `click_warming_k` is how much warmer than the room the air in
    the receiver is at the click of cut-out, where that was found from how far the gauge settles;
    else it is worked out."""

    kind: str = choice("Kind of system", (COMPRESSOR,))
    receivers: tuple[Receiver, ...] = parts("Receivers", Receiver, 1, MOST_RECEIVERS)
    pump: AirPump = part("Compressor", AirPump)
    switch: Switch = part("Switch", Switch, default=Switch(nuts="one"))
    relief: Relief = part("Safety valve", Relief, default=Relief())
    use: AirUse = part("Air use", AirUse, default=AirUse())
    leak_test: LeakTest | None = part("Leak watch", LeakTest, default=None)
    delivery_k: float = quantity(
        "Air enters the receiver at", "temperature", 253.15, 473.15, default=328.15
    )
    click_warming_k: float | None = quantity(
        "Air warmer at the click by, as found", "temperature_step", 0, 60, default=None
    )
