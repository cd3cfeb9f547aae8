"""A week at a sample a second on the page in Chromium: from all of it to a minute and out again by
the wheel, a turn each sixtieth of a second; how long each picture takes, and how many points the
page asks for beside the pixels it draws them in. Goals: 60 pictures a second (a picture's own work
in 16.7 ms), no more points than pixels."""

import os
import subprocess
from typing import Any

from playwright.sync_api import Page, sync_playwright

from tests.serving import ROOT, serving

from .served import Caller

TURNS, TIMES = 40, 4
# Turns the wheel at each picture, and notes how far pictures are apart and what each takes to make.
ZOOMS = """
async ([turns, times]) => {
  const plot = document.querySelector('[role=application]')
  const { left, top, width, height } = plot.getBoundingClientRect()
  const apart = [], work = []
  const middle = { clientX: left + width / 2, clientY: top + height / 2 }
  const at = { bubbles: true, cancelable: true, ...middle }
  let before = performance.now()
  for (let k = 0; k < turns * times; k++) {
    const deltaY = Math.floor(k / turns) % 2 ? 100 : -100
    const begin = await new Promise(requestAnimationFrame)
    apart.push(performance.now() - before)
    before = performance.now()
    plot.dispatchEvent(new WheelEvent('wheel', { ...at, deltaY }))
    await new Promise((done) => {
      const { port1, port2 } = new MessageChannel()  // after the picture's own tasks
      port1.onmessage = done
      port2.postMessage(0)
    })
    work.push(performance.now() - before)
  }
  return [apart, work, width * devicePixelRatio]
}
"""


def _row(what: str, values: list[float], goal: str) -> None:
    values = sorted(values)
    middle, most = (values[len(values) * k // 100] for k in (50, 95))
    print(f"{what:28} median {middle:6.1f} ms, p95 {most:6.1f}, worst {values[-1]:6.1f} ({goal})")


def _zoomed(page: Page, address: str) -> None:
    answers: list[int] = []

    def seen(response: Any) -> None:
        if "/line?" in response.url and response.ok:
            answers.append(len(response.json()["time_s"]))

    page.goto(address)
    page.locator("canvas").wait_for()
    page.locator("[role=application]").press("Home")
    page.wait_for_timeout(1000)
    page.on("response", seen)
    apart, work, pixels = page.evaluate(ZOOMS, [TURNS, TIMES])
    page.wait_for_timeout(1000)
    _row("from picture to picture", apart, "goal 16.7")
    _row("work in one picture", work, "goal 16.7")
    most = max(answers)
    print(f"{len(answers)} times asked, at most {most} points a window and its sides, each half as")
    print(f"wide: {most / 2:.0f} in {pixels:.0f} pixels")


def main() -> None:
    """Loads the demo's week and zooms."""
    settings = {"DJANGO_SETTINGS_MODULE": "bench.settings", "ZERODIP_DEMO": "1"}
    with serving("zerodip", "0.0.0.0", **settings) as made, sync_playwright() as playwright:
        subprocess.run(
            [f"{ROOT}/.venv/bin/python", "manage.py", "load_demo_recordings"],
            cwd=ROOT / "server",
            env={**os.environ, **settings},
            check=True,
        )
        caller = Caller(made.url)
        week = _week(caller)
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(made.url)
        page.get_by_role("button", name="Open the demo").click()
        page.wait_for_url("**/")
        _zoomed(page, f"{made.url}/recordings/{week}")
        browser.close()


def _week(caller: Caller) -> str:
    """The demo's recording of a week."""
    sites = caller.json("GET", "/api/rounds")["sites"]
    for system in (row["id"] for site in sites for row in site["systems"]):
        for each in caller.json("GET", f"/api/systems/{system}/recordings"):
            if each["name"].startswith("A week"):
                return str(each["id"])
    raise SystemExit("the demo has no recording of a week")


if __name__ == "__main__":
    main()
