"""What a plant of its own says to the sentences of Decide: every figure told of a water system is
read off its words and worked out anew from the plain file, by scipy and by a plant stepped through
time. Nothing of the core is used here."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from scipy.optimize import brentq

from .other_plant import RHO_G, Water, _between, atmosphere, delivery
from .told_advice import NUMBER, UNITS

Raw = dict[str, Any]
_START = (("start_lag_s", 1.5), ("ramp_s", 1.0))
_UNIT = rf"({'|'.join(sorted(UNITS, key=len, reverse=True))}|s|/h)"


def told(words: str, pattern: str) -> list[float]:
    """The figures (SI) that stand where a pattern has `#`; none where the words are not said."""
    regular = re.escape(pattern).replace("\\#", rf"{NUMBER} ?{_UNIT}")
    found = re.search(regular, words)
    if found is None:
        return []
    scale = {**UNITS, "s": 1.0, "/h": 1 / 3600}
    pairs = zip(found.groups()[::2], found.groups()[1::2], strict=True)
    return [float(number.replace(",", "")) * scale[unit] for number, unit in pairs]


def all_told(
    made: Any, results: Mapping[str, str], said: Mapping[tuple[str, str], tuple[str, str]]
) -> Iterator[tuple[str, str, float, str]]:
    """Every figure that a decision tells, as result or in a finding's words where a pattern has
    `#`: where it is told, what it is the figure of, its value (SI), and the words."""
    for result in made.results:
        if result.id in results and result.value is not None:
            yield f"result {result.id}", results[result.id], result.value, result.text
    for finding in made.findings:
        for part in ("figure", "advice", "formula"):
            pattern, name = said.get((finding.rule, part), ("", ""))
            words = getattr(finding, part)
            for value in told(words, pattern)[:1] if name else ():
                yield f"said {finding.rule} {part}", name, value, words


@dataclass
class Told:
    """A water system whose pump's line is known, from its plain file."""

    raw: Raw

    @property
    def known(self) -> bool:
        """Whether its pump's whole line is in the file."""
        pump = self.raw["system"]["pump"]
        return pump["model"] != "rated_point" or "dead_head_gauge_pa" in pump

    @property
    def inlet(self) -> float:
        """What the pump's line was made with, Pa gauge."""
        return float(self.raw["system"]["pump"].get("inlet_gauge_pa", 0.0))

    @property
    def lowest_inlet(self) -> float:
        """The supply at its lowest, Pa gauge."""
        return float(self.raw["system"].get("supply", {}).get("lowest_inlet_gauge_pa", self.inlet))

    @property
    def falls(self) -> float:
        """How far the inlet falls below the pump's line, Pa; a pump known by its flow alone has no
        inlet that it was made with."""
        return max(self.inlet - self.lowest_inlet, 0.0)

    @cached_property
    def water(self) -> Water:
        """Its tanks and pump, with the air that the water caught in a bucket tells."""
        of, at = self.raw["system"], self.raw["settings"]
        found = of.get("found", {})
        if "caught_m3" not in found:
            return Water(self.raw)
        site = atmosphere(of.get("site", {}).get("altitude_m", 0.0))
        there = site - RHO_G * of.get("tanks_above_m", 0.0)
        ends = (found[f"cut_{end}_gauge_pa"] + there for end in ("in", "out"))
        charge = at["pre_charge_gauge_pa"] + site
        fresh = charge * sum(tank["volume_m3"] for tank in of["tanks"])
        low, high = ends
        air = found["caught_m3"] / (1 / low - 1 / high)
        most = low * fresh / charge  # nothing but air at cut-in
        share = min(air, most) / fresh if air <= 1.05 * most else 1.0
        return Water({**self.raw, "system": {**of, "air_left": share}})

    @property
    def points(self) -> tuple[float, float]:
        """Cut-in and cut-out, Pa gauge."""
        at = self.raw["settings"]
        return at["cut_in_gauge_pa"], at["cut_out_gauge_pa"]

    @property
    def draw(self) -> float | None:
        """The peak draw, m³/s."""
        found = self.raw["system"]["demand"].get("peak_draw_m3_s")
        return None if found is None else float(found)

    @cached_property
    def line(self) -> tuple[Any, Any]:
        """Gauge pressures and what the pump delivers at them."""
        gauges = np.concatenate([np.linspace(1e-3, 1.5e6, 6001), [4e6, 4e7]])
        return gauges, delivery(self.raw["system"]["pump"], gauges)

    def flow(self, gauge: float) -> float:
        """What the pump delivers at a gauge pressure, m³/s."""
        return float(np.interp(gauge, *self.line))

    @property
    def stalls(self) -> float | None:
        """The gauge from which nothing is delivered at the usual inlet, Pa; None where it is."""
        gauges, flows = self.line
        none = gauges[flows <= 0]
        return float(none[0]) if len(none) else None

    @property
    def stalls_lowest(self) -> float | None:
        """The same with the inlet at its lowest."""
        return None if self.stalls is None else self.stalls - self.falls

    def held(self, gauge: float) -> float:
        """Water above what does not come out, m³."""
        return _between(gauge, self.water.gauges, self.water.held)

    @property
    def drawdown(self) -> float:
        """What comes out between the points, m³."""
        low, high = self.points
        return self.held(high) - self.held(low)

    @cached_property
    def filling(self) -> tuple[Any, Any]:
        """Water that comes in, step by step from cut-in to cut-out, and the flow at each."""
        grid = np.linspace(*self.points, 801)
        held = np.interp(grid, self.water.gauges, self.water.held)
        return np.diff(held), np.interp((grid[1:] + grid[:-1]) / 2, *self.line)

    def fill_s(self, draw: float) -> float:
        """Seconds from cut-in to cut-out against a steady draw."""
        water, flow = self.filling
        if self.flow(self.points[1]) <= draw or flow.min() <= draw:
            return float("inf")
        return float(np.sum(water / (flow - draw)))

    def most_starts(self) -> float:
        """Starts a second at the steady draw that brings the most."""
        draws = np.linspace(0.01, 0.98, 120) * self.flow(self.points[1])
        cycles = [self.drawdown / q + self.fill_s(q) for q in draws]
        return 1 / min(cycles) if min(cycles) > 0 else float("inf")

    def balance(self) -> float:
        """Where pump and open taps balance with the inlet at its lowest, taps as orifices, Pa."""
        low, _ = self.points
        assert self.draw is not None
        up = min(RHO_G * self.raw["system"]["demand"].get("lowest_tap_m", 0.0), low - 1.0)
        k = self.draw / np.sqrt(low - up)

        def over(p: float) -> float:
            return self.flow(p + self.falls) - k * float(np.sqrt(p - up))

        if over(max(up, 0.0) + 1e-3) <= 0:
            return max(up, 0.0)
        return float(brentq(over, max(up, 0.0) + 1e-3, 4e7)) if over(4e7) < 0 else float("inf")

    def lowest(self, slower: float = 1.0) -> float:
        """The lowest gauge in a start at the peak draw, stepped through time until the pump
        delivers in full, `slower` times as slowly, Pa; a supply under pressure passes a pump that
        stands."""
        pump, draw, store = self.raw["system"]["pump"], self.draw, self.water
        assert draw is not None
        lag, ramp = (slower * pump.get(name, usual) for name, usual in _START)
        store.fill_to(self.points[0])
        lowest, time, dt = store.gauge(), 0.0, 0.01
        while time < lag + ramp and not store.empty():
            store.step(dt, min(max((time - lag) / max(ramp, 1e-9), 0.0), 1.0), draw)
            time += dt
            lowest = min(lowest, store.gauge())
        passes = self.lowest_inlet if self.raw["system"]["kind"] == "boosted" else 0.0
        return max(0.0 if store.empty() else lowest, min(max(passes, 0.0), self.points[0]))
