"""One cycle as the system's file predicts it, to be laid over the one recorded."""

from dataclasses import dataclass

from zerodip.fileformat.document import Document
from zerodip.physics.simulation import Draw, Store, simulate, trail

__all__ = ["Predicted", "predicted"]

_MOST_S = 7200.0
_POINTS = 200


@dataclass(frozen=True)
class Predicted:
    """A predicted cycle: times from the start of the pump (s; before it negative), pressures (Pa
    gauge), how long the pump runs (s; None where it never stops)."""

    time_s: tuple[float, ...]
    gauge_pa: tuple[float, ...]
    run_s: float | None


def predicted(document: Document, share: float, before_s: float) -> Predicted | None:
    """A cycle under a draw, by the plates and settings of the file.

    Args:
        document: The system's file.
        share: The draw, as a share of the pump's delivery in the middle of the band, 0 or more.
        before_s: How long before the start is drawn, s.

    Returns:
        The cycle; None where the plates tell of none.
    """
    figures = document.figures()
    store: Store | None = getattr(figures, "store", None)
    flow = getattr(figures, "mid_flow_m3_s", None)
    if store is None or not flow or store.off_m3 <= store.on_m3:
        return None
    draw = max(share, 1e-3) * flow
    fall_s = min((store.off_m3 - store.on_m3) / draw, before_s)
    begins = store.on_m3 + draw * fall_s
    phases = simulate(store, [Draw(fall_s + _MOST_S, draw)], begins, most_events=4)
    line = trail(store, phases[:4], _POINTS)
    stops = [end for start, end in line.pump_spans_s if end - start < _MOST_S]
    until = stops[0] + before_s if stops else _MOST_S
    shown = [
        (t - fall_s, p) for t, p in zip(line.times_s, line.gauges_pa, strict=True) if t <= until
    ]
    starts = [start for start, _ in line.pump_spans_s]
    run_s = stops[0] - starts[0] if stops and starts else None
    return Predicted(tuple(t for t, _ in shown), tuple(p for _, p in shown), run_s)
