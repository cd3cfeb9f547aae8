"""Rules of what the house gets, of the well and of the differential."""

from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import PUMP_LINE, practice
from zerodip.text.figure import OP

__all__ = ["DIFFERENTIAL", "TAPS", "WELL"]

TAPS: tuple[Rule[W], ...] = (
    Rule(
        id="highest-tap",
        title="Enough pressure at the highest tap",
        fails="Too little pressure at the highest tap",
        source=PUMP_LINE,
        measure=W.tap_pa,
        limit=W.wanted_tap_pa,
        sense="at_least",
        needs=(W.highest_tap_m, W.peak_draw_for_pipe_m3_s),
        broken=Verdict.CAUTION,
        figure=f"{W.tap_pa} {OP} {W.wanted_tap_pa}",
        means=f"The highest tap gets {W.tap_pa} just before a start.",
        formula=(
            f"Cut-in − ρg·height − friction = {W.cut_in_pa} − {W.tap_loss_pa} = "
            f"{W.tap_pa} just before "
            f"the pump starts, of it friction {W.tap_friction_pa}; wanted {W.wanted_tap_pa}."
        ),
    ),
)
WELL: tuple[Rule[W], ...] = (
    Rule(
        id="well-yield",
        title="The well keeps up with the pump",
        fails="The pump outruns the well",
        source=practice("a pump that outruns its well draws air"),
        measure=W.cut_in_flow_m3_s,
        limit=W.yield_m3_s,
        needs=(W.yield_m3_s,),
        broken=Verdict.CAUTION,
        figure=f"{W.cut_in_flow_m3_s} {OP} {W.yield_m3_s}",
        means=(
            "The pump draws the well down until it takes air. A bigger tank helps the house, not"
            " the well."
        ),
        calls_for=(
            "Throttle the pump to the well's yield, or guard it with a low-pressure cut-off or a"
            " level guard."
        ),
        settable=False,
        formula=f"Pump at cut-in {W.cut_in_flow_m3_s}, well {W.yield_m3_s}.",
    ),
)
DIFFERENTIAL: tuple[Rule[W], ...] = (
    Rule(
        id="differential",
        title="Differential as practised here",
        fails="Differential not as practised here",
        source=practice(
            "keep the 20 psi; leave that nut alone; wider at the price of bladder stretch"
        ),
        measure=W.off_differential_pa,
        limit=W.differential_tolerance_pa,
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.practice.differential_school != "leave",
        not_applicable="Practice leaves that nut alone.",
        figure=f"{W.differential_pa}",
        exact=True,
        means=(
            "Narrower starts the pump more often; wider stretches the bladder and is felt at the"
            " tap."
        ),
        formula=(
            f"Cut-out − cut-in = {W.cut_out_pa} − {W.cut_in_pa} = {W.differential_pa}; "
            "off what practice "
            f"has by {W.off_differential_pa}, allowed {W.differential_tolerance_pa}."
        ),
    ),
)
