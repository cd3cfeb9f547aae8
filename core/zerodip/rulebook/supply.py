"""Rules of plain tanks, cisterns and boosted supplies."""

from ..rules import Rule, Verdict
from ..sources import GAS_LAW, IPC_606_5_5, IPC_608, PUMP_LINE, practice

__all__ = ["SUPPLY"]

SUPPLY = (
    Rule(
        id="air-left",
        title="The tank still has its air",
        fails="Waterlogged: much of the air is gone",
        source=GAS_LAW,
        kinds=("well_air",),
        measure="air_left",
        limit="least_air_left",
        sense="at_least",
        needs=("air_left",),
        broken=Verdict.CAUTION,
        figure="{f.air_left:share} left",
        advice="Power off, drain the tank to the bottom with a tap open above it so that it takes air, and fill it again: that "
        "gives back {f.regained_m3:volume} of drawdown. If it goes soon again, look at the air control and the seams.",
        formula="Bucket test, V·c = D / (1/in − 1/out), against a fresh charge of {f.pre_charge_abs_pa:pressure} absolute: "
        "{f.air_left:share}. Drawdown now {f.drawdown_m3:volume}, re-aired {f.renewed_m3:volume}.",
    ),
    Rule(
        id="supercharge",
        title="Air charge below cut-in",
        fails="Air charge at or above cut-in",
        source=GAS_LAW,
        kinds=("well_air",),
        measure="pre_charge_pa",
        limit="cut_in_pa",
        sense="below",
        figure="{f.pre_charge_pa:pressure} {op} {f.cut_in_pa:pressure}",
        advice="With no bladder, air would blow out at the taps before the pump starts: let air off well below cut-in.",
        formula="Air charge {f.pre_charge_pa:pressure}, cut-in {f.cut_in_pa:pressure}.",
    ),
    Rule(
        id="non-potable-label",
        title="Labelled as non-potable",
        fails="Untreated water without a label",
        source=IPC_608,
        kinds=("cistern",),
        measure="labelled",
        sense="is",
        needs=("treated", "labelled"),
        applies=lambda facts: not facts.treated,
        not_applicable="The water is treated for drinking.",
        figure="",
        advice="Label tank, lines and taps “non-potable, do not drink” (purple is the usual colour), and make sure that nothing "
        "joins them to the drinking water.",
        formula="Water that is not treated for drinking is marked as such wherever somebody could take it.",
    ),
    Rule(
        id="inlet-lowest",
        title="Enough pressure left at the inlet",
        fails="The pump draws the supply down too far",
        source=IPC_606_5_5,
        kinds=("boosted",),
        measure="lowest_inlet_pa",
        limit="inlet_limit_pa",
        sense="at_least",
        needs=("lowest_inlet_pa",),
        figure="{f.lowest_inlet_pa:pressure} {op} {f.inlet_limit_pa:pressure}",
        advice="Throttle the pump or put a break tank before it, and have a low-inlet cut-off: a supply drawn to nothing can suck "
        "dirty water in.",
        formula="Lowest at the inlet, pump on: {f.lowest_inlet_pa:pressure}; wanted {f.inlet_limit_pa:pressure}.",
    ),
    Rule(
        id="inlet-below-cut-in",
        title="The supply alone stays below cut-in",
        fails="The supply alone holds the switch open",
        source=practice("the switch sees inlet pressure too"),
        kinds=("boosted",),
        measure="highest_inlet_pa",
        limit="cut_in_pa",
        sense="below",
        needs=("highest_inlet_pa",),
        broken=Verdict.CAUTION,
        figure="{f.highest_inlet_pa:pressure} {op} {f.cut_in_pa:pressure}",
        advice="At {f.highest_inlet_pa:pressure} from the supply the pump is not called for; that is well as long as "
        "it is enough at "
        "the taps. Otherwise raise cut-in.",
        formula="Highest inlet {f.highest_inlet_pa:pressure}, cut-in {f.cut_in_pa:pressure}.",
    ),
    Rule(
        id="inlet-dead-head",
        title="Dead-head at the highest inlet within the relief",
        fails="Dead-head at the highest inlet passes the relief",
        source=PUMP_LINE,
        kinds=("boosted",),
        measure="highest_dead_head_pa",
        limit="relief_pa",
        needs=("highest_inlet_pa", "dead_head_pa", "relief_pa"),
        broken=Verdict.CAUTION,
        figure="{f.highest_dead_head_pa:pressure} {op} {f.relief_pa:pressure}",
        advice="With a stuck switch the relief valve would blow all the pump delivers: see that it can, and that it drains safely.",
        formula="Dead-head {f.dead_head_pa:pressure} and what the inlet can bring on top = "
        "{f.highest_dead_head_pa:pressure}; relief "
        "{f.relief_pa:pressure}.",
    ),
)
