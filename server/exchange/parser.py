"""The text of an archive: read whole, or refused with the line where it goes wrong; then cut into
pieces that are checked one by one."""

import json
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import FORMAT as SYSTEM_FORMAT
from zerodip.fileformat.json_values import count_values, faults_of

from .archive import FORMAT, VERSION

__all__ = ["MOST_BYTES", "Cut", "cut", "parsed", "printable"]

MOST_BYTES = 64_000_000
MOST_PIECES, MOST_VALUES = 20_000, 8_000_000
MOST_IN_A_PIECE = 400_000  # values: what a step checks in a second or two
_LISTS = ("gauges", "references", "sites")
_OF_A_SITE = {"systems": "system", "switches": "switch"}
_HEAD = {"format", "version", "made_at", "scope", "practice", *_LISTS}


def printable(text: str, most: int) -> str:
    """A name out of a file, fit to be shown and kept."""
    return "".join(letter for letter in text if letter.isprintable())[:most]


def parsed(data: bytes) -> Any:
    """The JSON values of a file. Raises InvalidInput with the line: for text that is no UTF-8, no
    JSON, or holds numbers that JSON does not have."""
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = data.count(b"\n", 0, error.start) + 1
        raise _unreadable(
            f"is not UTF-8 text: line {line} holds a byte that does not belong there."
        ) from None
    try:
        values = json.loads(text, parse_constant=_no_constant, parse_float=_finite)
    except json.JSONDecodeError as error:
        said = f"line {error.lineno}, column {error.colno}: {error.msg.lower()}"
        raise _unreadable(f"is not JSON, or was cut off: {said}.") from None
    except RecursionError:
        raise _unreadable("is nested too deep to be an archive.") from None
    except ValueError as error:
        raise _unreadable(f"holds a number that cannot be read: {error}") from None
    if "\\u0000" in text:
        line = text.count("\n", 0, text.index("\\u0000")) + 1
        raise _unreadable(f"holds a letter without a sign (\\u0000) on line {line}.")
    faults = faults_of(values, MOST_VALUES)
    if faults:
        raise InvalidInput(faults)
    return values


def _no_constant(name: str) -> Any:
    raise ValueError(f"{name} is no number of JSON.")


def _finite(text: str) -> float:
    value = float(text)
    if math.isinf(value):
        raise ValueError(f"{text[:20]} is too large a number.")
    return value


def _unreadable(says: str) -> InvalidInput:
    return InvalidInput([Fault(path="file", code="unreadable", title="The file", says=says)])


@dataclass(frozen=True)
class Cut:
    """One piece: where it stands in the file, and for a system or a switch the number of its site's
    piece."""

    kind: str
    path: str
    raw: Any
    site: int | None = None


def cut(raw: Any) -> list[Cut]:
    """An archive in pieces, sites before what stands on them. Raises InvalidInput for what is no
    archive, or one of another version."""
    faults = _head_faults(raw)
    if faults:
        raise InvalidInput(faults)
    pieces: list[Cut] = []
    for each in _cut(raw):
        if count_values(each.raw) > MOST_IN_A_PIECE:
            raise _unreadable(f"holds more in “{each.path}” than a system can have on record.")
        pieces.append(each)
        if len(pieces) > MOST_PIECES:
            raise _unreadable(
                f"holds more than {MOST_PIECES:,} pieces; take it in parts, site by site."
            )
    return pieces


def _cut(raw: dict[str, Any]) -> Iterator[Cut]:
    count = 0
    if raw.get("practice") is not None:
        yield Cut("practice", "practice", raw["practice"])
        count += 1
    for kind in ("gauge", "reference"):
        for at, each in enumerate(raw.get(f"{kind}s") or []):
            yield Cut(kind, f"{kind}s.{at}", each)
            count += 1
    for at, site in enumerate(raw["sites"]):
        pieces = list(_cut_site(site, at, count))
        yield from pieces
        count += len(pieces)


def _cut_site(site: Any, at: int, number: int) -> Iterator[Cut]:
    if not isinstance(site, dict):
        yield Cut("site", f"sites.{at}", site)
        return
    yield Cut("site", f"sites.{at}", {k: v for k, v in site.items() if not _is_list(k, v)})
    for name, kind in _OF_A_SITE.items():
        if _is_list(name, site.get(name)):
            for nth, each in enumerate(site[name]):
                yield Cut(kind, f"sites.{at}.{name}.{nth}", each, number)


def _is_list(name: str, value: Any) -> bool:
    """Whether a member of a site is cut into pieces of its own; what should be and is no list is
    left with the site, to be refused."""
    return name in _OF_A_SITE and isinstance(value, list)


def _head_faults(raw: Any) -> list[Fault]:
    if not isinstance(raw, dict):
        return [
            Fault(
                path="file", code="not_an_object", title="The file", says="must be a JSON object."
            )
        ]
    if raw.get("format") == SYSTEM_FORMAT:
        says = "is one system's file. Take it in by “Add a system” on Rounds."
        return [Fault(path="format", code="not_a_choice", title="The file", says=says)]
    if raw.get("format") != FORMAT:
        says = f"is no Zero Dip archive: its format must be “{FORMAT}”."
        return [Fault(path="format", code="not_a_choice", title="The file", says=says)]
    if raw.get("version") != VERSION or isinstance(raw.get("version"), bool):
        says = f"has version {str(raw.get('version'))[:20]}; version {VERSION} is read here."
        return [Fault(path="version", code="not_a_choice", title="The file", says=says)]
    return [*_unknown(raw), *_not_lists(raw)]


def _unknown(raw: dict[str, Any]) -> list[Fault]:
    return [
        Fault(
            path=name[:60],
            code="unknown_field",
            title=f"“{name[:60]}”",
            says="is not a field here.",
        )
        for name in raw
        if name not in _HEAD
    ]


def _not_lists(raw: dict[str, Any]) -> list[Fault]:
    return [
        Fault(path=name, code="not_a_list", title=name.capitalize(), says="must be a list.")
        for name in _LISTS
        if not isinstance(raw.get(name, []), list) or (name == "sites" and raw.get(name) is None)
    ]
