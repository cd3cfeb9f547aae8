"""People, the workspaces they belong to, and their role in each."""

import uuid
from typing import Any

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.db.models.functions import Lower


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


class Workspace(models.Model):
    """A firm or a crew. Nothing is seen across workspaces."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=80)
    members = models.ManyToManyField(User, through="Membership", related_name="workspaces")

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
