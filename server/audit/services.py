"""Writing the log."""

from typing import Any

from django.contrib.auth.base_user import AbstractBaseUser

from .models import AuditEvent

__all__ = ["log_event"]


def log_event(user: AbstractBaseUser, action: str, about: object = "", **detail: Any) -> None:
    """Adds one event; called inside the transaction of the change itself."""
    AuditEvent.objects.create(actor_id=user.pk, action=action, about=str(about), detail=detail)
