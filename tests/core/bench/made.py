"""Made-up calibrations."""

from typing import Any

from zerodip.bench.file import Calibration, read_calibration

KPA = 1e3


def runs(
    point: str, *pairs: tuple[float, float], rate: float | None = 500.0
) -> list[dict[str, Any]]:
    """Runs of a point, each where it acted and where it reset, kPa."""
    return [
        {
            "point": point,
            "set_gauge_pa": acted * KPA,
            "reset_gauge_pa": reset * KPA,
            "rate_pa_s": rate,
        }
        for acted, reset in pairs
    ]


def dual(**changed: Any) -> dict[str, Any]:
    """A dual switch of 0 to 1000 kPa: 300 kPa falling, 700 kPa rising, ± 1 % of it."""
    return {
        "device": {
            "name": "Feed pump trip",
            "guards": "The feed pump",
            "high_gauge_pa": 1000 * KPA,
            "points": [
                {"gauge_pa": 300 * KPA, "acts": "falling", "tolerance_share": 0.01},
                {"gauge_pa": 700 * KPA, "acts": "rising", "tolerance_share": 0.01},
            ],
        },
        "reference": {
            "name": "Bench 1",
            "high_gauge_pa": 1600 * KPA,
            "expanded_pa": 1 * KPA,
            "resolution_pa": 100.0,
            "due": "2027-03-01",
        },
        "on": "2026-11-27",
        "found": [
            *runs("lower", (300.4, 340), (300.9, 341), (300.2, 340.5)),
            *runs("upper", (702.4, 661), (702.0, 660.5), (703.0, 661.3)),
        ],
        **changed,
    }


def calibration(**changed: Any) -> Calibration:
    """The same, read."""
    return read_calibration(dual(**changed))
