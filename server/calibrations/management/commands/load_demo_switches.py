"""Loads the demo's set-point switches once."""

from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction

from accounts.models import User
from accounts.services import DEMO_USER
from calibrations.demo import make_demo
from calibrations.models import Device
from sites.models import Site


class Command(BaseCommand):
    """`manage.py load_demo_switches`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Loads them where the demo is there and has none."""
        user = User.objects.filter(username=DEMO_USER, demo=True).first()
        workspace = user.workspaces.first() if user else None
        site = Site.objects.filter(workspace=workspace).order_by("name").first()
        if site is None or Device.objects.filter(site__workspace=workspace).exists():
            return
        with transaction.atomic():
            make_demo(site)
