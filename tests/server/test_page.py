"""The page that everything else is opened from, and what a phone needs to keep it as an
application (W3C, Web Application Manifest)."""

import gzip
import json
import re
from typing import Any

from django.conf import settings
from django.http import HttpResponse
from django.test import RequestFactory
from PIL import Image

from common.compressed import Compressed

PUBLIC = settings.ROOT / "web" / "public"


def manifest() -> dict[str, Any]:
    made: dict[str, Any] = json.loads((PUBLIC / "app.webmanifest").read_text())
    return made


def test_the_page_names_what_it_is_and_what_it_ships_with(client: Any) -> None:
    page = client.get("/").content.decode()
    assert 'name="description"' in page
    for name in re.findall(r'href="/static/([\w.-]+)"', page):
        assert (PUBLIC / name).is_file(), name
    assert "app.webmanifest" in page


def test_the_icons_are_there_in_the_sizes_that_are_said() -> None:
    for icon in manifest()["icons"]:
        file = PUBLIC / icon["src"].removeprefix("/static/")
        if file.suffix == ".png":
            width, height = Image.open(file).size
            assert icon["sizes"] == f"{width}x{height}"
    sizes = {(icon["sizes"], icon.get("purpose", "any")) for icon in manifest()["icons"]}
    assert {("192x192", "any"), ("512x512", "any"), ("512x512", "maskable")} <= sizes


def test_it_opens_at_the_start_within_its_own_scope(client: Any) -> None:
    made = manifest()
    assert made["start_url"].startswith(made["scope"])
    assert made["display"] == "standalone"
    sent = client.get("/static/app.webmanifest")
    assert sent["Content-Type"].startswith("application/manifest+json")


def test_robots_stay_away_from_what_is_not_for_them(client: Any) -> None:
    told = client.get("/robots.txt")
    assert told["Content-Type"].startswith("text/plain")
    assert re.findall(r"Disallow: (\S+)", told.content.decode()) == [
        "/api/",
        "/health/",
        "/papers/",
    ]


def test_text_is_packed_over_the_line_and_what_is_packed_already_is_not(client: Any) -> None:
    page = client.get("/", headers={"accept-encoding": "gzip"})
    assert gzip.decompress(page.content) == client.get("/").content
    assert page["Content-Encoding"] == "gzip"
    request = RequestFactory(headers={"accept-encoding": "gzip"}).get("/")
    for kind, packed in (("application/json", True), ("image/jpeg", False)):
        told = Compressed(lambda _, kind=kind: HttpResponse("air " * 99, content_type=kind))
        assert told(request).has_header("Content-Encoding") is packed
