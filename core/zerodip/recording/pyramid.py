"""A line for drawing: the least and the most of so many samples, at several heights, so that any
window is drawn from about as many as there are pixels."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from zerodip.recording.arrays import Floats, joined, taken

__all__ = ["FACTORS", "NOTHING", "Drawn", "Level", "PyramidMaker", "reduced"]

FACTORS = (64, 4096, 262_144)  # samples in one bucket of each level
_BUCKETS = 16_384  # kept together


@dataclass(frozen=True)
class Drawn:
    """Buckets of a line: when each begins (s), and its least and most."""

    time_s: Floats
    least: Floats
    most: Floats

    def __len__(self) -> int:
        return len(self.time_s)


NOTHING = Drawn(np.zeros(0), np.zeros(0), np.zeros(0))


@dataclass(frozen=True)
class Level:
    """Buckets of one level that are kept together, and which of its parts they are."""

    factor: int
    part: int
    drawn: Drawn


def reduced(time_s: Floats, least: Floats, most: Floats, by: int) -> Drawn:
    """Buckets of so many, the last of what is left.

    Args:
        time_s: Times, s.
        least: The least at each.
        most: The most at each.
        by: How many go into one.

    Returns:
        The buckets; NaN where all are missing.
    """
    if not len(time_s):
        return Drawn(time_s, least, most)
    starts = np.arange(0, len(time_s), by)
    return Drawn(time_s[starts], np.fmin.reduceat(least, starts), np.fmax.reduceat(most, starts))


class PyramidMaker:
    """Makes the levels while samples come."""

    def __init__(self) -> None:
        self._waiting = dict.fromkeys(FACTORS, NOTHING)
        self._parts = dict.fromkeys(FACTORS, 0)
        self._rest = dict.fromkeys(FACTORS, NOTHING)

    def feed(self, time_s: Floats, values: Floats) -> Iterator[Level]:
        """Takes samples, gives the parts that are full."""
        yield from self._up(FACTORS[0], 0, Drawn(time_s, values, values), last=False)

    def end(self) -> Iterator[Level]:
        """Gives what is left."""
        yield from self._up(FACTORS[0], 0, NOTHING, last=True)

    def _up(self, factor: int, height: int, fed: Drawn, last: bool) -> Iterator[Level]:
        by = factor // FACTORS[height - 1] if height else factor
        whole = joined([self._rest[factor], fed])
        count = len(whole) if last else len(whole) // by * by
        made = reduced(whole.time_s[:count], whole.least[:count], whole.most[:count], by)
        self._rest[factor] = taken(whole, slice(count, None))
        yield from self._kept(factor, made, last)
        if height + 1 < len(FACTORS):
            yield from self._up(FACTORS[height + 1], height + 1, made, last)

    def _kept(self, factor: int, made: Drawn, last: bool) -> Iterator[Level]:
        waiting = joined([self._waiting[factor], made])
        at = 0
        while len(waiting) - at >= _BUCKETS or (last and len(waiting) > at):
            part = taken(waiting, slice(at, at + _BUCKETS))
            yield Level(factor, self._parts[factor], part)
            self._parts[factor] += 1
            at += _BUCKETS
        self._waiting[factor] = taken(waiting, slice(at, None))
