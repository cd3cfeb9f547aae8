"""What is said beside the verdicts: the wider pre-charge of a low-pressure cut-off, why its lever
trips, what a check of the air costs."""

from typing import Any

import pytest

from zerodip.decide.propose import propose
from zerodip.fileformat.document import Document
from zerodip.units import PSI

from .systems import GAL, SEA_LEVEL, figures, settings, system
from .test_visit import document, view

LEVER = {"nuts": "two", "low_pressure_cut_off": True}


def test_a_low_pressure_cut_off_proposes_the_wider_offset_by_itself_and_says_why() -> None:
    """5 psi below cut-in with such a switch: common practice, no source."""
    wide = document(system__switch=LEVER)
    told = propose(wide.system, wide.settings)
    assert told.proposed.pre_charge_gauge_pa == pytest.approx(
        told.proposed.cut_in_gauge_pa - 5 * PSI
    )
    assert any("low-pressure cut-off trips at" in line for line in told.why)
    usual = propose(document().system, document().settings)
    assert usual.proposed.pre_charge_gauge_pa == pytest.approx(
        usual.proposed.cut_in_gauge_pa - 2 * PSI
    )
    assert not any("low-pressure" in line for line in usual.why)


def test_a_lever_that_trips_is_explained_by_reserve_lag_and_draw() -> None:
    of = document(system__switch=LEVER)
    assert view(of=of).watch.explains == ""
    said = view(("complaint", "trips"), of=of).watch.explains
    assert "trips at 30 psi" in said
    assert "1.5 s to deliver" in said
    unknown = view(("complaint", "trips"), of=document(system__demand={}, system__switch=LEVER))
    assert "peak draw is missing" in unknown.watch.explains


@pytest.mark.parametrize(("gallons", "psi"), [(44, 0.044), (2, 0.97)])
def test_what_a_check_costs_is_half_a_litre_of_air(gallons: float, psi: float) -> None:
    """p·V of half a litre at the atmosphere, in the tank: 101325 · 0.0005 / V."""
    assert pytest.approx(SEA_LEVEL * 0.0005 / (gallons * GAL) / PSI, rel=0.02) == psi
    of = figures(system(gallons=gallons), settings())
    made = view(of=document(system__tanks=[{"volume_m3": gallons * GAL}])).air_check
    assert made is not None
    assert f"{psi:.1f} psi" in made.says or f"{psi:.2f}" in made.says
    assert of.nominal_m3 == pytest.approx(gallons * GAL)


def _known(years: float, **changes: Any) -> Document:
    found = {"last_pre_charge_gauge_pa": 38 * PSI, "last_years_ago": years}
    return document(system__found=found, **changes)


def test_where_nothing_speaks_for_a_check_it_is_advised_against() -> None:
    run = document().figures().run_s  # type: ignore[attr-defined]
    seen = (("found.cut_in", 40 * PSI), ("found.cut_out", 60 * PSI), ("found.run", run))
    made = view(*seen, of=_known(0.3))
    assert made.air_check is not None
    assert made.air_check.unneeded
    assert made.next.step == "safe"
    off = [step.slot for step in made.make_safe]
    dead = view(*seen, *((slot, True) for slot in off), of=_known(0.3))
    assert dead.next.do == "decide"
    for reason in (
        view(*seen, of=_known(2.0)),
        view(*seen, ("complaint", "clicks"), of=_known(0.3)),
        view(*seen[:2], ("found.run", run / 3), of=_known(0.3)),
        view(seen[0], ("found.cut_out", 66 * PSI), seen[2], of=_known(0.3)),
        view(of=_known(0.3)),
        view(*seen),
        *(view(*seen, (slot, True), of=_known(0.3)) for slot in ("found.leaks", "prove.dip")),
        view(*seen, ("found.knee", 30 * PSI), of=_known(0.3)),
    ):
        assert reason.air_check is not None
        assert not reason.air_check.unneeded
    burst = ("found.water_at_valve", True)
    assert view(*seen, burst, of=_known(0.3)).air_check is None
    assert view(*seen, burst, ("set.tank_replaced", True), of=_known(0.3)).air_check is None
    read = view(*seen, ("found.pre_charge", 30 * PSI), ("decided", True), of=_known(0.3))
    assert read.next.step == "safe"
