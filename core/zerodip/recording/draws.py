"""Draws as events: taps opened and shut, told by how fast the line falls, and through the runs
between."""

from dataclasses import dataclass

import numpy as np

from zerodip.recording.arrays import Floats
from zerodip.recording.cycles import Cycles, draws_beside
from zerodip.recording.rests import Falls

__all__ = ["LONG_REST_S", "Drawn", "draws_of"]

LONG_REST_S = 300.0  # from which on a rest is told minute by minute
_CLEAR, _SHARE = 5.0, 0.02  # standard errors over a leak, and share of the pump's delivery
_APART_S = 90.0  # between two that are one draw


@dataclass(frozen=True)
class Drawn:
    """A draw: from when (s), for how long (s), how many starts it brought, and what was drawn
    divided by the air's V·c (1/Pa; m³ where V·c is known)."""

    start_s: float
    seconds: float
    starts: int
    by_air: float


def draws_of(
    falls: Falls, cycles: Cycles, leak_rate: float, delivery: float, air: float
) -> list[Drawn]:
    """The draws of a line, in order. What runs away all the time is none.

    Args:
        falls: Falls of the long rests, a minute each; of short ones the set points tell.
        cycles: Its cycles.
        leak_rate: The leak divided by V·c, 1/(Pa·s).
        delivery: The pump's delivery divided by V·c, 1/(Pa·s).
        air: The air's pressure at the site, Pa.

    Returns:
        Draws.
    """
    open_ = falls.rate - leak_rate > np.maximum(_CLEAR * falls.error, _SHARE * delivery)
    pieces = [
        (float(start), float(start + seconds), 0, float((rate - leak_rate) * seconds))
        for start, seconds, rate in zip(
            falls.time_s[open_], falls.seconds[open_], falls.rate[open_], strict=True
        )
    ]
    pieces += _of_cycles(cycles, leak_rate, _SHARE * delivery, air)
    pieces += _of_rests(cycles, leak_rate, _SHARE * delivery, air)
    return _joined(sorted(pieces))


def _of_cycles(
    cycles: Cycles, leak_rate: float, least: float, air: float
) -> list[tuple[float, float, int, float]]:
    """What is drawn through each run: by the falls beside it."""
    before, after, *_ = draws_beside(cycles, air)
    rate = _mean(before, after) - leak_rate
    return [
        (float(start), float(stop), 1, float(each * (stop - start)))
        for start, stop, each in zip(cycles.start_s, cycles.stop_s, rate, strict=True)
        if np.isfinite(stop - start) and each > least
    ]


def _of_rests(
    cycles: Cycles, leak_rate: float, least: float, air: float
) -> list[tuple[float, float, int, float]]:
    """What is drawn in short rests: from one set point to the other."""
    rest = cycles.rest_s[:-1]
    drawn = 1 / (cycles.cut_in_pa[1:] + air) - 1 / (cycles.cut_out_pa[:-1] + air)
    drawn = drawn - leak_rate * rest
    return [
        (float(stop), float(stop + seconds), 0, float(amount))
        for stop, seconds, amount in zip(cycles.stop_s[:-1], rest, drawn, strict=True)
        if 0 < seconds <= LONG_REST_S and amount > least * seconds
    ]


def _mean(one: Floats, other: Floats) -> Floats:
    """The mean of two; one alone where the other is not known."""
    both = np.vstack([one, other])
    known = np.isfinite(both)
    total = np.where(known, both, 0.0).sum(axis=0)
    mean: Floats = np.where(known.any(axis=0), total / np.maximum(known.sum(axis=0), 1), np.nan)
    return mean


def _joined(pieces: list[tuple[float, float, int, float]]) -> list[Drawn]:
    made: list[Drawn] = []
    for start, end, starts, amount in pieces:
        last = made[-1] if made else None
        if last is not None and start - (last.start_s + last.seconds) <= _APART_S:
            until = max(end, last.start_s + last.seconds)
            made[-1] = Drawn(
                last.start_s, until - last.start_s, last.starts + starts, last.by_air + amount
            )
        else:
            made.append(Drawn(start, end - start, starts, amount))
    return made
