"""A gauge on the wire: its description, and what its figures mean."""

import math

import pytest

from zerodip.fileformat.fields import read
from zerodip.units import PSI
from zerodip.wire import PROBLEMS, WireSpec, first_look, gauge_pa

WHOLE = {"host": "10.0.0.8", "raw_high": 10000, "at_high": 10}


@pytest.mark.parametrize(
    ("changed", "raw", "pascal"),
    [
        ({}, 5000, 5e5),
        ({"pressure_unit": "psi", "raw_high": 1000, "at_high": 100}, 423, 42.3 * PSI),
        # 4 to 20 mA as a card counts it, 0 to 16 bar.
        ({"raw_low": 6400, "raw_high": 32000, "at_high": 16}, 19200, 8e5),
        ({"at_low": -1, "at_high": 9}, 0, -1e5),
        ({}, 10400, 10.4e5),
        ({}, 10600, None),
        ({}, -600, None),
        ({}, math.nan, None),
        ({}, math.inf, None),
    ],
)
def test_figures_mean_pressures(changed: dict, raw: float, pascal: float | None) -> None:
    spec, faults = read(WireSpec, {**WHOLE, **changed})
    assert spec is not None, faults
    assert gauge_pa(spec, raw) == (None if pascal is None else pytest.approx(pascal))


@pytest.mark.parametrize(
    ("changed", "paths"),
    [
        ({"host": " "}, {"host"}),
        ({"port": 0, "unit": 300, "register": -1}, {"port", "unit", "register"}),
        ({"port": 502.5}, {"port"}),
        ({"raw_low": 5, "raw_high": 5}, {"raw_high"}),
        ({"at_low": 20}, {"at_high"}),
        ({"number": "uint64", "rate_hz": 50}, {"number", "rate_hz"}),
        ({"raw_high": "many"}, {"raw_high"}),
    ],
)
def test_faults_are_told_by_field(changed: dict, paths: set[str]) -> None:
    _, faults = read(WireSpec, {**WHOLE, **changed})
    assert {fault.path for fault in faults} == paths


def test_a_first_look_tells_what_is_no_pressure_and_what_never_moves() -> None:
    spec, _ = read(WireSpec, WHOLE)
    assert spec is not None
    assert first_look(spec, [4000, 4001, 4000]) is None
    assert first_look(spec, [4000] * 12) == "frozen"
    assert first_look(spec, [4000, 65535]) == "no_pressure"
    assert all(len(said.split(". ")[0].split()) <= 20 for said in PROBLEMS.values())
