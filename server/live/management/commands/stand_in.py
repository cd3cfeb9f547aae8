"""Opens the stand-ins' door, until it is told to stop."""

import asyncio
from typing import Any

from django.core.management.base import BaseCommand

from live.door import open_door


class Command(BaseCommand):
    """`manage.py stand_in`"""

    help = __doc__
    requires_system_checks: list[str] = []  # made by who starts it; they need every address

    def handle(self, *args: Any, **options: Any) -> None:
        """Serves; ends with the process."""
        asyncio.run(open_door())
