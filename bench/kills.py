"""Kills one process after the other with -9, whichever it is (start script, the one that watches
over the workers, web server, workers, PostgreSQL and its backends), while eight write without a
pause and repeat what was not confirmed. Then counts what is on record. Goal: of what was confirmed
nothing lost, nothing twice. KILLS=seed:number draws others."""

import os
import random
import signal
import subprocess
import tempfile
import threading
import time
import uuid
from collections import Counter
from pathlib import Path
from typing import Any

from tests.serving import ROOT, free_port

from .served import Caller

SEED, NUMBER = (int(part) for part in os.environ.get("KILLS", "1:50").split(":"))
WRITERS, PATIENCE_S = 8, 60.0


class Installation:
    """./start in a folder of its own, started again where it was killed itself."""

    def __init__(self, folder: str) -> None:
        self.port, self.folder, self.process = free_port(), folder, None
        self.run = f"{folder}/run"
        self.start()

    @property
    def url(self) -> str:
        """Where it is reached."""
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        """Begins it; does not wait until it answers."""
        own = {"ZERODIP_DATA": self.folder, "ZERODIP_RUN": self.run, "ZERODIP_DEMO": "1"}
        own |= {"ZERODIP_PORT": str(self.port), "ZERODIP_BIND": "127.0.0.1"}
        self.process: Any = subprocess.Popen(
            [str(ROOT / "start")],
            env={**os.environ, **own},
            start_new_session=True,
            stderr=subprocess.DEVNULL,
        )

    def processes(self) -> dict[int, str]:
        """All that may be killed, and what each is."""
        found = {self.process.pid: "start"}
        for each in Path("/proc").glob("[0-9]*"):
            try:
                folder = os.readlink(each / "cwd")
                words = (each / "cmdline").read_bytes().replace(b"\0", b" ").decode()
            except OSError:
                continue
            if folder.startswith(self.run) and words:
                part = folder.removeprefix(self.run).strip("/")
                found[int(each.name)] = part if part else "watcher"
            elif folder.startswith(self.folder) and "postgres" in words:
                found[int(each.name)] = " ".join(words.split(" -")[0].rpartition("/")[2].split())[
                    :40
                ]
        return found

    def stop(self) -> None:
        """Ends it."""
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(60)


class Writer(threading.Thread):
    """Adds note after note to a visit; each again until it is confirmed."""

    def __init__(self, url: str, visit: str, confirmed: list[str], ends: threading.Event) -> None:
        super().__init__(daemon=True)
        self.url, self.visit, self.confirmed, self.ends = url, visit, confirmed, ends
        self.said = Counter[str]()

    def run(self) -> None:
        """Until it is told to end."""
        caller = None
        while not self.ends.is_set():
            id = str(uuid.uuid4())
            body = f'{{"slot": "note", "value": {{"text": "{id}"}}}}'.encode()
            while True:
                try:
                    caller = caller or Caller(self.url)
                    path = f"/api/visits/{self.visit}/entries/{id}"
                    status, _ = caller.answer("PUT", path, body)
                    if status == 200:
                        self.confirmed.append(id)
                        break
                    self.said[str(status)] += 1
                except Exception as error:
                    self.said[type(error).__name__] += 1
                    time.sleep(0.1)
                caller = None


def confirmed_again(confirmed: list[str], since: int) -> bool:
    """Whether somebody could write within the patience."""
    until = time.monotonic() + PATIENCE_S
    while len(confirmed) < since + WRITERS and time.monotonic() < until:
        time.sleep(0.02)
    return len(confirmed) >= since + WRITERS


def answering(url: str) -> Caller:
    """A caller, as soon as there can be one."""
    until = time.monotonic() + 2 * PATIENCE_S
    while True:
        try:
            return Caller(url)
        except Exception:
            if time.monotonic() > until:
                raise
            time.sleep(0.2)


def main() -> None:
    """Prints what was killed, how long nothing was confirmed, what is on record."""
    rng, confirmed, ends = random.Random(SEED), list[str](), threading.Event()
    with tempfile.TemporaryDirectory(prefix="zd-kills-") as folder:
        Path(folder).chmod(0o755)
        of = Installation(folder)
        caller = answering(of.url)
        system = caller.json("GET", "/api/rounds")["sites"][0]["systems"][0]["id"]
        visit = caller.json("PUT", f"/api/systems/{system}/visits/{uuid.uuid4()}")["id"]
        writers = [Writer(of.url, visit, confirmed, ends) for _ in range(WRITERS)]
        for each in writers:
            each.start()
        killed, gaps = Counter[str](), []
        for _ in range(NUMBER):
            time.sleep(rng.uniform(0.1, 1.0))
            kinds: dict[str, list[int]] = {}
            for pid, name in of.processes().items():
                kinds.setdefault(name, []).append(pid)
            name = rng.choice(sorted(kinds))
            since, begin = len(confirmed), time.monotonic()
            os.kill(rng.choice(kinds[name]), signal.SIGKILL)
            killed[name] += 1
            if name == "start":
                of.process.wait()
                of.start()
            if not confirmed_again(confirmed, since):
                print(f"after {name} was killed nothing was confirmed for {PATIENCE_S:.0f} s")
                of.stop() if of.process.poll() is None else None
                of.start()
                answering(of.url)
            gaps.append(time.monotonic() - begin)
        ends.set()
        for each in writers:
            each.join()
        kept = Counter(
            e["id"] for e in answering(of.url).json("GET", f"/api/visits/{visit}")["entries"]
        )
        lost = [id for id in confirmed if id not in kept]
        twice = [id for id, count in kept.items() if count > 1]
        of.stop()
    said = ", ".join(f"{count} × {name}" for name, count in killed.most_common())
    print(f"killed: {said}")
    again = dict(sum((each.said for each in writers), Counter[str]()))
    print(
        f"{len(confirmed)} writes confirmed (sent again after {again});"
        f" {len(lost)} lost, {len(twice)} twice (goal 0 and 0); longest without one"
        f" {max(gaps):.1f} s"
    )


if __name__ == "__main__":
    main()
