"""Writes what is generated from the code: the OpenAPI document, the tables that the front end is
built with, the file format's schema and the page of rules."""

import json
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from config.api import api
from exchange.archive import archive_schema
from zerodip import units
from zerodip.answers.writes import MAY_WAIT
from zerodip.bench.device import BenchDevice, Reference
from zerodip.bench.file import MAY_LACK, Calibration
from zerodip.documents.rules_page import rules_page
from zerodip.fileformat.schema import document_schema, field_table, part_schema
from zerodip.kinds.registry import KINDS
from zerodip.practice.ways import way_titles
from zerodip.visit.rough_plates import rough_of
from zerodip.visit.slot_table import slot_table
from zerodip.visit.slots import PHOTOS_OF
from zerodip.visit.trouble_asked import trouble_schema

WEB = "web/src/api/generated"


def _json(content: Any) -> str:
    return json.dumps(content, indent=1, ensure_ascii=False, default=str) + "\n"


def _constant(content: dict[str, Any]) -> str:
    """A table as a module, an entry a line, so that its names are types."""
    entries = (f"  {json.dumps(name)}: {_line(value)},\n" for name, value in content.items())
    return f"export default {{\n{''.join(entries)}}} as const\n"


def _line(content: Any) -> str:
    return json.dumps(content, ensure_ascii=False, default=str)


def contract() -> dict[str, str]:
    """The files' texts by path from the project's root."""
    return {
        "docs/openapi.json": _json(api.get_openapi_schema(path_prefix="/api/")),
        "docs/system.schema.json": _json(document_schema()),
        "docs/archive.schema.json": _json(archive_schema()),
        "docs/trouble.schema.json": _json(trouble_schema()),
        "docs/calibration.schema.json": _json(
            part_schema(Calibration, "Zero Dip calibration", MAY_LACK)
        ),
        "docs/rules.md": rules_page(),
        f"{WEB}/practice.gen.ts": _constant(
            {system: way_titles(system) for system in units.SYSTEMS}
        ),
        f"{WEB}/units.gen.ts": _constant(units.table()),
        f"{WEB}/fields.gen.ts": _constant(field_table(BenchDevice, Reference)),
        f"{WEB}/kinds.gen.ts": _constant({kind.id: kind.title for kind in KINDS.values()}),
        f"{WEB}/rough.gen.ts": _constant({kind: list(rough_of(kind)) for kind in KINDS}),
        f"{WEB}/usual.gen.ts": _constant(
            {
                kind.id: [[psi * units.PSI for psi in band] for band in kind.proposing.usual_psi]
                for kind in KINDS.values()
            }
        ),
        f"{WEB}/photos.gen.ts": _constant(dict(PHOTOS_OF)),
        f"{WEB}/slots.gen.ts": _constant(slot_table()),
        f"{WEB}/writes.gen.ts": _constant({path: method for method, path in MAY_WAIT}),
    }


class Command(BaseCommand):
    """`manage.py export_contract`; needs no database."""

    help = __doc__
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to."""
        parser.add_argument("--to", type=Path, default=settings.ROOT)

    def handle(self, *args: Any, to: Path, **options: Any) -> None:
        """Writes each file."""
        for name, text in contract().items():
            (to / name).parent.mkdir(parents=True, exist_ok=True)
            (to / name).write_text(text, encoding="utf-8")
