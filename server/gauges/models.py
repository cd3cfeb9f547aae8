"""The gauges that a crew owns."""

from django.db import models

from accounts.models import Workspace


class Gauge(models.Model):
    """A gauge that a crew owns (zerodip.gauges.GaugeSpec), where its figure is fetched if it is on
    the wire (zerodip.wire.WireSpec), and the day it was last checked."""

    id = models.UUIDField(primary_key=True, editable=False)
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="gauges")
    data = models.JSONField()
    wire = models.JSONField(null=True)
    checked_on = models.DateField(null=True)
    retired = models.BooleanField(default=False)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ["data__name", "pk"]

    def __str__(self) -> str:
        return str(self.data["name"])
