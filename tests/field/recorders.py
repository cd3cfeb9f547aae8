"""Sensors, and the forms in which recorders write. Nothing of the core is used here."""

import math
import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

import numpy as np

from .house import Line

BAR = 14.503774
BEGIN = datetime(2025, 5, 6, 11, 40, tzinfo=UTC)


@dataclass(frozen=True)
class Sensor:
    """How a pressure is seen: every so many seconds, with noise, in steps, through a filter, with
    an offset (all psi, s), and one sample in so many a spike."""

    every: float = 1.0
    noise: float = 0.2
    step: float = 0.1
    filter: float = 0.1
    offset: float = 0.0
    spikes: float = 0.0


def seen(line: Line, sensor: Sensor, rng: random.Random) -> tuple[list[float], list[float]]:
    """Times (s) and pressures (psi) as they were recorded."""
    until = line.time[-1]
    fine = np.arange(0.0, until, min(sensor.every / 4, 0.1) if sensor.every < 2 else 0.5)
    psi = np.interp(fine, line.time, line.psi)
    if sensor.filter:
        share = 1 - math.exp(-(fine[1] - fine[0]) / sensor.filter)
        held = psi[0]
        for k, value in enumerate(psi):
            held += share * (value - held)
            psi[k] = held
    times = np.arange(0.0, until - sensor.every, sensor.every)
    made = []
    for value in np.interp(times, fine, psi):
        read = value + sensor.offset + rng.gauss(0, sensor.noise)
        if rng.random() < sensor.spikes:
            read += rng.choice((-1, 1)) * rng.uniform(8, 25)
        made.append(round(read / sensor.step) * sensor.step)
    return times.tolist(), made


def _rows(head: str, rows: Sequence[str], end: str = "\n") -> str:
    return head + end.join(rows) + end


def _at(t: float) -> datetime:
    return BEGIN + timedelta(seconds=t)


def _comma(value: float, places: int) -> str:
    return f"{value:.{places}f}".replace(".", ",")


def _iso(times: Sequence[float], psi: Sequence[float]) -> str:
    rows = [f"{_at(t).isoformat()},{p:.1f}" for t, p in zip(times, psi, strict=True)]
    return _rows("timestamp,pressure_psi\n", rows)


def _american(times: Sequence[float], psi: Sequence[float]) -> str:
    rows = [
        f"{_at(t):%m/%d/%Y %I:%M:%S}.{int(t * 10) % 10} {_at(t):%p}\t{p:.1f}"
        for t, p in zip(times, psi, strict=True)
    ]
    return _rows("Date/Time\tPressure (psi)\r\n", rows, "\r\n")


def _milliseconds(times: Sequence[float], psi: Sequence[float]) -> str:
    begin = BEGIN.timestamp()
    rows = [f"{(begin + t) * 1e3:.0f},{p / BAR * 100:.1f}" for t, p in zip(times, psi, strict=True)]
    return _rows("ts_ms,P_kPa\n", rows)


def _logger(times: Sequence[float], psi: Sequence[float]) -> str:
    head = f"Messprotokoll\nKanal 1;Druck;Bereich 0...10 bar\nIntervall;{times[1]:g} s\n\n"
    rows = [f"{_comma(t, 1)};{_comma(p / BAR, 3)}" for t, p in zip(times, psi, strict=True)]
    return _rows(head + "Zeit [s];Druck [bar]\n", rows, "\r\n")


def _german(times: Sequence[float], psi: Sequence[float]) -> str:
    head = f"Geraet 07\nStart;{_at(0).strftime('%d.%m.%Y %H:%M:%S')}\nIntervall;{times[1]:g} s\n"
    rows = [
        f"{_at(t).strftime('%d.%m.%Y %H:%M:%S')};{_comma(p / BAR, 2)}"
        for t, p in zip(times, psi, strict=True)
    ]
    return _rows(head + "Zeitpunkt;Druck in bar\n", rows)


def _milliamps(times: Sequence[float], psi: Sequence[float]) -> str:
    head = "# loop logger\n# scale: 4 mA = 0 psi ; 20 mA = 150 psi\nsec,mA\n"
    rows = [f"{t:.1f},{4 + 16 * p / 150:.3f}" for t, p in zip(times, psi, strict=True)]
    return _rows(head, rows)


def _volts(times: Sequence[float], psi: Sequence[float]) -> str:
    head = f"Record 4\nTransducer 0.5 V = 0 psi, 4.5 V = 100 psi\nSample rate;{1 / times[1]:g} Hz\n"
    rows = [f"{t:.1f};{0.5 + 4 * p / 100:.3f}" for t, p in zip(times, psi, strict=True)]
    return _rows(head + "t (s);U (V)\n", rows)


def _serial(times: Sequence[float], psi: Sequence[float]) -> str:
    day = (BEGIN - datetime(1899, 12, 30, tzinfo=UTC)).total_seconds() / 86400
    rows = [
        f"{_comma(day + t / 86400, 8)};{_comma(p / BAR, 3)}"
        for t, p in zip(times, psi, strict=True)
    ]
    return _rows("\ufeffDatum;p (bar)\r\n", rows, "\r\n")


def _scaled(times: Sequence[float], psi: Sequence[float]) -> str:
    rows = [f"{t:.1f},{4 + 16 * p / BAR / 10:.3f}" for t, p in zip(times, psi, strict=True)]
    return _rows("Zeit/s,Strom/mA (4-20 mA = 0-10 bar)\n", rows)


Form = Callable[[Sequence[float], Sequence[float]], str]
FORMS: dict[str, Form] = {
    "iso": _iso,
    "american": _american,
    "milliseconds": _milliseconds,
    "logger": _logger,
    "german": _german,
    "milliamps": _milliamps,
    "volts": _volts,
    "serial": _serial,
    "scaled": _scaled,
}
