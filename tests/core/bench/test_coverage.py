"""Sums of errors: against published results, Monte Carlo (GUM Supplement 1) and scipy."""

import math

import numpy as np
import pytest
from scipy import integrate, stats

from zerodip.bench.coverage import Error, pooled

ONE = math.sqrt(3)  # half-width of a rectangle of standard deviation 1


@pytest.mark.parametrize(
    ("error", "standard", "half_width"),
    [
        (Error(normal=2.0), 2.0, 3.92),  # JCGM 101:2008, 9.2.2: four normal ones of 1, from memory
        (Error((ONE, ONE, ONE, ONE)), 2.0, 3.88),  # 9.2.3: four rectangular ones, from memory
        (Error((ONE, ONE, ONE, 10 * ONE)), 10.1, 17.0),  # 9.2.4: one ten times as wide
    ],
)
def test_published_sums(error: Error, standard: float, half_width: float) -> None:
    assert error.standard == pytest.approx(standard, abs=0.06)
    assert error.half_width() == pytest.approx(half_width, abs=0.02)


@pytest.mark.parametrize("freedom", [2, 3, 4, 8, 20, 60])
def test_few_readings_are_student_s_t(freedom: int) -> None:
    error = Error(of_readings=1.0, freedom=float(freedom))
    for share in (0.5, 0.9, 0.95, 0.99):
        expected = stats.t.ppf((1 + share) / 2, freedom)
        assert error.half_width(share) == pytest.approx(expected, rel=2e-3)


def test_against_monte_carlo() -> None:
    """Within 2 % (as asked of the expanded uncertainty), for any mix of parts."""
    rng = np.random.default_rng(12)
    count = 400_000
    for _ in range(16):
        widths = tuple(10 ** rng.uniform(-1, 1, rng.integers(1, 4)))
        freedom = float(rng.integers(2, 16))
        error = Error(widths, 10 ** rng.uniform(-1, 1), 10 ** rng.uniform(-1, 1), freedom)
        drawn = rng.normal(0, error.normal, count)
        drawn += error.of_readings * rng.standard_t(freedom, count)
        for width in widths:
            drawn += rng.uniform(-width, width, count)
        assert error.half_width() == pytest.approx(np.quantile(np.abs(drawn), 0.95), rel=0.02)
        for value in (-error.standard, 0.3 * error.standard):
            assert error.below(value) == pytest.approx(np.mean(drawn < value), abs=0.004)


@pytest.mark.parametrize("off", [0.0, 0.4, 1.0, 1.6])
def test_the_probability_of_conformity_against_numeric_integration(off: float) -> None:
    """JCGM 106:2012, 7: the part of the density that lies within the tolerance; a normal and a
    rectangular error, convolved by quadrature."""
    error, tolerance = Error((0.5,), normal=0.3), 1.0

    def density(x: float) -> float:
        return float(stats.norm.cdf((x + 0.5) / 0.3) - stats.norm.cdf((x - 0.5) / 0.3))

    expected, _ = integrate.quad(density, -tolerance - off, tolerance - off)
    assert error.within(-tolerance - off, tolerance - off) == pytest.approx(expected, abs=1e-6)


def test_short_series_are_pooled() -> None:
    series = [[1.0, 2.0, 3.0], [10.0, 10.0], [5.0]]
    assert pooled(series) == (pytest.approx(math.sqrt(2 / 3)), 3.0)
    assert pooled([[1.0], []]) == (0.0, math.inf)
