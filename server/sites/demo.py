"""The demo's data: one workspace, five sites, a system of every kind. All invented."""

from typing import Any

from zerodip.units import to_si

__all__ = ["SITES"]


def _gauge(psi: float) -> float:
    return to_si(psi, "psi")


def _file(
    name: str,
    kind: str,
    system: dict[str, Any],
    settings: tuple[float, float, float | None],
    **practice: Any,
) -> dict[str, Any]:
    cut_in, cut_out, pre_charge = settings
    return {
        "format": "zerodip-system",
        "version": 1,
        "system": {"kind": kind, "name": name, **system},
        "settings": {
            "cut_in_gauge_pa": _gauge(cut_in),
            "cut_out_gauge_pa": _gauge(cut_out),
            "pre_charge_gauge_pa": None if pre_charge is None else _gauge(pre_charge),
        },
        "practice": practice or {"follows": "workspace"},
    }


def _psi(bar: float) -> float:
    return to_si(bar, "bar") / to_si(1, "psi")


def _curve(points: list[tuple[float, float]]) -> list[dict[str, float]]:
    return [{"flow_m3_s": to_si(gpm, "gpm"), "head_m": to_si(feet, "ft")} for gpm, feet in points]


_SWITCH = {
    "nuts": "two",
    "low_pressure_cut_off": False,
    "earth_present": True,
    "least_cut_in_gauge_pa": _gauge(15),
    "most_cut_out_gauge_pa": _gauge(80),
    "least_differential_pa": _gauge(15),
    "most_differential_pa": _gauge(30),
}

HEALTHY = _file(
    "Potting-shed well",
    "well_bladder",
    {
        "site": {
            "altitude_m": to_si(2300, "ft"),
            "now_k": to_si(46, "degF"),
            "mean_k": to_si(55, "degF"),
            "coldest_k": to_si(38, "degF"),
            "warmest_k": to_si(72, "degF"),
        },
        "tanks": [
            {
                "volume_m3": to_si(44, "gal"),
                "max_gauge_pa": _gauge(100),
                "acceptance_m3": to_si(34, "gal"),
            },
        ],
        "pump": {
            "model": "curve",
            "power_w": to_si(0.75, "hp"),
            "max_gauge_pa": _gauge(150),
            "points": _curve([(0, 262), (3, 252), (6, 232), (9, 198), (12, 146)]),
            "lift_m": to_si(60, "ft"),
            "drop_pipe": {
                "length_m": to_si(90, "ft"),
                "diameter_m": to_si(1.05, "in"),
                "c_factor": 150,
            },
        },
        "switch": _SWITCH,
        "relief": {"present": True, "setting_gauge_pa": _gauge(75)},
        "supply": {"yield_m3_s": to_si(15, "gpm")},
        "demand": {
            "peak_draw_m3_s": to_si(9, "gpm"),
            "daily_m3": to_si(320, "gal"),
            "highest_tap_m": to_si(22, "ft"),
            "highest_tap_pipe": {
                "length_m": to_si(60, "ft"),
                "diameter_m": to_si(1.05, "in"),
                "c_factor": 150,
            },
            "pipe_max_gauge_pa": _gauge(160),
        },
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
    "well_bladder",
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
        "demand": {"peak_draw_m3_s": to_si(8, "gpm"), "highest_tap_m": to_si(12, "ft")},
        "found": {"pre_charge_gauge_pa": _gauge(38)},
    },
    (30, 50, 38),
)

SHORT = _file(
    "Millrace cottage",
    "well_bladder",
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

BOOSTER = _file(
    "Top-floor booster",
    "boosted",
    {
        "site": {"altitude_m": 240},
        "tanks": [{"volume_m3": 0.1, "max_gauge_pa": 1_000_000, "acceptance_m3": 0.065}],
        "pump": {
            "model": "curve",
            "motor": "surface",
            "power_w": 750,
            "max_gauge_pa": 1_000_000,
            "points": [
                {"flow_m3_s": to_si(flow, "L/min"), "head_m": head}
                for flow, head in ((0, 42), (20, 39), (40, 33), (60, 23))
            ],
            "inlet_gauge_pa": to_si(1.5, "bar"),
        },
        "switch": {"low_pressure_cut_off": False, "earth_present": True},
        "relief": {"present": True, "setting_gauge_pa": to_si(7, "bar")},
        "supply": {
            "lowest_inlet_gauge_pa": to_si(0.5, "bar"),
            "highest_inlet_gauge_pa": to_si(3.2, "bar"),
        },
        "demand": {
            "peak_draw_m3_s": to_si(35, "L/min"),
            "daily_m3": 0.9,
            "highest_tap_m": 14,
            "wanted_tap_gauge_pa": to_si(1.5, "bar"),
        },
    },
    (_psi(3.0), _psi(4.4), _psi(2.85)),
)

RAIN = _file(
    "Glasshouse rainwater",
    "cistern",
    {
        "site": {"altitude_m": to_si(2300, "ft")},
        "tanks": [{"volume_m3": to_si(20, "gal"), "max_gauge_pa": _gauge(100)}],
        "pump": {
            "model": "rated_point",
            "power_w": to_si(0.5, "hp"),
            "flow_m3_s": to_si(6, "gpm"),
            "gauge_pa": _gauge(35),
            "lift_m": to_si(4, "ft"),
            "dead_head_gauge_pa": _gauge(68),
        },
        "switch": {**_SWITCH, "low_pressure_cut_off": True},
        "relief": {"present": True, "setting_gauge_pa": _gauge(75)},
        "supply": {"treated": False, "labelled": False},
        "demand": {"peak_draw_m3_s": to_si(5, "gpm"), "daily_m3": to_si(500, "gal")},
        "found": {"pre_charge_gauge_pa": _gauge(28)},
    },
    (30, 50, 28),
)

PLAIN = _file(
    "Byre well",
    "well_air",
    {
        "site": {"altitude_m": to_si(900, "ft")},
        "tanks": [{"volume_m3": to_si(120, "gal"), "max_gauge_pa": _gauge(75)}],
        "pump": {
            "model": "rated_point",
            "power_w": to_si(1, "hp"),
            "flow_m3_s": to_si(12, "gpm"),
            "gauge_pa": _gauge(40),
            "lift_m": to_si(80, "ft"),
            "dead_head_gauge_pa": _gauge(78),
        },
        "switch": {"nuts": "two", "low_pressure_cut_off": False, "earth_present": True},
        "relief": {"present": True, "setting_gauge_pa": _gauge(75)},
        "supply": {"yield_m3_s": to_si(9, "gpm")},
        "demand": {
            "peak_draw_m3_s": to_si(10, "gpm"),
            "daily_m3": to_si(900, "gal"),
            "highest_tap_m": to_si(10, "ft"),
        },
        "found": {
            "cut_in_gauge_pa": _gauge(30),
            "cut_out_gauge_pa": _gauge(50),
            "caught_m3": to_si(5.5, "gal"),
        },
    },
    (30, 50, 0),
)

TWIN = _file(
    "Twin-tank well",
    "well_bladder",
    {
        "site": {"altitude_m": to_si(900, "ft")},
        "tanks": [
            {"volume_m3": to_si(32, "gal"), "max_gauge_pa": _gauge(100)},
            {
                "volume_m3": to_si(20, "gal"),
                "max_gauge_pa": _gauge(100),
                "pre_charge_gauge_pa": _gauge(6),
            },
        ],
        "pump": {
            "model": "constant",
            "power_w": to_si(0.5, "hp"),
            "flow_m3_s": to_si(8, "gpm"),
            "dead_head_gauge_pa": _gauge(82),
        },
        "switch": _SWITCH,
        "relief": {"present": True, "setting_gauge_pa": _gauge(75)},
        "demand": {
            "peak_draw_m3_s": to_si(7, "gpm"),
            "daily_m3": to_si(250, "gal"),
            "highest_tap_m": to_si(15, "ft"),
        },
        "found": {"pre_charge_gauge_pa": _gauge(36)},
    },
    (40, 60, 38),
)

COMPRESSOR = _file(
    "Workshop compressor",
    "compressor",
    {
        "site": {"altitude_m": to_si(900, "ft")},
        "receivers": [{"volume_m3": to_si(60, "gal"), "max_gauge_pa": _gauge(150)}],
        "pump": {
            "points": [
                {"gauge_pa": _gauge(40), "flow_m3_s": to_si(13.1, "cfm")},
                {"gauge_pa": _gauge(90), "flow_m3_s": to_si(11.5, "cfm")},
                {"gauge_pa": _gauge(135), "flow_m3_s": to_si(10.2, "cfm")},
            ],
            "max_gauge_pa": _gauge(155),
            "power_w": to_si(3, "hp"),
        },
        "switch": {"nuts": "one", "earth_present": True, "most_cut_out_gauge_pa": _gauge(175)},
        "relief": {"present": True, "setting_gauge_pa": _gauge(150)},
        "use": {"use_m3_s": to_si(6, "cfm"), "wanted_gauge_pa": _gauge(90)},
        "leak_test": {"from_gauge_pa": _gauge(120), "to_gauge_pa": _gauge(108), "seconds": 600},
    },
    (115, 140, None),
)

GALLEY = _file(
    "Galley pump",
    "tankless",
    {
        "pump": {
            "nominal_v": 12,
            "power_w": 85,
            "points": [
                {"flow_m3_s": to_si(flow, "gpm"), "gauge_pa": _gauge(psi)}
                for flow, psi in ((0, 58), (1.0, 45), (2.0, 31), (3.0, 14), (3.4, 6))
            ],
        },
        "battery": {"least_v": 11.6, "most_v": 13.8},
        "outlets": [
            {"name": "Shower", "flow_m3_s": to_si(1.8, "gpm"), "gauge_pa": _gauge(20)},
            {"name": "Galley tap", "flow_m3_s": to_si(2.4, "gpm"), "gauge_pa": _gauge(20)},
        ],
        "switch": {"nuts": "one"},
    },
    (35, 46, None),
)

TRICKLE = _file(
    "Camper van pump",
    "tankless",
    {
        "pump": {
            "nominal_v": 12,
            "power_w": 60,
            "points": [
                {"flow_m3_s": to_si(flow, "L/min"), "gauge_pa": to_si(bar, "bar")}
                for flow, bar in ((0, 2.8), (4, 2.2), (8, 1.4), (12, 0.4))
            ],
        },
        "battery": {"least_v": 11.2, "most_v": 14.4},
        "outlets": [
            {"name": "Hand shower", "flow_m3_s": to_si(3, "L/min"), "gauge_pa": to_si(1, "bar")},
            {"name": "Sink", "flow_m3_s": to_si(7, "L/min"), "gauge_pa": to_si(1, "bar")},
        ],
        "accumulator": {"volume_m3": to_si(0.75, "L"), "max_gauge_pa": to_si(8, "bar")},
        "switch": {"nuts": "one"},
    },
    (_psi(1.5), _psi(2.2), _psi(1.3)),
)

SITES: tuple[tuple[str, str, tuple[dict[str, Any], ...]], ...] = (
    ("Larkfield Nursery", "us", (HEALTHY, DIP, RAIN)),
    ("Quillbeck Lane", "metric", (SHORT, BOOSTER)),
    ("Tarn Hill Farm", "us", (PLAIN, TWIN, COMPRESSOR)),
    ("Harrowmere Wharf", "us", (GALLEY,)),
    ("On the road", "metric", (TRICKLE,)),
)
