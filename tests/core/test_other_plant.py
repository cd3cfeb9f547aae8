"""Random systems of every kind against plants stepped through time (`other_plant`): whatever is
said for certain is seen there."""

import math
import random
from typing import Any

import numpy as np
import pytest
from scipy.optimize import brentq

from zerodip.decide.judge import decide
from zerodip.fileformat.document import read_document
from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.tankless.figures import TanklessFigures
from zerodip.kinds.water.figures import WaterFigures
from zerodip.units import PSI, to_si

from .other_plant import Air, Motor, Tankless, Watch, Water, delivery

GPM, GAL, CFM = to_si(1, "gpm"), to_si(1, "gal"), to_si(1, "cfm")
NEAR = 0.02  # relative: as near as the steps are, nothing is compared


def _pump(rng: random.Random) -> dict[str, Any]:
    flow = rng.uniform(3, 20) * GPM
    motor = {
        "power_w": rng.choice((370.0, 750.0, 1500.0)),
        "start_lag_s": rng.uniform(0.2, 5),
        "ramp_s": rng.uniform(0.05, 4),
    }
    if rng.random() < 1 / 3:
        return {"model": "constant", "flow_m3_s": flow, "dead_head_gauge_pa": 9e5, **motor}
    if rng.random() < 1 / 2:
        rated = rng.uniform(40, 60) * PSI
        top = rated + rng.uniform(10, 50) * PSI
        return {
            "model": "rated_point",
            "flow_m3_s": flow,
            "gauge_pa": rated,
            "lift_m": rng.uniform(0, 30),
            "dead_head_gauge_pa": top,
            **motor,
        }
    top, lift = rng.uniform(55, 95), rng.uniform(5, 25)
    points = [
        {"flow_m3_s": share * 1.6 * flow, "head_m": lift + top * (1 - fall)}
        for share, fall in ((0, 0), (0.3, 0.06), (0.6, 0.25), (1, 0.75))
    ]
    pipe = {"length_m": rng.uniform(10, 60), "diameter_m": 0.0266, "c_factor": 150.0}
    return {"model": "curve", "points": points, "lift_m": lift, "drop_pipe": pipe, **motor}


def a_water(kind: str, rng: random.Random) -> tuple[dict[str, Any], float]:
    """A file, and the share of air left in a plain tank."""
    low, gap = rng.uniform(20, 45) * PSI, rng.uniform(12, 25) * PSI
    up = rng.choice((0.0, 0.0, rng.uniform(-6, 6)))
    plain, left = kind == "well_air", rng.uniform(0.4, 1.0)
    charge = 0.0 if plain else max(low - up * 9800 - rng.uniform(0.5, 10) * PSI, 0.0)
    count = rng.choice((1, 1, 2))
    system: dict[str, Any] = {
        "kind": kind,
        "tanks": [{"volume_m3": rng.uniform(6, 90) * GAL} for _ in range(count)],
        "pump": _pump(rng),
        "site": {"altitude_m": rng.choice((0.0, 1600.0))},
        "tanks_above_m": up,
        "demand": {"peak_draw_m3_s": rng.uniform(1, 22) * GPM},
    }
    if rng.random() < 0.3 and not plain:
        system["tanks"][0]["acceptance_m3"] = 0.4 * system["tanks"][0]["volume_m3"]
    settings = {
        "cut_in_gauge_pa": low,
        "cut_out_gauge_pa": low + gap,
        "pre_charge_gauge_pa": charge,
    }
    raw = {"format": "zerodip-system", "version": 1, "system": system, "settings": settings}
    return raw, left if plain else 1.0


def _with_bucket(raw: dict[str, Any], plant: Water) -> None:
    """The bucket test of that plain tank, as a technician writes it down."""
    low, high = (raw["settings"][f"cut_{end}_gauge_pa"] for end in ("in", "out"))
    plant.fill_to(high)
    full = plant.water
    plant.fill_to(low)
    raw["system"]["found"] = {
        "cut_in_gauge_pa": low,
        "cut_out_gauge_pa": high,
        "caught_m3": full - plant.water,
    }


def _near(a: float, b: float, within: float = NEAR) -> bool:
    return a == b or abs(a - b) <= within * max(abs(a), abs(b))


def _holds(verdicts: dict[str, str], rule: str, seen: float, limit: float, kept: bool) -> None:
    """A certain verdict is what was seen, unless as near to the limit as the steps are."""
    said = verdicts.get(rule)
    if said in ("pass", "stop") and not _near(seen, limit):
        assert (said == "pass") == kept, (rule, said, seen, limit)


@pytest.mark.parametrize("kind", ["well_bladder", "well_air", "cistern", "boosted"])
def test_water_runs_starts_and_holds_as_another_simulation_sees_it(kind: str) -> None:
    compare_water(kind, random.Random(f"{kind} 1"), 3)


def compare_water(kind: str, rng: random.Random, count: int) -> None:
    """So many random systems of a kind."""
    for _ in range(count):
        raw, left = a_water(kind, rng)
        plant = Water({**raw, "system": {**raw["system"], "air_left": left}})
        if left < 1:
            _with_bucket(raw, plant)
        document = read_document(raw)
        figures = document.figures()
        assert isinstance(figures, WaterFigures)
        verdicts = {f.rule: f.verdict for f in decide(document.system, document.settings).findings}
        low, high = figures.cut_in_pa, figures.cut_out_pa
        pace = max(figures.drawdown_m3, 1e-5) / max(figures.cut_in_flow_m3_s, 1e-6) / 800
        _compare_run(figures, Watch(low, high, pace), plant, verdicts)
        _compare_starts(figures, Watch(low, high, pace / 2, most_starts=3), plant, rng)
        _compare_start(figures, plant, raw, verdicts)


def _compare_run(
    figures: WaterFigures, watch: Watch, plant: Water, verdicts: dict[str, str]
) -> None:
    seen = watch.run(plant, 0.0, on=True)
    if math.isinf(figures.run_s):
        assert not seen.runs
        assert verdicts["run-ends"] != "pass"
        return
    assert _near(seen.runs[0], figures.run_s)
    _holds(verdicts, "run-time", seen.runs[0], figures.wanted_run_s, seen.runs[0] >= 60)
    _holds(verdicts, "run-ends", seen.runs[0], 600.0, seen.runs[0] <= 600)


def _compare_starts(figures: WaterFigures, watch: Watch, plant: Water, rng: random.Random) -> None:
    if figures.worst_draw_m3_s is None or figures.worst_starts_per_s is None:
        return
    worst = watch.run(plant, figures.worst_draw_m3_s, on=True).rate
    assert _near(worst, figures.worst_starts_per_s)
    other = watch.run(plant, rng.uniform(0.3, 0.9) * figures.worst_draw_m3_s, on=True)
    assert other.rate <= worst * (1 + NEAR)


def _compare_start(
    figures: WaterFigures, plant: Water, raw: dict[str, Any], verdicts: dict[str, str]
) -> None:
    pump, draw = raw["system"]["pump"], raw["system"]["demand"]["peak_draw_m3_s"]
    lag, ramp = pump["start_lag_s"], pump["ramp_s"]
    watch = Watch(figures.cut_in_pa, figures.cut_out_pa, 0.01, lag, ramp, 1800.0, 2)
    seen, less = (watch.run(plant, draw * share, on=True) for share in (1.0, 1 - NEAR))
    more = watch.run(plant, draw * (1 + NEAR), on=True)
    if verdicts["start-dip"] == verdicts["keeps-up"] == "pass":
        assert math.isinf(less.dry_at)
        if math.isinf(more.dry_at) and draw < figures.cut_in_flow_m3_s:
            lowest = figures.start_lowest_pa or 0.0
            assert lowest <= seen.lowest + 0.4 * PSI
            # Where the pump only holds its own at a lower pressure, it takes for ever to get there.
            if draw < figures.cut_in_flow_m3_s:
                assert lowest == pytest.approx(seen.lowest, abs=0.4 * PSI)
    if verdicts["start-dip"] == "stop":
        assert more.dry_at <= lag + ramp + 0.1
    _compare_long(figures, plant, raw, verdicts)


def _compare_long(
    figures: WaterFigures, plant: Water, raw: dict[str, Any], verdicts: dict[str, str]
) -> None:
    """A long peak draw through taps that are orifices: scipy's root of pump and taps."""
    draw = raw["system"]["demand"]["peak_draw_m3_s"]

    def over(gauge: float) -> float:
        given = float(delivery(raw["system"]["pump"], np.array([gauge]))[0])
        return given - draw * math.sqrt(gauge / figures.cut_in_pa)

    held = float(brentq(over, 1.0, 3e6))
    assert figures.balance_pa == pytest.approx(held, abs=0.1 * PSI, rel=0.01)
    if not _near(held, figures.cut_in_pa):
        assert (verdicts["keeps-up"] == "caution") == (held < figures.cut_in_pa)


def test_compressors_run_rest_and_work_as_another_simulation_sees_it() -> None:
    compare_compressors(random.Random(21), 5)


def compare_compressors(rng: random.Random, count: int) -> None:
    """So many; within what two models of a cycle differ: the core takes the air as cooled at each
    start."""
    for _ in range(count):
        top, low = rng.uniform(6, 20) * CFM, rng.uniform(60, 110) * PSI
        high = low + rng.uniform(15, 40) * PSI
        points = [
            {"gauge_pa": psi * PSI, "flow_m3_s": top * share}
            for psi, share in ((40, 1.0), (90, 0.9), (160, 0.8))
        ]
        raw = {
            "format": "zerodip-system",
            "version": 1,
            "system": {
                "kind": "compressor",
                "receivers": [{"volume_m3": rng.uniform(20, 200) * GAL}],
                "pump": {"points": points},
                "use": {"use_m3_s": rng.uniform(0.2, 1.2) * top},
                "site": {"altitude_m": rng.choice((0.0, 1600.0))},
                "delivery_k": rng.uniform(300, 370),
            },
            "settings": {"cut_in_gauge_pa": low, "cut_out_gauge_pa": high},
        }
        document = read_document(raw)
        figures = document.figures()
        assert isinstance(figures, CompressorFigures)
        verdicts = {f.rule: f.verdict for f in decide(document.system, document.settings).findings}
        plant, watch = Air(raw), Watch(low, high, figures.run_s / 2000)
        assert _near(watch.run(plant, 0.0, on=True).runs[0], figures.run_s)
        use = figures.use_m3_s or 0.0
        seen = Watch(low, high, figures.run_s / 1000, most_starts=8).run(plant, use, on=False)
        catches_up = bool(seen.stops)
        if verdicts["air-keeps-up"] == "pass" and not _near(use, figures.cut_out_flow_m3_s, 0.1):
            assert catches_up
        if catches_up and len(seen.starts) > 3 and figures.duty is not None:
            whole = seen.starts[-1] - seen.starts[-2]
            assert figures.duty == pytest.approx(seen.runs[-1] / whole, abs=0.08)


def motors(rng: random.Random) -> Motor:
    """A pump of its own."""
    return Motor(idle_nm=rng.uniform(0, 0.12), per_pa=rng.uniform(1.0e-6, 1.6e-6))


def a_tankless(rng: random.Random, motor: Motor) -> dict[str, Any]:
    """What a technician reads of that pump: its curve at 12 V and the dead-head at 13 V."""
    top = motor.dead_head(12)
    low = rng.uniform(0.3, 0.6) * top
    return {
        "format": "zerodip-system",
        "version": 1,
        "system": {
            "kind": "tankless",
            "pump": {
                "points": [
                    {"flow_m3_s": 0.0, "gauge_pa": top},
                    {"flow_m3_s": motor.flow(0.0, 12), "gauge_pa": 0.0},
                ],
                "second_v": 13.0,
                "second_dead_head_gauge_pa": motor.dead_head(13),
            },
            "battery": {"least_v": rng.uniform(10.5, 11.8), "most_v": rng.uniform(13, 14.5)},
            "outlets": [{"flow_m3_s": rng.uniform(0.04, 0.5) * GPM, "gauge_pa": 20 * PSI}],
            "accumulator": {"volume_m3": rng.uniform(0.1, 0.6) * 1e-3},
        },
        "settings": {
            "cut_in_gauge_pa": low,
            "cut_out_gauge_pa": low + rng.uniform(0.05, 0.3) * top,
            "pre_charge_gauge_pa": 0.9 * low,
        },
    }


def test_tankless_pumps_stop_stay_and_pulse_as_another_simulation_sees_it() -> None:
    assert compare_tankless(random.Random(31), 16) >= 3


def compare_tankless(rng: random.Random, count: int) -> int:
    """So many; how many of them pulsed."""
    pulsed = 0
    for _ in range(count):
        motor = motors(rng)
        raw = a_tankless(rng, motor)
        document = read_document(raw)
        figures = document.figures()
        assert isinstance(figures, TanklessFigures)
        verdicts = {f.rule: f.verdict for f in decide(document.system, document.settings).findings}
        low, high = figures.cut_in_pa, figures.cut_out_pa
        outlet = raw["system"]["outlets"][0]
        k = outlet["flow_m3_s"] / math.sqrt(outlet["gauge_pa"])
        store = raw["system"]["accumulator"]["volume_m3"], 0.9 * low
        shut = Tankless(motor, figures.least_v, 0.0, *store)
        stops = bool(Watch(low, high, 0.002, most_s=60).run(shut, 0.0, on=True).stops)
        if verdicts["cut-out-stops"] == "pass":
            assert stops
        if verdicts["cut-out-stops"] == "stop" and figures.dead_head_pa < high * (1 - NEAR):
            assert not stops
        used = Tankless(motor, figures.most_v, k, *store)
        seen = Watch(low, high, 0.002, most_s=60, most_starts=4).run(used, 1e-12, on=True)
        if verdicts["cut-out-steady"] == "pass":
            assert not seen.stops
        elif figures.pulse_s and len(seen.starts) == 4 and not _near(figures.running_pa, high, 0.1):
            pulsed += 1
            assert figures.pulses_per_s == pytest.approx(seen.rate, rel=0.05)
    return pulsed
