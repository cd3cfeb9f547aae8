"""Rules of tankless demand pumps."""

from ..rules import Rule, Verdict
from ..sources import AFFINITY, GAS_LAW, practice

__all__ = ["TANKLESS"]

_KINDS = ("tankless",)

TANKLESS = (
    Rule(
        id="window",
        title="There is a window for cut-out",
        fails="No cut-out works at both voltages",
        source=AFFINITY,
        kinds=_KINDS,
        measure="window_low_pa",
        limit="window_high_pa",
        broken=Verdict.CAUTION,
        figure="{f.window_low_pa:pressure} {op} {f.window_high_pa:pressure}",
        advice="The smallest outlet passes {f.outlet_there_m3_s:flow} where the pump gives "
        "{f.least_outlet_m3_s:flow}: it pulses at "
        "every cut-out that can still switch off. A larger outlet (open two taps), a steadier voltage, or a small accumulator "
        "with its pre-charge below cut-in helps.",
        formula="Running pressure at the smallest outlet and {f.most_v:voltage} = {f.running_pa:pressure}; dead-head at "
        "{f.least_v:voltage} = {f.dead_head_pa:pressure}, each with {f.gauge_error_pa:pressure} for the gauge.",
    ),
    Rule(
        id="cut-out-stops",
        title="Cut-out below dead-head at the lowest voltage",
        fails="Never stops at the lowest voltage",
        source=AFFINITY,
        kinds=_KINDS,
        measure="cut_out_pa",
        limit="window_high_pa",
        figure="{f.cut_out_pa:pressure} {op} {f.window_high_pa:pressure}",
        advice="Lower cut-out to {f.window_high_pa:pressure} or less: at {f.least_v:voltage} the pump comes to a stand at "
        "{f.dead_head_pa:pressure} and runs on, hot, until the battery is flat.",
        formula="Dead-head × (U/U₀)² = {f.dead_head_pa:pressure} at {f.least_v:voltage}, less "
        "{f.gauge_error_pa:pressure} for the gauge.",
    ),
    Rule(
        id="cut-out-steady",
        title="Runs steadily at the smallest outlet",
        fails="Chatters at the smallest outlet",
        source=AFFINITY,
        kinds=_KINDS,
        measure="window_low_pa",
        limit="cut_out_pa",
        broken=Verdict.CAUTION,
        figure="{f.window_low_pa:pressure} {op} {f.cut_out_pa:pressure}",
        advice="Raise cut-out to {f.window_low_pa:pressure} or more if the lowest voltage allows it, by quarter turns "
        "with the furthest "
        "outlet running and the air out of the lines; else slow it with an accumulator.",
        formula="At {f.most_v:voltage} the smallest outlet runs at {f.running_pa:pressure} and "
        "{f.running_flow_m3_s:flow}, from K·√p = Q(p, U); "
        "with {f.gauge_error_pa:pressure} for the gauge.",
    ),
    Rule(
        id="pulse-rate",
        title="The accumulator keeps pulses slow",
        fails="Pulses fast at the smallest outlet",
        source=GAS_LAW,
        kinds=_KINDS,
        measure="pulses_per_s",
        limit="tolerable_pulses_per_s",
        broken=Verdict.CAUTION,
        applies=lambda facts: facts.pulses_at_all,
        not_applicable="The pump runs through at the smallest outlet.",
        figure="{f.pulses_per_s:per_minute}",
        advice="A bigger accumulator, pre-charged a little below cut-in, makes each pulse longer; six a minute can be borne.",
        formula="∫ dW/(Q − K√p) + ∫ dW/(K√p) between cut-in and cut-out; the accumulator gives {f.drawdown_m3:volume}: "
        "{f.pulses_per_s:per_minute}.",
    ),
    Rule(
        id="accumulator-pre-charge",
        title="Accumulator's pre-charge below cut-in",
        fails="Accumulator's pre-charge at or above cut-in",
        source=GAS_LAW,
        kinds=_KINDS,
        measure="pre_charge_pa",
        limit="cut_in_pa",
        sense="below",
        broken=Verdict.CAUTION,
        applies=lambda facts: facts.bank is not None,
        not_applicable="There is no accumulator.",
        figure="{f.pre_charge_pa:pressure} {op} {f.cut_in_pa:pressure}",
        advice="Let air out, power off and drained, to a little below {f.cut_in_pa:pressure}. Above cut-out it does "
        "nothing at all.",
        formula="Pre-charge {f.pre_charge_pa:pressure}, cut-in {f.cut_in_pa:pressure}, cut-out {f.cut_out_pa:pressure}.",
    ),
    Rule(
        id="demand-differential",
        title="Some differential",
        fails="Hardly any differential",
        source=practice("demand pumps keep some 10 psi or more, from memory"),
        kinds=_KINDS,
        measure="differential_pa",
        limit="small_differential_pa",
        sense="at_least",
        broken=Verdict.CAUTION,
        figure="{f.differential_pa:pressure} {op} {f.small_differential_pa:pressure}",
        advice="So close together the points answer to every ripple in the line.",
        formula="Cut-out − cut-in = {f.cut_out_pa:pressure} − {f.cut_in_pa:pressure} = {f.differential_pa:pressure}.",
    ),
)
