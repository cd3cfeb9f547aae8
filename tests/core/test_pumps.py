"""The pump's line against scipy's interpolation and root finding on the exact curve."""

import numpy as np
import pytest
from scipy.interpolate import PchipInterpolator
from scipy.optimize import brentq

from zerodip.kinds.water.pumps import RatedPoint
from zerodip.physics.atmosphere import head_pa
from zerodip.physics.pump_curve import head_m, slopes
from zerodip.physics.pump_delivery import balance_gauge_pa, curve_gauge_pa, flow_m3_s
from zerodip.units import PSI

from .systems import CONSTANT, CURVE, GPM, RATED

CURVES = [
    ([0, 5, 10, 15], [85, 78, 62, 40]),
    ([0, 1, 10], [50, 49.9, 10]),
    ([0, 8], [60, 20]),
]


@pytest.mark.parametrize(("flows", "heads"), CURVES[:2])
def test_the_curve_is_scipys_monotone_cubic(flows: list[float], heads: list[float]) -> None:
    reference, at_points = PchipInterpolator(flows, heads), slopes(flows, heads)
    for flow in np.linspace(0, flows[-1], 57):
        assert head_m(float(flow), flows, heads, at_points) == pytest.approx(
            float(reference(flow)), rel=1e-12
        )


def test_two_points_make_a_straight_line() -> None:
    flows, heads = CURVES[2]
    assert head_m(2, flows, heads, slopes(flows, heads)) == pytest.approx(50)
    assert head_m(9, flows, heads, slopes(flows, heads)) == 20


@pytest.mark.parametrize("psi", [40, 55, 70, 85])
def test_flow_at_a_pressure_is_the_root_of_the_exact_curve(psi: float) -> None:
    exact = brentq(lambda q: curve_gauge_pa(CURVE.curve, q) - psi * PSI, 0, 15 * GPM, xtol=1e-15)
    assert flow_m3_s(CURVE.delivery(), psi * PSI) == pytest.approx(exact, rel=1e-3)


def test_dead_head_is_shut_off_head_less_lift() -> None:
    assert CURVE.delivery().dead_head_gauge_pa == pytest.approx(head_pa(85 - 20))
    assert flow_m3_s(CURVE.delivery(), head_pa(65.001)) == 0
    assert flow_m3_s(CURVE.delivery(), 0) == pytest.approx(15 * GPM)


def test_a_rated_point_lies_on_its_line() -> None:
    line = RATED.delivery()
    assert flow_m3_s(line, 50 * PSI) == pytest.approx(10 * GPM, rel=1e-3)
    assert line.dead_head_gauge_pa == 85 * PSI
    exact = 10 * GPM * ((85 - 70) / (85 - 50)) ** 0.5
    assert flow_m3_s(line, 70 * PSI) == pytest.approx(exact, rel=1e-3)


def test_without_a_measured_dead_head_the_shape_is_assumed_and_not_reported() -> None:
    """Single-point curve: shut-off head 4/3 of the rated total head, flow to twice the rated
    (EPANET 2 Users Manual, from memory)."""
    line = RatedPoint(flow_m3_s=10 * GPM, gauge_pa=50 * PSI, lift_m=0).delivery()
    assert line.dead_head_gauge_pa is None
    assert line.assumed
    assert line.gauges_pa[-1] == pytest.approx(50 * PSI * 4 / 3)
    assert line.flows_m3_s[0] == pytest.approx(20 * GPM)


@pytest.mark.parametrize("pump", [RATED, CURVE])
def test_an_open_tap_holds_the_pump_where_it_delivers_as_much(pump: RatedPoint) -> None:
    line = pump.delivery()
    held = balance_gauge_pa(line, 8 * GPM)
    assert flow_m3_s(line, held) == pytest.approx(8 * GPM, rel=1e-6)
    assert balance_gauge_pa(line, 40 * GPM) == 0
    assert balance_gauge_pa(CONSTANT.delivery(), 8 * GPM) == 0
