"""How many questions an operation asks the database: the same however much is on record."""

from collections.abc import Callable
from typing import Any

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext

from sites.services import create_system
from tests.core.systems import file
from zerodip.fileformat.document import read_document
from zerodip.units import PSI

from .conftest import World
from .test_visits import add, opened, seen

pytestmark = pytest.mark.django_db


def counted(ask: Callable[[], Any]) -> int:
    with CaptureQueriesContext(
        connection,
    ) as asked:
        answer = ask()
    assert answer.status_code < 300, answer.content
    return len(asked)


def test_one_reading_asks_little_and_no_more_with_a_long_record(world: World) -> None:
    visit = opened(world)
    add(world, visit, "found.cut_in", 38 * PSI)
    first = counted(lambda: add(world, visit, "found.cut_out", 58 * PSI))
    for turned in (1, 0.5, 0.25):
        add(world, visit, "try", seen(40, 60, turned))
        add(world, visit, "lap", {"run_s": 60, "rest_s": None})
    assert counted(lambda: add(world, visit, "lap", {"run_s": 61, "rest_s": None})) <= first
    assert first <= 18


def test_the_visits_of_a_system_are_one_question(world: World) -> None:
    def timeline() -> int:
        return counted(lambda: world["viewer"].get(f"/api/systems/{world.system.pk}/timeline"))

    opened(world)
    few = timeline()
    for _ in range(5):
        world["technician"].send("PUT", f"/api/visits/{opened(world)}/closed")
    assert timeline() == few
    assert counted(lambda: world["viewer"].get("/api/visits")) <= 6


def test_a_change_of_practice_asks_as_much_for_ten_systems_as_for_one(world: World) -> None:
    path = "/api/practices/" + str(world.system.site.workspace_id)

    def change(version: int) -> int:
        body = {"version": version, "practice": {"reason": str(version)}, "sizes_m3": None}
        return counted(lambda: world["owner"].send("PUT", path, body))

    change(world["owner"].get("/api/practices").json()[0]["version"])
    one = change(world["owner"].get("/api/practices").json()[0]["version"])
    for number in range(9):
        create_system(
            world.system.site,
            read_document(file(practice={"follows": "workspace"}, system__name=f"Well {number}")),
        )
    assert change(world["owner"].get("/api/practices").json()[0]["version"]) <= one + 2
