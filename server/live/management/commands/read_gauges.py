"""Reads the gauges on the wire that somebody watches, until it is told to stop."""

import asyncio
from typing import Any

from django.core.management.base import BaseCommand

from live.reader import read_gauges


class Command(BaseCommand):
    """`manage.py read_gauges`"""

    help = __doc__
    requires_system_checks: list[str] = []  # made by who starts it; they need every address

    def handle(self, *args: Any, **options: Any) -> None:
        """Reads; ends with the process."""
        asyncio.run(read_gauges())
