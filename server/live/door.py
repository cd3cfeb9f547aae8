"""The stand-ins' door: made-up plants behind Modbus TCP, for trying everything without a device."""

import asyncio
import contextlib
import json
import random
import time
from typing import Any

from asgiref.sync import sync_to_async
from django.conf import settings
from pymodbus.constants import ExcCodes
from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from zerodip.fileformat.document import read_document
from zerodip.fileformat.fields import read
from zerodip.stand_in import Hands, Sensor, StandIn
from zerodip.units import PSI

from .channel import CHANNEL, connected
from .models import StandIn as Row

__all__ = ["open_door"]

# Registers: pressure (mbar, gauge), whether the pump runs; and how many there are.
PRESSURE, RUNS, COUNT = 0, 1, 8
_MBAR_PA, _MOST_MBAR = 100.0, 65_535
_NOISE_PA = 0.08 * PSI
_AGAIN_S = 1.0


class _Plant:
    """One plant behind the door."""

    def __init__(self, row: Row) -> None:
        self.hands = _hands(row)
        self._plant = StandIn(read_document(row.system.document), self.hands, _now())
        chance = random.Random(row.unit)  # noqa: S311 (noise, no secret)
        self._sensor = Sensor(lambda: chance.gauss(0.0, _NOISE_PA))

    def move(self, hands: Hands) -> None:
        if hands != self.hands:
            self._plant.move(hands, _now())
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
        """Puts what the gauge shows now into the registers that are asked for."""
        if values is not None:
            return ExcCodes.ILLEGAL_FUNCTION
        if self.hands.line == "off":
            return ExcCodes.GATEWAY_NO_RESPONSE
        now = _now()
        shown = self._sensor.reads(self._plant.gauge_pa(now), now) / _MBAR_PA
        registers[PRESSURE - start] = min(max(round(shown), 0), _MOST_MBAR)
        registers[RUNS - start] = int(self._plant.runs(now))
        return None


def _now() -> float:
    """The plants' own time, s."""
    return time.monotonic() * float(settings.STAND_IN_SPEED)


def _hands(row: Row) -> Hands:
    return read(Hands, row.hands)[0] or Hands()


def _rows() -> dict[int, Row]:
    return {row.unit: row for row in Row.objects.select_related("system")}


async def open_door() -> None:
    """Serves the plants for as long as the process lives; begins anew where others stand in."""
    while True:
        rows = await sync_to_async(_rows)() if settings.STAND_IN_PORT else {}
        if rows:
            await _serve(rows)
        await asyncio.sleep(_AGAIN_S)


async def _serve(rows: dict[int, Row]) -> None:
    plants = {unit: _Plant(row) for unit, row in rows.items()}
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


async def _same(plants: dict[int, _Plant]) -> bool:
    """Hands move as they are told; False where other plants stand in. What is entered of a system
    meanwhile does not change the plant."""
    rows = await sync_to_async(_rows)()
    if rows.keys() != plants.keys():
        return False
    for unit, row in rows.items():
        plants[unit].move(_hands(row))
    return True
