"""The app of visits: its outlook follows the systems it is worked out from."""

from typing import Any

from django.apps import AppConfig
from django.db import transaction
from django.db.models.signals import post_save


class VisitsConfig(AppConfig):
    """Visits stand above systems, so a system that is saved is heard of, not told."""

    name = "visits"

    def ready(self) -> None:
        """Listens for systems and practices that are saved. (Models can be imported only now.)"""
        from plants.models import Habits, System

        post_save.connect(_refresh, sender=System, dispatch_uid="outlook")
        post_save.connect(_refresh_workspace, sender=Habits, dispatch_uid="outlook-of-workspace")


def _refresh(instance: Any, created: bool, **_: Any) -> None:
    from .outlook import refresh_outlook

    if not created:
        refresh_outlook(instance)


def _refresh_workspace(instance: Any, **_: Any) -> None:
    """A practice is carried into the files of many systems at once, without a signal for each."""
    from plants.models import System

    from .outlook import refresh_all

    visited = System.objects.filter(site__workspace_id=instance.workspace_id, outlook__isnull=False)
    transaction.on_commit(lambda: refresh_all(visited))
