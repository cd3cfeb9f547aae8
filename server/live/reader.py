"""Reads the gauges that somebody watches: each sample is told at once, kept every other second, and
what the line shows is worked out beside it. One process reads for all hosts."""

import asyncio
import logging
import time
from collections import deque
from contextlib import suppress
from dataclasses import asdict, dataclass, field
from typing import Any
from uuid import UUID, uuid5

import numpy as np
import psycopg
from asgiref.sync import sync_to_async

from zerodip.bench.contact import ContactLine, Sample
from zerodip.recording.live import Seen, seen_of
from zerodip.recording.samples import Samples
from zerodip.units import PSI
from zerodip.wire import PROBLEMS, WireSpec, gauge_pa

from .benches import read_on_benches
from .channel import CHANNEL, connected, message
from .keeping import Asked, asked, ended_by_closing, keep_samples, keep_seen
from .wires import WireProblem, opened

__all__ = ["Reader"]

_LOG = logging.getLogger(__name__)
_LOOKED_BACK_S = 900.0  # of the line that is read while it comes
_KEPT_S, _ASKED_S, _READ_S, _AGAIN_S = 2.0, 1.0, 1.0, 1.0
_LOCK = 0x5A65726F  # of the one reader
_STANDS_PA = 0.5 * PSI  # by which a gauge that stands still stands elsewhere
_QUIET_STEP_S = 15.0  # in which a quiet time is told anew


@dataclass
class _Line:
    """The last minutes of one gauge, and what of them is not kept yet."""

    times: deque[float]
    pressures: deque[float]
    new: list[tuple[float, float]]
    contact: ContactLine = field(default_factory=ContactLine)

    def add(self, at_s: float, pressure_pa: float) -> None:
        self.times.append(at_s)
        self.pressures.append(pressure_pa)
        self.new.append((at_s, pressure_pa))
        while self.times[0] < at_s - _LOOKED_BACK_S:
            self.times.popleft()
            self.pressures.popleft()

    def since(self, from_s: float) -> Samples:
        times, pressures = np.array(self.times), np.array(self.pressures)
        first = int(np.searchsorted(times, from_s))
        return Samples(times[first:], pressures[first:])


class Reader:
    """The gauges being read, each by a task of its own."""

    def __init__(self, told: "psycopg.AsyncConnection[Any]") -> None:
        self._told = told
        self._tasks: dict[UUID, tuple[WireSpec, asyncio.Task[None]]] = {}
        self._lines: dict[UUID, _Line] = {}
        self._seen: dict[UUID, tuple[Any, ...]] = {}
        self._watches: list[Asked] = []
        self._benches: dict[UUID, WireSpec] = {}

    async def run(self) -> None:
        """Reads until it is told to stop. Raises where the database goes: it is begun again."""
        while not await self._alone():
            await asyncio.sleep(_AGAIN_S)
        try:
            async with asyncio.TaskGroup() as group:
                group.create_task(self._follow())
                group.create_task(self._keep())
                group.create_task(self._look())
        finally:
            for _, task in self._tasks.values():
                task.cancel()

    async def _alone(self) -> bool:
        found = await self._told.execute("select pg_try_advisory_lock(%s)", (_LOCK,))
        row = await found.fetchone()
        return bool(row and row[0])

    async def _tell(self, **fields: Any) -> None:
        await self._told.execute("select pg_notify(%s, %s)", (CHANNEL, message(**fields)))

    async def _follow(self) -> None:
        """Begins and ends tasks as watches begin and end, and as gauges are changed."""
        while True:
            for watch in await sync_to_async(ended_by_closing)():
                await self._tell(w=str(watch), ended=True)
            self._watches = await sync_to_async(asked)()
            wanted = {each.gauge: each.spec for each in self._watches}
            self._benches = await sync_to_async(read_on_benches)()
            wanted |= self._benches
            under_way = {each.id for each in self._watches}
            self._seen = {id: mark for id, mark in self._seen.items() if id in under_way}
            for gauge, (spec, task) in list(self._tasks.items()):
                if wanted.get(gauge) != spec:
                    task.cancel()
                    del self._tasks[gauge]
            for gauge, spec in wanted.items():
                if gauge not in self._tasks:
                    line = self._lines.setdefault(gauge, _Line(deque(), deque(), []))
                    task = asyncio.create_task(self._read(gauge, spec, line))
                    self._tasks[gauge] = (spec, task)
            await asyncio.sleep(_ASKED_S)

    async def _read(self, gauge: UUID, spec: WireSpec, line: _Line) -> None:
        """One gauge, for as long as it is watched; where it is lost, it is tried again."""
        while True:
            try:
                async with opened(spec) as wire:
                    due = time.monotonic()
                    while True:
                        figure = await wire.figure()
                        reads = gauge in self._benches and spec.contact != "none"
                        closed = await wire.closed() if reads else None
                        await self._sample(gauge, spec, line, figure, closed)
                        due = max(due + 1 / spec.rate_hz, time.monotonic() - 1.0)
                        await asyncio.sleep(max(due - time.monotonic(), 0.0))
            except WireProblem as problem:
                await self._tell(g=str(gauge), lost=PROBLEMS[str(problem)])
            await asyncio.sleep(_AGAIN_S)

    async def _sample(
        self, gauge: UUID, spec: WireSpec, line: _Line, figure: float, closed: bool | None
    ) -> None:
        at_s, pressure = time.time(), gauge_pa(spec, figure)
        if pressure is None:
            await self._tell(g=str(gauge), lost=PROBLEMS["no_pressure"])
            return
        line.add(at_s, pressure)
        told = {"t": round(at_s, 3), "p": round(pressure, 1)}
        if gauge not in self._benches:
            await self._tell(g=str(gauge), **told)
            return
        change = line.contact.add(Sample(at_s, pressure, bool(closed)))
        told["r"] = round(line.contact.rate_pa_s, 1)
        await self._tell(g=str(gauge), **told, **({} if closed is None else {"c": closed}))
        if change is not None:
            id = uuid5(gauge, f"{change.at_s:.3f}")  # the same to all who look on
            await self._tell(g=str(gauge), change={"id": str(id), **asdict(change)})

    async def _keep(self) -> None:
        while True:
            await asyncio.sleep(_KEPT_S)
            for gauge, line in list(self._lines.items()):
                new, line.new = line.new, []
                if new:
                    await sync_to_async(keep_samples)(gauge, new)
                elif gauge not in self._tasks:
                    del self._lines[gauge]

    async def _look(self) -> None:
        """What each watch shows by now, beside the reading."""
        while True:
            begun = time.monotonic()
            for each in list(self._watches):
                line = self._lines.get(each.gauge)
                if line and line.times:
                    await self._see(each, line.since(max(each.from_s, line.times[0])))
            await asyncio.sleep(max(_READ_S, 3 * (time.monotonic() - begun)))

    async def _see(self, watch: Asked, samples: Samples) -> None:
        try:
            seen = await asyncio.to_thread(seen_of, samples, watch.atmosphere_pa, watch.lag_s)
        except Exception:  # of one line: the others are read on
            _LOG.exception("the line of watch %s could not be read", watch.id)
            return
        if seen is None:
            return
        mark = _mark(seen)
        if self._seen.get(watch.id) != mark:
            self._seen[watch.id] = mark
            await sync_to_async(keep_seen)(watch.id, asdict(seen))
            await self._tell(w=str(watch.id), seen=True)


def _mark(seen: Seen) -> tuple[Any, ...]:
    """What tells that something new was seen."""
    quiet = seen.quiet and seen.quiet.seconds // _QUIET_STEP_S
    times = (each and round(each.at_s, 1) for each in (seen.start, seen.stop, seen.knee))
    stands_at = round(seen.gauge_pa / _STANDS_PA) if seen.still else None
    return seen.pump, quiet, stands_at, seen.run_s and round(seen.run_s, 1), *times


async def read_gauges() -> None:
    """Reads for as long as the process lives."""
    async with await connected() as told:
        with suppress(asyncio.CancelledError):
            await Reader(told).run()
