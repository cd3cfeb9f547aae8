"""The app of sites: its systems follow the practice of their workspace."""

from typing import Any
from uuid import UUID

from django.apps import AppConfig


class SitesConfig(AppConfig):
    """Sites stand above the practice, so a practice that changed is heard of, not told."""

    name = "sites"

    def ready(self) -> None:
        """Listens for practices that change. (Models can be imported only now.)"""
        from practice.services import practice_changed

        practice_changed.connect(_apply, dispatch_uid="systems-that-follow")


def _apply(workspace_id: UUID, **_: Any) -> None:
    from .services import apply_practice

    apply_practice(workspace_id)
