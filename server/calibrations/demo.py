"""Made-up switches for the demo: a dual one with three calibrations of the past, whose upper point
drifts, a vacuum switch that was never calibrated, and two references."""

import uuid
from datetime import date, timedelta
from typing import Any

from django.utils import timezone

from sites.models import Site
from zerodip.bench.device import BenchDevice
from zerodip.bench.device import Reference as ReferenceGauge
from zerodip.units import to_si

from .models import Calibration, CalibrationEntry, Device, Reference
from .services import checked, refresh_due

__all__ = ["make_demo"]

_KPA = 1e3
_INHG = to_si(1.0, "inHg")
_DUAL = {
    "name": "Humidifier steam trip",
    "tag_number": "PS-12",
    "plate": "dual set point, 0 to 1000 kPa",
    "location": "boiler room, wall panel",
    "guards": "The humidifier's steam line",
    "medium": "steam",
    "hazardous": False,
    "unit": "kPa",
    "high_gauge_pa": 1000 * _KPA,
    "points": [
        {
            "gauge_pa": 280 * _KPA,
            "acts": "falling",
            "tolerance_share": 0.01,
            "deadband_pa": 60 * _KPA,
        },
        {
            "gauge_pa": 620 * _KPA,
            "acts": "rising",
            "tolerance_share": 0.01,
            "deadband_pa": 60 * _KPA,
        },
    ],
}
_VACUUM = {
    "name": "Milk line vacuum alarm",
    "tag_number": "VS-3",
    "location": "parlour, under the receiver jar",
    "guards": "The milk pump",
    "medium": "air",
    "hazardous": False,
    "unit": "inHg",
    "low_gauge_pa": -30 * _INHG,
    "high_gauge_pa": 0.0,
    "points": [{"gauge_pa": -12.5 * _INHG, "acts": "rising", "tolerance_pa": 0.5 * _INHG}],
}
_REFERENCES = (
    {
        "name": "Bench reference 1",
        "serial": "R-0417",
        "high_gauge_pa": 1600 * _KPA,
        "expanded_pa": 0.8 * _KPA,
        "resolution_pa": 100.0,
    },
    {
        "name": "Compound reference",
        "serial": "R-0533",
        "unit": "inHg",
        "low_gauge_pa": -30 * _INHG,
        "high_gauge_pa": 90 * _INHG,
        "grade": "3A",
        "resolution_pa": 0.05 * _INHG,
    },
)
# Years ago; both points off as found; both as left (kPa): the upper one drifts upwards.
_PAST = (
    (3.0, (1.2, -0.8), (1.2, -0.8)),
    (2.0, (0.9, 3.6), (0.9, 0.4)),
    (1.0, (1.6, 4.4), (1.6, 4.4)),
)


def make_demo(site: Site) -> None:
    """Makes them at a site."""
    today = timezone.now().date()
    for raw in _REFERENCES:
        due = (today + timedelta(days=200)).isoformat()
        kept = checked(ReferenceGauge, {**raw, "due": due}, "")
        Reference.objects.create(id=uuid.uuid4(), workspace_id=site.workspace_id, data=kept)
    Device.objects.create(id=uuid.uuid4(), site=site, data=checked(BenchDevice, _VACUUM, ""))
    device = Device.objects.create(id=uuid.uuid4(), site=site, data=checked(BenchDevice, _DUAL, ""))
    for years, found, left in _PAST:
        _past(device, today - timedelta(days=round(365.25 * years)), found, left)
    refresh_due(device)


def _past(device: Device, on: date, found: tuple[float, float], left: tuple[float, float]) -> None:
    due = (on + timedelta(days=200)).isoformat()
    closed = timezone.now() - (timezone.now().date() - on)
    made = Calibration.objects.create(
        id=uuid.uuid4(),
        device=device,
        switch=device.data,
        reference=checked(ReferenceGauge, {**_REFERENCES[0], "due": due}, ""),
        on=on,
        opened_at=closed - timedelta(hours=2),
        closed_at=closed,
        signed_by="M. Linden",
    )
    values = _runs(device, found)
    if found != left:
        values += [{"kind": "turned", "upper": -0.0625}, *_runs(device, left)]
    for value in values:
        CalibrationEntry.objects.create(
            id=uuid.uuid4(), calibration=made, value=value, made_at=closed - timedelta(hours=1)
        )


def _runs(device: Device, off: tuple[float, float]) -> list[dict[str, Any]]:
    """Three runs up and down of each point."""
    made: list[dict[str, Any]] = []
    for scatter in (-0.2, 0.3, -0.1):
        for at, name in ((1, "upper"), (0, "lower")):
            point = device.data["points"][at]
            way = 1 if point["acts"] == "rising" else -1
            acted = point["gauge_pa"] + (off[at] + scatter) * _KPA
            read_at = {"set": acted, "reset": acted - way * (38 + scatter) * _KPA}
            made += [
                {"kind": "read", "point": name, "which": which, "gauge_pa": round(pa, -2)}
                for which, pa in read_at.items()
            ]
    return made
