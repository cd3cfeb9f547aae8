"""One ear at the database for all who watch from this process: each message goes on to those whom
it concerns."""

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Any

import psycopg

from .channel import CHANNEL, connected, message

__all__ = ["SILENT", "events"]

SILENT = "Nothing comes from this gauge at the moment."

_SILENT_S = 1.0  # after which a gauge is told as lost
_ANEW_S = 600.0  # after which a stream ends: it is asked for anew, by who still may
_AGAIN_S = 0.5
_MOST_WAITING = 200
_RETRY = "retry: 500\n\n"


class _Hub:
    def __init__(self) -> None:
        self._queues: dict[str, set[asyncio.Queue[str]]] = {}
        self._ear: asyncio.Task[None] | None = None

    def join(self, *names: str) -> asyncio.Queue[str]:
        """A queue of the messages about some gauge or watch."""
        queue: asyncio.Queue[str] = asyncio.Queue(_MOST_WAITING)
        for name in names:
            self._queues.setdefault(name, set()).add(queue)
        if self._ear is None or self._ear.done():
            self._ear = asyncio.get_running_loop().create_task(self._listen())
        return queue

    def leave(self, queue: asyncio.Queue[str], *names: str) -> None:
        """No more of them."""
        for name in names:
            held = self._queues.get(name, set())
            held.discard(queue)
            if not held:
                self._queues.pop(name, None)

    async def _listen(self) -> None:
        while self._queues:
            try:
                async with await connected() as ear:
                    await ear.execute(f"listen {CHANNEL}")
                    async for told in ear.notifies():
                        self._hand_on(told.payload)
            except psycopg.OperationalError:
                await asyncio.sleep(_AGAIN_S)

    def _hand_on(self, payload: str) -> None:
        said: dict[str, Any] = json.loads(payload)
        name = said.get("g") or said.get("w")
        for queue in self._queues.get(str(name), ()):
            if queue.full():  # whoever is too slow sees the latest
                queue.get_nowait()
            queue.put_nowait(payload)


_HUB = _Hub()


async def events(gauge: str, watch: str) -> AsyncIterator[str]:
    """What is told of a gauge and a watch, as server-sent events; a gauge that falls silent is told
    as lost, each second.

    Args:
        gauge: Id of the gauge.
        watch: Id of the watch.

    Yields:
        Events, each when it comes.
    """
    loop = asyncio.get_running_loop()
    queue, ends = _HUB.join(gauge, watch), loop.time() + _ANEW_S
    try:
        yield _RETRY
        while loop.time() < ends:
            try:
                payload = await asyncio.wait_for(queue.get(), _SILENT_S)
            except TimeoutError:
                payload = message(lost=SILENT)
            payloads = [payload]
            while not queue.empty():  # what waits goes out together
                payloads.append(queue.get_nowait())
            yield "".join(f"data: {each}\n\n" for each in payloads)
            if any('"ended":true' in each for each in payloads):
                return
    finally:
        _HUB.leave(queue, gauge, watch)
