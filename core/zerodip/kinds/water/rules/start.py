"""Rules of the pre-charge and of the moment of starting."""

from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import GAS_LAW, MASS_BALANCE, practice
from zerodip.text.figure import OP

__all__ = ["BLADDER", "CUT_OFF", "START"]

START: tuple[Rule[W], ...] = (
    Rule(
        id="keeps-up",
        title="The pump keeps up with the peak draw",
        fails="The pump cannot keep up with the peak draw",
        source=MASS_BALANCE,
        measure=W.balance_pa,
        limit=W.least_balance_pa,
        sense="at_least",
        needs=(W.peak_draw_m3_s,),
        broken=Verdict.CAUTION,
        settable=False,
        figure=f"{W.balance_pa} {OP} {W.least_balance_pa}",
        means=(
            f"In a long draw the gauge settles at {W.balance_pa}, where pump and taps balance."
            " The tank only delays it."
        ),
        formula=(
            f"Q(p) = K·√(p − ρg·height) at the lowest inlet, K from {W.peak_draw_m3_s} at cut-in"
            f" (taps as orifices, at the lowest tap): p = {W.balance_pa}. Delivered at cut-in"
            f" {W.cut_in_flow_m3_s}; wanted {W.least_balance_pa}."
        ),
    ),
    Rule(
        id="start-dip",
        title="No dip while the pump starts",
        fails="Dips while the pump starts",
        source=GAS_LAW,
        measure=W.dip_need_m3,
        limit=W.reserve_m3,
        needs=(W.peak_draw_m3_s,),
        assumes=lambda figures: (
            figures.through_pa > 0
            or (figures.line.assumed and figures.lag_need_m3 <= figures.reserve_m3)
        ),
        figure=f"{W.dip_need_m3} {OP} {W.reserve_m3}",
        means=(
            f"At {W.peak_draw_m3_s} the house takes {W.dip_need_m3} until the pump delivers, and"
            f" only {W.reserve_m3} is held."
        ),
        calls_for="A pump that starts faster would.",
        formula=(
            f"Need: Q over the lag of {W.start_lag_s} and until delivery, ramping up over"
            f" {W.ramp_s}, meets it, at Q = {W.peak_draw_m3_s}: {W.dip_need_m3}; held at cut-in "
            f"W(in) = V (1 − c/in) = {W.reserve_m3} with c = {W.pre_charge_abs_pa} and "
            f"in = {W.cut_in_abs_pa} absolute."
        ),
    ),
    Rule(
        id="low-pressure-trip",
        title="A start stays clear of the low-pressure cut-off",
        fails="A start trips the low-pressure cut-off",
        source=practice("trips about 10 psi under cut-in"),
        measure=W.trip_pa,
        limit=W.start_lowest_pa,
        sense="below",
        assumes=lambda figures: figures.line.assumed,
        needs=(W.low_pressure_cut_off, W.peak_draw_m3_s),
        applies=lambda figures: figures.low_pressure_cut_off is not False,
        not_applicable="This switch has no low-pressure cut-off.",
        figure=f"trip {W.trip_pa} {OP} {W.start_lowest_pa}",
        means=(
            f"While the pump starts the gauge falls to {W.start_lowest_pa}. At {W.trip_pa} the"
            " switch trips and stays off until the lever is held."
        ),
        calls_for="A pump that starts faster would.",
        formula=(
            f"Lowest in the start, from W(in) − Q·t: {W.start_lowest_pa}; trip = cut-in − "
            f"{W.trip_below_pa} = {W.trip_pa}."
        ),
    ),
    Rule(
        id="long-draw-trip",
        title="A long draw stays clear of the low-pressure cut-off",
        fails="A long draw trips the low-pressure cut-off",
        source=MASS_BALANCE,
        measure=W.trip_pa,
        limit=W.balance_pa,
        sense="below",
        assumes=lambda figures: figures.line.assumed,
        needs=(W.low_pressure_cut_off, W.peak_draw_m3_s),
        settable=False,
        applies=lambda figures: figures.low_pressure_cut_off is not False,
        not_applicable="This switch has no low-pressure cut-off.",
        figure=f"trip {W.trip_pa} {OP} {W.balance_pa}",
        means=(
            f"The pump holds only {W.balance_pa} against the open taps. At {W.trip_pa} the switch"
            " trips and stays off."
        ),
        formula=(
            f"Pump and taps balance at {W.balance_pa}; trip = cut-in − {W.trip_below_pa} ="
            f" {W.trip_pa}."
        ),
    ),
    Rule(
        id="low-pressure-margin",
        title="Room for a slow start above the low-pressure cut-off",
        fails="A slow start would trip the low-pressure cut-off",
        source=practice("5 psi below cut-in with a low-pressure cut-off switch"),
        measure=W.trip_pa,
        limit=W.slow_lowest_pa,
        sense="below",
        assumes=lambda figures: figures.line.assumed,
        needs=(W.low_pressure_cut_off, W.peak_draw_m3_s),
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.low_pressure_cut_off is not False,
        not_applicable="This switch has no low-pressure cut-off.",
        figure=f"trip {W.trip_pa} {OP} {W.slow_lowest_pa}",
        means=(
            f"A start twice as slow takes the gauge to {W.slow_lowest_pa}. At {W.trip_pa} the"
            " switch trips and stays off."
        ),
        calls_for="A pump that starts faster would.",
        formula=(
            f"Lowest in a start twice as slow, from W(in) − 2·Q·t = {W.reserve_m3} −"
            f" {W.slow_need_m3}: {W.slow_lowest_pa}; trip = cut-in − {W.trip_below_pa} ="
            f" {W.trip_pa}."
        ),
    ),
)
BLADDER: tuple[Rule[W], ...] = (
    Rule(
        id="pre-charge-below-cut-in",
        title="Pre-charge below cut-in",
        fails="Pre-charge at or above cut-in",
        source=GAS_LAW,
        measure=W.highest_pre_charge_pa,
        limit=W.cut_in_there_pa,
        sense="below",
        figure=f"{W.highest_pre_charge_pa} {OP} {W.cut_in_there_pa}",
        exact=True,
        means="The tank is empty before the switch acts, and pressure collapses at each start.",
        formula=(
            f"Pre-charge {W.highest_pre_charge_pa} against cut-in at the tank {W.cut_in_there_pa}; "
            f"water held at cut-in {W.reserve_m3}."
        ),
    ),
    Rule(
        id="summer-charge",
        title="Pre-charge below cut-in at the warmest",
        fails="Pre-charge over cut-in at the warmest",
        source=GAS_LAW,
        measure=W.warmest_pa,
        limit=W.cut_in_there_pa,
        sense="below",
        applies=lambda figures: figures.warmest_pa is not None,
        not_applicable="The temperatures over the year are not entered.",
        figure=f"{W.warmest_pa} {OP} {W.cut_in_there_pa}",
        exact=True,
        means=(
            f"What is {W.pre_charge_pa} at the season's mean is {W.warmest_pa} at the warmest. The"
            " tank is empty before the switch acts."
        ),
        formula=(
            f"p ∝ T, absolute: {W.pre_charge_pa} at the season's mean is {W.warmest_pa} at the"
            f" warmest; cut-in at the tank {W.cut_in_there_pa}."
        ),
    ),
    *START,
    Rule(
        id="tanks-alike",
        title="Tanks share one pre-charge",
        fails="Tanks with different pre-charges",
        source=practice("tanks side by side are set alike"),
        measure=W.uneven_pa,
        limit=W.uneven_limit_pa,
        broken=Verdict.CAUTION,
        applies=lambda figures: len(figures.system.tanks) > 1,
        not_applicable="There is one tank.",
        figure=f"{W.uneven_pa} apart",
        exact=True,
        means=(
            "One tank does most of the work. A tank that will not hold its air is finished: the"
            " others carry the load alone."
        ),
        formula=f"Highest less lowest pre-charge = {W.uneven_pa}; allowed {W.uneven_limit_pa}.",
    ),
    Rule(
        id="pre-charge-practice",
        title="Pre-charge right",
        fails="Pre-charge not right",
        source=practice("practitioners differ: 2, 2–3, 5 psi below cut-in, or computed"),
        measure=W.off_target_pa,
        limit=W.way_tolerance_pa,
        needs=(W.peak_draw_for_target_m3_s,),
        untold=(
            "The tanks are smaller than what the house takes while the pump starts: no pre-charge"
            " holds that back."
        ),
        broken=Verdict.CAUTION,
        figure=f"{W.pre_charge_pa}, wanted {W.target_pa}",
        exact=True,
        means=(
            "Lower than needed costs drawdown and stretches the bladder; higher eats the reserve."
        ),
        formula=(
            f"The least of practice, {W.practice_charge_pa}, no dip, {W.dip_charge_pa}, no trip,"
            f" {W.trip_charge_pa}, and the warmest day, {W.summer_pa} = {W.target_pa}; set"
            f" {W.pre_charge_pa}, allowed apart {W.way_tolerance_pa}."
        ),
    ),
    Rule(
        id="pre-charge-found",
        title="No sign of a leaking tank",
        fails="Pre-charge found so low that the tank may leak",
        source=practice("10 psi found means a leak"),
        measure=W.found_pa,
        limit=W.leak_found_pa,
        sense="above",
        needs=(W.found_pa,),
        broken=Verdict.CAUTION,
        figure=f"found {W.found_pa}",
        exact=True,
        means="So low a find is a leak.",
        calls_for=(
            "Soap the air valve and seams. Water at the air valve means a burst bladder: replace"
            " the tank."
        ),
        settable=False,
        formula=f"Found {W.found_pa}, drained; at or below {W.leak_found_pa} suspect a leak.",
    ),
    Rule(
        id="pre-charge-loss",
        title="Pre-charge keeps over the years",
        fails="Pre-charge fell faster than usual",
        source=practice("a tank loses 1–2 psi a year"),
        measure=W.lost_pa_per_year,
        limit=W.usual_loss_pa_per_year,
        needs=(W.found_pa, W.last_pa, W.last_years_ago),
        broken=Verdict.CAUTION,
        figure=f"{W.lost_pa} in {W.last_years_ago}",
        exact=True,
        means=f"It fell faster than {W.usual_loss_pa_per_year} a year.",
        calls_for="Soap the air valve and seams; check again in half the time.",
        settable=False,
        formula=(
            f"({W.last_pa} − {W.found_pa}) / {W.last_years_ago} = "
            f"{W.lost_pa_per_year} a year; usual is up to {W.usual_loss_pa_per_year}."
        ),
    ),
)
CUT_OFF: tuple[Rule[W], ...] = (
    Rule(
        id="low-pressure-fitted",
        title="Low-pressure cut-off as practised here",
        fails="Low-pressure cut-off not as practised here",
        source=practice("some fit it, some avoid it"),
        measure=W.cut_off_as_practised,
        sense="is",
        needs=(W.low_pressure_cut_off,),
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.practice.cut_off_school != "either",
        not_applicable=(
            "Practice leaves it open. For one: after a broken pipe or in a low well the pump cannot"
            " run dry. Against: a big draw or a slow start trips it, and somebody must hold the"
            " lever in by hand."
        ),
        means=f"{W.cut_off_trade}",
        settable=False,
        formula=f"Practice: {W.cut_off_wish}.",
    ),
)
