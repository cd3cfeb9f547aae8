"""Loads the demo's stand-ins and their gauges, at the door's port as it is now."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import transaction

from accounts.models import User
from accounts.services import DEMO_USER
from live.bench_demo import load_bench_stand_ins
from live.demo import load_stand_ins


class Command(BaseCommand):
    """`manage.py load_demo_stand_ins`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Loads them where the demo is there, and a door."""
        user = User.objects.filter(username=DEMO_USER, demo=True).first()
        workspace = user.workspaces.first() if user else None
        if workspace is not None and settings.STAND_IN_PORT:
            with transaction.atomic():
                load_stand_ins(workspace)
                load_bench_stand_ins(workspace)
