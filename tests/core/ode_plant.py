"""The same plant by scipy's ODE solver with event detection: slow, independent of the fill table,
for comparison.

It integrates dW/dt = Q_pump(p(W)) − Q_draw from switch event to switch event, with the pump's flow
from its exact formula.
"""

from collections.abc import Callable, Iterable

from scipy.integrate import solve_ivp

from zerodip.physics.bladder_tank import pressure_abs_pa
from zerodip.physics.simulation import Draw, WaterStore

OFF, STARTING, RUNNING = "off", "starting", "running"


def starts_by_ode(
    plant: WaterStore, draws: Iterable[Draw], flow: Callable[[float], float]
) -> tuple[list[float], list[float]]:
    """Times (s) of starts and of stops; `flow` gives m³/s at a gauge pressure in Pa."""
    time, water, state, until = 0.0, plant.off_m3, OFF, 0.0
    starts: list[float] = []
    stops: list[float] = []
    for draw in draws:
        end = time + draw.seconds
        while end - time > 1e-9:
            limit = min(end, until) if state == STARTING else end
            time, water, reached = _leg(plant, state, water, time, limit, draw.flow_m3_s, flow)
            if state == OFF and reached:
                state, until = STARTING, time + plant.start_lag_s
                starts.append(time)
            elif state == STARTING and time >= until - 1e-9:
                state = RUNNING
            elif state == RUNNING and reached:
                state = OFF
                stops.append(time)
    return starts, stops


def _leg(
    plant: WaterStore,
    state: str,
    water: float,
    time: float,
    limit: float,
    draw: float,
    flow: Callable[[float], float],
) -> tuple[float, float, bool]:
    def change(_: float, y: list[float]) -> list[float]:
        gauge = pressure_abs_pa(plant.bank, max(y[0], 0.0)) - plant.atmosphere_pa
        return [
            (flow(gauge) if state == RUNNING else 0.0)
            - (draw if y[0] > 0 or state == RUNNING else 0.0)
        ]

    def mark(_: float, y: list[float]) -> float:
        return y[0] - (plant.off_m3 if state == RUNNING else plant.on_m3)

    mark.terminal = state != STARTING  # type: ignore[attr-defined]
    mark.direction = 1 if state == RUNNING else -1  # type: ignore[attr-defined]
    if limit <= time:
        return time, water, False
    solved = solve_ivp(
        change, (time, limit), [water], events=mark, rtol=1e-8, atol=1e-12, max_step=120.0
    )
    return float(solved.t[-1]), float(solved.y[0, -1]), solved.status == 1
