"""The certificate's rows hold what was read and judged, in any unit, to the last digit shown."""

import json
import math
import re
from dataclasses import asdict

import pytest

from tests.core.bench.made import KPA, calibration, dual, runs
from zerodip.bench.calibrate import calibrate
from zerodip.bench.certificate import Certificate, certificate_of
from zerodip.bench.file import read_calibration
from zerodip.bench.words import pace
from zerodip.units import TOLD, to_si, unit_for

# Longer symbols first: "mbar" is no "bar".
SYMBOLS = sorted({unit_for("pressure", each).symbol for each in TOLD}, key=len, reverse=True)
FIGURE = re.compile(rf"([+-]?[\d,]*\.?\d+) ({'|'.join(map(re.escape, SYMBOLS))})(?![\w²])")
LEFT = [
    *runs("lower", (300.4, 340), (300.9, 341), (300.2, 340.5)),
    *runs("upper", (699.2, 658.1), (699.6, 658.9), (699.4, 658.4)),
]


def made(units: str, **changed: object) -> Certificate:
    of = calibration(**changed)
    return certificate_of(of, calibrate(of, units), units)


def figure(text: str) -> tuple[float, float]:
    """A pressure off the paper, Pa, and the half of its last digit."""
    (number, symbol) = FIGURE.findall(text)[0]
    unit = next(unit for each in TOLD if (unit := unit_for("pressure", each)).symbol == symbol)
    grain = 10.0 ** -len(number.partition(".")[2])
    pa = to_si(float(number.replace(",", "")), unit.id)
    return pa, 0.5001 * to_si(grain, unit.id)


@pytest.mark.parametrize("units", TOLD)
def test_one_unit_is_spoken_and_what_was_read_stands_there(units: str) -> None:
    symbol = unit_for("pressure", units).symbol
    page = made(units, left=LEFT)
    on_paper = FIGURE.findall(json.dumps(asdict(page), ensure_ascii=False))
    assert {each for _, each in on_paper} == {symbol}
    of = calibration(left=LEFT)
    read = [run for each in (of.found, of.left) for run in sorted(each, key=lambda one: one.at)]
    for row, run in zip(page.runs, read, strict=True):
        asked = of.device.points[run.at].gauge_pa
        for text, pa in (
            (row[2], run.set_gauge_pa),
            (row[3], run.set_gauge_pa - asked),
            (row[4], run.reset_gauge_pa or 0.0),
        ):
            shown, half = figure(text)
            assert shown == pytest.approx(pa, abs=half)
            assert half <= 0.51 * of.reference.resolution_pa  # no digit that was read is lost


@pytest.mark.parametrize("units", ["kpa", "us", "inH2O"])
def test_the_budget_on_paper_adds_up(units: str) -> None:
    """GUM, JCGM 100:2008, 5.1.2 and 6.2.1: components by their squares, expanded by the factor."""
    rows = {row[0]: row[2:] for row in made(units, left=LEFT).budget}
    for at in (0, 1):
        parts = [row[at] for name, row in rows.items() if name not in AFTER]
        together, half = figure(rows["Together"][at])
        squares = math.sqrt(math.fsum(figure(part)[0] ** 2 for part in parts))
        assert squares == pytest.approx(together, abs=len(parts) * half)
        expanded = next(row[at] for name, row in rows.items() if name.startswith("Expanded"))
        factor = float(rows["Factor"][at])
        assert figure(expanded)[0] == pytest.approx(factor * together, abs=(1 + factor) * half)


AFTER = {"Together", "Factor", "Expanded, 95%", "Tolerance over it"}


def test_dots_are_errors_as_shares_of_the_tolerance() -> None:
    dots = made("kpa", left=LEFT).dots
    assert [(dot.at, dot.left) for dot in dots].count((1, True)) == 3
    upper = [dot.share for dot in dots if dot.at == 1 and not dot.left]
    assert upper == pytest.approx([0.24, 0.20, 0.30])  # 2.4, 2.0 and 3.0 of 10 kPa


def test_without_a_turn_as_found_is_as_left() -> None:
    page = made("kpa")
    assert {row[0] for row in page.runs} == {"found, left"}
    assert all(dot.left for dot in page.dots)
    assert page.found_says == page.left_says
    assert {row[0] for row in made("kpa", left=LEFT).runs} == {"as found", "as left"}


def test_ends_are_told_as_they_are_marked() -> None:
    raw = dual()
    raw["device"] |= {"low_gauge_pa": -30 * 3386.389, "high_gauge_pa": 0.0, "unit": "inHg"}
    raw["device"]["points"] = [{"gauge_pa": -42 * KPA, "acts": "rising", "tolerance_pa": 4 * KPA}]
    raw["reference"] |= {"low_gauge_pa": -30 * 3386.389, "high_gauge_pa": 30 * 3386.389}
    raw["found"] = [{"point": "lower", "set_gauge_pa": -41.8 * KPA}] * 3
    of = read_calibration(raw)
    page = certificate_of(of, calibrate(of, "inHg"), "inHg")
    assert dict(page.switch)["Range"] == "-30 inHg to 0 inHg"
    assert dict(page.reference)["Scale"] == "-30 inHg to 30 inHg"


@pytest.mark.parametrize("units", TOLD)
def test_a_pace_has_two_figures_and_may_be_nought(units: str) -> None:
    unit = unit_for("pressure", units)
    for exponent in range(-3, 7):
        rate = to_si(3.601 * 10.0**exponent, unit.id)
        told = pace(rate, units).removesuffix(f" {unit.symbol} a second").replace(",", "")
        assert float(told) == pytest.approx(3.601 * 10.0**exponent, rel=0.02)
        assert len(told.strip("0.").replace(".", "")) <= max(2, exponent + 1)
    assert pace(0.0, units).startswith("0")
