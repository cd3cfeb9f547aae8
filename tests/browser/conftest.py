"""The built page in headless Chromium, against the real server (gunicorn) on the test database."""

import os
import re
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from django.db import connection
from playwright.sync_api import Browser, Page, expect, sync_playwright

SERVER = Path(__file__).resolve().parents[2] / "server"
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
# What the browser itself says of a refusal, and of a test that takes the signal away.
EXPECTED = "status of|ERR_INTERNET_DISCONNECTED"


@dataclass
class Server:
    """A gunicorn of our own, that can be stopped and started again on the same database."""

    port: int
    process: Any = field(default=None)

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        words = [
            sys.executable,
            "-m",
            "gunicorn",
            "config.wsgi",
            "--bind",
            f"127.0.0.1:{self.port}",
            "--threads",
            "4",
        ]
        words += ["--keep-alive", "30", "--log-level", "error"]
        name = connection.settings_dict["NAME"]
        environment = {**os.environ, "ZERODIP_DB_NAME": str(name), "ZERODIP_DEMO": "1"}
        self.process = subprocess.Popen(words, cwd=SERVER, env=environment)
        until = time.monotonic() + 30
        while time.monotonic() < until:
            try:
                urllib.request.urlopen(f"{self.url}/api/session", timeout=1)
                return
            except OSError:
                assert self.process.poll() is None, "the server did not start"
                time.sleep(0.05)
        raise AssertionError("the server did not answer")

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait(10)


@pytest.fixture(scope="session")
def server(django_db_setup: None, django_db_blocker: Any) -> Iterator[Server]:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    with django_db_blocker.unblock():
        made = Server(port)
        made.start()
        yield made
        made.stop()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        opened = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield opened
        opened.close()


Opener = Callable[..., Page]


@pytest.fixture
def open_page(
    server: Server, browser: Browser, transactional_db: None, settings: Any
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
