"""The what-if endpoint against an empty JSON endpoint of the same server, by turns on one
connection: goal at most 1.8×. And what comparing other ways takes there: goal for a proposal
under 150 ms."""

import http.client
import json
import statistics
import time
from urllib.parse import urlsplit

from sites.demo import SITES
from zerodip.fileformat.document import read_document

from .served import served

ASKS = ("propose", "compare", "sizes")


class Caller:
    """One connection, signed in to the demo."""

    def __init__(self, url: str) -> None:
        self.connection = http.client.HTTPConnection(urlsplit(url).netloc)
        self.cookies: dict[str, str] = {}
        self.send("GET", "/")
        self.send("POST", "/api/session/demo")

    def send(self, method: str, path: str, body: bytes = b"") -> bytes:
        """One request; gives the body."""
        headers = {
            "Content-Type": "application/json",
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
        }
        self.connection.request(method, path, body, headers)
        response = self.connection.getresponse()
        for name, value in response.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        assert response.status < 300, (path, response.status)
        return response.read()

    def milliseconds(self, path: str, body: bytes) -> float:
        """How long one POST takes."""
        begin = time.perf_counter()
        self.send("POST", path, body)
        return (time.perf_counter() - begin) * 1e3


def main() -> None:
    """Prints the medians and their ratio."""
    with served() as url:
        caller = Caller(url)
        for file in (file for _, _, files in SITES for file in files):
            document = read_document(file).as_json()
            body = json.dumps({"document": document, "draw_m3_s": None}).encode()
            plain = json.dumps({"document": document}).encode()
            pairs = [
                (
                    caller.milliseconds("/bench/empty", b"{}"),
                    caller.milliseconds("/api/decide", body),
                )
                for _ in range(140)
            ][20:]
            empty, asked = (statistics.median(side) for side in zip(*pairs, strict=True))
            name = file["system"]["name"]
            print(
                f"{name:22} empty {empty:.2f} ms, what-if {asked:.2f} ms: {asked / empty:.2f} ×"
                " (goal 1.8)"
            )
            judged = {
                ask: statistics.median(caller.milliseconds(f"/api/{ask}", plain) for _ in range(9))
                for ask in ASKS
            }
            print(
                " " * 22,
                ", ".join(f"{ask} {taken:.0f} ms" for ask, taken in judged.items()),
                "(goal for propose 150)",
            )


if __name__ == "__main__":
    main()
