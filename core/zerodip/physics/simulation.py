"""The plant over time: tank, pump and switch under a list of draws, from event to event.

Between two events everything is known in closed form: with the pump off the water falls in a
straight line; with it on, the fill table gives an exponential per piece. An event is a draw
changing, the level reaching a set point or the bottom, the start lag ending. Nothing is stepped
through in small time steps.
"""

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import cache, cached_property
from itertools import accumulate, pairwise
from typing import NamedTuple, Protocol

from zerodip.physics.bladder_tank import Bank, pressure_abs_pa, water_m3
from zerodip.physics.fill import (
    FillLine,
    fill_line,
    fill_seconds,
    flow_at,
    log_mean,
    piece_of,
    pieces,
    pieces_seconds,
    water_after,
)
from zerodip.physics.pump_delivery import Delivery, balance_gauge_pa

__all__ = [
    "OFF",
    "RUNNING",
    "STARTING",
    "Draw",
    "Phase",
    "Store",
    "Trail",
    "WaterStore",
    "simulate",
    "trail",
]

OFF, STARTING, RUNNING = "off", "starting", "running"
FOREVER = float("inf")
_CLOSE = 1e-12  # m³: two levels nearer than this are the same


@dataclass(frozen=True)
class Draw:
    """A steady draw: for `seconds` (s), `flow_m3_s` (m³/s, 0 or more)."""

    seconds: float
    flow_m3_s: float


class Store(Protocol):
    """What can be simulated: something filled between two levels. Water in tanks (`WaterStore`),
    free air in receivers."""

    @property
    def fill(self) -> FillLine:
        """The fill table from empty to cut-out."""

    @property
    def on_m3(self) -> float:
        """Held when the switch starts the pump, m³."""

    @property
    def off_m3(self) -> float:
        """Held when the switch stops the pump, m³."""

    @property
    def start_lag_s(self) -> float:
        """From the switch's closing to delivery, s."""

    def gauge_at(self, held: float) -> float:
        """Gauge pressure (Pa) with `held` m³ inside."""

    def balance_gauge_pa(self, draw: float) -> float:
        """Gauge pressure (Pa) at which an empty store's pump just delivers `draw` (m³/s)."""


@dataclass(frozen=True)
class WaterStore:
    """Water: the tanks, the pump's line, the switch (gauge Pa), the start lag (s), the atmosphere
    (Pa)."""

    bank: Bank
    line: Delivery
    atmosphere_pa: float
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    start_lag_s: float

    @cached_property
    def fill(self) -> FillLine:
        """The fill table from empty to cut-out."""
        return fill_line(
            self.bank, self.line, self.atmosphere_pa, self.cut_in_gauge_pa, self.cut_out_gauge_pa
        )

    @cached_property
    def on_m3(self) -> float:
        """Water held when the switch starts the pump; 0 with a pre-charge above cut-in."""
        return water_m3(self.bank, self.cut_in_gauge_pa + self.atmosphere_pa)

    @cached_property
    def off_m3(self) -> float:
        """Water held when the switch stops the pump."""
        return water_m3(self.bank, self.cut_out_gauge_pa + self.atmosphere_pa)

    def gauge_at(self, water: float) -> float:
        """Gauge pressure (Pa) on the tank's line, at most cut-out."""
        return min(pressure_abs_pa(self.bank, water) - self.atmosphere_pa, self.cut_out_gauge_pa)

    def balance_gauge_pa(self, draw: float) -> float:
        """What open taps hold the pump at, with the tank empty, Pa gauge."""
        return balance_gauge_pa(self.line, draw)


class Phase(NamedTuple):
    """A stretch between two events: times (s), pump state (off, starting, running), draw (m³/s),
    water held at its ends (m³). `dry` tells that the tank is empty and taps are open: the gauge has
    collapsed to `dry_gauge_pa`."""

    start_s: float
    end_s: float
    pump: str
    draw_m3_s: float
    water_start_m3: float
    water_end_m3: float
    dry: bool = False
    dry_gauge_pa: float = 0.0


def simulate(
    plant: Store,
    draws: Iterable[Draw],
    water: float | None = None,
    pump: str = OFF,
    most_events: int = 200_000,
    lag_s: float | None = None,
) -> tuple[Phase, ...]:
    """The phases of the plant under `draws`, beginning with `water` m³ in the tank (full to cut-out
    by default) and the pump in state `pump`. Valid for steady draws, well-mixed air, a check valve
    that holds. a plant that chatters is cut off after `most_events` phases, before the draws have
    ended.

    Args:
        plant: Pump, store and switch.
        draws: The draws, one after the other.
        water: Water held at the start, m³; full to cut-out if None.
        pump: How the pump begins: off, starting or running.
        most_events: Phases after which it is cut off, 1 or more.
        lag_s: What is left of the start lag where it begins starting, s; all of it if None.

    Returns:
        The phases, in order.

    Source: Mass balance dW/dt = Q_pump − Q_draw, the gas law, the switch's two points.
    """
    state = _State(plant, plant.off_m3 if water is None else water, pump, lag_s)
    left = 4 * most_events  # changes of state on the spot make no phase, but are work too
    for draw in draws:
        end = state.time + draw.seconds
        while state.time < end and left > 0:
            state.advance(draw.flow_m3_s, end)
            left -= 1
    return tuple(state.phases)


class _State:
    """Counts in spans, not in times of day, so that equal cycles have exactly equal levels."""

    def __init__(self, plant: Store, water: float, pump: str, lag_s: float | None) -> None:
        self.plant, self.water, self.pump = plant, water, pump
        left = plant.start_lag_s if lag_s is None else lag_s
        self.time, self.lag_s = 0.0, left if pump == STARTING else 0.0
        self.phases: list[Phase] = []
        self.to_full_s = cache(
            lambda held, draw: fill_seconds(plant.fill, held, plant.off_m3, draw)
        )

    def advance(self, draw: float, end: float) -> None:
        """One event further: a phase until the next one, or a change of pump state on the spot."""
        if self.pump == RUNNING:
            return self._run(draw, end)
        if self.pump == STARTING and self.lag_s <= 0:
            self.pump = RUNNING
            return None
        return self._drain(draw, end)

    def _drain(self, draw: float, end: float) -> None:
        stop = self.plant.on_m3 if self.pump == OFF else 0.0
        fall = max(self.water - stop, 0.0)
        if self.pump == OFF and fall <= _CLOSE and draw > 0:
            self.pump, self.lag_s = STARTING, self.plant.start_lag_s
            return
        fall_s = fall / draw if draw > 0 and fall > _CLOSE else FOREVER
        lag_s = self.lag_s if self.pump == STARTING else FOREVER
        span = min(fall_s, lag_s, end - self.time)
        water = stop if span == fall_s else max(self.water - draw * span, 0.0)
        self.lag_s -= span if self.pump == STARTING else 0.0
        until = end if span == end - self.time else self.time + span
        self._to(until, water, draw, dry=self.water <= _CLOSE and draw > 0)

    def _run(self, draw: float, end: float) -> None:
        fill, off = self.plant.fill, self.plant.off_m3
        reaches = fill.flows_m3_s[-1] > draw
        if self.water >= off - _CLOSE and reaches:
            self.pump = OFF
            return
        net = fill.flows_m3_s[piece_of(fill, self.water)] - draw
        if self.water <= _CLOSE and net <= 0:
            held = min(self.plant.balance_gauge_pa(draw), fill.gauges_pa[0])
            self._to(end, 0.0, draw, dry=True, dry_gauge=held)
            return
        full_at = self.time + (self.to_full_s(self.water, draw) if reaches else FOREVER)
        if full_at <= end:
            self._to(full_at, off, draw)
            self.pump = OFF
        else:
            self._creep(draw, end)

    def _creep(self, draw: float, end: float) -> None:
        """Runs piece by piece towards `end`, up or down, without reaching cut-out; stops early
        where the tank is empty."""
        fill, water, left = self.plant.fill, self.water, end - self.time
        for _ in fill.waters_m3:
            at = _piece_ahead(fill, water, draw)
            if at is None:
                break
            water, used = _through_piece(fill, at, water, left, draw)
            left -= used
            if left <= 0 or water <= 0:
                break
        emptied = water <= 0 and left > 0
        self._to(end - left if emptied else end, water, draw)

    def _to(
        self, until: float, water: float, draw: float, dry: bool = False, dry_gauge: float = 0.0
    ) -> None:
        self.phases.append(
            Phase(self.time, until, self.pump, draw, self.water, water, dry, dry_gauge)
        )
        self.time, self.water = until, water


def _piece_ahead(fill: FillLine, water: float, draw: float) -> int | None:
    """The piece that the level moves through next: the one above a joint when it rises there, the
    one below when it falls there; None where it holds (a joint at which the flow drops past the
    draw: a bladder is full)."""
    at = piece_of(fill, water)
    inside = water > fill.waters_m3[at]
    if inside or flow_at(fill, at, water) > draw:
        return at
    while at > 0 and fill.waters_m3[at] >= water:
        at -= 1
    return at if flow_at(fill, at, water) < draw else None


def _through_piece(
    fill: FillLine, at: int, water: float, left: float, draw: float
) -> tuple[float, float]:
    """The water after at most `left` seconds inside one piece, and the seconds used."""
    net = flow_at(fill, at, water) - draw
    edge = fill.waters_m3[at + 1] if net > 0 else fill.waters_m3[at]
    net_at_edge = flow_at(fill, at, edge) - draw
    if net * net_at_edge > 0:
        used = abs(edge - water) / log_mean(abs(net), abs(net_at_edge))
        if used <= left:
            return edge, used
    return water_after(fill, at, water, left, draw), left


@dataclass(frozen=True)
class Trail:
    """A line to draw: times (s) and gauge pressures (Pa), equally many; spans (start, end, s) with
    the pump's motor on, and with taps open on an empty tank while the pump does not deliver (the
    dip); how often it started, the dips' sum (s)."""

    times_s: tuple[float, ...]
    gauges_pa: tuple[float, ...]
    pump_spans_s: tuple[tuple[float, float], ...]
    dip_spans_s: tuple[tuple[float, float], ...]
    starts: int
    dip_s: float


def trail(plant: Store, phases: tuple[Phase, ...], points: int = 300) -> Trail:
    """The phases as a line of about `points` points, exact at every event.

    Args:
        plant: Pump, store and switch.
        phases: The phases, one after the other.
        points: About how many points, 2 or more.

    Returns:
        Times (s), gauge pressures (Pa), and the spans (s) in which the pump ran or the tank dipped.

    Source: The phases' own exponentials.
    """
    each = max(2, min(10, points // max(len(phases), 1)))
    gauge_at = cache(lambda held: round(plant.gauge_at(held), 0))  # equal cycles, equal levels
    lines = [_line(plant, gauge_at, phase, each) for phase in phases]
    spans = _spans([phase for phase in phases if phase.pump != OFF])
    dips = _spans([phase for phase in phases if phase.dry and phase.pump != RUNNING])
    return Trail(
        times_s=tuple(round(time, 2) for times, _ in lines for time in times),
        gauges_pa=tuple(gauge for _, gauges in lines for gauge in gauges),
        pump_spans_s=spans,
        dip_spans_s=dips,
        starts=sum(1 for before, phase in pairwise(phases) if _starts(before, phase)),
        dip_s=math.fsum(end - start for start, end in dips),
    )


Line = tuple[list[float], list[float]]


def _line(plant: Store, gauge_at: Callable[[float], float], phase: Phase, count: int) -> Line:
    """Times (s) and gauge pressures (Pa) of one phase, equally many."""
    ends = [phase.start_s, phase.end_s]
    if phase.dry:
        return ends, [phase.dry_gauge_pa] * 2
    if phase.water_start_m3 == phase.water_end_m3:
        return ends, [gauge_at(phase.water_start_m3)] * 2
    # Many short phases are drawn with straight times: on a strip their curve is finer than the
    # line.
    fills = phase.pump == RUNNING and phase.water_end_m3 > phase.water_start_m3
    if count > 5 and fills:
        times, waters = _filling(plant.fill, phase, count)
    else:
        times = _even(phase.start_s, phase.end_s, count)
        waters = _even(phase.water_start_m3, phase.water_end_m3, count)
    return times, [gauge_at(water) for water in waters]


def _even(first: float, last: float, count: int) -> list[float]:
    return [first + (last - first) * k / (count - 1) for k in range(count)]


def _filling(fill: FillLine, phase: Phase, count: int) -> Line:
    """Times (s) and levels (m³) along the fill table, at about `count` of its joints."""
    way = pieces(fill, phase.water_start_m3, phase.water_end_m3)
    stride = max(1, len(way) // count)
    times = accumulate(pieces_seconds([piece], phase.draw_m3_s) for piece in way)
    waters = accumulate(piece[0] for piece in way)
    joints = list(zip(times, waters, strict=True))[stride - 1 : -1 : stride]
    return (
        [phase.start_s, *(min(phase.start_s + t, phase.end_s) for t, _ in joints), phase.end_s],
        [phase.water_start_m3, *(phase.water_start_m3 + w for _, w in joints), phase.water_end_m3],
    )


def _starts(before: Phase, phase: Phase) -> bool:
    """A start: the motor on after it was off; or off and on again on the spot, between two
    phases."""
    return phase.pump != OFF and (
        before.pump == OFF or (phase.pump == STARTING and before.pump == RUNNING)
    )


def _spans(phases: list[Phase]) -> tuple[tuple[float, float], ...]:
    """The phases' times, those that follow on without a gap as one."""
    spans: list[tuple[float, float]] = []
    for phase in phases:
        if spans and abs(spans[-1][1] - phase.start_s) < 1e-9:
            spans[-1] = (spans[-1][0], phase.end_s)
        else:
            spans.append((phase.start_s, phase.end_s))
    return tuple((round(a, 2), round(b, 2)) for a, b in spans)
