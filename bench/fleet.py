"""Made-up switches, in psi: water switches of 1 to 9 psi a turn, screws and nuts of compressors of
1 to 70, with backlash, drift, nuts that move both points a little unequally, and gauges that are
read with noise and to the next half or whole psi. Odd ones besides: nuts dead for up to half a
turn, turns made the other way, gauges that stick or lag, slopes that change with the position."""

import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

__all__ = ["ODD", "Switch", "fleet", "switch_slopes"]

ODD = ("dead", "wrong", "sticks", "lags", "bends")


@dataclass
class Switch:
    """One switch: its class and whether its springs are a compressor's, true points, targets, what
    cut-out may never pass, and slopes by nut on cut-in and cut-out."""

    of: str
    stiff: bool
    chance: random.Random
    noise: float
    points: list[float]
    target: tuple[float, float]
    highest: float
    slopes: tuple[tuple[float, float], ...]
    backlash: float
    drift: float
    rounds: float
    odd: str = ""
    last: list[float] = field(default_factory=lambda: [1.0, 1.0])
    passed: bool = False
    dead: list[float] = field(default_factory=lambda: [0.0, 0.0])
    wrong_way: bool = False
    shown: tuple[float, float] | None = None
    turned: list[float] = field(default_factory=lambda: [0.0, 0.0])

    def __post_init__(self) -> None:
        if self.odd == "dead":
            self.dead = [self.chance.uniform(0, 0.5), self.chance.uniform(0, 0.5)]
        self.wrong_way = self.odd == "wrong"

    def turn(self, turns: Sequence[float]) -> None:
        """Turns the nuts; a reversal loses the backlash."""
        for nut, turn in enumerate(turns):
            moved = self._effective(nut, -turn if self.wrong_way else turn)
            moved += self.chance.gauss(0, 0.01) * bool(turn)  # turned by eye
            self.turned[nut] += moved
            bent = 1 + 0.15 * self.turned[nut] if self.odd == "bends" else 1.0
            for point in (0, 1):
                self.points[point] += self.slopes[nut][point] * moved * min(max(bent, 0.5), 2.0)
        if any(turns):
            self.points[1] += self.chance.gauss(0, self.drift)
        self.passed = self.passed or self.points[1] > self.highest

    def _effective(self, nut: int, turn: float) -> float:
        reversed_ = turn * self.last[nut] < 0
        self.last[nut] = turn or self.last[nut]
        lost = min(self.backlash, abs(turn)) if reversed_ else 0.0
        lost += min(self.dead[nut], abs(turn) - lost)
        self.dead[nut] -= min(self.dead[nut], abs(turn))
        return turn - lost if turn > 0 else turn + lost

    def watch(self) -> tuple[float, float]:
        """What a person reads off the gauge for both points. A sticking gauge shows what it did at
        every other look, a lagging one half of what it should."""
        seen = [point + self.chance.gauss(0, self.noise) for point in self.points]
        if self.shown is not None and self.odd == "sticks" and self.chance.random() < 0.5:
            return self.shown
        if self.shown is not None and self.odd == "lags":
            seen = [0.3 * was + 0.7 * now for was, now in zip(self.shown, seen, strict=True)]
        self.shown = (
            round(seen[0] / self.rounds) * self.rounds,
            round(seen[1] / self.rounds) * self.rounds,
        )
        return self.shown

    def tapped(self) -> None:
        """The gauge is tapped: it shows what it should at the next look."""
        self.shown = None

    def off(self) -> float:
        """How far the worse of the points that can be set truly is from its target."""
        points = (1,) if self.of == "one" else (0, 1)
        return max(abs(self.points[point] - self.target[point]) for point in points)


def _log_normal(chance: random.Random, median: float, octaves: float, most: float) -> float:
    return min(max(median * 2.0 ** chance.gauss(0, octaves), 1.0), most)


def _decade(chance: random.Random) -> float:
    """Evenly over the logarithm, 1 to 70 psi a turn."""
    return 70.0 ** chance.random()


def switch_slopes(chance: random.Random, of: str, stiff: bool) -> tuple[tuple[float, float], ...]:
    def small() -> float:
        return chance.gauss(0, 0.1)

    first = _decade(chance) if stiff else _log_normal(chance, 2.5, 0.5, 9.0)
    second = _decade(chance) if stiff else _log_normal(chance, 3.2, 0.55, 9.0)
    if of == "one":
        return ((first * chance.gauss(0.95, 0.08), first),)
    if of == "points":
        return ((small(), 1.2 * first), (1.2 * second, small()))
    return ((first, first * chance.gauss(1, 0.08)), (small(), second))


def fleet(
    of: str, stiff: bool, noise: float, size: int, seed: int, odd: bool = False
) -> Iterator[Switch]:
    """Random switches of a class, the same for every way of setting; odd ones of every sort."""
    chance = random.Random(f"{of} {stiff} {seed}")
    for number in range(size):
        low = float(chance.choice([90, 100, 110, 120] if stiff else [20, 30, 40, 50]))
        gap = 25.0 if stiff else 20.0
        far = 1.5 if stiff else 1.0
        least = 5.0 if stiff else 1.5  # what the least turn of the stiffest nut moves
        points = [low + far * chance.uniform(-10, 10), low + gap + far * chance.uniform(-12, 8)]
        yield Switch(
            of=of,
            stiff=stiff,
            chance=random.Random(f"{seed} {number}"),
            noise=noise,
            points=points,
            target=(low, low + gap),
            highest=max(low + gap + far * chance.uniform(8, 20), points[1] + least),
            slopes=switch_slopes(chance, of, stiff),
            backlash=chance.uniform(0, 0.06),
            drift=chance.uniform(0, 0.3),
            rounds=chance.choice([0.5, 1.0]),
            odd=ODD[number % len(ODD)] if odd else "",
        )
