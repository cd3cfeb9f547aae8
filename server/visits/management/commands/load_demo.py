"""Loads the demo once: a workspace, its technician, sites, systems of every kind and their visits of three years. What is there
already stays as it is."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import transaction

from people.models import Membership, Role, User, Workspace
from people.services import DEMO_USER
from plants.demo import SITES
from plants.models import Site
from plants.services import create_system
from visits.demo import load_history
from zerodip.document import read_document

WORKSPACE = "Demo rounds"


class Command(BaseCommand):
    """`manage.py load_demo`"""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Loads the demo unless it is there; sets the demo's password to this installation's."""
        with transaction.atomic():
            user, _ = User.objects.get_or_create(
                username=DEMO_USER, defaults={"first_name": "Demo", "last_name": "technician"}
            )
            if not user.check_password(settings.DEMO_PASSWORD):
                user.set_password(settings.DEMO_PASSWORD)
                user.save()
            workspace = Workspace.objects.filter(name=WORKSPACE, members=user).first() or self._load(user)
            load_history(user, workspace)

    def _load(self, user: User) -> Workspace:
        workspace = Workspace.objects.create(name=WORKSPACE)
        Membership.objects.create(user=user, workspace=workspace, role=Role.TECHNICIAN)
        for name, units, files in SITES:
            site = Site.objects.create(workspace=workspace, name=name, units=units)
            for file in files:
                create_system(site, read_document(file))
        return workspace
