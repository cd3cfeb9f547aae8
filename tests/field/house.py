"""A house with a pump and a tank, stepped through time in gallons, psi and minutes.

Taps are orifices (q = K·√p), the pump is P = H − b·Q − a·Q², pipes give a little, compressed air
warms and cools, the switch has a lag and the pump ramps up. Nothing of the core is used here."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

AIR = 14.696  # psi, at sea level
WARMS = 0.25  # how much of a compression shows as heat before the steel takes it
_FINE, _COARSE = 0.02, 1.0  # s


@dataclass(frozen=True)
class Tap:
    """Open from `since` to `until` (s); passes `gpm` at 50 psi."""

    since: float
    until: float
    gpm: float


@dataclass(frozen=True)
class House:
    """Everything that is so. Gallons, psi, gpm, s."""

    volume: float = 44.0
    charge: float = 38.0
    cut_in: float = 40.0
    cut_out: float = 60.0
    dead_head: float = 90.0
    b: float = 1.5
    a: float = 0.28
    lag: float = 0.5
    ramp: float = 0.5
    elastic: float = 0.006  # gal a psi, of the pipes
    cools: float = 0.0  # s; 0 for air that stays as warm as it is
    leak: float = 0.0  # gpm at 50 psi, in the house
    back: float = 0.0  # gpm at 50 psi, through the check valve
    trips_at: float = -1.0  # a lever that falls at this pressure
    air: float = 1.0  # share of its air that is left
    plain: bool = False
    burst_at: float = math.inf
    weakens: float = 0.0  # of its dead-head, a day
    drifts: float = 0.0  # psi a day, of cut-out
    power_off: float = math.inf


@dataclass
class Line:
    """What was so: moments (s) and true pressures (psi) with the pump's state, and what happened:
    the contact's starts and stops, when water began to come, the lowest after each start, trips."""

    time: list[float] = field(default_factory=list)
    psi: list[float] = field(default_factory=list)
    amps: list[float] = field(default_factory=list)
    starts: list[float] = field(default_factory=list)
    begins: list[float] = field(default_factory=list)
    stops: list[float] = field(default_factory=list)
    lowest: list[float] = field(default_factory=list)
    trips: list[float] = field(default_factory=list)


class _Plant:
    def __init__(self, of: House, start_psi: float) -> None:
        self.of, self.warm = of, 0.0
        self.moles = of.volume * (AIR + (0.0 if of.plain else of.charge)) * of.air
        self.water = self._water_at(start_psi)
        self.on_since = math.inf
        self.tripped = False

    def _water_at(self, psi: float) -> float:
        held = self.of.volume - self.moles / (psi + AIR)
        if not self.of.plain:
            held = max(held, 0.0)
        return held + self.of.elastic * psi

    def psi(self) -> float:
        of, moles = self.of, self.moles * (1 + self.warm)
        b = of.volume - of.elastic * AIR - self.water
        x = (-b + math.sqrt(b * b + 4 * of.elastic * moles)) / (2 * of.elastic)
        floor = of.volume - moles / x
        if not of.plain and floor < 0:  # the bladder lies empty: the pipes alone hold water
            x = AIR + self.water / of.elastic
        return max(x - AIR, 0.0)

    def pumped(self, t: float, psi: float) -> float:
        of = self.of
        share = min(max((t - self.on_since - of.lag) / of.ramp, 0.0), 1.0)
        top = of.dead_head * (1 - of.weakens * t / 86400)
        if share <= 0 or psi >= top:
            return 0.0
        return share * (-of.b + math.sqrt(of.b**2 + 4 * of.a * (top - psi))) / (2 * of.a)

    def drawn(self, t: float, psi: float, taps: Sequence[Tap]) -> float:
        open_ = sum(tap.gpm for tap in taps if tap.since <= t < tap.until)
        root = math.sqrt(max(psi, 0.0) / 50)
        off = math.isinf(self.on_since)
        return (open_ + self.of.leak) * root + (self.of.back * root if off else 0.0)

    def step(self, dt: float, flow: float, psi: float) -> None:
        before = max(self.moles / (psi + AIR), 1e-6)
        self.water = max(self.water + flow / 60 * dt, 0.0)
        if self.of.cools:
            self.warm += WARMS * flow / 60 * dt / before - self.warm * dt / self.of.cools

    def burst(self, dt: float) -> None:
        self.moles += (0.035 * self.of.volume * (AIR + self.of.charge) - self.moles) * dt / 75


def lived(
    of: House, taps: Sequence[Tap], until: float, start_psi: float, fine: float = _FINE
) -> Line:
    """The line of a house until a moment (s), in steps of `fine` seconds where anything moves."""
    plant, line, t = _Plant(of, start_psi), Line(), 0.0
    edges = sorted({e for tap in taps for e in (tap.since, tap.until)} | {of.power_off})
    at = 0
    while t < until:
        psi = plant.psi()
        _switched(plant, line, t, psi)
        draw, gives = plant.drawn(t, psi, taps), plant.pumped(t, psi)
        while at < len(edges) and edges[at] <= t:
            at += 1
        busy = not math.isinf(plant.on_since) or draw > 0.4 or abs(plant.warm) > 1e-3
        near = psi < of.cut_in + 0.5 or t > of.burst_at
        dt = fine if busy or near else _COARSE
        dt = min(dt, max((edges[at] - t) if at < len(edges) else dt, fine))
        line.time.append(t)
        line.psi.append(psi)
        line.amps.append(0.0 if math.isinf(plant.on_since) else 6.0 + 0.05 * gives)
        if line.starts and len(line.lowest) == len(line.starts) and t - line.starts[-1] < 8:
            line.lowest[-1] = min(line.lowest[-1], psi)
        plant.step(dt, gives - draw, psi)
        if t > of.burst_at:
            plant.burst(dt)
        t += dt
    return line


def _switched(plant: _Plant, line: Line, t: float, psi: float) -> None:
    """What the switch does at a pressure."""
    of, off = plant.of, math.isinf(plant.on_since)
    if not off and t - plant.on_since >= of.lag and len(line.begins) < len(line.starts):
        line.begins.append(t)
    if t >= of.power_off:
        if not off:
            line.stops.append(t)
        plant.on_since = math.inf
        return
    if psi <= of.trips_at and not plant.tripped:
        plant.tripped = True
        line.trips.append(t)
        if not off:
            line.stops.append(t)
        plant.on_since = math.inf
    elif off and psi <= of.cut_in and not plant.tripped:
        plant.on_since = t
        line.starts.append(t)
        line.lowest.append(psi)
    elif not off and psi >= of.cut_out + of.drifts * t / 86400:
        plant.on_since = math.inf
        line.stops.append(t)
