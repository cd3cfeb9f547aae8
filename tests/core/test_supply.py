"""Plain tanks, boosted supplies, highest taps, lost tanks, temperature: figures against roots,
`fluids` and the gas law."""

import fluids
import pytest
from scipy.optimize import brentq

from zerodip.decide.judge import decide
from zerodip.kinds.parts import Pipe, SiteConditions
from zerodip.kinds.results import results_of
from zerodip.kinds.water.model import Demand, Found, Tank
from zerodip.kinds.water.pumps import RatedPoint
from zerodip.kinds.water.results import RESULTS
from zerodip.physics.atmosphere import GRAVITY, WATER_DENSITY
from zerodip.physics.bladder_tank import Bank, water_m3
from zerodip.physics.motors import starts_per_hour_limit
from zerodip.physics.plain_tank import charge_abs_pa, vessel_above_zero
from zerodip.physics.pump_delivery import flow_m3_s
from zerodip.text.writer import Writer
from zerodip.units import PSI, to_si

from .systems import GAL, GPM, SEA_LEVEL, figures, settings, system


@pytest.mark.parametrize("charge", [0.3, 0.7, 1.0, 2.0])
def test_a_plain_tank_gives_what_its_air_lets_out(charge: float) -> None:
    """From the gas law on the air alone: its volume at p is V·c/p; water is what it leaves, above
    gauge zero."""

    def air(p_abs: float) -> float:
        return float(min(charge * SEA_LEVEL / p_abs, 1.0))

    bank = Bank((vessel_above_zero(1.0, charge * SEA_LEVEL, SEA_LEVEL),))
    for low, high in ((0, 20), (30, 50), (20, 40)):
        p, q = low * PSI + SEA_LEVEL, high * PSI + SEA_LEVEL
        assert water_m3(bank, q) - water_m3(bank, p) == pytest.approx(air(p) - air(q), abs=1e-12)


def test_a_plain_tank_at_30_50_gives_a_tenth() -> None:
    """Common practice, no source: a plain tank started from the atmosphere gives about a tenth of
    its volume at 30/50."""
    made = figures(system(kind="well_air"), settings(30, 50, 0))
    assert made.drawdown_m3 / (44 * GAL) == pytest.approx(0.10, abs=0.015)
    assert (
        figures(
            system(kind="well_air", site=SiteConditions(altitude_m=2000)), settings(30, 50, 0)
        ).drawdown_m3
        < made.drawdown_m3
    )


@pytest.mark.parametrize("left", [0.2, 0.46, 0.9])
def test_the_bucket_test_gives_back_the_air_that_is_left(left: float) -> None:
    """Caught water made from a known amount of air; the root of the law must find that amount
    again."""
    low, high = 30 * PSI + SEA_LEVEL, 50 * PSI + SEA_LEVEL
    caught = 44 * GAL * left * SEA_LEVEL * (1 / low - 1 / high)
    exact = brentq(lambda c: 44 * GAL * c * (1 / low - 1 / high) - caught, 1.0, 1e6)
    assert charge_abs_pa(44 * GAL, caught, low, high) == pytest.approx(exact, rel=1e-9)
    found = Found(cut_in_gauge_pa=30 * PSI, cut_out_gauge_pa=50 * PSI, caught_m3=caught)
    made = figures(system(kind="well_air", found=found), settings(30, 50, 0))
    assert made.air_left == pytest.approx(left)
    assert made.drawdown_m3 == pytest.approx(caught)
    assert made.regained_m3 == pytest.approx(caught * (1 / left - 1))
    renewed = figures(
        made.system,
        settings(30, 50, 0).__class__(**{**vars(settings(30, 50, 0)), "air_renewed": True}),
    )
    assert renewed.drawdown_m3 == pytest.approx(caught / left)


def test_the_ribbon_of_a_waterlogged_tank_shows_the_smaller_band_and_the_one_to_regain() -> None:
    found = Found(cut_in_gauge_pa=30 * PSI, cut_out_gauge_pa=50 * PSI, caught_m3=2 * GAL)
    shown = decide(system(kind="well_air", found=found), settings(30, 50, 0)).chart
    assert shown is not None
    assert shown.cut_out.held_m3 - shown.cut_in.held_m3 == pytest.approx(2 * GAL)
    assert shown.ghost[0].held_m3 - shown.ghost[1].held_m3 == pytest.approx(
        figures(system(kind="well_air"), settings(30, 50, 0)).drawdown_m3
    )
    assert shown.grips["pre_charge"].least_reason.startswith(
        "The air is as the bucket test found it"
    )


def test_what_is_left_when_the_better_tank_loses_its_air() -> None:
    both = system(tanks=(Tank(volume_m3=44 * GAL), Tank(volume_m3=20 * GAL)))
    told = {a.id: a for a in decide(both, settings()).results}
    assert told["one_lost"].value == pytest.approx(figures(system(gallons=20)).drawdown_m3)
    assert "one_lost" not in {a.id for a in decide(system(), settings()).results}


def test_an_inlet_lifts_the_whole_line_of_a_rated_pump() -> None:
    pump = RatedPoint(flow_m3_s=10 * GPM, gauge_pa=30 * PSI, dead_head_gauge_pa=60 * PSI)
    lifted = RatedPoint(
        flow_m3_s=10 * GPM, gauge_pa=30 * PSI, inlet_gauge_pa=15 * PSI, dead_head_gauge_pa=75 * PSI
    )
    for psi in (25, 30, 45, 57):
        assert flow_m3_s(lifted.delivery(), (psi + 15) * PSI) == pytest.approx(
            flow_m3_s(pump.delivery(), psi * PSI), rel=3e-3
        )


def test_the_highest_tap_loses_height_and_friction() -> None:
    """Height: 25 ft take about 11 psi (common practice, no source). Friction against fluids'
    Hazen–Williams."""
    bare = figures(system(demand=Demand(highest_tap_m=to_si(25, "ft"))))
    assert bare.tap_pa == pytest.approx((40 - 10.8) * PSI, rel=0.01)
    pipe = Pipe(length_m=40, diameter_m=0.02, c_factor=140)
    long = figures(
        system(demand=Demand(highest_tap_m=0, peak_draw_m3_s=6 * GPM, highest_tap_pipe=pipe))
    )
    velocity = 6 * GPM / (3.14159265 * 0.01**2)
    slope = (velocity / (0.849 * 140 * (0.02 / 4) ** 0.63)) ** (1 / 0.54)
    assert long.tap_friction_pa == pytest.approx(slope * 40 * WATER_DENSITY * GRAVITY, rel=0.01)
    darcy = (
        fluids.friction.friction_factor(Re=velocity * 0.02 / 1.14e-6, eD=1.5e-6 / 0.02)
        * 40
        / 0.02
        * velocity**2
        / 2
        / GRAVITY
    )
    assert long.tap_friction_pa == pytest.approx(darcy * WATER_DENSITY * GRAVITY, rel=0.12)


@pytest.mark.parametrize(("now", "mean"), [(280.0, 288.0), (300.0, 288.0), (288.0, 288.0)])
def test_what_to_set_today_is_right_at_the_seasons_mean(now: float, mean: float) -> None:
    """Gas law at constant volume: set today, carried to the mean, it must read the pre-charge."""
    made = figures(
        system(site=SiteConditions(now_k=now, mean_k=mean, coldest_k=275.0, warmest_k=303.0))
    )
    assert made.today_pa is not None
    assert (made.today_pa + SEA_LEVEL) * mean / now - SEA_LEVEL == pytest.approx(38 * PSI)
    told = {a.id: a for a in results_of(RESULTS, made, Writer(made, "us"))}["today"]
    assert told.note.endswith("over the year")
    assert made.coldest_pa is not None
    assert made.warmest_pa is not None
    assert made.coldest_pa < 38 * PSI < made.warmest_pa


def test_starts_an_hour_by_power() -> None:
    """NEMA MG 10 for two-pole motors, from memory: 1 hp 15, 2 hp 11.5, 5 hp 8.1; between entries
    straight in logarithms."""
    hp = 745.69987158227
    assert [round(3600 * starts_per_hour_limit(p * hp, "surface"), 1) for p in (0.5, 1, 2, 5)] == [
        15,
        15,
        11.5,
        8.1,
    ]
    assert 9.9 < 3600 * starts_per_hour_limit(2.5 * hp, "surface") < 11.5
    assert 3600 * starts_per_hour_limit(hp, "submersible") == pytest.approx(30)
    assert 3600 * starts_per_hour_limit(40 * hp, "surface") == pytest.approx(4.8)
