"""A file to begin with for each kind of system: usual values, to be replaced by what is read on
site."""

from collections.abc import Iterator, Mapping
from copy import deepcopy
from typing import Any

from zerodip.fileformat.document import FORMAT, VERSION
from zerodip.kinds.registry import KINDS

__all__ = ["template_file"]


def template_file(kind: str, name: str) -> dict[str, Any]:
    """A file as plain values for `read_document`, with the workspace's practice; every value is
    marked as assumed, as are those that the kind calls `unread`. Values are common practice, no
    source: a 40/60 switch, a 44 gal tank, a receiver of 60 gal. Raises KeyError for a kind that is
    not registered."""
    template = deepcopy(KINDS[kind].template)
    assumed = [*_paths("system", template["system"]), *_paths("settings", template["settings"])]
    return {
        "format": FORMAT,
        "version": VERSION,
        "system": {
            "kind": kind,
            "name": name,
            "assumed": dict.fromkeys(sorted({*assumed, *KINDS[kind].unread}), True),
            **template["system"],
        },
        "settings": template["settings"],
        "practice": {"follows": "workspace"},
    }


def _paths(under: str, value: Any) -> Iterator[str]:
    """The paths of all quantities at and below a value."""
    if isinstance(value, Mapping):
        for name, part in value.items():
            yield from _paths(f"{under}.{name}", part)
    elif isinstance(value, list):
        for at, part in enumerate(value):
            yield from _paths(f"{under}.{at}", part)
    elif isinstance(value, int | float):
        yield under
