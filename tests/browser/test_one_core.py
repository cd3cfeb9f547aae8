"""One core, the same answers: every question is put to the server and to the core in the page, and
the JSON is compared exactly."""

import json
import random
import uuid
from typing import Any

import pytest
from playwright.sync_api import Page

from accounts.models import User, Workspace
from sites.demo import SITES
from sites.models import System
from tests.browser.conftest import Opener
from tests.core.test_extremes import documents
from tests.core.test_trouble import random_seen
from tests.server.conftest import caller
from tests.server.test_device import READINGS, Device, apart, paths_of_all, put
from tests.server.test_exchange_any import tampered
from visits.experience import met_by_kind
from zerodip.answers.offline import answer_offline
from zerodip.units import SYSTEMS

# The core in a worker of its own, started as the page starts it.
DESK = """async () => {
  const at = [...performance.getEntriesByType('resource')].map((each) => each.name)
    .find((each) => each.includes('core.worker-'))
  const worker = new Worker(at, { type: 'module' })
  let count = 0
  window.core = (name, ...args) => new Promise((done) => {
    const id = String(count++)
    const heard = ({ data }) => {
      if (data.id !== id) return
      worker.removeEventListener('message', heard)
      done(data.value)
    }
    worker.addEventListener('message', heard)
    const argumentList = args.map((value) => ({ type: 'RAW', value }))
    worker.postMessage({ id, type: 'APPLY', path: [name], argumentList })
  })
  await window.core('ready')
}"""
# What differs, by place; the page asks both with the same text.
BOTH = """async (asked) => {
  const token = document.cookie.match(/csrftoken=([^;]+)/)[1]
  const differ = (here, there, path) => {
    if (Object.is(here, there)) return []
    const both = [here, there].every((each) => typeof each === 'object' && each !== null)
    if (!both || Array.isArray(here) !== Array.isArray(there)) return [[path, here, there]]
    const names = [...new Set([...Object.keys(here), ...Object.keys(there)])]
    return names.flatMap((name) => name in here && name in there
      ? differ(here[name], there[name], `${path}.${name}`) : [[`${path}.${name}`, 'only one']])
  }
  const found = []
  for (const [name, units, body] of asked) {
    const headers = { 'Content-Type': 'application/json', 'X-CSRFToken': token }
    const got = await fetch(`/api/${name}?units=${units}`, { method: 'POST', headers, body })
    const said = await window.core('whatIf', name, body, units)
    if (got.status !== Number(said.slice(0, 3))) found.push([name, got.status, said.slice(0, 90)])
    else found.push(...differ(JSON.parse(said.slice(4)), await got.json(), name))
  }
  return found.slice(0, 5)
}"""
KEPT = """async () => {
  const count = async () => (await (await caches.open('zerodip-python')).keys()).length
  while (!(await count())) await new Promise((done) => setTimeout(done, 50))
}"""
Asked = tuple[str, str, str]


def core_in(page: Page, restored: bool = False) -> Page:
    """The page with a core to be asked, started from nothing or from what the browser kept."""
    page.locator("html[data-core=ready]").wait_for(timeout=60_000)
    if restored:
        page.evaluate(KEPT)
    page.evaluate(DESK)
    return page


def differences(page: Page, asked: list[Asked], restored: bool = False) -> Any:
    return core_in(page, restored).evaluate(BOTH, asked)


def on(raw: Any, chance: random.Random, name: str = "decide") -> Asked:
    body = {"document": raw}
    if name == "decide":
        body |= {"draw_m3_s": chance.choice((None, 0.0004, -1)), "sure": chance.random() < 0.2}
    return name, chance.choice(tuple(SYSTEMS)), json.dumps(body)


def demo() -> list[Any]:
    return [file for _, _, files in SITES for file in files]


@pytest.mark.parametrize("name", ["decide", "propose", "compare", "sizes"])
def test_the_demo_is_judged_alike(open_page: Opener, name: str) -> None:
    chance = random.Random(name)
    asked = [on(raw, chance, name) for raw in demo()]
    assert differences(open_page(), asked) == []


def test_three_hundred_random_files_are_judged_alike(open_page: Opener) -> None:
    chance = random.Random(20261126)
    files = [document.as_json() for document, _ in documents(614, 300)]
    asked = [on(raw, chance) for raw in files]
    asked += [on(raw, chance, chance.choice(("propose", "sizes", "compare"))) for raw in files[:30]]
    # What is refused is refused in the same words.
    asked += [on(tampered(raw, chance), chance) for raw in files[:60]]
    assert differences(open_page(), asked, restored=True) == []


def test_troubles_are_found_alike(open_page: Opener) -> None:
    chance, asked = random.Random(7), []
    met = met_by_kind(Workspace.objects.get().pk)
    for document, _ in documents(615, 40):
        seen = random_seen(document.figures(), chance)
        evidence = [{"item": each.item, "value": each.value} for each in seen]
        body = {"system_file": document.as_json(), "evidence": evidence, "met": met}
        asked.append(("trouble", "us", json.dumps(body)))
    assert differences(open_page(), asked) == []


def test_systems_and_visits_are_told_alike_without_a_connection(open_page: Opener) -> None:
    """All of the demo as a device tells it, and a visit walked to its end, in the page as natively:
    what waits and what is held are the same text."""
    page = core_in(open_page(), restored=True)
    device = Device(caller(User.objects.get(username="demo")))
    for path in paths_of_all():
        alike(page, device, "GET", path)
    visit = f"/api/visits/{uuid.uuid4()}"
    system = System.objects.get(name="Potting-shed well").pk
    alike(page, device, "PUT", f"/api/systems/{system}/visits/{visit.rpartition('/')[2]}")
    for slot, value in READINGS:
        alike(page, device, "PUT", f"{visit}/entries/{uuid.uuid4()}", put(slot, value))
        alike(page, device, "GET", visit)
    alike(page, device, "PUT", f"{visit}/closed")
    alike(page, device, "GET", f"{visit}/report")


def alike(page: Page, device: Device, method: str, path: str, body: Any = None) -> None:
    asked = json.dumps(device.question(method, path, body))
    here = page.evaluate("(asked) => window.core('offline', asked)", asked)
    there = answer_offline(asked)
    assert apart(json.loads(here[4:]), json.loads(there[4:]), path) == []
    assert here[:3] == there[:3]
    if method != "GET":
        assert here[:3] == "200", here
        device.writes = json.loads(asked)["writes"]
