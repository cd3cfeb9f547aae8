"""Plants of every kind stepped through time, for comparison: by the first laws that hold for them,
from the plain values of a file. Nothing of the core is used here.

Water: p·v^n of each tank's air from rest at cut-in, p + ρgh, delivery that ramps up,
Hazen–Williams. Air: mass and energy of an ideal gas with warm walls. Tankless: torque balance of a
permanent-magnet motor. Pump curves by scipy's PchipInterpolator.
"""

import math
from bisect import bisect_right
from dataclasses import dataclass, field
from typing import Any, Protocol

import numpy as np
from scipy.interpolate import PchipInterpolator

RHO_G = 999.1 * 9.80665  # water at 15 °C, CRC Handbook, from memory
ROOM_K, GAS, GAMMA = 293.15, 287.055, 1.4


def atmosphere(altitude_m: float) -> float:
    """ICAO standard atmosphere, Doc 7488, from memory."""
    return float(101325 * (1 - 0.0065 * altitude_m / 288.15) ** 5.25588)


class Store(Protocol):
    """What a switch looks at."""

    def gauge(self) -> float:
        """Gauge pressure, Pa."""

    def empty(self) -> bool:
        """Whether nothing is left to give."""

    def step(self, dt: float, delivers: float, draw: float) -> None:
        """Time goes on; `delivers` is the share of its full delivery."""


class Water:
    """Tanks and a pump. Water held against gauge pressure is tabulated once."""

    def __init__(self, raw: dict[str, Any], n: float = 1.0) -> None:
        of, at = raw["system"], raw["settings"]
        self.site = atmosphere(of.get("site", {}).get("altitude_m", 0.0))
        self.head = of.get("tanks_above_m", 0.0) * RHO_G
        self.n, self.rest = n, at["cut_in_gauge_pa"] - self.head + self.site
        gauges = np.linspace(0.0, 1.05 * at["cut_out_gauge_pa"], 4001)
        there = gauges - self.head + self.site
        held = sum(self._held(tank, at, there, of) for tank in of["tanks"])
        self.gauges = gauges.tolist()
        self.held = (held - held[0]).tolist()  # what stands below gauge zero does not come out
        self.delivered = delivery(of["pump"], gauges).tolist()
        self.water = 0.0

    def _held(self, tank: dict[str, Any], at: dict[str, Any], p: Any, of: dict[str, Any]) -> Any:
        charge = tank.get("pre_charge_gauge_pa", at["pre_charge_gauge_pa"]) + self.site
        volume = tank["volume_m3"]
        moles = volume * charge * of.get("air_left", 1.0)
        isothermal = np.minimum(moles / self.rest, volume)
        start = moles / isothermal  # the pressure from which it goes by p·v^n
        air = np.minimum(isothermal * (start / np.maximum(p, 1.0)) ** (1 / self.n), volume)
        return np.minimum(volume - air, tank.get("acceptance_m3", np.inf))

    def fill_to(self, gauge: float) -> None:
        """Stands at a gauge pressure."""
        self.water = _between(gauge, self.gauges, self.held)

    def gauge(self) -> float:
        return _between(self.water, self.held, self.gauges)

    def empty(self) -> bool:
        return self.water <= 0

    def step(self, dt: float, delivers: float, draw: float) -> None:
        flow = delivers * _between(self.gauge(), self.gauges, self.delivered)
        self.water = min(max(self.water + (flow - draw) * dt, 0.0), self.held[-1])


def _between(x: float, xs: list[float], ys: list[float]) -> float:
    """Straight between the entries of a rising table."""
    at = min(max(bisect_right(xs, x), 1), len(xs) - 1)
    width = xs[at] - xs[at - 1]
    share = (x - xs[at - 1]) / width if width > 0 else 1.0
    return ys[at - 1] + (ys[at] - ys[at - 1]) * min(max(share, 0.0), 1.0)


def delivery(pump: dict[str, Any], gauges: Any) -> Any:
    """Flow at gauge pressures: one flow; a parabola through a rated point and the dead-head; or a
    curve less lift and the friction of the drop pipe."""
    if pump["model"] == "constant":
        return np.where(gauges < pump.get("dead_head_gauge_pa", np.inf), pump["flow_m3_s"], 0.0)
    if pump["model"] == "rated_point":
        top = pump["dead_head_gauge_pa"]
        inlet = pump.get("inlet_gauge_pa", 0.0)
        share = np.maximum(top - gauges, 0) / (top - pump["gauge_pa"] - inlet)
        # No pump gives more than about twice its rated flow: common practice, no source.
        return pump["flow_m3_s"] * np.minimum(np.sqrt(share), 2.0)
    flows = np.linspace(0, pump["points"][-1]["flow_m3_s"], 4001)
    known = PchipInterpolator(
        [p["flow_m3_s"] for p in pump["points"]], [p["head_m"] for p in pump["points"]]
    )
    pipe = pump.get("drop_pipe")
    lost = (
        10.67
        * pipe["length_m"]
        * (flows / pipe["c_factor"]) ** 1.852
        / pipe["diameter_m"] ** 4.8704
        if pipe
        else 0.0
    )
    pressure = (known(flows) - pump["lift_m"] - lost) * RHO_G + pump.get("inlet_gauge_pa", 0.0)
    return np.interp(-gauges, -pressure, flows, left=0.0)


class Air:
    """Receivers and a compressor whose air comes in hot."""

    def __init__(self, raw: dict[str, Any]) -> None:
        of = raw["system"]
        self.site = atmosphere(of.get("site", {}).get("altitude_m", 0.0))
        self.volume = sum(each["volume_m3"] for each in of["receivers"])
        points = of["pump"]["points"]
        self.at = [p["gauge_pa"] for p in points], [p["flow_m3_s"] for p in points]
        self.hot_k = of.get("delivery_k", 328.15)
        self.mass = self.energy = 0.0

    def fill_to(self, gauge: float) -> None:
        """Stands at a gauge pressure, as warm as the room."""
        absolute = gauge + self.site
        self.mass = absolute * self.volume / GAS / ROOM_K
        self.energy = absolute * self.volume / (GAMMA - 1)

    def gauge(self) -> float:
        return (GAMMA - 1) * self.energy / self.volume - self.site

    def empty(self) -> bool:
        return self.gauge() <= 0

    def step(self, dt: float, delivers: float, draw: float) -> None:
        free, heat = self.site / GAS / ROOM_K, GAMMA * GAS / (GAMMA - 1)
        comes = delivers * free * float(np.interp(self.gauge(), *self.at))
        warm = self.energy / self.mass * (GAMMA - 1) / GAS
        walls = 10 * 6 * self.volume ** (2 / 3) * (warm - ROOM_K)
        self.energy += (heat * (comes * self.hot_k - free * draw * warm) - walls) * dt
        self.mass += (comes - free * draw) * dt


@dataclass
class Motor:
    """A diaphragm pump on a permanent-magnet motor: k·I − idling = torque of the pressure, I = (U −
    k·ω)/R, flow d·ω."""

    k: float = 0.03
    ohm: float = 0.4
    per_pa: float = 1.2e-6
    per_rad: float = 2.0e-7
    idle_nm: float = 0.05

    def dead_head(self, volts: float) -> float:
        """Where it stands."""
        return (self.k * volts / self.ohm - self.idle_nm) / self.per_pa

    def flow(self, gauge: float, volts: float) -> float:
        """What it delivers."""
        turns = (volts - (self.per_pa * gauge + self.idle_nm) * self.ohm / self.k) / self.k
        return max(self.per_rad * turns, 0.0)


class Tankless:
    """An accumulator, such a pump, and one outlet that passes K·√p."""

    def __init__(self, motor: Motor, volts: float, k: float, volume: float, charge: float) -> None:
        self.motor, self.volts, self.k = motor, volts, k
        self.volume, self.charge = volume, charge + 101325
        self.air = volume

    def gauge(self) -> float:
        return max(self.charge * self.volume / self.air - 101325, 0.0)

    def empty(self) -> bool:
        return self.air >= self.volume

    def fill_to(self, gauge: float) -> None:
        """Stands at a gauge pressure."""
        self.air = min(self.charge * self.volume / (gauge + 101325), self.volume)

    def step(self, dt: float, delivers: float, draw: float) -> None:
        gauge = self.gauge()
        net = delivers * self.motor.flow(gauge, self.volts) - self.k * math.sqrt(gauge)
        self.air = min(max(self.air - net * dt, 1e-9), self.volume)


@dataclass
class Seen:
    """What an observer with a watch writes down."""

    starts: list[float] = field(default_factory=list)
    stops: list[float] = field(default_factory=list)
    lowest: float = math.inf
    dry_at: float = math.inf
    ended: float = 0.0

    @property
    def runs(self) -> list[float]:
        """Each run, s."""
        return [b - a for a, b in zip(self.starts, self.stops, strict=False)]

    @property
    def rate(self) -> float:
        """Starts per second over whole cycles."""
        return (len(self.starts) - 1) / (self.starts[-1] - self.starts[0])


@dataclass
class Watch:
    """How a plant is watched: points (Pa gauge), lag and ramp of a start (s), step (s), and when to
    stop looking."""

    low: float
    high: float
    dt: float
    lag: float = 0.0
    ramp: float = 0.0
    most_s: float = 7200.0
    most_starts: int = 1000

    def run(self, store: Any, draw: float, on: bool) -> Seen:
        """Begins at cut-in with the switch just closed, or at cut-out with it just opened."""
        store.fill_to(self.low if on else self.high)
        seen, time, since = Seen(), 0.0, 0.0
        if on:
            seen.starts.append(0.0)
        while time < self.most_s and len(seen.starts) < self.most_starts:
            pace = min(max((time - since - self.lag) / self.ramp, 0.0), 1.0) if self.ramp else 1.0
            store.step(self.dt, pace if on else 0.0, draw)
            time += self.dt
            gauge = store.gauge()
            if on and pace == 1.0 and gauge > seen.lowest and draw and self.ramp:
                break  # the start is over, and the pump keeps up
            seen.lowest = min(seen.lowest, gauge)
            if store.empty() and draw > 0:
                seen.dry_at = min(seen.dry_at, time)
                break
            if on and gauge >= self.high:
                on = False
                seen.stops.append(time)
                if draw == 0:
                    break
            elif not on and gauge <= self.low:
                on, since = True, time
                seen.starts.append(time)
        seen.ended = time
        return seen
