"""The stand-ins' door: made-up plants behind Modbus TCP, for trying everything without a device."""

import asyncio
import contextlib
import json
import random
import time
from abc import ABC, abstractmethod
from typing import Any

from asgiref.sync import sync_to_async
from django.conf import settings
from pymodbus.constants import ExcCodes
from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from calibrations.selectors import switch_of
from zerodip.bench.device import BenchDevice
from zerodip.bench.stand_in import BenchHands, BenchStandIn
from zerodip.fileformat.document import read_document
from zerodip.fileformat.fields import read
from zerodip.stand_in import Hands, Sensor, StandIn
from zerodip.units import PSI

from .channel import CHANNEL, connected
from .models import BenchStandIn as BenchRow
from .models import StandIn as Row

__all__ = ["FULL", "PRESSURE", "bench_scale", "open_door"]

# Registers: pressure (mbar, gauge), whether the pump runs; and how many there are.
PRESSURE, RUNS, COUNT = 0, 1, 8
_MBAR_PA, _MOST = 100.0, 65_535
FULL = 50_000  # at the high end of the reference of a bench
_BITS = (1, 2)  # functions that read coils and discrete inputs
_NOISE_PA = 0.08 * PSI
_AGAIN_S = 1.0


class _Behind(ABC):
    """Something behind the door: what hands do there, and what its registers hold."""

    hands: Any
    plant: Any

    def move(self, row: Any) -> None:
        """Hands do what a row says by now."""
        hands = self.read_hands(row)
        if hands != self.hands:
            self.plant.move(hands, _now())
            self.hands = hands

    async def answer(
        self,
        function: int,
        start: int,
        address: int,
        count: int,
        registers: list[int],
        values: Any,
    ) -> ExcCodes | None:
        """Puts what is shown now into what is asked for; nothing is ever written."""
        if values is not None:
            return ExcCodes.ILLEGAL_FUNCTION
        if self.hands.line == "off":
            return ExcCodes.GATEWAY_NO_RESPONSE
        for at, shown in self.shows(_now(), function, address).items():
            registers[at - start] = min(max(shown, 0), _MOST)
        return None

    @staticmethod
    @abstractmethod
    def read_hands(row: Any) -> Any:
        """What hands do by a row."""

    @abstractmethod
    def shows(self, now: float, function: int, address: int) -> dict[int, int]:
        """What stands in which register."""


class _Plant(_Behind):
    """One plant."""

    def __init__(self, row: Row) -> None:
        self.hands = self.read_hands(row)
        self.plant = StandIn(read_document(row.system.document), self.hands, _now())
        chance = random.Random(row.unit)  # noqa: S311 (noise, no secret)
        self._sensor = Sensor(lambda: chance.gauss(0.0, _NOISE_PA))

    @staticmethod
    def read_hands(row: Row) -> Hands:
        return read(Hands, row.hands)[0] or Hands()

    def shows(self, now: float, function: int, address: int) -> dict[int, int]:
        shown = self._sensor.reads(self.plant.gauge_pa(now), now) / _MBAR_PA
        return {PRESSURE: round(shown), RUNS: int(self.plant.runs(now))}


class _Bench(_Behind):
    """One switch on its bench; its pressure register counts by its range."""

    def __init__(self, row: BenchRow) -> None:
        self.hands = self.read_hands(row)
        device = switch_of(row.device.data)
        self._low, self._span = bench_scale(device)
        self.plant = BenchStandIn(device, self.hands, _now())

    @staticmethod
    def read_hands(row: BenchRow) -> BenchHands:
        return read(BenchHands, row.hands)[0] or BenchHands()

    def shows(self, now: float, function: int, address: int) -> dict[int, int]:
        if function in _BITS:
            return {address: int(self.plant.closed(now))}
        share = (self.plant.gauge_pa(now) - self._low) / self._span
        return {PRESSURE: round(share * FULL)}


def bench_scale(device: BenchDevice) -> tuple[float, float]:
    """From where (Pa gauge) and how far the reference of a switch's stand-in reads, Pa."""
    low = min(device.low_gauge_pa, 0.0)
    return low, max(device.high_gauge_pa, 0.0) - low


def _now() -> float:
    """The plants' own time, s."""
    return time.monotonic() * float(settings.STAND_IN_SPEED)


def _rows() -> dict[int, Row | BenchRow]:
    plants = {row.unit: row for row in Row.objects.select_related("system")}
    return {**plants, **{row.unit: row for row in BenchRow.objects.select_related("device")}}


async def open_door() -> None:
    """Serves the plants for as long as the process lives; begins anew where others stand in."""
    while True:
        rows = await sync_to_async(_rows)() if settings.STAND_IN_PORT else {}
        if rows:
            await _serve(rows)
        await asyncio.sleep(_AGAIN_S)


async def _serve(rows: dict[int, Row | BenchRow]) -> None:
    plants = {unit: _stood_in(row) for unit, row in rows.items()}
    devices = [
        SimDevice(
            id=unit,
            simdata=[SimData(0, values=[0] * COUNT, datatype=DataType.REGISTERS)],
            action=plant.answer,
        )
        for unit, plant in plants.items()
    ]
    server = ModbusTcpServer(devices, address=("127.0.0.1", settings.STAND_IN_PORT))
    serving = asyncio.create_task(server.serve_forever())
    try:
        async with await connected() as ear:
            await ear.execute(f"listen {CHANNEL}")
            while not serving.done() and await _same(plants):
                async for told in ear.notifies(timeout=_AGAIN_S, stop_after=1):
                    unit = json.loads(told.payload).get("hands")
                    if unit in plants:
                        break
    finally:
        await server.shutdown()  # type: ignore[no-untyped-call]
        with contextlib.suppress(asyncio.CancelledError):
            await serving


def _stood_in(row: Row | BenchRow) -> _Behind:
    return _Bench(row) if isinstance(row, BenchRow) else _Plant(row)


async def _same(plants: dict[int, _Behind]) -> bool:
    """Hands move as they are told; False where other plants stand in. What is entered of a system
    meanwhile does not change the plant."""
    rows = await sync_to_async(_rows)()
    if rows.keys() != plants.keys():
        return False
    for unit, row in rows.items():
        plants[unit].move(row)
    return True
