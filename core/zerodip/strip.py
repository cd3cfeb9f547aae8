"""The next minutes of pressure and pump at a draw, for the strip under the ribbon."""

from dataclasses import dataclass

from .facts import Facts, ReceiverFacts, WaterFacts
from .plant.events import Draw, Trail, simulate, trail

__all__ = ["Strip", "strip"]


@dataclass(frozen=True, kw_only=True)
class Strip:
    """The next minutes at a draw (m³/s): the line, the pump's spans, and the greatest draw worth asking for."""

    seconds: float
    draw_m3_s: float
    worst_draw_m3_s: float | None
    most_draw_m3_s: float
    caption: str
    trail: Trail


IDLE_S, OPEN_S, REST_S = 60.0, 600.0, 240.0
MOST_EVENTS = 600
LEAST_STORED_M3 = 1e-6


def strip(facts: Facts, draw_m3_s: float | None = None) -> Strip | None:
    """Nothing for a tankless pump, whose pulses are too fast to draw. Else a quarter of an hour: a minute with the taps
    shut, ten minutes at `draw_m3_s` (the worst draw if None), the rest shut again. The tank begins full to cut-out.
    Source: event simulation (`zerodip.plant.events`)."""
    if not isinstance(facts, WaterFacts | ReceiverFacts):
        return None
    most = _most_draw(facts)
    draw = facts.worst_draw_m3_s or most / 2 if draw_m3_s is None else draw_m3_s
    draw = min(max(draw, 0.0), most)
    draws = (Draw(IDLE_S, 0.0), Draw(OPEN_S, draw), Draw(REST_S, 0.0))
    phases = simulate(facts.plant, draws, most_events=MOST_EVENTS)
    line = trail(facts.plant, phases)
    return Strip(
        seconds=IDLE_S + OPEN_S + REST_S,
        draw_m3_s=draw,
        worst_draw_m3_s=facts.worst_draw_m3_s,
        most_draw_m3_s=most,
        caption=_caption(line, facts.plant.off_m3 - facts.plant.on_m3 < LEAST_STORED_M3, facts),
        trail=line,
    )


def _most_draw(facts: WaterFacts | ReceiverFacts) -> float:
    if isinstance(facts, ReceiverFacts):
        return max(facts.store.flows_m3_s[0], facts.use_m3_s or 0.0) * 1.2
    return max(facts.line.flows_m3_s[0], facts.peak_draw_m3_s or 0.0) * 1.2


def _caption(line: Trail, nothing_stored: bool, facts: WaterFacts | ReceiverFacts) -> str:
    starts = "1 start" if line.starts == 1 else f"{line.starts} starts"
    if nothing_stored:
        return "nothing is stored between the set points: the pump chatters"
    if line.times_s[-1] < IDLE_S + OPEN_S + REST_S - 1:
        return f"chatters: {starts} in {line.times_s[-1] - IDLE_S:.0f} s, too many to draw"
    if line.dip_s <= 0:
        return f"{starts}, no dip" if isinstance(facts, WaterFacts) else starts
    if isinstance(facts, ReceiverFacts):
        return f"{starts}, the receiver empty for {line.dip_s:.0f} s"
    return f"{starts}, taps dry for {line.dip_s:.1f} s while the pump starts"
