"""What must hold whatever is read: monotony and bounds over all kinds, at a fixed seed."""

from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from zerodip.decide.judge import decide
from zerodip.kinds.registry import figures_for
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.tankless.figures import TanklessFigures
from zerodip.kinds.water.figures import WaterFigures
from zerodip.kinds.water.model import Demand, Tank
from zerodip.physics.bladder_tank import Bank, Vessel, pressure_abs_pa, water_m3
from zerodip.physics.demand_pump import DemandCurve, running_gauge_pa
from zerodip.physics.motors import starts_per_day_limit, starts_per_hour_limit
from zerodip.physics.receiver import ReceiverStore
from zerodip.rules.engine import SEVERITY, Verdict
from zerodip.units import PSI

from .systems import CURVE, GAL, GPM, SEA_LEVEL, compressor, figures, settings, system, tankless

volumes = st.floats(0.005, 2.0)
pressures = st.floats(1.2e5, 9e5)


@given(
    st.lists(st.tuples(volumes, pressures, st.floats(0.2, 1.2)), min_size=1, max_size=5),
    st.floats(1.0, 1.4),
    pressures,
)
def test_pressure_inverts_water_for_any_tanks_together(
    tanks: list[tuple[float, float, float]], n: float, p: float
) -> None:
    """Tanks of any volumes, pre-charges and acceptances: the closed form gives back the pressure,
    or one at which the bank holds the same (every bladder that is at work full)."""
    bank = Bank(tuple(Vessel(v, c, v * share) for v, c, share in tanks), n)
    water = water_m3(bank, p)
    found = pressure_abs_pa(bank, water)
    if found != float("inf"):
        assert abs(water_m3(bank, found) - water) <= 1e-9 * bank.volume_m3
    rising = [
        abs(water_m3(bank, p * share) - water) > 1e-7 * bank.volume_m3 for share in (0.9999, 1.0001)
    ]
    if water > 0 and all(rising):
        assert abs(found - p) <= 1e-5 * p


@given(
    cut_in=st.floats(15, 60),
    gap=st.floats(10, 30),
    gallons=st.floats(5, 100),
    more=st.floats(1, 80),
)
def test_a_bigger_tank_never_runs_shorter_nor_starts_more(
    cut_in: float, gap: float, gallons: float, more: float
) -> None:
    at = settings(cut_in, cut_in + gap, cut_in - 2)
    small, large = figures(system(CURVE, gallons), at), figures(system(CURVE, gallons + more), at)
    assert large.run_s >= small.run_s or large.run_s == small.run_s
    if small.worst_starts_per_s is not None and large.worst_starts_per_s is not None:
        assert large.worst_starts_per_s <= small.worst_starts_per_s * (1 + 1e-9)


@given(gallons=st.floats(5, 100), left=st.floats(0.05, 0.95), n=st.floats(1.0, 1.4))
def test_lost_air_never_gives_more_water_and_re_airing_never_less(
    gallons: float, left: float, n: float
) -> None:
    made = figures(
        system(kind="well_air", gallons=gallons), settings(30, 50, 0), Practice(gas_exponent=n)
    )
    low, high = made.cut_in_abs_pa, made.cut_out_abs_pa
    short = made.plain_bank(left)
    assert water_m3(short, high) - water_m3(short, low) <= made.renewed_m3 * (1 + 1e-12)


@given(height=st.floats(-20, 60), higher=st.floats(0, 30), draw=st.floats(0.1, 15))
def test_a_higher_tap_never_has_more_pressure(height: float, higher: float, draw: float) -> None:
    def tap(metres: float) -> WaterFigures:
        return figures(system(demand=Demand(highest_tap_m=metres, peak_draw_m3_s=draw * GPM)))

    lower, upper = tap(height), tap(height + higher)
    assert lower.tap_pa is not None
    assert upper.tap_pa is not None
    assert 0 <= upper.tap_pa <= lower.tap_pa


@given(volume=volumes, low=st.floats(1e5, 6e5), gap=st.floats(5e4, 4e5), use=st.floats(0.05, 0.95))
def test_duty_lies_between_nothing_and_all_and_starts_never_pass_the_worst(
    volume: float, low: float, gap: float, use: float
) -> None:
    store = ReceiverStore(volume, (2e5, 9e5), (0.006, 0.004), SEA_LEVEL, low, low + gap)
    assert store.held_m3(low) < store.off_m3
    assert store.gauge_at(store.off_m3) > low
    assert 0.004 <= store.flow_m3_s(low + use * gap) <= 0.006


@given(gpm=st.floats(0.1, 3.5), volts=st.floats(10, 15), more=st.floats(0, 2))
def test_a_tap_runs_below_dead_head_and_higher_with_more_voltage(
    gpm: float, volts: float, more: float
) -> None:
    curve = DemandCurve((0, 1.2e-4, 2e-4), (4e5, 2e5, 5e4), 12)
    k = gpm * GPM / (20 * PSI) ** 0.5
    low, high = running_gauge_pa(curve, k, volts), running_gauge_pa(curve, k, volts + more)
    assert 0 < low < curve.dead_head_gauge_pa(volts)
    assert high >= low * (1 - 1e-9)


@given(litres=st.floats(0.1, 5), more=st.floats(0.1, 5), air=st.floats(5, 34))
def test_a_bigger_accumulator_never_pulses_faster(litres: float, more: float, air: float) -> None:
    at = Settings(
        cut_in_gauge_pa=35 * PSI, cut_out_gauge_pa=46 * PSI, pre_charge_gauge_pa=air * PSI
    )
    small, large = (
        figures_for(tankless(0.6, litres=volume), at) for volume in (litres, litres + more)
    )
    assert isinstance(small, TanklessFigures)
    assert isinstance(large, TanklessFigures)
    assert large.pulses_per_s <= small.pulses_per_s


@given(power=st.floats(30, 50e3), more=st.floats(0, 20e3))
def test_a_stronger_motor_never_bears_more_starts(power: float, more: float) -> None:
    assert starts_per_day_limit(power + more) <= starts_per_day_limit(power)
    assert starts_per_hour_limit(power + more, "surface") <= starts_per_hour_limit(power, "surface")


@given(psi=st.floats(60, 149), lower=st.floats(1, 20))
def test_lowering_cut_out_under_a_plate_never_makes_that_verdict_worse(
    psi: float, lower: float
) -> None:
    def plate(top: float) -> Verdict:
        at = Settings(cut_in_gauge_pa=30 * PSI, cut_out_gauge_pa=top * PSI)
        found = next(f for f in decide(compressor(), at).findings if f.rule == "receiver-plate")
        return Verdict(found.verdict)

    assert SEVERITY[plate(psi - lower)] >= SEVERITY[plate(psi)]


@given(st.integers(1, 6))
def test_tanks_alike_are_one_tank_of_their_volume(count: int) -> None:
    one = figures(system(tanks=(Tank(volume_m3=count * 10 * GAL),)))
    many = figures(system(tanks=(Tank(volume_m3=10 * GAL),) * count))
    assert abs(many.drawdown_m3 - one.drawdown_m3) < 1e-12
    assert abs(many.run_s - one.run_s) < 1e-6
    lost = replace(many.system, tanks=many.system.tanks[1:] or many.system.tanks)
    # type: ignore[operator]
    assert (
        many.one_lost_m3 is None
        if count == 1
        else abs(many.one_lost_m3 - figures(lost).drawdown_m3) < 1e-12
    )
