"""20,000 requests that nobody sends by mistake, on every operation that the API's own description
names: bodies shaped as described with something odd in them, broken JSON, odd letters in addresses,
headers and cookies. Prints the statuses that came back. Goal: none of 500 or more.
HOSTILE=seed:number draws others."""

import json
import os
import random
import threading
import uuid
from collections import Counter
from pathlib import Path
from typing import Any
from urllib.parse import quote

from .served import Caller, served, what_if

SEED, NUMBER = (int(part) for part in os.environ.get("HOSTILE", "1:20000").split(":"))
THREADS = 8
API = json.loads((Path(__file__).parents[1] / "docs/openapi.json").read_text())
DEEP: Any = 0
for _ in range(70):
    DEEP = [{"a": DEEP}]
ODD: tuple[Any, ...] = (
    None,
    True,
    "",
    "a\x00b",
    "\ud800",
    "x" * 5000,
    "-1",
    "NaN",
    -1,
    0,
    1e308,
    -1e308,
    10**30,
    1e-320,
    [],
    {},
    DEEP,
    list(range(5000)),
    {"a" * 300: 1},
    {"\ud800": 1},
    "../../etc/passwd",
    "' or 1=1 --",
    "<script>alert(1)</script>",
    "9" * 400,
    str(uuid.UUID(int=0)),
    [[[[]]]],
    "2026-02-30T25:61:00Z",
)
PIECES = ("%00", "%2e%2e%2f", "%ff", "%ed%a0%80", "a" * 3000, "0", "-1", "%0d%0aX: y", "{}", "%")
RAW = (b"", b"{", b"[" * 50_000, b'{"a":' * 9000, b"\xff\xfe", b"null", b'"x"', b"1e999", b"[NaN]")
TYPES = ("application/json", "text/plain", "application/xml", "multipart/form-data; boundary=x", "")


class Sender(threading.Thread):
    """Sends its share on a connection of its own."""

    def __init__(self, url: str, seed: int, statuses: Counter[int], worst: list[str]) -> None:
        super().__init__()
        self.url, self.rng, self.statuses, self.worst = url, random.Random(seed), statuses, worst
        self.caller = Caller(url)
        rounds = self.caller.json("GET", "/api/rounds")
        site = rounds["sites"][0]
        system = site["systems"][0]["id"]
        visit = self.caller.json("PUT", f"/api/systems/{system}/visits/{uuid.uuid4()}")["id"]
        known = {"workspace_id": site["workspace"], "site_id": site["id"], "system_id": system}
        self.known = {**known, "visit_id": visit, "id": system, "scope": "systems"}
        self.document = json.loads(what_if())["document"]

    def run(self) -> None:
        """One after the other; signs in again where something signed it out."""
        operations = [(m, p, o) for p, item in API["paths"].items() for m, o in item.items()]
        for _ in range(NUMBER // THREADS):
            method, path, operation = self.rng.choice(operations)
            status = self._send(method.upper(), path, operation)
            self.statuses[status] += 1
            if status >= 500:
                self.worst.append(f"{status} {method} {path}")
            if status == 401 or (method, path) == ("delete", "/api/session"):
                self.caller = Caller(self.url)

    def _send(self, method: str, path: str, operation: dict[str, Any]) -> int:
        address = self._address(path, operation)
        headers = {**self.caller.headers, "Content-Type": self._type()}
        if self.rng.random() < 0.05:
            headers["Cookie"] += f"; sessionid={self.rng.choice(PIECES[:5])}; csrftoken=\x01x"
        if self.rng.random() < 0.05:
            headers[self.rng.choice(("X-CSRFToken", "Accept", "Range", "If-Match"))] = "\x7f" * 99
        to = self.caller.connection
        try:
            to.request(method, address, self._body(operation), headers)
            got = to.getresponse()
            got.read()
            return got.status
        except Exception:  # closed by the other side, or not to be sent at all
            to.close()
            return 0

    def _type(self) -> str:
        return self.rng.choice(TYPES) if self.rng.random() < 0.1 else TYPES[0]

    def _address(self, path: str, operation: dict[str, Any]) -> str:
        for name in operation.get("parameters", []):
            if name["in"] == "path":
                path = path.replace(f"{{{name['name']}}}", self._piece(name["name"]))
        query = [
            f"{name['name']}={self._piece(name['name'])}"
            for name in operation.get("parameters", [])
            if name["in"] == "query" and self.rng.random() < 0.5
        ]
        return path + ("?" + "&".join(query) if query else "")

    def _piece(self, name: str) -> str:
        drawn = self.rng.random()
        if drawn < 0.75:
            return quote(str(self.known.get(name, uuid.UUID(int=self.rng.getrandbits(128)))))
        return self.rng.choice(PIECES)

    def _body(self, operation: dict[str, Any]) -> bytes:
        content = operation.get("requestBody", {}).get("content", {})
        if self.rng.random() < 0.1 or not content:
            return self.rng.choice(RAW)
        schema = next(iter(content.values()))["schema"]
        made = self._like(schema, 0)
        for _ in range(self.rng.randint(1, 3)):
            made = self._broken(made)
        return json.dumps(made).encode()

    def _like(self, schema: dict[str, Any], depth: int) -> Any:
        """A value as the description has it."""
        if "$ref" in schema:
            name = schema["$ref"].rpartition("/")[2]
            if name == "SystemFile":
                return json.loads(json.dumps(self.document))
            return self._like(API["components"]["schemas"][name], depth + 1)
        for choice in ("anyOf", "oneOf", "allOf"):
            if choice in schema:
                return self._like(self.rng.choice(schema[choice]), depth + 1)
        if "enum" in schema or "const" in schema:
            return self.rng.choice(schema.get("enum", [schema.get("const")]))
        kind = schema.get("type")
        if kind == "object" or "properties" in schema:
            named = schema.get("properties", {}).items()
            return {name: self._like(of, depth + 1) for name, of in named if depth < 8}
        if kind == "array":
            return [self._like(schema.get("items", {}), depth + 1) for _ in range(2 * (depth < 8))]
        plain = {"integer": 1, "number": self.rng.uniform(-1, 1e6), "boolean": True, "null": None}
        if kind in plain:
            return plain[kind]
        text = {
            "uuid": str(uuid.uuid4()),
            "date-time": "2026-05-01T10:00:00Z",
            "date": "2026-05-01",
        }
        return text.get(schema.get("format", ""), "owner")

    def _broken(self, made: Any) -> Any:
        """Something odd somewhere in it."""
        if not isinstance(made, dict | list) or not made or self.rng.random() < 0.15:
            return self.rng.choice(ODD)
        name = (
            self.rng.choice(list(made)) if isinstance(made, dict) else self.rng.randrange(len(made))
        )
        made[name] = self._broken(made[name])
        return made


def main() -> None:
    """Prints how often each status came back (0: the connection was closed)."""
    statuses: Counter[int] = Counter()
    worst: list[str] = []
    with served() as url:
        senders = [Sender(url, SEED * 100 + k, statuses, worst) for k in range(THREADS)]
        for each in senders:
            each.start()
        for each in senders:
            each.join()
        Caller(url).send("GET", "/api/rounds")  # it still answers
    said = ", ".join(f"{count} × {status}" for status, count in sorted(statuses.items()))
    bad = sum(count for status, count in statuses.items() if status >= 500)
    print(f"{sum(statuses.values())} hostile requests: {said}; {bad} of 500 or more (goal 0)")
    for each, count in Counter(worst).most_common(12):
        print(f"  {count} × {each}")


if __name__ == "__main__":
    main()
