"""Reading a gauge by Modbus TCP, and what is wrong where it cannot be read (ids of
zerodip.wire.PROBLEMS)."""

import asyncio
import socket
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from ipaddress import ip_address

from django.conf import settings
from pymodbus.client import AsyncModbusTcpClient
from pymodbus.constants import ExcCodes
from pymodbus.exceptions import ModbusException
from pymodbus.pdu import ModbusPDU

from zerodip.wire import NUMBERS, WireSpec

__all__ = ["Wire", "WireProblem", "first_figures", "opened"]

CONNECT_S, ANSWER_S = 1.5, 0.5
_LOOKS, _EVERY_S = 12, 0.1
_REFUSALS: dict[int, str] = {
    ExcCodes.ILLEGAL_FUNCTION: "wrong_function",
    ExcCodes.ILLEGAL_ADDRESS: "wrong_register",
    ExcCodes.GATEWAY_PATH_UNAVIABLE: "wrong_unit",
    ExcCodes.GATEWAY_NO_RESPONSE: "silent",
}


_CONTACT_REFUSALS = {"wrong_register": "no_contact", "wrong_function": "no_contact"}


class WireProblem(Exception):
    """Why a gauge cannot be read, by its id."""


class Wire:
    """An open line to a gauge."""

    def __init__(self, spec: WireSpec, client: AsyncModbusTcpClient) -> None:
        self._spec, self._client = spec, client
        holding = spec.table == "holding"
        self._fetch = client.read_holding_registers if holding else client.read_input_registers

    async def figure(self) -> float:
        """The device's figure now. Raises WireProblem."""
        spec = self._spec
        try:
            answer = await self._fetch(
                int(spec.register), count=NUMBERS[spec.number], device_id=int(spec.unit)
            )
        except ModbusException:
            raise WireProblem("silent" if self._client.connected else "unreachable") from None
        if answer.isError():
            raise WireProblem(_refusal(answer))
        kind = self._client.DATATYPE[spec.number.upper()]
        order = "little" if spec.order == "little" else "big"
        return float(self._client.convert_from_registers(answer.registers, kind, order))  # type: ignore[arg-type]

    async def closed(self) -> bool:
        """Whether the contact beside it is closed now. Raises WireProblem."""
        spec, client = self._spec, self._client
        discrete = spec.contact == "discrete"
        fetch = client.read_discrete_inputs if discrete else client.read_coils
        try:
            answer = await fetch(int(spec.contact_register), count=1, device_id=int(spec.unit))
        except ModbusException:
            raise WireProblem("silent" if client.connected else "unreachable") from None
        if answer.isError():
            raise WireProblem(_CONTACT_REFUSALS.get(_refusal(answer), _refusal(answer)))
        return bool(answer.bits[0])


def _refusal(answer: ModbusPDU) -> str:
    return _REFUSALS.get(int(answer.exception_code), "device")


@asynccontextmanager
async def opened(spec: WireSpec) -> AsyncIterator[Wire]:
    """A line to a gauge, shut afterwards. Raises WireProblem where there is none."""
    host = await _address(spec)
    port = int(spec.port)
    await _knock(host, port)
    client = AsyncModbusTcpClient(host, port=port, timeout=ANSWER_S, retries=0, reconnect_delay=0.0)
    try:
        if not await client.connect():
            raise WireProblem("unreachable")
        yield Wire(spec, client)
    finally:
        client.close()


async def _address(spec: WireSpec) -> str:
    """The address in figures, if this server may go there. It is looked up once and then used, so
    that a name cannot lead elsewhere meanwhile."""
    loop = asyncio.get_running_loop()
    try:
        found = await asyncio.wait_for(
            loop.getaddrinfo(spec.host.strip(), int(spec.port), type=socket.SOCK_STREAM), CONNECT_S
        )
    except (OSError, UnicodeError, TimeoutError):
        raise WireProblem("unknown_host") from None
    host = str(found[0][4][0])
    if not _allowed(host, int(spec.port)):
        raise WireProblem("forbidden")
    return host


def _allowed(host: str, port: int) -> bool:
    """Gauges stand in the networks that whoever runs the server names; on this machine itself there
    is only the stand-in."""
    address = ip_address(host.split("%")[0])
    if address.is_loopback:
        return bool(port == settings.STAND_IN_PORT)
    return any(address in network for network in settings.GAUGE_NETWORKS)


async def _knock(host: str, port: int) -> None:
    """Tells a port that refuses from a device that is not there."""
    try:
        _, writer = await asyncio.wait_for(asyncio.open_connection(host, port), CONNECT_S)
    except ConnectionRefusedError:
        raise WireProblem("refused") from None
    except (OSError, TimeoutError):
        raise WireProblem("unreachable") from None
    writer.close()


async def first_figures(spec: WireSpec) -> list[float]:
    """A second of the device's figures. Raises WireProblem."""
    async with opened(spec) as wire:
        figures = []
        if spec.contact != "none":
            await wire.closed()
        for _ in range(_LOOKS):
            figures.append(await wire.figure())
            await asyncio.sleep(_EVERY_S)
        return figures
