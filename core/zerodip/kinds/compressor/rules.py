"""Rules of compressors and receivers. Nothing here is ever raised above a plate or a safety
valve."""

from zerodip.kinds.compressor.figures import CompressorFigures as C
from zerodip.kinds.switch_rules import EARTH, SWITCH
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import DOE_AIR, MASS_BALANCE, NEMA_MG_10, practice
from zerodip.text.figure import OP

__all__ = ["RULES"]

_RATING = practice("never exceed the lowest rating")


RULES: tuple[Rule[C], ...] = (
    Rule(
        id="safety-valve-present",
        title="Safety valve there",
        fails="No safety valve",
        source=practice("and codes: required on every receiver"),
        measure=C.relief_present,
        sense="is",
        needs=(C.relief_present,),
        means=(
            "Do not run it: a receiver without a working safety valve can burst. Never plug,"
            " remove or raise one."
        ),
        calls_for="Have one fitted, set no higher than the receiver's plate.",
        settable=False,
        formula="A safety valve is the last guard when a switch sticks.",
    ),
    Rule(
        id="receiver-plate",
        title="Cut-out within the receiver's plate",
        fails="Cut-out over the receiver's plate",
        source=_RATING,
        measure=C.cut_out_pa,
        limit=C.receiver_allowed_pa,
        needs=(C.receiver_max_pa,),
        figure=f"{C.cut_out_pa} + {C.gauge_error_pa} {OP} {C.receiver_max_pa}",
        exact=True,
        means="Judge it at the click: hot air settles afterwards and hides the peak.",
        formula=(
            f"Cut-out and gauge error = {C.highest_click_pa}; lowest receiver plate"
            f" {C.receiver_max_pa}."
        ),
    ),
    Rule(
        id="compressor-rating",
        title="Cut-out within the compressor's rating",
        fails="Cut-out over the compressor's rating",
        source=_RATING,
        measure=C.cut_out_pa,
        limit=C.compressor_allowed_pa,
        needs=(C.compressor_max_pa,),
        figure=f"{C.cut_out_pa} + {C.gauge_error_pa} {OP} {C.compressor_max_pa}",
        exact=True,
        means=f"The compressor's plate allows {C.compressor_max_pa}.",
        formula=(
            f"Cut-out and gauge error = {C.highest_click_pa}; compressor {C.compressor_max_pa}."
        ),
    ),
    Rule(
        id="safety-valve-margin",
        title="Cut-out clear of the safety valve",
        fails="Cut-out too near the safety valve",
        source=practice("10 % below the valve, so that it does not weep"),
        measure=C.cut_out_pa,
        limit=C.relief_allowed_pa,
        tolerable=C.valve_allowed_pa,
        needs=(C.relief_pa,),
        applies=lambda figures: figures.relief_present is not False,
        not_applicable="There is no safety valve.",
        figure=f"{C.cut_out_pa} + {C.gauge_error_pa} {OP} {C.relief_limit_pa}",
        exact=True,
        means="The valve weeps or opens. Never raise the valve to fit the switch.",
        formula=(
            f"Cut-out and gauge error = {C.highest_click_pa}; valve {C.relief_pa} less a tenth = "
            f"{C.relief_limit_pa}."
        ),
    ),
    Rule(
        id="safety-valve-within-plate",
        title="Safety valve within the receiver's plate",
        fails="Safety valve set above the receiver's plate",
        source=practice("and codes"),
        measure=C.relief_pa,
        limit=C.receiver_max_pa,
        needs=(C.relief_pa, C.receiver_max_pa),
        applies=lambda figures: figures.relief_present is not False,
        not_applicable="There is no safety valve.",
        figure=f"{C.relief_pa} {OP} {C.receiver_max_pa}",
        exact=True,
        means="Take it out of use: the valve opens only above what the receiver is made for.",
        calls_for="Have one fitted set no higher, and cut-out lowered below it.",
        settable=False,
        formula=f"Valve {C.relief_pa}, lowest receiver plate {C.receiver_max_pa}.",
    ),
    Rule(
        id="tools-pressure",
        title="Cut-in high enough for the tools",
        fails="Cut-in below what the tools need",
        source=practice("the tools' plates"),
        measure=C.cut_in_pa,
        limit=C.wanted_air_pa,
        sense="at_least",
        needs=(C.wanted_air_pa,),
        broken=Verdict.CAUTION,
        figure=f"{C.cut_in_pa} {OP} {C.wanted_air_pa}",
        exact=True,
        means=f"The tools need {C.wanted_air_pa}. {C.tools_against}",
        formula=f"Cut-in {C.cut_in_pa}, tools {C.wanted_air_pa}.",
    ),
    Rule(
        id="air-differential",
        title="Differential usual for a compressor",
        fails="Differential unusual for a compressor",
        source=practice("20–35 psi; 100/135 and 95/120 are normal bands"),
        measure=C.off_usual_band_pa,
        limit=C.half_psi,
        broken=Verdict.CAUTION,
        figure=f"{C.differential_pa}",
        exact=True,
        means=(
            "Narrower starts the motor more often; wider makes the tools feel it. With one screw"
            " both points move together."
        ),
        formula=f"Cut-out − cut-in = {C.cut_out_pa} − {C.cut_in_pa} = {C.differential_pa}.",
    ),
    Rule(
        id="air-keeps-up",
        title="The compressor keeps up with the tools",
        fails="The tools use more than the compressor delivers",
        source=MASS_BALANCE,
        measure=C.taken_m3_s,
        limit=C.cut_out_flow_m3_s,
        sense="below",
        needs=(C.use_m3_s,),
        broken=Verdict.CAUTION,
        figure=f"{C.taken_m3_s} {OP} {C.cut_out_flow_m3_s}",
        means="It never reaches cut-out while the tools work. A bigger receiver only puts it off.",
        settable=False,
        formula=(
            f"Air used {C.use_m3_s}, with the leak measured {C.taken_m3_s}; delivered at cut-out"
            f" {C.cut_out_flow_m3_s}."
        ),
    ),
    Rule(
        id="duty",
        title="The compressor gets its rest",
        fails="The compressor hardly rests",
        source=practice(
            "about three quarters of the time at most for small piston compressors, from memory"
        ),
        measure=C.duty,
        limit=C.most_duty,
        needs=(C.use_m3_s,),
        broken=Verdict.CAUTION,
        figure=f"{C.duty} {OP} {C.most_duty}",
        means=f"It runs {C.duty} of the time at this use: it runs hot, and oil and rings suffer.",
        formula=f"On / (on + off) at {C.taken_m3_s} = {C.duty}; rest between runs {C.off_s}.",
    ),
    Rule(
        id="air-starts-per-hour",
        title="Starts in the worst hour within the motor's measure",
        fails="More starts in an hour than the motor bears",
        source=NEMA_MG_10,
        measure=C.worst_starts_per_s,
        limit=C.hourly_limit_per_s,
        needs=(C.power_w,),
        broken=Verdict.CAUTION,
        figure=f"{C.worst_starts_per_s} {OP} {C.hourly_limit_per_s}",
        means="Each start heats the motor; at the worst use there are too many.",
        formula=(
            f"At the worst use, {C.worst_draw_m3_s}: {C.worst_starts_per_s}, as FAD / (4 × air "
            "between the points); a "
            f"motor of {C.power_w} bears {C.hourly_limit_per_s}."
        ),
    ),
    Rule(
        id="air-leak",
        title="Leaks within a tenth of the delivery",
        fails="Leaks take too much",
        source=DOE_AIR,
        measure=C.leak_share,
        limit=C.good_leak_share,
        needs=(C.leak_share,),
        broken=Verdict.CAUTION,
        figure=f"{C.leak_share} {OP} {C.good_leak_share}",
        means=f"With nothing used the leak alone starts it every {C.leak_rest_s}.",
        calls_for="Soap couplings, hoses, drain and check valve.",
        settable=False,
        formula=(
            f"V·Δp / (t·atmosphere) = {C.leak_m3_s} over the watch, {C.leak_share} of what is"
            f" delivered. At its first pressure the leak is {C.leak_factor} times that; the"
            " sourcebook's 1.25 holds at one pressure ratio only."
        ),
    ),
    *EARTH,
    *SWITCH,
)
