"""Calibrations drawn at random, judged once more from their raw readings by numpy: means, what
repeats, the uncertainty by drawing every part of it (JCGM 101:2008, from memory), verdicts."""

from typing import Any

import numpy as np
import pytest
from numpy.typing import NDArray

from zerodip.bench.calibrate import calibrate
from zerodip.bench.file import Calibration, read_calibration
from zerodip.bench.judge import PointFigures

DRAWS = 400_000
DELAY_S = {"lamp": 0.5, "meter": 0.5, "gauge": 0.1}
RANGES = [(0.0, 1e4), (0.0, 7e5), (0.0, 4e7), (-1e5, 0.0), (-1e5, 6e5)]


def drawn(rng: np.random.Generator) -> dict[str, Any]:
    """A calibration of a switch of any range, up to two tolerances off, by any reference."""
    low, high = RANGES[rng.integers(len(RANGES))]
    span = high - low
    tolerance = span * float(rng.choice([0.003, 0.01, 0.03]))
    wanted = sorted([rng.uniform(0.3, 0.45), rng.uniform(0.55, 0.7)][: rng.integers(1, 3)])
    points = [
        {
            "gauge_pa": low + share * span,
            "acts": str(rng.choice(["rising", "falling"])),
            "tolerance_pa": tolerance,
            "deadband_pa": span * rng.uniform(0.01, 0.1),
        }
        for share in wanted
    ]
    finest = tolerance * float(rng.choice([0.01, 0.1, 0.3]))
    quality = {"grade": "4A"} if rng.random() < 0.5 else {"expanded_pa": 0.3 * tolerance}
    return {
        "device": {
            "name": "Any",
            "guards": "Any",
            "points": points,
            "low_gauge_pa": low,
            "high_gauge_pa": high,
        },
        "reference": {
            "name": "Any",
            "resolution_pa": finest,
            "overruled": "drawn at random",
            "low_gauge_pa": low,
            "high_gauge_pa": high + 0.3 * span,
            **quality,
        },
        "on": "2026-11-27",
        "found": [run for at, each in enumerate(points) for run in runs(rng, at, each, tolerance)],
    }


def runs(
    rng: np.random.Generator, at: int, point: dict[str, Any], tolerance: float
) -> list[dict[str, Any]]:
    off, repeats = rng.uniform(-2, 2) * tolerance, tolerance * rng.choice([0.02, 0.2])
    back = -1 if point["acts"] == "rising" else 1
    timed = rng.random() < 0.5
    made = []
    for _ in range(rng.integers(3, 7)):
        acted = point["gauge_pa"] + off + repeats * rng.normal()
        reset = acted + back * (0.8 * point["deadband_pa"] + repeats * rng.normal())
        run = {"point": ("lower", "upper")[at], "set_gauge_pa": acted, "reset_gauge_pa": reset}
        run["seen_by"] = str(rng.choice(list(DELAY_S)))
        run["rate_pa_s"] = float(tolerance * rng.uniform(0, 0.5)) if timed else None
        made.append(run)
    return made


def any_within(rng: np.random.Generator, half: float) -> NDArray[np.float64]:
    return rng.uniform(-half, half, DRAWS)


ENDS = ("set_gauge_pa", "reset_gauge_pa")


def scattered(series: list[NDArray[np.float64]]) -> tuple[int, float]:
    """Degrees of freedom and standard deviation of some series together."""
    freedom = sum(each.size - 1 for each in series)
    squares = sum(float(((each - each.mean()) ** 2).sum()) for each in series)
    return freedom, float(np.sqrt(squares / freedom))


def budget(rng: np.random.Generator, of: Calibration, at: int) -> tuple[NDArray[np.float64], float]:
    """Drawn errors of a point's mean, and their standard uncertainty."""
    mine = [run for run in of.found if run.at == at]
    sets = np.array([run.set_gauge_pa for run in mine])
    series = [
        [np.array([getattr(run, name) for run in of.found if run.at == each]) for name in ENDS]
        for each in range(len(of.device.points))
    ]
    freedom, repeats = scattered([each for point in series for each in point])
    if scattered(series[at])[1] > repeats:  # a point that wanders is not hidden by the other
        freedom, repeats = scattered(series[at])
    moved = max(
        (0.002 * of.device.span_pa if run.rate_pa_s is None else run.rate_pa_s)
        * DELAY_S[run.seen_by]
        for run in mine
    )
    half = of.reference.resolution_pa / 2
    error = any_within(rng, half) + any_within(rng, moved)
    squares = (half**2 + moved**2) / 3
    if of.reference.expanded_pa is None:  # 0.1 % of the scale: ASME B40.100, 4A, from memory
        grade = 0.001 * (of.reference.high_gauge_pa - of.reference.low_gauge_pa)
        error += any_within(rng, grade)
        squares += grade**2 / 3
    else:
        error += rng.normal(0, of.reference.expanded_pa / 2, DRAWS)
        squares += of.reference.expanded_pa**2 / 4
    of_mean = repeats / np.sqrt(sets.size)
    error += of_mean * rng.standard_t(freedom, DRAWS)
    return error, float(np.sqrt(squares + of_mean**2))


def verdict(off: float, tolerance: float, expanded: float) -> str:
    limits = (tolerance - expanded, tolerance, tolerance + expanded)
    words = ("pass", "conditional_pass", "conditional_fail", "fail")
    return words[int(np.searchsorted(limits, abs(off)))]


def compare(rng: np.random.Generator, of: Calibration, told: PointFigures) -> None:
    point = of.device.points[told.at]
    mine = [run for run in of.found if run.at == told.at]
    off = float(np.mean([run.set_gauge_pa for run in mine]) - point.gauge_pa)
    error, standard = budget(rng, of, told.at)
    expanded = float(np.quantile(np.abs(error), 0.95))
    tolerance = point.tolerance_pa or 0.0
    assert told.error_pa == pytest.approx(off, abs=1e-6 * of.device.span_pa)
    assert told.budget.standard_pa == pytest.approx(standard, rel=1e-9)
    assert told.budget.expanded_pa == pytest.approx(expanded, rel=0.01)
    assert told.inside == pytest.approx(np.mean(np.abs(off + error) <= tolerance), abs=0.004)
    assert told.verdict in {verdict(off, tolerance, expanded * each) for each in (0.99, 1, 1.01)}
    assert told.deadband is not None
    width = np.mean([run.set_gauge_pa - (run.reset_gauge_pa or 0.0) for run in mine])
    assert told.deadband.mean_pa == pytest.approx(width if point.rises else -width)


@pytest.mark.parametrize("seed", range(16))
def test_any_calibration_is_as_its_raw_readings_say(seed: int) -> None:
    rng = np.random.default_rng(4200 + seed)
    of = read_calibration(drawn(rng))
    judged = calibrate(of)
    assert len(judged.left) == len(of.device.points)
    for told in judged.left:
        compare(rng, of, told)
