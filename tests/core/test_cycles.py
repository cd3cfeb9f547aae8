"""Fill time, starts and the moment of starting against quadrature and numeric search."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.optimize import brentq, minimize_scalar

from zerodip.kinds.water.pumps import Pump, RatedPoint
from zerodip.physics.bladder_tank import Bank, Vessel, pressure_abs_pa, water_m3
from zerodip.physics.cycle_rate import period_s, starts_per_s, worst_draw
from zerodip.physics.fill import fill_seconds
from zerodip.physics.pump_delivery import flow_m3_s
from zerodip.physics.start_dip import largest_pre_charge_abs_pa, lowest_abs_pa, reserve_m3
from zerodip.units import PSI

from .systems import (
    CONSTANT,
    CURVE,
    GAL,
    GPM,
    PUMPS,
    RATED,
    SEA_LEVEL,
    figures,
    plant,
    settings,
    system,
)

ALL = pytest.mark.parametrize("pump", PUMPS.values(), ids=PUMPS)


@ALL
@pytest.mark.parametrize("draw", [0.0, 2.0, 4.5])
def test_fill_time_is_the_integral(pump: Pump, draw: float) -> None:
    made = plant(pump)

    def slowness(water: float) -> float:
        gauge = pressure_abs_pa(made.bank, water) - SEA_LEVEL
        return 1 / (flow_m3_s(made.line, gauge) - draw * GPM)

    exact = quad(slowness, made.on_m3, made.off_m3, epsrel=1e-6, limit=400)[0]
    assert fill_seconds(made.fill, made.on_m3, made.off_m3, draw * GPM) == pytest.approx(
        exact, rel=5e-4
    )


@ALL
def test_the_worst_draw_is_what_a_search_finds(pump: Pump) -> None:
    made = plant(pump)
    ends = made.on_m3, made.off_m3
    most = made.fill.flows_m3_s[-1]
    found = minimize_scalar(
        lambda d: period_s(made.fill, *ends, d),
        bounds=(1e-9, most * (1 - 1e-9)),
        method="bounded",
        options={"xatol": 1e-10},
    )
    worst = worst_draw(made.fill, *ends)
    assert worst is not None
    assert worst.draw_m3_s == pytest.approx(found.x, rel=1e-3)
    assert worst.starts_per_s == pytest.approx(1 / found.fun, rel=1e-7)


def test_a_constant_flow_starts_most_at_half_of_it() -> None:
    """N = Q/(4 D), the sump-sizing law (ANSI/HI 9.8, from memory)."""
    made = plant()
    drawdown = made.off_m3 - made.on_m3
    worst = worst_draw(made.fill, made.on_m3, made.off_m3)
    assert worst is not None
    assert worst.draw_m3_s == pytest.approx(5 * GPM, rel=1e-6)
    assert worst.starts_per_s == pytest.approx(10 * GPM / (4 * drawdown), rel=1e-9)


def test_near_dead_head_the_flow_at_cut_in_overstates_the_starts_badly() -> None:
    """A trap: Q/(4 D) with the flow at cut-in, where the pump has nearly come to a stand at
    cut-out."""
    made = plant(RATED, cut_in=50, cut_out=83)
    worst = worst_draw(made.fill, made.on_m3, made.off_m3)
    assert worst is not None
    assert (
        flow_m3_s(made.line, 50 * PSI) / (4 * (made.off_m3 - made.on_m3)) > 1.5 * worst.starts_per_s
    )


def test_at_or_over_dead_head_the_pump_never_gets_there() -> None:
    made = plant(RATED, cut_in=60, cut_out=90)
    assert fill_seconds(made.fill, made.on_m3, made.off_m3) == math.inf
    assert worst_draw(made.fill, made.on_m3, made.off_m3) is None
    assert starts_per_s(made.fill, made.on_m3, made.off_m3, 2 * GPM) == 0


@pytest.mark.parametrize("draw", [0.0, 10.5])
def test_without_a_draw_or_with_more_than_the_pump_gives_nothing_cycles(draw: float) -> None:
    made = plant()
    assert starts_per_s(made.fill, made.on_m3, made.off_m3, draw * GPM) == 0


@given(
    tanks=st.lists(st.tuples(st.floats(2, 120), st.floats(0.05, 1.5)), min_size=1, max_size=4),
    need=st.floats(0.01, 60),
)
def test_the_largest_pre_charge_holds_back_exactly_the_need(
    tanks: list[tuple[float, float]], need: float
) -> None:
    """Found by scipy's root finder on the tanks' own law, acceptance included; none where all
    bladders together cannot hold it."""
    cut_in = 40 * PSI + SEA_LEVEL
    sizes = [(v * GAL, v * share * GAL if share < 1 else math.inf) for v, share in tanks]

    def held(charge: float) -> float:
        return water_m3(Bank(tuple(Vessel(v, charge, a) for v, a in sizes)), cut_in)

    largest = largest_pre_charge_abs_pa(sizes, cut_in, need * GAL)
    if held(1.0) <= need * GAL:
        assert largest is None or largest < 100.0
    else:
        root = brentq(lambda c: held(c) - need * GAL, 1.0, cut_in, xtol=1e-6)
        assert largest == pytest.approx(root, rel=1e-6)


def test_the_lowest_pressure_lies_on_the_tanks_line_until_it_is_empty() -> None:
    bank, cut_in = Bank((Vessel(20 * GAL, 38 * PSI + SEA_LEVEL),)), 40 * PSI + SEA_LEVEL
    held = reserve_m3(bank, cut_in)
    assert lowest_abs_pa(bank, cut_in, held / 2, SEA_LEVEL) == pytest.approx(
        pressure_abs_pa(bank, held / 2)
    )
    assert lowest_abs_pa(bank, cut_in, held * 1.01, SEA_LEVEL) == SEA_LEVEL
    above = Bank((Vessel(20 * GAL, 45 * PSI + SEA_LEVEL),))
    assert lowest_abs_pa(above, cut_in, 0.1 * GAL, SEA_LEVEL) == SEA_LEVEL


bands = st.tuples(st.floats(15, 60), st.floats(5, 40), st.floats(0.2, 12))


@given(band=bands, more=st.floats(0.01, 5), pump=st.sampled_from([CONSTANT, CURVE]))
def test_more_pre_charge_never_raises_the_reserve_nor_the_worst_period(
    band: tuple[float, float, float], more: float, pump: Pump
) -> None:
    cut_in, width, below = band
    less, fuller = (
        plant(pump, cut_in=cut_in, cut_out=cut_in + width, air=cut_in - below + x)
        for x in (0, more)
    )
    assert fuller.on_m3 <= less.on_m3
    for made in (less, fuller):
        assert 0 <= made.off_m3 - made.on_m3 < made.bank.volume_m3
        worst = worst_draw(made.fill, made.on_m3, made.off_m3)
        if worst is not None:
            assert worst.starts_per_s >= starts_per_s(
                made.fill, made.on_m3, made.off_m3, worst.draw_m3_s * 0.8
            )


@pytest.mark.parametrize("below", [5.0, 1.0, 0.3, 0.1, 0.03])
def test_a_run_close_to_the_top_of_the_curve_is_right_to_one_percent(below: float) -> None:
    """A parabola through 10 gpm at 40 psi that stands at 62: the run by scipy's quadrature over
    u² = 62 − p, which has no singularity."""
    pump = RatedPoint(flow_m3_s=10 * GPM, gauge_pa=40 * PSI, dead_head_gauge_pa=62 * PSI)
    made = figures(system(pump=pump), settings(40, 62 - below))
    charge, top = 44 * GAL * (38 * PSI + SEA_LEVEL), 62 * PSI
    k = 10 * GPM / math.sqrt(22 * PSI)
    exact = quad(
        lambda u: 2 * charge / ((top - u * u + SEA_LEVEL) ** 2 * k),
        math.sqrt(below * PSI),
        math.sqrt(22 * PSI),
    )[0]
    assert made.run_s == pytest.approx(exact, rel=1e-2)
