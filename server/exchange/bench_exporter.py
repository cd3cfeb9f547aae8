"""References and set-point switches as an archive holds them."""

from collections.abc import Iterator
from typing import Any

from django.db.models import Prefetch

from accounts.models import shown
from calibrations.models import Calibration, CalibrationEntry, Device, Reference
from sites.models import Site

from .scopes import Scope

__all__ = ["reference_items", "switch_items"]


def reference_items(scope: Scope) -> list[dict[str, Any]]:
    """A workspace's references."""
    found = Reference.objects.filter(workspace_id=scope.workspace_id)
    return [
        {"id": r.pk, "reference": r.data, "gauge": r.gauge_id, "retired": r.retired} for r in found
    ]


def switch_items(site: Site) -> Iterator[dict[str, Any]]:
    """A site's switches with everything on record, in a bounded number of queries a chunk."""
    entries = CalibrationEntry.objects.select_related("made_by")
    made = Calibration.objects.order_by("on", "opened_at", "pk").select_related("opened_by")
    made = made.prefetch_related(Prefetch("entries", entries))
    found = Device.objects.filter(site=site).order_by("data__name", "pk")
    for each in found.prefetch_related(Prefetch("calibrations", made)).iterator(chunk_size=20):
        yield {
            "id": each.pk,
            "switch": each.data,
            "retired_at": each.retired_at,
            "calibrations": [_calibration(made) for made in each.calibrations.all()],
        }


def _calibration(made: Calibration) -> dict[str, Any]:
    return {
        "id": made.pk,
        "switch": made.switch,
        "reference": made.reference,
        "gauge": made.gauge_id,
        "on": made.on,
        "opened_at": made.opened_at,
        "by": shown(made.opened_by, made.by),
        "closed_at": made.closed_at,
        "signed_by": made.signed_by,
        "remark": made.remark,
        "entries": [_entry(each) for each in made.entries.all()],
    }


def _entry(each: CalibrationEntry) -> dict[str, Any]:
    return {
        "id": each.id,
        "value": each.value,
        "supersedes": each.supersedes,
        "at": each.made_at,
        "by": shown(each.made_by, each.by),
    }
