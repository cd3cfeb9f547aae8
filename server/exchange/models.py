"""An import on its way in: what its file holds, piece by piece, until all of it is taken or
none."""

from django.conf import settings
from django.db import models

from accounts.models import Workspace


class State(models.TextChoices):
    """How far an import is. Only from `ready` on can it be taken; `taken` works out what Rounds
    shows of it."""

    CHECKING = "checking"
    READY = "ready"
    TAKEN = "taken"
    DONE = "done"


class Import(models.Model):
    """A file that is being checked."""

    id = models.UUIDField(primary_key=True, editable=False)
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="imports")
    made_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    made_at = models.DateTimeField(auto_now_add=True)
    name = models.CharField(max_length=120)
    digest = models.CharField(max_length=64, default="")
    state = models.CharField(max_length=8, choices=State.choices, default=State.CHECKING)
    total = models.PositiveIntegerField(default=0)
    done = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return self.name


class Change(models.TextChoices):
    """What taking a piece would do."""

    ADDED = "added"
    CHANGED = "changed"
    SAME = "same"
    REFUSED = "refused"


class Piece(models.Model):
    """One piece of an import: the practice, a gauge, a reference, a site, a system or a switch.
    `prepared` is what checking made ready, `item` the id that it has or will have here."""

    of = models.ForeignKey(Import, on_delete=models.CASCADE, related_name="pieces")
    number = models.PositiveIntegerField()
    kind = models.CharField(max_length=12)
    path = models.CharField(max_length=60)
    line = models.PositiveIntegerField(default=0)
    name = models.CharField(max_length=80, blank=True)
    site = models.PositiveIntegerField(null=True)
    item = models.UUIDField(null=True)
    raw = models.JSONField(null=True)
    change = models.CharField(max_length=8, choices=Change.choices, blank=True)
    says = models.CharField(max_length=200, blank=True)
    faults = models.JSONField(default=list)
    prepared = models.JSONField(null=True)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["of", "number"], name="one_piece_per_number")
        ]
        indexes = [
            models.Index(fields=["of", "change", "number"]),
            models.Index(fields=["of", "kind", "item"]),
            models.Index(fields=["of", "kind", "site", "name"]),
        ]

    def __str__(self) -> str:
        return f"{self.path} of {self.of}"
