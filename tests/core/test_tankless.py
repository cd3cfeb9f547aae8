"""The tankless window against scipy's roots, and the traps of small taps and accumulators."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.optimize import brentq

from zerodip.decide.judge import decide
from zerodip.fileformat.fields import read
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Settings
from zerodip.kinds.tankless.figures import TanklessFigures
from zerodip.kinds.tankless.model import DemandPump, PressurePoint, TanklessSystem
from zerodip.units import PSI

from .systems import GPM, SEA_LEVEL, tankless


def settings(cut_in: float = 35, cut_out: float = 46, air: float | None = None) -> Settings:
    charge = None if air is None else air * PSI
    return Settings(
        cut_in_gauge_pa=cut_in * PSI, cut_out_gauge_pa=cut_out * PSI, pre_charge_gauge_pa=charge
    )


def figures(system: TanklessSystem | None = None, at: Settings | None = None) -> TanklessFigures:
    made = figures_for(system or tankless(), at or settings())
    assert isinstance(made, TanklessFigures)
    return made


@pytest.mark.parametrize("volts", [(11.0, 12.0), (11.6, 13.8), (12.0, 14.4)])
@pytest.mark.parametrize("gpm", [0.4, 1.0, 1.8, 3.0])
@pytest.mark.parametrize("idle_v", [0.0, 1.5])
def test_a_diaphragm_pump_is_a_torque_balance(
    gpm: float, volts: tuple[float, float], idle_v: float
) -> None:
    """A permanent-magnet motor: torque k·I with I = (U − k·ω)/R against a·p + idling, flow d·ω. Put
    to scipy's root finder with constants of its own; the core is told the curve at 12 V and the
    dead-head at 13 V."""
    k_e, ohm, per_pa, per_rad = 0.03, 0.4, 1.2e-6, 2.0e-7
    idle_nm = k_e * idle_v / ohm

    def pressure(flow: float, u: float) -> float:
        return (k_e * (u - k_e * flow / per_rad) / ohm - idle_nm) / per_pa

    def flow(gauge: float, u: float) -> float:
        return per_rad * (u - (per_pa * gauge + idle_nm) * ohm / k_e) / k_e

    points = (
        PressurePoint(flow_m3_s=0.0, gauge_pa=pressure(0.0, 12)),
        PressurePoint(flow_m3_s=flow(0.0, 12), gauge_pa=0.0),
    )
    pump = DemandPump(points=points, second_v=13.0, second_dead_head_gauge_pa=pressure(0.0, 13))
    made = figures(tankless(gpm, volts, pump=pump))
    assert made.intercept_v == pytest.approx(idle_v, abs=1e-9)
    assert made.dead_head_pa == pytest.approx(pressure(0.0, volts[0]), rel=1e-9)
    k = gpm * GPM / (20 * PSI) ** 0.5
    exact = brentq(lambda p: flow(p, volts[1]) - k * p**0.5, 1.0, pressure(0.0, volts[1]))
    assert made.running_pa == pytest.approx(exact, rel=1e-8)


def test_a_centrifugal_pump_keeps_the_affinity_laws() -> None:
    """Flow with U, pressure with U² (physics)."""
    points = tankless().pump.points
    made = figures(tankless(pump=DemandPump(points=points, works="centrifugal")))
    assert made.dead_head_pa == pytest.approx(58 * PSI * (11.6 / 12) ** 2)
    assert made.curve.flow_m3_s(31 * PSI * 1.15**2, 13.8) == pytest.approx(2 * GPM * 1.15)


@pytest.mark.parametrize(("volts", "psi"), [(13.0, 57.0), (11.0, 60.0), (13.0, None), (13.0, 58.5)])
def test_a_second_dead_head_that_cannot_be_is_refused(volts: float, psi: float | None) -> None:
    """58 psi at 12 V: at 13 V it is at least 62.8 without anything lost, and never less."""
    raw = {
        "points": [{"flow_m3_s": 0, "gauge_pa": 58 * PSI}, {"flow_m3_s": GPM, "gauge_pa": 4e5 / 2}],
        "second_v": volts,
        "second_dead_head_gauge_pa": None if psi is None else psi * PSI,
    }
    made, faults = read(DemandPump, raw)
    assert made is None
    assert "second_dead_head_gauge_pa" in {fault.path for fault in faults}


@given(gpm=st.floats(0.05, 4), low=st.floats(10, 12), span=st.floats(0, 4))
def test_no_window_is_a_tap_that_passes_less_than_the_pump_gives_at_the_low_dead_head(
    gpm: float, low: float, span: float
) -> None:
    """The two ways of saying it agree: running pressure above the low-battery dead-head, or the tap
    outrun there."""
    made = figures(tankless(gpm, (low, low + span)))
    if abs(made.running_pa - made.dead_head_pa) > 10:
        assert (made.running_pa > made.dead_head_pa) == (
            made.outlet_there_m3_s < made.least_outlet_m3_s
        )


def test_inside_the_window_it_runs_through_and_outside_it_is_said_what_happens() -> None:
    """Cut-out 46 psi in a window of 35.5–55.1; above never stops on a low battery, below
    chatters."""
    assert decide(tankless(), settings()).verdict == "cannot_tell"
    over = {f.rule: f.verdict for f in decide(tankless(), settings(45, 56)).findings}
    assert over["cut-out-stops"] == "stop"
    under = {f.rule: f.verdict for f in decide(tankless(), settings(25, 34)).findings}
    assert under["cut-out-steady"] == "caution"
    assert under["pulse-rate"] == "caution"


def test_an_accumulator_slows_the_pulses_and_does_nothing_above_cut_out() -> None:
    bare = figures(tankless(0.4), settings(35, 46))
    small = figures(tankless(0.4, litres=0.75), settings(35, 46, 32))
    large = figures(tankless(0.4, litres=2), settings(35, 46, 32))
    above = figures(tankless(0.4, litres=2), settings(35, 46, 46))
    assert bare.pulses_per_s == above.pulses_per_s == float("inf")
    assert small.pulses_per_s == pytest.approx(large.pulses_per_s * 2 / 0.75, rel=1e-6)


def test_a_pulse_is_the_integral_of_what_comes_and_goes() -> None:
    """dW = V·c/p² dp (gas law), put to scipy's quadrature."""
    made = figures(tankless(0.4, litres=1), settings(35, 46, 32))
    charge = 1e-3 * (32 * PSI + SEA_LEVEL)

    def seconds(net: bool) -> float:
        def slowness(p: float) -> float:
            out = made.smallest_k * p**0.5
            flow = made.curve.flow_m3_s(p, 13.8) - out if net else out
            return float(charge / (p + SEA_LEVEL) ** 2 / flow)

        return float(quad(slowness, 35 * PSI, 46 * PSI, points=[45 * PSI])[0])

    assert made.pulse_s is not None
    assert made.pulse_s[0] == pytest.approx(seconds(True), rel=2e-3)
    assert made.pulse_s[1] == pytest.approx(seconds(False), rel=2e-3)


def test_the_picture_holds_the_window() -> None:
    shown = decide(tankless(), settings()).chart
    assert shown is not None
    assert shown.has_window
    assert shown.caption == "Cut-out between 35.5 psi and 55.1 psi."
    assert [p.volts for p in shown.points] == sorted(p.volts for p in shown.points)
    assert all(p.running_gauge_pa < p.dead_head_gauge_pa for p in shown.points)
    assert shown.grips["cut_out"].takes_along == "cut_in"
    assert "No cut-out works" in decide(tankless(0.4), settings()).chart.caption


def test_pulses_beside_the_bound_are_few() -> None:
    """Where the smallest outlet nearly balances the pump at cut-out, the last of a fill takes its
    time."""
    top = figures(tankless()).running_pa
    for short in (0.02, 0.2, 1.0):
        at = Settings(
            cut_in_gauge_pa=top - 8 * PSI,
            cut_out_gauge_pa=top - short * PSI,
            pre_charge_gauge_pa=top - 15 * PSI,
        )
        of = figures(tankless(litres=1), at)
        charge = top - 15 * PSI + SEA_LEVEL

        def filled(gauge: float, of: TanklessFigures = of, charge: float = charge) -> float:
            out = of.smallest_k * gauge**0.5
            gives = charge * 0.001 / (gauge + SEA_LEVEL) ** 2
            return float(gives * (1 / (of.curve.flow_m3_s(gauge, of.most_v) - out) + 1 / out))

        so = quad(filled, of.cut_in_pa, of.cut_out_pa, limit=400)[0]
        assert of.pulses_per_s == pytest.approx(1 / so, rel=0.02)
