"""The answers for water systems."""

from ..facts import WaterFacts
from ..sources import GAS_LAW, MASS_BALANCE, PUMP_LINE, SUMP_LAW
from ..units import Shown
from .parts import AnswerKind

__all__ = ["WATER"]


def _has_bladder(facts: WaterFacts) -> bool:
    return facts.kind != "well_air"


def _is_plain(facts: WaterFacts) -> bool:
    return facts.kind == "well_air"


def _air_note(facts: WaterFacts, f: Shown) -> str:
    if facts.found_pa is None:
        return ""
    if abs(facts.air_step_pa or 0.0) < 1.0:
        return "as found"
    way = "add" if facts.pre_charge_pa > facts.found_pa else "let out"
    return f"{f.found_pa:pressure} found, {way} {f.air_step_pa:pressure}"


def _run_note(facts: WaterFacts, f: Shown) -> str:
    if facts.line.assumed:
        return "on an assumed curve"
    if abs(facts.run_s - facts.simple_run_s) > 0.05 * facts.run_s:
        return f"rule of thumb {f.simple_run_s:duration}"
    return ""


def _starts_note(facts: WaterFacts, f: Shown) -> str:
    return "" if facts.worst is None else f"at {f.worst_draw_m3_s:flow}"


def _lowest_note(facts: WaterFacts, f: Shown) -> str:
    return "runs empty: the dip" if facts.lowest_pa == 0 else ""


WATER = (
    AnswerKind(
        id="pre_charge",
        title="Pre-charge, tank drained, pump off",
        figure="pre_charge_pa",
        dimension="pressure",
        formula="Free air to add = V·Δc / atmosphere = {f.nominal_m3:volume} × ({f.pre_charge_pa:pressure} − "
        "{f.found_pa:pressure}) / {f.atmosphere_pa:pressure} = {f.air_to_add_m3:volume}.",
        source=GAS_LAW,
        note=_air_note,
        shown=_has_bladder,
    ),
    AnswerKind(
        id="drawdown",
        title="Drawdown",
        figure="drawdown_m3",
        dimension="volume",
        formula="W(out) − W(in) = {f.full_m3:volume} − {f.reserve_m3:volume} = {f.drawdown_m3:volume}, with W(p) = V (1 − c/p), "
        "V = {f.volume_m3:volume}, absolute c = {f.pre_charge_abs_pa:pressure}, in = {f.cut_in_abs_pa:pressure}, "
        "out = {f.cut_out_abs_pa:pressure}, atmosphere {f.atmosphere_pa:pressure}.",
        source=GAS_LAW,
    ),
    AnswerKind(
        id="run",
        title="Pump run, no draw",
        figure="run_s",
        dimension="duration",
        formula="∫ dW / Q(p) from cut-in to cut-out = {f.run_s:duration}; by the rule of thumb drawdown / flow = "
        "{f.drawdown_m3:volume} / {f.mid_flow_m3_s:flow} = {f.simple_run_s:duration}.",
        source=MASS_BALANCE,
        note=_run_note,
    ),
    AnswerKind(
        id="starts",
        title="Starts, worst hour",
        figure="worst_starts_per_s",
        dimension="rate",
        formula="1 / (D/Q_draw + ∫ dW/(Q − Q_draw)) is largest at a draw of {f.worst_draw_m3_s:flow}: "
        "{f.worst_starts_per_s:rate}. For a constant flow Q it is Q/2 and Q/(4 D).",
        source=SUMP_LAW,
        note=_starts_note,
    ),
    AnswerKind(
        id="reserve",
        title="Held back at cut-in",
        figure="reserve_m3",
        dimension="volume",
        formula="W(in) = V (1 − c/in) = {f.reserve_m3:volume}, absolute c = {f.pre_charge_abs_pa:pressure}, "
        "in = {f.cut_in_abs_pa:pressure}.",
        source=GAS_LAW,
    ),
    AnswerKind(
        id="lowest",
        title="Lowest while it starts",
        figure="lowest_pa",
        dimension="pressure",
        formula="W = W(in) − Q·t = {f.reserve_m3:volume} − {f.dip_need_m3:volume}, put back into the gas law: "
        "{f.lowest_pa:pressure}. At 0 the tank has run empty.",
        source=GAS_LAW,
        note=_lowest_note,
        shown=_has_bladder,
    ),
    AnswerKind(
        id="largest_pre_charge",
        title="Most pre-charge with no dip",
        figure="largest_pre_charge_pa",
        dimension="pressure",
        formula="in (1 − Q·t/V)^n, absolute = {f.largest_pre_charge_abs_pa:pressure}, less the atmosphere "
        "{f.atmosphere_pa:pressure} = {f.largest_pre_charge_pa:pressure}.",
        source=GAS_LAW,
        shown=_has_bladder,
    ),
    AnswerKind(
        id="dead_head",
        title="Dead-head",
        figure="dead_head_pa",
        dimension="pressure",
        formula="ρg (shut-off head − lift) + inlet, or as measured with all taps shut = {f.dead_head_pa:pressure}.",
        source=PUMP_LINE,
    ),
    AnswerKind(
        id="trip_margin",
        title="Above the trip, starting",
        figure="trip_margin_pa",
        dimension="pressure",
        formula="Lowest while it starts − trip = {f.lowest_pa:pressure} − {f.trip_pa:pressure} = {f.trip_margin_pa:pressure}.",
        source=GAS_LAW,
        shown=lambda facts: _has_bladder(facts) and bool(facts.low_pressure_cut_off),
    ),
    AnswerKind(
        id="tap",
        title="Highest tap, before a start",
        figure="tap_pa",
        dimension="pressure",
        formula="Cut-in − ρg·height − friction = {f.cut_in_pa:pressure} − {f.tap_loss_pa:pressure} = {f.tap_pa:pressure}.",
        source=PUMP_LINE,
        shown=lambda facts: facts.highest_tap_m is not None,
    ),
    AnswerKind(
        id="one_lost",
        title="Drawdown, one tank lost",
        figure="one_lost_m3",
        dimension="volume",
        formula="Without the tank that gives most, W(out) − W(in) = {f.one_lost_m3:volume}; the pump then runs "
        "{f.one_lost_run_s:duration}.",
        source=GAS_LAW,
        note=lambda facts, f: f"run {f.one_lost_run_s:duration}",
        shown=lambda facts: facts.one_lost is not None,
    ),
    AnswerKind(
        id="renewed",
        title="Drawdown, drained and re-aired",
        figure="renewed_m3",
        dimension="volume",
        formula="A fresh charge of {f.pre_charge_abs_pa:pressure} absolute gives {f.renewed_m3:volume}; as it is, "
        "{f.drawdown_m3:volume}.",
        source=GAS_LAW,
        note=lambda facts, f: f"{f.regained_m3:volume} more" if facts.regained_m3 > 1e-6 else "as it is",
        shown=_is_plain,
    ),
    AnswerKind(
        id="air_left",
        title="Air left in the tank",
        figure="air_left",
        dimension="share",
        formula="Bucket test, V·c = D / (1/in − 1/out), against a fresh charge: {f.air_left:share}.",
        source=GAS_LAW,
        shown=_is_plain,
    ),
    AnswerKind(
        id="today",
        title="Pre-charge to set today",
        figure="today_pa",
        dimension="pressure",
        formula="c·T_today/T_mean, absolute: {f.pre_charge_pa:pressure} at the season's mean is {f.today_pa:pressure} "
        "today; over the "
        "year {f.coldest_pa:pressure} to {f.warmest_pa:pressure}.",
        source=GAS_LAW,
        note=lambda facts, f: (
            f"{f.coldest_pa:pressure} to {f.warmest_pa:pressure} over the year"
            if facts.coldest_pa is not None and facts.warmest_pa is not None
            else ""
        ),
        shown=lambda facts: _has_bladder(facts) and facts.today_pa is not None,
    ),
)
