"""Does what waits behind the page, until it is told to stop."""

from typing import Any

from django.core.management.base import BaseCommand
from procrastinate.contrib.django import app

STOP_S = 5.0


class Command(BaseCommand):
    """`manage.py work`"""

    help = __doc__
    requires_system_checks: list[str] = []  # made by who starts it; they need every address

    def handle(self, *args: Any, **options: Any) -> None:
        """One job at a time; one that is being done when it is told to stop is taken up by
        another."""
        worker = app.with_connector(app.connector.get_worker_connector())  # type: ignore[attr-defined]
        worker.run_worker(queues=["recordings"], concurrency=1, shutdown_graceful_timeout=STOP_S)
