"""Rules of plain tanks, cisterns and boosted supplies."""

from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import GAS_LAW, IPC_606_5_5, IPC_608, PUMP_LINE, practice
from zerodip.text.figure import OP

__all__ = ["BOOSTED", "CISTERN", "PLAIN"]

PLAIN: tuple[Rule[W], ...] = (
    Rule(
        id="air-left",
        title="The tank still has its air",
        fails="Waterlogged: much of the air is gone",
        source=GAS_LAW,
        measure=W.air_left,
        limit=W.least_air_left,
        sense="at_least",
        needs=(W.air_left,),
        broken=Verdict.CAUTION,
        figure=f"{W.air_left} left",
        means=f"Much of the air is gone: re-aired, the drawdown is {W.regained_m3} more.",
        calls_for="If it goes soon again, look at the air control and the seams.",
        formula=(
            "Bucket test, V·c = D / (1/in − 1/out), against a fresh charge of"
            f" {W.pre_charge_abs_pa} absolute: {W.air_left}. Drawdown now {W.drawdown_m3}, re-aired"
            f" {W.renewed_m3}."
        ),
    ),
    Rule(
        id="supercharge",
        title="Air charge below cut-in",
        fails="Air charge at or above cut-in",
        source=GAS_LAW,
        measure=W.pre_charge_pa,
        limit=W.cut_in_there_pa,
        sense="below",
        figure=f"{W.pre_charge_pa} {OP} {W.cut_in_there_pa}",
        exact=True,
        means="With no bladder, air blows out at the taps before the pump starts.",
        formula=f"Air charge {W.pre_charge_pa}, cut-in at the tank {W.cut_in_there_pa}.",
    ),
    Rule(
        id="outlet-seal",
        title="Water left over the outlet as a seal",
        fails="Air may go down the outlet",
        source=practice("a tenth of the tank is left as a seal over the outlet"),
        measure=W.seal_m3,
        limit=W.least_seal_m3,
        sense="at_least",
        broken=Verdict.CAUTION,
        figure=f"{W.seal_m3} {OP} {W.least_seal_m3}",
        means=(
            f"Only {W.seal_m3} is left over the outlet at the lowest. Air can go down the pipe and"
            " out at the taps."
        ),
        formula=(
            f"Water at cut-in {W.reserve_m3} and what stands below it, less the need of a start:"
            f" {W.seal_m3}; a tenth of {W.nominal_m3} is {W.least_seal_m3}."
        ),
    ),
)
CISTERN: tuple[Rule[W], ...] = (
    Rule(
        id="non-potable-label",
        title="Labelled as non-potable",
        fails="Untreated water without a label",
        source=IPC_608,
        measure=W.labelled,
        sense="is",
        needs=(W.treated, W.labelled),
        applies=lambda figures: not figures.treated,
        not_applicable="The water is treated for drinking.",
        means="Somebody could drink it. Make sure that nothing joins it to the drinking water.",
        settable=False,
        formula=(
            "Water that is not treated for drinking is marked as such wherever somebody could"
            " take it."
        ),
    ),
)
BOOSTED: tuple[Rule[W], ...] = (
    Rule(
        id="inlet-lowest",
        title="Enough pressure left at the inlet",
        fails="The pump draws the supply down too far",
        source=IPC_606_5_5,
        measure=W.lowest_inlet_pa,
        limit=W.inlet_limit_pa,
        sense="at_least",
        needs=(W.lowest_inlet_pa,),
        figure=f"{W.lowest_inlet_pa} {OP} {W.inlet_limit_pa}",
        exact=True,
        means="A supply drawn to nothing can suck dirty water in.",
        calls_for=(
            "Throttle the pump or put a break tank before it, and have a low-inlet cut-off fitted."
        ),
        settable=False,
        formula=f"Lowest at the inlet, pump on: {W.lowest_inlet_pa}; wanted {W.inlet_limit_pa}.",
    ),
    Rule(
        id="inlet-below-cut-in",
        title="The supply alone stays below cut-in",
        fails="The supply alone holds the switch open",
        source=practice("the switch sees inlet pressure too"),
        measure=W.highest_inlet_pa,
        limit=W.cut_in_pa,
        sense="below",
        needs=(W.highest_inlet_pa,),
        broken=Verdict.CAUTION,
        figure=f"{W.highest_inlet_pa} {OP} {W.cut_in_pa}",
        exact=True,
        means=(
            f"At {W.highest_inlet_pa} from the supply the pump does not start. The supply passes"
            " through it to the taps: fine while that is enough there."
        ),
        settable=False,
        formula=f"Highest inlet {W.highest_inlet_pa}, cut-in {W.cut_in_pa}.",
    ),
    Rule(
        id="inlet-within-ratings",
        title="The supply alone stays within every rating",
        fails="The supply alone passes a rating",
        source=practice("never exceed the lowest rating"),
        measure=W.highest_inlet_pa,
        limit=W.lowest_rating_pa,
        needs=(W.highest_inlet_pa, W.lowest_rating_pa),
        figure=f"{W.highest_inlet_pa} {OP} {W.lowest_rating_pa}",
        exact=True,
        means=(
            f"At its highest the supply brings {W.highest_inlet_pa} into the tank with the pump"
            f" off; the lowest rating allows {W.lowest_rating_pa}."
        ),
        calls_for="Have a pressure-reducing valve fitted before the pump.",
        settable=False,
        formula=(
            f"Highest inlet {W.highest_inlet_pa}; lowest of relief, tank and pipe, less the gauge's"
            f" error: {W.lowest_rating_pa}."
        ),
    ),
    Rule(
        id="inlet-dead-head",
        title="Dead-head at the highest inlet within the relief",
        fails="Dead-head at the highest inlet passes the relief",
        source=PUMP_LINE,
        measure=W.highest_dead_head_pa,
        limit=W.relief_pa,
        needs=(W.highest_inlet_pa, W.dead_head_pa, W.relief_pa),
        broken=Verdict.CAUTION,
        figure=f"{W.highest_dead_head_pa} {OP} {W.relief_pa}",
        exact=True,
        means="With a stuck switch the relief valve would blow all the pump delivers.",
        calls_for="See that the relief can pass it all, and that it drains safely.",
        settable=False,
        formula=(
            f"Dead-head {W.dead_head_pa} and what the inlet can bring on top = "
            f"{W.highest_dead_head_pa}; relief "
            f"{W.relief_pa}."
        ),
    ),
)
