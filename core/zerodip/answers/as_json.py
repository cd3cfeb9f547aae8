"""What the core makes, as JSON."""

import json
from dataclasses import fields, is_dataclass
from enum import Enum
from typing import Any

__all__ = ["as_answer", "as_json"]


def as_json(made: Any) -> str:
    """A result of the core as JSON: records become objects, words of a closed choice their text.

    Args:
        made: Whatever a use case gives, or plain values.

    Returns:
        JSON text (RFC 8259), as short as it can be.

    Raises:
        ValueError: For a number that is none (NaN, infinite).
    """
    return json.dumps(
        made, default=_plain, ensure_ascii=False, allow_nan=False, separators=(",", ":")
    )


def as_answer(status: int, body: Any) -> str:
    """An answer as a page reads it.

    Args:
        status: As by HTTP (RFC 9110): 200, 403, 404, 409 or 422.
        body: Whatever `as_json` takes.

    Returns:
        The status and, on the next line, the body as JSON.

    Raises:
        ValueError: For a number that is none (NaN, infinite).
    """
    return f"{status}\n{as_json(body)}"


def _plain(part: Any) -> Any:
    """One step down: what the encoder does not know, in what it knows."""
    if isinstance(part, Enum):
        return part.value
    kind = type(part)
    if kind not in _FIELDS:
        _FIELDS[kind] = tuple(each.name for each in fields(part)) if is_dataclass(part) else ()
    names = _FIELDS[kind]
    return {name: getattr(part, name) for name in names} if names else dict(part)


_FIELDS: dict[type, tuple[str, ...]] = {}  # asked for again with every part
