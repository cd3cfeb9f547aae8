"""Fleets of made-up switches set in different ways, in one run: tries (power-offs), looks at the
gauge, minutes until the points are called set, how many are truly within what was promised, and how
often cut-out passed what it may never pass. A look takes a whole cycle of a 44 gal tank at 10 gpm,
206 s; a power-off two minutes. Goals: no limit passed in 20,000 switches of every class; at least
95 % truly within what was promised; fewer minutes than the fixed rules.

bench/run turns, or python -m bench.turns SIZE SEED
"""

import statistics
import sys
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from multiprocessing import Pool

from zerodip.switch.belief import predict, prior, update
from zerodip.switch.classes import CUT_IN, CUT_OUT, class_of
from zerodip.switch.goal import HOW_NEARS, SURE, Goal, Near, Work
from zerodip.switch.planner import next_step
from zerodip.units import PSI

from .fleet import Switch, fleet

LOOK_S, OFF_S, MOST_TRIES, MOST_LOOKS = 206.0, 120.0, 25, 60
CLASSES = (("two", False), ("two", True), ("one", True), ("one", False), ("points", False))


@dataclass
class Outcome:
    """How one switch was set: tries, looks, what was promised and how far it truly is (psi)."""

    tries: int
    looks: int
    promised: float
    off: float
    passed: bool

    @property
    def minutes(self) -> float:
        """Minutes of looks and power-offs."""
        return (self.looks * LOOK_S + self.tries * OFF_S) / 60


def ours(switch: Switch, near: Near = "gauge") -> Outcome:
    """Ours, as near as the gauge can tell. Or as near as is said."""
    noise = (switch.noise**2 + switch.rounds**2 / 12) ** 0.5 * PSI
    goal = Goal(
        cut_in_pa=switch.target[0] * PSI,
        cut_out_pa=switch.target[1] * PSI,
        tolerance_pa=HOW_NEARS[near].tolerance_pa(noise),
        highest_pa=switch.highest * PSI,
    )
    missed_s = HOW_NEARS[near].missed_s
    work = Work(noise_pa=noise, look_s=LOOK_S, power_off_s=OFF_S, missed_s=missed_s)
    seen = switch.watch()
    belief = prior(class_of(switch.of, switch.stiff), seen[0] * PSI, seen[1] * PSI, noise)
    tries, looks = 0, 1
    step = next_step(belief, goal, work)
    while step.do not in ("done", "stop") and tries < MOST_TRIES and looks < MOST_LOOKS:
        if step.do == "turn":
            switch.turn(step.turns)
            belief, tries = predict(belief, step.turns), tries + 1
        seen, looks = switch.watch(), looks + 1
        for point in (CUT_IN, CUT_OUT):
            belief = update(belief, point, seen[point] * PSI, noise)
        step = next_step(belief, goal, work)
    promised = goal.tolerance_pa if step.sure >= SURE else step.near_pa
    return Outcome(tries, looks, promised / PSI, switch.off(), switch.passed)


def _by_ratio(switch: Switch, learn: bool, per_turn: float) -> Outcome:
    """The rules of thumb for two nuts: a fixed psi a turn, or the last ratio; they stop when both
    readings look right."""
    slopes, tries, seen = [per_turn, per_turn], 0, switch.watch()
    while tries < MOST_TRIES:
        short = switch.target[0] - seen[0], switch.target[1] - seen[1]
        if abs(short[0]) <= 1 and abs(short[1]) <= 1:
            break
        turns = [_eighths(short[0] / slopes[0]), _eighths((short[1] - short[0]) / slopes[1])]
        before = seen
        switch.turn(turns)
        seen, tries = switch.watch(), tries + 1
        if learn:
            moved = seen[0] - before[0], (seen[1] - before[1]) - (seen[0] - before[0])
            slopes = [_ratio(m, t, s) for m, t, s in zip(moved, turns, slopes, strict=True)]
    return Outcome(tries, tries + 1, 1.0, switch.off(), switch.passed)


def _eighths(turns: float) -> float:
    return max(min(round(turns * 8) / 8, 8), -8)


def _ratio(moved: float, turns: float, known: float) -> float:
    return min(max(moved / turns, 0.5), 12) if abs(turns) >= 0.25 else known


def fixed(switch: Switch) -> Outcome:
    """A fixed 2 psi a turn."""
    return _by_ratio(switch, False, 2.0)


def last_ratio(switch: Switch) -> Outcome:
    """As far a turn as the last one."""
    return _by_ratio(switch, True, 2.5)


def within_one(switch: Switch) -> Outcome:
    """Ours, to 1 psi."""
    return ours(switch, "one")


def within_two(switch: Switch) -> Outcome:
    """Ours, to 2 psi."""
    return ours(switch, "two")


Way = Callable[[Switch], Outcome]
OURS: tuple[Way, ...] = (ours, within_one, within_two)


def _print(way: Way, made: Sequence[Outcome], taken_s: float) -> None:
    size = len(made)
    tries = sorted(each.tries for each in made)
    print(
        f"  {(way.__doc__ or '').split('.')[0][:42]:42}"
        f" minutes {statistics.mean(o.minutes for o in made):5.1f}"
        f" (90 % {sorted(o.minutes for o in made)[size * 9 // 10]:.0f});"
        f" tries {statistics.mean(tries):.2f} (90 % {tries[size * 9 // 10]});"
        f" looks {statistics.mean(o.looks for o in made):.2f};"
        f" promised ±{statistics.mean(o.promised for o in made):.2f} psi, kept"
        f" {sum(o.off <= o.promised for o in made) / size:.1%};"
        f" within 1 psi {sum(o.off <= 1 for o in made) / size:.0%};"
        f" limits passed {sum(o.passed for o in made)};"
        f" {taken_s * 1e3 / max(sum(o.looks for o in made), 1):.1f} ms a step"
    )


def main() -> None:
    """Prints a table for each class and noise."""
    size, seed = (int(given) for given in [*sys.argv[1:], "20000", "7"][:2])
    with Pool() as pool:
        for of, stiff in CLASSES:
            ways = (fixed, last_ratio, *OURS) if (of, stiff) == ("two", False) else OURS[:1]
            for noise in (0.5, 0.7, 1.0):
                what = f"“{of}”, {'1 to 70' if stiff else '1 to 9'} psi a turn"
                print(f"{what}, read to ± {noise} psi, {size} switches")
                for way in ways:
                    begin = time.perf_counter()
                    made = pool.map(way, fleet(of, stiff, noise, size, seed), chunksize=50)
                    _print(way, made, time.perf_counter() - begin)


if __name__ == "__main__":
    main()
