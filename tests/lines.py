"""Pressure lines of made-up plants, by the differential equation of tank and pump, solved by scipy:
nothing of the application's own physics is used."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.integrate import solve_ivp

from zerodip.recording.arrays import Floats
from zerodip.units import PSI

AIR_PA = 101325.0
GPM = 3.785411784e-3 / 60


@dataclass(frozen=True)
class Plant:
    """A bladder tank and a pump whose delivery falls straight with pressure: psi, m³, m³/s."""

    cut_in: float = 40.0
    cut_out: float = 60.0
    pre_charge: float = 38.0
    volume_m3: float = 0.08
    flow_m3_s: float = 10 * GPM
    falls_by: float = 0.3  # of the delivery, from cut-in to cut-out
    lag_s: float = 0.0  # from the switch's click to delivery

    @property
    def air(self) -> float:
        """V·c, Pa·m³."""
        return self.volume_m3 * (self.pre_charge * PSI + AIR_PA)

    def delivers(self, gauge_pa: Floats | float) -> Floats | float:
        """Delivery at a pressure, m³/s."""
        middle, band = (self.cut_in + self.cut_out) / 2 * PSI, (self.cut_out - self.cut_in) * PSI
        return self.flow_m3_s * (1 - self.falls_by * (gauge_pa - middle) / band)


@dataclass(frozen=True)
class Line:
    """What a recorder would have written, and when the pump started and stopped in truth."""

    time_s: Floats
    gauge_pa: Floats
    start_s: Floats
    stop_s: Floats


def line_of(
    plant: Plant,
    draws: Iterable[tuple[float, float]],
    step_s: float = 1.0,
    noise_psi: float = 0.3,
    seed: int = 1,
) -> Line:
    """The line under draws (s, m³/s), from a psi below cut-out, the pump off."""
    state = _State(plant)
    for seconds, flow in draws:
        state.draw(seconds, flow)
    times = np.arange(0.0, state.time, step_s)
    gauge = np.interp(times, np.concatenate(state.times), np.concatenate(state.gauges))
    noise = np.random.default_rng(seed).normal(0, noise_psi * PSI, len(times))
    return Line(times, gauge + noise, np.array(state.starts), np.array(state.stops))


class _State:
    def __init__(self, plant: Plant) -> None:
        self.plant, self.time, self.gauge, self.runs = plant, 0.0, (plant.cut_out - 1) * PSI, False
        self.starts: list[float] = []
        self.stops: list[float] = []
        self.times: list[Floats] = [np.zeros(1)]
        self.gauges: list[Floats] = [np.array([self.gauge])]

    def draw(self, seconds: float, flow: float) -> None:
        end = self.time + seconds
        while self.time < end - 1e-9:
            self._run(end, flow) if self.runs else self._rest(end, flow)

    def _rest(self, end: float, flow: float) -> None:
        low, air = self.plant.cut_in * PSI + AIR_PA, self.plant.air
        left = air * (1 / low - 1 / (self.gauge + AIR_PA))  # water above cut-in
        until = min(end, self.time + left / flow + self.plant.lag_s) if flow > 0 else end
        inner = np.linspace(self.time, until, max(int(until - self.time), 2) + 1)
        fallen = 1 / (self.gauge + AIR_PA) + flow / air * (inner - self.time)
        self._to(inner, 1 / fallen - AIR_PA)
        if until < end:
            self.runs = True
            self.starts.append(until)

    def _run(self, end: float, flow: float) -> None:
        plant = self.plant

        def rise(_: float, gauge: Floats) -> Floats:
            return (plant.delivers(gauge) - flow) * (gauge + AIR_PA) ** 2 / plant.air

        def full(_: float, gauge: Floats) -> float:
            return float(gauge[0] - plant.cut_out * PSI)

        full.terminal = True  # type: ignore[attr-defined]
        made = solve_ivp(
            rise, (self.time, end), [self.gauge], events=full, rtol=1e-8, atol=1, dense_output=True
        )
        until = float(made.t[-1])
        inner = np.linspace(self.time, until, max(int(2 * (until - self.time)), 2) + 1)
        self._to(inner, made.sol(inner)[0])
        if len(made.t_events[0]):
            self.runs = False
            self.stops.append(until)

    def _to(self, times: Floats, gauges: Floats) -> None:
        self.times.append(times)
        self.gauges.append(gauges)
        self.time, self.gauge = float(times[-1]), float(gauges[-1])


def long_draws(rng: np.random.Generator, plant: Plant, count: int) -> Sequence[tuple[float, float]]:
    """Taps open for a quarter of an hour to an hour, each with its own flow."""
    taps = [(rng.uniform(900, 4000), rng.uniform(0.1, 0.6) * plant.flow_m3_s) for _ in range(count)]
    return [(20.0, 0.0), *taps, (600.0, 0.0)]


def house_draws(
    rng: np.random.Generator, plant: Plant, seconds: float
) -> Sequence[tuple[float, float]]:
    """Taps opened and shut at any moment, also within a run."""
    draws: list[tuple[float, float]] = []
    while sum(each for each, _ in draws) < seconds:
        draws.append((rng.exponential(400), 0.0))
        draws.append((rng.uniform(20, 900), rng.uniform(0.1, 0.7) * plant.flow_m3_s))
    return [*draws, (600, 0.0)]


def nearest(found: Floats, true: Floats) -> Floats:
    """How far the nearest of what was found lies from each truth, s."""
    found = found[np.isfinite(found)]
    return np.abs(found[None, :] - true[:, None]).min(axis=1)


def any_plant(rng: np.random.Generator) -> Plant:
    """A house's plant: its tank, air and pump drawn."""
    return Plant(
        pre_charge=rng.uniform(18, 38),
        volume_m3=rng.uniform(0.03, 0.12),
        flow_m3_s=rng.uniform(6, 14) * GPM,
        falls_by=rng.uniform(0.1, 0.6),
    )


def any_short_cycler(rng: np.random.Generator) -> tuple[Plant, Sequence[tuple[float, float]]]:
    """A small tank that has lost air, in a house: runs of a few seconds; its plant and draws."""
    plant = Plant(
        pre_charge=rng.uniform(5, 38),
        volume_m3=rng.uniform(0.01, 0.04),
        flow_m3_s=rng.uniform(6, 14) * GPM,
        falls_by=rng.uniform(0.1, 0.6),
    )
    draws: list[tuple[float, float]] = []
    while sum(each for each, _ in draws) < 20_000:
        draws.append((rng.exponential(1200), 0.0))
        draws.append((rng.uniform(20, 420), rng.uniform(0.1, 0.6) * plant.flow_m3_s))
    return plant, [*draws, (300, 0.0)]


def any_quiet_day(rng: np.random.Generator) -> tuple[Floats, Floats]:
    """A day (s, Pa) without a start: noise, warmth, a leak, a tap or two that bring none."""
    time_s = np.arange(86400.0)
    gauge = 50 + rng.normal(0, rng.choice([0.1, 0.3, 0.6]), len(time_s))
    gauge += rng.uniform(0, 4) * np.sin(time_s / 86400 * 2 * np.pi + rng.uniform(0, 6))
    gauge -= rng.uniform(0, 0.05) * time_s / 3600
    for _ in range(rng.integers(0, 4)):
        since, slow = rng.uniform(0, 80_000), rng.uniform(20, 400)
        gauge -= rng.uniform(1, 5) * np.clip((time_s - since) / slow, 0, 1)
    return time_s, gauge * PSI
