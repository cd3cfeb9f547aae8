"""A stand-in for a plant with a gauge on the wire: the plant of a system's file, run in real time
by the event simulation, with hands at its taps, its power and the two nuts of its switch. Made up,
to try everything without a device.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import cast

from zerodip.errors import InvalidInput, ZeroDipError
from zerodip.fileformat.document import Document
from zerodip.fileformat.fields import Checked, choice, quantity
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.physics.simulation import (
    OFF,
    RUNNING,
    STARTING,
    Draw,
    Phase,
    Store,
    WaterStore,
    simulate,
)
from zerodip.units import PSI

__all__ = ["Hands", "Sensor", "StandIn", "can_stand_in"]

_AHEAD_S = 900.0  # that is worked out at once
_NEVER_S = 1e9  # a start lag without power
_MOST_EVENTS = 2000
_BOTH_PA, _WIDER_PA = 2.4 * PSI, 1.7 * PSI  # what a turn of the first and the second nut does
_NARROWEST_PA, _LOWEST_PA, _HIGHEST_PA = 5 * PSI, 5 * PSI, 260 * PSI


@dataclass(frozen=True, kw_only=True)
class Hands(Checked):
    """What hands do at a stand-in: whether its power is on and its gauge on the line, how far taps
    and drain are open (shares), and how far the nuts were turned since the beginning."""

    power: str = choice("Power", ("on", "off"), default="on")
    line: str = choice("Gauge", ("on", "off"), default="on")
    tap: float = quantity("Taps open", "share", 0, 1, default=0.0)
    drain: float = quantity("Drain open", "share", 0, 1, default=0.0)
    first: float = quantity("Turns of the first nut", "number", -8, 8, default=0.0)
    second: float = quantity("Turns of the second nut", "number", -8, 8, default=0.0)


def can_stand_in(document: Document) -> bool:
    """Whether a system's plant can be simulated as a stand-in: it stores something, and enough of
    it was read."""
    try:
        kind = kind_of(document.figures()).simulating
        return kind is not None and bool(kind.store(document.figures()).off_m3)
    except ZeroDipError:
        return False


class StandIn:
    """A plant in real time, beginning full and at rest. Times in s, rising from call to call.
    Raises InvalidInput for a system whose store cannot be simulated."""

    def __init__(self, document: Document, hands: Hands, at_s: float) -> None:
        self._document = document
        self._hands, self._begun_s, self._draw = hands, at_s, 0.0
        self._phases: tuple[Phase, ...] = ()
        self._take(hands, None, OFF, None)

    def move(self, hands: Hands, at_s: float) -> None:
        """Hands do something else from now on."""
        if hands != self._hands:
            self._from(hands, at_s)

    def gauge_pa(self, at_s: float) -> float:
        """The pressure, Pa gauge."""
        phase, _ = self._at(at_s)
        if phase.dry:
            return phase.dry_gauge_pa
        return max(self._store.gauge_at(phase.water_end_m3), 0.0)

    def runs(self, at_s: float) -> bool:
        """Whether the pump's motor runs."""
        return self._hands.power == "on" and self._at(at_s)[0].pump != OFF

    def points(self) -> tuple[float, float]:
        """Cut-in and cut-out as they truly are, Pa gauge."""
        return self._store.cut_in_gauge_pa, self._store.cut_out_gauge_pa  # type: ignore[attr-defined]

    def _from(self, hands: Hands, at_s: float) -> None:
        phase, left_s = self._at(at_s)
        self._begun_s = at_s
        self._take(hands, phase.water_end_m3, phase.pump, left_s)

    def _take(self, hands: Hands, held: float | None, pump: str, lag_s: float | None) -> None:
        returns = hands.power == "on" and self._hands.power == "off"
        self._hands = hands
        self._store, most = _store(self._document, hands)
        if hands.power == "off" and pump == RUNNING:
            pump = OFF
        if returns:  # the contacts were closed all along, or are open still
            lag_s = None
        self._draw = most * min(hands.tap + hands.drain, 1.5)
        held = None if held is None else min(held, self._store.off_m3)
        draws = [Draw(_AHEAD_S, self._draw)]
        self._phases = simulate(self._store, draws, held, pump, _MOST_EVENTS, lag_s)

    def _at(self, at_s: float) -> tuple[Phase, float | None]:
        """The phase until a moment, cut off there, and what is left of the start lag, s."""
        since = max(at_s - self._begun_s, 0.0)
        if since > self._phases[-1].end_s:
            self._from(self._hands, self._begun_s + self._phases[-1].end_s)
            return self._at(at_s)
        index = next(k for k, each in enumerate(self._phases) if since <= each.end_s)
        phase = self._phases[index]
        if since >= phase.end_s:
            return phase, 0.0
        span = Draw(max(since - phase.start_s, 1e-9), phase.draw_m3_s)
        left = phase.end_s - phase.start_s if phase.pump == STARTING else None
        cut = simulate(self._store, [span], phase.water_start_m3, phase.pump, lag_s=left)[-1]
        return _as_dry(cut, phase), phase.end_s - since if phase.pump == STARTING else None


def _as_dry(cut: Phase, whole: Phase) -> Phase:
    """A phase cut off, as dry as it was whole."""
    return cut._replace(dry=whole.dry, dry_gauge_pa=whole.dry_gauge_pa, pump=whole.pump)


def _store(document: Document, hands: Hands) -> tuple[Store, float]:
    """What stands there with the nuts so turned, and the most that taps draw (m³/s)."""
    settings = document.settings
    low = settings.cut_in_gauge_pa + hands.first * _BOTH_PA
    high = settings.cut_out_gauge_pa + hands.first * _BOTH_PA + hands.second * _WIDER_PA
    low = min(max(low, _LOWEST_PA), _HIGHEST_PA)
    high = min(max(high, low + _NARROWEST_PA), _HIGHEST_PA + _NARROWEST_PA)
    moved = replace(settings, cut_in_gauge_pa=low, cut_out_gauge_pa=high)
    figures = figures_for(document.system, moved, document.practice)
    kind = kind_of(figures).simulating
    if kind is None:
        raise InvalidInput([])
    store = kind.store(figures)
    if hands.power == "off":
        store = cast(Store, replace(cast(WaterStore, store), start_lag_s=_NEVER_S))
    return store, kind.most_draw_m3_s(figures)


class Sensor:
    """The gauge on the plant: it follows with a lag (s), and `noise` (Pa) is drawn for each
    reading."""

    def __init__(self, noise: Callable[[], float], lag_s: float = 0.15) -> None:
        self._noise, self._lag_s = noise, lag_s
        self._at_s, self._shown_pa = -math.inf, 0.0

    def reads(self, gauge_pa: float, at_s: float) -> float:
        """What it shows of a pressure (Pa gauge) at a moment (s)."""
        share = -math.expm1(-(at_s - self._at_s) / self._lag_s)
        self._shown_pa += (gauge_pa - self._shown_pa) * share
        self._at_s = at_s
        return self._shown_pa + self._noise()
