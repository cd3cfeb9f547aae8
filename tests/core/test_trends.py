"""Trends over visits, against scipy and numpy, and against chance itself."""

from dataclasses import replace

import numpy as np
import pytest
from scipy import stats

from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Practice
from zerodip.switch.learned import learned_from
from zerodip.trends.history import YEAR_S, Past, Trends, due_state, trends
from zerodip.trends.line import NINETY, falls_to, fit, losses
from zerodip.units import PSI
from zerodip.visit.summary import Points, Summary, summarize_visit

from .systems import air_settings, compressor, figures
from .test_visit import entries, seen

NOTHING = Points(cut_in_gauge_pa=None, cut_out_gauge_pa=None, pre_charge_gauge_pa=None)


def at(year: float, found: float | None, left: float | None, run: float | None = None) -> Past:
    points = [
        replace(NOTHING, pre_charge_gauge_pa=None if psi is None else psi * PSI)
        for psi in (found, left)
    ]
    figures = Summary(
        found=points[0], left=points[1], found_run_s=None, run_s=run, tries=0, dip=None
    )
    return Past(visit=f"v{year}", at_s=year * YEAR_S, summary=figures)


def told(*past: Past, **practice: str) -> Trends:
    return trends(figures(practice=Practice(**practice)), past)  # type: ignore[arg-type]


@pytest.mark.parametrize("seed", range(5))
def test_the_line_is_that_of_scipy(seed: int) -> None:
    chance = np.random.default_rng(seed)
    years = np.sort(chance.uniform(0, 5, 8))
    values = 60 - 2 * years + chance.normal(0, 3, 8)
    line, theirs = fit(list(years), list(values), 0.001), stats.linregress(years, values)
    assert line is not None
    assert line.slope == pytest.approx(theirs.slope)
    assert line.slope_sd == pytest.approx(theirs.stderr)
    assert line.value - line.slope * line.middle == pytest.approx(theirs.intercept)
    assert line.sure == (abs(theirs.slope) > NINETY * theirs.stderr)


def test_a_line_needs_two_times_and_is_no_surer_than_the_gauge() -> None:
    assert fit([1.0], [3.0], 1.0) is None
    assert fit([1.0, 1.0], [3.0, 4.0], 1.0) is None
    line = fit([0.0, 2.0], [10.0, 6.0], 1.0)
    assert line is not None
    assert (line.slope, line.slope_sd) == (-2.0, pytest.approx(1 / 2**0.5))


def test_the_loss_is_least_squares_through_nothing_lost_in_no_time() -> None:
    spans, lost = [1.0, 0.5, 2.0, 1.2], [1.4, 1.1, 3.2, 1.5]
    rate = losses(spans, lost, 0.01)
    assert rate is not None
    (slope,), (left,), *_ = np.linalg.lstsq(np.array(spans)[:, None], np.array(lost), rcond=None)
    assert rate[0] == pytest.approx(slope)
    assert rate[1] == pytest.approx((left / 3 / np.dot(spans, spans)) ** 0.5)
    assert losses([], [], 1.0) is None


@pytest.mark.parametrize("seed", range(3))
def test_nine_in_ten_crossings_lie_in_the_interval(seed: int) -> None:
    """Known truth: 38 psi left, 1.5 psi a year, 34 psi is the end: 2.67 years. Two thousand made-up
    histories."""
    chance, sd, inside = np.random.default_rng(seed), 0.5, 0
    spans = np.array([1.0, 1.0, 1.0, 1.0])
    for _ in range(2000):
        lost = 1.5 * spans + chance.normal(0, sd * 2**0.5, 4)
        rate, rate_sd = float(np.dot(spans, lost) / np.dot(spans, spans)), sd * 2**0.5 / 2
        met = falls_to(38 + chance.normal(0, sd), 34, sd, (rate, rate_sd))
        inside += (
            (met.earliest or 0) <= 4 / 1.5 <= (met.latest if met.latest is not None else np.inf)
        )
    assert 0.88 <= inside / 2000 <= 0.93


def test_a_crossing_that_may_never_come_says_so() -> None:
    unsure = falls_to(38, 34, 0.5, (0.2, 0.5))
    assert unsure.latest is None
    assert unsure.earliest is not None
    assert falls_to(33, 34, 0.5, (1.0, 0.1)).likely == 0.0
    rising = falls_to(38, 34, 0.5, (-1.0, 0.1))
    assert rising.likely is None
    assert rising.latest is None


def test_a_tank_that_is_topped_up_each_year_shows_its_loss_and_when_it_leaves_the_band() -> None:
    seen = told(at(2023, 36.5, 38), at(2024, 36.5, 38), at(2025, 36.4, 38), at(2026, 36.6, 38))
    charge = seen.series[0]
    assert charge.per_year is not None
    assert charge.per_year[0] / PSI == pytest.approx(-1.5, abs=0.01)
    assert "1.5 psi lost a year" in charge.says
    assert [point.left for point in charge.points[:3]] == [False, True, False]
    assert seen.band_gauge_pa is not None
    assert seen.leaves is not None
    room = 38 - seen.band_gauge_pa / PSI
    assert seen.leaves.likely_s == pytest.approx((2026 + room / 1.5) * YEAR_S, rel=1e-4)
    # Checked each year, but never later than its air leaves the band.
    assert seen.due_s == seen.leaves.likely_s < 2027 * YEAR_S
    assert seen.due_by == "Before its air leaves the band"
    assert seen.drifting == ()
    assert not seen.may_be_out


def test_the_measured_school_comes_sooner_to_a_tank_that_loses_more() -> None:
    seen = told(at(2025, 30, 38), at(2026, 34, 38), check_school="measured")
    assert seen.due_s is not None
    assert seen.band_gauge_pa is not None
    room = (38 - seen.band_gauge_pa / PSI) / 4  # years, sooner than the half that 2 psi take
    assert seen.due_s / YEAR_S - 2026 == pytest.approx(min(room, 0.5), abs=0.01)
    after, before = (
        trends(figures(), (at(2025, 30, 38), at(2026, 34, 38)), now_s=(2026 + years) * YEAR_S)
        for years in (room + 0.01, room - 0.01)
    )
    assert (after.may_be_out, before.may_be_out) == (True, False)
    assert "Loses 4 psi of air a year" in seen.drifting[0]


@pytest.mark.parametrize("before", [(), (at(2025, 36, 38),)])
def test_air_left_outside_its_band_is_due_at_once(before: tuple[Past, ...]) -> None:
    past = (*before, at(2026, 28, None))
    seen = trends(figures(), past, now_s=2026.1 * YEAR_S)
    assert seen.due_s == pytest.approx(2026 * YEAR_S)
    assert seen.due_by == "Its air was left outside its band"
    assert seen.may_be_out
    assert told(*before, at(2026, 28, 37.5)).due_s != seen.due_s


def test_a_run_that_gets_shorter_is_drifting() -> None:
    shorter = [at(2023 + k, None, None, run=90 - 15 * k) for k in range(4)]
    assert told(*shorter).drifting == ("Pump run 15 s shorter a year.",)
    steady = [at(2023 + k, None, None, run=90 + k % 2) for k in range(4)]
    assert told(*steady).drifting == ()


@pytest.mark.parametrize(
    ("units", "usual"),
    [("us", "1 to 2 psi"), ("metric", "0.07 to 0.14 bar"), ("kpa", "6.9 to 14 kPa")],
)
def test_a_loss_beyond_the_usual_is_told_in_the_units_asked_for(units: str, usual: str) -> None:
    past = [at(2023 + k, 32, 38) for k in range(3)]
    (line,) = trends(figures(), past, units).drifting
    assert line.endswith(f"of air a year; {usual} is usual.")


@pytest.mark.parametrize(
    ("days", "state"), [(-1, "overdue"), (10, "soon"), (40, "later"), (None, "none")]
)
def test_a_check_is_overdue_soon_or_later(days: float | None, state: str) -> None:
    assert due_state(None if days is None else 1e9 + days * 86400, 1e9) == state


def test_what_turns_taught_is_said_of_each_nut_on_its_own_point() -> None:
    numbers = [2.1 * PSI, 0.2 * PSI, 2.2 * PSI, 0.2 * PSI, 0.0, 0.1 * PSI, 2.9 * PSI, 0.3 * PSI]
    slopes = learned_from(numbers, "two")
    said = trends(figures(), [], "us", slopes).learned
    assert (
        said == "This switch moves about 2.1 psi (± 0.2 psi) a turn of the range nut, "
        "2.9 psi (± 0.3 psi) a turn of the differential nut."
    )
    assert trends(figures(), []).learned == ""


def test_a_receiver_has_no_pre_charge_to_follow() -> None:
    machine = figures_for(compressor(), air_settings(), Practice())
    seen = trends(machine, [at(2025, None, None, run=60), at(2026, None, None, run=61)])
    assert [series.id for series in seen.series] == ["run"]
    assert seen.leaves is None
    assert trends(machine, []).due_s is None


def test_a_visit_in_figures_is_freed_of_what_its_gauges_read_low_by() -> None:
    made = summarize_visit(
        entries(
            ("found.cut_in", 33 * PSI),
            ("found.cut_out", 51 * PSI),
            ("found.pre_charge", 30 * PSI),
            ("gauge.low", 1 * PSI),
            ("gauge.air_low", 2 * PSI),
            ("try", seen(39, 59, 2)),
            ("air.left", 36 * PSI),
            ("lap", {"run_s": 60.0}),
            ("lap", {"run_s": 70.0}),
        )
    )
    assert made.found.cut_in_gauge_pa == pytest.approx(34 * PSI)
    assert made.left.cut_in_gauge_pa == pytest.approx(40 * PSI)
    assert made.left.pre_charge_gauge_pa == pytest.approx(38 * PSI)
    assert (made.run_s, made.tries, made.dip) == (65.0, 1, None)
    untouched = summarize_visit(entries(("found.cut_in", 33 * PSI)))
    assert untouched.left == untouched.found
