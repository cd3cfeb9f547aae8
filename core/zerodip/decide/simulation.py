"""The next minutes of pressure and pump at a draw, for the strip under the ribbon."""

from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.findings import usual_values
from zerodip.kinds.protocol import Simulating
from zerodip.kinds.registry import kind_of
from zerodip.physics.simulation import Draw, Store, Trail, simulate, trail

__all__ = ["Simulation", "simulate_draw"]


@dataclass(frozen=True, kw_only=True)
class Simulation:
    """The next minutes at a draw (m³/s): the line, the pump's spans, and the greatest draw worth
    asking for."""

    seconds: float
    draw_m3_s: float
    worst_draw_m3_s: float | None
    most_draw_m3_s: float
    caption: str
    trail: Trail


IDLE_S, OPEN_S, REST_S = 60.0, 600.0, 240.0
WHOLE_S = IDLE_S + OPEN_S + REST_S
MOST_EVENTS = 600
LEAST_STORED_M3 = 1e-6


def simulate_draw(figures: Figures, draw_m3_s: float | None = None) -> Simulation | None:
    """A quarter of an hour: a minute with the taps shut, ten minutes at `draw_m3_s` (the worst draw
    if None), the rest shut again; the store begins full to cut-out. None for a kind whose cycles
    are too fast to draw.

    Args:
        figures: The system's figures under its settings.
        draw_m3_s: Steady draw, m³/s, 0 or more; the worst draw if None.

    Returns:
        The simulation; None for a kind that has none.

    Source: Event simulation (`zerodip.physics.simulation`).
    """
    kind = kind_of(figures).simulating
    if kind is None:
        return None
    most, worst, store = (
        kind.most_draw_m3_s(figures),
        kind.worst_draw_m3_s(figures),
        kind.store(figures),
    )
    asked = worst or most / 2 if draw_m3_s is None else draw_m3_s
    draw = min(max(asked, 0.0), most)
    draws = (Draw(IDLE_S, 0.0), Draw(OPEN_S, draw), Draw(REST_S, 0.0))
    line = trail(store, simulate(store, draws, most_events=MOST_EVENTS))
    return Simulation(
        seconds=WHOLE_S,
        draw_m3_s=draw,
        worst_draw_m3_s=worst,
        most_draw_m3_s=most,
        caption=_caption(line, store, kind)
        + (", by usual values" if usual_values(figures) else ""),
        trail=line,
    )


def _caption(line: Trail, store: Store, kind: Simulating[Figures]) -> str:
    starts = "1 start" if line.starts == 1 else f"{line.starts} starts"
    ended_s = line.times_s[-1]
    if store.off_m3 - store.on_m3 < LEAST_STORED_M3:
        return "nothing is stored between the set points: the pump chatters"
    if ended_s < WHOLE_S - 1:
        return f"chatters: {starts} in {ended_s - IDLE_S:.0f} s, too many to draw"
    return f"{starts}{kind.steady}" if line.dip_s <= 0 else f"{starts}, {kind.dip(line.dip_s)}"
