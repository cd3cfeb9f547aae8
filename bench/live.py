"""Ten gauges on the wire at twenty samples a second, fifty who watch: from the sample to whoever
watches, and to the needle of a page in Chromium that watches beside them. Goal: 95 of 100 within
150 ms; over a limit it is told within half a second; a gauge that is lost, within two.

bench/run live, or python -m bench.live SECONDS
"""

import asyncio
import json
import os
import random
import subprocess
import sys
import time
import uuid
from concurrent.futures import ThreadPoolExecutor
from itertools import cycle
from typing import Any
from urllib.parse import urlsplit

from playwright.sync_api import Page, sync_playwright

from tests.serving import ROOT, free_port, serving

from .served import Caller

GAUGES, WATCHERS, WARM_S = 10, 50, 6.0
FASTER = 12  # the plants' own time: a start and a stop every few seconds
# Notes, for each time the needle is drawn, how old the sample is that it shows; and how old the
# first sample over the limit is when the alarm stands on the page.
NEEDLE = """
window.ages = []
window.alarms = []
let latest = 0, alarmed = false
new MutationObserver(() => {
  const now = document.querySelector('[role=alert].bg-error') !== null
  if (now && !alarmed)
    requestAnimationFrame(() => setTimeout(() => window.alarms.push(Date.now() / 1000 - latest)))
  alarmed = now
}).observe(document, { childList: true, subtree: true })
const Plain = EventSource
window.EventSource = class extends Plain {
  constructor(url) {
    super(url)
    this.addEventListener('message', (event) => {
      const { t } = JSON.parse(event.data)
      if (t) latest = t
      if (t) requestAnimationFrame(() => setTimeout(() => window.ages.push(Date.now() / 1000 - t)))
    })
  }
}
"""


def _id(what: str) -> str:
    """The same in every run, so that nothing piles up."""
    return str(uuid.uuid5(uuid.NAMESPACE_URL, f"bench live alarm {what}"))


def _watches(caller: Caller) -> list[str]:
    """Ten gauges watched, each on a visit; their watches' ids."""
    workspace = caller.json("GET", "/api/rounds")["workspaces"][0]["id"]
    wired = [each for each in caller.json("GET", "/api/gauges") if each["wire"]]
    theirs = [each for each in wired if each["gauge"]["name"].startswith("Stand-in")]
    stand_ins = cycle(caller.json("GET", "/api/stand-ins"))
    made = []
    for number, like in zip(range(GAUGES), cycle(theirs), strict=False):
        gauge, copy = (_id(f"{what} {number}") for what in ("gauge", "system"))
        known = next((each for each in wired if each["id"] == gauge), None)
        system = next(stand_ins)["system"]
        body = {
            "version": known["version"] if known else 0,
            "gauge": {**like["gauge"], "name": f"Bench {number}"},
            "wire": {**like["wire"], "rate_hz": 20},
        }
        caller.json("PUT", f"/api/workspaces/{workspace}/gauges/{gauge}", body)
        sheet = caller.json("GET", f"/api/systems/{system}")
        site = sheet["site"]["id"]
        file = sheet["document"]
        file = _with_low_limit(file, f"Bench {copy}"[:40])
        body = {"document": file, "name": file["system"]["name"]}
        caller.json("PUT", f"/api/sites/{site}/systems/{copy}", body)
        visit = caller.json("PUT", f"/api/systems/{copy}/visits/{uuid.uuid4()}")["id"]
        at = f"/api/visits/{visit}/watches/{uuid.uuid4()}"
        made.append((visit, caller.json("PUT", at, {"gauge": gauge})["id"]))
    _VISITS[:] = [visit for visit, _ in made]
    return [watch for _, watch in made]


_VISITS: list[str] = []


def _with_low_limit(file: dict[str, Any], name: str) -> dict[str, Any]:
    """The same plant by another name, whose tank stands no more than the middle of its band: it
    alarms in every run."""
    settings = file["settings"]
    middle = (settings["cut_in_gauge_pa"] + settings["cut_out_gauge_pa"]) / 2
    tanks = [{**tank, "max_gauge_pa": middle} for tank in file["system"].get("tanks", ())]
    return {**file, "system": {**file["system"], "name": name, "tanks": tanks}}


def _open_taps(caller: Caller) -> None:
    for each in caller.json("GET", "/api/stand-ins"):
        hands = {"hands": {**each["hands"], "tap": 0.3}}
        caller.json("PUT", f"/api/stand-ins/{each['system']}", hands)


async def _watch(caller: Caller, url: str, watch: str, until: float, ages: list[float]) -> None:
    """One who watches: how old each sample is when it comes (s)."""
    host, port = urlsplit(url).hostname, urlsplit(url).port
    await asyncio.sleep(random.uniform(0, WARM_S - 1))
    reader, writer = await asyncio.open_connection(host, port)
    head = {**caller.headers, "Host": f"{host}:{port}"}
    lines = [f"GET /api/watches/{watch}/stream HTTP/1.1", *(f"{k}: {v}" for k, v in head.items())]
    writer.write(("\r\n".join(lines) + "\r\n\r\n").encode())
    await writer.drain()
    status = await reader.readline()
    assert b" 200 " in status, (status, await reader.read(2000))
    while time.time() < until:
        line = await asyncio.wait_for(reader.readline(), 30)
        assert line, "the stream broke off"
        if line.startswith(b"data:"):
            said = json.loads(line[5:])
            if "t" in said and time.time() > until - SECONDS:
                ages.append(time.time() - said["t"])
    writer.close()


async def _all(caller: Caller, url: str, watches: list[str], until: float) -> list[float]:
    ages: list[float] = []
    named = [watch for watch, _ in zip(cycle(watches), range(WATCHERS), strict=False)]
    await asyncio.gather(*(_watch(caller, url, watch, until, ages) for watch in named))
    return ages


def _row(what: str, ages: list[float]) -> None:
    ages = sorted(ages)
    middle, most, worst = (ages[len(ages) * k // 1000] * 1e3 for k in (500, 950, 999))
    print(f"{what:34} {middle:6.1f} ms, p95 {most:6.1f}, p99.9 {worst:6.1f} ({len(ages)} samples)")


def _page(url: str, page: Page) -> None:
    page.add_init_script(NEEDLE)
    page.goto(url)
    page.get_by_role("button", name="Open the demo").click()
    page.wait_for_url("**/")
    page.goto(f"{url}/visits/{_VISITS[0]}/gauge")
    page.get_by_test_id("needle").wait_for(state="attached")  # one that stands upright has no width
    page.evaluate("window.ages.length = window.alarms.length = 0")


SECONDS = float(sys.argv[1]) if len(sys.argv) > 1 else 30.0


def main() -> None:
    """Prints a line for those who watch, and one for the needle."""
    port = str(free_port())
    settings: dict[str, Any] = {
        "DJANGO_SETTINGS_MODULE": "bench.settings",
        "ZERODIP_DEMO": "1",
        "ZERODIP_STAND_IN_PORT": port,
        "ZERODIP_STAND_IN_SPEED": str(FASTER),
    }
    with serving("zerodip", "0.0.0.0", **settings) as made, sync_playwright() as playwright:
        subprocess.run(
            [f"{ROOT}/.venv/bin/python", "manage.py", "load_demo_stand_ins"],
            cwd=ROOT / "server",
            env={**os.environ, **settings},
            check=True,
        )
        caller = Caller(made.url)
        watches = _watches(caller)
        _open_taps(caller)
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        page = browser.new_page()
        _page(made.url, page)
        with ThreadPoolExecutor(1) as beside:  # the browser's own loop runs in this thread
            until = time.time() + WARM_S + SECONDS
            asked = beside.submit(asyncio.run, _all(caller, made.url, watches, until))
            page.wait_for_timeout((WARM_S + SECONDS) * 1e3)
            ages = asked.result()
        _row(f"{GAUGES} gauges, {WATCHERS} who watch", ages)
        _row("needle in Chromium beside them", page.evaluate("window.ages"))
        _row("alarm on the page", page.evaluate("window.alarms"))
        expected = WATCHERS * 20 * SECONDS
        print(f"{len(ages) / expected:34.1%} of the samples that 20 a second make came")
        browser.close()
        again = Caller(made.url)
        for watch in watches:
            again.json("PUT", f"/api/watches/{watch}/ended")


if __name__ == "__main__":
    main()
