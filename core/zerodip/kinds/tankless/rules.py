"""Rules of tankless demand pumps."""

from zerodip.kinds.switch_rules import SWITCH
from zerodip.kinds.tankless.figures import TanklessFigures as T
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import AFFINITY, GAS_LAW, practice
from zerodip.text.figure import OP

__all__ = ["RULES"]

RULES: tuple[Rule[T], ...] = (
    Rule(
        id="window",
        title="There is a window for cut-out",
        fails="No cut-out works at both voltages",
        source=AFFINITY,
        measure=T.window_low_pa,
        limit=T.window_high_pa,
        broken=Verdict.CAUTION,
        figure=f"{T.window_low_pa} {OP} {T.window_high_pa}",
        exact=True,
        means=(
            f"The smallest outlet passes {T.outlet_there_m3_s} where the pump gives"
            f" {T.least_outlet_m3_s}. It pulses at every cut-out that can still switch off."
        ),
        settable=False,
        formula=(
            f"Running pressure at the smallest outlet and {T.most_v} = {T.running_pa}; dead-head at"
            f" {T.least_v} = {T.dead_head_pa}, each with {T.gauge_error_pa} for the gauge."
        ),
    ),
    Rule(
        id="cut-out-stops",
        title="Cut-out below dead-head at the lowest voltage",
        fails="Never stops at the lowest voltage",
        source=AFFINITY,
        measure=T.cut_out_pa,
        limit=T.window_high_pa,
        figure=f"{T.cut_out_pa} {OP} {T.window_high_pa}",
        exact=True,
        means=(
            f"At {T.least_v} the pump stalls at {T.dead_head_pa} and runs on, hot, until the"
            " battery is flat."
        ),
        formula=(
            "Dead-head × (U − Uᵢ)/(U₀ − Uᵢ), squared for a centrifugal pump ="
            f" {T.dead_head_pa} at {T.least_v}, less "
            f"{T.gauge_error_pa} for the gauge."
        ),
    ),
    Rule(
        id="cut-out-steady",
        title="Runs steadily at the smallest outlet",
        fails="Chatters at the smallest outlet",
        source=AFFINITY,
        measure=T.window_low_pa,
        limit=T.cut_out_pa,
        broken=Verdict.CAUTION,
        figure=f"{T.window_low_pa} {OP} {T.cut_out_pa}",
        exact=True,
        means="Turn by quarters, the furthest outlet running, the air out of the lines.",
        formula=(
            f"At {T.most_v} the smallest outlet runs at {T.running_pa} and "
            f"{T.running_flow_m3_s}, from K·√p = Q(p, U); "
            f"with {T.gauge_error_pa} for the gauge."
        ),
    ),
    Rule(
        id="pulse-rate",
        title="The accumulator keeps pulses slow",
        fails="Pulses fast at the smallest outlet",
        source=GAS_LAW,
        measure=T.pulses_per_s,
        limit=T.tolerable_pulses_per_s,
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.pulses_at_all,
        not_applicable="The pump runs through at the smallest outlet.",
        figure=f"{T.pulses_per_s}",
        means="Each pulse is a start; six a minute can be borne.",
        formula=(
            "One over ∫ dW/(Q − K√p) + ∫ dW/(K√p) between cut-in and cut-out, dW what an"
            f" accumulator gives: {T.pulses_per_s}."
        ),
    ),
    Rule(
        id="accumulator-pre-charge",
        title="Accumulator's pre-charge below cut-in",
        fails="Accumulator's pre-charge at or above cut-in",
        source=GAS_LAW,
        measure=T.pre_charge_pa,
        limit=T.cut_in_pa,
        sense="below",
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.bank is not None,
        not_applicable="There is no accumulator.",
        figure=f"{T.pre_charge_pa} {OP} {T.cut_in_pa}",
        exact=True,
        means="Above cut-out it does nothing at all.",
        formula=f"Pre-charge {T.pre_charge_pa}, cut-in {T.cut_in_pa}, cut-out {T.cut_out_pa}.",
    ),
    Rule(
        id="accumulator-plate",
        title="Cut-out within the accumulator's plate",
        fails="Cut-out over the accumulator's plate",
        source=practice("never exceed the lowest rating"),
        measure=T.cut_out_pa,
        limit=T.accumulator_allowed_pa,
        needs=(T.accumulator_max_pa,),
        applies=lambda figures: figures.system.accumulator is not None,
        not_applicable="There is no accumulator.",
        figure=f"{T.cut_out_pa} + {T.gauge_error_pa} {OP} {T.accumulator_max_pa}",
        exact=True,
        means=f"The accumulator's plate allows {T.accumulator_max_pa}.",
        formula=(
            f"Cut-out {T.cut_out_pa} and gauge error {T.gauge_error_pa}; accumulator"
            f" {T.accumulator_max_pa}."
        ),
    ),
    Rule(
        id="demand-differential",
        title="Some differential",
        fails="Hardly any differential",
        source=practice("demand pumps keep some 10 psi or more, from memory"),
        measure=T.differential_pa,
        limit=T.small_differential_pa,
        sense="at_least",
        broken=Verdict.CAUTION,
        figure=f"{T.differential_pa} {OP} {T.small_differential_pa}",
        exact=True,
        means="So close together the points answer to every ripple in the line.",
        formula=f"Cut-out − cut-in = {T.cut_out_pa} − {T.cut_in_pa} = {T.differential_pa}.",
    ),
    *SWITCH,
)
