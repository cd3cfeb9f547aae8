"""The set-point bench as tables: switches, calibrations and all that was entered."""

import json
from collections.abc import Callable, Iterator
from dataclasses import asdict

from django.db.models import QuerySet

from accounts.models import shown
from calibrations.models import Calibration, Device
from calibrations.selectors import made_of
from zerodip.bench.guide import past_row

from .scopes import Scope
from .table import ID, Row, Table

__all__ = ["BENCH_ROWS", "BENCH_TABLES"]

_POINTS = ("lower", "upper")
BENCH_TABLES = (
    Table(
        "switches",
        "Set-point switches",
        (
            ID,
            ("site_id", "string", "Site"),
            ("name", "string", "Name"),
            ("tag_number", "string", "Tag"),
            ("location", "string", "Location"),
            ("guards", "string", "Guards"),
            ("low_gauge_pa", "number", "Range from, Pa gauge"),
            ("high_gauge_pa", "number", "Range to, Pa gauge"),
            *(
                (f"{each}_gauge_pa", "number", f"{each.title()} point, Pa gauge")
                for each in _POINTS
            ),
            ("due_on", "date", "Next due"),
            ("due_by", "string", "Due by"),
            ("retired_at", "datetime", "Retired"),
        ),
        (("site_id", "sites"),),
    ),
    Table(
        "calibrations",
        "Calibrations: errors as found and as left",
        (
            ID,
            ("switch_id", "string", "Switch"),
            ("on", "date", "Day"),
            ("closed_at", "datetime", "Closed"),
            ("signed_by", "string", "Signed"),
            *(
                (f"{when}_{each}_pa", "number", f"{each.title()} point off as {when}, Pa")
                for when in ("found", "left")
                for each in _POINTS
            ),
        ),
        (("switch_id", "switches"),),
    ),
    Table(
        "calibration_entries",
        "Every entry of a calibration, corrections too",
        (
            ID,
            ("calibration_id", "string", "Calibration"),
            ("value", "string", "Value (JSON, SI)"),
            ("supersedes", "string", "Corrects"),
            ("at", "datetime", "When"),
            ("by", "string", "By"),
        ),
        (("calibration_id", "calibrations"),),
    ),
)


def _devices(scope: Scope) -> QuerySet[Device]:
    """Those of the sites; a system has none."""
    if scope.name == "systems":
        return Device.objects.none()
    return Device.objects.filter(site__in=scope.sites).order_by("data__name", "pk")


def _calibrations(scope: Scope) -> Iterator[Calibration]:
    found = Calibration.objects.filter(device__in=_devices(scope)).order_by("on", "pk")
    yield from found.prefetch_related("entries__made_by").iterator(chunk_size=50)


def _switches(scope: Scope) -> Iterator[Row]:
    for each in _devices(scope).iterator():
        points = zip(_POINTS, each.data["points"], strict=False)
        yield {
            "id": each.pk,
            "site_id": each.site_id,
            **each.data,
            **{f"{name}_gauge_pa": point["gauge_pa"] for name, point in points},
            "due_on": each.due_on,
            "due_by": each.due_by,
            "retired_at": each.retired_at,
        }


def _rows(scope: Scope) -> Iterator[Row]:
    for each in _calibrations(scope):
        made = made_of(each)
        yield {
            **(asdict(past_row(made)) if made else {}),
            "id": each.pk,
            "switch_id": each.device_id,
            "on": each.on,
            "closed_at": each.closed_at,
            "signed_by": each.signed_by,
        }


def _entries(scope: Scope) -> Iterator[Row]:
    for each in _calibrations(scope):
        for entry in each.entries.all():
            yield {
                "id": entry.id,
                "calibration_id": each.pk,
                "value": json.dumps(entry.value),
                "supersedes": entry.supersedes,
                "at": entry.made_at,
                "by": shown(entry.made_by, entry.by),
            }


BENCH_ROWS: dict[str, Callable[[Scope], Iterator[Row]]] = {
    "switches": _switches,
    "calibrations": _rows,
    "calibration_entries": _entries,
}
