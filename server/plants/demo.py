"""The demo's data: one workspace, two sites, three systems that differ. All invented."""

from typing import Any

from zerodip.units import to_si

__all__ = ["SITES"]


def _gauge(psi: float) -> float:
    return to_si(psi, "psi")


def _file(name: str, system: dict[str, Any], settings: tuple[float, float, float]) -> dict[str, Any]:
    cut_in, cut_out, pre_charge = settings
    return {
        "format": "zerodip-system",
        "version": 1,
        "system": {"kind": "well_bladder", "name": name, **system},
        "settings": {
            "cut_in_gauge_pa": _gauge(cut_in),
            "cut_out_gauge_pa": _gauge(cut_out),
            "pre_charge_gauge_pa": _gauge(pre_charge),
        },
    }


def _psi(bar: float) -> float:
    return to_si(bar, "bar") / to_si(1, "psi")


def _curve(points: list[tuple[float, float]]) -> list[dict[str, float]]:
    return [{"flow_m3_s": to_si(gpm, "gpm"), "head_m": to_si(feet, "ft")} for gpm, feet in points]


HEALTHY = _file(
    "Potting-shed well",
    {
        "site": {"altitude_m": to_si(2300, "ft")},
        "tanks": [
            {"volume_m3": to_si(44, "gal"), "max_gauge_pa": _gauge(100), "acceptance_m3": to_si(34, "gal")},
        ],
        "pump": {
            "model": "curve",
            "power_w": to_si(0.75, "hp"),
            "points": _curve([(0, 262), (3, 252), (6, 232), (9, 198), (12, 146)]),
            "lift_m": to_si(60, "ft"),
            "drop_pipe": {"length_m": to_si(90, "ft"), "diameter_m": to_si(1.05, "in"), "c_factor": 150},
        },
        "switch": {"nuts": "two", "low_pressure_cut_off": False, "earth_present": True},
        "relief": {"present": True, "setting_gauge_pa": _gauge(75)},
        "demand": {"peak_draw_m3_s": to_si(9, "gpm"), "daily_m3": to_si(320, "gal")},
        "found": {
            "pre_charge_gauge_pa": _gauge(36.5),
            "last_pre_charge_gauge_pa": _gauge(38),
            "last_years_ago": 1.0,
        },
    },
    (40, 60, 38),
)

DIP = _file(
    "Orchard house well",
    {
        "site": {"altitude_m": to_si(2300, "ft")},
        "tanks": [
            {"volume_m3": to_si(32, "gal"), "max_gauge_pa": _gauge(100)},
        ],
        "pump": {
            "model": "rated_point",
            "power_w": to_si(0.5, "hp"),
            "flow_m3_s": to_si(7, "gpm"),
            "gauge_pa": _gauge(40),
            "lift_m": to_si(45, "ft"),
            "dead_head_gauge_pa": _gauge(84),
            "start_lag_s": 2.0,
        },
        "switch": {"nuts": "two", "low_pressure_cut_off": False, "earth_present": True},
        "relief": {"present": True, "setting_gauge_pa": _gauge(75)},
        "demand": {"peak_draw_m3_s": to_si(8, "gpm")},
        "found": {"pre_charge_gauge_pa": _gauge(38)},
    },
    (30, 50, 38),
)

SHORT = _file(
    "Millrace cottage",
    {
        "site": {"altitude_m": 240},
        "tanks": [{"volume_m3": 0.024, "max_gauge_pa": 1_000_000}],
        "pump": {
            "model": "rated_point",
            "power_w": 750,
            "flow_m3_s": to_si(48, "L/min"),
            "gauge_pa": to_si(2.5, "bar"),
            "lift_m": 9,
            "dead_head_gauge_pa": to_si(5.2, "bar"),
        },
        "switch": {"nuts": "two", "low_pressure_cut_off": True, "earth_present": None},
        "relief": {"present": None},
        "demand": {"peak_draw_m3_s": to_si(30, "L/min"), "daily_m3": 0.6},
        "found": {
            "pre_charge_gauge_pa": to_si(1.1, "bar"),
            "last_pre_charge_gauge_pa": to_si(1.9, "bar"),
            "last_years_ago": 2.0,
        },
    },
    (_psi(2.0), _psi(3.0), _psi(1.86)),
)

SITES: tuple[tuple[str, str, tuple[dict[str, Any], ...]], ...] = (
    ("Larkfield Nursery", "us", (HEALTHY, DIP)),
    ("Quillbeck Lane", "metric", (SHORT,)),
)
