"""Rounds with 2,000 systems and 20,000 visits on record: what the server takes for the three
answers that the page is made of, and in how many queries. Goal 150 ms together. Everything is made
inside a transaction that is rolled back."""

import os
import statistics
import time
from datetime import timedelta
from typing import Any

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

from django.conf import settings
from django.db import connection, transaction
from django.test import Client
from django.utils import timezone

from accounts.models import Membership, Role, User, Workspace
from sites.models import Site, System
from visits.models import NextCheck, Visit

SITES, SYSTEMS, VISITS = 100, 2000, 20000
PARTS = ("/api/rounds", "/api/next-checks", "/api/visits")


def fill(user: User) -> None:
    """Copies of the demo's systems, on sites of their own, ten visits and a next check each."""
    like, now = list(System.objects.all()[:10]), timezone.now()
    workspace = Workspace.objects.create(name="Many systems")
    Membership.objects.create(user=user, workspace=workspace, role=Role.TECHNICIAN)
    sites = Site.objects.bulk_create(
        Site(workspace=workspace, name=f"Site {k}") for k in range(SITES)
    )
    systems = System.objects.bulk_create(
        System(
            site=sites[k % SITES],
            name=f"System {k}",
            document=like[k % len(like)].document,
            summary=like[k % len(like)].summary,
        )
        for k in range(SYSTEMS)
    )
    Visit.objects.bulk_create(
        Visit(system=systems[k % SYSTEMS], opened_by=user, closed_at=now if k % 50 else None)
        for k in range(VISITS)
    )
    NextCheck.objects.bulk_create(
        NextCheck(
            system=system,
            last_at=now,
            due_at=now + timedelta(days=k % 400 - 30),
            drifting={"us": []},
        )
        for k, system in enumerate(systems)
    )


def timed(client: Client, part: str) -> tuple[float, int, int]:
    """Milliseconds (median of nine), queries and bytes of one answer."""
    queries: list[str] = []

    def count(execute: Any, sql: str, *more: Any) -> Any:
        queries.append(sql)
        return execute(sql, *more)

    with connection.execute_wrapper(count):
        size = len(client.get(part).content)
    taken = []
    for _ in range(9):
        begin = time.perf_counter()
        client.get(part)
        taken.append((time.perf_counter() - begin) * 1e3)
    return statistics.median(taken), len(queries), size


def main() -> None:
    """Prints each part and the sum."""
    settings.ALLOWED_HOSTS = ["testserver"]
    with transaction.atomic():
        user = User.objects.create(username="many")
        fill(user)
        client = Client()
        client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
        rows = {part: timed(client, part) for part in PARTS}
        for part, (taken, queries, size) in rows.items():
            print(f"{part:14} {taken:6.1f} ms, {queries} queries, {size / 1e3:.0f} kB")
        print(f"together {sum(taken for taken, _, _ in rows.values()):.0f} ms (goal 150)")
        transaction.set_rollback(True)


if __name__ == "__main__":
    main()
