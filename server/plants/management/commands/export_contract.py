"""Writes what the front end is generated from: the OpenAPI document, the table of units, the table of fields."""

import json
from pathlib import Path
from typing import Any

from config.api import api
from django.core.management.base import BaseCommand, CommandParser
from zerodip import units
from zerodip.schema import document_schema, field_table


def contract() -> dict[str, Any]:
    """The files' contents by name."""
    return {
        "openapi.json": api.get_openapi_schema(path_prefix="/api/"),
        "units.gen.json": units.table(),
        "fields.gen.json": field_table(),
        "system.schema.json": document_schema(),
    }


class Command(BaseCommand):
    """`manage.py export_contract FOLDER`"""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to write."""
        parser.add_argument("folder", type=Path)

    def handle(self, *args: Any, folder: Path, **options: Any) -> None:
        """Writes each file, sorted and indented, so that a change shows as a small difference."""
        for name, content in contract().items():
            (folder / name).write_text(json.dumps(content, indent=1, ensure_ascii=False, default=str) + "\n", encoding="utf-8")
