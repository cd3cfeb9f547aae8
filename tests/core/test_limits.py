"""One list of limits: marks, grips, rules, the next turn, Rounds, Propose and the report hold to
the same figures, whatever the plates say."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from zerodip.decide.judge import Decision, decide
from zerodip.decide.propose import propose
from zerodip.decide.summary import summarize
from zerodip.documents.report import report
from zerodip.fileformat.document import Document
from zerodip.kinds.parts import Relief, Switch, System
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.water.model import Tank
from zerodip.units import PSI
from zerodip.visit.log import log_of
from zerodip.visit.steps.set_switch import set_view

from .systems import GAL, compressor, entries, system

RATING = st.floats(60, 160)
ERROR = st.floats(0, 4)
FEW = settings(max_examples=60, deadline=None, derandomize=True)


def well(tank: float, relief: float, pipe: float, switch: float, pump: float) -> System:
    of = system(
        tanks=(Tank(volume_m3=44 * GAL, max_gauge_pa=tank * PSI),),
        relief=Relief(present=True, setting_gauge_pa=relief * PSI),
        switch=Switch(most_cut_out_gauge_pa=switch * PSI),
    )
    return replace(
        of,
        pump=replace(of.pump, max_gauge_pa=pump * PSI),
        demand=replace(of.demand, pipe_max_gauge_pa=pipe * PSI),
    )


def workshop(plate: float, relief: float, pump: float, switch: float, _: float) -> System:
    of = compressor()
    return replace(
        of,
        receivers=tuple(replace(each, max_gauge_pa=plate * PSI) for each in of.receivers),
        relief=Relief(present=True, setting_gauge_pa=relief * PSI),
        pump=replace(of.pump, max_gauge_pa=pump * PSI),
        switch=Switch(most_cut_out_gauge_pa=switch * PSI),
    )


KINDS = pytest.mark.parametrize(("made", "air"), [(well, 28.0), (workshop, None)])


def at(cut_out_pa: float, air: float | None) -> Settings:
    return Settings(
        cut_in_gauge_pa=30 * PSI,
        cut_out_gauge_pa=cut_out_pa,
        pre_charge_gauge_pa=None if air is None else air * PSI,
    )


def upper(decision: Decision, hurting: bool = False) -> list[float]:
    return [
        limit.allowed_pa
        for limit in decision.limits
        if limit.bounds == "cut_out" and not limit.lowest and (limit.hurts or not hurting)
    ]


@KINDS
@FEW
@given(plates=st.tuples(RATING, RATING, RATING, RATING, RATING), error=ERROR)
def test_grips_rounds_and_proposals_end_at_the_lowest_limit(
    made: object, air: float | None, plates: tuple[float, ...], error: float
) -> None:
    of, practice = made(*plates), Practice(gauge_error_pa=error * PSI)  # type: ignore[operator]
    now = at(40 * PSI, air)
    decision = decide(of, now, practice)
    lowest = min(upper(decision))
    assert summarize(of, now, practice).limit_gauge_pa == pytest.approx(lowest)
    held = [mark.gauge_pa for mark in decision.chart.marks if mark.holds == "cut_out"]
    grip = decision.chart.grips["cut_out"]
    assert grip.most_gauge_pa == pytest.approx(max(min(held), 40 * PSI))
    best = propose(of, now, practice).proposed
    if min(upper(decision, hurting=True)) > 41 * PSI:
        assert best.cut_out_gauge_pa <= min(upper(decision, hurting=True)) + 1


@KINDS
@FEW
@given(plates=st.tuples(RATING, RATING, RATING, RATING, RATING), error=ERROR)
def test_a_rule_breaks_just_where_its_limit_stands(
    made: object, air: float | None, plates: tuple[float, ...], error: float
) -> None:
    """Just below the lowest limit that hurts nothing is stopped; three pascals above it, something
    is."""
    of, practice = made(*plates), Practice(gauge_error_pa=error * PSI)  # type: ignore[operator]
    hard = min(upper(decide(of, at(40 * PSI, air), practice), hurting=True))
    by_rating = {
        f.rule for f in decide(of, at(hard, air), practice).findings if f.verdict == "stop"
    }
    over = {f.rule for f in decide(of, at(hard + 3, air), practice).findings if f.verdict == "stop"}
    assert by_rating < over


@KINDS
@FEW
@given(
    plates=st.tuples(RATING, RATING, RATING, RATING, RATING),
    error=ERROR,
    found=st.floats(36, 58),
    low=st.floats(-3, 3),
)
def test_no_turn_is_planned_past_a_rating_as_this_gauge_shows_it(
    made: object,
    air: float | None,
    plates: tuple[float, ...],
    error: float,
    found: float,
    low: float,
) -> None:
    of, practice = made(*plates), Practice(gauge_error_pa=error * PSI)  # type: ignore[operator]
    hard = min(upper(decide(of, at(40 * PSI, air), practice), hurting=True))
    wanted = at(max(hard, 40 * PSI), air)
    log = log_of(
        entries(
            ("found.cut_in", 30 * PSI), ("found.cut_out", found * PSI), ("gauge.low", low * PSI)
        )
    )
    view = set_view(figures_for(of, wanted, practice), log, "us")
    if view.do == "turn" and view.expect_out_pa is not None:
        middle, spread = view.expect_out_pa  # two standard deviations
        # A turn that lowers cut-out leads away from the rating, wherever its switch stands.
        assert middle <= found * PSI or middle + 2 * spread <= hard - low * PSI + 1


def test_the_report_tells_the_same_limits_as_decide() -> None:
    of, now = well(100, 75, 100, 80, 100), at(76 * PSI, 28)
    document = Document(system=of, settings=now, practice=Practice(), entered={})
    told = report(document, [])
    stopped = [f.title for f in decide(of, now, Practice()).findings if f.verdict == "stop"]
    assert stopped
    assert {each.title for each in told.remaining} >= set(stopped)
    marks = {mark.id: mark.gauge_pa for mark in told.chart.marks}
    assert marks["relief"] == pytest.approx(74 * PSI)
