"""Addresses that work without signing in: a link to one report, a person's calendar of what is
due."""

import uuid

from django.conf import settings
from django.db import models

from visits.models import Visit


class SignedLink(models.Model):
    """A signed address of something. It dies when it expires or is revoked; the row keeps who made
    it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    units = models.CharField(max_length=8)
    made_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True)

    class Meta:
        abstract = True
        ordering = ["-made_at"]


class Link(SignedLink):
    """A signed address of a visit's report."""

    visit = models.ForeignKey(Visit, on_delete=models.CASCADE, related_name="links")

    def __str__(self) -> str:
        return f"Link to {self.visit}"


class Feed(models.Model):
    """A person's own calendar address. A new one kills the one before."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    user = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="feed"
    )
    made_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"Calendar of {self.user}"


class Printed(models.Model):
    """The report of a visit as it was printed last, for as long as its page says the same."""

    visit = models.ForeignKey(Visit, on_delete=models.CASCADE, related_name="printed")
    units = models.CharField(max_length=8)
    digest = models.CharField(max_length=64)
    pdf = models.BinaryField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["visit", "units"], name="one_print_per_visit_and_units")
        ]

    def __str__(self) -> str:
        return f"Report of {self.visit}"
