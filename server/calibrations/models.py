"""Set-point switches, the references of a workspace, and calibrations with their entries. Entries
are only ever added; a correction names the entry that it supersedes. `by` names who made something
elsewhere, where they have no account here."""

from django.conf import settings
from django.db import models
from django.utils import timezone

from accounts.models import Workspace
from documents.models import SignedLink
from gauges.models import Gauge
from sites.models import Site


class Reference(models.Model):
    """A reference gauge of a workspace (zerodip.bench.device.Reference), and which of the gauges on
    the wire it is, if any."""

    id = models.UUIDField(primary_key=True, editable=False)
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="references")
    data = models.JSONField()
    gauge = models.ForeignKey(Gauge, null=True, on_delete=models.SET_NULL, related_name="+")
    retired = models.BooleanField(default=False)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ["data__name", "pk"]

    def __str__(self) -> str:
        return str(self.data["name"])


class Device(models.Model):
    """A set-point switch at a site (zerodip.bench.device.BenchDevice); when it is next due, and by
    what, as its last calibration told (None: never calibrated)."""

    id = models.UUIDField(primary_key=True, editable=False)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="devices")
    data = models.JSONField()
    retired_at = models.DateTimeField(null=True)
    version = models.PositiveIntegerField(default=1)
    due_on = models.DateField(null=True)
    due_by = models.CharField(max_length=10, default="", blank=True)

    class Meta:
        ordering = ["data__name", "pk"]

    def __str__(self) -> str:
        return str(self.data["name"])


class Calibration(models.Model):
    """A calibration of a switch on a day, with the switch and the reference as they were then, the
    gauge on the wire that the reference is, and who signed it where it is closed."""

    id = models.UUIDField(primary_key=True, editable=False)
    device = models.ForeignKey(Device, on_delete=models.CASCADE, related_name="calibrations")
    switch = models.JSONField()
    reference = models.JSONField()
    gauge = models.ForeignKey(Gauge, null=True, on_delete=models.SET_NULL, related_name="+")
    on = models.DateField()
    opened_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    by = models.CharField(max_length=150, default="", blank=True)
    opened_at = models.DateTimeField(default=timezone.now)
    closed_at = models.DateTimeField(null=True)
    signed_by = models.CharField(max_length=80, default="", blank=True)
    remark = models.CharField(max_length=400, default="", blank=True)

    class Meta:
        ordering = ["-on", "-opened_at"]
        constraints = [
            models.UniqueConstraint(
                fields=["device"],
                condition=models.Q(closed_at=None),
                name="one_calibration_open",
            )
        ]

    def __str__(self) -> str:
        return f"{self.device} {self.on}"


class CertificateLink(SignedLink):
    """A signed address of a calibration's certificate."""

    calibration = models.ForeignKey(Calibration, on_delete=models.CASCADE, related_name="links")

    def __str__(self) -> str:
        return f"Link to {self.calibration}"


class CalibrationEntry(models.Model):
    """One entry of a calibration (zerodip.bench.log), under the id that the page gave it."""

    number = models.BigAutoField(primary_key=True)
    id = models.UUIDField(unique=True)
    calibration = models.ForeignKey(Calibration, on_delete=models.CASCADE, related_name="entries")
    value = models.JSONField()
    supersedes = models.UUIDField(null=True)
    made_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    by = models.CharField(max_length=150, default="", blank=True)
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["number"]

    def __str__(self) -> str:
        return f"{self.value['kind']} of {self.calibration}"
