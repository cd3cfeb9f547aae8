"""Rules that judge by the practice followed, and what each way of it asks for."""

import pytest

from zerodip.kinds.parts import Switch
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Practice
from zerodip.kinds.water.pumps import ConstantFlow
from zerodip.rules.engine import Verdict, judge

from .systems import CONSTANT, GPM, settings, system
from .test_rules import BY_ID, NORMAL, C, N, P, U, reads_well


@pytest.mark.parametrize(
    ("school", "gap", "verdict"),
    [
        ("keep", 20, P),
        ("keep", 30, C),
        ("widen", 30, P),
        ("widen", 34, C),
        ("widen", 16, C),
        ("leave", 30, N),
    ],
)
def test_the_differential_is_judged_by_the_school(
    school: str, gap: float, verdict: Verdict
) -> None:
    figures = figures_for(system(), settings(40, 40 + gap), Practice(differential_school=school))
    assert judge(BY_ID["differential"], figures).verdict is verdict


@pytest.mark.parametrize(
    ("school", "fitted", "verdict"),
    [
        ("fit", True, P),
        ("fit", False, C),
        ("avoid", True, C),
        ("avoid", False, P),
        ("fit", None, U),
    ],
)
def test_the_low_pressure_cut_off_is_judged_by_the_school(
    school: str, fitted: bool | None, verdict: Verdict
) -> None:
    figures = figures_for(
        system(switch=Switch(low_pressure_cut_off=fitted)), NORMAL, Practice(cut_off_school=school)
    )
    finding = judge(BY_ID["low-pressure-fitted"], figures)
    assert finding.verdict is verdict
    reads_well(finding, figures, "us")


def test_the_computed_school_cannot_tell_without_the_draw() -> None:
    figures = figures_for(system(), NORMAL, Practice(pre_charge_school="computed"))
    finding = judge(BY_ID["pre-charge-practice"], figures)
    assert finding.verdict is U
    assert finding.missing[0].path == "system.demand.peak_draw_m3_s"


def test_the_run_wanted_depends_on_the_school_and_the_motor() -> None:
    """Common practice, no source: 60 s; 30 s tolerable; 2 min from about 1 hp up."""
    motor = ConstantFlow(flow_m3_s=10 * GPM, power_w=746)
    wanted = {
        (school, pump.power_w): (
            figures_for(system(pump=pump), NORMAL, Practice(run_time_school=school)).wanted_run_s
        )
        for school in ("minute", "half_minute", "by_power")
        for pump in (motor, CONSTANT)
    }
    assert wanted[("minute", 746)] == 60
    assert wanted[("half_minute", 746)] == 30
    assert wanted[("by_power", 746)] == 120
    assert wanted[("by_power", None)] == 60
