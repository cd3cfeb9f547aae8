"""The built page in headless Chromium, against the real server on the test database."""

import re
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from django.core.management import call_command
from django.db import connection
from playwright.sync_api import Browser, Page, Playwright, expect, sync_playwright

from tests.emptying import patient_emptying
from tests.serving import Served, free_port, serving

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
expect.set_options(timeout=10_000)
# What the browser itself says of a refusal, and of a test that takes the signal or the server away.
EXPECTED = (
    "status of|ERR_INTERNET_DISCONNECTED|ERR_CONNECTION_(REFUSED|RESET|CLOSED)|ERR_EMPTY_RESPONSE"
    "|ERR_INCOMPLETE_CHUNKED_ENCODING|ERR_CONTENT_LENGTH_MISMATCH|ERR_SOCKET_NOT_CONNECTED"
    "|when fetching the script"  # the look for a newer page, cut in its middle
)


@pytest.fixture(scope="session")
def server(django_db_setup: None, django_db_blocker: Any) -> Iterator[Served]:
    with django_db_blocker.unblock():
        name = str(connection.settings_dict["NAME"])
    door = {"ZERODIP_STAND_IN_PORT": str(free_port()), "ZERODIP_STAND_IN_SPEED": "12"}
    with patient_emptying(), serving(name, ZERODIP_DEMO="1", **door) as made:
        yield made


@pytest.fixture(scope="session")
def player() -> Iterator[Playwright]:
    with sync_playwright() as playwright:
        yield playwright


@pytest.fixture(scope="session")
def browser(player: Playwright) -> Iterator[Browser]:
    opened = player.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
    yield opened
    opened.close()


Opener = Callable[..., Page]


@pytest.fixture
def open_page(
    server: Served, browser: Browser, transactional_db: None, settings: Any
) -> Iterator[Opener]:
    """Opens Rounds, signed in to the demo. Whatever the page complains of, or asks from elsewhere,
    fails the test."""
    settings.DEMO_PASSWORD = "for tests only"
    call_command("load_demo")
    contexts: list[Any] = []
    complaints: list[str] = []

    def open(width: int = 1280, height: int = 800, touch: bool = False, theme: str = "day") -> Page:
        context = browser.new_context(
            viewport={"width": width, "height": height}, has_touch=touch, is_mobile=touch
        )
        context.add_init_script(
            "localStorage.getItem('zerodip.theme') || localStorage.setItem('zerodip.theme',"
            f" '{theme}')"
        )
        contexts.append(context)
        page = context.new_page()
        page.on("pageerror", lambda error: complaints.append(str(error)))
        page.on(
            "console",
            lambda m: (
                complaints.append(m.text)
                if m.type == "error" and not re.search(EXPECTED, m.text)
                else None
            ),
        )
        page.on(
            "request",
            lambda r: None if r.url.startswith((server.url, "data:")) else complaints.append(r.url),
        )
        page.goto(server.url)
        page.get_by_role("button", name="Open the demo").click()
        expect(page.get_by_role("heading", name="Larkfield Nursery")).to_be_visible()
        return page

    yield open
    for context in contexts:
        context.close()
    assert complaints == []


def decide(page: Page, system: str = "Potting-shed well", picture: str = "ribbon") -> Page:
    """Goes on to Decide for one of the demo's systems; a tankless pump's picture is its window."""
    page.get_by_role("link", name=f"Decide, {system}").click()
    expect(page.get_by_test_id(picture)).to_be_visible()
    return page
