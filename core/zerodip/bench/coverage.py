"""What a sum of errors is: some anywhere within limits, some normal, one told by few readings.

Propagation of distributions without chance: the characteristic functions of independent errors
multiply, and their inversion gives the distribution of the sum. Source: JCGM 101:2008 (what is
propagated, and that a mean of n readings is a scaled t), from memory; Gil-Pelaez 1951 (the
inversion), from memory. Nothing but the standard library, so that a phone carries it.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

__all__ = ["Error", "pooled"]

_MOST_POINTS = 6000
_NEGLIGIBLE = 1e-8
_FEW = 100.0  # degrees of freedom from which a t is a normal distribution
_STEP = 0.1  # of the integral that gives the Bessel function


@dataclass(frozen=True)
class Error:
    """An error: half-widths within which parts of it lie anywhere, the standard deviation of what
    is normal of it, and of what is told by readings with so many degrees of freedom; all in one
    unit, 0 or more, not all 0."""

    half_widths: tuple[float, ...] = ()
    normal: float = 0.0
    of_readings: float = 0.0
    freedom: float = math.inf

    @cached_property
    def standard(self) -> float:
        """The standard uncertainty: the root of the sum of squares, each reading's deviation as it
        is (JCGM 100:2008, 5.1.2)."""
        squares = [width**2 / 3 for width in self.half_widths]
        return math.sqrt(math.fsum([*squares, self.normal**2, self.of_readings**2]))

    def below(self, value: float) -> float:
        """The probability that it lies below a value.

        Args:
            value: The value, in its unit.

        Returns:
            Probability, 0 to 1.
        """
        step, ordinates = self._ordinates
        waves = (math.sin(t * value) / t * phi for t, phi in ordinates)
        told = 0.5 + (value * step / 2 + step * math.fsum(waves)) / math.pi
        return min(max(told, 0.0), 1.0)

    def within(self, least: float, most: float) -> float:
        """The probability that it lies between two values."""
        return max(self.below(most) - self.below(least), 0.0)

    def half_width(self, share: float = 0.95) -> float:
        """Half the interval around nothing that holds a share of it.

        Args:
            share: Above 0 and below 1.

        Returns:
            The expanded uncertainty for that coverage, in its unit.
        """
        low, high = 0.0, 4 * self.standard
        while 2 * self.below(high) - 1 < share:
            low, high = high, 2 * high
        for _ in range(40):
            middle = (low + high) / 2
            low, high = (middle, high) if 2 * self.below(middle) - 1 < share else (low, middle)
        return high

    @cached_property
    def _ordinates(self) -> tuple[float, list[tuple[float, float]]]:
        """Step, and where the characteristic function is more than nothing, with its values."""
        reach = math.fsum(self.half_widths) + 12 * self.normal + self._tail * self.of_readings
        step = math.pi / reach
        made: list[tuple[float, float]] = []
        for k in range(1, _MOST_POINTS + 1):
            phi = self._characteristic(k * step)
            made.append((k * step, phi))
            if len(made) > 40 and max(abs(each) for _, each in made[-20:]) < _NEGLIGIBLE:
                break
        return step, made

    @property
    def _tail(self) -> float:
        """Standard deviations within which a t lies but for one in ten thousand."""
        return 12.0 + 5.0 * math.exp(math.log(1e4) / self.freedom)

    def _characteristic(self, t: float) -> float:
        made = math.exp(-((self.normal * t) ** 2) / 2)
        for width in self.half_widths:
            x = width * t
            made *= math.sin(x) / x if x > 1e-8 else 1.0
        return made * _of_t(self.of_readings * t, self.freedom)


def _of_t(t: float, freedom: float) -> float:
    """The characteristic function of Student's t (by the modified Bessel function of the second
    kind, as an integral that the trapezoidal rule gives exactly enough)."""
    if t < 1e-9:
        return 1.0
    if freedom >= _FEW:
        return math.exp(-(t**2) / 2)
    z, order = math.sqrt(freedom) * t, freedom / 2
    if z > 700:
        return 0.0
    total, theta = 0.5 * math.exp(-z), 0.0
    while True:
        theta += _STEP
        exponent = order * theta - z * math.cosh(theta)
        total += 0.5 * math.exp(exponent) * (1 + math.exp(-2 * order * theta))
        if exponent < -45 and z * math.sinh(theta) > order:
            break
    scale = order * math.log(z) - math.lgamma(order) - (order - 1) * math.log(2)
    return math.exp(scale + math.log(max(total * _STEP, 1e-300)))


def pooled(series: Sequence[Sequence[float]]) -> tuple[float, float]:
    """The standard deviation of one reading by several short series, and its degrees of freedom.

    Args:
        series: Readings of one thing each; those with a single one tell nothing.

    Returns:
        The deviation, in their unit, 0 where nothing tells it, and the degrees of freedom.

    Source: JCGM 100:2008, 4.2.4 and H.3.6 (pooled estimate), from memory.
    """
    squares, freedom = 0.0, 0
    for each in series:
        mean = math.fsum(each) / len(each) if each else 0.0
        squares += math.fsum((value - mean) ** 2 for value in each)
        freedom += max(len(each) - 1, 0)
    return (math.sqrt(squares / freedom), float(freedom)) if freedom else (0.0, math.inf)
