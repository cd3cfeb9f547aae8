"""Rules of running: how long, how often, and whether the pump gets there at all."""

from math import isfinite

from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import MOTOR_STARTS, NEMA_MG_10, PUMP_LINE, practice
from zerodip.text.figure import OP

__all__ = ["RUNNING"]


RUNNING: tuple[Rule[W], ...] = (
    Rule(
        id="run-time",
        title="The pump runs long enough",
        fails="Short runs",
        source=practice("60 s or more; 30 s still tolerable; under 30 s is short cycling"),
        measure=W.run_s,
        limit=W.wanted_run_s,
        tolerable=W.short_run_s,
        sense="at_least",
        assumes=lambda figures: figures.line.assumed,
        applies=lambda figures: isfinite(figures.run_s),
        not_applicable="The pump never reaches cut-out.",
        figure=f"{W.run_s} {OP} {W.wanted_run_s}",
        means=f"The motor heats at each start and needs {W.wanted_run_s} of running to shed it.",
        formula=(
            f"∫ dW / Q from cut-in to cut-out = {W.run_s}; drawdown / flow at mid-band ="
            f" {W.drawdown_m3} / {W.mid_flow_m3_s} = {W.simple_run_s}; wanted {W.wanted_run_s}."
        ),
    ),
    Rule(
        id="run-ends",
        title="The pump stops by itself",
        fails="The pump runs on",
        source=practice("ten minutes without stopping is an alarm"),
        measure=W.certain_run_s,
        limit=W.longest_run_s,
        needs=(W.certain_run_s,),
        figure=f"{W.run_s}",
        means=(
            "Near dead-head the pump delivers next to nothing and runs on. Stay at the gauge with a"
            " hand on the switch during the first fill."
        ),
        formula=(
            f"Fill time {W.run_s}; flow at cut-out {W.cut_out_flow_m3_s}, at cut-in"
            f" {W.cut_in_flow_m3_s}. An alarm at {W.alarm_run_s} where a quarter or less is left of"
            " the flow: else the tank is only large."
        ),
    ),
    Rule(
        id="starts-per-day",
        title="Starts in a day within the motor's measure",
        fails="May start more often than the motor bears",
        source=MOTOR_STARTS,
        measure=W.starts_per_day_per_s,
        limit=W.starts_limit_per_s,
        needs=(W.daily_m3, W.power_w),
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.drawdown_m3 > 0,
        not_applicable="No water is stored between the set points.",
        figure=f"≤ {W.starts_per_day_per_s}, bears {W.starts_limit_per_s}",
        means="The count is the most it can be: taps also run while the pump runs.",
        formula=(
            f"A day's water / drawdown = {W.daily_m3} / {W.drawdown_m3} = {W.starts_per_day_per_s}"
            f" at most; a motor of {W.power_w} bears about {W.starts_limit_per_s}."
        ),
    ),
    Rule(
        id="starts-per-hour",
        title="Starts in the worst hour within the motor's measure",
        fails="More starts in an hour than the motor bears",
        source=NEMA_MG_10,
        measure=W.worst_starts_per_s,
        limit=W.hourly_limit_per_s,
        needs=(W.power_w,),
        broken=Verdict.CAUTION,
        applies=lambda figures: figures.worst_starts_per_s is not None,
        not_applicable="The pump never reaches cut-out.",
        figure=f"{W.worst_starts_per_s} {OP} {W.hourly_limit_per_s}",
        means="Each start heats the motor; at the worst draw there are too many.",
        formula=(
            f"At the worst draw: {W.worst_starts_per_s}; a motor of {W.power_w} bears"
            f" {W.hourly_limit_per_s}."
        ),
    ),
    Rule(
        id="dead-head",
        title="Cut-out below dead-head",
        fails="Cut-out too near dead-head",
        source=PUMP_LINE,
        measure=W.cut_out_pa,
        limit=W.dead_head_limit_pa,
        needs=(W.dead_head_pa,),
        figure=f"{W.cut_out_pa} {OP} {W.lowest_dead_head_pa} − {W.dead_head_margin_pa}",
        means=f"The pump stalls at {W.lowest_dead_head_pa}{W.stall_says}",
        formula=(
            f"Dead-head = ρg (shut-off head − lift) + inlet = {W.dead_head_pa}, at the lowest inlet"
            f" {W.lowest_dead_head_pa}, less {W.dead_head_margin_pa} (common practice) ="
            f" {W.dead_head_limit_pa}."
        ),
    ),
)
