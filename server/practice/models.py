"""The practice that a workspace follows, and the tank sizes it buys."""

from django.db import models

from accounts.models import Workspace


class WorkspacePractice(models.Model):
    """A workspace's practice (zerodip.kinds.settings.Practice) and its nominal tank sizes (m³; null
    for the usual ones)."""

    workspace = models.OneToOneField(
        Workspace, primary_key=True, on_delete=models.CASCADE, related_name="practice"
    )
    practice = models.JSONField()
    sizes_m3 = models.JSONField(null=True)
    version = models.PositiveIntegerField(default=1)

    def __str__(self) -> str:
        return f"Practice of {self.workspace}"
