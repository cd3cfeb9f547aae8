"""An archive of 5,000 systems with a visit each: read and cut up, checked step by step, taken in
one transaction, which is rolled back."""

import copy
import json
import os
import time
import uuid
from itertools import pairwise
from typing import Any

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

from django.db import transaction

from accounts.models import Membership
from accounts.permissions import Actor
from exchange import services
from exchange.exporter import archive
from exchange.scopes import scope_for_actor

SITES, EACH = 100, 50


def again(system: dict[str, Any], number: int) -> dict[str, Any]:
    """A system under ids of its own, with its first visit."""
    made = copy.deepcopy(system)
    made["id"], made["decisions"], made["visits"] = str(uuid.uuid4()), [], made["visits"][:1]
    made["file"]["system"]["name"] += f" {number}"
    for visit in made["visits"]:
        visit["id"] = str(uuid.uuid4())
        for entry in visit["entries"]:
            entry["id"], entry["supersedes"] = str(uuid.uuid4()), None
    return made


def grown(small: dict[str, Any]) -> dict[str, Any]:
    """The demo's archive, many times over."""
    like = [system for site in small["sites"] for system in site["systems"]]
    small["sites"] = [
        {
            "id": str(uuid.uuid4()),
            "name": f"Site {k}",
            "systems": [again(like[(k * EACH + n) % len(like)], n) for n in range(EACH)],
        }
        for k in range(SITES)
    ]
    return small


def main() -> None:
    """Prints the time of each part, and the slowest step: the longest that a person waits to
    cancel."""
    member = Membership.objects.get(user__username="demo")
    actor = Actor(member.user)
    scope = scope_for_actor(actor, "workspaces", member.workspace_id)
    data = json.dumps(grown(json.loads(b"".join(archive(scope, photos=False))))).encode()
    with transaction.atomic():
        marks, steps = [time.perf_counter()], [0.0]
        of = services.begin(actor, member.workspace_id, uuid.uuid4(), "many.json", data)
        marks.append(time.perf_counter())
        while of.state == "checking":
            begin = time.perf_counter()
            of = services.go_on(actor, of.pk)
            steps.append(time.perf_counter() - begin)
        marks.append(time.perf_counter())
        of = services.take(actor, of.pk)
        marks.append(time.perf_counter())
        read, checked, taken = (after - before for before, after in pairwise(marks))
        print(
            f"{len(data) / 1e6:.0f} MB: read in {read:.1f} s, {of.total:,} pieces checked in"
            f" {checked:.0f} s",
            end=" ",
        )
        print(f"({len(steps) - 1} steps, slowest {max(steps):.2f} s), taken in {taken:.0f} s")
        transaction.set_rollback(True)


if __name__ == "__main__":
    main()
