"""Works out again what Rounds shows of every system, after the rules have changed."""

from typing import Any

from django.core.management.base import BaseCommand

from sites.services import summarize_again


class Command(BaseCommand):
    """`manage.py summarize_again`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Rewrites the summary of every system whose file can still be read; names the others."""
        for unread in summarize_again():
            self.stderr.write(unread)
