"""What the plants of every kind share in a diagnosis: where points were found, how a run is timed,
how chances rise. Errors and chances are judgement, no source."""

import math
from typing import Any

from zerodip.diagnosis.parts import Forecast, Observation
from zerodip.units import PSI

__all__ = ["points_found", "runs_on", "sigmoid", "timed_run"]

_WATCH_S = 1.0  # of the stopwatch, one standard deviation


def sigmoid(x: float) -> float:
    """A chance that rises from 0 to 1 around 0.

    Args:
        x: Any number.

    Returns:
        A chance, 0 to 1.
    """
    return 1 / (1 + math.exp(-max(min(x, 40.0), -40.0)))


def points_found(wanted: tuple[float, float], seen: tuple[Observation, ...]) -> tuple[float, float]:
    """Cut-in and cut-out where they were seen, else where they were set.

    Args:
        wanted: Cut-in and cut-out as set, Pa gauge.
        seen: What was observed.

    Returns:
        Both points, Pa gauge, more than 1 psi apart; as set where what was seen is no band.
    """
    by = {each.item: max(float(each.value), PSI) for each in seen if each.item in _POINTS}
    low, high = (by.get(item, set_) for item, set_ in zip(_POINTS, wanted, strict=True))
    return (low, high) if high - low > PSI else wanted


_POINTS = ("cut_in", "cut_out")


def timed_run(plant: Any, spread: float) -> Forecast:
    """A run by the stopwatch.

    Args:
        plant: A plant with `run_s`, that starts and stops or not.
        spread: One standard deviation of the run by the plates, as a share.

    Returns:
        The forecast; without end where it does not start, or never stops.
    """
    if not (plant.starts and plant.stops) or plant.run_s == math.inf:
        return Forecast(never=True)
    return Forecast(mean=plant.run_s, sd=math.hypot(spread, _WATCH_S / plant.run_s))


def runs_on(plant: Any, long_s: float) -> float:
    """How likely it is said that it never stops.

    Args:
        plant: A plant with `run_s`, that starts and stops or not.
        long_s: A run that is taken for endless as often as not, s.

    Returns:
        A chance, 0 to 1.
    """
    if not plant.starts:
        return 0.0
    if not plant.stops or plant.run_s == math.inf:
        return 0.95
    return 0.9 * sigmoid(math.log(plant.run_s / long_s) / 0.25)
