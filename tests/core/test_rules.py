"""Every rule: kept, broken, not applicable where it can be, and cannot tell where a reading may be missing."""

from typing import Any

import pytest

from zerodip.facts import READINGS, Facts
from zerodip.rulebook import RULES
from zerodip.rules import Finding, Rule, Verdict, judge, worded
from zerodip.rules_page import rules_page
from zerodip.system import (
    ConstantFlow,
    Demand,
    Found,
    Practice,
    RatedPoint,
    Relief,
    Settings,
    Switch,
    System,
    Tank,
)  # fmt: skip
from zerodip.units import PSI

from .plants import CONSTANT, GAL, GPM, RATED, settings, system

BY_ID = {rule.id: rule for rule in RULES}
ONE_TANK = Tank(volume_m3=44 * GAL, max_gauge_pa=100 * PSI)
NO_PLATE = Tank(volume_m3=44 * GAL)
HALF_HP = ConstantFlow(flow_m3_s=10 * GPM, power_w=373)


def with_(**parts: Any) -> System:
    return system(**{"demand": Demand(peak_draw_m3_s=9 * GPM), **parts})


def tank(**plate: Any) -> System:
    return with_(tanks=(Tank(volume_m3=44 * GAL, **plate),))


def relief(present: bool | None, psi: float | None = None, **plate: Any) -> System:
    setting = None if psi is None else psi * PSI
    return with_(relief=Relief(present=present, setting_gauge_pa=setting), tanks=(Tank(volume_m3=44 * GAL, **plate),))


def found(now: float | None, last: float | None = None, years: float | None = None) -> System:
    given = {"pre_charge_gauge_pa": now, "last_pre_charge_gauge_pa": last}
    return with_(found=Found(last_years_ago=years, **{k: None if v is None else v * PSI for k, v in given.items()}))


def daily(gallons: float | None, pump: ConstantFlow = HALF_HP) -> System:
    return with_(pump=pump, demand=Demand(daily_m3=None if gallons is None else gallons * GAL))


CUT_OFF = Switch(low_pressure_cut_off=True)
NORMAL = settings()
P, S, C, N, U = Verdict.PASS, Verdict.STOP, Verdict.CAUTION, Verdict.NOT_APPLICABLE, Verdict.CANNOT_TELL

CASES: list[tuple[str, System, Settings, Verdict]] = [
    ("pre-charge-below-cut-in", with_(), NORMAL, P),
    ("pre-charge-below-cut-in", with_(), settings(air=40), S),
    ("pre-charge-below-cut-in", with_(tanks=(ONE_TANK, Tank(volume_m3=0.1, pre_charge_gauge_pa=50 * PSI))), NORMAL, S),
    ("start-dip", with_(), NORMAL, P),
    ("start-dip", with_(gallons=5), settings(air=39.5), S),
    ("start-dip", system(), NORMAL, U),
    ("low-pressure-trip", with_(switch=CUT_OFF), NORMAL, P),
    ("low-pressure-trip", with_(switch=CUT_OFF, gallons=5), settings(air=39.5), S),
    ("low-pressure-trip", with_(switch=Switch(low_pressure_cut_off=False)), NORMAL, N),
    ("low-pressure-trip", with_(), NORMAL, U),
    ("pre-charge-school", with_(), NORMAL, P),
    ("pre-charge-school", with_(), settings(air=37), P),
    ("pre-charge-school", with_(), settings(air=36.9), C),
    ("pre-charge-found", found(27), NORMAL, P),
    ("pre-charge-found", found(9), NORMAL, C),
    ("pre-charge-found", found(None), NORMAL, U),
    ("pre-charge-loss", found(37, 38, 1), NORMAL, P),
    ("pre-charge-loss", found(27, 38, 2), NORMAL, C),
    ("pre-charge-loss", found(27), NORMAL, U),
    ("run-time", with_(), NORMAL, P),
    ("run-time", with_(gallons=30), NORMAL, C),
    ("run-time", with_(gallons=10), NORMAL, S),
    ("run-time", with_(pump=RATED), settings(cut_out=90), N),
    ("run-ends", with_(), NORMAL, P),
    ("run-ends", with_(pump=RATED), settings(cut_out=90), S),
    ("starts-per-day", daily(300), NORMAL, P),
    ("starts-per-day", daily(30000), NORMAL, C),
    ("starts-per-day", daily(2000, ConstantFlow(flow_m3_s=10 * GPM, power_w=1500)), NORMAL, C),
    ("starts-per-day", daily(None), NORMAL, U),
    ("starts-per-day", daily(300), settings(air=60), N),
    ("dead-head", with_(pump=RATED), settings(cut_out=80), P),
    ("dead-head", with_(pump=RATED), settings(cut_out=81), S),
    ("dead-head", with_(), NORMAL, U),
    ("dead-head", with_(pump=RatedPoint(flow_m3_s=GPM, gauge_pa=50 * PSI)), NORMAL, U),
    ("differential", with_(), NORMAL, P),
    ("differential", with_(), settings(cut_in=30, air=28), C),
    ("relief-present", relief(True), NORMAL, P),
    ("relief-present", relief(False), NORMAL, S),
    ("relief-present", relief(None), NORMAL, U),
    ("relief-above-cut-out", relief(True, 75), NORMAL, P),
    ("relief-above-cut-out", relief(True, 60), NORMAL, S),
    ("relief-above-cut-out", relief(False), NORMAL, N),
    ("relief-above-cut-out", relief(True), NORMAL, U),
    ("relief-within-tank", relief(True, 100, max_gauge_pa=100 * PSI), NORMAL, P),
    ("relief-within-tank", relief(True, 125, max_gauge_pa=100 * PSI), NORMAL, S),
    ("relief-within-tank", relief(False), NORMAL, N),
    ("relief-within-tank", relief(True, 75), NORMAL, U),
    ("tank-plate", tank(max_gauge_pa=60 * PSI), NORMAL, P),
    ("tank-plate", tank(max_gauge_pa=59 * PSI), NORMAL, S),
    ("tank-plate", with_(tanks=(ONE_TANK, NO_PLATE)), NORMAL, U),
    ("fixture-limit", with_(), settings(cut_out=80), P),
    ("fixture-limit", with_(), settings(cut_out=81), C),
    ("fixture-limit", with_(demand=Demand(lowest_tap_m=-8.0)), settings(cut_out=70), C),
    ("fixture-limit", with_(demand=Demand(pressure_reducer=True)), settings(cut_out=81), N),
    ("bladder-acceptance", tank(acceptance_m3=20 * GAL), NORMAL, P),
    ("bladder-acceptance", tank(acceptance_m3=10 * GAL), NORMAL, C),
    ("bladder-acceptance", with_(), NORMAL, U),
    ("earth", with_(switch=Switch(earth_present=True)), NORMAL, P),
    ("earth", with_(switch=Switch(earth_present=False)), NORMAL, S),
    ("earth", with_(), NORMAL, U),
]


@pytest.mark.parametrize(
    ("rule", "of", "at", "verdict"), CASES, ids=[f"{c[0]}-{c[3].value}-{n}" for n, c in enumerate(CASES)]
)
def test_verdicts(rule: str, of: System, at: Settings, verdict: Verdict) -> None:
    facts = Facts(of, at, Practice())
    finding = judge(BY_ID[rule], facts)
    assert finding.verdict is verdict
    for units in ("us", "metric", "kpa"):
        _reads_well(finding, facts, units)


def _reads_well(finding: Finding, facts: Facts, units: str) -> None:
    said = worded(finding, facts, units)
    whole = f"{said.title} {said.figure} {said.advice} {said.formula}"
    assert "{" not in whole
    assert "nan" not in whole
    assert said.source
    if finding.verdict in (S, C):
        assert said.advice
    if finding.verdict is U:
        assert all(reading.path.startswith("system.") and reading.title in said.advice for reading in finding.missing)


def test_every_rule_is_tried_kept_and_broken_and_unread_or_not_applicable_where_that_can_be() -> None:
    for rule in RULES:
        tried = {verdict for id, _, _, verdict in CASES if id == rule.id}
        assert P in tried
        assert tried & {S, C}
        assert U in tried or not _may_be_unread(rule), rule.id


def _may_be_unread(rule: Rule) -> bool:
    return bool(set(rule.needs) & set(READINGS)) and rule.id != "pre-charge-school"


def test_the_computed_school_cannot_tell_without_the_draw() -> None:
    facts = Facts(system(), NORMAL, Practice(pre_charge_school="computed"))
    finding = judge(BY_ID["pre-charge-school"], facts)
    assert finding.verdict is U
    assert finding.missing[0].path == "system.demand.peak_draw_m3_s"


def test_ids_are_unique_and_the_page_holds_them_all() -> None:
    page = rules_page()
    assert len(BY_ID) == len(RULES)
    assert all(f"id: `{rule.id}`" in page for rule in RULES)


def test_the_run_wanted_depends_on_the_school_and_the_motor() -> None:
    """Common practice, no source: 60 s; 30 s tolerable; 2 min from about 1 hp up."""
    motor = ConstantFlow(flow_m3_s=10 * GPM, power_w=746)
    wanted = {
        (school, pump.power_w): Facts(system(pump=pump), NORMAL, Practice(run_time_school=school)).wanted_run_s
        for school in ("minute", "half_minute", "by_power")
        for pump in (motor, CONSTANT)
    }
    assert wanted[("minute", 746)] == 60
    assert wanted[("half_minute", 746)] == 30
    assert wanted[("by_power", 746)] == 120
    assert wanted[("by_power", None)] == 60
