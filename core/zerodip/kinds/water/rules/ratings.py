"""Rules of what must not be passed: plates, relief, fixtures."""

from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import IPC_604_8, practice
from zerodip.text.figure import OP

__all__ = ["ACCEPTANCE", "RATINGS"]

RATINGS: tuple[Rule[W], ...] = (
    Rule(
        id="relief-present",
        title="Relief valve there",
        fails="No relief valve",
        source=practice("and codes: required with any closed tank"),
        measure=W.relief_present,
        sense="is",
        needs=(W.relief_present,),
        means=(
            "A closed tank without a relief valve can burst when a switch sticks. Never plug,"
            " remove or raise one."
        ),
        calls_for="Have one fitted before the system is left running.",
        settable=False,
        formula="A closed tank without relief can pass every other limit when a switch sticks.",
    ),
    Rule(
        id="relief-above-cut-out",
        title="Relief opens above cut-out",
        fails="Relief opens at or near cut-out",
        source=practice("and codes"),
        measure=W.cut_out_pa,
        limit=W.relief_allowed_pa,
        needs=(W.relief_pa,),
        applies=lambda figures: figures.relief_present is not False,
        not_applicable="There is no relief valve.",
        figure=f"{W.cut_out_pa} + {W.gauge_error_pa} {OP} {W.relief_pa}",
        exact=True,
        means=f"{W.relief_does} Never raise the relief to fit the switch.",
        formula=(
            f"Cut-out {W.cut_out_pa} and what the gauge may be off by, {W.gauge_error_pa}; relief"
            f" opens at {W.relief_pa}."
        ),
    ),
    Rule(
        id="relief-within-tank",
        title="Relief within the tank's maximum",
        fails="Relief set above the tank's maximum",
        source=practice("and codes: required with any closed tank"),
        measure=W.relief_pa,
        limit=W.tank_max_here_pa,
        needs=(W.relief_pa, W.tank_max_here_pa),
        applies=lambda figures: figures.relief_present is not False,
        not_applicable="There is no relief valve.",
        figure=f"{W.relief_pa} {OP} {W.tank_max_here_pa}",
        exact=True,
        means=f"The relief opens only above what the tank is made for, {W.tank_max_here_pa}.",
        calls_for="Have one fitted set no higher, and cut-out lowered below it.",
        settable=False,
        formula=(
            f"Relief {W.relief_pa}, lowest tank plate {W.tank_max_pa}, at the gauge"
            f" {W.tank_max_here_pa}."
        ),
    ),
    Rule(
        id="tank-plate",
        title="Cut-out within the tank plate",
        fails="Cut-out over the tank plate",
        source=practice("never exceed the lowest rating"),
        measure=W.cut_out_pa,
        limit=W.tank_allowed_pa,
        needs=(W.tank_max_here_pa,),
        figure=f"{W.cut_out_pa} + {W.gauge_error_pa} {OP} {W.tank_max_here_pa}",
        exact=True,
        means=f"The tank's plate allows {W.tank_max_pa}. {W.plate_against}",
        formula=(
            f"Cut-out {W.cut_out_pa} and gauge error {W.gauge_error_pa}; lowest tank plate"
            f" {W.tank_max_pa}, at the gauge {W.tank_max_here_pa}."
        ),
    ),
    Rule(
        id="pipe-rating",
        title="Cut-out within the pipe's rating",
        fails="Cut-out over the pipe's rating",
        source=practice("never exceed the lowest rating"),
        measure=W.cut_out_pa,
        limit=W.pipe_allowed_pa,
        needs=(W.pipe_max_pa,),
        figure=f"{W.cut_out_pa} + {W.gauge_error_pa} {OP} {W.pipe_max_pa}",
        exact=True,
        means=f"The pipe is rated for {W.pipe_max_pa}.",
        formula=f"Cut-out {W.cut_out_pa} and gauge error {W.gauge_error_pa}; pipe {W.pipe_max_pa}.",
    ),
    Rule(
        id="pump-rating",
        title="Cut-out within the pump's rating",
        fails="Cut-out over the pump's rating",
        source=practice("never exceed the lowest rating"),
        measure=W.cut_out_pa,
        limit=W.pump_allowed_pa,
        needs=(W.pump_max_pa,),
        figure=f"{W.cut_out_pa} + {W.gauge_error_pa} {OP} {W.pump_max_pa}",
        exact=True,
        means=f"The pump's plate allows {W.pump_max_pa}.",
        formula=f"Cut-out {W.cut_out_pa} and gauge error {W.gauge_error_pa}; pump {W.pump_max_pa}.",
    ),
    Rule(
        id="fixture-limit",
        title=f"No more than {W.fixture_limit_pa} at the fixtures",
        fails=f"More than {W.fixture_limit_pa} at the fixtures",
        source=IPC_604_8,
        measure=W.tap_static_pa,
        limit=W.fixture_limit_pa,
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.fixture_cut_out_pa is not None,
        not_applicable="A pressure-reducing valve stands after the tank.",
        figure=f"{W.tap_static_pa} {OP} {W.fixture_limit_pa}",
        exact=True,
        means="Fixtures and hoses are made for less.",
        formula=(
            f"Static at the lowest tap = cut-out − ρg·height = {W.tap_static_pa}; limit"
            f" {W.fixture_limit_pa}."
        ),
    ),
)
ACCEPTANCE: tuple[Rule[W], ...] = (
    Rule(
        id="bladder-acceptance",
        title="Bladder not overstretched",
        fails="Bladder overstretched",
        source=practice("the acceptance on the tank plate"),
        measure=W.unbounded_full_m3,
        limit=W.acceptance_m3,
        needs=(W.acceptance_m3,),
        broken=Verdict.CAUTION,
        figure=f"{W.unbounded_full_m3} {OP} {W.acceptance_m3}",
        means="The air would let in more water than the bladder is made for.",
        formula=(
            f"W(out) = V (1 − c/out) = {W.unbounded_full_m3}; the bladder takes {W.acceptance_m3}."
        ),
    ),
)
