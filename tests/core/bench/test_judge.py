"""Verdicts with a guard band; whom a point that acts late leaves unguarded."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.bench.made import KPA, calibration, dual, runs
from zerodip.bench.calibrate import calibrate
from zerodip.bench.certificate import certificate_of
from zerodip.bench.file import read_calibration
from zerodip.bench.judge import WORST_FIRST, verdict_on
from zerodip.bench.words import VERDICTS


@pytest.mark.parametrize(
    ("error", "verdict"),
    [
        (0.0, "pass"),
        (7.0, "pass"),  # at the guard band's end
        (-7.0, "pass"),
        (7.01, "conditional_pass"),
        (10.0, "conditional_pass"),  # at the limit
        (-10.01, "conditional_fail"),
        (13.0, "conditional_fail"),
        (13.01, "fail"),
    ],
)
def test_the_rule(error: float, verdict: str) -> None:
    """ILAC-G8:09/2019, 4.2.3, guard band equal to the expanded uncertainty; from memory."""
    assert verdict_on(error, 10.0, 3.0) == verdict


@given(st.floats(0, 40), st.floats(0, 40), st.floats(0.1, 20), st.floats(0.01, 30))
def test_further_off_is_never_judged_better(
    one: float, other: float, tolerance: float, expanded: float
) -> None:
    near, far = sorted((one, other))
    ranks = [WORST_FIRST.index(verdict_on(each, tolerance, expanded)) for each in (near, far)]
    skipped = WORST_FIRST.index("open")
    assert skipped not in ranks
    assert ranks[1] <= ranks[0]


def test_the_budget_is_recomputed_by_hand() -> None:
    """GUM: the root of the sum of squares; three runs of four series tell what repeats."""
    judged = calibrate(calibration())
    lower, upper = judged.left
    assert lower.set_gauge_pa == pytest.approx(300.5 * KPA)
    assert upper.error_pa == pytest.approx((702.4 + 702.0 + 703.0) / 3 * KPA - 700 * KPA)
    series = ((300.4, 300.9, 300.2), (340, 341, 340.5), (702.4, 702, 703), (661, 660.5, 661.3))
    squares = sum(sum((x - sum(s) / 3) ** 2 for x in s) for s in series)
    parts = [500.0, 50 / math.sqrt(3), 250 / math.sqrt(3), math.sqrt(squares / 8 / 3) * KPA]
    assert [each.standard_pa for each in lower.budget.components] == pytest.approx(parts)
    assert lower.budget.standard_pa == pytest.approx(math.hypot(*parts))
    assert lower.budget.expanded_pa == pytest.approx(2 * lower.budget.standard_pa, rel=0.05)
    assert lower.accepted_pa == pytest.approx(10 * KPA - lower.budget.expanded_pa)
    assert (lower.verdict, upper.verdict) == ("pass", "pass")
    assert upper.deadband is not None
    assert upper.deadband.mean_pa == pytest.approx(41.53 * KPA, abs=10)
    assert lower.deadband is not None
    assert lower.deadband.mean_pa == pytest.approx(40 * KPA)


def test_one_run_of_each_is_not_judged() -> None:
    raw = dual(found=[*runs("lower", (300, 340)), *runs("upper", (700, 660))])
    judged = calibrate(read_calibration(raw))
    assert judged.left_verdict == "open"
    assert {each.verdict for each in judged.left} == {"open"}
    left = dual()["found"]
    judged = calibrate(read_calibration({**raw, "left": left}))
    assert judged.found_verdict == "pass"  # what repeats is told by the runs as left
    assert judged.left_verdict == "pass"


@given(
    acts=st.sampled_from(["rising", "falling"]),
    off=st.floats(15, 60),
    high=st.booleans(),
)
def test_a_point_that_acts_late_leaves_something_unguarded(
    acts: str, off: float, high: bool
) -> None:
    """On rising pressure, higher is later; on falling pressure, lower is."""
    at, way = 500 + (off if high else -off), -1 if acts == "rising" else 1
    raw = dual(found=runs("lower", *[(at + k / 10, at + 40 * way) for k in range(3)]))
    raw["device"]["points"] = [{"gauge_pa": 500 * KPA, "acts": acts, "tolerance_pa": 10 * KPA}]
    judged = calibrate(read_calibration(raw))
    assert judged.found_verdict == "fail"
    (said,) = [each for each in judged.says if each.id == "found.out"]
    late = high == (acts == "rising")
    assert ("unguarded" in said.text) == late
    assert said.weight == ("danger" if late else "warning")
    assert f"{'higher' if high else 'lower'} pressure" in said.text


@pytest.mark.parametrize(
    ("deadband", "resets", "verdict"),
    [
        ({"deadband_pa": 50 * KPA}, 660, "pass"),
        ({"deadband_pa": 40 * KPA}, 660, "conditional_pass"),  # the most, met
        ({"deadband_pa": 30 * KPA}, 660, "fail"),
        ({"deadband": "adjustable", "deadband_pa": 60 * KPA}, 660, "fail"),
        ({"deadband": "adjustable", "deadband_pa": 41 * KPA}, 660, "pass"),
        ({}, 660, None),
        ({}, 720, "fail"),  # acting and resetting mixed up
    ],
)
def test_deadbands(deadband: dict[str, object], resets: float, verdict: str | None) -> None:
    raw = dual(found=runs("lower", *[(700, resets)] * 3))
    raw["device"]["points"] = [
        {"gauge_pa": 700 * KPA, "acts": "rising", "tolerance_share": 0.01, **deadband}
    ]
    (point,) = calibrate(read_calibration(raw)).left
    assert point.deadband is not None
    assert point.deadband.verdict == verdict


def test_a_vacuum_s_point_acts_on_falling_pressure() -> None:
    """A rising vacuum is a falling pressure: −60 kPa reached from above, reset at −45."""
    raw = dual(found=runs("lower", (-60.1, -45.2), (-60.3, -45.1), (-60.0, -45.4)))
    raw["device"] |= {"low_gauge_pa": -100 * KPA, "high_gauge_pa": 0.0}
    raw["device"]["points"] = [{"gauge_pa": -60 * KPA, "acts": "falling", "tolerance_pa": 4 * KPA}]
    raw["reference"] |= {"low_gauge_pa": -100 * KPA, "high_gauge_pa": 0.0}
    judged = calibrate(read_calibration(raw), "kpa")
    assert judged.left_verdict == "pass"
    assert judged.left[0].error_pa == pytest.approx(-133.3, abs=1)
    assert judged.left[0].deadband is not None
    assert judged.left[0].deadband.mean_pa == pytest.approx(14.9 * KPA, abs=100)


def test_a_point_that_wanders_is_not_hidden_by_the_other() -> None:
    """Runs 17 kPa apart, ± 10 allowed: their mean is right, and the point does not repeat."""
    wanders = runs("lower", (308, 340), (291, 340), (301, 340))
    steady = runs("upper", (700.1, 660), (700.0, 660), (700.2, 660))
    judged = calibrate(read_calibration(dual(found=[*wanders, *steady])))
    lower, upper = judged.left
    assert (lower.repeats, upper.repeats, judged.left_verdict) == ("fail", "pass", "fail")
    # Student's t with the four degrees of freedom of its own two series: 2.78.
    own = math.sqrt(((8**2 + 9**2 + 1) / 4) / 3) * KPA
    assert lower.budget.components[-1].standard_pa == pytest.approx(own, rel=1e-3)
    assert lower.budget.expanded_pa > 2.7 * own
    assert "does not repeat" in " ".join(each.title for each in judged.says)


@pytest.mark.parametrize(
    ("upper", "verdict"), [(330, "pass"), (330.4, "pass"), (329.2, "conditional_pass")]
)
def test_points_are_held_apart_as_they_act_and_exactly_the_least_is_enough(
    upper: float, verdict: str
) -> None:
    """Three in a hundred of 1000 kPa, by what was measured."""
    raw = dual(found=[*runs("lower", *[(300, 340)] * 3), *runs("upper", *[(upper, 290)] * 3)])
    raw["device"]["points"][1]["gauge_pa"] = 330 * KPA
    for units in ("us", "metric", "kpa", "inHg"):
        judged = calibrate(read_calibration(raw), units)
        assert judged.apart is not None
        assert judged.apart.verdict == verdict


@pytest.mark.parametrize("resets", [660, 720])
def test_the_head_of_a_certificate_says_what_its_rows_say(resets: float) -> None:
    """A deadband that fails, or a run that is missing, stands in its point's row."""
    upper = runs("upper", *[(700.1, resets)] * 3)
    of = read_calibration(dual(found=[*runs("lower", *[(300, 340)] * 3), *upper]))
    judged = calibrate(of)
    page = certificate_of(of, judged, "us")
    words = [VERDICTS[each] for each in WORST_FIRST]
    assert page.left_says == min((row[-1] for row in page.points), key=words.index)
    assert (page.left_says == "Fail") == (resets > 700)
