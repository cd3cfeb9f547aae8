"""32 clients that ask what-ifs without a pause for a minute: how many a second, and how many were
refused. Goal: 150 a second on two cores, no error."""

import asyncio
import os
import statistics
import time
from urllib.parse import urlsplit

from .served import Caller, served, what_if

CLIENTS, SECONDS = 32, float(os.environ.get("SECONDS", "60"))


async def client(url: str, head: bytes, body: bytes, until: float, seen: list[float]) -> int:
    """One that asks until then; gives how many were not answered well."""
    to = urlsplit(url)
    wrong = 0
    reader, writer = await asyncio.open_connection(to.hostname, to.port)
    while time.perf_counter() < until:
        begin = time.perf_counter()
        try:
            writer.write(head + body)
            said = await reader.readuntil(b"\r\n\r\n")
            length = next(
                int(line.split(b":")[1])
                for line in said.split(b"\r\n")
                if line.lower().startswith(b"content-length")
            )
            await reader.readexactly(length)
            wrong += b" 200 " not in said[:15]
        except (OSError, asyncio.IncompleteReadError):
            wrong += 1
            reader, writer = await asyncio.open_connection(to.hostname, to.port)
        seen.append((time.perf_counter() - begin) * 1e3)
    writer.close()
    return wrong


async def load(url: str, headers: dict[str, str], body: bytes) -> tuple[list[float], int]:
    """All of them at once: what each request took, and how many failed."""
    lines = [f"{name}: {value}" for name, value in headers.items()]
    lines += ["POST /api/decide HTTP/1.1", "Host: localhost", f"Content-Length: {len(body)}"]
    lines.sort(key=lambda line: not line.startswith("POST"))
    head, until = ("\r\n".join(lines) + "\r\n\r\n").encode(), time.perf_counter() + SECONDS
    seen: list[float] = []
    clients = (client(url, head, body, until, seen) for _ in range(CLIENTS))
    return seen, sum(await asyncio.gather(*clients))


def main() -> None:
    """Prints requests a second and times."""
    with served() as url:
        seen, wrong = asyncio.run(load(url, Caller(url).headers, what_if()))
        seen.sort()
        print(
            f"{CLIENTS} clients, {SECONDS:.0f} s: {len(seen) / SECONDS:.0f} what-ifs a second"
            f" (goal 150 on two cores), {wrong} errors; median {statistics.median(seen):.0f} ms,"
            f" 99 %: {seen[int(0.99 * len(seen))]:.0f} ms"
        )


if __name__ == "__main__":
    main()
