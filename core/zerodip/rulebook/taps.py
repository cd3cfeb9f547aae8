"""Rules of what the house gets, of the switch's own range, and of the well."""

from ..rules import Rule, Verdict
from ..sources import PUMP_LINE, practice
from ..system import KINDS, WATER_KINDS

__all__ = ["TAPS"]

TAPS = (
    Rule(
        id="highest-tap",
        title="Enough pressure at the highest tap",
        fails="Too little pressure at the highest tap",
        source=PUMP_LINE,
        measure="tap_pa",
        limit="wanted_tap_pa",
        sense="at_least",
        needs=("highest_tap_m", "peak_draw_for_pipe_m3_s"),
        broken=Verdict.CAUTION,
        figure="{f.tap_pa:pressure} {op} {f.wanted_tap_pa:pressure}",
        advice="Raise cut-in to {f.least_cut_in_pa:pressure} or more, and cut-out and pre-charge with it, if every limit allows.",
        formula="Cut-in − ρg·height − friction = {f.cut_in_pa:pressure} − {f.tap_loss_pa:pressure} = "
        "{f.tap_pa:pressure} just before "
        "the pump starts, of it friction {f.tap_friction_pa:pressure}; wanted {f.wanted_tap_pa:pressure}.",
    ),
    Rule(
        id="well-yield",
        title="The well keeps up with the pump",
        fails="The pump outruns the well",
        source=practice("a pump that outruns its well draws air"),
        kinds=("well_bladder", "well_air"),
        measure="cut_in_flow_m3_s",
        limit="yield_m3_s",
        needs=("yield_m3_s",),
        broken=Verdict.CAUTION,
        figure="{f.cut_in_flow_m3_s:flow} {op} {f.yield_m3_s:flow}",
        advice="Throttle the pump to the well's yield, or guard it against running dry: a low-pressure cut-off or a level guard. "
        "A bigger tank helps the house, not the well.",
        formula="Pump at cut-in {f.cut_in_flow_m3_s:flow}, well {f.yield_m3_s:flow}.",
    ),
    Rule(
        id="switch-range-low",
        title="Cut-in within the switch's range",
        fails="Cut-in below the switch's range",
        source=practice("the range under the cover"),
        kinds=tuple(KINDS),
        measure="cut_in_pa",
        limit="switch_least_in_pa",
        sense="at_least",
        needs=("switch_least_in_pa",),
        figure="{f.cut_in_pa:pressure} {op} {f.switch_least_in_pa:pressure}",
        advice="The range nut would come off its spring: take a switch with a lower range, or raise cut-in.",
        formula="Cut-in {f.cut_in_pa:pressure}; the switch goes down to {f.switch_least_in_pa:pressure}.",
    ),
    Rule(
        id="switch-range-high",
        title="Cut-out within the switch's range",
        fails="Cut-out above the switch's range",
        source=practice("the range under the cover"),
        kinds=tuple(KINDS),
        measure="cut_out_pa",
        limit="switch_most_out_pa",
        needs=("switch_most_out_pa",),
        figure="{f.cut_out_pa:pressure} {op} {f.switch_most_out_pa:pressure}",
        advice="The spring would be solid before cut-out: take a switch with a higher range, or lower cut-out.",
        formula="Cut-out {f.cut_out_pa:pressure}; the switch goes up to {f.switch_most_out_pa:pressure}.",
    ),
    Rule(
        id="differential-least",
        title="Differential not below the switch's least",
        fails="Differential below the switch's least",
        source=practice("the least differential under the cover"),
        kinds=tuple(KINDS),
        measure="differential_pa",
        limit="least_differential_pa",
        sense="at_least",
        needs=("least_differential_pa",),
        figure="{f.differential_pa:pressure} {op} {f.least_differential_pa:pressure}",
        advice="This switch cannot be set so close: widen the differential to {f.least_differential_pa:pressure} or more.",
        formula="Differential {f.differential_pa:pressure}; the switch's least {f.least_differential_pa:pressure}.",
    ),
    Rule(
        id="differential-most",
        title="Differential not above the switch's greatest",
        fails="Differential above the switch's greatest",
        source=practice("the greatest differential under the cover"),
        kinds=tuple(KINDS),
        measure="differential_pa",
        limit="most_differential_pa",
        needs=("most_differential_pa",),
        figure="{f.differential_pa:pressure} {op} {f.most_differential_pa:pressure}",
        advice="This switch cannot be set so wide: narrow the differential to {f.most_differential_pa:pressure} or less.",
        formula="Differential {f.differential_pa:pressure}; the switch's greatest {f.most_differential_pa:pressure}.",
    ),
    Rule(
        id="differential",
        title="Differential as the school has it",
        fails="Differential off the school’s figure",
        source=practice("keep the 20 psi; leave that nut alone; wider at the price of bladder stretch"),
        kinds=WATER_KINDS,
        measure="off_differential_pa",
        limit="differential_tolerance_pa",
        broken=Verdict.CAUTION,
        applies=lambda facts: facts.practice.differential_school != "leave",
        not_applicable="Practice leaves that nut alone.",
        figure="{f.differential_pa:pressure}",
        advice="Usual is {f.usual_differential_pa:pressure}. Narrower starts the pump more often; wider stretches the bladder "
        "and is felt at the tap.",
        formula="Cut-out − cut-in = {f.cut_out_pa:pressure} − {f.cut_in_pa:pressure} = {f.differential_pa:pressure}; "
        "off what the school "
        "has by {f.off_differential_pa:pressure}, allowed {f.differential_tolerance_pa:pressure}.",
    ),
)
