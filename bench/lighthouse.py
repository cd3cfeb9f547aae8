"""Lighthouse on sign-in, Rounds, a sheet and Decide, as a phone and as a desktop. Goal: 95 in all
four categories. Installs Lighthouse beside itself (bench/lighthouse) the first time."""

import json
import subprocess
import tempfile
from pathlib import Path
from typing import Any

from playwright.sync_api import BrowserContext, sync_playwright

from tests.serving import free_port

from .served import Caller, served

HERE = Path(__file__).parent / "lighthouse"
CATEGORIES = ("performance", "accessibility", "best-practices", "seo")
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
SIGNED_IN = ("/api/rounds", "/api/systems/")


def scores(url: str, form: str, port: int, signed_in: bool) -> list[int]:
    """The four scores of a page, out of 100; in a browser that listens on a port."""
    command = [str(HERE / "node_modules/.bin/lighthouse"), url, "--quiet", "--output=json"]
    command += [f"--port={port}", f"--only-categories={','.join(CATEGORIES)}"]
    command += ["--preset=desktop"] if form == "desktop" else []
    told: dict[str, Any] = {}
    while not told:  # now and then it loses its page, and says so by its status
        said = subprocess.run(command, capture_output=True, timeout=300)
        told = json.loads(said.stdout) if said.returncode == 0 else {}
    asked = [each["url"] for each in told["audits"]["network-requests"]["details"]["items"]]
    there = any(part in address for address in asked for part in SIGNED_IN)
    assert there is signed_in, "the page that was measured is another"
    return [round(100 * (told["categories"][each]["score"] or 0)) for each in CATEGORIES]


def sign_in(context: BrowserContext, caller: Caller, url: str) -> None:
    """Gives the browser the session of a caller."""
    rows: Any = [{"name": n, "value": v, "url": url} for n, v in caller.cookies.items()]
    context.add_cookies(rows)


def main() -> None:
    """Prints the scores, the median of three runs each."""
    if not (HERE / "node_modules").exists():
        subprocess.run(["npm", "ci", "--silent"], cwd=HERE, check=True)
    port = free_port()
    with served() as url, sync_playwright() as player:
        context = player.chromium.launch_persistent_context(
            tempfile.mkdtemp(prefix="zd-lighthouse-"),
            executable_path="/usr/bin/chromium",
            args=[*FLAGS, f"--remote-debugging-port={port}"],
        )
        caller = Caller(url)
        rounds = json.loads(caller.send("GET", "/api/rounds"))
        system = rounds["sites"][0]["systems"][0]["id"]
        pages = {
            "sign-in": "/",
            "Rounds": "/",
            "sheet": f"/systems/{system}",
            "Decide": f"/systems/{system}/decide",
        }
        print(f"{'':18}{'  '.join(f'{each:>14}' for each in CATEGORIES)}   (goal 95)")
        for name, path in pages.items():
            if name == "Rounds":
                sign_in(context, caller, url)
            for form in ("phone", "desktop"):
                runs = [scores(url + path, form, port, name != "sign-in") for _ in range(3)]
                middle = [sorted(column)[1] for column in zip(*runs, strict=True)]
                print(f"{name:9}{form:9}{'  '.join(f'{each:14d}' for each in middle)}", flush=True)
        context.close()


if __name__ == "__main__":
    main()
