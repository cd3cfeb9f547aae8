"""Points that drift: the day that is told comes before they leave their tolerance."""

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
import pytest

from tests.core.bench.made import KPA, calibration
from zerodip.bench.calibrate import calibrate
from zerodip.bench.drift import Drift, drift_of, next_due

TODAY, YEAR_DAYS = date(2026, 11, 27), 365.2425
TOLERANCE_PA, READING_SD_PA = 10 * KPA, 300.0
UPPER = 1


@dataclass
class Life:
    """A point that drifts evenly, calibrated and put right a few times up to today."""

    rate_pa: float
    found: float
    left: float
    left_truly: float
    past: list[dict[str, object]]

    @property
    def leaves_in_days(self) -> float:
        """When it truly leaves its tolerance."""
        side = TOLERANCE_PA if self.rate_pa > 0 else -TOLERANCE_PA
        return (side - self.left_truly) / self.rate_pa * YEAR_DAYS

    def drift(self) -> Drift | None:
        of = calibration(past=self.past)
        return drift_of(of, UPPER, self.found, self.left, READING_SD_PA)


def lived(rng: np.random.Generator, rate_pa: float) -> Life:
    days = np.cumsum(rng.integers(200, 500, size=rng.integers(2, 5)))[::-1]

    def read(truly: float) -> float:
        return float(truly + READING_SD_PA * rng.normal())

    truly, past = 0.0, []
    for before, after in zip(days, [*days[1:], 0], strict=True):
        left = rng.uniform(-0.2, 0.2) * TOLERANCE_PA
        row = {"on": (TODAY - timedelta(days=int(before))).isoformat()}
        past.append({**row, "found_upper_pa": read(truly), "left_upper_pa": read(left)})
        truly = left + rate_pa * (before - after) / YEAR_DAYS
    left = rng.uniform(-0.2, 0.2) * TOLERANCE_PA
    return Life(rate_pa, read(truly), read(left), left, past)


@pytest.mark.parametrize("rate_pa", [-6000.0, -1500.0, 800.0, 3000.0, 12_000.0])
def test_it_is_out_before_the_earliest_day_in_one_of_twenty_at_the_most(rate_pa: float) -> None:
    """At nine in ten between earliest and latest, so in one of twenty sooner."""
    rng = np.random.default_rng(int(abs(rate_pa)))
    lives = [lived(rng, rate_pa) for _ in range(400)]
    sooner = 0
    for life in lives:
        drift = life.drift()
        assert drift is not None
        if drift.earliest is not None:
            told = (date.fromisoformat(drift.earliest) - TODAY).days
            sooner += life.leaves_in_days < told
    assert sooner / len(lives) < 0.08


def test_the_rate_is_told_as_surely_as_it_is_known() -> None:
    rng = np.random.default_rng(7)
    off = []
    for _ in range(400):
        drift = (life := lived(rng, 3000.0)).drift()
        assert drift is not None
        off.append((drift.per_year_pa - life.rate_pa) / drift.per_year_sd_pa)
    assert np.mean(off) == pytest.approx(0.0, abs=0.15)
    assert 0.8 < np.std(off) < 1.15


def test_the_next_is_never_due_later_than_the_interval_nor_before_tomorrow() -> None:
    rng = np.random.default_rng(8)
    by = set()
    for _ in range(300):
        life = lived(rng, float(rng.normal(0, 8000)))
        of = calibration(past=life.past)
        drift = life.drift()
        due = next_due(of, [drift] if drift else [], failed=False)
        by.add(due.by)
        assert "2026-11-28" <= due.on <= "2027-11-27"
        if due.by == "drift":
            assert drift is not None
            assert drift.earliest is not None
            assert due.on == max(drift.earliest, "2026-11-28")
    assert by == {"interval", "drift"}


def test_a_day_that_is_not_told_in_order_tells_the_same() -> None:
    rng = np.random.default_rng(9)
    life = lived(rng, 4000.0)
    assert calibrate(calibration(past=life.past)) == calibrate(calibration(past=life.past[::-1]))
