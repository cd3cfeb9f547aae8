"""Samples as few bytes, without loss: figures as the whole numbers that they were written as, each
less the one before, in the least width, packed; times as their steps, which hardly ever change.

A recorder of 12 bits comes to about a byte a sample. Written for storage in a database: a chunk is
read by itself.
"""

import struct
import zlib

import numpy as np
from numpy.typing import NDArray

from zerodip.recording.samples import Floats

__all__ = ["pack", "pack_times", "unpack", "unpack_times"]

_HEAD = struct.Struct("<BBIdd")  # kind, decimals, count, factor, offset
_WHOLE, _EXACT = 1, 2
_MOST_DECIMALS = 9
_WIDTHS = (np.int8, np.int16, np.int32, np.int64)
_MOST_WHOLE = 2**52
_MICRO = 1e6
_LEVEL = 6


def pack(values: Floats, factor: float = 1.0, offset: float = 0.0) -> bytes:
    """Packs figures in SI, NaN where missing.

    Args:
        values: The figures, SI.
        factor: What made SI of the recorder's own figures,
        offset: and was added to them.

    Returns:
        The bytes.
    """
    known = np.isfinite(values)
    raw = (values[known] - offset) / factor
    decimals = _decimals(raw, values[known], factor, offset)
    if decimals is None:
        head = _HEAD.pack(_EXACT, 0, len(values), factor, offset)
        return head + zlib.compress(values.astype("<f8").tobytes(), _LEVEL)
    whole = np.zeros(len(values), dtype=np.int64)
    whole[known] = np.round(raw * 10.0**decimals).astype(np.int64)
    gaps = b"" if known.all() else np.packbits(~known).tobytes()
    head = _HEAD.pack(_WHOLE, decimals, len(values), factor, offset)
    return head + struct.pack("<I", len(gaps)) + zlib.compress(gaps + _steps(whole), _LEVEL)


def _decimals(raw: Floats, values: Floats, factor: float, offset: float) -> int | None:
    """With how many decimals the recorder wrote; None where its figures are no decimals."""
    for decimals in range(_MOST_DECIMALS + 1):
        whole = np.round(raw * 10.0**decimals)
        if len(whole) and np.abs(whole).max() > _MOST_WHOLE:
            return None
        if np.array_equal(_figures(whole, decimals, factor, offset), values):
            return decimals
    return None


def _figures(whole: Floats, decimals: int, factor: float, offset: float) -> Floats:
    """SI as reading a file makes it, in the same steps, so that it comes out the same."""
    read = whole / 10.0**decimals
    return read * factor + offset if offset else read * factor


def _steps(whole: NDArray[np.int64]) -> bytes:
    """Whole numbers, each less the one before, a byte of each after the other."""
    if not len(whole):
        return b""
    steps = np.diff(whole, prepend=0)
    first, rest = steps[:1], steps[1:]
    most = int(np.abs(rest).max()) if len(rest) else 0
    width = next(each for each in _WIDTHS if most <= np.iinfo(each).max)
    packed = rest.astype(width)
    planes = packed.view(np.uint8).reshape(-1, packed.itemsize).T
    return struct.pack("<qB", int(first[0]), packed.itemsize) + planes.tobytes()


def _whole(data: bytes, count: int) -> NDArray[np.int64]:
    if not count:
        return np.zeros(0, dtype=np.int64)
    first, size = struct.unpack_from("<qB", data)
    planes = np.frombuffer(data, np.uint8, offset=9).reshape(size, -1)
    width = next(each for each in _WIDTHS if np.dtype(each).itemsize == size)
    rest = np.ascontiguousarray(planes.T).view(width).ravel().astype(np.int64)
    return np.cumsum(np.concatenate([[first], rest]))


def unpack(data: bytes) -> Floats:
    """Figures as they were packed.

    Args:
        data: What `pack` gave.

    Returns:
        The figures, SI, NaN where missing.
    """
    kind, decimals, count, factor, offset = _HEAD.unpack_from(data)
    if kind == _EXACT:
        return np.frombuffer(zlib.decompress(data[_HEAD.size :]), "<f8").astype(np.float64)
    (size,) = struct.unpack_from("<I", data, _HEAD.size)
    body = zlib.decompress(data[_HEAD.size + 4 :])
    values = _figures(_whole(body[size:], count).astype(np.float64), decimals, factor, offset)
    if size:
        missing = np.unpackbits(np.frombuffer(body[:size], np.uint8), count=count).astype(bool)
        values[missing] = np.nan
    return values


def pack_times(time_s: Floats) -> bytes:
    """Packs times, to the microsecond; NaN where missing.

    Args:
        time_s: Times, s.

    Returns:
        The bytes.
    """
    known = np.isfinite(time_s)
    whole = np.zeros(len(time_s), dtype=np.int64)
    whole[known] = np.round(time_s[known] * _MICRO).astype(np.int64)
    gaps = b"" if known.all() else np.packbits(~known).tobytes()
    first = int(whole[0]) if len(whole) else 0
    steps = np.diff(whole)
    head = struct.pack("<IIq", len(time_s), len(gaps), first)
    return head + zlib.compress(gaps + _steps(steps), _LEVEL)


def unpack_times(data: bytes) -> Floats:
    """Times as they were packed.

    Args:
        data: What `pack_times` gave.

    Returns:
        Times, s.
    """
    count, size, first = struct.unpack_from("<IIq", data)
    if not count:
        return np.zeros(0)
    body = zlib.decompress(data[16:])
    steps = _whole(body[size:], count - 1)
    times = np.cumsum(np.concatenate([[first], steps])) / _MICRO
    if size:
        missing = np.unpackbits(np.frombuffer(body[:size], np.uint8), count=count).astype(bool)
        times[missing] = np.nan
    return times
