"""The answers for tankless pumps."""

from ..facts import TanklessFacts
from ..sources import AFFINITY, GAS_LAW
from ..units import Shown
from .parts import AnswerKind

__all__ = ["TANKLESS"]


def _pulse_note(facts: TanklessFacts, f: Shown) -> str:
    if facts.pulse_s is None:
        return "runs through"
    on, off = facts.pulse_s
    return f"{on:.1f} s on, {off:.1f} s off" if on + off > 0 else "chatters as fast as the switch can"


TANKLESS = (
    AnswerKind(
        id="cut_out",
        title="Cut-out",
        figure="cut_out_pa",
        dimension="pressure",
        formula="Window: above the running pressure at the smallest outlet and {f.most_v:voltage}, below dead-head at "
        "{f.least_v:voltage}, {f.gauge_error_pa:pressure} off each for the gauge: {f.window_low_pa:pressure} to "
        "{f.window_high_pa:pressure}.",
        source=AFFINITY,
        note=lambda facts, f: (
            f"window {f.window_low_pa:pressure} to {f.window_high_pa:pressure}" if facts.has_window else "no window"
        ),
    ),
    AnswerKind(
        id="running",
        title="Running, smallest outlet",
        figure="running_pa",
        dimension="pressure",
        formula="K·√p = Q(p, U) at {f.most_v:voltage}: {f.running_pa:pressure} and {f.running_flow_m3_s:flow}; at "
        "{f.least_v:voltage} {f.running_on_battery_pa:pressure}.",
        source=AFFINITY,
        note=lambda facts, f: f"at {f.most_v:voltage}",
    ),
    AnswerKind(
        id="dead_head",
        title="Dead-head, lowest voltage",
        figure="dead_head_pa",
        dimension="pressure",
        formula="p₀·(U/U₀)² = {f.dead_head_pa:pressure} at {f.least_v:voltage}; {f.highest_dead_head_pa:pressure} at "
        "{f.most_v:voltage}.",
        source=AFFINITY,
        note=lambda facts, f: f"at {f.least_v:voltage}",
    ),
    AnswerKind(
        id="pulses",
        title="Pulses, smallest outlet",
        figure="pulses_per_s",
        dimension="per_minute",
        formula="∫ dW/(Q − K√p) + ∫ dW/(K√p) between the points at {f.most_v:voltage}: {f.pulses_per_s:per_minute}.",
        source=GAS_LAW,
        note=_pulse_note,
    ),
    AnswerKind(
        id="drawdown",
        title="Accumulator gives",
        figure="drawdown_m3",
        dimension="volume",
        formula="W(out) − W(in) = {f.drawdown_m3:volume}, pre-charge {f.pre_charge_pa:pressure}.",
        source=GAS_LAW,
        shown=lambda facts: facts.bank is not None,
    ),
)
