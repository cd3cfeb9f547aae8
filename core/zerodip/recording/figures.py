"""Figures over many cycles: the usual one and its spread, what it moves by in days, starts with an
empty tank, and how quiet runs grow."""

from dataclasses import dataclass

import numpy as np

from zerodip.recording.arrays import Floats
from zerodip.recording.cycles import Cycles

__all__ = ["Empties", "Figure", "Trend", "cut_in_of", "empties_of", "figure_of", "trend_of"]

_DAY_S = 86400.0
_MANY = 0.3  # share of starts with an empty tank, from which on cut-in is not told
_QUIET, _FEWEST_DAYS = 0.06, 3  # of the rise, that a line falls by after a quiet run; and days


@dataclass(frozen=True)
class Figure:
    """A figure over many cycles: the usual one, what nine in ten lie between, and, of a set point,
    what it moved by in a day with the standard error; SI."""

    usual: float
    least: float
    most: float
    cycles: int
    per_day: float = 0.0
    per_day_error: float = 0.0
    spread: float = 0.0  # what nine in ten lie within beside what it moves by in days
    blur: float = 0.0  # what the line moves by from one sample to the next there

    @property
    def drifts(self) -> bool:
        """Whether it moved for certain."""
        return abs(self.per_day) > 3 * self.per_day_error > 0


@dataclass(frozen=True)
class Empties:
    """Starts before which the tank ran empty: how many, of how many that were seen, and from where
    the gauge collapsed (Pa gauge, the usual one)."""

    starts: int
    of: int
    from_pa: float


@dataclass(frozen=True)
class Trend:
    """How quiet runs grow: what they last at first and at last (s), by a straight line, and its
    share a day with the standard error."""

    first_s: float
    last_s: float
    per_day: float
    per_day_error: float


def cut_in_of(cycles: Cycles, step_s: float) -> Figure | None:
    """Cut-in, where at most starts it was seen: where the tank was empty at many, those that are
    left were misread.

    Args:
        cycles: The cycles.
        step_s: The usual time between samples, s.

    Returns:
        The figure; None where it was not seen.
    """
    seen, empty = np.isfinite(cycles.cut_in_pa).sum(), np.isfinite(cycles.emptied_pa).sum()
    if empty > _MANY * (seen + empty):
        return None
    return figure_of(cycles.cut_in_pa, cycles.start_s, cycles.fall_before, step_s)


def empties_of(cycles: Cycles) -> Empties | None:
    """Starts with an empty tank.

    Args:
        cycles: The cycles.

    Returns:
        How many; None for none.
    """
    known = cycles.emptied_pa[np.isfinite(cycles.emptied_pa)]
    if not len(known):
        return None
    starts = int(np.isfinite(cycles.start_s).sum())
    return Empties(len(known), starts, float(np.median(known)))


def trend_of(cycles: Cycles) -> Trend | None:
    """How runs without a draw grow over days: those after which the line lies still.

    Args:
        cycles: The cycles.

    Returns:
        The trend; None where too few are seen, or within a day.
    """
    run, at = cycles.run_s, cycles.start_s / _DAY_S
    quiet = np.isfinite(run) & (np.abs(cycles.fall_after) <= _QUIET * np.abs(cycles.rise_before))
    days, runs = np.floor(at[quiet]), run[quiet]
    known = [(d, runs[days == d]) for d in np.unique(days)]
    # Taps that are open make a run longer, never shorter: the shortest of a day tells.
    told = [(d, float(each[each > np.median(each) / 2].min())) for d, each in known]
    if len(told) < _FEWEST_DAYS:
        return None
    x, y = (np.array(each) for each in zip(*((d, np.log(r)) for d, r in told), strict=True))
    slope, start = _through(x, y)
    spread, rest = float(((x - x.mean()) ** 2).sum()), y - slope * x - start
    error = float(np.sqrt(rest @ rest / (len(x) - 2) / spread))
    first, last = (float(np.exp(start + slope * d)) for d in (x[0], x[-1]))
    return Trend(first, last, float(slope), error)


def _through(x: Floats, y: Floats) -> tuple[float, float]:
    """Slope and start of a line that a few points far off do not turn. Source: Theil 1950, Sen
    1968, from memory."""
    first, last = np.triu_indices(len(x), 1)
    slope = float(np.median((y[last] - y[first]) / (x[last] - x[first])))
    return slope, float(np.median(y - slope * x))


def figure_of(
    values: Floats,
    times: Floats | None = None,
    slopes: Floats | None = None,
    step_s: float = 0.0,
) -> Figure | None:
    """A figure over many cycles.

    Args:
        values: Its values, NaN where not seen.
        times: When, s, for what moves in days; None for nothing.
        slopes: How fast the line moves there, Pa/s; None where it is no pressure.
        step_s: The usual time between samples, s.

    Returns:
        The figure; None where it was never seen.
    """
    known = np.isfinite(values)
    if not known.any():
        return None
    blur = 0.0
    if slopes is not None and np.isfinite(slopes).any():
        blur = float(np.nanmedian(np.abs(slopes))) * step_s
    values = values[known]
    least, most = np.percentile(values, [5, 95])
    if times is None:
        return Figure(float(np.median(values)), float(least), float(most), len(values))
    days = times[known] / _DAY_S
    drift = _drift(days, values)
    beside = np.percentile(values - drift[0] * (days - days[0]), [5, 95])
    spread = float(beside[1] - beside[0])
    usual = float(np.median(values))
    return Figure(usual, float(least), float(most), len(values), *drift, spread, blur)


def _drift(days: Floats, values: Floats) -> tuple[float, float]:
    """What a set point moves by in a day, and the standard error; nothing from under a day."""
    if len(values) < 8 or days[-1] - days[0] < 1:
        return 0.0, 0.0
    centre = float(np.median(values))
    near = np.abs(values - centre) <= 5 * max(1.4826 * float(np.median(np.abs(values - centre))), 1)
    x, y = days[near] - days[near].mean(), values[near] - values[near].mean()
    slope = float(x @ y) / float(x @ x)
    rest = y - slope * x
    return slope, float(np.sqrt(rest @ rest / max(len(x) - 2, 1) / (x @ x)))
