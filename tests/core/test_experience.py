"""What a workspace has met shifts its priors: against random draws from the Dirichlet itself."""

import numpy as np
import pytest
from scipy.stats import multinomial

from tests.core.test_trouble import PLAIN, WELL
from zerodip.diagnosis.experience import STRENGTH, causes_met, with_experience
from zerodip.diagnosis.inference import believe
from zerodip.diagnosis.parts import Observation
from zerodip.kinds.registry import KINDS, kind_of
from zerodip.units import PSI
from zerodip.visit.trouble import trouble_view


def test_the_shift_is_the_posterior_mean_of_a_dirichlet_prior() -> None:
    """300,000 draws from the prior weighed by the multinomial's likelihood of the outcomes; no code
    of ours but the usual weights."""
    troubles = KINDS["tankless"].troubles
    causes = troubles.causes
    met = {causes[0].id: 3, causes[2].id: 2, causes[5].id: 1}
    usual = np.array([each.weight for each in causes]) / sum(each.weight for each in causes)
    drawn = np.random.default_rng(7).dirichlet(STRENGTH * usual, 300_000)
    counts = [met.get(each.id, 0) for each in causes]
    chances = multinomial.pmf(counts, sum(counts), drawn)
    expected = (drawn * chances[:, None]).sum(axis=0) / chances.sum()
    shifted = with_experience(troubles, met).causes
    weights = np.array([each.weight for each in shifted])
    assert weights / weights.sum() == pytest.approx(expected, abs=0.004)


def test_what_is_met_more_often_is_suspected_more_and_evidence_still_decides() -> None:
    clicks = [Observation("clicks", True)]
    usual = trouble_view(WELL, clicks, "us").suspects
    often = {
        each.id: each for each in trouble_view(WELL, clicks, "us", met={"nipple": 30}).suspects
    }
    assert "nipple" in often
    assert often["nipple"].probability > max(
        (each.probability for each in usual if each.id == "nipple"), default=0.03
    )
    water = [*clicks, Observation("water_at_valve", True), Observation("run", 2.0)]
    first, *_ = trouble_view(WELL, water, "us", met={"nipple": 30}).suspects
    assert first.id == "burst"


def test_what_is_no_cause_of_the_kind_shifts_nothing() -> None:
    troubles = kind_of(PLAIN).troubles
    assert with_experience(troubles, {"burst": 9, "healthy": 4, "other": 2}) is troubles
    assert with_experience(troubles, {}) is troubles
    again = with_experience(troubles, {"waterlogged": 5})
    assert again is with_experience(troubles, {"waterlogged": 5, "other": 1})
    whole = sum(each.weight for each in troubles.causes)
    assert sum(each.weight for each in again.causes) == pytest.approx(whole)
    assert believe(again, PLAIN, [], PSI).probability("waterlogged") > believe(
        troubles, PLAIN, [], PSI
    ).probability("waterlogged")


def test_what_was_met_is_told_with_its_shares() -> None:
    rows = causes_met(KINDS["well_air"].troubles, {"waterlogged": 4, "healthy": 2, "luck": 9})
    assert [(row.id, row.times) for row in rows] == [("waterlogged", 4), ("healthy", 2)]
    assert rows[0].now > rows[0].usual > 0
