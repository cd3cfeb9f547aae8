"""Air, water's weight and pipe friction against the `fluids` library and published anchors."""

import pytest
from fluids import ATMOSPHERE_1976
from fluids.core import Reynolds
from fluids.friction import friction_factor

from zerodip.physics.atmosphere import GRAVITY, WATER_DENSITY, head_pa, pressure_abs_pa
from zerodip.physics.friction import friction_head_m
from zerodip.units import PSI, to_si


@pytest.mark.parametrize("altitude", [-300, 0, 240, 701, 1600, 3000, 5500])
def test_the_atmosphere_is_that_of_the_1976_standard(altitude: float) -> None:
    assert pressure_abs_pa(altitude) == pytest.approx(ATMOSPHERE_1976(altitude).P, rel=1e-3)


def test_a_tap_25_feet_up_sees_11_psi_less() -> None:
    """Common practice, no source: 0.433 psi a foot."""
    assert head_pa(to_si(1, "ft")) / PSI == pytest.approx(0.433, abs=0.001)
    assert head_pa(to_si(25, "ft")) / PSI == pytest.approx(11, abs=0.3)


@pytest.mark.parametrize(
    ("litres_per_minute", "millimetres"), [(20, 26.6), (40, 26.6), (60, 35.1), (120, 40.9)]
)
def test_hazen_williams_agrees_with_darcy_in_its_range(
    litres_per_minute: float, millimetres: float
) -> None:
    """Smooth pipe at C = 150 against Darcy–Weisbach with fluids' friction factor, at 0.6–1.6 m/s:
    within 15 %."""
    flow, diameter = to_si(litres_per_minute, "L/min"), millimetres / 1000
    speed = flow / (3.14159265 * diameter**2 / 4)
    reynolds = Reynolds(V=speed, D=diameter, rho=WATER_DENSITY, mu=1.138e-3)
    darcy = friction_factor(reynolds, eD=1e-6) * 100 / diameter * speed**2 / (2 * GRAVITY)
    assert friction_head_m(flow, 100, diameter, 150) == pytest.approx(darcy, rel=0.15)


@pytest.mark.parametrize(
    ("gpm", "inches", "c"), [(10, 1.049, 130), (25, 1.61, 150), (5, 0.824, 100)]
)
def test_hazen_williams_in_its_customary_form(gpm: float, inches: float, c: float) -> None:
    """ft per 100 ft = 0.2083 (100/C)^1.852 q^1.852 / d^4.8655 (engineering handbooks, from
    memory)."""
    customary = 0.2083 * (100 / c) ** 1.852 * gpm**1.852 / inches**4.8655
    assert friction_head_m(to_si(gpm, "gpm"), 100, to_si(inches, "in"), c) == pytest.approx(
        customary, rel=0.015
    )
    assert friction_head_m(0, 100, 0.02, 130) == 0
