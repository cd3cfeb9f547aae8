"""Rules of running: how long, how often, and whether the pump gets there at all."""

from math import isfinite

from ..rules import Rule, Verdict
from ..sources import MOTOR_STARTS, NEMA_MG_10, PUMP_LINE, practice

__all__ = ["RUNNING"]

RUNNING = (
    Rule(
        id="run-time",
        title="The pump runs long enough",
        fails="Short runs",
        source=practice("60 s or more; 30 s still tolerable; under 30 s is short cycling"),
        measure="run_s",
        limit="wanted_run_s",
        tolerable="short_run_s",
        sense="at_least",
        applies=lambda facts: isfinite(facts.run_s),
        not_applicable="The pump never reaches cut-out.",
        figure="{f.run_s:duration} {op} {f.wanted_run_s:duration}",
        advice="Add a second tank or a bigger one, or widen the differential. Less air in the tank than there should be shortens "
        "runs too.",
        formula="∫ dW / Q from cut-in to cut-out = {f.run_s:duration}; drawdown / flow at mid-band = {f.drawdown_m3:volume} / "
        "{f.mid_flow_m3_s:flow} = {f.simple_run_s:duration}; wanted {f.wanted_run_s:duration}.",
    ),
    Rule(
        id="run-ends",
        title="The pump stops by itself",
        fails="The pump runs on",
        source=practice("ten minutes without stopping is an alarm"),
        measure="run_s",
        limit="alarm_run_s",
        figure="{f.run_s:duration} {op} {f.alarm_run_s:duration}",
        advice="Lower cut-out: near dead-head the pump delivers next to nothing and runs on. Stay at the gauge with a hand on the "
        "switch during the first fill.",
        formula="Fill time {f.run_s:duration}; flow at cut-out {f.cut_out_flow_m3_s:flow}; alarm at {f.alarm_run_s:duration}.",
    ),
    Rule(
        id="starts-per-day",
        title="Starts in a day within the motor's measure",
        fails="May start more often than the motor bears",
        source=MOTOR_STARTS,
        measure="starts_per_day_per_s",
        limit="starts_limit_per_s",
        needs=("daily_m3", "power_w"),
        broken=Verdict.CAUTION,
        applies=lambda facts: facts.drawdown_m3 > 0,
        not_applicable="No water is stored between the set points.",
        figure="≤ {f.starts_per_day_per_s:daily}, bears {f.starts_limit_per_s:daily}",
        advice="A bigger tank or a second one brings it down. The count is the most it can be: taps also run while the pump runs.",
        formula="A day's water / drawdown = {f.daily_m3:volume} / {f.drawdown_m3:volume} = {f.starts_per_day_per_s:daily} at "
        "most; a motor of {f.power_w:power} bears about {f.starts_limit_per_s:daily}.",
    ),
    Rule(
        id="starts-per-hour",
        title="Starts in the worst hour within the motor's measure",
        fails="More starts in an hour than the motor bears",
        source=NEMA_MG_10,
        measure="worst_starts_per_s",
        limit="hourly_limit_per_s",
        needs=("power_w",),
        broken=Verdict.CAUTION,
        applies=lambda facts: facts.worst is not None,
        not_applicable="The pump does not cycle: nothing is stored, or it never reaches cut-out.",
        figure="{f.worst_starts_per_s:rate} {op} {f.hourly_limit_per_s:rate}",
        advice="A bigger tank or a second one, or a wider differential, brings it down.",
        formula="At the worst draw, {f.worst_draw_m3_s:flow}: {f.worst_starts_per_s:rate}; a motor of {f.power_w:power} bears "
        "{f.hourly_limit_per_s:rate}.",
    ),
    Rule(
        id="dead-head",
        title="Cut-out below dead-head",
        fails="Cut-out too near dead-head",
        source=PUMP_LINE,
        measure="cut_out_pa",
        limit="dead_head_limit_pa",
        needs=("dead_head_pa",),
        figure="{f.cut_out_pa:pressure} {op} {f.dead_head_pa:pressure} − {f.dead_head_margin_pa:pressure}",
        advice="Lower cut-out to {f.dead_head_limit_pa:pressure} or less: the pump comes to a stand at "
        "{f.dead_head_pa:pressure} and would run on without ever reaching the switch.",
        formula="Dead-head = ρg (shut-off head − lift) + inlet = {f.dead_head_pa:pressure}, less "
        "{f.dead_head_margin_pa:pressure} (common practice) = {f.dead_head_limit_pa:pressure}.",
    ),
)
