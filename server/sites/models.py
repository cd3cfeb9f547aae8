"""Sites, the systems on them, and the decisions taken."""

import uuid

from django.conf import settings
from django.db import models
from django.utils import timezone

from accounts.models import Workspace


class Site(models.Model):
    """A place with one or more systems; it remembers the units people use there."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="sites")
    name = models.CharField(max_length=80)
    units = models.CharField(max_length=8, default="us")

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["workspace", "name"], name="one_site_per_name")
        ]

    def __str__(self) -> str:
        return self.name


class System(models.Model):
    """One system as it stands: its file (zerodip.fileformat.document), and what Rounds shows of it,
    worked out when it is saved (zerodip.decide.summary)."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="systems")
    name = models.CharField(max_length=80)
    document = models.JSONField()
    summary = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    changed_at = models.DateTimeField(auto_now=True)
    retired_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["site", "name"], name="one_system_per_name")]

    def __str__(self) -> str:
        return self.name


class Decision(models.Model):
    """Settings decided on, with the file as it was then and the figures that were shown. Never
    changed. `by` is the name of a maker without an account here."""

    id = models.UUIDField(primary_key=True, editable=False)
    system = models.ForeignKey(System, on_delete=models.CASCADE, related_name="decisions")
    document = models.JSONField()
    figures = models.JSONField()
    verdict = models.CharField(max_length=16)
    made_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    by = models.CharField(max_length=150, default="", blank=True)
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return f"{self.system} {self.made_at:%Y-%m-%d}"
