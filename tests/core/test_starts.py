"""Starts and a peak draw that goes on, and tanks whose pressure changes fast, against a simulation
by scipy that shares no formula with the core."""

import math
from typing import Literal

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from zerodip.decide.judge import decide
from zerodip.decide.size import Target, sizing
from zerodip.kinds.parts import SiteConditions, Switch
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Practice
from zerodip.kinds.water.model import Demand, Tank
from zerodip.kinds.water.pumps import ConstantFlow, CurvePoint, HeadCurve, Pump, RatedPoint
from zerodip.units import PSI

from .systems import GAL, GPM, SEA_LEVEL, system
from .systems import settings as psi_settings

WATER_PA_PER_M = 9806.65 * 0.999  # water at 15 °C, the IAPWS density to a thousandth


class Air:
    """One tank by its air: at rest at cut-in the room's temperature, p·v^n from there."""

    def __init__(self, volume: float, charge: float, rest: float, n: float) -> None:
        self.volume, self.n = volume, n
        self.rest = max(rest, charge)
        self.air = volume if charge >= rest else volume * charge / rest

    def held(self) -> float:
        return self.volume - self.air

    def pressure(self, taken: float) -> float:
        """Absolute pressure once `taken` has left the tank (never less)."""
        taken = max(taken, 0.0)
        return self.rest * (self.air / (self.air + taken)) ** self.n


def flow(pump: Pump, gauge: float) -> float:
    """The pump's flow at a gauge pressure: constant, or the parabola of a two-point curve."""
    if isinstance(pump, ConstantFlow):
        return pump.flow_m3_s
    shut, far = pump.points
    head = max(shut.head_m - gauge / WATER_PA_PER_M, 0.0)
    return far.flow_m3_s * math.sqrt(head / (shut.head_m - far.head_m))


def dry_after(tank: Air, pump: Pump, draw: float) -> tuple[float, float]:
    """Seconds until the tank is empty at a steady draw (infinity: not within two hours), and the
    lowest gauge pressure until then."""

    def change(t: float, y: list[float]) -> list[float]:
        ramp = min(max((t - pump.start_lag_s) / pump.ramp_s, 0.0), 1.0)
        return [draw - ramp * flow(pump, tank.pressure(y[0]) - SEA_LEVEL)]

    def empty(_: float, y: list[float]) -> float:
        return tank.held() - y[0]

    empty.terminal = True  # type: ignore[attr-defined]
    lag, ramped = pump.start_lag_s, pump.start_lag_s + pump.ramp_s
    taken, lowest = 0.0, math.inf
    for span in ((0, lag), (lag, ramped), (ramped, 7200)):
        if span[0] == ramped and change(ramped, [taken])[0] <= 0:
            break  # the pump has caught up, and fills
        leg = solve_ivp(change, span, [taken], events=empty, method="LSODA", rtol=1e-7, atol=1e-10)
        lowest = min(lowest, *(tank.pressure(each) - SEA_LEVEL for each in leg.y[0]))
        if leg.t_events[0].size:
            return float(leg.t_events[0][0]), lowest
        taken = float(leg.y[0][-1])
    return math.inf, lowest


@given(
    gallons=st.floats(4, 120),
    below=st.floats(0.5, 12),
    pump_gpm=st.floats(3, 20),
    draw_gpm=st.floats(1, 25),
    lag=st.floats(0.2, 6),
    ramp=st.floats(0.05, 5),
    n=st.floats(1, 1.4),
    curve=st.booleans(),
)
@settings(max_examples=80, deadline=None)
def test_no_dip_is_never_said_where_the_tank_runs_dry(
    gallons: float,
    below: float,
    pump_gpm: float,
    draw_gpm: float,
    lag: float,
    ramp: float,
    n: float,
    curve: bool,
) -> None:
    points = (
        CurvePoint(flow_m3_s=0, head_m=60),
        CurvePoint(flow_m3_s=2 * pump_gpm * GPM, head_m=5),
    )
    pump: Pump = (
        HeadCurve(points=points, start_lag_s=lag, ramp_s=ramp)
        if curve
        else ConstantFlow(flow_m3_s=pump_gpm * GPM, start_lag_s=lag, ramp_s=ramp)
    )
    of = system(
        pump=pump,
        gallons=gallons,
        demand=Demand(peak_draw_m3_s=draw_gpm * GPM),
        switch=Switch(low_pressure_cut_off=True),
    )
    at, practice = psi_settings(40, 60, 40 - below), Practice(gas_exponent=n)
    figures = figures_for(of, at, practice)
    said = {finding.rule: finding.verdict for finding in decide(of, at, practice).findings}
    tank = Air(gallons * GAL, (40 - below) * PSI + SEA_LEVEL, 40 * PSI + SEA_LEVEL, n)
    seconds, lowest = dry_after(tank, pump, draw_gpm * GPM)
    if said["start-dip"] == said["keeps-up"] == "pass":
        assert math.isinf(seconds)
        assert figures.start_lowest_pa <= lowest + 0.05 * PSI
    if math.isfinite(seconds) and seconds > lag + 1.01 * ramp and not figures.starts_empty:
        assert said["keeps-up"] == "caution"
    if math.isfinite(seconds) and figures.starts_empty and not curve:
        assert seconds <= lag + 1.01 * ramp
    if said["low-pressure-trip"] == said["keeps-up"] == "pass":
        assert lowest > 30 * PSI - 0.05 * PSI


@pytest.mark.parametrize(("n", "gallons"), [(1.0, 7.2), (1.4, 5.4)])
def test_a_fast_fill_begins_at_cut_in(n: float, gallons: float) -> None:
    """By hand: a plain 100 gal tank at 40/60 has 100 · 14.7/54.7 = 26.9 gal of air at cut-in;
    26.9 (1 − (54.7/74.7)^(1/n)) goes in."""
    of = system(kind="well_air", tanks=(Tank(volume_m3=100 * GAL),))
    made = figures_for(of, psi_settings(40, 60, 0), Practice(gas_exponent=n))
    assert made.drawdown_m3 / GAL == pytest.approx(gallons, abs=0.06)
    assert made.reserve_m3 == pytest.approx(100 * GAL * (1 - 14.696 / 54.696), rel=1e-4)


def test_where_no_pre_charge_avoids_the_dip_the_advice_says_so() -> None:
    """20 gpm for 5 s out of a 2 gal tank: more than any charge holds back."""
    of = system(
        pump=ConstantFlow(flow_m3_s=25 * GPM, start_lag_s=5.0),
        gallons=2,
        demand=Demand(peak_draw_m3_s=20 * GPM),
    )
    made = decide(of, psi_settings(), sure=True)
    told = next(f for f in made.findings if f.rule == "start-dip")
    assert told.verdict == "stop"
    assert told.remedy.startswith("Add a tank of")
    assert "not known" not in told.remedy


def test_what_to_set_today_so_that_summer_does_not_empty_the_tank() -> None:
    """Gay-Lussac by hand: 52.7 psi absolute at 5 °C is 58.4 at 35 °C, 43.7 by the gauge; 39 by the
    gauge at 35 °C, a gauge's error below cut-in, is 33.8 at 5 °C."""
    site = SiteConditions(mean_k=278.15, warmest_k=308.15, now_k=288.15)
    made = decide(system(site=site), psi_settings(), sure=True)
    told = next(f for f in made.findings if f.rule == "summer-charge")
    assert told.verdict == "stop"
    assert "43.7 psi" in told.figure
    mean = (39 + 14.696) * 278.15 / 308.15 - 14.696
    today = (int(mean) + 14.696) * 288.15 / 278.15 - 14.696
    assert f"to {int(mean)} psi at 41 °F, {today:.1f} psi today at 59 °F" in told.remedy


@pytest.mark.parametrize("kind", ["run", "starts"])
def test_sizes_never_approve_a_pump_that_never_stops(kind: Literal["run", "starts"]) -> None:
    pump = RatedPoint(flow_m3_s=10 * GPM, gauge_pa=40 * PSI, dead_head_gauge_pa=55 * PSI)
    found = sizing(system(pump=pump), psi_settings(), target=Target(kind=kind, value=0.01))
    assert found is not None
    assert not found.meets_now
    assert found.least_m3 is None
    assert not any(size.meets for size in found.instead)


def test_after_a_fast_fill_the_gauge_sags_as_the_air_cools() -> None:
    """By hand, 44 gal at 38 psi, n = 1.4: at cut-in 44 · 52.7/54.7 = 42.4 gal of air; at 60 psi
    42.4 (54.7/74.7)^(1/1.4) = 33.9, which cold stands at 54.7 · 42.4/33.9 = 68.3 − 14.7 = 53.6 psi;
    filled slowly it takes 42.4 (1 − 54.7/74.7) = 11.4 gal."""
    made = figures_for(system(), psi_settings(), Practice(gas_exponent=1.4))
    assert made.cooled_pa / PSI == pytest.approx(53.6, abs=0.1)
    assert made.drawdown_m3 / GAL == pytest.approx(8.5, abs=0.05)
    assert made.slow_drawdown_m3 / GAL == pytest.approx(11.4, abs=0.05)
    told = {each.id: each.note for each in decide(system(), psi_settings()).results}
    assert told["drawdown"] == ""
