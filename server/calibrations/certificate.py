"""The certificate of a calibration, one page."""

from datetime import date
from typing import Any

from common.errors import NotFound
from documents.printing import printed
from zerodip.bench.calibrate import calibrate
from zerodip.bench.certificate import Certificate, certificate_of
from zerodip.bench.words import shown, titles

from .models import Calibration, Device
from .selectors import corrected_after_closing, made_of, past_before, switch_of

__all__ = ["certificate_pdf", "label_pdf"]

_MIDDLE, _HALF, _MOST, _LANE, _TALL = 150.0, 60.0, 2.3, 18.0, 46.0


def certificate_pdf(calibration: Calibration, asked: str) -> bytes:
    """The certificate as a PDF, told in what the switch is marked in, else in the unit system
    asked, whose paper it is on. Raises NotFound before each point was read."""
    made = made_of(calibration, past_before(calibration))
    if made is None:
        raise NotFound
    units = made.device.told_in(asked)
    it = certificate_of(made, calibrate(made, units), units)
    entries = list(calibration.entries.select_related("made_by"))
    page = {
        "it": it,
        "name": made.device.name,
        "number": str(calibration.pk)[:8].upper(),
        "site": calibration.device.site.name,
        "on": calibration.on,
        "due": date.fromisoformat(it.next_due),
        "signed_by": calibration.signed_by,
        "remark": calibration.remark,
        "adjusted": bool(made.left),
        "corrected": corrected_after_closing(calibration, entries, units),
        "plot": _plot(it),
    }
    return printed("calibrations/certificate.html", page, asked)


def label_pdf(device: Device, asked: str) -> bytes:
    """The label for a switch: its points (told as on its certificate), when it was last calibrated
    and when it is due again. Raises NotFound where it never was."""
    latest = device.calibrations.filter(closed_at__isnull=False).first()
    if latest is None:
        raise NotFound
    switch = switch_of(latest.switch)
    units = switch.told_in(asked)
    page = {
        "name": switch.name,
        "tag": switch.tag_number,
        "points": [
            (title, shown(point.gauge_pa, units, switch.tolerance_pa(at) / 2), point.acts)
            for at, (title, point) in enumerate(zip(titles(switch), switch.points, strict=True))
        ],
        "on": latest.on,
        "due": device.due_on,
        "by": latest.signed_by,
        "number": str(latest.pk)[:8].upper(),
        "failed": device.due_by == "failed",
    }
    return printed("calibrations/label.html", page, asked)


def _plot(it: Certificate) -> dict[str, Any]:
    """Where the dots lie: a lane for each point, the tolerance in its middle."""
    lanes = []
    for at, title in enumerate(it.titles):
        top = _LANE + at * _TALL
        dots = [
            {
                "x": round(_MIDDLE + _HALF * min(max(dot.share, -_MOST), _MOST), 1),
                "y": round(top + 3 + 8 * (k % 3) / 2, 1),
                "left": dot.left,
            }
            for k, dot in enumerate(dot for dot in it.dots if dot.at == at)
        ]
        lanes.append({"title": title, "y": top, "dots": dots})
    low, high = _MIDDLE - _HALF, _MIDDLE + _HALF
    tall = _LANE + _TALL * len(lanes) - 20
    return {"lanes": lanes, "low": low, "high": high, "wide": high - low, "tall": tall}
