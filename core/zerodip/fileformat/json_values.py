"""JSON out of other hands, fit to be worked with and kept: bounded in depth, breadth and size of
numbers, and made of letters that a database can hold."""

import json
import math
from collections.abc import Iterator
from typing import Any

from zerodip.errors import Fault, InvalidInput

__all__ = ["count_values", "faults_of", "read_json"]

_MOST_DEPTH, _MOST_IN_ONE, _MOST_FAULTS = 24, 20_000, 20
# Beyond this nothing on a system is measured, and a whole number is no longer exact as a float.
_MOST_NUMBER = 1e15
_Where = tuple[str, Any, int]


def read_json(data: bytes, most_values: int) -> Any:
    """The values of a JSON text. Raises InvalidInput with what is wrong with it, by path."""
    try:
        values = json.loads(data.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        raise _refused("", f"is not UTF-8 text at byte {error.start}.") from None
    except json.JSONDecodeError as error:
        said = f"line {error.lineno}, column {error.colno}: {error.msg.lower()}"
        raise _refused("", f"is no JSON: {said}.") from None
    except RecursionError:
        raise _refused("", f"is nested deeper than {_MOST_DEPTH}.") from None
    except ValueError as error:
        raise _refused("", f"holds a number that cannot be read: {error}") from None
    faults = faults_of(values, most_values)
    if faults:
        raise InvalidInput(faults)
    return values


def faults_of(values: Any, most_values: int, path: str = "") -> list[Fault]:
    """What is wrong with plain values, by path; the first twenty."""
    faults: list[Fault] = []
    for count, (where, value, depth) in enumerate(_walk(values, path), 1):
        says = _says(value, depth)
        if says:
            faults.append(_fault(where, says))
        if count > most_values:
            faults.append(_fault(path, f"holds more than {most_values:,} values."))
        if len(faults) >= _MOST_FAULTS or count > most_values:
            break
    return faults


def count_values(values: Any) -> int:
    """How many values there are, those within others too."""
    return sum(1 for _ in _walk(values, ""))


def _walk(values: Any, path: str) -> Iterator[_Where]:
    """Every value with its path and depth; what is too deep or too wide is not gone into."""
    waiting: list[_Where] = [(path, values, 0)]
    while waiting:
        where, value, depth = waiting.pop()
        yield where, value, depth
        if depth > _MOST_DEPTH:
            continue
        if isinstance(value, dict):
            waiting += [(f"{where}.{name}"[:200], each, depth + 1) for name, each in value.items()]
        elif isinstance(value, list):
            waiting += [(f"{where}.{at}"[:200], each, depth + 1) for at, each in enumerate(value)]


def _says(value: Any, depth: int) -> str:
    if depth > _MOST_DEPTH:
        return f"is nested deeper than {_MOST_DEPTH}."
    if isinstance(value, str):
        return _letters(value)
    if isinstance(value, bool) or value is None:
        return ""
    if isinstance(value, int | float):
        # No number at all (NaN, infinite) is refused by its field, which knows its range.
        odd = isinstance(value, float) and not math.isfinite(value)
        fits = odd or abs(value) <= _MOST_NUMBER
        return "" if fits else "is far too large a number."
    if len(value) > _MOST_IN_ONE:
        return f"holds more than {_MOST_IN_ONE:,} values."
    return next(filter(None, map(_letters, value)), "") if isinstance(value, dict) else ""


def _letters(text: str) -> str:
    if "\x00" in text:
        return "holds a letter without a sign (NUL)."
    if text.isascii():
        return ""
    try:
        text.encode()
    except UnicodeEncodeError:
        return "holds half of a letter (a lone surrogate)."
    return ""


def _fault(path: str, says: str) -> Fault:
    shown = path.strip(".").encode("utf-8", "replace").decode().replace("\x00", "?")
    return Fault(path=shown, code="refused", title=shown or "What was sent", says=says)


def _refused(path: str, says: str) -> InvalidInput:
    return InvalidInput([_fault(path, says)])
