"""Rules of running: how long, how often, and whether the pump gets there at all."""

from collections.abc import Callable
from math import isfinite

from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.kinds.water.limits import LIMITS
from zerodip.kinds.widening import Wider, wider, wider_says
from zerodip.practice.ways import DIFFERENTIAL_WAYS, way_of
from zerodip.rules.engine import Rule, Verdict
from zerodip.rules.sources import MOTOR_STARTS, NEMA_MG_10, PUMP_LINE, practice
from zerodip.text.figure import OP
from zerodip.units import text

__all__ = ["RUNNING"]


def _wider(figures: W, short: Callable[[W], float], units: str) -> Wider[W] | None:
    """The differential widened, where practice, limits and bladder allow it."""
    gap = max(way_of(DIFFERENTIAL_WAYS, figures.practice.differential_school).offers_pa(0.0))
    to, takes = wider(figures, LIMITS, gap, short, units), figures.acceptance_m3
    if to is None or figures.system.plain:
        return to
    return to if takes is not None and to.figures.unbounded_full_m3 <= takes else None


def _longer(figures: W, units: str) -> str:
    to = _wider(figures, lambda at: at.wanted_run_s - at.run_s, units)
    ran = "" if to is None else f"a run of {text(to.figures.run_s, 'duration', units)}"
    said = (
        "Add a second tank or a bigger one.",
        wider_says(to, ran, units),
        "Less air in the tank than there should be shortens runs too.",
    )
    return " ".join(filter(None, said))


def _rarer(figures: W, units: str) -> str:
    bears = figures.hourly_limit_per_s or 0.0
    to = _wider(figures, lambda at: (at.worst_starts_per_s or 0.0) - bears, units)
    gives = "" if to is None else text(to.figures.worst_starts_per_s, "rate", units)
    return f"A bigger tank or a second one brings it down. {wider_says(to, gives, units)}".strip()


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
        advice=(
            "Add a second tank or a bigger one. Less air in the tank than there should be shortens"
            " runs too."
        ),
        advise=_longer,
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
        limit=W.alarm_run_s,
        needs=(W.certain_run_s,),
        figure=f"{W.run_s} {OP} {W.alarm_run_s}",
        advice=(
            "Lower cut-out: near dead-head the pump delivers next to nothing and runs on. Stay at"
            " the gauge with a hand on the switch during the first fill."
        ),
        formula=(
            f"Fill time {W.run_s}; flow at cut-out {W.cut_out_flow_m3_s}; alarm at {W.alarm_run_s}."
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
        advice=(
            "A bigger tank or a second one brings it down. The count is the most it can be: taps"
            " also run while the pump runs."
        ),
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
        applies=lambda figures: figures.worst is not None,
        not_applicable="The pump does not cycle: nothing is stored, or it never reaches cut-out.",
        figure=f"{W.worst_starts_per_s} {OP} {W.hourly_limit_per_s}",
        advice="A bigger tank or a second one brings it down.",
        advise=_rarer,
        formula=(
            f"At the worst draw, {W.worst_draw_m3_s}: {W.worst_starts_per_s}; a motor of"
            f" {W.power_w} bears {W.hourly_limit_per_s}."
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
        advice=(
            f"Lower cut-out to {W.dead_head_limit_pa} or less: the pump comes to a stand at "
            f"{W.lowest_dead_head_pa} and would run on without ever reaching the switch."
        ),
        formula=(
            f"Dead-head = ρg (shut-off head − lift) + inlet = {W.dead_head_pa}, at the lowest inlet"
            f" {W.lowest_dead_head_pa}, less {W.dead_head_margin_pa} (common practice) ="
            f" {W.dead_head_limit_pa}."
        ),
    ),
)
