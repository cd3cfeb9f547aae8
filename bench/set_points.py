"""Made-up dual set-point switches, set by the planner: adjustments (both screws in one go) until
both points truly lie within the tolerance, and whether any ever left the range. Screws move a
thirtieth to a sixth of the range a turn, each takes the other point with it by up to 15 %, with
slack where it turns back, noise, and drift with each turn.

Goals: 90 % within three adjustments; none ever over the range.

bench/run set_points, or python -m bench.set_points SIZE SEED
"""

import random
import sys
from collections import Counter
from dataclasses import dataclass, field
from multiprocessing import Pool

from zerodip.bench.adjusting import BenchLook, next_adjustment
from zerodip.bench.device import BenchDevice, SetPoint

MOST = 12


@dataclass
class DualSwitch:
    """One switch; pressures in Pa gauge."""

    rng: random.Random
    device: BenchDevice = field(init=False)
    points: list[float] = field(init=False)
    ranged: bool = True

    def __post_init__(self) -> None:
        rng, span = self.rng, 10 ** self.rng.uniform(4, 7.3)
        low = -self.rng.choice((0.0, 0.0, min(0.5 * span, 1e5)))
        lower, apart = rng.uniform(0.15, 0.6), rng.uniform(0.05, 0.3)
        tolerance = rng.uniform(0.005, 0.015)
        self.device = BenchDevice(
            name="any",
            low_gauge_pa=low,
            high_gauge_pa=low + span,
            points=tuple(
                SetPoint(
                    gauge_pa=low + share * span,
                    acts=rng.choice(("rising", "falling")),
                    tolerance_share=tolerance,
                )
                for share in (lower, lower + apart)
            ),
        )
        self.span, self.tolerance = span, tolerance * span
        found = [p.gauge_pa + rng.gauss(0, 0.05) * span for p in self.device.points]
        self.points = [min(max(each, low), low + span) for each in found]  # no switch acts beyond
        self.slopes = [rng.lognormvariate(-2.75, 0.4) * span for _ in range(2)]
        self.slopes = [min(max(each, span / 60), span / 4) for each in self.slopes]
        self.cross = [rng.uniform(-0.03, 0.15) for _ in range(2)]
        self.slack = [rng.uniform(0, 0.05) for _ in range(2)]
        self.noise = rng.uniform(0.0003, 0.0015) * span
        self.way = [1.0, 1.0]

    def turn(self, lower: float, upper: float) -> None:
        """Turns both screws."""
        for at, turns in enumerate((lower, upper)):
            if not turns:
                continue
            way = 1.0 if turns > 0 else -1.0
            made = turns - way * min(self.slack[at], abs(turns)) * (way != self.way[at])
            made *= self.rng.gauss(1, 0.02)
            self.way[at] = way
            self.points[at] += made * self.slopes[at]
            self.points[1 - at] += made * self.slopes[at] * self.cross[at]
        self.points = [each + self.rng.gauss(0, 0.0005) * self.span for each in self.points]
        end = self.device.high_gauge_pa
        self.ranged &= all(self.device.low_gauge_pa <= each <= end for each in self.points)

    def look(self) -> tuple[float, float]:
        """The mean of three runs of each point."""
        one, other = (p + self.rng.gauss(0, self.noise / 3**0.5) for p in self.points)
        return one, other

    @property
    def within(self) -> bool:
        """Whether both points truly lie within the tolerance."""
        return all(
            abs(at - point.gauge_pa) <= self.tolerance
            for at, point in zip(self.points, self.device.points, strict=True)
        )


def outcome(seed: int) -> tuple[int, bool, bool]:
    """Adjustments until within, whether the planner then said so truly, whether it stayed in the
    range."""
    switch = DualSwitch(random.Random(seed))
    lower, upper = switch.look()
    looks, turned, first = [BenchLook(lower_pa=lower, upper_pa=upper)], 0, None
    while turned < MOST and len(looks) < 2 * MOST:
        first = turned if first is None and switch.within else first
        sd = switch.noise / 3**0.5
        step = next_adjustment(switch.device, looks, sd, 2 * sd)
        if step.do in ("done", "stop"):
            break
        turns = {"lower": step.turns.get("lower", 0.0), "upper": step.turns.get("upper", 0.0)}
        if step.do == "turn":
            switch.turn(**turns)
            turned += 1
        lower, upper = switch.look()
        looks.append(
            BenchLook(
                lower_pa=lower,
                upper_pa=upper,
                lower_turns=turns["lower"],
                upper_turns=turns["upper"],
            )
        )
    first = turned if first is None and switch.within else first
    return MOST if first is None else first, switch.within, switch.ranged


def main() -> None:
    """Prints how many needed how many."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 5000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 70_000
    with Pool() as pool:
        made = pool.map(outcome, range(seed, seed + count), chunksize=50)
    needed = Counter(first for first, _, _ in made)
    by_three = sum(n for first, n in needed.items() if first <= 3) / count
    print(
        f"{count} dual switches: within the tolerance after at most three {by_three:.1%} (goal 90)"
    )
    print("adjustments needed:", ", ".join(f"{k}: {needed[k]}" for k in sorted(needed)))
    print(f"left within the tolerance {sum(within for _, within, _ in made) / count:.1%}")
    print(f"{sum(not ranged for *_, ranged in made)} ever over an end of the range (goal 0)")


if __name__ == "__main__":
    main()
