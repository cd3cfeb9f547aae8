"""A file to begin with for each kind of system: usual values, to be replaced by what is read on site."""

from typing import Any

from .units import PSI, to_si

__all__ = ["starting_file"]

_GAL, _GPM, _CFM = to_si(1, "gal"), to_si(1, "gpm"), to_si(1, "cfm")


def _settings(cut_in: float, cut_out: float, air: float | None) -> dict[str, Any]:
    charge = None if air is None else air * PSI
    return {"cut_in_gauge_pa": cut_in * PSI, "cut_out_gauge_pa": cut_out * PSI, "pre_charge_gauge_pa": charge}


_WATER: dict[str, Any] = {
    "tanks": [{"volume_m3": 44 * _GAL}],
    "pump": {"model": "constant", "flow_m3_s": 10 * _GPM},
}
_CURVE = ((0, 58), (1.0, 45), (2.0, 31), (3.0, 14))
_STARTS: dict[str, tuple[dict[str, Any], dict[str, Any]]] = {
    "well_bladder": (_WATER, _settings(40, 60, 38)),
    "well_air": (_WATER, _settings(30, 50, 0)),
    "cistern": (_WATER, _settings(30, 50, 28)),
    "boosted": (_WATER, _settings(40, 60, 38)),
    "compressor": (
        {"receivers": [{"volume_m3": 60 * _GAL}], "pump": {"points": [{"gauge_pa": 90 * PSI, "flow_m3_s": 10 * _CFM}]}},
        _settings(100, 125, None),
    ),
    "tankless": (
        {
            "pump": {"points": [{"flow_m3_s": gpm * _GPM, "gauge_pa": psi * PSI} for gpm, psi in _CURVE]},
            "battery": {"least_v": 11.6, "most_v": 13.8},
            "outlets": [{"name": "Tap", "flow_m3_s": 2 * _GPM, "gauge_pa": 20 * PSI}],
        },
        _settings(35, 46, None),
    ),
}


def starting_file(kind: str, name: str) -> dict[str, Any]:
    """A file as plain values for `read_document`, with the workspace's practice. Values are common practice, no source: a
    40/60 switch, a 44 gal tank, a receiver of 60 gal. Raises KeyError for a kind that is not one of `zerodip.system.KINDS`."""
    system, settings = _STARTS[kind]
    return {
        "format": "zerodip-system",
        "version": 1,
        "system": {"kind": kind, "name": name, **system},
        "settings": settings,
        "practice": {"follows": "workspace"},
    }
