"""Works out again what the past visits say of each system: after an upgrade the rules may be
others."""

from typing import Any

from django.core.management.base import BaseCommand

from sites.models import System
from visits.next_checks import refresh_next_checks


class Command(BaseCommand):
    """`manage.py refresh_next_checks`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """All systems that were ever visited."""
        visited = System.objects.filter(visits__closed_at__isnull=False).distinct()
        refresh_next_checks(visited.iterator())
