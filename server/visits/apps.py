"""The app of visits: the next checks follow the systems they are worked out from."""

from typing import Any
from uuid import UUID

from django.apps import AppConfig
from django.db import transaction
from django.db.models.signals import post_save


class VisitsConfig(AppConfig):
    """Visits stand above systems, so a system that is saved is heard of, not told."""

    name = "visits"

    def ready(self) -> None:
        """Listens for systems that are saved and practices that change. (Models can be imported
        only now.)"""
        from practice.services import practice_changed
        from sites.models import System

        post_save.connect(_refresh, sender=System, dispatch_uid="next-check")
        practice_changed.connect(_refresh_workspace, dispatch_uid="next-checks-of-workspace")


def _refresh(instance: Any, created: bool, **_: Any) -> None:
    from .next_checks import refresh_next_checks

    if not created:
        refresh_next_checks([instance])


def _refresh_workspace(workspace_id: UUID, **_: Any) -> None:
    """A practice is put into the files of many systems at once, without a signal for each."""
    from sites.models import System

    from .next_checks import refresh_next_checks

    visited = System.objects.filter(site__workspace_id=workspace_id, next_check__isnull=False)
    transaction.on_commit(lambda: refresh_next_checks(visited))
