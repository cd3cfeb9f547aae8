"""Drawings on paper and places in a file: geometry that must hold for any system, lines that must
be right in any layout."""

import json
import re
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from documents.drawing import BOTTOM, TOP, XS, drawn, spread
from documents.window import drawn_window
from exchange.line_numbers import lines_of
from exchange.parser import cut
from tests.core.systems import file
from zerodip.decide.judge import Decision, decide
from zerodip.fileformat.document import read_document
from zerodip.fileformat.templates import template_file
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.registry import KINDS
from zerodip.kinds.window import Window
from zerodip.units import PSI


def decided(raw: dict[str, Any]) -> Decision:
    document = read_document(raw)
    return decide(document.system, document.settings, document.practice, "metric")


def numbers(path: str) -> list[float]:
    return [float(each) for each in re.findall(r"-?\d+\.?\d*", path)]


@settings(max_examples=60, deadline=None)
@given(st.floats(20, 60), st.floats(5, 40), st.floats(5, 100), st.floats(5, 200))
def test_a_ribbon_stays_on_its_paper_and_no_figure_covers_another(
    cut_in: float, differential: float, air: float, gallons: float
) -> None:
    raw = file(
        settings__cut_in_gauge_pa=cut_in * PSI,
        settings__cut_out_gauge_pa=(cut_in + differential) * PSI,
        settings__pre_charge_gauge_pa=air * PSI,
        system__tanks__0__volume_m3=gallons * 0.003785,
    )
    ribbon = decided(raw).chart
    assert isinstance(ribbon, Ribbon)
    drawing = drawn(ribbon, "metric")
    for path in (drawing.water, drawing.reserve, *(path for _, path in drawing.curves)):
        assert all(XS[0] <= x <= XS[2] for x in numbers(path)[::2])
        assert all(TOP - 0.1 <= y <= BOTTOM + 0.1 for y in numbers(path)[1::2])
    for x in {tag.x for tag in drawing.tags}:
        heights = sorted(tag.y for tag in drawing.tags if tag.x == x)
        assert all(b - a >= 15.9 for a, b in zip(heights, heights[1:], strict=False))
    assert drawing.dips == (air * PSI > cut_in * PSI - 1)


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_its_drawing(kind: str) -> None:
    made = decided(template_file(kind, "Begun"))
    if isinstance(made.chart, Window):
        window = drawn_window(made.chart, "us")
        assert window.used[0] < window.used[1]
        assert window.cut_out < window.cut_in  # upwards is less on paper
        assert [tag.of for tag in window.tags if tag.anchor == "end"] == ["cut_out", "cut_in"]
    else:
        assert len(drawn(made.chart, "us").scales) in (2, 3)


@given(st.lists(st.floats(TOP, BOTTOM), max_size=4).map(sorted))
def test_figures_are_spread_in_order_and_none_is_lost(heights: list[float]) -> None:
    placed = spread(heights)
    assert len(placed) == len(heights)
    assert placed == sorted(placed)


words = st.text(alphabet='a"{}[],:\\ é\n', max_size=8)
values = st.recursive(
    st.none() | st.integers() | words, lambda inner: st.lists(inner, max_size=3), max_leaves=6
)
systems = st.lists(st.dictionaries(words, values, max_size=3), max_size=3)
sites = st.lists(systems.map(lambda found: {"id": 1, "systems": found, "name": "]"}), max_size=3)


@settings(max_examples=80, deadline=None)
@given(sites, st.lists(values, max_size=3), st.sampled_from([None, 0, 1, 3]), st.booleans())
def test_the_line_of_every_piece_is_where_its_value_begins(
    found: list[Any], gauges: list[Any], indent: int | None, sites_first: bool
) -> None:
    parts = {"gauges": gauges, "sites": found}
    raw = {
        "format": "zerodip-archive",
        "version": 1,
        **dict(sorted(parts.items(), reverse=sites_first)),
    }
    text = json.dumps(raw, indent=indent)
    lines = lines_of(text)
    assert set(lines) == {piece.path for piece in cut(raw)}
    rows = text.split("\n")
    for piece in cut(raw):
        whole = piece.raw if piece.kind != "site" else found[int(piece.path.split(".")[1])]
        begins = json.dumps(whole, indent=indent).split("\n")[0]
        assert begins in rows[lines[piece.path] - 1]
