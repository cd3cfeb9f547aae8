"""Loads the demo's recordings once: a week of a system that has lost air, and a night with a
drip."""

from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction

from accounts.models import User
from accounts.services import DEMO_USER
from recordings.demo import WEEK, record
from recordings.models import Recording
from sites.models import System
from zerodip.units import PSI

NIGHT = 12 * 3600


class Command(BaseCommand):
    """`manage.py load_demo_recordings`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Loads them where the demo is there and has none."""
        user = User.objects.filter(username=DEMO_USER, demo=True).first()
        workspace = user.workspaces.first() if user else None
        if workspace is None:
            return
        ours = System.objects.filter(site__workspace=workspace, retired_at=None)
        if Recording.objects.filter(system__in=ours).exists():
            return
        wells = list(ours.filter(document__system__kind="well_bladder").order_by("name"))
        with transaction.atomic():
            for system, (name, seconds, pre_charge, drip) in zip(wells, ROWS, strict=False):
                record(system, name, seconds, pre_charge, drip)


ROWS = (
    ("A week in March", WEEK, 9 * PSI, 0.0),
    ("A night", NIGHT, None, 0.012),
)
