"""Near which sample a run begins and ends: where the line bends most, next to its lows and highs.

What a line bends by there is the pump's delivery, whatever taps are open; and with the pump off
nothing rises, so that a tap's own bend is told from it. All breaks are looked at together, a side's
width at a time.
"""

import numpy as np

from zerodip.recording.arrays import Floats, Places

__all__ = ["anchors"]

_WIDTHS = (3, 4, 6, 9, 14, 20, 30, 40, 60, 90, 130)  # samples on one side of a bend
_CLEAR, _USUAL_WIDTH = 12.0, 40  # standard errors that a bend should stand out by
_LEVEL = 0.2  # share of a run's rise within which its ends lie at their turns' level
_BRIEF = 3  # samples whose mean is told from noise
_SMOOTH = 7  # samples whose mean has come near a level, or left it
_AHEAD = 400  # samples in which the bend is looked for
_AT_ONCE = 256
_WRONG, _EARLY = 3.0, 0.4  # what falls on counts against a bend; the first of bends nearly as sharp


def anchors(gauge: Floats, runs: Places, noise: float) -> tuple[Places, Floats]:
    """Places near both ends of each run, and by how many standard errors the line bends there:
    what warms or cools slowly turns, too, but does not bend.

    Args:
        gauge: The line.
        runs: Two columns, a low and the high after it; −1 where the run was not seen to its end.
        noise: Standard deviation of one sample.

    Returns:
        Two columns as in `runs`, each moved to where the line bends; by how much each bends.
    """
    end = len(gauge) - 1
    low = np.maximum(runs[:, 0], 0)
    high = np.where(runs[:, 1] < 0, end, runs[:, 1])
    room = np.maximum(6 * noise, 0.08 * (gauge[high] - gauge[low]))
    widths = _widths_of(_rising(gauge, low, high, room), gauge[high] - gauge[low], noise)
    made = runs.copy()
    sharp = np.zeros(runs.shape)
    # A start is looked for from the rise backwards, a stop from it forwards, upside down.
    for column, place, far, sign, way in ((0, low, high, 1.0, -1), (1, high, low, -1.0, 1)):
        known = np.flatnonzero(runs[:, column] >= 0)
        for width in np.unique(widths[known]):
            those = known[widths[known] == width]
            for k in range(0, len(those), _AT_ONCE):
                part = those[k : k + _AT_ONCE]
                made[part, column], bend = _bends(
                    gauge, sign, way, place[part], far[part], room[part], int(width), noise
                )
                sharp[part, column] = bend / (np.sqrt(2.0) * _slope_noise(noise, int(width)))
    return _plausible(gauge, runs, made, low, high), sharp


def _plausible(gauge: Floats, runs: Places, made: Places, low: Places, high: Places) -> Places:
    """Places found, those put back to the turn itself that lie away from its level, or out of
    order."""
    room = _LEVEL * (gauge[high] - gauge[low])
    for column, place in ((0, low), (1, high)):
        away = np.abs(gauge[np.maximum(made[:, column], 0)] - gauge[place]) > room
        made[:, column] = np.where((made[:, column] >= 0) & away, runs[:, column], made[:, column])
    flat = made.ravel()
    before = np.concatenate([[0], np.maximum.accumulate(flat)[:-1]])
    late = (flat >= 0) & (flat <= before) & (before > 0)
    kept: Places = np.where(late.reshape(made.shape), runs, made)
    return kept


def _rising(gauge: Floats, low: Places, high: Places, room: Floats) -> Places:
    """How many samples the rise itself takes: a low or high on a flat line may lie anywhere on
    it."""
    leaves = _near_from(gauge, 1.0, -1, low, high, gauge[low] + 1.5 * room, _BRIEF)
    comes = _near_from(gauge, -1.0, 1, high, low, 1.5 * room - gauge[high], _BRIEF)
    rising: Places = np.maximum(comes - leaves, _BRIEF)
    return rising


def _widths_of(lengths: Places, rises: Floats, noise: float) -> Places:
    """The side's width for runs of so many samples: as wide as the noise needs, so that the bend is
    found and no tap beside it is caught; a third of the run at most."""
    steps = np.array(_WIDTHS)
    bend = np.maximum(rises, noise) / np.maximum(lengths, 1)  # at least: the fall comes to it
    needed = (24 * (_CLEAR * noise / bend) ** 2) ** (1 / 3)
    wanted = np.searchsorted(steps, np.maximum(needed, _USUAL_WIDTH))
    most = np.searchsorted(steps, lengths // 3, "right") - 1
    chosen: Places = steps[np.clip(np.minimum(wanted, most), 0, len(steps) - 1)]
    return chosen


def _bends(
    gauge: Floats,
    sign: float,
    way: int,
    place: Places,
    far: Places,
    room: Floats,
    width: int,
    noise: float,
) -> tuple[Places, Floats]:
    """The place of the sharpest bend, and its slope after less that before, for each low (of `sign`
    times the line), looked at going `way`: the line comes down from `far`, is near its low, and
    leaves it."""
    smooth = min(width, _SMOOTH)
    floor = _floor(gauge, sign, place, room, smooth)
    first = _near_from(gauge, sign, way, place, far, floor + room, smooth) - way * width
    steps = np.arange(max(_AHEAD, 6 * width) + 2 * width)
    at = first[:, None] + way * steps
    inside = (at >= 0) & (at < len(gauge))
    line = sign * gauge[np.clip(at, 0, len(gauge) - 1)]
    before, after = _slopes(line, width)
    wrong = np.maximum(-after - 2 * _slope_noise(noise, width), 0.0)
    bends = after - before - _WRONG * wrong
    away = _means(line[:, 2 * width :], smooth) > (floor + 2 * room)[:, None]
    left = np.where(away.any(axis=1), away.argmax(axis=1) + width, bends.shape[1])
    count = np.arange(bends.shape[1])
    usable = inside[:, 2 * width - 1 : 2 * width - 1 + len(count)]
    bends = np.where(usable & (count <= left[:, None]), bends, -np.inf)
    early = (bends >= _EARLY * bends.max(axis=1, keepdims=True)).argmax(axis=1)
    after_it = (count >= early[:, None]) & (count < early[:, None] + width)
    best = np.where(after_it, bends, -np.inf).argmax(axis=1)
    found = first + way * (width + best)
    sharpest = bends.max(axis=1)
    return np.where(np.isfinite(sharpest), found, place), sharpest


def _floor(gauge: Floats, sign: float, place: Places, room: Floats, smooth: int) -> Floats:
    near = np.clip(place[:, None] + np.arange(-smooth, smooth), 0, len(gauge) - 1)
    mean: Floats = (sign * gauge[near]).mean(axis=1)
    return np.minimum(mean, sign * gauge[place] + room / 3)


def _near_from(
    gauge: Floats,
    sign: float,
    way: int,
    place: Places,
    far: Places,
    level: Floats,
    smooth: int,
) -> Places:
    """The place nearest to each low at which the smoothed line still lies above a level, on the
    side it comes from."""
    found = place.copy()
    left = np.arange(len(place))
    seen, block = 0, 128
    while len(left):
        at = place[left, None] - way * (seen + np.arange(block + smooth))
        line = sign * gauge[np.clip(at, 0, len(gauge) - 1)]
        above = _means(line, smooth) > level[left, None]
        there = above.any(axis=1)
        here = left[there]
        found[here] = place[here] - way * (seen + above[there].argmax(axis=1) + smooth // 2)
        seen += block
        left = left[~there & (np.abs(far - place)[left] > seen)]
        block = min(block * 2, 4096)
    return found


def _means(lines: Floats, width: int) -> Floats:
    sums = np.cumsum(lines, axis=1)
    return (sums[:, width:] - sums[:, :-width]) / width


def _slopes(lines: Floats, width: int) -> tuple[Floats, Floats]:
    """Slopes per sample of the `width` samples before and from each place on."""
    zero = np.zeros((len(lines), 1))
    steps = np.arange(lines.shape[1])
    level = lines - lines[:, :1]  # so that little is lost in sums
    sums = np.hstack([zero, np.cumsum(level, axis=1)])
    moments = np.hstack([zero, np.cumsum(level * steps, axis=1)])
    part = sums[:, width:] - sums[:, :-width]
    middle = steps[: part.shape[1]] + (width - 1) / 2
    slopes = (moments[:, width:] - moments[:, :-width] - middle * part) * 12
    slopes /= width * (width**2 - 1)
    return slopes[:, :-width], slopes[:, width:]


def _slope_noise(noise: float, width: int) -> float:
    """Standard error of a slope per sample fitted to `width` samples."""
    return float(noise * np.sqrt(12 / (width * (width**2 - 1))))
