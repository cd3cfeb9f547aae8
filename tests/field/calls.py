"""Calls about houses with something wrong: what a caller tells and a technician measures of each,
worked out by the house's own equations and a table of signs that shares nothing with what judges.
In psi, gallons, gpm and seconds; people err, gauges are off, nobody measures everything."""

import math
import random
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

from tests.field.house import AIR, House, Line, Tap, lived

__all__ = ["FAULTS", "Call", "a_call"]

_VOLUMES = (20.0, 32.0, 44.0, 62.0, 86.0, 119.0)
_WATCHED = 900.0  # s: then somebody calls it endless
_ERRS = 0.04


@dataclass(frozen=True)
class Fault:
    """What is wrong: the house with it, the causes that name it, what is seen of it by chance."""

    names: frozenset[str]
    change: Callable[[House, random.Random], House] = lambda of, rng: of
    signs: Mapping[str, float] = field(default_factory=dict)
    dead: bool = False


def _worn(of: House, rng: random.Random) -> House:
    wear = rng.uniform(1.8, 5.0)
    top = max(of.dead_head * rng.uniform(0.7, 0.85), of.cut_in + 6)
    return replace(of, dead_head=top, a=of.a * wear, b=of.b * wear)


def _apart(of: House, rng: random.Random) -> House:
    off = rng.choice((-1, 1)) * rng.uniform(6, 14)
    if rng.random() < 0.5:
        return replace(of, cut_out=max(of.cut_out + off, of.cut_in + 6))
    return replace(of, cut_in=of.cut_in + off, cut_out=of.cut_out + off)


def _of(*names: str) -> frozenset[str]:
    return frozenset(names)


FAULTS: Mapping[str, Fault] = {
    "healthy": Fault(_of("healthy")),
    "air low": Fault(
        _of("air_low", "air_valve"),
        lambda of, rng: replace(of, charge=of.charge * rng.uniform(0.05, 0.75)),
    ),
    "air high": Fault(
        _of("charge_high"), lambda of, rng: replace(of, charge=of.cut_in + rng.uniform(3, 14))
    ),
    "burst": Fault(
        _of("burst"),
        lambda of, rng: replace(of, air=rng.uniform(0.02, 0.12)),
        {"water_at_valve": 0.95},
    ),
    "leak": Fault(
        _of("house_leak"),
        lambda of, rng: replace(of, leak=10 ** rng.uniform(-1.3, 0.3)),
        {"house_tap": 0.8},
    ),
    "back": Fault(
        _of("check_valve"), lambda of, rng: replace(of, back=10 ** rng.uniform(-1.3, 0.3))
    ),
    "worn": Fault(_of("pump_worn"), _worn, {"weak": 0.5}),
    "over dead-head": Fault(
        _of("dead_head"), lambda of, rng: replace(of, dead_head=of.cut_out - rng.uniform(1, 5))
    ),
    "points": Fault(_of("points", "differential"), _apart),
    "small": Fault(
        _of("tank_small", "narrow"),
        lambda of, rng: replace(of, volume=of.volume / rng.uniform(5, 9)),
    ),
    "contacts": Fault(_of("contacts"), signs={"contacts": 0.95, "silent": 0.97}, dead=True),
    "no power": Fault(
        _of("no_power"), signs={"breaker": 0.85, "silent": 0.97, "no_volts": 0.95}, dead=True
    ),
    "wet": Fault(_of("wet"), signs={"wet": 0.95, "silent": 0.9, "breaker": 0.3}, dead=True),
    "filter": Fault(_of("filter"), signs={"filter_drop": 0.95, "weak": 0.95}),
    "low air and a leak": Fault(
        _of("air_low", "house_leak"),
        lambda of, rng: replace(
            of, charge=of.charge * rng.uniform(0.2, 0.6), leak=10 ** rng.uniform(-0.6, 0.3)
        ),
        {"house_tap": 0.85},
    ),
}
_LOOKS = (
    *("water_at_valve", "house_tap", "contacts", "wet", "breaker", "filter_drop"),
    "relief_drips",
)


@dataclass(frozen=True)
class Call:
    """One call: what is wrong, the house as its plates say and as it is, and what was seen: item,
    value (psi, s, gal) and the figures that it was taken between."""

    fault: str
    plates: House
    is_so: House
    flow: float
    seen: tuple[tuple[str, Any, tuple[float, ...]], ...]

    @property
    def names(self) -> frozenset[str]:
        """The causes that name what is wrong."""
        return FAULTS[self.fault].names


class _Seen:
    """What can be measured of a house, each by its own equations."""

    def __init__(self, of: House, flow: float) -> None:
        self.of, self.flow = of, flow

    @cached_property
    def line(self) -> Line:
        """A start by a small tap that is shut at the click, the run, and what comes after."""
        tap = Tap(0.0, 4.0, 0.25 * self.flow)
        return lived(self.of, [tap], _WATCHED, self.of.cut_in + 0.05, fine=0.05)

    @property
    def run(self) -> float | None:
        """Seconds from click to click; None where it does not end, or does not start."""
        line = self.line
        return line.stops[0] - line.starts[0] if line.starts and line.stops else None

    def after(self, seconds: float) -> tuple[float, float] | None:
        """The gauge right after the click out, and so many seconds later."""
        line = self.line
        if not line.stops or line.stops[0] + seconds > line.time[-1]:
            return None
        later = [line.stops[0] + each for each in (1.0, seconds)]
        first, last = (next(k for k, t in enumerate(line.time) if t >= each) for each in later)
        return line.psi[first], line.psi[last]

    @property
    def lowest(self) -> float | None:
        """The lowest at a start with more than half of the pump's flow drawn."""
        line = lived(self.of, [Tap(0.0, 60.0, 0.6 * self.flow)], 60.0, self.of.cut_in + 0.3, 0.05)
        return line.lowest[0] if line.lowest else None

    @property
    def caught(self) -> float:
        """Gallons from cut-out down to cut-in, by the gas law."""
        of = self.of
        moles = of.volume * (AIR + of.charge) * of.air
        held = [of.volume - moles / (psi + AIR) for psi in (of.cut_in, of.cut_out)]
        if of.air >= 1:  # a whole bladder lies empty at the least
            held = [max(each, 0.0) for each in held]
        return max(held[1] - held[0], 0.01)


def a_call(fault: str, rng: random.Random) -> Call:
    """A call about one fault.

    Args:
        fault: One of `FAULTS`.
        rng: Where the chance comes from.

    Returns:
        The call.
    """
    low, flow = rng.choice((20.0, 30.0, 40.0)), rng.uniform(5, 18)
    fits = [v for v in _VOLUMES if 3.6 * flow <= v <= 12 * flow]
    head = low + 20 + rng.uniform(22, 60)
    middle, b = low + 10, rng.uniform(0.2, 1.0)
    plates = House(
        volume=rng.choice(fits),
        charge=low - 2,
        cut_in=low,
        cut_out=low + 20,
        dead_head=head,
        b=b,
        a=max((head - middle - b * flow) / flow**2, 0.01),
        lag=rng.uniform(0.2, 1.0),
        cools=rng.uniform(60, 150),
    )
    wrong = FAULTS[fault]
    is_so = wrong.change(plates, rng)
    if fault == "small":
        plates = is_so
    return Call(fault, plates, is_so, flow, tuple(_told(wrong, is_so, flow, rng)))


def _told(wrong: Fault, of: House, flow: float, rng: random.Random) -> list[Any]:
    off = rng.gauss(0, 1.0)
    signs = _signs(wrong, rng)
    if wrong.dead:
        return signs
    made = _Seen(of, flow)
    told = [*signs, *_symptoms(of, made, rng)]
    if rng.random() < 0.75:
        told += [
            ("cut_in", of.cut_in + off + rng.gauss(0, 0.6), ()),
            ("run", made.run * rng.gauss(1, 0.03) if made.run else True, ()),
        ]
        if made.run:
            told.append(("cut_out", of.cut_out + off + rng.gauss(0, 0.6), ()))
    if rng.random() < 0.45 and wrong.names != {"burst"}:
        told.append(("pre_charge", of.charge + rng.gauss(0, 0.8), ()))
    if rng.random() < 0.35:
        told.append(("caught", made.caught * rng.gauss(1, 0.06), ()))
    if (fell := made.after(300.0)) and rng.random() < 0.4:
        told.append(("fall_open", fell[1] + off, (fell[0] + off, 299.0)))
        shut = _Seen(replace(of, leak=0.0), flow).after(300.0)
        if shut:
            told.append(("fall_shut", shut[1] + off, (shut[0] + off, 299.0)))
    if made.run is None and rng.random() < 0.6:
        told.append(("highest", made.line.psi[-1] + off, ()))
    if (lowest := made.lowest) is not None and rng.random() < 0.3:
        told.append(("lowest", max(lowest + off, 0.0), ()))
    return told


def _signs(wrong: Fault, rng: random.Random) -> list[Any]:
    """What is looked at: everything that would show it, and some that would not."""
    looked = [id for id in _LOOKS if id in wrong.signs or rng.random() < 0.2]
    told: list[Any] = []
    for id in dict.fromkeys((*wrong.signs, *looked)):
        there = rng.random() < wrong.signs.get(id, 0.02)
        said = there != (rng.random() < _ERRS)
        if id in ("silent", "weak"):  # nobody tells of what is not
            told += [(id, True, ())] * there
        elif rng.random() < 0.8:
            told.append((id, said, ()))
    return told


def _symptoms(of: House, made: _Seen, rng: random.Random) -> list[Any]:
    """What is complained of, where it is so and somebody noticed."""
    lost = of.leak + of.back
    rest = made.caught / lost * 60 if lost else math.inf
    so = {
        "clicks": made.run is not None and made.run < 10,
        "breath": (made.lowest or of.cut_in) < 0.35 * of.cut_in,
        "endless": made.run is None,
        "alone": rest < 3600,
    }
    return [(id, True, ()) for id, is_so in so.items() if is_so and rng.random() < 0.8]
