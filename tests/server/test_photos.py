"""Photos out of other hands: kept without what their camera noted, whichever way they came."""

import base64
import io
import re
import struct
import uuid
import zlib
from typing import Any

import pytest
from PIL import Image
from pypdf import PdfReader

from visits.models import Photo

from .conftest import World
from .test_documents import words
from .test_exchange import exported, imported, refusals, taken
from .test_visits import add, opened, picture

NOTED = Image.Exif()
NOTED[0x0112], NOTED[0x010F] = 6, "Maker of cameras"  # lies on its side
NOTED.get_ifd(0x8825)[2] = (52.0, 12.0, 3.0)  # the place


def images(pdf: bytes) -> list[Image.Image]:
    """The pictures of a PDF, each once, read by an independent reader."""
    found = [each for page in PdfReader(io.BytesIO(pdf)).pages for each in page.images]
    return [each.image for each in {each.data: each for each in found}.values() if each.image]


def _sent(world: World, data: bytes, photo: str = "") -> Any:
    path = f"/api/visits/{opened(world)}/photos/{photo or uuid.uuid4()}?plate=tank"
    return world["technician"].generic("PUT", path, data, content_type="image/jpeg")


def test_a_photo_is_kept_upright_and_without_what_its_camera_noted(world: World) -> None:
    photo, data = str(uuid.uuid4()), picture("JPEG", exif=NOTED)
    assert [_sent(world, data, photo).status_code for _ in range(2)] == [200, 200]
    kept = bytes(Photo.objects.get(pk=photo).data)
    with Image.open(io.BytesIO(kept)) as image:
        assert (image.format, image.size, dict(image.getexif())) == ("JPEG", (20, 40), {})
    assert b"Maker" in data
    assert b"Maker" not in kept
    assert _sent(world, picture(), photo).status_code == 409


def test_a_small_photo_goes_ahead_and_the_photo_itself_follows_into_the_closed_visit(
    world: World,
) -> None:
    """In either order, and twice each: the photo itself is what is kept, of what it was first said
    to be."""
    visit, photo, put = opened(world), str(uuid.uuid4()), world["technician"].generic
    address = f"/api/visits/{visit}/photos/{photo}"
    draft, whole = picture("JPEG", size=(20, 10)), picture("JPEG", size=(80, 40))

    def answers(data: bytes, more: str) -> int:
        return put("PUT", f"{address}?{more}", data, content_type="image/jpeg").status_code

    def width() -> int:
        shown = world["viewer"].get(address)
        assert (shown["Cache-Control"] == "no-store") == Photo.objects.get().draft
        return Image.open(io.BytesIO(shown.content)).width

    assert [answers(each, "plate=tank&draft=true") for each in (draft, draft)] == [200, 200]
    assert width() == 20
    assert world["technician"].put(f"/api/visits/{visit}/closed").status_code == 200
    assert answers(whole, "plate=pump") == 409
    assert answers(b"no picture", "plate=tank") == 422
    assert width() == 20
    assert [answers(each, "plate=tank") for each in (whole, whole)] == [200, 200]
    assert answers(draft, "plate=tank&draft=true") == 200
    assert width() == 80
    assert answers(draft, "plate=tank") == 409
    other = f"/api/visits/{visit}/photos/{uuid.uuid4()}?draft=true"
    assert put("PUT", other, draft, content_type="image/jpeg").status_code == 409


def _bomb() -> bytes:
    """A PNG of a few bytes that says it has 65,000 by 65,000 points."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return (
            struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
        )

    head = struct.pack(">IIBBBBB", 65_000, 65_000, 8, 2, 0, 0, 0)
    body = chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"")) + chunk(b"IEND", b"")
    return b"\x89PNG\r\n\x1a\n" + body


@pytest.mark.parametrize("data", [b"", b"GIF89a", b"\x89PNG", b"\xff\xd8\xff" + b"x" * 99, _bomb()])
def test_what_is_no_picture_is_refused(data: bytes, world: World) -> None:
    answer = _sent(world, data)
    assert answer.status_code == 422, answer.content
    assert not Photo.objects.exists()


def test_a_photo_that_came_with_an_archive_goes_out_without_it_too(world: World) -> None:
    assert _sent(world, picture("JPEG")).status_code == 200
    archive = exported(world)
    (visit,) = archive["sites"][0]["systems"][0]["visits"]
    photo = visit["photos"][0]
    photo |= {
        "id": str(uuid.uuid4()),
        "data": base64.b64encode(picture("JPEG", exif=NOTED)).decode(),
    }
    taken(world, imported(world, archive))
    for _ in range(2):  # written anew when first asked for, then as it is kept
        got = world["viewer"].get(f"/api/visits/{visit['id']}/photos/{photo['id']}").content
        assert b"Maker" not in got
        assert Image.open(io.BytesIO(got)).size == (20, 40)
    Photo.objects.filter(pk=photo["id"]).update(data=picture("JPEG", exif=NOTED), sent="")
    photos = exported(world)["sites"][0]["systems"][0]["visits"][0]["photos"]
    assert len(photos) == 2
    assert not any(b"Maker" in base64.b64decode(each["data"]) for each in photos)


def test_what_is_no_picture_is_refused_in_an_archive_too(world: World) -> None:
    assert _sent(world, picture()).status_code == 200
    archive = exported(world)
    photo = archive["sites"][0]["systems"][0]["visits"][0]["photos"][0]
    photo["data"] = base64.b64encode(b"<script>").decode()
    of = imported(world, archive)
    assert [path for _, path in refusals(world, of)] == ["sites.0.systems.0.visits.0.photos.0.data"]


def test_the_report_shows_the_photos_that_were_chosen_and_no_others(world: World) -> None:
    visit, chosen, off = opened(world), str(uuid.uuid4()), str(uuid.uuid4())
    for photo, shade in ((chosen, 40), (off, 200)):
        assert _sent(world, picture("JPEG", shade=shade), photo).status_code == 200
    elsewhere = str(Photo.objects.get(pk=off).pk)[::-1]  # not one of this visit
    for photo, shown in ((off, True), (chosen, True), (off, False), (elsewhere, True)):
        assert add(world, visit, "photo", {"photo": photo, "shown": shown}).status_code == 200
    link = f"/api/visits/{visit}/links/{uuid.uuid4()}"
    made = world["owner"].send("PUT", link, {"days": 7, "units": "us"}).json()
    page = world["viewer"].get(made["address"].removeprefix("http://testserver")).content.decode()
    (held,) = re.findall(r"data:image/jpeg;base64,([^\"]+)", page)
    with Image.open(io.BytesIO(base64.b64decode(held))) as image:
        red, *_ = image.getpixel((5, 5))
    assert abs(red - 40) < 5
    printed = world["viewer"].get(f"/api/visits/{visit}/report.pdf").content
    assert [image.size for image in images(printed)] == [(40, 20)]
    assert "Tank plate" in words(printed)
