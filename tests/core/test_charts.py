"""What the screens draw: levels that agree with the figures, marks that hold, grips that say why,
pictures by kind."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zerodip.decide.judge import decide
from zerodip.decide.simulation import simulate_draw
from zerodip.kinds.charts import Mark, Ribbon
from zerodip.kinds.parts import Relief, Switch
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Settings
from zerodip.kinds.tankless.model import TanklessSystem
from zerodip.kinds.water.model import Demand, Tank
from zerodip.kinds.window import Window
from zerodip.units import PSI

from .systems import (
    CFM,
    CURVE,
    GAL,
    GPM,
    air_settings,
    compressor,
    figures,
    settings,
    system,
    tankless,
)

DEMAND = Settings(cut_in_gauge_pa=35 * PSI, cut_out_gauge_pa=46 * PSI)


def ribbon(of: Any, at: Settings, units: str = "us") -> Ribbon:
    shown = decide(of, at, units=units).chart
    assert shown is not None
    return shown


def window(of: TanklessSystem, at: Settings = DEMAND) -> Window:
    shown = decide(of, at).chart
    assert shown is not None
    return shown


def marks(of: Ribbon) -> dict[str, Mark]:
    return {mark.id: mark for mark in of.marks}


def test_each_kind_has_one_picture_and_tankless_pumps_no_strip() -> None:
    for of, at in ((system(), settings()), (compressor(), air_settings()), (tankless(), DEMAND)):
        made = decide(of, at)
        assert (simulate_draw(figures_for(of, at)) is None) == isinstance(made.chart, Window)


def test_the_receiver_s_levels_are_its_figures() -> None:
    """60 gal from 100 to 125 psi at 10 cfm: 13.64 ft³ of free air in 81.9 s by the published form,
    which hot air shortens by a fifth to two fifths."""
    shown = ribbon(compressor(), air_settings())
    put_in = shown.cut_out.held_m3 - shown.cut_in.held_m3
    assert shown.holds == "air"
    assert 0.6 < put_in / (13.64 * CFM * 60) < 0.8
    assert shown.cut_out.run_s == pytest.approx(put_in / (10 * CFM), abs=0.1)
    assert shown.settled is not None
    assert shown.settled.gauge_pa - shown.cut_in.gauge_pa == pytest.approx(
        put_in * 101325 / (60 * GAL), rel=1e-3
    )
    assert shown.cut_in.gauge_pa < shown.settled.gauge_pa < shown.cut_out.gauge_pa
    assert shown.pre_charge is None
    assert set(shown.grips) == {"cut_out", "cut_in"}


def test_a_receiver_s_marks_have_the_gauge_s_error_taken_off() -> None:
    shown = ribbon(compressor(), air_settings())
    found = marks(shown)
    assert found["receiver"].gauge_pa == pytest.approx(149 * PSI)
    assert found["relief"].gauge_pa == pytest.approx((135 - 1) * PSI)
    assert shown.grips["cut_out"].most_gauge_pa == pytest.approx(134 * PSI)
    assert shown.grips["cut_out"].most_reason.endswith("less 1 psi for the gauge.")


@pytest.mark.parametrize(
    ("part", "mark"),
    [
        ({"relief": Relief(present=True, setting_gauge_pa=66 * PSI)}, "relief"),
        ({"tanks": (Tank(volume_m3=44 * GAL, max_gauge_pa=66 * PSI),)}, "tank"),
        ({"demand": Demand(pipe_max_gauge_pa=66 * PSI)}, "pipe"),
        ({"pump": CURVE.__class__(points=CURVE.points, max_gauge_pa=66 * PSI)}, "pump"),
        ({"switch": Switch(most_cut_out_gauge_pa=66 * PSI)}, "switch"),
    ],
)
def test_the_lowest_of_all_ratings_holds_cut_out_and_is_named(
    part: dict[str, Any], mark: str
) -> None:
    shown = ribbon(system(**part), settings())
    assert marks(shown)[mark].holds == "cut_out"
    room = 0 if mark == "switch" else 1  # a rating is not passed whatever the gauge is off by
    assert shown.grips["cut_out"].most_gauge_pa == pytest.approx((66 - room) * PSI)
    assert "66 psi" in shown.grips["cut_out"].most_reason


def test_trip_and_highest_tap_are_marks_that_hold_nothing() -> None:
    of = system(switch=Switch(low_pressure_cut_off=True), demand=Demand(highest_tap_m=5))
    found = marks(ribbon(of, settings()))
    assert found["trip"].gauge_pa == pytest.approx(30 * PSI)
    assert found["tap"].gauge_pa == pytest.approx(27.1 * PSI, rel=0.01)
    assert not found["trip"].holds
    assert not found["tap"].holds


def test_one_screw_takes_cut_in_along_and_stops_where_it_would_leave_the_scale() -> None:
    linked = ribbon(system(switch=Switch(nuts="one")), settings()).grips["cut_out"]
    apart = ribbon(system(), settings()).grips["cut_out"]
    assert (linked.takes_along, apart.takes_along) == ("cut_in", None)
    assert linked.least_gauge_pa == pytest.approx(21 * PSI)
    assert apart.least_gauge_pa == pytest.approx(41 * PSI)


@given(cut_in=st.floats(10, 60), gap=st.floats(5, 30), below=st.floats(0, 9))
def test_levels_rise_together_and_the_threads_lie_between(
    cut_in: float, gap: float, below: float
) -> None:
    shown = ribbon(system(pump=CURVE), settings(cut_in, cut_in + gap, cut_in - below))
    stack = [shown.cut_in, *shown.threads, shown.cut_out]
    for name in ("gauge_pa", "held_m3"):
        values = [getattr(level, name) for level in stack]
        assert values == sorted(values)
    assert (
        shown.scales.gauge.least
        <= shown.cut_in.gauge_pa
        < shown.cut_out.gauge_pa
        <= shown.scales.gauge.most
    )


@given(low=st.floats(9, 12), span=st.floats(0, 5), more=st.floats(0.1, 2))
def test_a_wider_swing_of_voltage_never_opens_the_window(
    low: float, span: float, more: float
) -> None:
    narrow, wide = (
        window(tankless(1.5, (low, low + span))),
        window(tankless(1.5, (low, low + span + more))),
    )
    assert wide.low_gauge_pa >= narrow.low_gauge_pa - 1
    assert wide.high_gauge_pa == pytest.approx(narrow.high_gauge_pa)
    assert narrow.points[0].volts <= low <= low + span <= narrow.points[-1].volts


def test_an_accumulator_brings_its_own_grip_below_cut_out() -> None:
    at = Settings(cut_in_gauge_pa=35 * PSI, cut_out_gauge_pa=46 * PSI, pre_charge_gauge_pa=30 * PSI)
    shown = window(tankless(0.6, litres=1), at)
    assert shown.grips["pre_charge"].most_gauge_pa == pytest.approx(46 * PSI)
    assert shown.pre_charge_gauge_pa == pytest.approx(30 * PSI)
    assert "pre_charge" not in window(tankless()).grips


def test_reasons_are_in_the_units_asked_for() -> None:
    for of, at in (
        (compressor(), air_settings()),
        (system(demand=Demand(peak_draw_m3_s=GPM)), settings()),
    ):
        said = " ".join(mark.reason for mark in ribbon(of, at, "metric").marks)
        assert "bar" in said
        assert "psi" not in said


def test_a_waterlogged_share_shrinks_drawdown_and_run_in_step() -> None:
    full, half = (
        figures(system(kind="well_air"), settings(30, 50, 0)),
        figures(system(kind="well_air", gallons=22), settings(30, 50, 0)),
    )
    assert half.drawdown_m3 == pytest.approx(full.drawdown_m3 / 2)
    assert half.run_s == pytest.approx(full.run_s / 2)
