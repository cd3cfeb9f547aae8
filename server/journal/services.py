"""Writing the log."""

from typing import Any

from django.contrib.auth.base_user import AbstractBaseUser

from .models import Entry

__all__ = ["note"]


def note(user: AbstractBaseUser, action: str, about: object = "", **detail: Any) -> None:
    """Adds one entry; called inside the transaction of the change itself."""
    Entry.objects.create(actor_id=user.pk, action=action, about=str(about), detail=detail)
