"""Propose where a limit stands in the way, against a plain search over a grid of settings."""

import itertools
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from zerodip.decide.options import judged
from zerodip.decide.propose import propose
from zerodip.kinds.compressor.model import AirUse, Receiver
from zerodip.kinds.parts import Relief, Switch, System
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.water.model import Demand, Tank, WaterSystem
from zerodip.kinds.water.pumps import ConstantFlow, RatedPoint
from zerodip.rules.engine import Verdict
from zerodip.units import PSI

from .systems import GAL, GPM, air_settings, compressor, system, tankless
from .systems import settings as psi_settings

FULL = {
    "switch": Switch(earth_present=True, low_pressure_cut_off=False),
    "demand": Demand(
        peak_draw_m3_s=6 * GPM, highest_tap_m=0.0, daily_m3=1.0, pressure_reducer=True
    ),
}


def relief(psi: float) -> Relief:
    return Relief(present=True, setting_gauge_pa=psi * PSI)


def counted(of: WaterSystem, cut_in: float, cut_out: float, air: float | None) -> tuple[int, int]:
    """Stops, and cautions that settings can keep."""
    at = Settings(cut_in_gauge_pa=cut_in, cut_out_gauge_pa=cut_out, pre_charge_gauge_pa=air)
    way = judged(of, at, Practice())
    cautions = [f for f in way.broken if f.verdict is Verdict.CAUTION and f.rule.settable]
    return way.settable(Verdict.STOP), len(cautions)


def test_lower_pressure_is_not_proposed_to_please_a_weak_pump() -> None:
    """A pump that cannot keep up at 30 psi would at 26: the taps gain nothing."""
    pump = RatedPoint(flow_m3_s=8 * GPM, gauge_pa=26 * PSI, dead_head_gauge_pa=84 * PSI)
    demand = Demand(
        peak_draw_m3_s=8 * GPM, highest_tap_m=7.0, wanted_tap_gauge_pa=20 * PSI, daily_m3=0.5
    )
    of = system(pump=pump, gallons=86, relief=relief(90), **{**FULL, "demand": demand})
    proposal = propose(of, psi_settings(30, 50, 38))
    low = proposal.proposed
    said = "No setting fixes: The pump cannot keep up with the peak draw."
    assert any(said in line for line in proposal.why)
    assert low.cut_in_gauge_pa == pytest.approx(30 * PSI)
    assert low.pre_charge_gauge_pa == pytest.approx(28 * PSI)


def test_a_relief_below_cut_out_is_cleared() -> None:
    """50/87 on a relief valve of 75: 50/70 has no stop."""
    proposal = propose(system(relief=relief(75), **FULL), psi_settings(50, 87, 48))
    assert proposal.proposed.stops == 0
    assert proposal.proposed.cut_out_gauge_pa <= 74 * PSI


def test_a_pump_that_stands_at_63_is_given_58() -> None:
    """40/58 has neither a stop nor a caution, where 40/60 is too near a dead-head of 63."""
    pump = RatedPoint(flow_m3_s=10 * GPM, gauge_pa=40 * PSI, dead_head_gauge_pa=63 * PSI)
    of = system(pump=pump, gallons=120, relief=relief(90), **FULL)
    proposal = propose(of, psi_settings(40, 60, 38))
    assert (proposal.proposed.stops, proposal.proposed.cautions) == (0, 0)
    assert proposal.proposed.cut_out_gauge_pa == pytest.approx(58 * PSI)


def test_a_healthy_switch_is_left_alone_and_only_the_air_put_right() -> None:
    of = system(gallons=60, relief=relief(90), **FULL)
    assert propose(of, psi_settings(40, 60, 38)).same
    low = propose(of, psi_settings(40, 60, 26))
    assert (low.proposed.cut_in_gauge_pa, low.proposed.cut_out_gauge_pa) == (
        pytest.approx(40 * PSI),
        pytest.approx(60 * PSI),
    )
    assert low.why[0] == "Leave the switch; set the pre-charge 12 psi higher than it is set."


@given(
    gallons=st.sampled_from([20, 44, 86, 120]),
    flow=st.floats(4, 14),
    dead_head=st.floats(50, 110),
    valve=st.floats(50, 100),
    plate=st.floats(60, 125),
    at=st.sampled_from([(20, 40), (30, 50), (40, 60), (50, 70), (50, 87)]),
)
@settings(max_examples=40, deadline=None)
def test_no_setting_on_a_grid_within_the_practice_is_better(
    gallons: float, flow: float, dead_head: float, valve: float, plate: float, at: tuple[int, int]
) -> None:
    """Cut-in from today's up, the usual differential give or take what the practice allows, and the
    practice's pre-charge: none has fewer stops, or as many and fewer cautions."""
    pump = RatedPoint(flow_m3_s=flow * GPM, gauge_pa=30 * PSI, dead_head_gauge_pa=dead_head * PSI)
    tanks = (Tank(volume_m3=gallons * GAL, max_gauge_pa=plate * PSI),)
    demand = Demand(
        peak_draw_m3_s=3 * GPM,
        highest_tap_m=0.0,
        wanted_tap_gauge_pa=(at[0] - 5) * PSI,
        daily_m3=0.5,
        pressure_reducer=True,
    )
    of = system(pump=pump, tanks=tanks, relief=relief(valve), **{**FULL, "demand": demand})
    best = propose(of, psi_settings(*at, at[0] - 2)).proposed
    found = counted(of, best.cut_in_gauge_pa, best.cut_out_gauge_pa, best.pre_charge_gauge_pa)
    for cut_in, gap in itertools.product(range(at[0] - 5, at[0] + 21, 3), (17, 20, 23)):
        tried = counted(of, cut_in * PSI, (cut_in + gap) * PSI, (cut_in - 2) * PSI)
        assert found <= tried, (cut_in, gap)


def test_the_practice_that_leaves_the_nut_alone_is_kept() -> None:
    of = system(pump=ConstantFlow(flow_m3_s=10 * GPM), relief=relief(75), **FULL)
    alone = propose(of, psi_settings(50, 87, 48), Practice(differential_school="leave"))
    gap = alone.proposed.cut_out_gauge_pa - alone.proposed.cut_in_gauge_pa
    assert gap == pytest.approx(37 * PSI)


def standing(of: System, at: Settings) -> tuple[int, bool, int]:
    """Stops, whether the wanted pressure is missed, and cautions that settings can keep."""
    way, floor_pa = judged(of, at, Practice()), kind_of(of).proposing.floor_pa
    cautions = [f for f in way.broken if f.verdict is Verdict.CAUTION and f.rule.settable]
    missed = at.cut_in_gauge_pa < floor_pa(figures_for(of, at)) - 1
    return way.settable(Verdict.STOP), missed, len(cautions)


def _taken(of: System, at: Settings) -> Settings:
    best = propose(of, at).proposed
    return replace(
        at,
        cut_in_gauge_pa=best.cut_in_gauge_pa,
        cut_out_gauge_pa=best.cut_out_gauge_pa,
        pre_charge_gauge_pa=best.pre_charge_gauge_pa,
    )


@given(
    low=st.integers(80, 130),
    gap=st.sampled_from([15, 20, 25, 35, 45]),
    valve=st.floats(110, 200),
    plate=st.floats(110, 200),
    wanted=st.floats(70, 120),
    nuts=st.sampled_from(["one", "two"]),
)
@settings(max_examples=12, deadline=None)
def test_no_band_of_a_compressor_is_better(
    low: int, gap: int, valve: float, plate: float, wanted: float, nuts: str
) -> None:
    """Of those that give the tools what they need, in the differentials that the switch has."""
    of = compressor(
        receivers=(Receiver(volume_m3=60 * GAL, max_gauge_pa=plate * PSI),),
        relief=relief(valve),
        switch=Switch(nuts=nuts, earth_present=True),
        use=AirUse(use_m3_s=2e-3, wanted_gauge_pa=wanted * PSI),
    )
    best = standing(of, _taken(of, air_settings(low, low + gap)))
    gaps = (gap,) if nuts == "one" else (20, 25, 30, 35)
    for cut_in, width in itertools.product(range(int(wanted) + 1, 170, 3), gaps):
        assert best <= standing(of, air_settings(cut_in, cut_in + width)), (cut_in, width)


@given(
    outlet=st.floats(0.2, 3),
    volts=st.tuples(st.floats(10.5, 12), st.floats(12.5, 14.5)),
    litres=st.sampled_from([0, 1.0]),
    low=st.integers(10, 45),
    gap=st.sampled_from([4, 8, 12]),
    nuts=st.sampled_from(["one", "two"]),
)
@settings(max_examples=12, deadline=None)
def test_no_points_of_a_tankless_pump_from_today_s_up_are_better(
    outlet: float, volts: tuple[float, float], litres: float, low: int, gap: int, nuts: str
) -> None:
    of = tankless(outlet, volts, litres, 150, switch=Switch(nuts=nuts))
    taken = _taken(of, psi_settings(low, low + gap, low - 2))
    if nuts == "one":
        assert taken.cut_out_gauge_pa - taken.cut_in_gauge_pa == pytest.approx(gap * PSI)
    best, gaps = standing(of, taken), (gap,) if nuts == "one" else range(5, 16, 2)
    for cut_in, width in itertools.product(range(low, 65, 2), gaps):
        tried = psi_settings(cut_in, cut_in + width, cut_in - 2)
        assert best <= standing(of, tried), (cut_in, width)
