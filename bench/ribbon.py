"""From a pointer's move to the redrawn ribbon, in headless Chromium. Goals: with the core in the
page p95 within one frame (16.7 ms); 30 redraws a second of a drag at fourfold CPU throttling.

Each move is timed from the event until the band's outline has changed, and until the frame after
that; a drag sends a move with every frame for four seconds. The first row asks the server.
"""

import statistics

from playwright.sync_api import Browser, Page, sync_playwright

from .served import served

# The grip of cut-out, the band that it moves, and a hand on it.
GRIP = """
  const pill = document.querySelector('[data-grip=cut_out]')
  const band = document.querySelector('[data-testid=band]')
  pill.setPointerCapture = () => {}
  const box = pill.querySelectorAll('rect')[1].getBoundingClientRect()
  const at = (y) => ({ pointerId: 1, clientX: box.x + 20, clientY: y, bubbles: true })
  const send = (type, y) => pill.dispatchEvent(new PointerEvent(type, at(y)))
"""
MOVES = (
    f"async (count) => {{{GRIP}"
    + """  const frame = () => new Promise((done) => requestAnimationFrame(done))
  const middle = box.y + box.height / 2
  const taken = []
  send('pointerdown', middle)
  for (let k = 0; k < count; k++) {
    await new Promise((done) => setTimeout(done, 7 + (k * 13) % 17))
    let changed = 0
    const redrawn = new Promise((done) => {
      const watch = new MutationObserver(() => {
        watch.disconnect()
        changed = performance.now()
        done()
      })
      watch.observe(band, { attributes: true, attributeFilter: ['d'] })
    })
    const begin = performance.now()
    send('pointermove', middle + 10 + 80 * (k % 2) + (k % 5) * 10)
    await redrawn
    await frame()
    taken.push([changed - begin, performance.now() - begin])
  }
  send('pointerup', middle)
  return taken
}"""
)
DRAG = (
    f"async (seconds) => {{{GRIP}"
    + """  const middle = box.y + box.height / 2
  let count = 0, moves = 0
  const watch = new MutationObserver(() => count++)
  watch.observe(band, { attributes: true, attributeFilter: ['d'] })
  send('pointerdown', middle)
  const until = performance.now() + 1000 * seconds
  while (performance.now() < until) {
    await new Promise((done) => requestAnimationFrame(done))
    const turn = (9 * moves++) % 200 // up and down by nine pixels a frame: each moves the band
    send('pointermove', middle + 10 + Math.min(turn, 200 - turn))
  }
  send('pointerup', middle)
  watch.disconnect()
  return [count / seconds, moves / seconds]
}"""
)


def board(browser: Browser, url: str, core: bool, throttled: int) -> Page:
    """Decide of the first well, untouched; with the core at work in the page, or never."""
    page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    if not core:
        page.route("**/pyodide*/**", lambda route: route.abort())
    page.goto(url)
    page.get_by_role("button", name="Open the demo").click()
    if core:
        page.locator("html[data-core=ready][data-held]").wait_for(timeout=60_000)
    page.get_by_role("link", name="Decide, Potting-shed well").click()
    page.get_by_test_id("ribbon").wait_for()
    page.wait_for_timeout(1500)
    devtools = page.context.new_cdp_session(page)
    devtools.send("Emulation.setCPUThrottlingRate", {"rate": throttled})
    return page


def timed(page: Page) -> str:
    """Median and 95th percentile, until redrawn and until the frame after it."""
    taken = page.evaluate(MOVES, 220)[20:]
    page.context.close()
    told = []
    for column in zip(*taken, strict=True):
        high = statistics.quantiles(column, n=20)[-1]
        told.append(f"median {statistics.median(column):5.1f} ms, p95 {high:5.1f} ms")
    return f"redrawn: {told[0]}; next frame: {told[1]}"


def main() -> None:
    """Prints both goals."""
    with served() as url, sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium",
            args=["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
        )
        print("by the server    ", timed(board(browser, url, core=False, throttled=1)))
        print("core in the page ", timed(board(browser, url, core=True, throttled=1)))
        print("the same, 4x     ", timed(board(browser, url, core=True, throttled=4)))
        for throttled in (1, 4):
            page = board(browser, url, core=True, throttled=throttled)
            rate, frames = page.evaluate(DRAG, 4)
            page.context.close()
            print(
                f"a drag, {throttled}x: {rate:.0f} redraws, {frames:.0f} frames a second (goal 30)"
            )
        browser.close()


if __name__ == "__main__":
    main()
