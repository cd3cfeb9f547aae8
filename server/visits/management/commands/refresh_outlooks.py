"""Works out again what the past visits say of each system: after an upgrade the rules may be others."""

from typing import Any

from django.core.management.base import BaseCommand

from plants.models import System
from visits.outlook import refresh_all


class Command(BaseCommand):
    """`manage.py refresh_outlooks`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """All systems that were ever visited."""
        refresh_all(System.objects.filter(visits__closed_at__isnull=False).distinct().iterator())
