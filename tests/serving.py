"""Zero Dip served for real: web server, workers and all, on the database that the caller names."""

import os
import signal
import socket
import subprocess
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

__all__ = ["Served", "free_port", "serving"]

ROOT = Path(__file__).parents[1]


def free_port() -> int:
    """A port of this machine that nobody listens on."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


@dataclass
class Served:
    """One host: `scripts/serve` with a folder of its own. It can be stopped and started again."""

    database: str
    settings: dict[str, str] = field(default_factory=dict)
    bind: str = "127.0.0.1"
    port: int = field(default_factory=free_port)
    folder: Any = field(default_factory=lambda: tempfile.TemporaryDirectory(prefix="zd-"))
    process: Any = None

    @property
    def url(self) -> str:
        """Where it is reached."""
        return f"http://127.0.0.1:{self.port}"

    @property
    def run(self) -> str:
        """The folder of its sockets."""
        return f"{self.folder.name}/run"

    def start(self) -> None:
        """Returns when it answers, workers included. Raises AssertionError where it does not."""
        own = {"ZERODIP_DB_NAME": self.database, "ZERODIP_RUN": self.run, **self.settings}
        Path(self.folder.name).chmod(0o755)  # as wide as /tmp: the web server looks through it
        self.process = subprocess.Popen(
            [str(ROOT / "scripts/serve"), f"{self.bind}:{self.port}"],
            env={**os.environ, **own},
            start_new_session=True,
        )
        until = time.monotonic() + 40
        while time.monotonic() < until:
            assert self.process.poll() is None, "the server did not start"
            try:
                urllib.request.urlopen(f"{self.url}/health/ready", timeout=2)
                return
            except OSError:
                time.sleep(0.05)
        raise AssertionError("the server did not answer")

    def stop(self) -> None:
        """Asks it to end, and waits."""
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(30)


@contextmanager
def serving(database: str, bind: str = "127.0.0.1", **settings: str) -> Iterator[Served]:
    """A host that is stopped afterwards."""
    made = Served(database, settings, bind)
    made.start()
    try:
        yield made
    finally:
        made.stop()
        made.folder.cleanup()
