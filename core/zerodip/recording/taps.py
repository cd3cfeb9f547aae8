"""Breaks beside which a tap was opened or shut: a second break within a few samples of the first,
which two straight sides mistake for one.

What all breaks of a line share tells them apart: the switch acts at its set point, and the pump's
delivery bends the line by the same each time. Only breaks away from both are looked at again, with
a tap at any sample near, by least squares with those two as what is known before (Gelman et al.
2013, ch. 14.8, normal prior as further rows; from memory)."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from zerodip.recording.arrays import Floats, Places
from zerodip.recording.kinks import Kinks, slackened

__all__ = ["with_taps"]

_FEWEST = 6  # breaks that tell what is usual
_BLOCK = 200  # breaks that tell it together, where it drifts
_ODD = 3.5  # standard deviations from the usual at which a break is looked at again
_MOST = 2000  # of them looked at in one stretch
_WITHIN, _MOVES = 30, 12.0  # samples of the window on one side, and by which the break may move
_GRAIN = 0.5  # samples
_BEND_SHARE = 0.08  # by which the pump's bend varies from run to run
_FEWEST_SAMPLES = 6
_LEVEL_NOISE = 0.2  # of a sample's noise: a set point is known no better
_BEND_NOISE = 1e-4  # of it in a second: neither is the bend
_ANY_TAP, _NO_TAP = 1e-12, 6.0  # a tap's size may be any; none is likelier than one just there
_ROBUST = 1.4826
_LEVEL, _BEND, _TAP = 0, 2, 3  # terms of a line
_Known = tuple[tuple[int, float, float], tuple[int, float, float]]  # term, value, spread


def with_taps(
    time_s: Floats,
    values: Floats,
    measure: Callable[[Floats], Floats],
    noise: float,
    kinks: Kinks,
    limits: tuple[Places, Places],
    slack: tuple[float, float],
) -> Kinks:
    """Breaks, those moved that a tap beside them had shifted; their slopes are unknown (NaN).

    Args:
        time_s: Times, s, rising.
        values: The line, as long.
        measure: What makes a straight line of a steady flow.
        noise: Standard deviation of one measured sample, above 0.
        kinks: The breaks as two sides tell them.
        limits: For each, the first and the last place that belong to its sides.
        slack: As `kinks_at` takes it, before and after.

    Returns:
        As many breaks.
    """
    if len(kinks.time_s) < _FEWEST:
        return kinks
    level = _usual(kinks.level, np.hypot(kinks.before.value_error, kinks.after.value_error))
    bend = _usual(
        kinks.after.slope - kinks.before.slope,
        np.hypot(kinks.before.slope_error, kinks.after.slope_error),
    )
    level.spread = np.maximum(level.spread, _LEVEL_NOISE * noise)
    least = np.maximum(_BEND_SHARE * np.abs(bend.value), _BEND_NOISE * noise)
    bend.spread = np.maximum(bend.spread, least)
    moment, found = kinks.time_s.copy(), kinks.level.copy()
    unknown = np.ones(len(moment))
    for at in np.flatnonzero(np.maximum(level.off, bend.off) > _ODD)[:_MOST]:
        near = _window(time_s, moment[at], limits[0][at], limits[1][at])
        x, y = time_s[near] - moment[at], measure(values[near])
        if len(x) < _FEWEST_SAMPLES:
            continue
        known = (
            (_LEVEL, level.value[at], level.spread[at]),
            (_BEND, bend.value[at], bend.spread[at]),
        )
        ahead, found[at] = _apart(x, y, noise, known, slack)
        moment[at] += ahead
        unknown[at] = np.nan
    return replace(
        kinks,
        time_s=moment,
        level=found,
        before=replace(kinks.before, slope=kinks.before.slope * unknown),
        after=replace(kinks.after, slope=kinks.after.slope * unknown),
    )


@dataclass
class _Usual:
    """What breaks share, with its spread, and by how many standard deviations each is off."""

    value: Floats
    spread: Floats
    off: Floats


def _usual(values: Floats, errors: Floats) -> _Usual:
    value, spread = np.empty(len(values)), np.empty(len(values))
    for first in range(0, len(values), _BLOCK):
        near = values[max(first - _BLOCK // 2, 0) : first + 3 * _BLOCK // 2]
        middle = float(np.median(near))
        value[first : first + _BLOCK] = middle
        spread[first : first + _BLOCK] = _ROBUST * float(np.median(np.abs(near - middle)))
    by = np.maximum(np.hypot(spread, errors), 1e-300)
    return _Usual(value, spread, np.abs(values - value) / by)


def _window(time_s: Floats, moment: float, first: int, last: int) -> slice:
    at = int(np.searchsorted(time_s, moment))
    return slice(max(at - _WITHIN, first), min(at + _WITHIN, last) + 1)


def _apart(
    x: Floats, y: Floats, noise: float, known: _Known, slack: tuple[float, float]
) -> tuple[float, float]:
    """How far ahead of the place the pump's own break lies (s), and its level: the likeliest of
    all pairs of a moment of the pump and one of a tap, and of none."""
    step = (x[-1] - x[0]) / (len(x) - 1)
    furthest = max(min(_MOVES * step, -x[0] - step, x[-1] - step), 0.0)
    pumps = np.arange(-furthest, furthest + 1e-9, _GRAIN * step)
    design = _designs(x, pumps, np.append(x[1:-1], np.inf), slack)  # the last is no tap at all
    normal = np.einsum("pkin,pkjn->pkij", design, design) / noise**2
    right = np.einsum("pkin,n->pki", design, y) / noise**2
    for term, value, spread in known:
        normal[..., term, term] += spread**-2
        right[..., term] += value / spread**2
    normal[..., _TAP, _TAP] += _ANY_TAP
    fit = np.linalg.solve(normal, right[..., None])[..., 0]
    better = np.einsum("pki,pki->pk", fit, right)
    better[:, -1] += _NO_TAP
    pump, tap = np.unravel_index(int(better.argmax()), better.shape)
    return float(pumps[pump]), float(fit[pump, tap, _LEVEL])


def _designs(x: Floats, pumps: Floats, taps: Floats, slack: tuple[float, float]) -> Floats:
    """For each moment of the pump and each of a tap what the line is made of: its level at the
    pump's break, its slope before, the pump's bend and the tap's, away from the pump's."""
    u = x[None, :] - pumps[:, None]
    u = np.where(u < 0, slackened(u, slack[0]), slackened(u, slack[1]))
    line = np.stack([np.ones_like(u), u, np.maximum(u, 0.0)], axis=1)
    away = x[None, None, :] - taps[None, :, None]
    later = taps[None, :, None] >= pumps[:, None, None]
    tap = np.maximum(np.where(later, away, -away), 0.0)
    lines = np.broadcast_to(line[:, None], (len(pumps), len(taps), 3, len(x)))
    return np.concatenate([lines, tap[:, :, None]], axis=2)
