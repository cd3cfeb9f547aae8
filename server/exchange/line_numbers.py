"""Where the pieces of an archive stand in its text, so that a fault is found in an editor."""

import json
import re
from collections.abc import Iterator

__all__ = ["lines_of"]

_SPACE = re.compile(r"\s*")
_DECODER = json.JSONDecoder()


def lines_of(text: str) -> dict[str, int]:
    """The line (from 1) at which each piece begins, by path; `text` is an archive that was read
    without fault."""
    lines: dict[str, int] = {}
    line = done = 0
    for path, at in sorted(_starts(text, _skip(text, 0)), key=lambda each: each[1]):
        line += text.count("\n", done, at)
        done = at
        lines[path] = line + 1
    return lines


def _starts(text: str, root: int) -> Iterator[tuple[str, int]]:
    for name, at in _members(text, root):
        if name == "practice":
            yield name, at
        elif name in ("gauges", "references"):
            yield from ((f"{name}.{k}", item) for k, item in enumerate(_items(text, at)))
        elif name == "sites":
            for k, site in enumerate(_items(text, at)):
                yield f"sites.{k}", site
                yield from ((f"sites.{k}.{path}", at) for path, at in _on_site(text, site))


def _on_site(text: str, site: int) -> Iterator[tuple[str, int]]:
    for name, at in _members(text, site):
        if name in ("systems", "switches"):
            yield from ((f"{name}.{n}", item) for n, item in enumerate(_items(text, at)))


def _members(text: str, at: int) -> Iterator[tuple[str, int]]:
    """The names of an object's members and where their values begin; none where there is no
    object."""
    if text[at] != "{":
        return
    at = _skip(text, at + 1)
    while text[at] != "}":
        name, at = _DECODER.raw_decode(text, at)
        value = _skip(text, _skip(text, at) + 1)
        yield name, value
        at = _next(text, _DECODER.raw_decode(text, value)[1])


def _items(text: str, at: int) -> Iterator[int]:
    """Where the items of a list begin; none where there is no list."""
    if text[at] != "[":
        return
    at = _skip(text, at + 1)
    while text[at] != "]":
        yield at
        at = _next(text, _DECODER.raw_decode(text, at)[1])


def _skip(text: str, at: int) -> int:
    return _SPACE.match(text, at).end()  # type: ignore[union-attr]


def _next(text: str, at: int) -> int:
    """Past a comma, or at the bracket that closes."""
    at = _skip(text, at)
    return _skip(text, at + 1) if text[at] == "," else at
