"""Reads an advice as a technician does, by its words alone, and does to a file what it says."""

import copy
import re
from typing import Any

UNITS = {
    "psi": 6894.757293168,
    "bar": 1e5,
    "kPa": 1e3,
    "gal": 3.785411784e-3,
    "L": 1e-3,
    "gpm": 3.785411784e-3 / 60,
    "L/min": 1e-3 / 60,
    "cfm": 0.028316846592 / 60,
}
NUMBER = r"(-?[\d,.]*\d)"
P = rf"{NUMBER} (psi|bar|kPa)"
V = rf"{NUMBER} (gal|L)"
Q = rf"{NUMBER} (gpm|L/min|cfm)"
Raw = dict[str, Any]


def _si(number: str, unit: str) -> float:
    return float(number.replace(",", "")) * UNITS[unit]


def charge(raw: Raw, pa: float | None) -> None:
    """Every tank with one pre-charge."""
    raw["settings"]["pre_charge_gauge_pa"] = pa
    for tank in raw["system"].get("tanks", ()):
        tank.pop("pre_charge_gauge_pa", None)


def re_air(raw: Raw) -> None:
    """A plain tank drained, with all its air."""
    raw["settings"] |= {"air_renewed": True, "pre_charge_gauge_pa": 0.0}


def _switch(raw: Raw, said: re.Match[str]) -> None:
    low, high, unit = said.group(1, 2, 3)
    raw["settings"] |= {"cut_in_gauge_pa": _si(low, unit), "cut_out_gauge_pa": _si(high, unit)}


def sold(raw: Raw, volume: float) -> Raw:
    """A tank as it is sold for a system, m³: a bladder takes a third to four tenths of it."""
    tank: Raw = {"volume_m3": volume}
    return tank if raw["system"]["kind"] == "well_air" else {**tank, "acceptance_m3": 0.38 * volume}


def _put(raw: Raw, said: re.Match[str], name: str, beside: bool) -> None:
    plates = [tank.get("max_gauge_pa") for tank in raw["system"][name]]
    known = [plate for plate in plates if plate]
    volume = _si(said.group(1), said.group(2))
    tank = sold(raw, volume) if name == "tanks" else {"volume_m3": volume}
    if known and name == "tanks":
        tank["max_gauge_pa"] = min(known)
    raw["system"][name] = [*raw["system"][name], tank] if beside else [tank]


def _relief(raw: Raw, said: re.Match[str]) -> None:
    raw["system"]["relief"] = {
        "present": True,
        "setting_gauge_pa": _si(said.group(1), said.group(2)),
    }


def _pumped(raw: Raw, said: re.Match[str], now_m3_s: float) -> None:
    share = _si(said.group(1), said.group(2)) / now_m3_s
    pump = raw["system"]["pump"]
    if "points" in pump:
        for point in pump["points"]:
            point["flow_m3_s"] *= share
    else:
        pump["flow_m3_s"] *= share


def _larger(raw: Raw, said: re.Match[str]) -> None:
    flow = _si(said.group(1), said.group(2))
    for outlet in raw["system"]["outlets"]:
        outlet["flow_m3_s"] = max(outlet["flow_m3_s"], flow)


def _other_switch(raw: Raw) -> None:
    low, high = (raw["settings"][f"cut_{end}_gauge_pa"] for end in ("in", "out"))
    raw["system"]["switch"] |= {
        "least_cut_in_gauge_pa": 0.9 * low,
        "most_cut_out_gauge_pa": 1.1 * high,
        "least_differential_pa": 0.9 * (high - low),
        "most_differential_pa": 1.1 * (high - low),
    }


def done(raw: Raw, says: str, flow_m3_s: float) -> Raw:
    """The file after doing what an advice says; `flow_m3_s` is what the pump delivers now where a
    pump's flow is told. Raises AssertionError for words that nobody could follow."""
    raw, at = copy.deepcopy(raw), says
    did = False
    # What comes after the colon is what it gives, not what is to be done.
    does = at.split(": ")[0]

    def told(pattern: str) -> re.Match[str] | None:
        nonlocal did
        found = re.search(pattern, does)
        did = did or found is not None
        return found

    if said := told(rf"Set the switch to {NUMBER}/{NUMBER} (psi|bar|kPa)"):
        _switch(raw, said)
    if said := told(rf"Set tank ([\d and]+) to {P}"):
        for k in re.findall(r"\d+", said.group(1)):
            raw["system"]["tanks"][int(k) - 1].pop("pre_charge_gauge_pa", None)
    if said := told(rf"Set the (?:accumulator's )?pre-charge(?: in every tank)? to {P}"):
        charge(raw, _si(said.group(1), said.group(2)))
    if said := told(rf"Let air off to {P}"):
        charge(raw, _si(said.group(1), said.group(2)))
    if told(r"[Dd]rain the tank and let it take air|with all its air"):
        re_air(raw)
    if said := told(rf"Open fewer taps at a time, {Q} at most"):
        raw["system"]["demand"]["peak_draw_m3_s"] = _si(said.group(1), said.group(2))
    if said := told(rf"Use less air at a time, {Q} at most"):
        raw["system"]["use"]["use_m3_s"] = _si(said.group(1), said.group(2))
    for thing, name in (("tank", "tanks"), ("receiver", "receivers")):
        if said := told(rf"Add a {thing} of {V}"):
            _put(raw, said, name, True)
        if said := told(rf"Replace the .* by a {thing} of {V}"):
            _put(raw, said, name, False)
    if said := told(rf"Fit an accumulator of {V}"):
        raw["system"].setdefault("accumulator", {})["volume_m3"] = _si(*said.group(1, 2))
    if said := told(rf", pre-charge {P}"):
        _charge_only(raw, does, _si(said.group(1), said.group(2)))
    if said := told(rf"Have a (?:relief|safety) valve fitted, set to {P} at most"):
        _relief(raw, said)
    if told(r"Have a pressure-reducing valve fitted after the tank"):
        raw["system"]["demand"]["pressure_reducer"] = True
    if told(r"Label tank, lines and taps"):
        raw["system"]["supply"]["labelled"] = True
    if said := told(r"Fit a switch (with|without) a low-pressure cut-off"):
        raw["system"]["switch"]["low_pressure_cut_off"] = said.group(1) == "with"
    if told(r"Fit a switch whose range holds"):
        _other_switch(raw)
    if told(r"Have a licensed person fit an earth wire"):
        raw["system"]["switch"]["earth_present"] = True
    if said := told(rf"Fit a (?:pump|compressor) that delivers {Q}"):
        _pumped(raw, said, flow_m3_s)
    if said := told(rf"Open taps that pass {Q} at"):
        _larger(raw, said)
    assert did, f"nobody can follow: {says}"
    return raw


def _charge_only(raw: Raw, does: str, pa: float) -> None:
    """The pre-charge that goes with a switch setting leaves tanks with air of their own; with a new
    tank all are charged alike."""
    if "switch" in does:
        raw["settings"]["pre_charge_gauge_pa"] = pa
    else:
        charge(raw, pa)
