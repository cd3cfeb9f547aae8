"""Rules of the pre-charge and of the moment of starting."""

from ..rules import Rule, Verdict
from ..sources import GAS_LAW, practice
from ..system import BLADDER_KINDS

__all__ = ["START"]

START = (
    Rule(
        id="pre-charge-below-cut-in",
        title="Pre-charge below cut-in",
        fails="Pre-charge at or above cut-in",
        source=GAS_LAW,
        kinds=BLADDER_KINDS,
        measure="highest_pre_charge_pa",
        limit="cut_in_pa",
        sense="below",
        figure="{f.highest_pre_charge_pa:pressure} {op} {f.cut_in_pa:pressure}",
        advice="Let air out of the drained tank, power off, to {f.target_pa:pressure}. Above cut-in the tank is empty before "
        "the switch acts, and pressure collapses at each start.",
        formula="Pre-charge {f.highest_pre_charge_pa:pressure} against cut-in {f.cut_in_pa:pressure}; "
        "water held at cut-in {f.reserve_m3:volume}.",
    ),
    Rule(
        id="start-dip",
        title="No dip while the pump starts",
        fails="Dips while the pump starts",
        source=GAS_LAW,
        kinds=BLADDER_KINDS,
        measure="dip_need_m3",
        limit="reserve_m3",
        needs=("peak_draw_m3_s",),
        figure="{f.dip_need_m3:volume} {op} {f.reserve_m3:volume}",
        advice="Lower the pre-charge to at most {f.largest_pre_charge_pa:pressure}: at {f.peak_draw_m3_s:flow} the house takes "
        "{f.dip_need_m3:volume} in the {f.start_lag_s:duration} before water comes, and only {f.reserve_m3:volume} is held.",
        formula="Need Q·t = {f.peak_draw_m3_s:flow} × {f.start_lag_s:duration} = {f.dip_need_m3:volume}; held at cut-in "
        "W(in) = V (1 − c/in) = {f.reserve_m3:volume} with c = {f.pre_charge_abs_pa:pressure} and "
        "in = {f.cut_in_abs_pa:pressure} absolute.",
    ),
    Rule(
        id="low-pressure-trip",
        title="A start stays clear of the low-pressure cut-off",
        fails="A start trips the low-pressure cut-off",
        source=practice("trips about 10 psi under cut-in"),
        kinds=BLADDER_KINDS,
        measure="trip_pa",
        limit="lowest_pa",
        sense="below",
        needs=("low_pressure_cut_off", "peak_draw_m3_s"),
        applies=lambda facts: facts.low_pressure_cut_off is not False,
        not_applicable="This switch has no low-pressure cut-off.",
        figure="trip {f.trip_pa:pressure} {op} {f.lowest_pa:pressure}",
        advice="Lower the pre-charge to {f.wider_pa:pressure}, {f.psi_5:pressure} below cut-in: while the pump starts the gauge "
        "falls to {f.lowest_pa:pressure}, and at {f.trip_pa:pressure} the switch trips for good and must be held in by hand.",
        formula="Lowest in the start, from W(in) − Q·t: {f.lowest_pa:pressure}; trip = cut-in − "
        "{f.trip_below_pa:pressure} = {f.trip_pa:pressure}.",
    ),
    Rule(
        id="low-pressure-margin",
        title="Room for a slow start above the low-pressure cut-off",
        fails="A slow start would trip the low-pressure cut-off",
        source=practice("5 psi below cut-in with a low-pressure cut-off switch"),
        kinds=BLADDER_KINDS,
        measure="slow_need_m3",
        limit="reserve_m3",
        needs=("low_pressure_cut_off", "peak_draw_m3_s"),
        broken=Verdict.CAUTION,
        applies=lambda facts: facts.low_pressure_cut_off is not False,
        not_applicable="This switch has no low-pressure cut-off.",
        figure="{f.slow_need_m3:volume} {op} {f.reserve_m3:volume}",
        advice="Take the wider school: pre-charge {f.wider_pa:pressure}, {f.psi_5:pressure} below cut-in. A start "
        "twice as slow, or "
        "a gauge that is a little out, empties the tank, and at {f.trip_pa:pressure} the switch trips for good.",
        formula="Twice the need of a start, 2·Q·t = {f.slow_need_m3:volume}, against {f.reserve_m3:volume} held back; "
        "as it is, a start "
        "stays {f.trip_margin_pa:pressure} above the trip.",
    ),
    Rule(
        id="low-pressure-fitted",
        title="Low-pressure cut-off as the school has it",
        fails="Low-pressure cut-off not as the school has it",
        source=practice("some fit it, some avoid it"),
        measure="cut_off_as_school",
        sense="is",
        needs=("low_pressure_cut_off",),
        broken=Verdict.CAUTION,
        applies=lambda facts: facts.practice.cut_off_school != "either",
        not_applicable="Practice leaves it open. For one: after a broken pipe or in a low well the pump cannot run dry. "
        "Against: a big draw or a slow start trips it, and somebody must hold the lever in by hand.",
        figure="",
        advice="{f.cut_off_trade}",
        formula="School: {f.cut_off_wish}.",
    ),
    Rule(
        id="tanks-alike",
        title="Tanks share one pre-charge",
        fails="Tanks with different pre-charges",
        source=practice("tanks side by side are set alike"),
        kinds=BLADDER_KINDS,
        measure="uneven_pa",
        limit="uneven_limit_pa",
        broken=Verdict.CAUTION,
        applies=lambda facts: len(facts.system.tanks) > 1,
        not_applicable="There is one tank.",
        figure="{f.uneven_pa:pressure} apart",
        advice="Drain and set all tanks to {f.pre_charge_pa:pressure}. One that will not hold its air is finished: until it is "
        "replaced the others carry the load alone.",
        formula="Highest less lowest pre-charge = {f.uneven_pa:pressure}; allowed {f.uneven_limit_pa:pressure}.",
    ),
    Rule(
        id="pre-charge-school",
        title="Pre-charge as the school has it",
        fails="Pre-charge off the school’s figure",
        source=practice("schools differ: 2, 2–3, 5 psi below cut-in, or computed"),
        kinds=BLADDER_KINDS,
        measure="off_target_pa",
        limit="school_tolerance_pa",
        needs=("peak_draw_for_target_m3_s",),
        broken=Verdict.CAUTION,
        figure="{f.pre_charge_pa:pressure}, school {f.target_pa:pressure}",
        advice="Set {f.target_pa:pressure}. Lower than needed costs drawdown and stretches the bladder; higher eats the reserve.",
        formula="Cut-in {f.cut_in_pa:pressure} less the school's offset = {f.target_pa:pressure}; "
        "set {f.pre_charge_pa:pressure}, allowed apart {f.school_tolerance_pa:pressure}.",
    ),
    Rule(
        id="pre-charge-found",
        title="No sign of a leaking tank",
        fails="Pre-charge found so low that the tank may leak",
        source=practice("10 psi found means a leak"),
        kinds=BLADDER_KINDS,
        measure="found_pa",
        limit="leak_found_pa",
        sense="at_least",
        needs=("found_pa",),
        broken=Verdict.CAUTION,
        figure="found {f.found_pa:pressure}",
        advice="Soap the air valve and seams. If water comes from the air valve, the bladder is burst and the tank is finished.",
        formula="Found {f.found_pa:pressure}, drained; at or below {f.leak_found_pa:pressure} suspect a leak.",
    ),
    Rule(
        id="pre-charge-loss",
        title="Pre-charge keeps over the years",
        fails="Pre-charge fell faster than usual",
        source=practice("a tank loses 1–2 psi a year"),
        kinds=BLADDER_KINDS,
        measure="lost_pa_per_year",
        limit="usual_loss_pa_per_year",
        needs=("found_pa", "last_pa", "last_years_ago"),
        broken=Verdict.CAUTION,
        figure="{f.lost_pa:pressure} in {f.last_years_ago:years}",
        advice="It fell faster than {f.usual_loss_pa_per_year:pressure} a year. Soap the air valve and "
        "seams; check again in half the time.",
        formula="({f.last_pa:pressure} − {f.found_pa:pressure}) / {f.last_years_ago:years} = "
        "{f.lost_pa_per_year:pressure} a year; usual is up to {f.usual_loss_pa_per_year:pressure}.",
    ),
)
