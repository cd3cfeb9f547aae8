"""The log: who changed what, when. Written only by `services.log_event`, never changed."""

from django.conf import settings
from django.db import models


class AuditEvent(models.Model):
    """One change."""

    at = models.DateTimeField(auto_now_add=True)
    actor = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    action = models.CharField(max_length=40)
    about = models.CharField(max_length=60, blank=True)
    detail = models.JSONField(default=dict)

    class Meta:
        ordering = ["-at"]
        indexes = [models.Index(fields=["about", "-at"], name="events_about")]

    def __str__(self) -> str:
        return f"{self.at:%Y-%m-%d %H:%M} {self.action} {self.about}"
