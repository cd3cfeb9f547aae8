"""A server for one benchmark, and who asks it."""

import http.client
import json
import statistics
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any
from urllib.parse import urlsplit

from sites.demo import SITES
from tests.serving import serving
from zerodip.fileformat.document import read_document

__all__ = ["Caller", "asked", "median_ms", "served", "what_if"]


@contextmanager
def served() -> Iterator[str]:
    """The address of Zero Dip with the benchmarks' settings, open to the network as a server is,
    stopped afterwards."""
    settings = {"DJANGO_SETTINGS_MODULE": "bench.settings", "ZERODIP_DEMO": "1"}
    with serving("zerodip", "0.0.0.0", **settings) as made:
        yield made.url


class Caller:
    """One connection, signed in to the demo."""

    def __init__(self, url: str) -> None:
        self.connection = http.client.HTTPConnection(urlsplit(url).netloc, timeout=120)
        self.cookies: dict[str, str] = {}
        self.send("GET", "/")
        self.send("POST", "/api/session/demo")

    @property
    def headers(self) -> dict[str, str]:
        """What every request carries."""
        return {
            "Content-Type": "application/json",
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
        }

    def answer(self, method: str, path: str, body: bytes = b"") -> tuple[int, bytes]:
        """One request; its status and body."""
        self.connection.request(method, path, body, self.headers)
        response = self.connection.getresponse()
        for name, value in response.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        return response.status, response.read()

    def send(self, method: str, path: str, body: bytes = b"") -> bytes:
        """One request that is not refused; its body."""
        status, read = self.answer(method, path, body)
        assert status < 300, (path, status, read[:300])
        return read

    def json(self, method: str, path: str, body: Any = None) -> Any:
        """The same in JSON."""
        read = self.send(method, path, b"" if body is None else json.dumps(body).encode())
        return json.loads(read) if read else None

    def milliseconds(self, path: str, body: bytes) -> float:
        """How long one POST takes."""
        begin = time.perf_counter()
        self.send("POST", path, body)
        return (time.perf_counter() - begin) * 1e3


def asked(file: dict[str, Any]) -> bytes:
    """A what-if on a system of the demo, as the page asks it while a grip is dragged."""
    document = read_document(file).as_json()
    return json.dumps({"document": document, "draw_m3_s": None}).encode()


def what_if() -> bytes:
    """One of the first system of the demo."""
    return asked(SITES[0][2][0])


def median_ms(caller: Caller, times: int) -> tuple[float, float]:
    """Median and 95th of a hundred of so many what-ifs, one after the other, in milliseconds."""
    body = what_if()
    taken = sorted(caller.milliseconds("/api/decide", body) for _ in range(times))
    return statistics.median(taken), taken[int(0.95 * len(taken))]
