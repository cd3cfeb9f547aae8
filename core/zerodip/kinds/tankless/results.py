"""The results of tankless pumps."""

from zerodip.kinds.results import ResultSpec
from zerodip.kinds.tankless.figures import TanklessFigures as T
from zerodip.rules.sources import AFFINITY, GAS_LAW

__all__ = ["RESULTS"]


def _pulse_note(figures: T) -> str:
    if figures.pulse_s is None:
        return "runs through"
    on, off = figures.pulse_s
    return (
        f"{on:.1f} s on, {off:.1f} s off" if on + off > 0 else "chatters as fast as the switch can"
    )


RESULTS: tuple[ResultSpec[T], ...] = (
    ResultSpec(
        id="cut_out",
        title="Cut-out",
        figure=T.cut_out_pa,
        formula=(
            f"Window: above the running pressure at the smallest outlet and {T.most_v}, below"
            f" dead-head at {T.least_v}, {T.gauge_error_pa} off each for the gauge:"
            f" {T.window_low_pa} to {T.window_high_pa}."
        ),
        source=AFFINITY,
        note=lambda figures: (
            f"window {T.window_low_pa} to {T.window_high_pa}" if figures.has_window else "no window"
        ),
    ),
    ResultSpec(
        id="running",
        title="Running, smallest outlet",
        figure=T.running_pa,
        formula=(
            f"K·√p = Q(p, U) at {T.most_v}: {T.running_pa} and {T.running_flow_m3_s}; at "
            f"{T.least_v} {T.running_on_battery_pa}."
        ),
        source=AFFINITY,
        note=lambda figures: f"at {T.most_v}",
    ),
    ResultSpec(
        id="dead_head",
        title="Dead-head, lowest voltage",
        figure=T.dead_head_pa,
        formula=(
            f"p₀·(U − Uᵢ)/(U₀ − Uᵢ), squared for a centrifugal pump = {T.dead_head_pa} at"
            f" {T.least_v}; {T.highest_dead_head_pa} at {T.most_v}."
        ),
        source=AFFINITY,
        note=lambda figures: f"at {T.least_v}",
    ),
    ResultSpec(
        id="pulses",
        title="Pulses, smallest outlet",
        figure=T.pulses_per_s,
        formula=f"∫ dW/(Q − K√p) + ∫ dW/(K√p) between the points at {T.most_v}: {T.pulses_per_s}.",
        source=GAS_LAW,
        note=_pulse_note,
    ),
    ResultSpec(
        id="drawdown",
        title="Accumulator gives",
        figure=T.drawdown_m3,
        formula=f"W(out) − W(in) = {T.drawdown_m3}, pre-charge {T.pre_charge_pa}.",
        source=GAS_LAW,
        shown=lambda figures: figures.bank is not None,
    ),
)
