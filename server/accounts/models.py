"""People, the workspaces they belong to, and their role in each."""

import uuid
from typing import Any

from django.contrib.auth.models import AbstractUser
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models
from django.db.models.functions import Lower
from django.utils import timezone
from django.utils.crypto import get_random_string
from django.utils.text import slugify


class Role(models.TextChoices):
    """What a member may do; `permissions` says what each role allows."""

    OWNER = "owner", "Owner"
    TECHNICIAN = "technician", "Technician"
    VIEWER = "viewer", "Viewer"


class User(AbstractUser):
    """A person who signs in. No two names differ by capitals alone. `demo` tells that the demo made
    this account, for whoever tries it."""

    demo = models.BooleanField(default=False)

    class Meta(AbstractUser.Meta):
        constraints = [models.UniqueConstraint(Lower("username"), name="one_person_per_name")]

    @property
    def shown(self) -> str:
        """The name that others see."""
        return self.get_full_name() or self.username


def reserved(username: str) -> bool:
    """Whether a sign-in name is kept for the demo: nobody else can have it."""
    name = username.strip().casefold()
    return name == "demo" or name.startswith("demo-")


def shown(user: Any, otherwise: str = "") -> str:
    """The name of who made something; what was said of them where they have no account here."""
    return user.shown if isinstance(user, User) else otherwise


def new_handle(name: str) -> str:
    """Ends the sign-in names of a workspace's people. Never the name alone: whether another firm of
    that name is here is nobody's business."""
    return f"{slugify(name)[:20]}-{get_random_string(4, '23456789abcdefghjkmnpqrstuvwxyz')}".strip(
        "-"
    )


class Workspace(models.Model):
    """A firm or a crew. Nothing is seen across workspaces. `handle` ends the sign-in names of its
    people; `second_factor` tells that it opens only by one."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=80)
    handle = models.CharField(max_length=30, unique=True)
    second_factor = models.BooleanField(default=False)
    members = models.ManyToManyField(User, through="Membership", related_name="workspaces")

    def save(self, *args: Any, **kwargs: Any) -> None:
        """A new one is given its handle."""
        self.handle = self.handle or new_handle(self.name)
        super().save(*args, **kwargs)

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    """One person's role in one workspace."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=12, choices=Role.choices)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["user", "workspace"], name="one_role_per_workspace")
        ]

    def __str__(self) -> str:
        return f"{self.user} is {self.role} of {self.workspace}"


class Attempt(models.Model):
    """A wrong try at a password or a code, under a key that tells nobody whose (`limits`)."""

    key = models.CharField(max_length=64)
    at = models.DateTimeField(db_index=True)

    class Meta:
        indexes = [models.Index(fields=["key", "at"], name="accounts_at_key_at")]

    def __str__(self) -> str:
        return f"Try at {self.at}"


class Session(AbstractBaseSession):
    """A signed-in browser, and whose it is."""

    user = models.ForeignKey(User, null=True, on_delete=models.CASCADE, related_name="sessions")

    @classmethod
    def get_session_store_class(cls) -> Any:
        """The store that writes them."""
        from .sessions import SessionStore

        return SessionStore

    @property
    def live(self) -> bool:
        """Whether it has neither run out nor was ended by a change of the password."""
        held = self.get_decoded()
        hash_ = held.get("_auth_user_hash", "")
        return self.expire_date > timezone.now() and bool(
            self.user and hash_ == self.user.get_session_auth_hash()
        )
