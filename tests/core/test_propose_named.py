"""Proposals in the situations that people meet: what lies in the plant moves no setting, no limit
is traded away, and the units asked for change nothing."""

import random
from dataclasses import replace

import pytest

from zerodip.decide.options import judged
from zerodip.decide.propose import propose
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.kinds.parts import Relief, Switch
from zerodip.kinds.registry import kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.water.model import Demand, Supply, Tank
from zerodip.kinds.water.pumps import ConstantFlow, RatedPoint
from zerodip.units import PSI, SYSTEMS

from .drawn import KINDS, draw
from .systems import GAL, GPM, settings, system

READ = {
    "switch": Switch(earth_present=True, low_pressure_cut_off=False),
    "relief": Relief(present=True, setting_gauge_pa=90 * PSI),
    "demand": Demand(peak_draw_m3_s=6 * GPM, highest_tap_m=0.0, daily_m3=1.0),
}


@pytest.mark.parametrize(
    "plant",
    [
        {"switch": Switch(earth_present=False, low_pressure_cut_off=False)},
        {"relief": Relief(present=False)},
        {"kind": "cistern", "supply": Supply(treated=False, labelled=False)},
        {"supply": Supply(yield_m3_s=2 * GPM)},
    ],
)
def test_what_lies_in_the_plant_moves_no_setting_and_is_not_called_well(
    plant: dict[str, object],
) -> None:
    of = system(gallons=60, **{**READ, **plant})
    told = propose(of, settings())
    assert told.same
    stops = told.proposed.stops > 0
    assert told.headline == ("Settings can stay; a stop is open" if stops else "Leave it as it is")
    assert any(line.endswith("nothing to gain by turning.") for line in told.why)
    assert "a stop is open" in propose(of, settings(), stop_seen=True).headline


def test_of_two_tanks_that_differ_the_air_is_let_out_and_no_nut_turned() -> None:
    tanks = (Tank(volume_m3=44 * GAL), Tank(volume_m3=44 * GAL, pre_charge_gauge_pa=45 * PSI))
    plates = tuple(replace(tank, max_gauge_pa=100 * PSI) for tank in tanks)
    told = propose(system(tanks=plates, **READ), settings())
    assert (told.proposed.cut_in_gauge_pa, told.proposed.cut_out_gauge_pa) == (40 * PSI, 60 * PSI)
    assert told.proposed.tanks_alike
    assert not told.now.tanks_alike
    assert not told.same
    assert "Set every tank to the same pre-charge, 38 psi." in told.why


@pytest.mark.parametrize("units", ["us", "metric", "kpa"])
def test_where_the_highest_tap_is_not_known_a_relief_is_cleared_all_the_same(units: str) -> None:
    demand = replace(READ["demand"], highest_tap_m=None, pressure_reducer=True)
    of = system(
        gallons=120,
        **{**READ, "relief": Relief(present=True, setting_gauge_pa=75 * PSI), "demand": demand},
    )
    told = propose(of, settings(50, 87, 48), units=units)
    assert told.proposed.stops == 0
    assert told.proposed.cut_out_gauge_pa <= 74 * PSI
    assert "the height of the highest tap above the gauge" in {
        each.reading.title for each in told.unread
    }


@pytest.mark.parametrize(("low", "gap"), [(40, 60), (30, 50)])
def test_nothing_is_raised_to_where_the_pump_may_never_stop(low: float, gap: float) -> None:
    """A pump known by one rated point, whose shut-off is only assumed: 4/3 of the rated head."""
    pump = RatedPoint(flow_m3_s=10 * GPM, gauge_pa=50 * PSI)
    of = system(pump=pump, gallons=20, **READ)
    told = propose(of, settings(low, gap, low - 2)).proposed
    at = judged(of, _made(told), Practice())
    assert told.cut_out_gauge_pa <= gap * PSI + 1 or at.never_stops <= 0.1


def _made(told: object) -> Settings:
    names = ("cut_in_gauge_pa", "cut_out_gauge_pa", "pre_charge_gauge_pa", "air_renewed")
    return Settings(**{name: getattr(told, name) for name in names})


@pytest.mark.parametrize("kind", KINDS)
def test_no_proposal_passes_a_limit_that_is_kept_now(kind: str) -> None:
    rng = random.Random(f"proposed {kind}")
    for _ in range(8):
        try:
            of = read_document(draw(kind, rng))
        except InvalidInput:
            continue
        now = judged(of.system, of.settings, of.practice)
        told = propose(of.system, of.settings, of.practice).proposed
        alike = kind_of(of.system).proposing.alike(now.figures) or of.system
        then = judged(alike if told.tanks_alike else of.system, _made(told), of.practice)
        assert then.passed <= {each.rule.id for each in now.broken}
        assert then.never_stops <= max(0.1, now.never_stops)


@pytest.mark.parametrize("kind", KINDS)
def test_the_units_asked_for_change_nothing_that_is_proposed(kind: str) -> None:
    rng = random.Random(f"units {kind}")
    for _ in range(4):
        try:
            of = read_document(draw(kind, rng))
        except InvalidInput:
            continue
        told = [propose(of.system, of.settings, of.practice, units) for units in SYSTEMS]
        assert len({(p.same, p.proposed.stops, p.proposed.cautions) for p in told}) == 1


def test_more_air_is_no_price_for_a_longer_run() -> None:
    """Whatever runs longer, the pre-charge is the one that is to be set with the cut-in."""
    pump = ConstantFlow(flow_m3_s=10 * GPM, dead_head_gauge_pa=120 * PSI, power_w=750)
    of = system(pump=pump, gallons=44, **READ)
    told = propose(of, settings(40, 60, 30)).proposed
    assert told.pre_charge_gauge_pa is not None
    assert told.pre_charge_gauge_pa <= told.cut_in_gauge_pa - 2 * PSI + 1
