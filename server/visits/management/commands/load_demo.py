"""Loads the demo once: a workspace, its technician, sites, systems of every kind and their visits
of three years. What is there already stays as it is."""

from datetime import timedelta
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.db import transaction
from django.utils import timezone

from accounts.models import Membership, Role, User, Workspace
from accounts.services import DEMO_USER
from gauges.models import Gauge
from sites.demo import SITES
from sites.models import Site
from sites.services import create_system
from visits.demo import load_history
from zerodip.fileformat.document import plain, read_document
from zerodip.gauges import GaugeSpec
from zerodip.units import PSI

WORKSPACE = "Demo rounds"
CREW = (
    ("demo-second", "Second technician", Role.TECHNICIAN),
    ("demo-office", "Office", Role.VIEWER),
)
GAUGES = (
    (GaugeSpec(name="No. 3", scale_gauge_pa=100 * PSI, grade="A"), 120),
    (GaugeSpec(name="No. 7, compressors", scale_gauge_pa=200 * PSI, grade="1A"), 350),
    (
        GaugeSpec(
            name="Tyre gauge", reads="air", scale_gauge_pa=60 * PSI, grade="B", low_pa=0.8 * PSI
        ),
        410,
    ),
)


def _account(username: str, first: str, last: str = "") -> User:
    """One of the demo's own accounts. Raises CommandError where somebody else has that name."""
    known = User.objects.filter(username__iexact=username).first()
    if known is not None and not known.demo:
        raise CommandError(f"{known.username} is a person here: the demo is not loaded.")
    named = {"first_name": first, "last_name": last, "password": "!", "demo": True}
    return known or User.objects.create(username=username, **named)


class Command(BaseCommand):
    """`manage.py load_demo`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Loads the demo unless it is there; sets the demo's password to this installation's. An
        account that was not made by it is never touched."""
        with transaction.atomic():
            user = _account(DEMO_USER, "Demo", "technician")
            if not (user.has_usable_password() and user.check_password(settings.DEMO_PASSWORD)):
                user.set_password(settings.DEMO_PASSWORD)
                user.save()
            workspace = user.workspaces.first() or self._load(user)
            load_history(user, workspace)

    def _load(self, user: User) -> Workspace:
        workspace = Workspace.objects.create(name=WORKSPACE)
        Membership.objects.create(user=user, workspace=workspace, role=Role.TECHNICIAN)
        for username, first, role in CREW:
            other = _account(username, first)
            Membership.objects.create(user=other, workspace=workspace, role=role)
        for gauge, days in GAUGES:
            checked = timezone.now().date() - timedelta(days=days)
            Gauge.objects.create(
                id=uuid4(), workspace=workspace, data=plain(gauge), checked_on=checked
            )
        for name, units, files in SITES:
            site = Site.objects.create(workspace=workspace, name=name, units=units)
            for file in files:
                create_system(site, read_document(file))
        return workspace
