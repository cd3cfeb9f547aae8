"""The use case of step 3: what these settings do on this system, whether every limit is kept, and what each school would set."""

from dataclasses import asdict, dataclass
from math import isfinite
from typing import Any

from .facts import Facts
from .plant.events import Draw, Trail, simulate, trail
from .ribbon import Ribbon, ribbon
from .rulebook import RULES
from .rules import Finding, Verdict, WordedFinding, run, worded, worst_verdict
from .sources import GAS_LAW, MASS_BALANCE, PUMP_LINE, SUMP_LAW, Source
from .switches.schools import PRE_CHARGE_SCHOOLS
from .system import Practice, Settings, System
from .units import SYSTEMS, Shown, unit_for

__all__ = ["Answer", "Decision", "Glance", "SchoolView", "Strip", "decide", "decision", "glance", "strip"]


@dataclass(frozen=True, kw_only=True)
class Answer:
    """One figure in SI with its words. `value` is None where it cannot be told or has no end; `text` says it."""

    id: str
    title: str
    value: float | None
    dimension: str
    text: str
    note: str
    formula: str
    source: str


@dataclass(frozen=True, kw_only=True)
class BudgetItem:
    """One item of the computed school's sum, Pa."""

    title: str
    pressure_pa: float | None
    counted: bool


@dataclass(frozen=True, kw_only=True)
class SchoolView:
    """What one pre-charge school would set here, Pa gauge; its budget where it is a sum."""

    id: str
    title: str
    reason: str
    source: str
    target_gauge_pa: float | None
    chosen: bool
    budget: tuple[BudgetItem, ...]


@dataclass(frozen=True, kw_only=True)
class Decision:
    """The answers, the findings (worst first), the schools and the ribbon; `verdict` is the worst finding's."""

    verdict: str
    answers: tuple[Answer, ...]
    findings: tuple[WordedFinding, ...]
    schools: tuple[SchoolView, ...]
    ribbon: Ribbon

    def as_json(self) -> dict[str, Any]:
        """Plain JSON values."""
        return asdict(self)


@dataclass(frozen=True, kw_only=True)
class _AnswerKind:
    id: str
    title: str
    figure: str
    dimension: str
    formula: str
    source: Source
    note: str = ""


_ANSWERS = (
    _AnswerKind(
        id="pre_charge",
        title="Pre-charge, tank drained, pump off",
        figure="pre_charge_pa",
        dimension="pressure",
        formula="Free air to add = V·Δc / atmosphere = {f.volume_m3:volume} × ({f.pre_charge_pa:pressure} − "
        "{f.found_pa:pressure}) / {f.atmosphere_pa:pressure} = {f.air_to_add_m3:volume}.",
        source=GAS_LAW,
    ),
    _AnswerKind(
        id="drawdown",
        title="Drawdown",
        figure="drawdown_m3",
        dimension="volume",
        formula="W(out) − W(in) = {f.full_m3:volume} − {f.reserve_m3:volume} = {f.drawdown_m3:volume}, with W(p) = V (1 − c/p), "
        "V = {f.volume_m3:volume}, absolute c = {f.pre_charge_abs_pa:pressure}, in = {f.cut_in_abs_pa:pressure}, "
        "out = {f.cut_out_abs_pa:pressure}, atmosphere {f.atmosphere_pa:pressure}.",
        source=GAS_LAW,
    ),
    _AnswerKind(
        id="run",
        title="Pump run, no draw",
        figure="run_s",
        dimension="duration",
        formula="∫ dW / Q(p) from cut-in to cut-out = {f.run_s:duration}; by the rule of thumb drawdown / flow = "
        "{f.drawdown_m3:volume} / {f.mid_flow_m3_s:flow} = {f.simple_run_s:duration}.",
        source=MASS_BALANCE,
    ),
    _AnswerKind(
        id="starts",
        title="Starts, worst hour",
        figure="worst_starts_per_s",
        dimension="rate",
        formula="1 / (D/Q_draw + ∫ dW/(Q − Q_draw)) is largest at a draw of {f.worst_draw_m3_s:flow}: "
        "{f.worst_starts_per_s:rate}. For a constant flow Q it is Q/2 and Q/(4 D).",
        source=SUMP_LAW,
    ),
    _AnswerKind(
        id="reserve",
        title="Held back at cut-in",
        figure="reserve_m3",
        dimension="volume",
        formula="W(in) = V (1 − c/in) = {f.reserve_m3:volume}, absolute c = {f.pre_charge_abs_pa:pressure}, "
        "in = {f.cut_in_abs_pa:pressure}.",
        source=GAS_LAW,
    ),
    _AnswerKind(
        id="lowest",
        title="Lowest while it starts",
        figure="lowest_pa",
        dimension="pressure",
        formula="W = W(in) − Q·t = {f.reserve_m3:volume} − {f.dip_need_m3:volume}, put back into the gas law: "
        "{f.lowest_pa:pressure}. At 0 the tank has run empty.",
        source=GAS_LAW,
    ),
    _AnswerKind(
        id="largest_pre_charge",
        title="Most pre-charge with no dip",
        figure="largest_pre_charge_pa",
        dimension="pressure",
        formula="in (1 − Q·t/V)^n, absolute = {f.largest_pre_charge_abs_pa:pressure}, less the atmosphere "
        "{f.atmosphere_pa:pressure} = {f.largest_pre_charge_pa:pressure}.",
        source=GAS_LAW,
    ),
    _AnswerKind(
        id="dead_head",
        title="Dead-head",
        figure="dead_head_pa",
        dimension="pressure",
        formula="ρg (shut-off head − lift) + inlet, or as measured with all taps shut = {f.dead_head_pa:pressure}.",
        source=PUMP_LINE,
    ),
)


def decide(system: System, settings: Settings, practice: Practice | None = None, units: str = "us") -> Decision:
    """What `settings` do on `system`. Figures are SI, texts in `units` ("us", "metric", "kpa").
    Valid wherever the dataclasses are; a missing reading gives None and "cannot tell", never a guess.
    Raises UnknownUnit for a unit system that is not known."""
    return decision(Facts(system, settings, practice or Practice()), units)


def decision(facts: Facts, units: str) -> Decision:
    """`decide` on figures at hand."""
    unit_for("pressure", units)
    findings = run(RULES, facts)
    return Decision(
        verdict=worst_verdict(findings).value,
        answers=_answers(facts, units),
        findings=tuple(worded(finding, facts, units) for finding in findings),
        schools=tuple(_school_views(facts, Shown(facts, units))),
        ribbon=ribbon(facts, units),
    )


def _answers(facts: Facts, units: str) -> tuple[Answer, ...]:
    f = Shown(facts, units)
    return tuple(_answer(kind, facts, f) for kind in _ANSWERS)


def _answer(kind: _AnswerKind, facts: Facts, f: Shown) -> Answer:
    value = getattr(facts, kind.figure)
    template = "{f." + kind.figure + ":" + kind.dimension + "}"
    told = value is not None
    return Answer(
        id=kind.id,
        title=kind.title,
        value=value if told and isfinite(value) else None,
        dimension=kind.dimension,
        text=template.format(f=f),
        note=_note(kind.id, facts, f),
        formula=kind.formula.format(f=f) if told else "",
        source=kind.source.text(),
    )


def _note(answer: str, facts: Facts, f: Shown) -> str:
    if answer == "pre_charge":
        return _air_note(facts, f)
    if answer == "run" and facts.line.assumed:
        return "on an assumed curve"
    if answer == "run" and abs(facts.run_s - facts.simple_run_s) > 0.05 * facts.run_s:
        return f"rule of thumb {f.simple_run_s:duration}"
    if answer == "starts" and facts.worst is not None:
        return f"at {f.worst_draw_m3_s:flow}"
    if answer == "lowest" and facts.lowest_pa == 0:
        return "runs empty: the dip"
    return ""


def _air_note(facts: Facts, f: Shown) -> str:
    if facts.found_pa is None:
        return ""
    if abs(facts.air_step_pa or 0.0) < 1.0:
        return "as found"
    way = "add" if facts.pre_charge_pa > facts.found_pa else "let out"
    return f"{{f.found_pa:pressure}} found, {way} {{f.air_step_pa:pressure}}".format(f=f)


def _school_views(facts: Facts, f: Shown) -> list[SchoolView]:
    return [
        SchoolView(
            id=school.id,
            title=school.title.format(f=f),
            reason=school.reason,
            source=school.source.text(),
            target_gauge_pa=facts.school_target_pa(school),
            chosen=school.id == facts.school.id,
            budget=_budget_items(facts) if school.id == "computed" else (),
        )
        for school in PRE_CHARGE_SCHOOLS
    ]


def _budget_items(facts: Facts) -> tuple[BudgetItem, ...]:
    sums = facts.budget
    return (
        BudgetItem(title="start dip", pressure_pa=sums.dip_pa, counted=True),
        BudgetItem(title="gauge error", pressure_pa=sums.gauge_pa, counted=True),
        BudgetItem(title="warming after setting", pressure_pa=sums.warming_pa, counted=True),
        BudgetItem(title="air lost until the next check", pressure_pa=sums.lost_pa, counted=False),
    )


@dataclass(frozen=True, kw_only=True)
class Strip:
    """The next minutes at a draw (m³/s): the line, the pump's spans, and the greatest draw worth asking for."""

    seconds: float
    draw_m3_s: float
    worst_draw_m3_s: float | None
    most_draw_m3_s: float
    caption: str
    trail: Trail


IDLE_S, OPEN_S, REST_S = 60.0, 600.0, 240.0
MOST_EVENTS = 600
LEAST_STORED_M3 = 1e-6


def strip(facts: Facts, draw_m3_s: float | None = None) -> Strip:
    """A quarter of an hour: a minute with the taps shut, ten minutes at `draw_m3_s` (the worst draw if None), the rest shut
    again. The tank begins full to cut-out. Source: event simulation (`zerodip.plant.events`)."""
    most = max(facts.line.flows_m3_s[0], facts.peak_draw_m3_s or 0.0) * 1.2
    draw = facts.worst_draw_m3_s or most / 2 if draw_m3_s is None else draw_m3_s
    draw = min(max(draw, 0.0), most)
    draws = (Draw(IDLE_S, 0.0), Draw(OPEN_S, draw), Draw(REST_S, 0.0))
    phases = simulate(facts.plant, draws, most_events=MOST_EVENTS)
    line = trail(facts.plant, phases)
    return Strip(
        seconds=IDLE_S + OPEN_S + REST_S,
        draw_m3_s=draw,
        worst_draw_m3_s=facts.worst_draw_m3_s,
        most_draw_m3_s=most,
        caption=_caption(line, facts.drawdown_m3 < LEAST_STORED_M3),
        trail=line,
    )


def _caption(line: Trail, nothing_stored: bool) -> str:
    starts = "1 start" if line.starts == 1 else f"{line.starts} starts"
    if nothing_stored:
        return "nothing is stored between the set points: the pump chatters"
    if line.times_s[-1] < IDLE_S + OPEN_S + REST_S - 1:
        return f"chatters: {starts} in {line.times_s[-1] - IDLE_S:.0f} s, too many to draw"
    if line.dip_s <= 0:
        return f"{starts}, no dip"
    return f"{starts}, taps dry for {line.dip_s:.1f} s while the pump starts"


@dataclass(frozen=True, kw_only=True)
class Glance:
    """A system in a list: its band to scale (Pa gauge), the verdict, and the worst finding in a few words
    by unit system."""

    verdict: str
    headline: dict[str, str]
    cut_in_gauge_pa: float
    cut_out_gauge_pa: float
    pre_charge_gauge_pa: float
    limit_gauge_pa: float | None
    stops: int
    cautions: int
    unread: int


def glance(system: System, settings: Settings, practice: Practice | None = None) -> Glance:
    """The system at a glance. `limit_gauge_pa` is the lowest of the limits that hold cut-out."""
    facts = Facts(system, settings, practice or Practice())
    findings = run(RULES, facts)
    limits = [facts.relief_pa, facts.tank_max_pa, facts.dead_head_limit_pa]
    return Glance(
        verdict=worst_verdict(findings).value,
        headline={units: _headline(findings[0], Shown(facts, units)) for units in SYSTEMS},
        cut_in_gauge_pa=facts.cut_in_pa,
        cut_out_gauge_pa=facts.cut_out_pa,
        pre_charge_gauge_pa=facts.pre_charge_pa,
        limit_gauge_pa=min((p for p in limits if p is not None), default=None),
        stops=_count(findings, Verdict.STOP),
        cautions=_count(findings, Verdict.CAUTION),
        unread=_count(findings, Verdict.CANNOT_TELL),
    )


def _headline(worst: Finding, f: Shown) -> str:
    if worst.verdict is Verdict.PASS:
        return "All limits kept"
    if worst.verdict is Verdict.CANNOT_TELL:
        return "Not read: " + worst.missing[0].title
    return worst.rule.fails.format(f=f)


def _count(findings: tuple[Finding, ...], verdict: Verdict) -> int:
    return sum(1 for finding in findings if finding.verdict is verdict)
