"""A fleet of made-up switches set in different ways, in one run: tries (power-offs) until both
points are called set, and how many of those truly lie within ±1 psi. Goals at 0.7 psi noise: ours
median 2, nine in ten within 3, no limit passed, at most 60 % of the tries of a fixed 2.0 psi a
turn, at least 95 % truly set."""

import random
import statistics
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from zerodip.switch.belief import CLASSES, CUT_IN, CUT_OUT, predict, prior, update
from zerodip.switch.planner import Goal, next_step
from zerodip.units import PSI

FLEET, MOST = 5000, 25


@dataclass
class Switch:
    """One switch of the fleet, in psi: true points, slopes, backlash on reversal, drift of the
    differential with each try."""

    chance: random.Random
    noise: float
    cut_in: float
    cut_out: float
    target: tuple[float, float]
    highest: float
    slope: float
    slope_out: float
    gap: float
    cross: float
    backlash: float
    drift: float
    rounds: float
    last: list[float] = field(default_factory=lambda: [1.0, 1.0])
    passed: bool = False

    def turn(self, range_turns: float, gap_turns: float) -> None:
        """Turns both nuts; a reversal loses the backlash."""
        moved = [self._effective(0, range_turns), self._effective(1, gap_turns)]
        self.cut_in += self.slope * moved[0] + self.cross * moved[1]
        self.cut_out += self.slope_out * moved[0] + self.gap * moved[1]
        if range_turns or gap_turns:
            self.cut_out += self.chance.gauss(0, self.drift)
        self.passed = self.passed or self.cut_out > self.highest

    def _effective(self, nut: int, turns: float) -> float:
        if turns * self.last[nut] < 0:
            turns -= (
                self.backlash
                * (1 if turns > 0 else -1)
                * min(1.0, abs(turns) / max(self.backlash, 1e-9))
            )
        self.last[nut] = turns or self.last[nut]
        return turns

    def watch(self) -> tuple[float, float]:
        """What a person reads off the gauge for both points."""
        seen = [point + self.chance.gauss(0, self.noise) for point in (self.cut_in, self.cut_out)]
        return (
            round(seen[0] / self.rounds) * self.rounds,
            round(seen[1] / self.rounds) * self.rounds,
        )

    @property
    def right(self) -> bool:
        """Whether both points truly lie within ±1 psi."""
        return abs(self.cut_in - self.target[0]) <= 1 and abs(self.cut_out - self.target[1]) <= 1


def _between(value: float, least: float, most: float) -> float:
    """Slopes of real springs have an end: range nuts 1 to 5.5 psi a turn, differential nuts 1.2 to
    7.5."""
    return min(max(value, least), most)


def fleet(noise: float, seed: int = 4) -> Iterator[Switch]:
    """Random switches, the same for every way of setting."""
    chance = random.Random(seed)
    for number in range(FLEET):
        low = chance.choice([20, 30, 40, 50])
        target = (low + 0.0, low + 20.0)
        slope = _between(2.5 * 2.0 ** chance.gauss(0, 0.45), 1.0, 5.5)
        yield Switch(
            chance=random.Random(number),
            noise=noise,
            cut_in=target[0] + chance.uniform(-10, 10),
            cut_out=target[1] + chance.uniform(-12, 8),
            target=target,
            highest=target[1] + chance.uniform(8, 20),
            slope=slope,
            slope_out=slope * chance.gauss(1, 0.08),
            gap=_between(3.2 * 2.0 ** chance.gauss(0, 0.5), 1.2, 7.5),
            cross=chance.gauss(0, 0.1),
            backlash=chance.uniform(0, 0.06),
            drift=chance.uniform(0, 0.3),
            rounds=chance.choice([0.5, 1.0]),
        )


def ours(switch: Switch, order: str = "together") -> tuple[int, int]:
    """Tries and watches, by the belief."""
    noise = (switch.noise**2 + switch.rounds**2 / 12) ** 0.5 * PSI
    seen = switch.watch()
    belief = prior(CLASSES["two"], seen[0] * PSI, seen[1] * PSI, noise)
    goal = Goal(
        cut_in_pa=switch.target[0] * PSI,
        cut_out_pa=switch.target[1] * PSI,
        highest_pa=switch.highest * PSI,
        order=order,
    )
    tries, watches = 0, 1
    while tries < MOST and watches < 60:
        step = next_step(belief, goal)
        if step.do == "done":
            break
        if step.do == "turn":
            switch.turn(*step.turns)
            belief = predict(belief, step.turns)
            tries += 1
        seen = switch.watch()
        watches += 1
        for point in (CUT_IN, CUT_OUT):
            belief = update(belief, point, seen[point] * PSI, noise)
    return tries, watches


def _by_ratio(switch: Switch, learn: bool, per_turn: float, order: str) -> tuple[int, int]:
    """The rules of thumb: a fixed psi a turn, or the last ratio; they stop when both readings look
    right."""
    slopes = [per_turn, per_turn]
    seen, tries = switch.watch(), 0
    while tries < MOST:
        short = switch.target[0] - seen[0], switch.target[1] - seen[1]
        if abs(short[0]) <= 1 and abs(short[1]) <= 1:
            break
        turns = [_eighths(short[0] / slopes[0]), _eighths((short[1] - short[0]) / slopes[1])]
        if order == "first":
            turns = [turns[0], 0.0] if abs(short[0]) > 1 else [0.0, _eighths(short[1] / slopes[1])]
        before = seen
        switch.turn(*turns)
        seen, tries = switch.watch(), tries + 1
        if learn:
            moved = seen[0] - before[0], (seen[1] - before[1]) - (seen[0] - before[0])
            slopes = [_ratio(m, t, s) for m, t, s in zip(moved, turns, slopes, strict=True)]
    return tries, tries + 1


def _eighths(turns: float) -> float:
    return max(min(round(turns * 8) / 8, 8), -8)


def _ratio(moved: float, turns: float, known: float) -> float:
    return min(max(moved / turns, 0.5), 12) if abs(turns) >= 0.25 else known


WAYS: dict[str, Callable[[Switch], tuple[int, int]]] = {
    "fixed 2.0 psi a turn": lambda s: _by_ratio(s, False, 2.0, "together"),
    "fixed 2.0, range first": lambda s: _by_ratio(s, False, 2.0, "first"),
    "last ratio": lambda s: _by_ratio(s, True, 2.5, "together"),
    "ours, range first": lambda s: ours(s, "first"),
    "ours": ours,
}


def main() -> None:
    """Prints a table for each noise."""
    for noise in (0.5, 0.7, 1.0):
        print(f"reading noise {noise} psi, {FLEET} switches")
        means: dict[str, float] = {}
        for name, way in WAYS.items():
            switches, begin = list(fleet(noise)), time.perf_counter()
            counted = [way(switch) for switch in switches]
            taken = (time.perf_counter() - begin) * 1e3 / max(sum(w for _, w in counted), 1)
            tries = sorted(t for t, _ in counted)
            means[name] = statistics.mean(tries)
            three = sum(1 for t in tries if t <= 3) / FLEET
            right = sum(s.right for s in switches) / FLEET
            passed = sum(s.passed for s in switches)
            print(
                f"  {name:24} tries: median {statistics.median(tries):.0f}, 90 %"
                f" {tries[FLEET * 9 // 10]}, mean {means[name]:.2f}; in three {three:.1%}; truly"
                f" set {right:.1%}; limits passed {passed}; watches"
                f" {statistics.mean(w for _, w in counted):.1f}; {taken:.2f} ms a step"
            )
        print(
            f"  ours against fixed 2.0: {means['ours'] / means['fixed 2.0 psi a turn']:.0%} of its"
            " tries (goal 60 %)"
        )


if __name__ == "__main__":
    main()
