"""Recordings of pressure: what was sent, what it holds in packed chunks and a pyramid for drawing,
and what it says. All of it lies in the database, so that one dump is the whole backup."""

from django.conf import settings
from django.db import models

from accounts.models import Workspace
from sites.models import System


class State(models.TextChoices):
    """How far a recording is: its parts come, it can be read, it is read, it was read; or it cannot
    be."""

    COMING = "coming"
    HERE = "here"
    READING = "reading"
    READ = "read"
    REFUSED = "refused"


class Recording(models.Model):
    """One recording of one system. `layout` is how its file is written
    (zerodip.recording.layout), `reading` what it says (zerodip.recording.kept), `cycles` its cycles
    as packed JSON. `run` numbers the readings begun, so that one begun before gives way."""

    id = models.UUIDField(primary_key=True, editable=False)
    system = models.ForeignKey(System, on_delete=models.CASCADE, related_name="recordings")
    name = models.CharField(max_length=120)
    size = models.BigIntegerField()
    state = models.CharField(max_length=8, choices=State.choices, default=State.COMING)
    problem = models.CharField(max_length=300, blank=True)
    layout = models.JSONField(null=True)
    reading = models.JSONField(null=True)
    cycles = models.BinaryField(null=True)
    samples = models.BigIntegerField(default=0)
    done = models.FloatField(default=0)
    run = models.PositiveIntegerField(default=0)
    first_s = models.FloatField(null=True)
    last_s = models.FloatField(null=True)
    made_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return self.name


class Part(models.Model):
    """A part of a file as it was sent; gone once it is read."""

    of = models.ForeignKey(Recording, on_delete=models.CASCADE, related_name="parts")
    number = models.PositiveIntegerField()
    data = models.BinaryField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["of", "number"], name="one_part_of_a_number")
        ]

    def __str__(self) -> str:
        return f"{self.number} of {self.of}"


class Chunk(models.Model):
    """Samples that are kept together: times and figures packed (zerodip.recording.packing)."""

    of = models.ForeignKey(Recording, on_delete=models.CASCADE, related_name="chunks")
    number = models.PositiveIntegerField()
    count = models.PositiveIntegerField()
    first_s = models.FloatField()
    last_s = models.FloatField()
    time = models.BinaryField()
    gauge = models.BinaryField()
    current = models.BinaryField(null=True)
    flow = models.BinaryField(null=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["of", "number"], name="one_chunk_of_a_number")
        ]

    def __str__(self) -> str:
        return f"{self.number} of {self.of}"


class Level(models.Model):
    """Buckets of one height of the pyramid that are kept together."""

    of = models.ForeignKey(Recording, on_delete=models.CASCADE, related_name="levels")
    factor = models.PositiveIntegerField()
    number = models.PositiveIntegerField()
    first_s = models.FloatField()
    last_s = models.FloatField()
    time = models.BinaryField()
    least = models.BinaryField()
    most = models.BinaryField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["of", "factor", "number"], name="one_level_part")
        ]

    def __str__(self) -> str:
        return f"{self.factor}.{self.number} of {self.of}"


class Recorder(models.Model):
    """The layout kept for a recorder, known again by the names over its columns."""

    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="recorders")
    mark = models.CharField(max_length=64)
    layout = models.JSONField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["workspace", "mark"], name="one_layout_per_recorder")
        ]

    def __str__(self) -> str:
        return self.mark
