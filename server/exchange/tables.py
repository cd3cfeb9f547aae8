"""The same as tables for a spreadsheet: CSV files in a zip, described as a data package
(datapackage.org, version 1)."""

import csv
import io
import json
import zipfile
from collections.abc import Callable, Iterable, Iterator
from typing import Any, BinaryIO

from accounts.models import shown
from gauges.models import Gauge
from sites.models import System
from visits.models import Visit
from visits.selectors import record_of
from zerodip.visit.summary import summarize_visit

from .bench_tables import BENCH_ROWS, BENCH_TABLES
from .exporter import whole
from .scopes import Scope
from .table import ID, Row, Table

__all__ = ["TABLES", "package", "safe", "write_tables"]

TABLES = (
    Table(
        "sites", "Sites", (ID, ("name", "string", "Name"), ("units", "string", "Units used there"))
    ),
    Table(
        "systems",
        "Systems as they stand",
        (
            ID,
            ("site_id", "string", "Site"),
            ("name", "string", "Name"),
            ("kind", "string", "Kind"),
            ("cut_in_gauge_pa", "number", "Cut-in, Pa gauge"),
            ("cut_out_gauge_pa", "number", "Cut-out, Pa gauge"),
            ("pre_charge_gauge_pa", "number", "Pre-charge, Pa gauge"),
            ("verdict", "string", "Worst verdict"),
            ("stops", "integer", "Stops"),
            ("cautions", "integer", "Cautions"),
            ("unread", "integer", "Not read"),
            ("retired_at", "datetime", "Retired"),
            ("last_visit_at", "datetime", "Last closed visit"),
            ("due_at", "datetime", "Next check"),
        ),
        (("site_id", "sites"),),
    ),
    Table(
        "visits",
        "Visits: as found and as left",
        (
            ID,
            ("system_id", "string", "System"),
            ("opened_at", "datetime", "Opened"),
            ("closed_at", "datetime", "Closed"),
            ("by", "string", "By"),
            *(
                (f"{when}_{point}_gauge_pa", "number", f"{title} as {when}, Pa gauge")
                for when in ("found", "left")
                for point, title in (
                    ("cut_in", "Cut-in"),
                    ("cut_out", "Cut-out"),
                    ("pre_charge", "Pre-charge"),
                )
            ),
            ("run_s", "number", "Pump run, s"),
            ("tries", "integer", "Tries"),
            ("dip", "boolean", "Dip seen"),
        ),
        (("system_id", "systems"),),
    ),
    Table(
        "entries",
        "Every record ever made, corrections too",
        (
            ID,
            ("visit_id", "string", "Visit"),
            ("slot", "string", "What"),
            ("value", "string", "Value (JSON, SI)"),
            ("supersedes", "string", "Corrects"),
            ("at", "datetime", "When"),
            ("by", "string", "By"),
            ("by_gauge", "string", "Shown by the gauge"),
        ),
        (("visit_id", "visits"),),
    ),
    Table(
        "decisions",
        "Settings decided on",
        (
            ID,
            ("system_id", "string", "System"),
            ("made_at", "datetime", "When"),
            ("by", "string", "By"),
            ("verdict", "string", "Worst verdict"),
            ("cut_in_gauge_pa", "number", "Cut-in, Pa gauge"),
            ("cut_out_gauge_pa", "number", "Cut-out, Pa gauge"),
            ("pre_charge_gauge_pa", "number", "Pre-charge, Pa gauge"),
        ),
        (("system_id", "systems"),),
    ),
    Table(
        "gauges",
        "Gauges owned",
        (
            ID,
            ("name", "string", "Name"),
            ("reads", "string", "Reads"),
            ("scale_gauge_pa", "number", "End of the scale, Pa gauge"),
            ("grade", "string", "Grade"),
            ("low_pa", "number", "Shows too little by, Pa"),
            ("checked_on", "date", "Last checked"),
            ("retired", "boolean", "Out of use"),
        ),
    ),
    *BENCH_TABLES,
)


_RUN = ("=", "+", "-", "@", "\t", "\r", "＝", "＋", "－", "＠")


def safe(cell: Any) -> Any:
    """A cell as written: times with their offset, and text that a spreadsheet would run as a
    formula behind an apostrophe."""
    if isinstance(cell, bool):
        return "true" if cell else "false"
    if hasattr(cell, "isoformat"):
        return cell.isoformat()
    if isinstance(cell, str) and cell.startswith(_RUN) and not _number(cell):
        return f"'{cell}"
    return cell


def _number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True


def write_tables(scope: Scope, into: BinaryIO) -> None:
    """Writes the zip."""
    with zipfile.ZipFile(into, "w", zipfile.ZIP_DEFLATED) as made:
        made.writestr("datapackage.json", json.dumps(package(), indent=1, ensure_ascii=False))
        for table in TABLES:
            with made.open(f"{table.name}.csv", "w", force_zip64=True) as out:
                text = io.TextIOWrapper(out, "utf-8", newline="")
                _write(table, _ROWS[table.name](scope), text)
                text.flush()
                text.detach()


def _write(table: Table, rows: Iterable[Row], text: io.TextIOWrapper) -> None:
    names = [name for name, _, _ in table.columns]
    writer = csv.writer(text)
    writer.writerow(names)
    writer.writerows([safe(row.get(name)) for name in names] for row in rows)


def package() -> dict[str, Any]:
    """The data package's description."""
    return {
        "profile": "tabular-data-package",
        "name": "zerodip-tables",
        "title": "Zero Dip: sites, systems, visits, calibrations",
        "resources": [_resource(table) for table in TABLES],
    }


def _resource(table: Table) -> dict[str, Any]:
    keys = [
        {"fields": [name], "reference": {"resource": other, "fields": ["id"]}}
        for name, other in table.leads
    ]
    return {
        "profile": "tabular-data-resource",
        "name": table.name,
        "title": table.title,
        "path": f"{table.name}.csv",
        "format": "csv",
        "mediatype": "text/csv",
        "encoding": "utf-8",
        "schema": {
            "fields": [
                {
                    "name": n,
                    "type": t,
                    "title": said,
                    **({"format": "any"} if t == "datetime" else {}),
                }
                for n, t, said in table.columns
            ],
            "primaryKey": ["id"],
            **({"foreignKeys": keys} if keys else {}),
        },
    }


def _sites(scope: Scope) -> Iterator[Row]:
    for site in scope.sites.order_by("name", "pk"):
        yield {"id": site.pk, "name": site.name, "units": site.units}


def _systems(scope: Scope) -> Iterator[Row]:
    for system in (
        scope.systems.select_related("next_check").order_by("site__name", "name", "pk").iterator()
    ):
        check = getattr(system, "next_check", None)
        yield {
            "id": system.pk,
            "site_id": system.site_id,
            "name": system.name,
            **system.summary,
            "retired_at": system.retired_at,
            "last_visit_at": check.last_at if check else None,
            "due_at": check.due_at if check else None,
        }


def _each(scope: Scope) -> Iterator[System]:
    yield from whole(scope.systems, photos=False).order_by("pk").iterator(chunk_size=50)


def _visits(scope: Scope) -> Iterator[Row]:
    for system in _each(scope):
        for visit in system.visits.all():
            yield {
                "id": visit.pk,
                "system_id": system.pk,
                "opened_at": visit.opened_at,
                "closed_at": visit.closed_at,
                "by": shown(visit.opened_by, visit.by),
                **_figures(visit),
            }


def _figures(visit: Visit) -> Row:
    done = summarize_visit(map(record_of, visit.entries.all()))
    points = {
        f"{when}_{name}": value
        for when, at in (("found", done.found), ("left", done.left))
        for name, value in vars(at).items()
    }
    return {**points, "run_s": done.run_s, "tries": done.tries, "dip": done.dip}


def _entries(scope: Scope) -> Iterator[Row]:
    for system in _each(scope):
        for visit in system.visits.all():
            for e in visit.entries.all():
                yield {
                    "id": e.id,
                    "visit_id": visit.pk,
                    "slot": e.slot,
                    "value": json.dumps(e.value),
                    "supersedes": e.supersedes,
                    "at": e.made_at,
                    "by": shown(e.made_by, e.by),
                    "by_gauge": e.by_gauge,
                }


def _decisions(scope: Scope) -> Iterator[Row]:
    for system in _each(scope):
        for each in system.decisions.all():
            yield {
                "id": each.pk,
                "system_id": system.pk,
                "made_at": each.made_at,
                "by": shown(each.made_by, each.by),
                "verdict": each.verdict,
                **each.document["settings"],
            }


def _gauges(scope: Scope) -> Iterator[Row]:
    if scope.name == "workspaces":
        for gauge in Gauge.objects.filter(workspace_id=scope.workspace_id):
            yield {
                "id": gauge.pk,
                **gauge.data,
                "checked_on": gauge.checked_on,
                "retired": gauge.retired,
            }


_ROWS: dict[str, Callable[[Scope], Iterator[Row]]] = {
    "sites": _sites,
    "systems": _systems,
    "visits": _visits,
    "entries": _entries,
    "decisions": _decisions,
    "gauges": _gauges,
    **BENCH_ROWS,
}
