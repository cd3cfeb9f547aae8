"""Papers: what the report tells is what Decide and the visit tell, for every kind, and never a
figure that nobody read."""

from dataclasses import replace

import pytest

from tests.core import systems
from tests.core.systems import air_settings, compressor, file, tankless
from zerodip.decide.judge import decide
from zerodip.documents.label import label_of
from zerodip.documents.report import report
from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Practice, Settings
from zerodip.units import PSI
from zerodip.visit.log import Record

WELL = read_document(file())


def entries(*records: tuple[str, object]) -> list[Record]:
    return systems.entries(*records, at="2026-11-25T10:00:00+00:00")


def _left(document: Document) -> Settings:
    """The points as found, where nothing was done."""
    found = {"cut_in_gauge_pa": 33 * PSI, "cut_out_gauge_pa": 51 * PSI}
    return replace(document.settings, **found)


FOUND = [("found.cut_in", 33 * PSI), ("found.cut_out", 51 * PSI), ("found.pre_charge", 30 * PSI)]


@pytest.mark.parametrize("units", ["us", "metric", "kpa"])
def test_figures_before_and_after_are_those_of_decide_at_the_points_read(units: str) -> None:
    left = (
        "try",
        {"first": 1, "second": 0, "cut_in_gauge_pa": 41 * PSI, "cut_out_gauge_pa": 59 * PSI},
    )
    told = report(WELL, entries(*FOUND, left, ("air.left", 37 * PSI)), units)
    for points, name in (((33, 51, 30), "before"), ((41, 59, 37), "after")):
        low, high, air = (each * PSI for each in points)
        at = Settings(cut_in_gauge_pa=low, cut_out_gauge_pa=high, pre_charge_gauge_pa=air)
        decided = {a.id: a.text for a in decide(WELL.system, at, WELL.practice, units).results}
        assert {f.id: getattr(f, name) for f in told.figures} == {
            f.id: decided[f.id] for f in told.figures
        }
    assert [f.id for f in told.figures] == ["drawdown", "run", "starts", "reserve"]
    assert isinstance(told.chart, Ribbon)
    assert told.chart.cut_in.gauge_pa == pytest.approx(41 * PSI)


@pytest.mark.parametrize("missing", range(3))
def test_nothing_is_worked_out_of_points_that_were_not_read(missing: int) -> None:
    told = report(WELL, entries(*(each for k, each in enumerate(FOUND) if k != missing)))
    assert [f.before for f in told.figures] == [""] * 4
    assert [p.before for p in told.points].count("missing") == 1


def test_points_that_make_no_band_are_told_as_read_and_nothing_is_worked_out() -> None:
    told = report(WELL, entries(("found.cut_in", 60 * PSI), ("found.cut_out", 51 * PSI), FOUND[2]))
    assert [p.before for p in told.points] == ["60 psi", "51 psi", "30 psi"]
    assert {f.before for f in told.figures} == {""}


@pytest.mark.parametrize(
    "document",
    [
        Document(compressor(), air_settings(), Practice(), {}),
        Document(
            tankless(),
            Settings(cut_in_gauge_pa=30 * PSI, cut_out_gauge_pa=45 * PSI),
            Practice(),
            {},
        ),
    ],
)
def test_every_kind_has_its_report_and_whom_to_defer_to(document: Document) -> None:
    told = report(document, entries(*FOUND[:2]), closed_at="2026-11-25T11:00:00+00:00")
    assert told.figures
    assert told.chart == decide(document.system, _left(document), document.practice).chart
    assert "Local codes" in told.cautions[-1]
    assert len(told.points) == 2
    assert told.label.pre_charge == ""


@pytest.mark.parametrize(
    ("kind", "treated", "warned"),
    [
        ("cistern", None, True),
        ("cistern", False, True),
        ("cistern", True, False),
        ("well_bladder", None, False),
    ],
)
def test_untreated_water_is_labelled_as_such(kind: str, treated: bool | None, warned: bool) -> None:
    document = read_document(file(system__kind=kind, system__supply={"treated": treated}))
    label = label_of(figures_for(document.system, document.settings), "us")
    assert label.warning == ("Non-potable water. Do not drink." if warned else "")


def test_it_tells_what_was_not_read_and_how_much_was_not_judged() -> None:
    usual = read_document(file(system__assumed={"system.pump.flow_m3_s": True}))
    told = report(usual, entries(*FOUND))
    never = next(each for each in told.remaining if each.id == "usual")
    assert (never.verdict, never.advice) == ("cannot_tell", "Pump flow. The figures go by them.")
    assert told.unjudged > report(WELL, entries(*FOUND)).unjudged > 0


def test_a_trouble_is_told_in_three_lines_confirmed_or_as_sure_as_it_is() -> None:
    assert report(WELL, entries(*FOUND)).trouble == ()
    called = [("complaint", "clicks"), ("found.water_at_valve", True)]
    open_, confirmed = (report(WELL, entries(*called, *more)).trouble for more in ((), WAS))
    assert [title for title, _ in open_] == ["Symptom", "Cause", "Remedy"]
    assert open_[0][1] == "Clicks on and off at every tap"
    assert open_[1][1].startswith("Not confirmed. The bladder is burst: ")
    assert confirmed[1][1] == "Too little air: lost, or never set (confirmed)"
    assert "pre-charge" in confirmed[2][1]


WAS = (("was", "air_low"),)
