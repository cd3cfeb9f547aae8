"""What a plant of its own says to the sentences of Decide about a compressor: worked out anew from
the plain file by scipy, with air that comes in hot and cools at the walls. Nothing of the core is
used here. A free m³ is one at the site's pressure and the room's temperature."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from scipy.integrate import quad, solve_ivp

from .other_plant import GAMMA, GAS, atmosphere

Raw = dict[str, Any]
_WALLS = 10.0  # W/(m² K), from memory


@dataclass
class ToldAir:
    """A compressor from its plain file."""

    raw: Raw

    def __post_init__(self) -> None:
        of, at = self.raw["system"], self.raw["settings"]
        site = of.get("site", {})
        self.free = atmosphere(site.get("altitude_m", 0.0))
        self.room = site.get("now_k") or site.get("mean_k") or 293.15
        self.volume = sum(each["volume_m3"] for each in of["receivers"])
        self.enters = max(of.get("delivery_k", 328.15), self.room)
        self.points = at["cut_in_gauge_pa"], at["cut_out_gauge_pa"]
        points = of["pump"]["points"]
        self.curve = [p["gauge_pa"] for p in points], [p["flow_m3_s"] for p in points]

    def flow(self, gauge: float) -> float:
        """Free air delivered at a gauge pressure, m³/s."""
        return float(np.interp(gauge, *self.curve))

    def filled(self, start: float) -> tuple[float, float]:
        """Seconds from a gauge pressure to cut-out with nothing used, and what the gauge shows
        once that air is as cold as the room, Pa."""
        capacity = GAS / (GAMMA - 1)
        mass = (start + self.free) * self.volume / GAS / self.room

        def change(_: float, at: Any) -> list[float]:
            m, heat = at
            warm = heat / m / capacity
            comes = self.flow(m * GAS * warm / self.volume - self.free)
            comes *= self.free / GAS / self.room
            lost = _WALLS * 6 * self.volume ** (2 / 3) * (warm - self.room)
            return [comes, comes * GAMMA * capacity * self.enters - lost]

        def clicks(_: float, at: Any) -> float:
            return float((GAMMA - 1) * at[1] / self.volume - self.free - self.points[1])

        clicks.terminal = True  # type: ignore[attr-defined]
        begin = [mass, mass * capacity * self.room]
        made = solve_ivp(change, (0, 1e6), begin, events=clicks, rtol=1e-7, max_step=20.0)
        settled = made.y[0][-1] * GAS * self.room / self.volume - self.free
        return float(made.t[-1]), float(settled)

    @cached_property
    def run(self) -> tuple[float, float]:
        """The run from cut-in, s, and where the gauge settles after it, Pa."""
        return self.filled(self.points[0])

    @property
    def between(self) -> float:
        """Free air of one cycle, m³."""
        return self.volume * (self.run[1] - self.points[0]) / self.free

    def cycle(self, taken: float) -> tuple[float, float]:
        """Seconds running and resting at a steady use; running without end where it never catches
        up."""
        low, high = self.points
        if self.flow(high) <= taken:
            return float("inf"), 0.0
        per_pa = self.between / (high - low)
        on, _ = quad(lambda gauge: per_pa / (self.flow(gauge) - taken), low, high)
        return on, self.between / taken if taken else float("inf")

    def most_starts(self) -> float:
        """Starts a second at the steady use that brings the most."""
        uses = np.linspace(0.02, 0.98, 97) * self.flow(self.points[1])
        return max(1 / sum(self.cycle(float(use))) for use in uses)

    @property
    def leak(self) -> float | None:
        """Free air leaking away over the watch, m³/s."""
        test = self.raw["system"].get("leak_test")
        if test is None:
            return None
        fell = test["from_gauge_pa"] - test["to_gauge_pa"]
        return float(self.volume * fell / self.free / test["seconds"])

    @property
    def taken(self) -> float | None:
        """What tools and leak take, m³/s; None where no use is known."""
        use = self.raw["system"]["use"].get("use_m3_s")
        return None if use is None else float(use) + (self.leak or 0.0)

    def leak_rest(self) -> float | None:
        """Seconds from where the gauge settles to cut-in by the leak alone: each gauge pressure
        falls by the same share in the same time."""
        test = self.raw["system"].get("leak_test")
        if test is None:
            return None
        first, later = (test[f"{end}_gauge_pa"] + self.free for end in ("from", "to"))
        top, low = self.run[1] + self.free, self.points[0] + self.free
        return float(test["seconds"] * np.log(top / low) / np.log(first / later))
