"""Systems of every kind drawn wider than sensible, as files: readings missing, tanks that differ,
limits anywhere. Nothing of the core is used here."""

import random
from typing import Any

PSI, GAL, GPM, CFM = 6894.757293168, 3.785411784e-3, 3.785411784e-3 / 60, 0.028316846592 / 60
KINDS = ("well_bladder", "well_air", "cistern", "boosted", "compressor", "tankless")
Raw = dict[str, Any]


def _maybe(rng: random.Random, share: float, part: Raw, name: str, value: Any) -> None:
    """A reading that may be missing."""
    if rng.random() < share:
        part[name] = value


def _pump(rng: random.Random, boosted: bool) -> Raw:
    flow = rng.uniform(2, 30) * GPM
    pump: Raw = {"start_lag_s": rng.uniform(0, 6), "ramp_s": rng.uniform(0, 4)}
    _maybe(rng, 0.6, pump, "power_w", rng.choice((250.0, 370.0, 750.0, 1500.0, 4000.0)))
    _maybe(rng, 0.3, pump, "max_gauge_pa", rng.uniform(50, 150) * PSI)
    model = rng.choice(("constant", "rated_point", "curve"))
    if model == "constant":
        pump["flow_m3_s"] = flow
        _maybe(rng, 0.5, pump, "dead_head_gauge_pa", rng.uniform(45, 130) * PSI)
    else:
        pump["lift_m"] = rng.uniform(0, 40)
        _maybe(rng, float(boosted), pump, "inlet_gauge_pa", rng.uniform(0, 40) * PSI)
    if model == "rated_point":
        at = rng.uniform(20, 70)
        pump |= {"flow_m3_s": flow, "gauge_pa": at * PSI}
        top = (at + rng.uniform(8, 60)) * PSI + pump.get("inlet_gauge_pa", 0.0)
        _maybe(rng, 0.6, pump, "dead_head_gauge_pa", top)
    if model == "curve":
        top = rng.uniform(25, 110)
        pump["points"] = [
            {"flow_m3_s": share * 1.6 * flow, "head_m": pump["lift_m"] + top * (1 - fall)}
            for share, fall in ((0, 0), (0.3, 0.06), (0.6, 0.25), (1, 0.75))
        ]
    return {"model": model, **pump}


def _tank(rng: random.Random, plain: bool, low: float) -> Raw:
    tank: Raw = {"volume_m3": rng.choice((2, 8.5, 14, 20, 33, 44, 62, 86, 119, 300)) * GAL}
    _maybe(rng, 0.7, tank, "max_gauge_pa", rng.uniform(60, 150) * PSI)
    if not plain:
        _maybe(rng, 0.4, tank, "acceptance_m3", rng.uniform(0.25, 0.45) * tank["volume_m3"])
        _maybe(rng, 0.15, tank, "pre_charge_gauge_pa", rng.uniform(0, 1.3) * low)
    return tank


def _site(rng: random.Random) -> Raw:
    site: Raw = {"altitude_m": rng.choice((0.0, 0.0, 1600.0, 3000.0))}
    if rng.random() < 0.3:
        mean = rng.uniform(275, 295)
        site |= {"mean_k": mean, "warmest_k": mean + rng.uniform(0, 25)}
        site |= {"coldest_k": mean - rng.uniform(0, 20), "now_k": mean + rng.uniform(-15, 15)}
    return site


def _switch(rng: random.Random, low: float, high: float) -> Raw:
    switch: Raw = {"nuts": rng.choice(("two", "two", "two", "one"))}
    _maybe(rng, 0.7, switch, "low_pressure_cut_off", rng.random() < 0.3)
    _maybe(rng, 0.7, switch, "earth_present", rng.random() < 0.85)
    _maybe(rng, 0.3, switch, "least_cut_in_gauge_pa", rng.uniform(0.3, 1.1) * low)
    if rng.random() < 0.3:
        switch["most_cut_out_gauge_pa"] = rng.uniform(0.95, 1.6) * high
        switch["most_cut_out_gauge_pa"] = max(high * 0.95, 1.2 * low, 40 * PSI)
    if rng.random() < 0.3:
        switch["least_differential_pa"] = rng.uniform(0.3, 1.2) * (high - low)
        switch["most_differential_pa"] = rng.uniform(1.25, 3) * (high - low)
    if "least_cut_in_gauge_pa" in switch and "most_cut_out_gauge_pa" in switch:
        switch["least_cut_in_gauge_pa"] *= 0.8
    return switch


def _relief(rng: random.Random, high: float) -> Raw:
    relief: Raw = {}
    _maybe(rng, 0.85, relief, "present", rng.random() < 0.9)
    if relief.get("present"):
        _maybe(rng, 0.85, relief, "setting_gauge_pa", rng.uniform(0.85, 1.8) * high)
    return relief


def _water(kind: str, rng: random.Random) -> Raw:
    low = rng.uniform(10, 60) * PSI
    high = low + rng.choice((rng.uniform(4, 45), 20.0)) * PSI
    plain = kind == "well_air"
    up = rng.choice((0.0, 0.0, 0.0, rng.uniform(-8, 3)))
    charge = (
        0.0
        if plain and rng.random() < 0.8
        else rng.choice((0.0, 1.0, 1.0)) * (low - rng.choice((2.0, rng.uniform(-12, 25))) * PSI)
    )
    demand: Raw = {"lowest_tap_m": rng.choice((0.0, rng.uniform(-5, 3)))}
    _maybe(rng, 0.7, demand, "peak_draw_m3_s", rng.uniform(1, 25) * GPM)
    _maybe(rng, 0.4, demand, "daily_m3", rng.uniform(0.1, 20))
    _maybe(rng, 0.5, demand, "highest_tap_m", rng.uniform(0, 14))
    _maybe(rng, 0.3, demand, "pressure_reducer", rng.random() < 0.5)
    supply: Raw = {}
    _maybe(rng, 0.3, supply, "yield_m3_s", rng.uniform(1, 30) * GPM)
    if kind == "cistern":
        _maybe(rng, 0.8, supply, "treated", rng.random() < 0.4)
        _maybe(rng, 0.8, supply, "labelled", rng.random() < 0.6)
    if kind == "boosted":
        inlet = rng.uniform(0, 40) * PSI
        _maybe(rng, 0.6, supply, "lowest_inlet_gauge_pa", inlet)
        _maybe(rng, 0.6, supply, "highest_inlet_gauge_pa", inlet + rng.uniform(0, 30) * PSI)
    found: Raw = {}
    if plain and rng.random() < 0.5:
        found = {"cut_in_gauge_pa": low, "cut_out_gauge_pa": high, "caught_m3": 0.002}
        found["caught_m3"] = rng.uniform(0.005, 0.15) * 44 * GAL
    elif not plain:
        _maybe(rng, 0.3, found, "pre_charge_gauge_pa", rng.uniform(0, 1.2) * low)
    system = {
        "tanks": [_tank(rng, plain, low) for _ in range(rng.choice((1, 1, 1, 2, 3)))],
        "pump": _pump(rng, kind == "boosted"),
        "tanks_above_m": up,
        "demand": demand,
        "supply": supply,
        "found": found,
    }
    return _file(kind, rng, system, low, high, max(charge, 0.0))


def _air(kind: str, rng: random.Random) -> Raw:
    low = rng.uniform(50, 140) * PSI
    high = low + rng.uniform(8, 50) * PSI
    flow = rng.uniform(2, 25) * CFM
    pump: Raw = {
        "points": [
            {"gauge_pa": 40 * PSI, "flow_m3_s": flow},
            {"gauge_pa": 160 * PSI, "flow_m3_s": rng.uniform(0.6, 0.95) * flow},
        ]
    }
    _maybe(rng, 0.7, pump, "max_gauge_pa", rng.uniform(100, 200) * PSI)
    _maybe(rng, 0.7, pump, "power_w", rng.choice((750.0, 1500.0, 2237.0, 5500.0)))
    receiver: Raw = {"volume_m3": rng.choice((5, 20, 60, 80, 200)) * GAL}
    _maybe(rng, 0.8, receiver, "max_gauge_pa", rng.uniform(100, 200) * PSI)
    use: Raw = {}
    _maybe(rng, 0.7, use, "use_m3_s", rng.uniform(0.1, 1.2) * flow)
    _maybe(rng, 0.5, use, "wanted_gauge_pa", rng.uniform(40, 120) * PSI)
    system: Raw = {"receivers": [receiver], "pump": pump, "use": use}
    if rng.random() < 0.3:
        first = rng.uniform(80, 120) * PSI
        system["leak_test"] = {"from_gauge_pa": first, "to_gauge_pa": first - 14 * PSI}
        system["leak_test"]["seconds"] = rng.uniform(60, 2000)
    return _file(kind, rng, system, low, high, None)


def _tankless(kind: str, rng: random.Random) -> Raw:
    low = rng.uniform(10, 45) * PSI
    high = low + rng.uniform(3, 20) * PSI
    top, most = rng.uniform(30, 75) * PSI, rng.uniform(1.5, 6) * GPM
    points = [
        {"flow_m3_s": share * most, "gauge_pa": top * (1 - fall)}
        for share, fall in ((0, 0), (0.3, 0.22), (0.6, 0.5), (1, 0.95))
    ]
    least = rng.uniform(10.3, 12.2)
    system: Raw = {
        "pump": {"points": points},
        "battery": {"least_v": least, "most_v": least + rng.uniform(0.5, 3.5)},
        "outlets": [
            {"name": "Tap", "flow_m3_s": rng.uniform(0.2, 3) * GPM, "gauge_pa": 20 * PSI}
            for _ in range(rng.choice((1, 2)))
        ],
    }
    charge = None
    if rng.random() < 0.4:
        system["accumulator"] = {"volume_m3": rng.choice((0.0005, 0.001, 0.002))}
        _maybe(rng, 0.6, system["accumulator"], "max_gauge_pa", rng.uniform(40, 150) * PSI)
        charge = rng.uniform(0.3, 1.3) * low
    return _file(kind, rng, system, low, high, charge)


def _file(
    kind: str, rng: random.Random, system: Raw, low: float, high: float, charge: float | None
) -> Raw:
    system |= {"kind": kind, "site": _site(rng), "switch": _switch(rng, low, high)}
    if kind != "tankless":
        system["relief"] = _relief(rng, high)
    settings: Raw = {"cut_in_gauge_pa": low, "cut_out_gauge_pa": high}
    settings |= {} if charge is None else {"pre_charge_gauge_pa": charge}
    practice = {
        "pre_charge_school": rng.choice(("two_below", "two_below", "five_below", "computed")),
        "run_time_school": rng.choice(("minute", "half_minute", "by_power")),
        "differential_school": rng.choice(("keep", "keep", "leave", "widen")),
        "cut_off_school": rng.choice(("either", "either", "fit", "avoid")),
    }
    return {
        "format": "zerodip-system",
        "version": 1,
        "system": system,
        "settings": settings,
        "practice": practice,
    }


def draw(kind: str, rng: random.Random) -> Raw:
    """One system of a kind."""
    if kind == "compressor":
        return _air(kind, rng)
    return _tankless(kind, rng) if kind == "tankless" else _water(kind, rng)
