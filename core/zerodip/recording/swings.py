"""Where a line turns for good: highs and lows that lie further apart than noise and small draws.

The line is cut into bands of half the least swing; only where it leaves a band the way it came does
it turn, so that a hundred million samples shrink to a few thousand in two passes. Then the least
swings are taken out, pair by pair, until all are wide enough (persistence, as in topology).
"""

import math

import numpy as np

from zerodip.recording.arrays import Floats, Places, blocks

__all__ = ["mode", "noise_of", "pruned", "turns_at"]

_LOOKED_AT = 200_000  # samples from which the noise is told
_ROBUST = 1.4826  # median absolute deviation to standard deviation, normal distribution


def noise_of(values: Floats) -> float:
    """Noise of one sample (standard deviation, in the values' unit), by second differences, which a
    slope leaves alone; never finer than the values are written.

    Args:
        values: A line without gaps, three samples or more.

    Returns:
        The standard deviation, 0 for a line that does not move.

    Source: Median absolute deviation of second differences (common in signal processing).
    """
    step = max(len(values) // _LOOKED_AT, 1)
    ends = np.arange(2, len(values), step)
    bends = values[ends] - 2 * values[ends - 1] + values[ends - 2]
    moves = np.abs(values[ends] - values[ends - 1])
    grain = moves[moves > 1e-9 * (np.abs(values[ends]).max() + 1e-300)]
    told = float(_ROBUST * np.median(np.abs(bends)) / np.sqrt(6.0)) if len(bends) else 0.0
    return max(told, float(grain.min()) / math.sqrt(12.0) if len(grain) else 0.0)


def turns_at(values: Floats, least: float) -> Places:
    """Places where the line turns, highs and lows in turn, each swing at least `least` wide; the
    line's ends where they make such a swing.

    Args:
        values: A line without gaps.
        least: The least swing, above 0, in the values' unit.

    Returns:
        Places, rising.
    """
    if len(values) < 2:
        return np.zeros(0, dtype=np.intp)
    bounds = _bounds(values, least / 2)
    lows = np.minimum.reduceat(values, bounds[:-1])
    highs = np.maximum.reduceat(values, bounds[:-1])
    up = np.diff((lows + highs) / 2) > 0
    # The first and last band, and each that is left the way it was entered.
    turns = np.concatenate([[True], up[1:] != up[:-1], [True]]) if len(up) else np.array([True])
    chosen = np.flatnonzero(turns)
    high = np.append(~up, up[-1:])[chosen] if len(up) else np.array([True])
    kept = pruned(np.where(high, highs[chosen], lows[chosen]), least)
    if len(kept) < 2:
        return np.zeros(0, dtype=np.intp)
    return np.array(
        [
            _extreme(values, bounds[at], bounds[at + 1], is_high)
            for at, is_high in zip(chosen[kept], high[kept], strict=True)
        ],
        dtype=np.intp,
    )


def _bounds(values: Floats, band: float) -> Places:
    """Where each stretch within one band begins, and the end."""
    inner = []
    for first, part in blocks(values):
        bands = np.floor(part * (1 / band)).astype(np.int32)
        inner.append(np.flatnonzero(bands[1:] != bands[:-1]) + first + 1)
    return np.concatenate([[0], *inner, [len(values)]])


def _extreme(values: Floats, first: int, end: int, high: bool) -> int:
    part = values[first:end]
    return int(first + (part.argmax() if high else part.argmin()))


def pruned(levels: Floats, least: float) -> Places:
    """Which of alternating highs and lows remain when the least swings are taken out, as long as
    any is narrower than `least`.

    Args:
        levels: Highs and lows in turn.
        least: The least swing that remains, in the levels' unit.

    Returns:
        Their indices, rising.
    """
    kept = np.arange(len(levels))
    while len(kept) > 1:
        swing = np.abs(np.diff(levels[kept]))
        before = np.concatenate([[np.inf], swing[:-1]])
        after = np.concatenate([swing[1:], [np.inf]])
        out = np.flatnonzero((swing < least) & (swing <= before) & (swing < after))
        if not len(out):
            break
        gone = np.zeros(len(kept), dtype=bool)
        inner = out[(out > 0) & (out < len(swing) - 1)]
        gone[inner] = gone[inner + 1] = True
        gone[0] |= 0 in out  # an end goes alone: what it swung to is the end now
        gone[-1] |= len(swing) - 1 in out
        kept = kept[~gone]
    return kept


def mode(levels: Floats) -> float:
    """The half-sample mode: where values crowd.

    Args:
        levels: Values, one or more.

    Returns:
        Where they crowd.

    Source: Bickel and Frühwirth 2006, from memory.
    """
    values = np.sort(levels)
    while len(values) > 3:
        half = (len(values) + 1) // 2
        widths = values[half - 1 :] - values[: len(values) - half + 1]
        at = int(widths.argmin())
        values = values[at : at + half]
    return float(np.median(values))
