"""Long lists are written out without validation on the way: here they are held to their schemas."""

import uuid
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from pydantic import TypeAdapter

from sites.schemas import RoundsOut
from visits.models import NextCheck, Visit
from visits.schemas import NextCheckOut, OpenVisit

from .conftest import World


@pytest.mark.parametrize(
    ("path", "schema"),
    [
        ("/api/rounds", RoundsOut),
        ("/api/visits", list[OpenVisit]),
        ("/api/next-checks", list[NextCheckOut]),
    ],
)
def test_a_written_list_keeps_to_its_schema(world: World, path: str, schema: Any) -> None:
    Visit.objects.create(id=uuid.uuid4(), system=world.system)
    due = timezone.now() + timedelta(days=3)
    NextCheck.objects.create(
        system=world.system, last_at=due, due_at=due, drifting={"us": ["Loses air."]}
    )
    answer = world["viewer"].get(path).json()
    read = TypeAdapter(schema).validate_python(answer, strict=False)
    assert read
    again = TypeAdapter(schema).dump_python(read, mode="json")
    fields = answer if isinstance(answer, dict) else answer[0]
    assert set(fields) == set(again if isinstance(again, dict) else again[0])
