"""Django's `migrate`, after tables of former names were given those of today."""

from typing import Any

from django.core.management.commands.migrate import Command as Migrate
from django.db import connections

from common.former_names import adopt


class Command(Migrate):
    """`manage.py migrate`"""

    def handle(self, *args: Any, database: str, **options: Any) -> None:
        """Adopts first, then migrates."""
        adopt(connections[database])
        super().handle(*args, database=database, **options)
