"""The results of water systems."""

from zerodip.kinds.results import ResultSpec
from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.rules.sources import GAS_LAW, MASS_BALANCE, PUMP_LINE, SUMP_LAW

__all__ = ["RESULTS"]


def _has_bladder(figures: W) -> bool:
    return not figures.system.plain


def _is_plain(figures: W) -> bool:
    return figures.system.plain


def _air_note(figures: W) -> str:
    if figures.tank_head_pa:
        return f"at the tank, where cut-in is {W.cut_in_there_pa}"
    if figures.found_pa is None:
        return ""
    if abs(figures.air_step_pa or 0.0) < 1.0:
        return "as found"
    way = "add" if figures.set_now_pa > figures.found_pa else "let out"
    return f"{W.found_pa} found, {way} {W.air_step_pa}"


def _run_note(figures: W) -> str:
    if figures.line.assumed:
        return "on an assumed curve"
    if abs(figures.run_s - figures.simple_run_s) > 0.05 * figures.run_s:
        return f"rule of thumb {W.simple_run_s}"
    return ""


def _starts_note(figures: W) -> str:
    return "" if figures.worst is None else f"at {W.worst_draw_m3_s}"


def _fast_note(figures: W) -> str:
    if figures.practice.gas_exponent == 1:
        return ""
    return f"fast; the gauge then sags to {W.cooled_pa}; filled slowly {W.slow_drawdown_m3}"


def _lowest_note(figures: W) -> str:
    if not figures.starts_empty:
        return ""
    return "the supply alone" if figures.through_pa > 0 else "runs empty: the dip"


RESULTS: tuple[ResultSpec[W], ...] = (
    ResultSpec(
        id="pre_charge",
        title="Pre-charge, tank drained, pump off",
        figure=W.pre_charge_pa,
        formula=(
            f"Free air to add = V·Δc / atmosphere = {W.nominal_m3} × ({W.set_now_pa} − "
            f"{W.found_pa}) / {W.atmosphere_pa} = {W.air_to_add_m3}."
        ),
        source=GAS_LAW,
        note=_air_note,
        shown=_has_bladder,
    ),
    ResultSpec(
        id="drawdown",
        title="Drawdown",
        figure=W.drawdown_m3,
        formula=(
            f"W(out) − W(in) = {W.full_m3} − {W.reserve_m3} = {W.drawdown_m3}, with W(p) = V (1 −"
            f" c/p), V = {W.volume_m3}, absolute c = {W.pre_charge_abs_pa}, in = {W.cut_in_abs_pa},"
            f" out = {W.cut_out_abs_pa} in the tank, atmosphere {W.atmosphere_pa}."
        ),
        source=GAS_LAW,
        note=_fast_note,
    ),
    ResultSpec(
        id="run",
        title="Pump run, no draw",
        figure=W.run_s,
        formula=(
            f"∫ dW / Q(p) from cut-in to cut-out = {W.run_s}; by the rule of thumb drawdown / flow"
            f" = {W.drawdown_m3} / {W.mid_flow_m3_s} = {W.simple_run_s}."
        ),
        source=MASS_BALANCE,
        note=_run_note,
    ),
    ResultSpec(
        id="starts",
        title="Starts, worst hour",
        figure=W.worst_starts_per_s,
        formula=(
            f"1 / (D/Q_draw + ∫ dW/(Q − Q_draw)) is largest at a draw of {W.worst_draw_m3_s}: "
            f"{W.worst_starts_per_s}. For a constant flow Q it is Q/2 and Q/(4 D)."
        ),
        source=SUMP_LAW,
        note=_starts_note,
    ),
    ResultSpec(
        id="reserve",
        title="Reserve at cut-in",
        figure=W.reserve_m3,
        formula=(
            f"W(in) = V (1 − c/in) = {W.reserve_m3}, absolute c = {W.pre_charge_abs_pa}, "
            f"in = {W.cut_in_abs_pa}."
        ),
        source=GAS_LAW,
    ),
    ResultSpec(
        id="lowest",
        title="Lowest in a start",
        figure=W.start_lowest_pa,
        formula=(
            f"W(in) − need = {W.reserve_m3} − {W.dip_need_m3}, put back into the gas law:"
            f" {W.start_lowest_pa}."
        ),
        source=GAS_LAW,
        note=_lowest_note,
    ),
    ResultSpec(
        id="balance",
        title="Gauge in a long draw",
        figure=W.balance_pa,
        formula=(
            f"Q(p) = K·√(p − ρg·height) at the lowest inlet, K from {W.peak_draw_m3_s} at cut-in"
            f" (taps as orifices, at the lowest tap): p = {W.balance_pa}."
        ),
        source=PUMP_LINE,
        shown=lambda figures: not figures.keeps_up,
    ),
    ResultSpec(
        id="largest_pre_charge",
        title="Most pre-charge with no dip",
        figure=W.largest_pre_charge_pa,
        formula=(
            f"in (1 − need/V), absolute = {W.largest_pre_charge_abs_pa}, less the atmosphere "
            f"{W.atmosphere_pa} = {W.largest_pre_charge_pa}."
        ),
        source=GAS_LAW,
        shown=_has_bladder,
    ),
    ResultSpec(
        id="dead_head",
        title="Dead-head",
        figure=W.dead_head_pa,
        formula=(
            "ρg (shut-off head − lift) + inlet, or as measured with all taps shut ="
            f" {W.dead_head_pa}."
        ),
        source=PUMP_LINE,
    ),
    ResultSpec(
        id="trip_margin",
        title="Above the trip, starting",
        figure=W.trip_margin_pa,
        formula=(
            f"Lowest in a start − trip = {W.start_lowest_pa} − {W.trip_pa} = {W.trip_margin_pa}."
        ),
        source=GAS_LAW,
        shown=lambda figures: _has_bladder(figures) and bool(figures.low_pressure_cut_off),
    ),
    ResultSpec(
        id="tap",
        title="Highest tap, before a start",
        figure=W.tap_pa,
        formula=f"Cut-in − ρg·height − friction = {W.cut_in_pa} − {W.tap_loss_pa} = {W.tap_pa}.",
        source=PUMP_LINE,
        shown=lambda figures: figures.highest_tap_m is not None,
    ),
    ResultSpec(
        id="one_lost",
        title="Drawdown, one tank lost",
        figure=W.one_lost_m3,
        formula=(
            f"Without the tank that gives most, W(out) − W(in) = {W.one_lost_m3}; the pump then"
            f" runs {W.one_lost_run_s}."
        ),
        source=GAS_LAW,
        note=lambda figures: f"run {W.one_lost_run_s}",
        shown=lambda figures: figures.one_lost is not None,
    ),
    ResultSpec(
        id="renewed",
        title="Drawdown, drained and re-aired",
        figure=W.renewed_m3,
        formula=(
            f"A fresh charge of {W.pre_charge_abs_pa} absolute gives {W.renewed_m3}; as it is, "
            f"{W.drawdown_m3}."
        ),
        source=GAS_LAW,
        note=lambda figures: f"{W.regained_m3} more" if figures.regained_m3 > 1e-6 else "as it is",
        shown=_is_plain,
    ),
    ResultSpec(
        id="air_left",
        title="Air left in the tank",
        figure=W.air_left,
        formula=f"Bucket test, V·c = D / (1/in − 1/out), against a fresh charge: {W.air_left}.",
        source=GAS_LAW,
        shown=_is_plain,
    ),
    ResultSpec(
        id="today",
        title="Pre-charge to set today",
        figure=W.today_pa,
        formula=(
            f"c·T_today/T_mean, absolute: {W.pre_charge_pa} at the season's mean is {W.today_pa} "
            "today; over the "
            f"year {W.coldest_pa} to {W.warmest_pa}."
        ),
        source=GAS_LAW,
        note=lambda figures: (
            f"{W.coldest_pa} to {W.warmest_pa} over the year"
            if figures.coldest_pa is not None and figures.warmest_pa is not None
            else ""
        ),
        shown=lambda figures: _has_bladder(figures) and figures.today_pa is not None,
    ),
)
