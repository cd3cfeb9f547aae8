"""Photos of a visit, and the timeline in which they stand."""

import io
import json
import uuid

from PIL import Image

from visits.models import Photo
from zerodip.units import PSI

from .conftest import World
from .test_visits import PNG, add, opened, seen


def test_photos_are_added_to_a_plate_and_fetched_and_nothing_else_is_taken_for_one(
    world: World,
) -> None:
    visit, id = opened(world), uuid.uuid4()
    address = f"/api/visits/{visit}/photos/{id}"
    for _ in range(2):
        made = world["technician"].generic(
            "PUT", f"{address}?plate=tank", PNG, content_type="image/png"
        )
        assert made.json() == {"id": str(id), "plate": "tank"}
    assert Photo.objects.count() == 1
    shown = world["viewer"].get(address)
    with Image.open(io.BytesIO(shown.content)) as kept, Image.open(io.BytesIO(PNG)) as sent:
        assert kept.tobytes() == sent.tobytes()
    assert shown["Content-Type"] == "image/png"
    other = f"/api/visits/{visit}/photos/{uuid.uuid4()}"
    assert (
        world["technician"].generic("PUT", other, b"<svg/>", content_type="image/png").status_code
        == 422
    )
    assert json.loads(world["viewer"].get(f"/api/visits/{visit}").content)["photos"] == [
        {"id": str(id), "plate": "tank"}
    ]


def test_the_timeline_tells_visits_with_photos_decisions_and_retiring(world: World) -> None:
    visit = opened(world)
    for slot, value in (
        ("found.cut_in", 33 * PSI),
        ("found.cut_out", 51 * PSI),
        ("try", seen(40, 60, 2)),
    ):
        add(world, visit, slot, value)
    photo = uuid.uuid4()
    world["technician"].generic(
        "PUT", f"/api/visits/{visit}/photos/{photo}", PNG, content_type="image/png"
    )
    world.system.refresh_from_db()
    body = {"version": world.system.version, "document": world.system.document}
    world["owner"].send("PUT", f"/api/systems/{world.system.pk}/decisions/{uuid.uuid4()}", body)
    world["owner"].send("PUT", f"/api/systems/{world.system.pk}/retired", {"retired": True})
    told = world["viewer"].get(f"/api/systems/{world.system.pk}/timeline").json()
    assert [(m["kind"], m["says"], m["by"]) for m in told] == [
        ("retired", "", "owner of ours"),
        ("decision", "40 psi / 60 psi, air 38 psi", "owner of ours"),
        ("visit", "Found 33 psi / 51 psi, left 40 psi / 60 psi, 1 try", "technician of ours"),
    ]
    assert told[2]["photos"] == [{"id": str(photo), "plate": "other"}]
    assert told[2]["visit"] == visit
