"""A visit and its entries. Entries are only ever added; a correction names the entry that it
supersedes. `by` is the name of whoever made it without an account here: what comes out of a file
keeps its names."""

import uuid
from typing import cast

from django.conf import settings
from django.db import models
from django.utils import timezone

from accounts.models import Workspace
from sites.models import System
from zerodip.visit.slots import PHOTOS_OF, PhotoOf


class Visit(models.Model):
    """One walk through the steps on one system. `learned` is what its tries taught of the nuts, by
    class of switch and nut (zerodip.switch.learned); `document` the system's file as it was when
    the visit was closed, so that its documents stay what they were."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    system = models.ForeignKey(System, on_delete=models.CASCADE, related_name="visits")
    opened_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    by = models.CharField(max_length=150, default="", blank=True)
    opened_at = models.DateTimeField(default=timezone.now)
    closed_at = models.DateTimeField(null=True)
    learned = models.JSONField(default=list)
    document = models.JSONField(null=True)

    class Meta:
        ordering = ["-opened_at"]
        indexes = [
            models.Index(
                fields=["system"], condition=models.Q(closed_at=None), name="visits_left_open"
            )
        ]

    def __str__(self) -> str:
        return f"{self.system} {self.opened_at:%Y-%m-%d}"


class Entry(models.Model):
    """One record of a visit (zerodip.visit.log), under the id that the page gave it; `made_at` and,
    within a moment, `number` keep the order: what two people recorded without a signal falls into
    place when it arrives. `by_gauge` is the gauge on the wire that showed it, where one did."""

    number = models.BigAutoField(primary_key=True)
    id = models.UUIDField(unique=True)
    visit = models.ForeignKey(Visit, on_delete=models.CASCADE, related_name="entries")
    slot = models.CharField(max_length=40)
    value = models.JSONField(null=True)
    supersedes = models.UUIDField(null=True)
    made_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    by = models.CharField(max_length=150, default="", blank=True)
    by_gauge = models.CharField(max_length=40, default="", blank=True)
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["made_at", "number"]

    def __str__(self) -> str:
        return f"{self.slot} of {self.visit}"


class Photo(models.Model):
    """A photo added to a plate, small enough to lie in the database, so that one dump is the whole
    backup. It was written anew (`pictures`); `sent` is the digest of what was sent. A draft is a
    small one, sent ahead on a bad line; the photo itself takes its place."""

    id = models.UUIDField(primary_key=True, editable=False)
    visit = models.ForeignKey(Visit, on_delete=models.CASCADE, related_name="photos")
    plate = models.CharField(max_length=20)
    kind = models.CharField(max_length=20)
    data = models.BinaryField()
    sent = models.CharField(max_length=64, default="")
    draft = models.BooleanField(default=False)
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["made_at"]

    def __str__(self) -> str:
        return f"{self.plate} of {self.visit}"

    @property
    def of(self) -> PhotoOf:
        """What it is of, as far as that is known: archives say what they like."""
        return cast(PhotoOf, self.plate) if self.plate in PHOTOS_OF else "other"


class Outcome(models.Model):
    """What a visit's trouble was in the end, as it was confirmed when the visit was closed: the
    cause (zerodip.diagnosis), and at which place it stood by what was seen; null where that was not
    looked at."""

    visit = models.OneToOneField(
        Visit, primary_key=True, on_delete=models.CASCADE, related_name="outcome"
    )
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="outcomes")
    kind = models.CharField(max_length=40)
    cause = models.CharField(max_length=40)
    place = models.PositiveSmallIntegerField(null=True)
    at = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.cause} on {self.visit}"


class Experience(models.Model):
    """Since when a workspace's outcomes shift what is expected there: set back, it begins anew."""

    workspace = models.OneToOneField(
        Workspace, primary_key=True, on_delete=models.CASCADE, related_name="experience"
    )
    since = models.DateTimeField()

    def __str__(self) -> str:
        return f"Experience of {self.workspace}"


class NextCheck(models.Model):
    """When a system is to be visited again, what is drifting (zerodip.trends.history) and what the
    last visit left (zerodip.visit.steps.remaining): worked out when a visit is closed or the system
    changes, so that Rounds only reads it."""

    system = models.OneToOneField(
        System, primary_key=True, on_delete=models.CASCADE, related_name="next_check"
    )
    last_at = models.DateTimeField()
    due_at = models.DateTimeField(null=True)
    leaves_at = models.DateTimeField(null=True)
    drifting = models.JSONField(default=dict)
    seen = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"Next check of {self.system}"
