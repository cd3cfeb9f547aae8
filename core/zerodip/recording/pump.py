"""The pump's delivery by the line of its runs, whatever taps are open, as a share of the air's V·c.

By the gas law d(1/p)/dt = (draw − Q)/(V·c). Integrated over a run, −1/p is a straight combination
of time, of the time's integral of pressure and of its square, since the delivery is a curve of
pressure; so one least-squares problem holds all runs, each with its own level and draw. The draw is
told by the falls before and after a run, which are straight lines. Runs in which a tap was opened
or shut do not fit, and are left out."""

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from zerodip.recording.arrays import Floats
from zerodip.recording.cycles import Cycles, draws_beside
from zerodip.recording.samples import Samples

__all__ = ["Pump", "pump_of"]

_MOST_RUNS = 400  # taken, evenly over the recording
_FEWEST = 8  # samples in a run
_BESIDE = 1.5  # samples left out at either end of a run
_STEADY = 3.5  # standard deviations within which both falls agree, and a run fits
_CLEAR = 3.0  # standard errors by which a delivery is more than nothing
_FAR = 4.0  # robust standard deviations beyond which a run is left out


@dataclass(frozen=True)
class Pump:
    """The delivery in the middle of the band divided by V·c, 1/(Pa·s), its standard error; how much
    less it is at cut-out than at cut-in, as a share of it; and from how many runs."""

    value: float
    error: float
    falls_by: float
    runs: int


@dataclass(frozen=True)
class _Run:
    """One run's normal equations, its level and its slope taken out: for the two terms of the
    delivery's curve; and what makes its slope of them."""

    normal: Floats
    right: Floats
    slope: float
    slope_by: Floats
    slope_error: float
    left: float
    freedom: int
    draw: float
    draw_error: float


def pump_of(samples: Samples, cycles: Cycles, air: float, noise: float) -> Pump | None:
    """The pump's delivery by the runs that were seen whole, with the same draw before and after.

    Args:
        samples: Samples in order of time.
        cycles: Their cycles.
        air: The air's pressure at the site, Pa.
        noise: Standard deviation of one sample, Pa.

    Returns:
        The delivery; None with fewer than two such runs, and where they tell none.
    """
    beside = draws_beside(cycles, air)
    before, after, before_error, after_error = beside
    agree = np.abs(before - after) <= _STEADY * np.hypot(before_error, after_error)
    whole = np.flatnonzero(np.isfinite(cycles.run_s) & agree)
    if len(whole) < 2:
        return None
    taken = whole[np.linspace(0, len(whole) - 1, min(len(whole), _MOST_RUNS)).astype(int)]
    low, high = np.median(cycles.cut_in_pa[taken]), np.median(cycles.cut_out_pa[taken])
    if not low < high:  # it stood still: there is nothing to tell it by
        return None
    band = (float((low + high) / 2), float((high - low) / 2))
    runs = [
        each
        for at in taken
        if (
            each := _run(
                samples,
                (cycles.start_s[at], cycles.stop_s[at]),
                band,
                air,
                noise,
                _draw(*(each[at] for each in beside)),
            )
        )
    ]
    return _joined(runs)


def _run(
    samples: Samples,
    ends: tuple[float, float],
    band: tuple[float, float],
    air: float,
    noise: float,
    draw: tuple[float, float],
) -> _Run | None:
    start, stop = ends
    first, last = np.searchsorted(samples.time_s, [start, stop])
    if last - first < _FEWEST:
        return None
    step = (samples.time_s[last - 1] - samples.time_s[first]) / (last - first - 1)
    first, last = np.searchsorted(samples.time_s, [start + _BESIDE * step, stop - _BESIDE * step])
    x, gauge = samples.time_s[first:last] - start, samples.gauge_pa[first:last]
    if len(x) < _FEWEST:
        return None
    # A smooth line, so that the noise of a figure does not weigh, and bend, itself.
    shapes = np.linalg.qr(np.vander(2 * (x - x[0]) / (x[-1] - x[0]) - 1, 5))[0]
    smooth = shapes @ (shapes.T @ gauge)
    level = (smooth - band[0]) / band[1]
    terms = np.column_stack([np.ones_like(x), x, _integral(x, level), _integral(x, level**2)])
    weights = ((smooth + air) ** 2 / noise) ** 2
    normal = terms.T @ (weights[:, None] * terms)
    values = -1 / (gauge + air) * (1 - (noise / (smooth + air)) ** 2)  # a noisy figure's mean
    right = terms.T @ (weights * values)
    right[2:] -= _by_chance(x, shapes, level, (smooth + air) ** 2, weights) / band[1]
    own = np.linalg.inv(normal[:2, :2])
    mixed = normal[2:, :2] @ own
    fit, *_ = np.linalg.lstsq(normal, right, rcond=None)
    rest = values - terms @ fit
    return _Run(
        normal=normal[2:, 2:] - mixed @ normal[:2, 2:],
        right=right[2:] - mixed @ right[:2],
        slope=float((own @ right[:2])[1]),
        slope_by=(own @ normal[:2, 2:])[1],
        slope_error=float(math.sqrt(own[1, 1])),
        left=float(weights @ rest**2),
        freedom=len(x) - 4,
        draw=draw[0],
        draw_error=draw[1],
    )


def _by_chance(
    x: Floats, shapes: Floats, level: Floats, squared: Floats, weights: Floats
) -> Floats:
    """What the two terms of the delivery's curve and the values have in common by noise alone,
    which both hold: the smooth line is made of the samples that are fitted. Left in, it bends the
    curve of each run the same way."""
    line = np.column_stack([np.ones_like(x), x])
    ahead = np.linalg.solve(line.T @ (weights[:, None] * line), (weights[:, None] * line).T)
    shared = []
    for of_level in (np.ones_like(level), 2 * level):
        heaped = np.column_stack([_integral(x, of_level * each) for each in shapes.T])
        own = heaped - line @ (ahead @ heaped)
        shared.append(float((squared[:, None] * shapes * own).sum()))
    return np.array(shared)


def _integral(x: Floats, values: Floats) -> Floats:
    steps = np.diff(x) * (values[1:] + values[:-1]) / 2
    return np.concatenate([[0.0], np.cumsum(steps)])


def _draw(
    before: float, after: float, before_error: float, after_error: float
) -> tuple[float, float]:
    """The draw by both falls, by their weights, and its error. Each fall stands between two runs
    and is used for both, so that two draws are worth no more than the fall they share."""
    weights = np.array([before_error, after_error]) ** -2.0
    mean = float(np.average([before, after], weights=weights))
    return mean, math.sqrt(2 / float(weights.sum()))


def _joined(runs: list[_Run]) -> Pump | None:
    steady = [
        each for each in runs if each.left <= each.freedom + _STEADY * math.sqrt(2 * each.freedom)
    ]
    while len(steady) >= 2:
        normal = sum(each.normal for each in steady)
        right = sum(each.right for each in steady)
        curve = np.linalg.lstsq(normal, right, rcond=None)[0].astype(np.float64)
        values = np.array([each.slope - each.slope_by @ curve + each.draw for each in steady])
        errors = np.array([math.hypot(each.slope_error, each.draw_error) for each in steady])
        off = np.abs(values - np.median(values)) / errors
        near = off <= _FAR * max(1.0, 1.4826 * float(np.median(off)))
        if near.all():
            return _mean(steady, curve, normal, values, errors)
        steady = [each for each, kept in zip(steady, near, strict=True) if kept]
    return None


def _mean(
    runs: list[_Run], curve: Floats, normal: Any, values: Floats, errors: Floats
) -> Pump | None:
    """The delivery that runs agree on, with the larger of the errors that they tell and show; None
    where it cannot be told from nothing."""
    weights = errors**-2.0
    mean = float(np.average(values, weights=weights))
    shared = np.average(np.array([each.slope_by for each in runs]), axis=0, weights=weights)
    scale = max(1.0, float(weights @ (values - mean) ** 2) / max(len(values) - 1, 1))
    error = math.sqrt(scale * (1 / weights.sum() + float(shared @ np.linalg.pinv(normal) @ shared)))
    if mean <= _CLEAR * error:  # nothing that a pump could deliver
        return None
    return Pump(mean, error, float(-2 * curve[0] / mean), len(runs))
