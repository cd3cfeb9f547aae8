"""A kind of system is one folder and one line of the registry: nobody else asks which it is."""

import ast
import json
from collections.abc import Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

import pytest

import zerodip
from zerodip.decide.compare import practice_matters
from zerodip.decide.judge import decide
from zerodip.decide.propose import propose
from zerodip.decide.simulation import simulate_draw
from zerodip.decide.size import sizing
from zerodip.decide.summary import summarize
from zerodip.documents.report import report
from zerodip.documents.rules_page import rules_page
from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.fields import choice, quantity
from zerodip.fileformat.schema import document_schema
from zerodip.fileformat.templates import template_file
from zerodip.kinds.charts import Level, Ribbon, Scales, band_grips, marks_of
from zerodip.kinds.figures import Figures, less_gauge_error
from zerodip.kinds.limits import SWITCH_HIGH, Limit, LimitSpec
from zerodip.kinds.parts import Switch, System
from zerodip.kinds.protocol import Kind, Proposing, VisitParts
from zerodip.kinds.registry import KINDS
from zerodip.kinds.results import ResultSpec
from zerodip.kinds.scales import Scale
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.steps import POWER_OFF
from zerodip.kinds.templates import usual_settings
from zerodip.rules.engine import Rule
from zerodip.rules.sources import practice
from zerodip.text.figure import Reading, figure
from zerodip.text.writer import Writer
from zerodip.units import PSI
from zerodip.visit.view import visit_view

from .systems import compressor, entries, system, tankless

CORE = Path(zerodip.__file__).parent
ASKERS = [
    path
    for folder in (CORE, CORE.parents[1] / "server")
    for path in sorted(folder.rglob("*.py"))
    if CORE / "kinds" not in path.parents and "migrations" not in path.parts
]
MODELS = {kind.model.__name__ for kind in KINDS.values()}
FIGURES = {
    type(of).__name__
    for kind in KINDS.values()
    for of in [read_document(template_file(kind.id, "x")).figures()]
}
CONSTANTS = {"PLAIN_TANK", "TANKLESS", "COMPRESSOR"}


def asks_for_a_kind(node: ast.AST) -> str | None:
    """What a piece of code says when it asks which kind a system is."""
    names = {each.id for each in ast.walk(node) if isinstance(each, ast.Name)}
    names |= {each.attr for each in ast.walk(node) if isinstance(each, ast.Attribute)}
    if isinstance(node, ast.Call) and getattr(node.func, "id", "") in ("isinstance", "issubclass"):
        asked = names & (MODELS | FIGURES)
        return f"isinstance of {asked}" if asked else None
    if isinstance(node, ast.Compare | ast.Match | ast.match_case):
        words = {each.value for each in ast.walk(node) if isinstance(each, ast.Constant)}
        asked = {str(word) for word in words if word in KINDS} | (names & CONSTANTS)
        return f"comparison with {asked}" if asked else None
    return None


@pytest.mark.parametrize("source", ASKERS, ids=lambda path: path.stem)
def test_nobody_outside_the_kinds_asks_which_kind_a_system_is(source: Path) -> None:
    tree = ast.parse(source.read_text(encoding="utf-8"))
    assert [told for node in ast.walk(tree) if (told := asks_for_a_kind(node))] == []


@pytest.mark.parametrize(
    "code",
    ["isinstance(x, WaterSystem)", "x.kind == 'tankless'", "k in ('well_air', 'cistern')"],
)
def test_the_question_is_recognised(code: str) -> None:
    assert any(asks_for_a_kind(node) for node in ast.walk(ast.parse(code)))


@dataclass(frozen=True, kw_only=True)
class StandTank(System):
    """A made-up kind: a vessel with one rating and nothing else known of it."""

    kind: str = choice("Kind of system", ("stand_tank",))
    rating_gauge_pa: float | None = quantity("Rating", "pressure", 0, 1e6, default=None)


class StandFigures(Figures):
    """Its figures."""

    def __init__(self, system: StandTank, settings: Settings, practice: Practice) -> None:
        super().__init__(system, settings, practice)
        self.system = system

    @figure("pressure", Reading("system.rating_gauge_pa", "the vessel's rating"))
    def rating_pa(self) -> float | None:
        """The rating."""
        return self.system.rating_gauge_pa

    rating_allowed_pa = less_gauge_error(rating_pa)


S, PLAIN = StandFigures, practice("made up for a test")
LIMITS = (
    LimitSpec(
        id="rating",
        title="rating",
        bounds="cut_out",
        at=S.rating_pa,
        allowed=S.rating_allowed_pa,
        reason=f"Held at {S.rating_pa}.",
        source=PLAIN,
        error_counted=True,
        error_why="So.",
        hurts=True,
    ),
    SWITCH_HIGH,
)  # the smallest list of limits that there can be


def stand_chart(figures: StandFigures, limits: Sequence[Limit], write: Writer) -> Ribbon:
    marks = marks_of(limits)
    out, on = (
        Level(gauge_pa=pa, held_m3=0.0, run_s=None)
        for pa in (figures.cut_out_pa, figures.cut_in_pa)
    )
    scale = Scale(least=0.0, most=1e6, ticks=(0.0, 1e6))
    return Ribbon(
        holds="water",
        held_title="Held",
        held_dimension="volume",
        flow_dimension="flow",
        cut_out=out,
        cut_in=on,
        pre_charge=None,
        settled=None,
        threads=(),
        ghost=(),
        marks=marks,
        grips=band_grips(figures, marks),
        scales=Scales(gauge=scale, held=scale, run=scale),
    )


STAND_TANK = Kind[StandTank, StandFigures](
    id="stand_tank",
    title="Stand tank",
    model=StandTank,
    figures=StandFigures,
    template={"system": {}, "settings": usual_settings(20, 40, None)},
    cautions=("Mind the vessel.",),
    rules=(
        Rule(
            id="rating",
            title="Within the rating",
            fails="Over the rating",
            source=PLAIN,
            measure=S.cut_out_pa,
            limit=S.rating_allowed_pa,
            needs=(S.rating_pa,),
            figure=f"{S.cut_out_pa}",
            means=f"The rating allows {S.rating_allowed_pa}.",
            formula="As is.",
        ),
    ),
    limits=LIMITS,
    results=(
        ResultSpec(
            id="differential",
            title="Differential",
            figure=S.differential_pa,
            formula="",
            source=PLAIN,
        ),
    ),
    report=("differential",),
    chart=stand_chart,
    visit=VisitParts(watch=(), make_safe=(POWER_OFF,), read=(), checks=()),
    proposing=Proposing(
        candidates=lambda figures, units: [
            Settings(cut_in_gauge_pa=low * PSI, cut_out_gauge_pa=(low + 20) * PSI)
            for low in range(10, 60, 10)
        ],
        shown=("differential",),
    ),
)


@pytest.fixture
def stand_tank(monkeypatch: pytest.MonkeyPatch) -> Document:
    monkeypatch.setitem(KINDS, "stand_tank", STAND_TANK)
    file = template_file("stand_tank", "Roof")
    file["system"]["rating_gauge_pa"] = 50 * PSI
    return read_document(json.loads(json.dumps(file)))


def test_a_new_kind_goes_through_everything_by_its_line_in_the_registry(
    stand_tank: Document,
) -> None:
    at: tuple[Any, ...] = (stand_tank.system, stand_tank.settings, stand_tank.practice)
    assert read_document(stand_tank.as_json()) == stand_tank
    decision = decide(*at)
    assert (decision.verdict, decision.results[0].value) == ("pass", pytest.approx(20 * PSI))
    assert decision.limits[0].allowed_pa == pytest.approx(49 * PSI)
    assert summarize(*at).limit_gauge_pa == pytest.approx(49 * PSI)
    proposal = propose(*at)
    assert proposal.proposed.cut_out_gauge_pa <= 49 * PSI
    assert (practice_matters(*at), sizing(*at), simulate_draw(stand_tank.figures())) == (
        (),
        None,
        None,
    )
    look = {"first": 0, "second": 0, "cut_in_gauge_pa": 25 * PSI, "cut_out_gauge_pa": 55 * PSI}
    records = entries(("try", look), at="2030-01-01T00:00:00Z")
    view = visit_view(stand_tank.decided(), records)
    assert visit_view(stand_tank, records).set.do == "decide"
    assert (view.set.do, view.prove.tests) == ("turn", ())
    told = report(stand_tank, records)
    assert told.remaining[0].title == "Over the rating"
    assert "for: stand_tank" in rules_page(KINDS)


def test_a_new_kind_is_in_the_schema(stand_tank: Document) -> None:
    assert "stand_tank" in json.dumps(document_schema())


def test_limits_stop_the_grips_where_the_rules_stop_the_settings() -> None:
    """One list: a cut-out at the end of its grip breaks no limit, two steps above it breaks one."""
    van = replace(tankless(), switch=Switch(nuts="one", most_cut_out_gauge_pa=60 * PSI))
    for of, low in ((system(), 30), (compressor(), 60), (van, 20)):
        at = Settings(
            cut_in_gauge_pa=low * PSI,
            cut_out_gauge_pa=(low + 10) * PSI,
            pre_charge_gauge_pa=None if of.kind != "well_bladder" else (low - 2) * PSI,
        )
        decision = decide(of, at)
        held = [limit for limit in decision.limits if limit.bounds == "cut_out" and limit.holds]
        assert held
        lowest = min(limit.allowed_pa for limit in held)
        assert decision.chart.grips["cut_out"].most_gauge_pa == pytest.approx(lowest)
        marks = {mark.id: mark.gauge_pa for mark in decision.chart.marks}
        assert {limit.id: limit.allowed_pa for limit in decision.limits}.items() <= marks.items()
