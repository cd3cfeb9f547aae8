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
from dataclasses import dataclass, replace
from multiprocessing import Pool
from multiprocessing.pool import Pool as Pool_

from zerodip.switch.belief import Watch
from zerodip.switch.classes import class_of
from zerodip.switch.goal import HOW_NEARS, SURE, Goal, Near, Work
from zerodip.switch.health import Complaint
from zerodip.switch.planner import careful_step
from zerodip.switch.watching import believed
from zerodip.units import PSI

from .fleet import ODD, Switch, fleet

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
    kind, tries = class_of(switch.of, switch.stiff), 0
    watches = [_seen(switch, (0.0,) * len(kind.nuts))]
    step, wrong = careful_step(believed(kind, watches, noise), watches, goal, work)
    while step.do != "done" and tries < MOST_TRIES and len(watches) < MOST_LOOKS:
        turns = step.turns or (0.0,) * len(kind.nuts)
        if step.do == "turn":
            switch.turn(turns)
            tries += 1
        elif step.tap:
            switch.tapped()
        elif step.do == "stop" and not _put_right(switch, watches, wrong):
            break
        watches.append(_seen(switch, turns))
        step, wrong = careful_step(believed(kind, watches, noise), watches, goal, work)
    promised = goal.tolerance_pa if step.sure >= SURE else step.near_pa
    return Outcome(tries, len(watches), promised / PSI, switch.off(), switch.passed)


def _seen(switch: Switch, turns: Sequence[float]) -> Watch:
    low, high = switch.watch()
    return Watch(low * PSI, high * PSI, tuple(turns))


def _put_right(switch: Switch, watches: list[Watch], wrong: Sequence[Complaint]) -> bool:
    """What somebody does who is asked: corrects a turn made the other way, taps the gauge."""
    asked = {each.id for each in wrong}
    if "other-way" in asked and switch.wrong_way:
        switch.wrong_way = False
        watches[:] = [replace(w, turns=tuple(-turn for turn in w.turns)) for w in watches]
    elif asked and any(watches[-1].turns):
        switch.tapped()
    else:
        return False
    return True


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
    asked = [int(given) for given in sys.argv[1:]]
    size, seed = (asked + [20000, 7][len(asked) :])[:2]
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
            _odd(pool, of, stiff, size, seed)


def _odd(pool: Pool_, of: str, stiff: bool, size: int, seed: int) -> None:
    """A fleet of odd switches, sort by sort."""
    begin = time.perf_counter()
    made = pool.map(ours, fleet(of, stiff, 0.7, size, seed, odd=True), chunksize=50)
    print(f"“{of}”, odd ones, read to ± 0.7 psi, {size} switches")
    for at, odd in enumerate(ODD):
        print(f"  {odd}:", end="")
        _print(ours, made[at :: len(ODD)], (time.perf_counter() - begin) / len(ODD))


if __name__ == "__main__":
    main()
