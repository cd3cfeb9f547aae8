"""A gauge on the wire: where its figure is fetched (Modbus TCP), what it means in pressure, and
what a first look at it tells.

Source of functions, registers and exceptions: Modbus Application Protocol V1.1b3 (from memory).
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, quantity, words
from zerodip.units import SCALES, factors

__all__ = ["NUMBERS", "PROBLEMS", "UNITS_PA", "WireSpec", "first_look", "gauge_pa"]

# How many registers a number takes.
NUMBERS = {"uint16": 1, "int16": 1, "uint32": 2, "int32": 2, "float32": 2}
CONTACTS = ("none", "discrete", "coil")  # how a contact is read beside the pressure
UNITS_PA = factors(*SCALES)
_BEYOND = 0.05  # of the span, by which a figure may lie outside before it is no pressure
PROBLEMS: Mapping[str, str] = {
    "unknown_host": "No device has this address. Check how it is written.",
    "forbidden": "This server does not look for gauges at this address. Ask who runs it.",
    "unreachable": "Nothing answers at this address. Check cable, power and address.",
    "refused": "The device is there but refuses this port. Modbus TCP is usually 502.",
    "silent": "The device takes the call but does not answer. Check the unit number.",
    "wrong_unit": "The gateway does not know this unit number.",
    "wrong_register": "The device has no such register. Sheets often count from 1 or 40001.",
    "wrong_function": "The device does not read this kind of register. Try the other kind.",
    "no_contact": "The device has no such input for a contact. Try the other kind.",
    "device": "The device answers that it failed. Check the unit number, then its display.",
    "no_pressure": "The figure lies far outside the scale. Check number, order and scale.",
    "frozen": "The figure never moved. Open a tap and test again.",
}


@dataclass(frozen=True, kw_only=True)
class WireSpec(Checked):
    """Where a gauge's figure is and what it means: two figures of the device and the pressures that
    they stand for (gauge pressure, in the unit of the device's sheet). Beside it the device may
    read a switch's contact, which is 1 while it is closed."""

    host: str = words("Address", 100, default="")
    port: float = quantity("Port", "number", 1, 65535, default=502)
    unit: float = quantity("Unit number", "number", 0, 255, default=1)
    table: str = choice("Kind of register", ("holding", "input"), default="holding")
    register: float = quantity("Register, from 0", "number", 0, 65535, default=0)
    number: str = choice("Number", NUMBERS, default="uint16")
    order: str = choice("Order of registers", ("big", "little"), default="big")
    pressure_unit: str = choice("Unit of the sheet", UNITS_PA, default="bar")
    raw_low: float = quantity("Figure at the low end", "number", -2e9, 4.3e9, default=0)
    raw_high: float = quantity("Figure at the high end", "number", -2e9, 4.3e9)
    at_low: float = quantity("Pressure at the low end", "number", -1e4, 1e5, default=0)
    at_high: float = quantity("Pressure at the high end", "number", -1e4, 1e5)
    rate_hz: float = quantity("Readings a second", "number", 1, 20, default=10)
    contact: str = choice("Contact", CONTACTS, default="none")
    contact_register: float = quantity("Contact's input, from 0", "number", 0, 65535, default=0)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        yield from _whole(values, "port", "Port")
        yield from _whole(values, "unit", "Unit number")
        yield from _whole(values, "register", "Register, from 0")
        yield from _whole(values, "contact_register", "Contact's input, from 0")
        if not str(values.get("host") or "").strip():
            yield Fault(path="host", code="missing", title="Address", says="is needed.")
        for name, title in (("raw", "Figure"), ("at", "Pressure")):
            low, high = values.get(f"{name}_low"), values.get(f"{name}_high")
            if low is not None and high is not None and low >= high:
                says = "must lie above the low end."
                whole = f"{title} at the high end"
                yield Fault(path=f"{name}_high", code="order", title=whole, says=says)


def _whole(values: Mapping[str, Any], name: str, title: str) -> Iterable[Fault]:
    value = values.get(name)
    if value is not None and value != int(value):
        yield Fault(path=name, code="whole", title=title, says="must be a whole number.")


def gauge_pa(spec: WireSpec, raw: float) -> float | None:
    """The pressure that a figure of the device stands for.

    Args:
        spec: The gauge's wire.
        raw: The device's figure.

    Returns:
        Gauge pressure, Pa; None where the figure is none, or lies more than a twentieth of the
        span outside the scale: a broken sensor, or the wrong register.
    """
    share = (raw - spec.raw_low) / (spec.raw_high - spec.raw_low)
    if not math.isfinite(share) or not -_BEYOND <= share <= 1 + _BEYOND:
        return None
    value = spec.at_low + share * (spec.at_high - spec.at_low)
    return value * UNITS_PA[spec.pressure_unit]


def first_look(spec: WireSpec, raws: Sequence[float]) -> str | None:
    """What speaks against a gauge by its first figures: the id of a problem, or None.

    Args:
        spec: The gauge's wire.
        raws: Figures of the device, one after the other, two or more.

    Returns:
        "no_pressure", "frozen", or None.
    """
    if any(gauge_pa(spec, raw) is None for raw in raws):
        return "no_pressure"
    return "frozen" if len(set(raws)) == 1 else None
