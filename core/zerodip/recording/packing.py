"""Samples as few bytes, without loss: figures as the whole numbers that they were written as, each
less the one before, in the least width, packed; times as their steps, which hardly ever change.

A recorder of 12 bits comes to about a byte a sample. Written for storage in a database: a chunk is
read by itself.
"""

import struct
import zlib

import numpy as np
from numpy.typing import NDArray

from zerodip.recording.arrays import Floats

__all__ = ["pack", "pack_times", "unpack", "unpack_times"]

_HEAD = struct.Struct("<BBIdd")  # kind, decimals, count, factor, offset
_TIMES = struct.Struct("<Iq")  # count, the first
_GAPS = struct.Struct("<I")  # bytes that tell which are missing, none where nothing is
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
    return _HEAD.pack(_WHOLE, decimals, len(values), factor, offset) + _packed(whole, known)


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


def _packed(whole: NDArray[np.int64], known: NDArray[np.bool_]) -> bytes:
    """Whole numbers as their steps, and what is missing of as many samples as `known` has."""
    gaps = b"" if known.all() else np.packbits(~known).tobytes()
    return _GAPS.pack(len(gaps)) + zlib.compress(gaps + _steps(whole), _LEVEL)


def _unpacked(data: bytes, count: int, samples: int) -> tuple[NDArray[np.int64], NDArray[np.bool_]]:
    """So many whole numbers, and which of the samples are missing."""
    (size,) = _GAPS.unpack_from(data)
    body = zlib.decompress(data[_GAPS.size :])
    if not size:
        return _whole(body, count), np.zeros(samples, dtype=bool)
    bits = np.unpackbits(np.frombuffer(body[:size], np.uint8), count=samples)
    return _whole(body[size:], count), bits.astype(bool)


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
    whole, missing = _unpacked(data[_HEAD.size :], count, count)
    values = _figures(whole.astype(np.float64), decimals, factor, offset)
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
    first = int(whole[0]) if len(whole) else 0
    return _TIMES.pack(len(time_s), first) + _packed(np.diff(whole), known)


def unpack_times(data: bytes) -> Floats:
    """Times as they were packed.

    Args:
        data: What `pack_times` gave.

    Returns:
        Times, s.
    """
    count, first = _TIMES.unpack_from(data)
    if not count:
        return np.zeros(0)
    steps, missing = _unpacked(data[_TIMES.size :], count - 1, count)
    times = np.cumsum(np.concatenate([[first], steps])) / _MICRO
    times[missing] = np.nan
    return times
