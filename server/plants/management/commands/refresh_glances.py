"""Works out again what Rounds shows of every system, after the rules have changed."""

from typing import Any

from django.core.management.base import BaseCommand

from plants.glancing import glance_of
from plants.models import System
from zerodip.document import read_document
from zerodip.errors import InvalidInput


class Command(BaseCommand):
    """`manage.py refresh_glances`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Rewrites the glance of every system whose file can still be read; names the others."""
        for system in System.objects.iterator():
            try:
                seen = glance_of(read_document(system.document))
            except InvalidInput as error:
                self.stderr.write(f"{system.pk}: {error}")
                continue
            if seen != system.glance:
                System.objects.filter(pk=system.pk).update(glance=seen)
