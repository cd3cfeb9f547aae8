"""Gauges on the wire as they are watched: who watches which, the samples that came, and the hands
at the stand-ins. What was watched becomes a recording."""

from django.conf import settings
from django.db import models
from django.utils import timezone

from calibrations.models import Calibration, Device
from gauges.models import Gauge
from recordings.models import Recording
from sites.models import System
from visits.models import Visit


class Watch(models.Model):
    """A visit watches a gauge, from when until when (s since 1970; None: still). `seen` is what its
    line shows by now (zerodip.recording.live); once it ended, what came is its `recording`."""

    id = models.UUIDField(primary_key=True, editable=False)
    visit = models.ForeignKey(Visit, on_delete=models.CASCADE, related_name="watches")
    gauge = models.ForeignKey(Gauge, on_delete=models.CASCADE, related_name="watches")
    from_s = models.FloatField()
    until_s = models.FloatField(null=True)
    seen = models.JSONField(null=True)
    recording = models.OneToOneField(
        Recording, null=True, on_delete=models.SET_NULL, related_name="watch"
    )
    made_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["from_s"]
        indexes = [
            models.Index(
                fields=["gauge"], condition=models.Q(until_s=None), name="watches_under_way"
            )
        ]

    def __str__(self) -> str:
        return f"{self.gauge} on {self.visit}"


class BenchWatch(models.Model):
    """The reference of a calibration is read off the wire, until when unless somebody looks
    on (s since 1970)."""

    calibration = models.OneToOneField(
        Calibration, primary_key=True, on_delete=models.CASCADE, related_name="watch"
    )
    gauge = models.ForeignKey(Gauge, on_delete=models.CASCADE, related_name="+")
    until_s = models.FloatField()

    def __str__(self) -> str:
        return f"{self.gauge} on {self.calibration}"


class Stretch(models.Model):
    """A few seconds of a gauge's samples, packed (zerodip.recording.packing)."""

    gauge = models.ForeignKey(Gauge, on_delete=models.CASCADE, related_name="stretches")
    first_s = models.FloatField()
    last_s = models.FloatField()
    count = models.PositiveIntegerField()
    time = models.BinaryField()
    pressure = models.BinaryField()

    class Meta:
        ordering = ["first_s"]
        indexes = [models.Index(fields=["gauge", "last_s"], name="stretches_of_gauge")]

    def __str__(self) -> str:
        return f"{self.count} of {self.gauge}"


class StandIn(models.Model):
    """A system whose plant a made-up one stands in for: its unit number at the stand-in's door, and
    what hands do there (zerodip.stand_in.Hands)."""

    system = models.OneToOneField(
        System, primary_key=True, on_delete=models.CASCADE, related_name="stand_in"
    )
    unit = models.PositiveSmallIntegerField(unique=True)
    hands = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"stand-in {self.unit} for {self.system}"


class BenchStandIn(models.Model):
    """A switch whose bench a made-up one stands in for: its unit number at the stand-in's door, and
    what hands do there (zerodip.bench.stand_in.BenchHands)."""

    device = models.OneToOneField(
        Device, primary_key=True, on_delete=models.CASCADE, related_name="stand_in"
    )
    unit = models.PositiveSmallIntegerField(unique=True)
    hands = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"stand-in {self.unit} for {self.device}"
